namespace Tensarch.Core.Planning;

/// <summary>Doses: of a first week, after pain, on the way back, and under the ceiling of each drill.</summary>
public static partial class SessionChecker
{
    /// <summary>Rule 7: the first week of a skill uses the first-week dose and no attempts.</summary>
    private static IEnumerable<Violation> FirstWeek(List<Line> lines, Trainee facts)
    {
        foreach (var line in lines.Where(l => l.Course.DaysSinceStart < 7 || facts.WayBack?.BreakDays >= 28))
        {
            if (line.Drill.Kind == DrillKind.Attempt)
                yield return new(7, "attemptInFirstWeek", line.Drill.Key);
            if (line.Side.Dose is RampedDose { ToPercent: > 60 } or RampedDose { Rounds: > 1 } or RampedDose { SettleSeconds: > 60 })
                yield return new(7, "overFirstWeekDose", line.Drill.Key);
        }
    }

    /// <summary>What pain has eased is held half as long.</summary>
    private static IEnumerable<Violation> Settled(List<Line> lines, Trainee facts)
    {
        foreach (var line in lines)
        {
            if (
                line.Planned.Reason.Code != "dayGate"
                && facts.Eased.Any(e => e.Drill == line.Drill.Key && e.SettleShare < 1)
                && line.Side.Dose is RampedDose less
                && line.Drill.DoseOf(line.Variant) is RampedDose usual
                && less.SettleSeconds > usual.SettleSeconds / 2
            )
                yield return new(7, "notEased", line.Drill.Key);
        }
    }

    /// <summary>Of a drill without a ceiling of its own, one round is at most so many times its usual one.</summary>
    private const double PastUsual = 1.5;

    /// <summary>Whatever is usual, so many seconds or repetitions of anything are not too many.</summary>
    private const int NeverTooMany = 45;

    /// <summary>Rule 7: no round is over the ceiling of its drill, but for a test that asks more.</summary>
    private static IEnumerable<Violation> Ceilings(List<Line> lines)
    {
        static int Round(Dose dose) =>
            dose switch
            {
                HoldDose d => d.Seconds ?? d.Breaths ?? 0,
                RampedDose d => Math.Max(d.SettleSeconds, d.ResettleSeconds),
                SupportLadderDose d => d.Rungs[^1].Seconds,
                AttemptsDose d => d.MaxSeconds,
                RepsDose d => d.Reps,
                RhythmDose d => d.Reps,
                _ => 0,
            };
        foreach (
            var line in lines.Where(l =>
                l.Planned.Reason.Code != "dayGate" && l.Drill.Kind is not (DrillKind.Raise or DrillKind.Calm or DrillKind.Counter)
            )
        )
        {
            var round = Round(line.Side.Dose);
            var usual = line.Drill.DoseOf(line.Variant);
            var ceiling =
                line.Drill.Ceiling
                ?? (
                    usual.GetType() == line.Side.Dose.GetType() ? Math.Max(NeverTooMany, (int)(PastUsual * Round(usual)))
                    : line.Side.Dose is HoldDose ? 60
                    : NeverTooMany
                );
            var asked = line.Planned.Reason is { Code: "gateAsksHold" or "gateAsksReps", Number: { } number } ? number : 0;
            if (round > Math.Max(ceiling, asked))
                yield return new(7, "overCeiling", line.Drill.Key);
        }
    }
}
