namespace Tensarch.Core.Planning;

/// <summary>The phases of a session, in order: nerve and balance while fresh, end range before the position, the neck last.</summary>
public enum SessionPhase
{
    Warm,
    Fresh,
    Strong,
    Deep,
    Peak,
    Neck,
    Down,
}

public static class SessionOrder
{
    /// <summary>Tests of day gates close the warm-up, in the order of their own phases.</summary>
    private const int TestRank = 10_000;

    /// <summary>What leads in stands at the head of its phase, in its own order.</summary>
    private const int LeadRank = -1000;

    /// <summary>Where a drill stands in a session: its phase, and its place in it.</summary>
    /// <param name="reason">Why it is there; what is a test of a day gate and nothing else keeps its own place.</param>
    public static (SessionPhase Phase, int Rank) PlaceOf(Drill drill, DrillReason reason) =>
        reason is { LeadsIn: true, Phase: { } head } ? (head, LeadRank + (reason.Number ?? 0))
        : reason.TestsDay && !drill.TestOnly ? (SessionPhase.Warm, TestRank + (int)drill.Phase * 1000 + drill.Rank)
        : (drill.Phase, drill.Rank);

    /// <summary>Part of what the session is about: from balance while fresh to the neck and its counter.</summary>
    public static bool IsMain(SessionPhase phase) => phase is not (SessionPhase.Warm or SessionPhase.Down);

    /// <summary>The same of a planned drill: what is there as the test of a day gate is not, but for what is a test and nothing else.</summary>
    public static bool IsMain(PlannedDrill planned, Drill drill) => IsMain(PlaceOf(drill, planned.Reason).Phase);
}
