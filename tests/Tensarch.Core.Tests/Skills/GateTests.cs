using CsCheck;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Core.Tests.Planning;

namespace Tensarch.Core.Tests.Skills;

public class GateTests
{
    private static readonly Gate Gate = new(Shipped.Content);
    private static readonly Ladder Ladder = Shipped.FrontSplit;

    /// <summary>Everything that stage 3 asks of the left side.</summary>
    private static Evidence Stage3Left(double gap = 30, double hold = 31, DayBars? bars = null) =>
        Shipped.Evidence(
            [
                Shipped.Read("front-split-gap", Side.Left, 1, [gap, gap, gap]),
                Shipped.Read("active-slr", Side.Left, 1, [80, 80, 80]),
                Shipped.Read("passive-slr", Side.Left, 1, [106, 106, 106]),
            ],
            [Shipped.Set("split-support", "high-only", Side.Left, 2, hold), Shipped.Set("split-support", "high-only", Side.Left, 1, hold)],
            [Shipped.Session(3), Shipped.Session(1)],
            bars: bars
        );

    private static TestVerdict One(ReadinessTest test, int stage, Evidence evidence) =>
        Assert.Single(Gate.JudgeTest(test, Ladder, stage, Side.Left, evidence));

    private static TestVerdict Test(GateVerdict verdict, string kind) => verdict.Tests.First(t => t.Test.Kind == kind);

    [Fact]
    public void All_met_is_open_and_asks_for_the_decision()
    {
        var verdict = Gate.Judge(Ladder, Side.Left, 3, 3, Stage3Left());
        Assert.Equal((GateState.Open, "decide"), (verdict.State, verdict.Next.Code));
        Assert.Equal(verdict.Tests.Count, verdict.MetCount);
    }

    [Fact]
    public void The_leading_side_waits_with_its_tests_still_shown()
    {
        var verdict = Gate.Judge(Ladder, Side.Left, 3, 2, Stage3Left());
        Assert.Equal((GateState.Waiting, "waitsForOtherSide"), (verdict.State, verdict.Reason));
        Assert.Equal(6, verdict.Tests.Count);
        Assert.Equal(GateState.Open, Gate.Judge(Ladder, Side.Left, 3, 4, Stage3Left()).State);
    }

    [Fact]
    public void A_hold_blocks_before_anything_else()
    {
        var held = Shipped.Barred([LoadTag.Hamstring]);
        var verdict = Gate.Judge(Ladder, Side.Left, 3, 2, Stage3Left(bars: held));
        Assert.Equal(GateState.Blocked, verdict.State);
        Assert.Equal([LoadTag.Hamstring], Test(verdict, "clear").OffLimits!);
    }

    [Fact]
    public void No_next_step_asks_for_what_is_held()
    {
        var asked = 0;
        var any =
            from bars in SessionProperties.AnyCautions
            from ladder in Gen.OneOf(Shipped.Content.Skills.ToArray())
            from stage in Gen.Int[1, ladder.Stages.Count]
            from gap in Gen.Double[0, 60]
            select (bars, ladder, stage, Stage3Left(gap, bars: bars));
        any.Sample(x =>
        {
            var (bars, ladder, stage, evidence) = x;
            var verdict = Gate.Judge(ladder, ladder.PerSide ? Side.Left : null, stage, stage, evidence);
            Assert.Equal(verdict.State == GateState.Blocked, verdict.Tests.Any(t => t.Outcome == Outcome.Blocked));
            if (verdict.State == GateState.Blocked)
                Assert.Equal("liftBar", verdict.Next.Code);
            foreach (var test in verdict.Tests.Where(t => t.Outcome != Outcome.Met && t.Next.Code != "liftBar"))
            {
                Interlocked.Increment(ref asked);
                if (test.Test.ReadMeasure is { } measure)
                    Assert.Null(Shipped.Content.Measure(measure).BarredBy(bars));
                if (test.Test.ReadDrill is { } drill && Shipped.Content.Drill(drill) is var d)
                    Assert.Contains(
                        d.Variants,
                        v =>
                            (test.Test.ReadVariant is null || v.Key == test.Test.ReadVariant)
                            && d.LoadsOf(v, d.DoseOf(v)).All(l => l.Value == LoadLevel.None || bars[l.Key] != BarLevel.OffLimits)
                    );
            }
        });
        Assert.True(asked > 0);
    }

