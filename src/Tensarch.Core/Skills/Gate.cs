using Tensarch.Core.Catalogue;

namespace Tensarch.Core.Skills;

public enum GateState
{
    Open,
    Retest,
    Closed,
    Waiting,
    Blocked,

    /// <summary>The last gate is behind the student: the skill is owned.</summary>
    Owned,
}

/// <summary>A gate judged on one side.</summary>
/// <param name="Stage">The stage the side is at.</param>
/// <param name="NearestMiss">Index of the unmet test that is closest to being met; none when all are met.</param>
public sealed record GateVerdict(Side Side, int Stage, GateState State, string Reason, IReadOnlyList<TestVerdict> Tests, int? NearestMiss)
{
    public int MetCount => Tests.Count(t => t.Outcome == Outcome.Met);

    /// <summary>What to do next: the nearest miss's step, or the decision itself.</summary>
    public NextStep Next =>
        State switch
        {
            GateState.Open => new("decide", Side),
            GateState.Waiting => new("waitForOtherSide", Side.Other()),
            GateState.Owned => NextStep.Nothing,
            _ => NearestMiss is { } i ? Tests[i].Next : NextStep.Nothing,
        };
}

/// <summary>Judges the gate from a stage to the next. The gate advises; the coach decides.</summary>
public sealed class Gate(CatalogueContent catalogue)
{
    /// <param name="stage">The stage this side is at, 1 to the keystone.</param>
    /// <param name="otherStage">The stage the other side is at.</param>
    public GateVerdict Judge(Ladder ladder, Side side, int stage, int otherStage, Evidence evidence)
    {
        if (stage >= ladder.Keystone)
            return new(side, stage, GateState.Owned, "owned", [], null);

        var tests = ladder.GateOf(stage).Select(t => JudgeTest(t, ladder, stage, side, evidence)).ToList();
        var (state, reason) = State(ladder, stage, otherStage, tests);
        return new(side, stage, state, reason, tests, NearestMiss(tests));
    }

    /// <summary>Judges one test of a stage, on its own.</summary>
    public TestVerdict JudgeTest(ReadinessTest test, Ladder ladder, int stage, Side side, Evidence evidence) =>
        test switch
        {
            RomCriterion t => RangeTests.Rom(t, catalogue.Measure(t.Measure), side, evidence),
            SymmetryCriterion t => RangeTests.Symmetry(t, catalogue.Measure(t.Measure), evidence),
            HoldCriterion t => TrainingTests.Hold(t, catalogue.Drill(t.Drill), side, evidence),
            RepsCriterion t => TrainingTests.Reps(t, side, evidence),
            ExposureCriterion t => TrainingTests.Exposure(t, ladder, stage, side, catalogue.Drills, evidence),
            PainCriterion t => TrainingTests.Pain(t, ladder, evidence),
            FormCriterion t => TrainingTests.Form(t, ladder, stage, side, evidence),
            ClearCriterion t => TrainingTests.Clear(t, ladder, evidence.Cautions),
            _ => throw new ArgumentOutOfRangeException(nameof(test), test, "No such kind of readiness test."),
        };

    private static (GateState, string) State(Ladder ladder, int stage, int otherStage, List<TestVerdict> tests)
    {
        var worst = tests.Max(t => t.Outcome.Rank());
        if (worst == Outcome.Blocked.Rank())
            return (GateState.Blocked, "heldTag");
        if (ladder.PerSide && stage - otherStage >= ladder.LeadLimit)
            return (GateState.Waiting, "waitsForOtherSide");
        return worst switch
        {
            0 => (GateState.Open, "allMet"),
            1 => (GateState.Retest, "withinNoiseOrStale"),
            _ => (GateState.Closed, "testsUnmet"),
        };
    }

    /// <summary>The unmet test with the best outcome, then the smallest shortfall as a share of its threshold.</summary>
    private static int? NearestMiss(List<TestVerdict> tests)
    {
        var unmet = tests.Index().Where(t => t.Item.Outcome != Outcome.Met).ToList();
        return unmet.Count == 0 ? null : unmet.OrderBy(t => t.Item.Outcome.Rank()).ThenBy(t => Shortfall(t.Item)).First().Index;
    }

    private static double Shortfall(TestVerdict test) =>
        test is { Margin: { } margin, Threshold: { } threshold } ? Math.Abs(margin) / Math.Max(1, Math.Abs(threshold)) : double.MaxValue;
}
