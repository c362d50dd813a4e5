namespace Tensarch.Core.Planning;

public static partial class SessionChecker
{
    /// <summary>
    /// Rule 7: at most one step of a drill a week. A ramp has no more effort and no more rounds than the week's step allows; what was done before is
    /// regained, and no growth.
    /// </summary>
    private static IEnumerable<Violation> Growth(List<Line> lines, Trainee facts)
    {
        foreach (var line in lines)
        {
            if (line.Side.Dose is not RampedDose ramp || line.Course.Approach.InsteadOfRamp is not null)
                continue;
            var step = Math.Max(0, facts.StepOf(line.Course) - (IsHeldBack(line, facts) ? 1 : 0));
            var before = facts
                .History.Of(line.Drill.Key)
                .Where(w => w.Day < facts.Date && (w.Work.Side is null || line.Side.Side is null || w.Work.Side == line.Side.Side))
                .ToList();
            var effort =
                step == 0 ? line.Course.Approach.FirstWeekRamp.ToPercent
                : step <= 2 ? EarlyPercent
                : 100;
            // The weaker side has one round more.
            var rounds =
                (
                    step >= 4 ? 3
                    : step >= 2 ? 2
                    : 1
                ) + (line.Side.Side is { } side && side == line.Course.Weaker ? 1 : 0);
            if (
                ramp.ToPercent > effort && ramp.ToPercent > before.Select(w => w.Work.TopPercent).DefaultIfEmpty(0).Max()
                || ramp.Rounds > rounds && Seconds(ramp, line.Breath) > before.Select(w => w.Work.Seconds ?? 0).DefaultIfEmpty(0).Max()
            )
                yield return new(7, "overStep", line.Drill.Key);
        }
    }

    private const int EarlyPercent = 60;

    /// <summary>A region of it felt too much on the day after: it takes no step this week.</summary>
    private static bool IsHeldBack(Line line, Trainee facts) => facts.Eased.Any(e => e.NoStep && IsAbout(e, line));
}
