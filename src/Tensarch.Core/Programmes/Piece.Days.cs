using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Programmes;

/// <summary>From the solver's answer to the sessions as they are.</summary>
internal sealed partial class Piece
{
    /// <summary>
    /// The sessions as they are chosen; then each in turn made anew with its own turn among equals, where that serves as the chosen one does and
    /// no week's load, nor what it leaves to the weeks after it, is in the way.
    /// </summary>
    /// <param name="wrong">
    /// A slot of the problem whose choice is not for who its student will be by then, and has nothing in its place: it was made for somebody who had
    /// trained more by then. -1 where there is none.
    /// </param>
    public IReadOnlyList<PlanDay> Days(PieceAnswer answer, out int wrong)
    {
        wrong = -1;
        var days = Chosen(answer).ToList();
        var ahead = before.ToList();
        var slot = -1;
        for (var i = 0; i < days.Count; i++)
        {
            var day = days[i];
            if (day.Offer is not { } chosen)
                continue;
            slot++;
            if (LockOf(day.Slot) is null)
            {
                var who = Outlook.On(made.Facts(day.Slot.Day, day.Slot.Minutes - day.TestMinutes), ahead, content);
                var stands = SessionChecker.Check(chosen.Plan, who, content).Count == 0;
                if (
                    Anew(who, chosen) is { } turned
                    && (!stands || Serves(turned, chosen))
                    && WithinCeilings([.. days.Take(i), day with { Offer = turned }, .. days.Skip(i + 1)])
                )
                    days[i] = day with { Offer = turned };
                else if (!stands)
                {
                    wrong = slot;
                    return days;
                }
                else
                    days[i] = day with { Offer = Turned(who, chosen) };
            }
            ahead.Add(AheadOf(days[i]));
        }
        return days;
    }

    /// <summary>The problem without a choice of a slot.</summary>
    public PieceProblem Without(PieceProblem problem, int slot, int choice)
    {
        static List<T> Left<T>(IReadOnlyList<T> of, int at) => [.. of.Where((_, i) => i != at)];
        var place = slots.Index().Where(s => s.Item.Offers.Count > 0).ElementAt(slot).Index;
        slots[place] = slots[place] with { Offers = Left(slots[place].Offers, choice) };
        var left = problem.Slots[slot] with { Choices = Left(problem.Slots[slot].Choices, choice) };
        return problem with { Slots = [.. problem.Slots.Select((s, i) => i == slot ? left : s).Where(s => s.Choices.Count > 0)] };
    }

    private IEnumerable<PlanDay> Chosen(PieceAnswer answer)
    {
        var at = 0;
        foreach (var (slot, week, offers) in slots)
        {
            if (offers.Count == 0)
            {
                yield return new(slot, week, ceiling.IsBackOff(week), null, 0);
                continue;
            }
            var chosen = offers[answer.Chosen[at++]];
            var testMinutes = slot.Minutes - menu.MinutesLeft(slot.Minutes, chosen.Ask);
            yield return new(slot, week, ceiling.IsBackOff(week), chosen with { Plan = chosen.Plan with { Date = slot.Day } }, testMinutes);
        }
    }

    /// <summary>The same is asked of the day as it will be; and it is no more of anything than what was chosen.</summary>
    private DayOffer? Anew(Trainee who, DayOffer chosen) =>
        menu.Assembler.Of(who, chosen.Ask, DayMenu.AsMuchAs(chosen.Load)) is { } turned
        && !turned.Load.Heavy.Except(chosen.Load.Heavy).Any()
        && turned.Spacing.All(s => chosen.Spacing.GetValueOrDefault(s.Key) >= s.Value)
        && SessionChecker.Check(turned.Plan, who, content).Count == 0
            ? turned
            : null;

    private DayOffer Turned(Trainee who, DayOffer chosen)
    {
        var turned = FirstSides.Turned(chosen.Plan, who);
        return ReferenceEquals(turned, chosen.Plan) ? chosen : menu.Assembler.Read(turned, who, chosen.Ask);
    }

    private bool WithinCeilings(IReadOnlyList<PlanDay> days)
    {
        var loads = weeks.ToDictionary(
            w => w,
            w =>
                days.Where(d => d.Week == w && d.Offer is not null)
                    .Aggregate(history.Week(ceiling.StartOf(w)), (sum, d) => sum.Plus(d.Offer!.Load))
        );
        LoadLedger Load(int week) => loads.GetValueOrDefault(week) ?? history.Week(ceiling.StartOf(week));
        DateOnly? Last(int week) =>
            days.Where(d => d.Offer is not null)
                .Select(d => d.Slot.Day)
                .Concat(history.Days.Select(d => d.Day))
                .Where(d => d < ceiling.StartOf(week))
                .Select(d => (DateOnly?)d)
                .Max();
        return weeks.All(week =>
        {
            var last = Last(week);
            return DayMenu.Keys.All(key => loads[week][key] <= ceiling.Of(key.Tag, week, at => Load(at)[key], last));
        });
    }

    private static bool Serves(DayOffer turned, DayOffer chosen) =>
        !chosen.Exposed.Except(turned.Exposed).Any() && turned.Seconds >= chosen.Seconds - ShorterAtMost;

    /// <summary>A turn may leave the session so many seconds shorter.</summary>
    private const int ShorterAtMost = 120;
}
