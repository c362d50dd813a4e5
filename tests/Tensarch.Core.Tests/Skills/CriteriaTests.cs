using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Skills;

/// <summary>The kinds of test beyond the front split's: rates, exits, levels, breaths, straddle angles, limbs.</summary>
public class CriteriaTests
{
    private static readonly Gate Gate = new(Shipped.Content);
    private static readonly Ladder Crow = Shipped.Ladder("crow");
    private static readonly Ladder Handstand = Shipped.Ladder("handstand");

    private static TestVerdict One(ReadinessTest test, Ladder ladder, int stage, Evidence evidence) =>
        Assert.Single(Gate.JudgeTest(test, ladder, stage, null, evidence));

    private static Reading Entries(double daysAgo, int successes, int attempts, Side? side = null, string level = "wall") =>
        Shipped.Read(
            side is null ? "crow-entry-success" : "kick-up-success",
            side,
            daysAgo,
            [100.0 * successes / attempts],
            level: side is null ? null : level,
            tally: new(successes, attempts)
        );

    private static TestVerdict Rate(params Reading[] readings) =>
        One(new RateCriterion("crow-entry-success", 14, 20, Limb.Bilateral), Crow, 5, Shipped.Evidence(readings));

    [Fact]
    public void A_rate_counts_the_latest_attempts_all_of_them_on_two_days()
    {
        Assert.Equal((Outcome.NoData, "noAttempts"), (Rate().Outcome, Rate().Reason));
        Assert.Equal("rateReached", Rate(Entries(3, 7, 10), Entries(1, 7, 10)).Reason);
        Assert.Equal("rateShort", Rate(Entries(3, 6, 10), Entries(1, 7, 10)).Reason);
        Assert.Equal("tooFewAttempts", Rate(Entries(3, 7, 9), Entries(1, 7, 10)).Reason);
        Assert.Equal("countedOnOneDay", Rate(Entries(1, 18, 20)).Reason);
        Assert.Equal("olderThanShelfLife", Rate(Entries(25, 10, 10), Entries(22, 10, 10)).Reason);
    }

    [Fact]
    public void A_rate_leaves_out_no_attempt_of_a_reading_it_needs_and_shows_its_Wilson_interval()
    {
        // Ten of the older fifteen would do; all fifteen are counted.
        var verdict = Rate(Entries(9, 20, 20), Entries(3, 8, 15), Entries(1, 7, 10));
        Assert.Equal((25, 15.0, Outcome.NotMet), (verdict.Count, verdict.Value, verdict.Outcome));
        Assert.Equal(SuccessRate.Of(15, 25).Value, verdict.Rate);
    }

    [Fact]
    public void A_second_day_long_ago_confirms_a_day_with_enough_attempts() =>
        Assert.Equal("rateReached", Rate(Entries(9, 15, 20), Entries(1, 18, 20)).Reason);

    [Fact]
    public void The_better_kicking_leg_counts_and_is_named()
    {
        var test = new RateCriterion("kick-up-success", 10, 20, Limb.BetterSide);
        var verdict = One(
            test,
            Handstand,
            6,
            Shipped.Evidence([
                Entries(3, 2, 10, Side.Left),
                Entries(1, 2, 10, Side.Left),
                Entries(3, 6, 10, Side.Right),
                Entries(1, 6, 10, Side.Right),
            ])
        );
        Assert.Equal((Outcome.Met, Side.Right), (verdict.Outcome, verdict.ReadOn));
    }

