namespace Tensarch.Core.Skills;

public enum DecisionKind
{
    /// <summary>Put on the ladder, at a stage the coach confirmed.</summary>
    Place,
    Advance,
    Stay,
    StepBack,

    /// <summary>Advance although the gate is not open, with a reason.</summary>
    Override,

    /// <summary>Moved to another version of the ladder, or to a coach's copy of it, at a stage that is no higher.</summary>
    Move,
}

/// <summary>What the coach may decide on a gate, and to which stage it leads.</summary>
public static class Decision
{
    public const int ShortestReason = 10;

    /// <returns>
    /// The stage the side is at afterwards; or <c>gateNotOpen</c>, <c>offLimits</c>, <c>waitsForOtherSide</c>, <c>reasonTooShort</c>,
    /// <c>atFirstStage</c>, <c>atLastStage</c>, <c>notHere</c>. Nothing, an override included, passes a bar.
    /// </returns>
    public static Result<int> Take(DecisionKind kind, GateVerdict verdict, string? reason) =>
        kind switch
        {
            DecisionKind.Stay => verdict.Stage,
            DecisionKind.StepBack when verdict.Stage <= 1 => Problem.Of("atFirstStage", "kind"),
            DecisionKind.StepBack => verdict.Stage - 1,
            DecisionKind.Place or DecisionKind.Move => Problem.Of("notHere", "kind"),
            _ when verdict.State == GateState.Owned => Problem.Of("atLastStage", "kind"),
            _ when verdict.State == GateState.Blocked => Problem.Of("offLimits", "kind"),
            DecisionKind.Advance when verdict.State == GateState.Waiting => Problem.Of("waitsForOtherSide", "kind"),
            DecisionKind.Advance when verdict.State != GateState.Open => Problem.Of("gateNotOpen", "kind"),
            DecisionKind.Override when (reason?.Trim().Length ?? 0) < ShortestReason => Problem.Of(
                "reasonTooShort",
                "reason",
                ("least", ShortestReason)
            ),
            _ => verdict.Stage + 1,
        };

    /// <summary>Where moving to another version of a ladder may put a course: it trains no shipped stage above the present one, and equal tests were met below it.</summary>
    /// <returns>The stage; or <c>outOfRange</c>, <c>moveRaises</c> (number: highest). A move is no way around a gate.</returns>
    public static Result<int> Move(Ladder from, int stage, Ladder to, int toStage)
    {
        if (toStage < 1 || toStage > to.Keystone)
            return Problem.Of("outOfRange", "stage", ("value", toStage), ("min", 1), ("max", to.Keystone));
        var highest = HighestAfterMove(from, stage, to);
        return toStage <= highest ? toStage : Problem.Of("moveRaises", "stage", ("highest", highest));
    }

    /// <summary>
    /// The highest stage of the other version that trains no shipped stage above the present one, and below which no gate asks for more than the
    /// gates that were passed did; at least 1. Another version of a shipped ladder moves nobody: what its gates ask anew is asked from here on.
    /// </summary>
    public static int HighestAfterMove(Ladder from, int stage, Ladder to) =>
        from.Key == to.Key && to.Key == to.Skill ? Math.Min(stage, to.Keystone) : HighestOfEqual(from, stage, to);

    private static int HighestOfEqual(Ladder from, int stage, Ladder to) =>
        Enumerable
            .Range(1, to.Keystone)
            .Where(s => s == to.Keystone ? stage >= from.Keystone : to.TrainsAs(s) <= from.TrainsAs(stage) || stage >= from.Keystone)
            .Where(s => EqualTests.Passed(from, stage, to, s))
            .DefaultIfEmpty(1)
            .Max();
}
