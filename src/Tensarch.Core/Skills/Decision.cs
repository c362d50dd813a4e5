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
}

/// <summary>What the coach may decide on a gate, and to which stage it leads.</summary>
public static class Decision
{
    public const int ShortestReason = 10;

    /// <returns>
    /// The stage the side is at afterwards; or <c>gateNotOpen</c>, <c>heldTag</c>, <c>waitsForOtherSide</c>, <c>reasonTooShort</c>,
    /// <c>atFirstStage</c>, <c>atLastStage</c>, <c>placeOnce</c>. Nothing, an override included, passes a hold.
    /// </returns>
    public static Result<int> Take(DecisionKind kind, GateVerdict verdict, string? reason) =>
        kind switch
        {
            DecisionKind.Stay => verdict.Stage,
            DecisionKind.StepBack when verdict.Stage <= 1 => Problem.Of("atFirstStage", "kind"),
            DecisionKind.StepBack => verdict.Stage - 1,
            DecisionKind.Place => Problem.Of("placeOnce", "kind"),
            _ when verdict.State == GateState.Owned => Problem.Of("atLastStage", "kind"),
            _ when verdict.State == GateState.Blocked => Problem.Of("heldTag", "kind"),
            DecisionKind.Advance when verdict.State == GateState.Waiting => Problem.Of("waitsForOtherSide", "kind"),
            DecisionKind.Advance when verdict.State != GateState.Open => Problem.Of("gateNotOpen", "kind"),
            DecisionKind.Override when (reason?.Trim().Length ?? 0) < ShortestReason => Problem.Of(
                "reasonTooShort",
                "reason",
                ("least", ShortestReason)
            ),
            _ => verdict.Stage + 1,
        };
}