    [Fact]
    public void What_is_done_without_help_counts_where_it_is_allowed_and_not_the_other_way_round()
    {
        var (wall, free) = (new RateCriterion("kick-up-success", 10, 20, Limb.BetterSide, Level: "wall"), "free");
        Evidence Kicks(string level) => Shipped.Evidence([Entries(3, 6, 10, Side.Left, level), Entries(1, 6, 10, Side.Left, level)]);
        Assert.Equal(Outcome.Met, One(wall, Handstand, 6, Kicks(free)).Outcome);
        Assert.Equal(Outcome.Met, One(wall, Handstand, 6, Kicks("wall")).Outcome);
        Assert.Equal(Outcome.NoData, One(wall with { Level = free }, Handstand, 7, Kicks("wall")).Outcome);
        // A test from before there were levels reads them all.
        Assert.Equal(Outcome.Met, One(wall with { Level = null }, Handstand, 6, Kicks(free)).Outcome);

        var squat = Shipped.Ladder("deep-squat");
        Evidence Squats(string level) =>
            Shipped.Evidence([
                Shipped.Read("squat-hold", null, 2, [61], level: level),
                Shipped.Read("squat-hold", null, 1, [62], level: level),
            ]);
        var (held, alone) = (squat.StageAt(4).Tests, squat.StageAt(5).Tests);
        Assert.Equal(Outcome.Met, One(held.Single(t => t.ReadMeasure == "squat-hold"), squat, 4, Squats(free)).Outcome);
        Assert.Equal(Outcome.Met, One(alone.Single(t => t.ReadMeasure == "squat-hold"), squat, 5, Squats(free)).Outcome);
        Assert.Equal(Outcome.NoData, One(alone.Single(t => t.ReadMeasure == "squat-hold"), squat, 5, Squats("hands")).Outcome);
    }

    [Fact]
    public void Either_way_out_serves_and_each_is_shown_whole()
    {
        var exit = Handstand.StageAt(3).Tests.OfType<ExitCriterion>().Single();
        ExitCheck Shown(string drill, Side side, int safe) => new(Guid.NewGuid(), Shipped.Now.AddDays(-1), drill, null, side, safe, safe);
        IEnumerable<Outcome> Judged(params ExitCheck[] exits) =>
            Gate.JudgeTest(exit, Handstand, 3, null, Shipped.Evidence(exits: exits)).Select(v => v.Outcome);
        Assert.Equal([Outcome.Met, Outcome.Met], Judged(Shown("exit-wheel", Side.Left, 5), Shown("exit-step", Side.Right, 5)));
        // Three of one and two of the other are none.
        Assert.Equal([Outcome.NotMet, Outcome.NoData], Judged(Shown("exit-wheel", Side.Left, 3), Shown("exit-step", Side.Left, 2)));
    }

    [Fact]
    public void Pulls_off_the_wall_are_counted_over_a_day_each_by_its_seconds()
    {
        var pulls = Handstand.StageAt(5).Tests.OfType<RepsCriterion>().Single();
        TestVerdict Of(params (double DaysAgo, double Seconds)[] done) =>
            One(
                pulls,
                Handstand,
                5,
                Shipped.Evidence(sets: [.. done.Select(d => Shipped.Set("wall-pulls", "toe", null, d.DaysAgo, d.Seconds))])
            );
        (double, double)[] five = [(1.01, 3), (1.02, 4), (1.03, 3), (1.04, 3.5), (1.05, 9)];
        Assert.Equal((Outcome.Met, 5.0), (Of(five).Outcome, Of(five).Value));
        Assert.Equal((Outcome.NotMet, 4.0), (Of([.. five.SkipLast(1), (1.05, 2.9)]).Outcome, Of([.. five.SkipLast(1), (1.05, 2)]).Value));
        Assert.Equal(Outcome.NotMet, Of([.. five.SkipLast(1), (3, 9)]).Outcome);
        // Or counted by the coach, as a set.
        Assert.Equal(
            Outcome.Met,
            One(pulls, Handstand, 5, Shipped.Evidence(sets: [Shipped.Set("wall-pulls", "toe", null, 1, reps: 5)])).Outcome
        );
        // Five free seconds may come out of a pull.
        var free = Handstand.StageAt(6).Tests.OfType<HoldCriterion>().Single();
        var held = Shipped.Evidence(sets: [Shipped.Set("wall-pulls", "heel", null, 2, 5), Shipped.Set("wall-pulls", "heel", null, 1, 6)]);
        Assert.Equal(Outcome.Met, One(free, Handstand, 6, held).Outcome);
        Assert.Equal(Outcome.NoData, One(free with { OrDrill = null }, Handstand, 6, held).Outcome);
    }

