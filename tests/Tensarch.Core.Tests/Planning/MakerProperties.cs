using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

/// <summary>What is true of any session that is made, beyond the rules that the checker knows.</summary>
public class MakerProperties
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);

    [Fact]
    public void No_round_is_over_the_ceiling_of_its_drill_but_on_a_test_day() =>
        SessionProperties.AnyRequest.Sample(
            request =>
            {
                var plan = Builder.Build(request);
                if (!plan.IsOk)
                    return;
                foreach (var planned in plan.Value.Drills.Where(d => d.Reason.Code is not ("gateAsksHold" or "gateAsksReps")))
                foreach (var side in planned.Sides)
                    if (Shipped.Content.Drill(planned.Drill) is { Ceiling: { } ceiling } drill)
                        Assert.True(Round(side.Dose) <= ceiling, $"{drill.Key}: {side.Dose}");
            },
            time: Budget.Seconds
        );

    /// <summary>What of a dose has a ceiling: the hold, the breaths, the repetitions, the last rung.</summary>
    private static int Round(Dose dose) =>
        dose switch
        {
            HoldDose d => d.Seconds ?? d.Breaths!.Value,
            RampedDose d => Math.Max(d.SettleSeconds, d.ResettleSeconds),
            SupportLadderDose d => d.Rungs[^1].Seconds,
            AttemptsDose d => d.MaxSeconds,
            _ => 0,
        };

    [Fact]
    public void The_same_facts_give_the_same_session() =>
        SessionProperties.AnyRequest.Sample(
            request =>
            {
                var (one, two) = (Builder.Build(request), Builder.Build(request));
                Assert.Equal(one.IsOk, two.IsOk);
                if (one.IsOk)
                    Assert.Equal(Written(one.Value), Written(two.Value));
            },
            iter: 300
        );

    [Fact]
    public void Swapping_left_and_right_swaps_the_session() =>
        SessionProperties
            .AnyRequest.Where(r => r.Weaker is not null || r.LastFirstSide is not null)
            .Sample(
                request =>
                {
                    var mirrored = request with
                    {
                        Left = request.Right with { Side = Side.Left },
                        Right = request.Left with { Side = Side.Right },
                        Weaker = request.Weaker?.Other(),
                        LastFirstSide = request.LastFirstSide?.Other(),
                    };
                    var (one, two) = (Builder.Build(request), Builder.Build(mirrored));
                    Assert.Equal(one.IsOk, two.IsOk);
                    if (one.IsOk)
                        Assert.Equal(Written(one.Value), Written(two.Value, mirror: true));
                },
                iter: 300
            );

    private static string Written(SessionPlan plan, bool mirror = false) =>
        string.Join(
            '\n',
            plan.Drills.Select(d =>
                $"{d.Drill}: {string.Join("; ", d.Sides.Select(s => $"{(mirror ? s.Side?.Other() : s.Side)} {s.Stage} {s.Variant} {s.Dose.GetType().Name} {s.Dose.Repeats} {Round(s.Dose)}"))}"
            )
        );

    /// <summary>Within the longest sensible day, for a student without cautions, but for the grain of a round and its setting up.</summary>
    [Fact]
    public void More_minutes_never_give_less_main_work()
    {
        foreach (
            var days in Panel
                .All.Where(c => c is { Body: "no cautions", Approach: "long-and-ramped" })
                .GroupBy(c => (c.Ladder, c.Stage, c.History))
        )
        {
            var before = 0;
            foreach (var at in days.OrderBy(c => c.Minutes))
            {
                var plan = Builder.Build(Panel.Request(at)).Value;
                // What its skill does not fill any more may be made of other things.
                if (plan.Notes.Any(n => n.Code is "longestDay" or "notEnoughToDo"))
                    break;
                var main = MainOf(plan);
                Assert.True(main >= before - Grain, $"{at}: {main} s after {before} s");
                before = main;
            }
        }
    }

    /// <summary>The same for a day of two skills, from the length on that takes both, within a seventh: what carries one is chosen anew.</summary>
    [Fact]
    public void More_minutes_never_give_two_skills_less_main_work()
    {
        foreach (var a in Shipped.Content.Skills)
        foreach (var b in Shipped.Content.Skills.Where(b => b != a))
        {
            var before = 0;
            foreach (var minutes in new[] { 45, 60, 75, 90 })
            {
                OneSkill Of(Ladder ladder) => Panel.Request(new(ladder.Key, 2, "long-and-ramped", minutes, "no cautions", "middle"));
                var plan = Builder.Build((Trainee)Of(a) with { Courses = [Of(a).Course, Of(b).Course] }).Value;
                if (plan.Notes.Any(n => n.Code is "longestDay" or "notEnoughToDo"))
                    break;
                var main = MainOf(plan);
                Assert.True(main >= 0.85 * before, $"{a.Key} and {b.Key}, {minutes} min: {main} s after {before} s");
                before = main;
            }
        }
    }

    private const int Grain = 45;

    private static int MainOf(SessionPlan plan) =>
        plan
            .Drills.Where(d => d.Reason.Code != "dayGate" && SessionOrder.IsMain(Shipped.Content.Drill(d.Drill).Phase))
            .Sum(d => Timeline.SecondsOf(d, Shipped.Content.Drill(d.Drill), plan.BreathSeconds));

    [Fact]
    public void A_stricter_ceiling_never_lengthens_a_passive_hold() =>
        SessionProperties.AnyRequest.Sample(
            request =>
            {
                var strict = Builder.Build(request with { Bars = Shipped.Bars("very-mobile") });
                var free = Builder.Build(request with { Bars = DayBars.None() });
                foreach (var planned in strict.Value.Drills)
                foreach (var side in planned.Sides)
                    if (
                        Shipped.Content.Drill(planned.Drill).Loads.ContainsKey(LoadTag.PassiveEndRange)
                        && free.Value.Drills.FirstOrDefault(d => d.Id == planned.Id)?.Sides.FirstOrDefault(s => s.Side == side.Side)
                            is { } there
                        && there.Dose.GetType() == side.Dose.GetType()
                        && there.Variant == side.Variant
                    )
                        Assert.True(Round(side.Dose) <= Round(there.Dose), $"{planned.Drill}: {side.Dose} after {there.Dose}");
            },
            iter: 300
        );

    /// <summary>Heavy work, and for the wrist weight on the hands: with a caution on a tag there is never more of it than without.</summary>
    [Fact]
    public void A_bar_never_adds_load_on_its_tag() =>
        Gen.Select(
                SessionProperties.AnyRequest,
                Gen.Int[0, Shipped.Content.Questions.Count - 1].Select(i => Shipped.Content.Questions[i].Key)
            )
            .Sample(
                (request, question) =>
                {
                    var barred = Shipped.Bars(question);
                    var with = Builder.Build(request with { Bars = barred });
                    if (!with.IsOk)
                        return;
                    var without = Builder.Build(request with { Bars = barred.Freeing(LoadTags.All) }).Value;
                    foreach (var tag in LoadTags.All.Where(t => barred[t] != BarLevel.Free))
                        Assert.True(
                            Loads(with.Value)[tag] <= Loads(without)[tag],
                            $"{question}, {tag}: {Loads(with.Value)[tag]} after {Loads(without)[tag]}"
                        );
                },
                iter: 200
            );

    private static LoadLedger Loads(SessionPlan plan) => LoadLedger.Of(Work.Planned(plan, Shipped.Content), Shipped.Content);

    /// <summary>Practice is three quarters of one's best, in steps of five from twenty on, under the ceiling.</summary>
    [Theory]
    [InlineData(30, 60, null, 60, 30)]
    [InlineData(30, 40, null, 60, 20)]
    [InlineData(30, 60, 33.0, 60, 20)]
    [InlineData(30, 60, 40.0, 60, 30)]
    [InlineData(30, 60, 25.0, 60, 18)]
    [InlineData(30, 60, 200.0, 60, 60)]
    public void Practice_follows_ones_own_best(int usual, int asked, double? best, int ceiling, int seconds) =>
        Assert.Equal(seconds, DrillDose.Practised(usual, asked, best, ceiling));

    [Theory]
    [InlineData(0, 60, 1, 60)]
    [InlineData(8, 90, 1, 60)]
    [InlineData(15, 90, 2, 60)]
    [InlineData(22, 90, 2, 80)]
    [InlineData(30, 90, 3, 80)]
    public void A_ramp_grows_one_field_a_week(int days, int settle, int rounds, int top)
    {
        var request = Panel.Request(new("front-split", 4, "long-and-ramped", 60, "no cautions", "at the gate")) with
        {
            DaysSinceStart = days,
            SessionsSinceStart = days,
        };
        var ramp = Assert.IsType<RampedDose>(Builder.Build(request).Value.Drills.Single(d => d.Drill == "split-ramped").Sides[0].Dose);
        Assert.Equal((settle, rounds, top), (ramp.SettleSeconds, ramp.Rounds, ramp.ToPercent));
    }

    [Theory]
    [InlineData("brief-and-frequent", typeof(HoldDose))]
    [InlineData("rhythmic", typeof(RhythmDose))]
    [InlineData("long-and-ramped", typeof(RampedDose))]
    public void Each_approach_has_its_own_dose(string approach, Type dose) =>
        Assert.IsType(
            dose,
            Builder
                .Build(Panel.Request(new("front-split", 4, approach, 60, "no cautions", "middle")))
                .Value.Drills.Single(d => d.Drill == "split-ramped")
                .Sides[0]
                .Dose
        );
}
