namespace Tensarch.Core.Programmes;

/// <summary>More time that would fit more of what goals ask for; worked out by planning with it.</summary>
/// <param name="Minutes">More for each session; or, with a weekday, of one more session a week.</param>
/// <param name="Left">Exposures that would still be missing in those weeks.</param>
public sealed record MoreTime(DayOfWeek? Weekday, int Minutes, int Left);

/// <param name="Missing">Exposures that are missing as it is.</param>
/// <param name="Weeks">So many from the first planned week on were looked at.</param>
/// <param name="Would">The least that fits most: longer sessions, one more day. Empty where neither fits any more.</param>
public sealed record Room(int Missing, int Weeks, IReadOnlyList<MoreTime> Would);

/// <summary>Asks how many minutes or days more would do.</summary>
public sealed class RoomFinder(Planner planner, int pieceWeeks)
{
    private static readonly int[] Minutes = [10, 20, 30];
    private const int MostMinutes = 120;
    private const int MostDays = 3;

    /// <returns>What would make room; the planner's problems where the programme as it is has no plan.</returns>
    public Result<Room> Find(PlanFor made, CancellationToken ct = default)
    {
        // As far as the first piece that is short of something; what is true of it is mostly true of those after it.
        for (var end = EndOfPiece(made.Programme.WeekOf(made.From)); ; end += pieceWeeks)
        {
            var weeks = Math.Min(end, made.Programme.Weeks);
            var asked = made with { Programme = made.Programme with { Weeks = weeks } };
            var plan = planner.Plan(asked, ct);
            if (!plan.IsOk)
                return plan.Problems.ToList();
            var missing = Missing(plan.Value);
            if (missing > 0)
                return new Room(missing, weeks, [.. Longer(asked, missing, ct), .. OneMore(asked, missing, ct)]);
            if (weeks == made.Programme.Weeks)
                return new Room(0, weeks, []);
        }
    }

    private int EndOfPiece(int week) => (week / pieceWeeks + 1) * pieceWeeks;

    private static int Missing(ProgrammePlan plan) => plan.ShortWeeks.Sum(w => w.Asked - w.Has);

    private int? With(PlanFor asked, IEnumerable<TrainingSlot> slots, CancellationToken ct)
    {
        var plan = planner.Plan(asked with { Programme = asked.Programme with { Slots = [.. slots] } }, ct);
        return plan.IsOk ? Missing(plan.Value) : null;
    }

    private IEnumerable<MoreTime> Longer(PlanFor asked, int missing, CancellationToken ct)
    {
        MoreTime? best = null;
        foreach (var minutes in Minutes)
        {
            var slots = asked.Programme.Slots.Select(s => s with { Minutes = Math.Min(MostMinutes, s.Minutes + minutes) });
            if (With(asked, slots, ct) is { } left && left < (best?.Left ?? missing))
                best = new(null, minutes, left);
            if (best?.Left == 0)
                break;
        }
        return best is null ? [] : [best];
    }

    /// <summary>One more session a week, as long as the others mostly are: on the free weekdays that stand furthest from those that are taken.</summary>
    private IEnumerable<MoreTime> OneMore(PlanFor asked, int missing, CancellationToken ct)
    {
        var slots = asked.Programme.Slots;
        var usual = slots.Select(s => s.Minutes).Order().ElementAt(slots.Count / 2);
        var taken = slots.GroupBy(s => s.Day.DayOfWeek).Where(g => 2 * g.Count() >= asked.Programme.Weeks).Select(g => g.Key).ToHashSet();
        int Apart(DayOfWeek day) => taken.Count == 0 ? 7 : taken.Min(t => Math.Min((day - t + 7) % 7, (t - day + 7) % 7));
        MoreTime? best = null;
        foreach (var day in Enum.GetValues<DayOfWeek>().Where(d => !taken.Contains(d)).OrderByDescending(Apart).Take(MostDays))
        {
            var more = Enumerable
                .Range(0, 7 * asked.Programme.Weeks)
                .Select(i => asked.Programme.Start.AddDays(i))
                .Where(d => d.DayOfWeek == day && d >= asked.From && slots.All(s => s.Day != d))
                .Select(d => new TrainingSlot(d, usual));
            if (With(asked, slots.Concat(more), ct) is { } left && left < (best?.Left ?? missing))
                best = new(day, usual, left);
            if (best?.Left == 0)
                break;
        }
        return best is null ? [] : [best];
    }
}