    /// <summary>The gates as the job's page has them, one line a change.</summary>
    [Theory]
    [InlineData("deep-squat", 3, "wedge-squat-hold/wedge-2-5 30 s")]
    [InlineData("deep-squat", 4, "squat-hold/hands 45 s")]
    [InlineData("deep-squat", 5, "squat-hold/free 60 s")]
    [InlineData("deep-squat", 6, "squat-hold/free 120 s")]
    [InlineData("handstand", 1, "hollow-hold/tuck 20 s")]
    [InlineData("handstand", 2, "hollow-hold/one-leg 20 s")]
    [InlineData("handstand", 3, "hollow-hold/full 20 s")]
    [InlineData("handstand", 5, "wall-handstand-hold/ 45 s")]
    [InlineData("handstand", 6, "kick-up-success/wall 10 of 20")]
    [InlineData("handstand", 7, "kick-up-success/free 14 of 20")]
    [InlineData("crow", 5, "thoracic-rotation/ 45")]
    [InlineData("side-plank", 1, "protraction/all-fours 8")]
    [InlineData("side-plank", 5, "active-slr/ 75")]
    [InlineData("side-plank", 5, "hip-abduction/ 40")]
    [InlineData("middle-split", 3, "sumo-squat/free 12")]
    [InlineData("middle-split", 3, "straddle-support/high 30 s")]
    [InlineData("middle-split", 4, "straddle-support/middle 45 s")]
    [InlineData("middle-split", 7, "straddle-side-bend/standard 5 breaths")]
    [InlineData("front-split", 4, "active-slr/ 80")]
    [InlineData("front-split", 5, "active-slr/ 95")]
    [InlineData("front-split", 7, "active-slr/ 100")]
    [InlineData("shoulderstand", 1, "low-chest-lift/standard 8")]
    [InlineData("shoulderstand", 2, "bridge-clasp/clasp 5 breaths")]
    [InlineData("shoulderstand", 2, "hollow/head-resting 20 s")]
    public void Every_gate_asks_what_it_should(string ladder, int stage, string asked) =>
        Assert.Single(
            Shipped.Ladder(ladder).StageAt(stage).Tests,
            t =>
                $"{t.ReadDrill ?? t.ReadMeasure}/{t.ReadVariant ?? t.ReadLevel} "
                    + t switch
                    {
                        HoldCriterion { Breaths: { } breaths } => $"{breaths} breaths",
                        HoldCriterion h => $"{h.Seconds} s",
                        RepsCriterion r => $"{r.Reps}",
                        RateCriterion r => $"{r.Successes} of {r.Of}",
                        RomCriterion r => $"{r.Threshold}",
                        _ => "",
                    }
                == asked
        );

    [Fact]
    public void Nothing_that_moved_to_an_earlier_gate_is_asked_twice()
    {
        Assert.DoesNotContain(Crow.StageAt(6).Tests, t => t.ReadMeasure == "thoracic-rotation");
        Assert.DoesNotContain(Shipped.Ladder("side-plank").StageAt(6).Tests, t => t is RomCriterion);
    }

    [Fact]
    public void A_test_on_each_side_is_two_verdicts()
    {
        var evidence = Shipped.Evidence([Shipped.Read("wrist-extension", Side.Left, 1, [95, 95, 95])]);
        var wrists = Gate.JudgeTest(Handstand.StageAt(2).Tests[0], Handstand, 2, null, evidence);
        Assert.Equal([(Side.Left, Outcome.Met), (Side.Right, Outcome.NoData)], wrists.Select(w => (w.ReadOn!.Value, w.Outcome)));
    }

