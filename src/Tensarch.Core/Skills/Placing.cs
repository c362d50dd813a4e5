namespace Tensarch.Core.Skills;

/// <summary>Suggests where a new student starts on a ladder; the coach confirms.</summary>
public sealed class Placing(Gate gate)
{
    /// <summary>The lowest stage with an unmet test other than exposure and pain; a form that has not been shown here counts as unmet.</summary>
    public int Suggest(Ladder ladder, Side side, Evidence evidence) =>
        ladder
            .Stages.FirstOrDefault(stage =>
                ladder
                    .GateOf(stage.Number)
                    .Where(t => t is not (ExposureCriterion or PainCriterion))
                    .Any(t => gate.JudgeTest(t, ladder, stage.Number, side, evidence).Outcome != Outcome.Met)
            )
            ?.Number
        ?? ladder.Stages.Count;
}
