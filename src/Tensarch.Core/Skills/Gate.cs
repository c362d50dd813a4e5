using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;

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

/// <summary>A gate judged on one side, or on a bilateral ladder as a whole.</summary>
/// <param name="Side">None on a bilateral ladder.</param>
/// <param name="Stage">The stage the student is at.</param>
/// <param name="Tests">A test that reads each side stands here twice.</param>
/// <param name="NearestMiss">Index of the unmet test that is closest to being met; none when all are met.</param>
public sealed record GateVerdict(Side? Side, int Stage, GateState State, string Reason, IReadOnlyList<TestVerdict> Tests, int? NearestMiss)
{
    public int MetCount => Tests.Count(t => t.Outcome == Outcome.Met);

    /// <summary>What to do next: the nearest miss's step, or the decision itself. Under a hold, nothing but the hold.</summary>
    public NextStep Next =>
        State switch
        {
            GateState.Open => new("decide", Side),
            GateState.Waiting => new("waitForOtherSide", Side?.Other()),
            GateState.Owned => NextStep.Nothing,
            GateState.Blocked => Tests.First(t => t.Outcome == Outcome.Blocked).Next,
            _ => NearestMiss is { } i ? Tests[i].Next : NextStep.Nothing,
        };

    /// <summary>When a test of it goes stale without a new fact; none when none does.</summary>
    public DateTimeOffset? CountsUntil => Tests.Min(t => t.CountsUntil);
}

/// <summary>Judges the gate from a stage to the next. The gate advises; the coach decides.</summary>
public sealed class Gate(CatalogueContent catalogue)
{
    /// <summary>Judges the gate of the stage that a course of the ladder is at.</summary>
    /// <param name="side">None on a bilateral ladder.</param>
    public GateVerdict Judge(Ladder ladder, Side? side, Evidence evidence) =>
        Judge(ladder, side, evidence.StageOf(side), evidence.StageOf(side?.Other()), evidence);

    /// <param name="stage">The stage this side is at, 1 to the keystone.</param>
    /// <param name="otherStage">The stage the other side is at; not looked at on a bilateral ladder.</param>
    public GateVerdict Judge(Ladder ladder, Side? side, int stage, int otherStage, Evidence evidence)
    {
        if (stage >= ladder.Keystone)
            return new(side, stage, GateState.Owned, "owned", [], null);

        var tests = JudgeStage(ladder, stage, side, evidence);
        var (state, reason) = State(ladder, stage, otherStage, tests);
        return new(side, stage, state, reason, tests, NearestMiss(tests));
    }

    /// <summary>Judges every test of a stage, whether anyone is there or not.</summary>
    public IReadOnlyList<TestVerdict> JudgeStage(Ladder ladder, int stage, Side? side, Evidence evidence) =>
        [.. ladder.GateOf(stage).SelectMany(t => JudgeTest(t, ladder, stage, side, evidence))];

    /// <summary>Judges one test on every limb that it reads: two verdicts where it reads each side, else one.</summary>
    public IReadOnlyList<TestVerdict> JudgeTest(ReadinessTest test, Ladder ladder, int stage, Side? side, Evidence evidence)
    {
        var verdicts = test.ReadFrom.ReadFor(side).Select(read => JudgeLimb(test, ladder, stage, read, evidence)).ToList();
        if (test.ReadFrom == Limb.BetterSide)
            verdicts = [verdicts.OrderBy(v => v.Outcome.Rank()).ThenByDescending(v => v.Margin ?? double.MinValue).First()];
        // What a caution keeps off today is nobody's next step: the hold is.
        return MayBeTried(test, ladder, stage, evidence.Bars, evidence.Body.BreathSeconds)
            ? verdicts
            : [.. verdicts.Select(v => v.Outcome == Outcome.Met ? v : v with { Next = new("liftBar") })];
    }

    /// <summary>Whether the bars of today let anyone try a test: nothing that is held is read, held or shown, on the bench or anywhere.</summary>
    public bool MayBeTried(ReadinessTest test, Ladder ladder, int stage, DayBars bars, double breathSeconds)
    {
        if (test is FormCriterion)
            return ladder.RequiredAt(stage).All(t => bars[t] != BarLevel.OffLimits);
        if (MeasureOf(test) is { } measure)
            return measure.BarredBy(bars) is null;
        if (test is ExitCriterion exit)
            return exit.Ways.Any(w => catalogue.Drill(w.Drill).MayBeDone(w.Variant, bars, breathSeconds));
        return test.ReadDrill is not { } drill || catalogue.Drill(drill).MayBeDone(test.ReadVariant, bars, breathSeconds);
    }

    private TestVerdict JudgeLimb(ReadinessTest test, Ladder ladder, int stage, Side? read, Evidence evidence) =>
        test switch
        {
            RomCriterion t => RangeTests.Rom(t, catalogue.Measure(t.Measure), read, evidence),
            SymmetryCriterion t => SymmetryTests.Symmetry(t, MeasureOf(t), evidence),
            HoldCriterion t => HoldTests.Hold(t, MeasureOf(t), t.Drill is { } drill ? catalogue.Drill(drill) : null, read, evidence),
            RepsCriterion t => CountTests.Reps(t, read, evidence),
            RateCriterion t => CountTests.Rate(t, catalogue.Measure(t.Measure), read, evidence),
            ExposureCriterion t => TrainingTests.Exposure(t, ladder, stage, read, catalogue.Drills, evidence),
            PainCriterion t => TrainingTests.Pain(t, ladder, evidence),
            FormCriterion t => ShownTests.Form(t, ladder, stage, read, evidence),
            ExitCriterion t => ShownTests.Exit(t, read, evidence),
            ClearCriterion t => ShownTests.Clear(t, ladder, stage, evidence.Bars),
            _ => throw new ArgumentOutOfRangeException(nameof(test), test, "No such kind of readiness test."),
        };

    private Measure? MeasureOf(ReadinessTest test) => test.ReadMeasure is { } key ? catalogue.Measure(key) : null;

    private static (GateState, string) State(Ladder ladder, int stage, int otherStage, IReadOnlyList<TestVerdict> tests)
    {
        var worst = tests.Max(t => t.Outcome.Rank());
        if (worst == Outcome.Blocked.Rank())
            return (GateState.Blocked, "offLimits");
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
    private static int? NearestMiss(IReadOnlyList<TestVerdict> tests)
    {
        var unmet = tests.Index().Where(t => t.Item.Outcome != Outcome.Met).ToList();
        return unmet.Count == 0 ? null : unmet.OrderBy(t => t.Item.Outcome.Rank()).ThenBy(t => Shortfall(t.Item)).First().Index;
    }

    private static double Shortfall(TestVerdict test) =>
        test is { Margin: { } margin, Threshold: { } threshold } ? Math.Abs(margin) / Math.Max(1, Math.Abs(threshold)) : double.MaxValue;
}