    [Theory]
    [InlineData(new[] { 5, 5 }, "exitShown", 5)]
    [InlineData(new[] { 3, 3, 2, 2 }, "exitShown", 5)]
    [InlineData(new[] { 4, 5 }, "exitIncomplete", 0)]
    [InlineData(new[] { 4, 5, 3, 3 }, "exitIncomplete", 3)]
    [InlineData(new[] { 4, 5, 5, 5 }, "exitShown", 5)]
    [InlineData(new int[0], "exitNotShown", 0)]
    public void An_exit_is_shown_when_the_latest_five_were_all_safe(int[] safeOf, string reason, int count)
    {
        var checks = safeOf
            .Chunk(2)
            .Select((c, i) => new ExitCheck(Guid.NewGuid(), Shipped.Now.AddDays(-10 + i), "crow-step-back", null, null, c[0], c[1]))
            .ToList();
        var verdict = One(Crow.StageAt(3).Tests[2], Crow, 3, Shipped.Evidence(exits: checks));
        Assert.Equal((reason, count), (verdict.Reason, verdict.Count));
    }

    [Fact]
    public void An_exit_goes_stale_but_stays_a_way_out_that_was_shown()
    {
        ExitCheck Shown(double daysAgo, Side side) => new(Guid.NewGuid(), Shipped.Now.AddDays(-daysAgo), "exit-wheel", null, side, 5, 5);
        var old = Shipped.Evidence(exits: [Shown(43, Side.Left), Shown(43, Side.Right)]);
        Assert.All(Gate.JudgeTest(Handstand.StageAt(3).Tests[0], Handstand, 3, null, old), v => Assert.Equal(Outcome.Stale, v.Outcome));
        Assert.True(WayOut.Shown(Gate, Handstand, null, 6, old));
        Assert.False(WayOut.Shown(Gate, Handstand, null, 4, Shipped.Evidence(exits: [Shown(1, Side.Left)])));
        Assert.True(WayOut.Shown(Gate, Handstand, null, 3, Shipped.Evidence()));
    }

    [Fact]
    public void A_way_out_belongs_to_its_drill_and_variant_and_not_to_a_stage()
    {
        var shoulderstand = Shipped.Content.NewestLadder("shoulderstand")!;
        var shown = Shipped.Evidence(exits: [new(Guid.NewGuid(), Shipped.Now.AddDays(-1), "roll-out", null, null, 3, 3)]);
        // A coach's own ladder that asks for the same way out two stages later finds it shown.
        var own = shoulderstand with
        {
            Stages = [.. shoulderstand.Stages.Select(s => s.Number == 3 ? s with { Tests = [] } : s)],
        };
        var asked = shoulderstand.StageAt(3).Tests.OfType<ExitCriterion>().Single();
        Assert.Equal(Outcome.Met, One(asked, own, 5, shown).Outcome);
        // With the head down it is another: what was shown first says nothing about it.
        var headDown = shoulderstand.StageAt(6).Tests.OfType<ExitCriterion>().Single();
        Assert.Equal(Outcome.NoData, One(headDown, shoulderstand, 6, shown).Outcome);
        Assert.False(EqualTests.Covers(asked, headDown));
    }

    [Fact]
    public void Holds_at_another_level_are_not_looked_at()
    {
        var test = new HoldCriterion(Measure: "hollow-hold", Level: "full", Seconds: 30, Limb: Limb.Bilateral);
        Reading Held(string level, double daysAgo, double seconds) => Shipped.Read("hollow-hold", null, daysAgo, [seconds], level: level);
        Assert.Equal("noHolds", One(test, Handstand, 2, Shipped.Evidence([Held("tuck", 2, 60), Held("tuck", 1, 60)])).Reason);
        Assert.Equal("heldTwice", One(test, Handstand, 2, Shipped.Evidence([Held("full", 2, 30), Held("full", 1, 31)])).Reason);
        Assert.Equal("heldOnce", One(test, Handstand, 2, Shipped.Evidence([Held("full", 2, 30), Held("full", 1, 29)])).Reason);
    }

