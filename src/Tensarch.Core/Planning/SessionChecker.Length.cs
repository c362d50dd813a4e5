namespace Tensarch.Core.Planning;

/// <summary>Lengths, reckoned in another way than the timeline does.</summary>
public static partial class SessionChecker
{
    /// <summary>Length by closed formula, one line at a time.</summary>
    private static int Seconds(Line line, SessionPlan plan)
    {
        var second = line.Planned.Sides.Count == 2 && line.Planned.Sides[1] == line.Side;
        var between = line.Drill.Release is null ? 5 : 15;
        return (second ? between : line.Variant.SetUpSeconds ?? line.Drill.SetUpSeconds)
            + Seconds(line.Side.Dose, plan.BreathSeconds)
            + Leaving(line);
    }

    /// <summary>Out of its position, as often as that is left: what goes on without a rest stays in it.</summary>
    private static int Leaving(Line line) =>
        (line.Variant.Out ?? line.Drill.Out)?.Seconds
            * line.Side.Dose switch
            {
                HoldDose { RestSeconds: > 0 } d => d.Rounds,
                AttemptsDose { RestSeconds: > 0 } d => d.Attempts,
                RepsDose { RestSeconds: > 0 } d => d.Sets,
                SupportLadderDose { RestSeconds: > 0 } d => d.Rounds,
                FlowDose { RestSeconds: > 0 } d => d.Rounds,
                _ => 1,
            }
        ?? 0;

    /// <summary>What of a dose is not rest.</summary>
    private static int Work(Dose dose, double breath) =>
        dose switch
        {
            HoldDose d => Seconds(d with { RestSeconds = 0 }, breath),
            AttemptsDose d => Seconds(d with { RestSeconds = 0 }, breath),
            RepsDose d => Seconds(d with { RestSeconds = 0 }, breath),
            SupportLadderDose d => Seconds(d with { RestSeconds = 0 }, breath),
            FlowDose d => Seconds(d with { RestSeconds = 0 }, breath),
            _ => Seconds(dose, breath),
        };

    private static int Seconds(Dose dose, double breath) =>
        dose switch
        {
            RampedDose d => d.SettleSeconds + d.Rounds * (d.PressSeconds + d.LiftSeconds + d.ResettleSeconds),
            HoldDose d => d.Rounds * (d.Seconds ?? Whole((d.Breaths ?? 1) * breath)) + (d.Rounds - 1) * d.RestSeconds,
            AttemptsDose d => d.Attempts * d.MaxSeconds + (d.Attempts - 1) * d.RestSeconds,
            RepsDose d => d.Sets * d.Reps * d.SecondsPerRep + (d.Sets - 1) * d.RestSeconds,
            RhythmDose d => Whole(d.Reps * breath),
            SupportLadderDose d => d.Rounds * d.Rungs.Sum(r => r.Seconds) + (d.Rounds - 1) * d.RestSeconds,
            FlowDose d => d.Rounds * d.Positions.Sum(p => p.Seconds ?? Whole((p.Breaths ?? 1) * breath)) + (d.Rounds - 1) * d.RestSeconds,
            _ => throw new ArgumentOutOfRangeException(nameof(dose), dose, "No such kind of dose."),
        };

    private static int Whole(double seconds) => (int)Math.Ceiling(seconds - 1e-9);
}