    /// <summary>Why a draft ladder is judged only on those who stand where it differs.</summary>
    [Fact]
    public void What_one_stage_asks_says_nothing_about_the_gate_of_another()
    {
        var any =
            from bars in SessionProperties.AnyCautions
            from ladder in Gen.OneOf(Shipped.Content.Skills.ToArray())
            from changed in Gen.Int[1, ladder.Stages.Count]
            from stage in Gen.Int[1, ladder.Stages.Count]
            from gap in Gen.Double[0, 60]
            where stage != changed
            select (ladder, changed, stage, Stage3Left(gap, bars: bars));
        any.Sample(x =>
        {
            var (ladder, changed, stage, evidence) = x;
            var draft = ladder with
            {
                Stages = [.. ladder.Stages.Select(s => s.Number == changed ? s with { Tests = [new ExposureCriterion(60, 180)] } : s)],
            };
            foreach (var side in ladder.Courses)
            {
                var (now, then) = (Gate.Judge(ladder, side, stage, stage, evidence), Gate.Judge(draft, side, stage, stage, evidence));
                Assert.Equal((now.State, now.MetCount, now.Reason), (then.State, then.MetCount, then.Reason));
            }
        });
    }

    [Fact]
    public void Borderline_range_asks_for_a_retest_two_days_after_the_last()
    {
        var verdict = Gate.Judge(Ladder, Side.Left, 3, 3, Stage3Left(gap: 34.5));
        Assert.Equal(GateState.Retest, verdict.State);
        Assert.Equal(("retest", Side.Left, new DateOnly(2026, 3, 4)), (verdict.Next.Code, verdict.Next.Side, verdict.Next.NotBefore));
    }

    [Fact]
    public void A_short_hold_closes_the_gate_and_one_good_hold_is_borderline()
    {
        Assert.Equal(GateState.Closed, Gate.Judge(Ladder, Side.Left, 3, 3, Stage3Left(hold: 29.9)).State);
        var once = Stage3Left() with { Sets = [Shipped.Set("split-support", "high-only", Side.Left, 1, 30)] };
        Assert.Equal(Outcome.Borderline, Test(Gate.Judge(Ladder, Side.Left, 3, 3, once), "hold").Outcome);
    }

    [Theory]
    [InlineData(59, Outcome.Borderline)]
    [InlineData(60, Outcome.Met)]
    public void Two_holds_count_from_a_minute_apart(double seconds, Outcome outcome)
    {
        var evidence = Stage3Left() with
        {
            Sets =
            [
                Shipped.Set("split-support", "high-only", Side.Left, 1, 30),
                Shipped.Set("split-support", "high-only", Side.Left, 1 - seconds / 86400, 30),
            ],
        };
        Assert.Equal(outcome, Test(Gate.Judge(Ladder, Side.Left, 3, 3, evidence), "hold").Outcome);
    }

    [Fact]
    public void Holds_of_an_attempt_count_on_two_days_only()
    {
        var hold = new HoldCriterion("split-attempt", "floor", 30);
        Evidence On(double first, double second) =>
            Shipped.Evidence(
                sets:
                [
                    Shipped.Set("split-attempt", "floor", Side.Left, first, 30),
                    Shipped.Set("split-attempt", "floor", Side.Left, second, 30),
                ]
            );
        Assert.Equal("heldOnOneDay", One(hold, 6, On(1.1, 1)).Reason);
        Assert.Equal(Outcome.Met, One(hold, 6, On(2, 1)).Outcome);
        Assert.Equal(Outcome.Stale, One(hold, 6, On(23, 22)).Outcome);
    }

    [Theory]
    [InlineData(39, Outcome.NotMet)]
    [InlineData(40, Outcome.Met)]
    public void A_long_passive_hold_is_asked_of_the_very_mobile_for_forty_seconds(int seconds, Outcome outcome)
    {
        var hold = new HoldCriterion("split-attempt", "floor", 60);
        var evidence = Shipped.Evidence(
            sets:
            [
                Shipped.Set("split-attempt", "floor", Side.Left, 2, seconds),
                Shipped.Set("split-attempt", "floor", Side.Left, 1, seconds),
            ]
        );
        var mobile = One(hold, 7, evidence with { Bars = Shipped.Bars("very-mobile") });
        Assert.Equal((outcome, 40.0, true), (mobile.Outcome, mobile.Threshold, mobile.Adapted));
        // So it is where the approach promises short holds.
        var brief = One(hold, 7, evidence with { StaysShort = true });
        Assert.Equal((outcome, 40.0, true), (brief.Outcome, brief.Threshold, brief.Adapted));
        var free = One(hold, 7, evidence);
        Assert.Equal((Outcome.NotMet, 60.0, false), (free.Outcome, free.Threshold, free.Adapted));
        // What is no passive hold, and what is short, is asked as it is.
        var squat = new HoldCriterion(Measure: "squat-hold", Seconds: 120);
        Assert.Same(squat, squat.For(null, Shipped.Bars("very-mobile"), true));
    }

