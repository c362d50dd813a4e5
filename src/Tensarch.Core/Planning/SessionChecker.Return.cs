using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What a break or pain makes shorter. Source: planning rules, missed sessions; stop rules, pain events.</summary>
public static partial class SessionChecker
{
    private const double AnyRounding = 1e-9;

    /// <summary>
    /// On the way back, and after pain that was reviewed, one round of anything that is trained is shorter than it would be without: what was planned
    /// before, or for a student who had trained meanwhile, is not run as it is.
    /// </summary>
    private static IEnumerable<Violation> Lighter(List<Line> lines, Trainee facts)
    {
        foreach (var line in lines.Where(l => l.Planned.Reason.Code != "dayGate"))
        {
            var returning = line.Drill.Kind is DrillKind.Raise or DrillKind.Prepare or DrillKind.Calm ? 1 : facts.WayBack?.DoseShare ?? 1;
            var eased = facts.Eased.Where(e => IsAbout(e, line)).Select(e => e.DoseShare).DefaultIfEmpty(1).Min();
            var share = Math.Min(returning, eased);
            if (
                share < 1
                && (
                    line.Side.Dose is RampedDose ramp
                        ? IsLong(ramp, line, share)
                        : RoundOf(line.Side.Dose) > Cut(WholeRound(line, facts), share)
                )
            )
                yield return new(7, eased < returning ? "notEased" : "overReturnDose", line.Drill.Key);
        }
    }

    private static bool IsAbout(Eased eased, Line line) =>
        eased is { Drill: null, Region: null }
        || eased.Drill == line.Drill.Key
        || eased.Region is { } region && line.Drill.Loads.GetValueOrDefault(region) != LoadLevel.None;

    private static bool IsLong(RampedDose ramp, Line line, double share) =>
        line.Drill.DoseOf(line.Variant) is RampedDose whole
        && line.Course.DaysSinceStart >= 7
        && ramp.SettleSeconds > Math.Max(60, whole.SettleSeconds * share + AnyRounding);

    /// <summary>Whole seconds or repetitions, one at least.</summary>
    private static int Cut(int whole, double share) => Math.Max(1, (int)Math.Floor(whole * share + AnyRounding));

    /// <summary>One round: in seconds of holding, in breaths or in repetitions; of a ladder all rungs, of several positions the longest.</summary>
    private static int RoundOf(Dose dose) =>
        dose switch
        {
            HoldDose d => d.Seconds ?? d.Breaths ?? 0,
            SupportLadderDose d => d.Rungs.Sum(r => r.Seconds),
            AttemptsDose d => d.MaxSeconds,
            RepsDose d => d.Reps,
            RhythmDose d => d.Reps,
            FlowDose d => d.Positions.Max(p => p.Seconds ?? 0),
            _ => 0,
        };

    /// <summary>The longest round that would be planned without a break: the usual one, or practice toward what the gate asks for.</summary>
    private static int WholeRound(Line line, Trainee facts)
    {
        var usual = line.Drill.DoseOf(line.Variant);
        var whole =
            usual.GetType() == line.Side.Dose.GetType() ? RoundOf(usual)
            : line.Course.Approach.InsteadOfRamp is { } instead ? RoundOf(instead)
            : PlainHold;
        if (line.Planned.Reason is { Code: "gateAsksHold" or "gateAsksReps", Number: { } tested })
            whole = Math.Max(whole, tested);
        if (DrillChoice.Wanted(line.Drill, line.Side.Side, line.Course) is not { } want)
            return whole;
        // In the place of another dose a hold is the test itself, as long as the gate asks.
        if (usual.GetType() != line.Side.Dose.GetType() && want.Test is HoldCriterion { Seconds: { } test })
            whole = Math.Max(whole, test);
        // Of a ladder the last rung is the hold.
        var above = usual is SupportLadderDose ladder ? ladder.Rungs.SkipLast(1).Sum(r => r.Seconds) : 0;
        return Math.Max(whole, above + Practice(want, whole - above, line, facts));
    }

    /// <summary>In the place of a ramp: a hold of so many seconds.</summary>
    private const int PlainHold = 40;

    private static int Practice(Want want, int usual, Line line, Trainee facts) =>
        want.Test switch
        {
            _ when want.Due && want.Test is HoldCriterion { Seconds: { } test } => test,
            RepsCriterion reps => reps.Reps,
            HoldCriterion { Seconds: { } asked } => Math.Max(
                DrillDose.Practised(usual, asked, want.Best, line.Drill.Ceiling),
                line.Drill.IsBalance ? asked : 0
            ),
            HoldCriterion breaths => (int)Math.Ceiling(DrillDose.PastTheGate * breaths.Asked(facts.BreathSeconds) / facts.BreathSeconds),
            _ => 0,
        };
}