    [Fact]
    public void Trials_of_one_reading_count_apart_only_when_the_bench_saw_the_minute_between_them()
    {
        var test = new HoldCriterion(Measure: "plank-hold", Seconds: 45, Limb: Limb.Bilateral);
        var unseen = Shipped.Read("plank-hold", null, 1, [50, 50]);
        Reading Seen(double apart) => unseen with { TrialsAt = [unseen.At, unseen.At.AddSeconds(apart)] };
        Assert.Equal("heldOnce", One(test, Handstand, 1, Shipped.Evidence([unseen])).Reason);
        Assert.Equal("heldOnce", One(test, Handstand, 1, Shipped.Evidence([Seen(59)])).Reason);
        Assert.Equal("heldTwice", One(test, Handstand, 1, Shipped.Evidence([Seen(60)])).Reason);
    }

    [Fact]
    public void A_hold_in_breaths_asks_for_the_students_own_breath_length()
    {
        var ladder = Shipped.Ladder("shoulderstand");
        var half = ladder.StageAt(3).Tests[0];
        TestVerdict Judge(double breath, double seconds) =>
            One(
                half,
                ladder,
                3,
                Shipped.Evidence(
                    sets:
                    [
                        Shipped.Set("half-shoulderstand", "padded", null, 2, seconds),
                        Shipped.Set("half-shoulderstand", "padded", null, 1, seconds),
                    ],
                    body: new(breath)
                )
            );
        Assert.Equal((27.0, Outcome.Met), (Judge(4.5, 27).Threshold, Judge(4.5, 27).Outcome));
        Assert.Equal((36.0, Outcome.NotMet), (Judge(6, 27).Threshold, Judge(6, 27).Outcome));
    }

    [Fact]
    public void A_hold_during_which_the_breath_was_held_does_not_count()
    {
        var ladder = Shipped.Ladder("shoulderstand");
        var sets = new[] { 2.0, 1.0 }.Select(d => Shipped.Set("legs-up-support", "legs-on-the-wall", null, d, 125)).ToList();
        var held = new BodySignal(Guid.NewGuid(), sets[1].At.AddSeconds(60), SignalKind.BreathHeld, null, null, null);
        Assert.Equal(
            "heldTwice",
            One(ladder.StageAt(1).Tests.OfType<HoldCriterion>().Single(), ladder, 1, Shipped.Evidence(sets: sets)).Reason
        );
        Assert.Equal(
            "heldOnce",
            One(ladder.StageAt(1).Tests.OfType<HoldCriterion>().Single(), ladder, 1, Shipped.Evidence(sets: sets, signals: [held])).Reason
        );
    }

    [Fact]
    public void A_free_handstand_of_thirty_seconds_is_held_on_two_days()
    {
        Reading Held(double daysAgo) => Shipped.Read("free-handstand-hold", null, daysAgo, [31]);
        var test = Handstand.StageAt(8).Tests[0];
        Assert.Equal("heldOnOneDay", One(test, Handstand, 8, Shipped.Evidence([Held(1.1), Held(1)])).Reason);
        Assert.Equal("heldOnTwoDays", One(test, Handstand, 8, Shipped.Evidence([Held(2), Held(1)])).Reason);
    }

    [Fact]
    public void A_straddle_angle_is_judged_in_centimetres_on_the_heel_distance()
    {
        var ladder = Shipped.Ladder("middle-split");
        var test = ladder.StageAt(3).Tests[0];
        TestVerdict Judge(double cm, BodyData? body = null) =>
            One(test, ladder, 3, Shipped.Evidence([Shipped.Read("straddle-heel-distance", null, 1, [cm, cm, cm])], body: body));
        // T_d = 17 + 2·86·sin(115°/2) = 162.06 cm
        Assert.Equal(162.06, Judge(170).Threshold!.Value, 0.01);
        Assert.Equal((Outcome.Met, Outcome.NotMet), (Judge(165).Outcome, Judge(158).Outcome));
        Assert.Equal(Outcome.Borderline, Judge(162.5).Outcome);
        Assert.Equal("legsNotMeasured", Judge(170, new()).Reason);
    }