    [Fact]
    public void The_rear_hip_is_the_other_sides()
    {
        var evidence = Shipped.Evidence([Shipped.Read("hip-extension", Side.Right, 1, [20, 20, 20])]);
        var left = Gate.Judge(Ladder, Side.Left, 2, 2, evidence).Tests[1];
        var right = Gate.Judge(Ladder, Side.Right, 2, 2, evidence).Tests[1];
        Assert.Equal((Outcome.Met, Side.Right), (left.Outcome, left.ReadOn));
        Assert.Equal((Outcome.NoData, Side.Left), (right.Outcome, right.ReadOn));
    }

    [Fact]
    public void Readings_under_the_other_standard_or_cold_are_not_looked_at()
    {
        var open = Shipped.Read("front-split-gap", Side.Left, 1, [10, 10, 10], standard: "open");
        var cold = Shipped.Read("front-split-gap", Side.Left, 1, [10, 10, 10], warmth: Core.Measuring.Warmth.Cold);
        Assert.Equal(Outcome.NoData, Gate.Judge(Ladder, Side.Left, 3, 3, Shipped.Evidence([open, cold])).Tests[0].Outcome);
    }

    [Fact]
    public void Exposure_counts_sessions_with_the_stages_work_on_the_side_since_the_decision()
    {
        var sessions = Enumerable.Range(0, 4).Select(_ => Guid.NewGuid()).ToList();
        var sets = sessions.Select((s, i) => Shipped.Set("low-lunge", "padded-knee", Side.Left, 8 - 2 * i, 90, session: s)).ToList();
        var calm = Shipped.Set("lie-still", "standard", Side.Left, 0.5, 90, session: Guid.NewGuid());
        TestVerdict Judge(IReadOnlyList<StageDecision> decisions) =>
            Gate.Judge(Ladder, Side.Left, 1, 1, Shipped.Evidence(sets: [.. sets, calm], decisions: decisions)).Tests[0];

        Assert.Equal((Outcome.Met, 4, 7), (Judge([]).Outcome, Judge([]).Count, Judge([]).Days));
        var since = Judge([new(Side.Left, 0, 1, Shipped.Now.AddDays(-7))]);
        Assert.Equal((Outcome.NotMet, 3), (since.Outcome, since.Count));
        Assert.Equal(0, Gate.Judge(Ladder, Side.Right, 1, 1, Shipped.Evidence(sets: sets)).Tests[0].Count);
    }

    [Fact]
    public void Pain_over_three_in_the_last_two_sessions_closes_the_gate()
    {
        var evidence = Stage3Left();
        Assert.Equal(Outcome.Met, Test(Gate.Judge(Ladder, Side.Left, 3, 3, evidence), "pain").Outcome);
        var pain = evidence with { Signals = [Shipped.Pain(LoadTag.Hamstring, 4, 0.9)] };
        Assert.Equal(
            (Outcome.NotMet, 4.0),
            (Test(Gate.Judge(Ladder, Side.Left, 3, 3, pain), "pain").Outcome, Test(Gate.Judge(Ladder, Side.Left, 3, 3, pain), "pain").Value)
        );
        var elsewhere = evidence with { Signals = [Shipped.Pain(LoadTag.Wrist, 6, 0.9), Shipped.Pain(LoadTag.Hamstring, 6, 4)] };
        Assert.Equal(Outcome.Met, Test(Gate.Judge(Ladder, Side.Left, 3, 3, elsewhere), "pain").Outcome);
    }

