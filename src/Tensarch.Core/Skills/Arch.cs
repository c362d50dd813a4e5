namespace Tensarch.Core.Skills;

/// <summary>How a stone of the arch is drawn.</summary>
public enum StoneLook
{
    Met,
    Borderline,
    NotMet,

    /// <summary>No data, or stale.</summary>
    NoData,
    Blocked,

    /// <summary>Not reached yet.</summary>
    Ahead,
}

/// <summary>One stage on one side; a course across both halves on a bilateral ladder.</summary>
/// <param name="Side">None for a course.</param>
/// <param name="Here">The student stands at this stage.</param>
/// <param name="Waiting">The side waits for the other one.</param>
/// <param name="FilledShare">Share of the gate's tests that are met, 0 to 1.</param>
public sealed record Stone(Side? Side, int Stage, StoneLook Look, bool Here, bool Waiting, double FilledShare);

/// <summary>A skill drawn as a stone arch: the left half is the left side, a pair of stones a stage, the keystone the skill.</summary>
public static class Arch
{
    /// <param name="verdicts">Left and right, or the one bilateral verdict.</param>
    public static IReadOnlyList<Stone> Of(Ladder ladder, IReadOnlyList<GateVerdict> verdicts) =>
        [.. verdicts.SelectMany(verdict => ladder.Stages.Select(stage => Stone(stage.Number, verdict)))];

    private static Stone Stone(int stage, GateVerdict verdict)
    {
        if (stage < verdict.Stage)
            return new(verdict.Side, stage, StoneLook.Met, false, false, 1);
        if (stage > verdict.Stage)
            return new(verdict.Side, stage, StoneLook.Ahead, false, false, 0);
        return new(
            verdict.Side,
            stage,
            LookOf(verdict),
            true,
            verdict.State == GateState.Waiting,
            (double)verdict.MetCount / verdict.Tests.Count
        );
    }

    private static StoneLook LookOf(GateVerdict verdict)
    {
        var worst = verdict.Tests.MaxBy(t => t.Outcome.Rank())!.Outcome;
        return worst switch
        {
            Outcome.Met => StoneLook.Met,
            Outcome.Borderline => StoneLook.Borderline,
            Outcome.Stale => verdict.Tests.Any(t => t.Outcome == Outcome.Borderline) ? StoneLook.Borderline : StoneLook.NoData,
            Outcome.NoData => StoneLook.NoData,
            Outcome.NotMet => StoneLook.NotMet,
            _ => StoneLook.Blocked,
        };
    }
}
