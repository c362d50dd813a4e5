namespace Tensarch.Core.Skills;

/// <summary>The way out is taught before the way in.</summary>
public static class WayOut
{
    /// <summary>
    /// Every exit that the stages below ask for has been shown, however long ago: an override or a placing past a gate does not make a
    /// way in safe. True where the stages below ask for none.
    /// </summary>
    public static bool Shown(Gate gate, Ladder ladder, Side? side, int stage, Evidence evidence) =>
        (
            from below in ladder.Stages
            where below.Number < stage
            from test in ladder.GateOf(below.Number).OfType<ExitCriterion>()
            from verdict in gate.JudgeTest(test, ladder, below.Number, side, evidence)
            select verdict.Count >= verdict.Needed
        ).All(shown => shown);
}