    /// <summary>A session that hurt is no session free of pain, before there are enough as well, and sharp without a number hurts too.</summary>
    [Fact]
    public void A_session_that_hurt_is_not_counted_as_free_of_pain()
    {
        var one = Shipped.Evidence(sessions: [Shipped.Session(1)]);
        TestVerdict Of(Evidence evidence) => Test(Gate.Judge(Ladder, Side.Left, 3, 3, evidence), "pain");
        var (free, hurt) = (Of(one), Of(one with { Signals = [Shipped.Pain(LoadTag.Hamstring, 7, 0.9)] }));
        Assert.Equal((1, 0), (free.Count, hurt.Count));
        var two = one with
        {
            Sessions = [Shipped.Session(1), Shipped.Session(3)],
            Signals = [new(Guid.NewGuid(), Shipped.Now.AddDays(-0.9), SignalKind.Pinch, LoadTag.Hamstring, Side.Left, null)],
        };
        Assert.Equal((Outcome.NotMet, 1), (Of(two).Outcome, Of(two).Count));
    }

    [Fact]
    public void Form_is_met_when_every_item_was_ticked_at_one_sitting()
    {
        var form = (FormCriterion)Ladder.StageAt(6).Tests[2];
        var all = form.Items.Select(i => i.Key).ToList();
        TestVerdict Judge(params FormCheck[] checks) => One(form, 6, Shipped.Evidence(forms: checks));
        FormCheck Check(double daysAgo, IReadOnlyList<string> ticked) =>
            new(Guid.NewGuid(), Shipped.Now.AddDays(-daysAgo), "front-split", 6, Side.Left, ticked);

        Assert.Equal(Outcome.NoData, Judge().Outcome);
        Assert.Equal(Outcome.NotMet, Judge(Check(2, [.. all.Take(2)]), Check(3, [.. all.Skip(2)])).Outcome);
        Assert.Equal(Outcome.Met, Judge(Check(2, all)).Outcome);
        Assert.Equal(Outcome.Stale, Judge(Check(43, all)).Outcome);
    }

    [Fact]
    public void Symmetry_needs_three_trials_on_both_sides()
    {
        var symmetry = Ladder.StageAt(7).Tests.OfType<SymmetryCriterion>().Single();
        TestVerdict Judge(double[] left, double[] right) =>
            One(
                symmetry,
                7,
                Shipped.Evidence([
                    Shipped.Read("front-split-gap", Side.Left, 1, left),
                    Shipped.Read("front-split-gap", Side.Right, 1, right),
                ])
            );
        Assert.Equal(Outcome.Met, Judge([0, 0, 0], [3, 3, 3]).Outcome);
        Assert.Equal(Outcome.NotMet, Judge([0, 0, 0], [3.1, 3.1, 3.1]).Outcome);
        Assert.Equal(Outcome.Borderline, Judge([0, 0], [3, 3, 3]).Outcome);
    }

    [Fact]
    public void Repetitions_count_clean_ones_in_one_set()
    {
        var reps = (RepsCriterion)Ladder.StageAt(5).Tests[2];
        Outcome Judge(int clean) =>
            One(reps, 5, Shipped.Evidence(sets: [Shipped.Set(reps.Drill, reps.Variant, Side.Left, 1, reps: clean)])).Outcome;
        Assert.Equal((Outcome.NotMet, Outcome.Met), (Judge(2), Judge(3)));
    }

    [Fact]
    public void A_new_student_is_placed_at_the_lowest_stage_with_an_unmet_test()
    {
        var placing = new Placing(Gate);
        Assert.Equal(1, placing.Suggest(Ladder, Side.Left, Shipped.Evidence()).Suggested);
        Evidence At(double slr, double extension) =>
            Shipped.Evidence([
                Shipped.Read("passive-slr", Side.Left, 0.1, [slr, slr, slr]),
                Shipped.Read("hip-extension", Side.Right, 0.1, [extension, extension, extension]),
            ]);
        Assert.Equal(1, placing.Suggest(Ladder, Side.Left, At(70, 5)).Suggested);
        Assert.Equal(2, placing.Suggest(Ladder, Side.Left, At(84, 6)).Suggested);
    }