    [Fact]
    public void A_wedge_is_read_in_steps_without_noise()
    {
        var ladder = Shipped.Ladder("deep-squat");
        TestVerdict Judge(double cm) =>
            One(
                ladder.StageAt(3).Tests[0],
                ladder,
                3,
                Shipped.Evidence([Shipped.Read("squat-heel-wedge", null, 1, [cm, cm, cm], sem: 0, tau: 0)])
            );
        Assert.Equal(("clearPass", "shortOfThreshold"), (Judge(2.5).Reason, Judge(5).Reason));
    }

    [Fact]
    public void A_recorded_wedge_under_the_hands_stands_in_for_the_wrist_range()
    {
        var test = Crow.StageAt(2).Tests[2];
        var short_ = new[] { Side.Left, Side.Right }.Select(s => Shipped.Read("wrist-extension", s, 1, [70, 70, 70])).ToList();
        FormCheck Recorded(double daysAgo) => new(Guid.NewGuid(), Shipped.Now.AddDays(-daysAgo), "crow", 2, null, ["hand-wedge"]);
        IEnumerable<string> Reasons(params FormCheck[] forms) =>
            Gate.JudgeTest(test, Crow, 2, null, Shipped.Evidence(short_, forms: forms)).Select(t => t.Reason).Distinct();
        Assert.Equal(["shortOfThreshold"], Reasons());
        Assert.Equal(["adaptationRecorded"], Reasons(Recorded(1)));
        Assert.Equal(["shortOfThreshold"], Reasons(Recorded(22)));
    }

    [Fact]
    public void Symmetry_of_a_drill_compares_the_best_of_three_holds_a_side()
    {
        var test = Crow.StageAt(3).Tests[1];
        TestVerdict Judge(double[] left, double[] right) =>
            One(
                test,
                Crow,
                3,
                Shipped.Evidence(
                    sets:
                    [
                        .. left.Select((s, i) => Shipped.Set("crow-one-foot", "foot-off", Side.Left, 1 + i, s)),
                        .. right.Select((s, i) => Shipped.Set("crow-one-foot", "foot-off", Side.Right, 1 + i, s)),
                    ]
                )
            );
        Assert.Equal("sidesMatch", Judge([4, 5, 6], [3, 3, 3]).Reason);
        Assert.Equal("sidesDiffer", Judge([4, 5, 7], [3, 3, 3]).Reason);
        Assert.Equal("tooFewTrials", Judge([5, 6], [3, 3, 3]).Reason);
    }

    [Fact]
    public void A_fall_risk_hold_blocks_the_crow_at_the_gate_that_opens_stage_four_and_a_neck_hold_the_way_to_half()
    {
        DayBars Held(LoadTag tag) => Shipped.Barred([tag]);
        GateState State(Ladder ladder, int stage, LoadTag tag) =>
            Gate.Judge(ladder, null, stage, stage, Shipped.Evidence(bars: Held(tag))).State;
        Assert.NotEqual(GateState.Blocked, State(Crow, 2, LoadTag.FallRisk));
        Assert.Equal(GateState.Blocked, State(Crow, 3, LoadTag.FallRisk));
        Assert.Equal(GateState.Blocked, State(Shipped.Ladder("shoulderstand"), 1, LoadTag.Neck));
        Assert.Equal(GateState.Blocked, State(Handstand, 1, LoadTag.Inverted));
    }

    [Fact]
    public void What_counts_says_until_when()
    {
        var read = Shipped.Read("wrist-extension", Side.Left, 3, [95, 95, 95]);
        var verdict = Gate.JudgeTest(Handstand.StageAt(2).Tests[0], Handstand, 2, null, Shipped.Evidence([read]))[0];
        Assert.Equal(read.At.AddDays(21), verdict.CountsUntil);
    }
}