    [Fact]
    public void A_step_back_is_suggested_after_pain_lost_range_or_a_long_break()
    {
        var stepBack = new StepBack(Shipped.Content);
        IEnumerable<string> Codes(Evidence evidence, int stage = 4) => stepBack.For(Ladder, Side.Left, stage, evidence).Select(r => r.Code);

        Assert.Empty(Codes(Shipped.Evidence(sessions: [Shipped.Session(28)])));
        Assert.Equal(["longBreak"], Codes(Shipped.Evidence(sessions: [Shipped.Session(29)])));
        Assert.Equal(
            ["painEvents"],
            Codes(Shipped.Evidence(signals: [Shipped.Pain(LoadTag.Hamstring, 4, 1), Shipped.Pain(LoadTag.Hamstring, 5, 13)]))
        );
        Assert.Empty(Codes(Shipped.Evidence(signals: [Shipped.Pain(LoadTag.Hamstring, 4, 1), Shipped.Pain(LoadTag.HipFront, 5, 13)])));
        var since = new StageDecision(Side.Left, 3, 4, Shipped.Now.AddDays(-2));
        Assert.Empty(
            Codes(
                Shipped.Evidence(
                    sessions: [Shipped.Session(30)],
                    signals: [Shipped.Pain(LoadTag.Hamstring, 4, 1), Shipped.Pain(LoadTag.Hamstring, 5, 13)],
                    decisions: [since]
                )
            )
        );
        Assert.Empty(Codes(Shipped.Evidence(signals: [Shipped.Pain(LoadTag.Hamstring, 4, 1), Shipped.Pain(LoadTag.Hamstring, 3, 2)])));
        var lost = Shipped.Evidence([
            Shipped.Read("front-split-gap", Side.Left, 5, [39, 39, 39]),
            Shipped.Read("front-split-gap", Side.Left, 1, [39, 39, 39]),
        ]);
        Assert.Equal(["rangeLost"], Codes(lost));
        Assert.Empty(Codes(lost with { Readings = [lost.Readings[0]] }));
        Assert.Empty(Codes(Shipped.Evidence(sessions: [Shipped.Session(40)]), stage: 1));
    }

    [Fact]
    public void What_is_read_in_steps_has_no_noise()
    {
        var squat = Shipped.Ladder("deep-squat");
        TestVerdict Wedge(params double[] trials)
        {
            var evidence = Shipped.Evidence(readings: [Shipped.Read("squat-heel-wedge", null, 1, trials)]);
            return Gate.JudgeStage(squat, 2, null, evidence).Single(t => t.Test is RomCriterion { Measure: "squat-heel-wedge" });
        }
        Assert.Equal(Outcome.Met, Wedge(5, 5, 5).Outcome);
        Assert.Equal(Outcome.Met, Wedge(5).Outcome);
        Assert.Equal(Outcome.NotMet, Wedge(7.5).Outcome);
    }

    [Fact]
    public void What_was_never_reached_or_met_by_an_adaptation_is_not_lost()
    {
        var split = Shipped.FrontSplit;
        IEnumerable<string> Lost(params Reading[] readings) =>
            new StepBack(Shipped.Content)
                .For(split, Side.Left, 5, Shipped.Evidence(readings: readings))
                .Where(r => r.Code == "rangeLost")
                .Select(r => r.Measure!);
        Reading Gap(double daysAgo, double cm) => Shipped.Read("front-split-gap", Side.Left, daysAgo, [cm, cm, cm]);
        Assert.Equal(["front-split-gap"], Lost(Gap(30, 20), Gap(8, 40), Gap(2, 41)));
        Assert.Empty(Lost(Gap(30, 39), Gap(8, 40), Gap(2, 41)));

        var crow = Shipped.Ladder("crow");
        var at = (
            from stage in crow.Stages
            from test in crow.GateOf(stage.Number).OfType<RomCriterion>()
            where test.Adaptation is not null
            select (stage.Number, Test: test)
        ).First();
        Reading Wrist(double daysAgo, double degrees) => Shipped.Read(at.Test.Measure, Side.Left, daysAgo, [degrees, degrees, degrees]);
        var short_ = new[] { Wrist(8, at.Test.Threshold - 40), Wrist(2, at.Test.Threshold - 41) };
        IEnumerable<StepBackReason> Reasons(params FormCheck[] forms) =>
            new StepBack(Shipped.Content).For(crow, null, at.Number + 1, Shipped.Evidence(readings: short_, forms: forms));
        Assert.Contains(Reasons(), r => r.Code == "rangeLost");
        var recorded = new FormCheck(Guid.NewGuid(), Shipped.Now.AddDays(-60), "crow", at.Number, null, [at.Test.Adaptation!.Key]);
        Assert.DoesNotContain(Reasons(recorded), r => r.Code == "rangeLost");
    }
}
