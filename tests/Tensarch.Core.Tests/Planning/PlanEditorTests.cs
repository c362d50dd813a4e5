using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

public class PlanEditorTests
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);
    private static readonly PlanEditor Editor = new(Shipped.Content);
    private static readonly PackMaker Maker = new(Shipped.Content);

    private static readonly Trainee Who = Panel.Request(new("front-split", 4, "long-and-ramped", 60, "no cautions", "middle"));
    private static readonly SessionPlan Made = Builder.Build(Who).Value;

    private static SessionPlan Apply(params PlanChange[] changes) => Editor.Apply(Made, changes, Who).Value;

    private static List<string> Refused(SessionPlan plan, Trainee? who = null) =>
        [.. Editor.Judge(plan, who ?? Who).Where(v => v.Refused).Select(v => v.Code)];

    private static int At(SessionPlan plan, string id) => plan.Drills.Index().First(d => d.Item.Id == id).Index;

    [Fact]
    public void What_is_made_needs_no_word() => Assert.Empty(Editor.Judge(Made, Who));

    [Fact]
    public void A_removed_core_is_a_preference_that_is_bent_and_the_session_can_be_run()
    {
        var plan = Apply(new PlanChange(PlanChangeKind.Remove, "split-ramped"));
        Assert.Contains(Editor.Judge(plan, Who), v => v is { Code: "coreMissing", Refused: false, Drill: "split-ramped" });
        Assert.Contains("coreMissing", plan.Bent!);
        Assert.True(Maker.Make(plan, Who).IsOk);
    }

    [Fact]
    public void What_a_bar_forbids_is_refused_with_its_tag_and_never_run()
    {
        Trainee barred = Panel.Request(new("front-split", 4, "long-and-ramped", 60, "wrist light only", "middle"));
        var plan = Builder.Build(barred).Value;
        var changed = Editor
            .Apply(
                plan,
                [
                    new(PlanChangeKind.Add, Drill: "outside-lunge"),
                    new(PlanChangeKind.Variant, "outside-lunge", Variant: "plank-alternating"),
                ],
                barred
            )
            .Value;
        Assert.Contains(Editor.Judge(changed, barred), v => v is { Code: "lightOnlyHeavy", Refused: true, Tag: LoadTag.Wrist });
        Assert.Contains("lightOnlyHeavy", Maker.Make(changed, barred).Problems.Select(p => p.Field));
    }

    [Fact]
    public void What_prepares_a_region_cannot_be_moved_behind_it()
    {
        var last = Made.Drills.Count - 1;
        var plan = Made;
        foreach (
            var warm in Made.Drills.Where(d =>
                Shipped.Content.Drill(d.Drill) is { WarmsUp: true } drill && drill.Loads.ContainsKey(LoadTag.Hamstring)
            )
        )
            plan = Editor.Apply(plan, [new(PlanChangeKind.Move, warm.Id, To: last)], Who).Value;
        Assert.Contains("regionNotPrepared", Refused(plan));
    }

    [Fact]
    public void A_dose_over_the_ceiling_is_refused_and_one_within_it_is_not()
    {
        SessionPlan Long(int seconds) => Apply(new PlanChange(PlanChangeKind.Dose, "split-support", Dose: new(Seconds: seconds)));
        Assert.Contains("overCeiling", Refused(Long(41)));
        Assert.DoesNotContain("overCeiling", Refused(Long(40)));
    }

    [Theory]
    [InlineData(0)]
    [InlineData(11)]
    public void A_dose_out_of_every_range_is_a_problem_at_its_field(int rounds)
    {
        var problem = Editor.Apply(Made, [new(PlanChangeKind.Dose, "split-ramped", Dose: new(Rounds: rounds))], Who).Problems[0];
        Assert.Equal(("doseOutOfRange", "changes[0].dose.rounds"), (problem.Code, problem.Field));
    }

    [Fact]
    public void One_side_alone_can_be_changed_and_the_sides_turned()
    {
        var plan = Apply(
            new PlanChange(PlanChangeKind.Dose, "split-ramped", Side: Side.Left, Dose: new(SettleSeconds: 45)),
            new PlanChange(PlanChangeKind.TurnSides, "split-ramped")
        );
        var sides = plan.Drills[At(plan, "split-ramped")].Sides;
        Assert.NotEqual(Made.Drills[At(Made, "split-ramped")].Sides[0].Side, sides[0].Side);
        Assert.Equal(45, ((RampedDose)sides.Single(s => s.Side == Side.Left).Dose).SettleSeconds);
        Assert.NotEqual(45, ((RampedDose)sides.Single(s => s.Side == Side.Right).Dose).SettleSeconds);
        Assert.Contains(Editor.Judge(plan, Who), v => v is { Code: "sideOrder", Refused: false });
    }

    [Fact]
    public void A_swap_stands_in_the_place_of_the_other_and_brings_what_it_needs()
    {
        var gone = Made.Drills.First(d => d.Reason.Code == "stageWork" && Editor.Options(Made, Who, d.Id)[0].Fits).Id;
        var option = Editor.Options(Made, Who, gone)[0];
        Assert.Null(option.Why);
        var plan = Apply(new PlanChange(PlanChangeKind.Swap, gone, option.Drill));
        Assert.DoesNotContain(plan.Drills, d => d.Id == gone);
        Assert.Equal(At(Made, gone), At(plan, option.Drill) - (plan.Drills.Count - Made.Drills.Count));
        Assert.Empty(Refused(plan));
    }

    [Fact]
    public void Options_say_why_a_drill_is_not_for_today()
    {
        Trainee barred = Panel.Request(new("crow", 4, "long-and-ramped", 45, "wrist light only", "middle"));
        var option = Editor.Options(Builder.Build(barred).Value, barred, null).Single(o => o.Drill == "crow");
        Assert.Equal(("lightOnly", LoadTag.Wrist), (option.Why!.Code, option.Why.Tag));
        Trainee first = Panel.Request(new("front-split", 6, "long-and-ramped", 45, "no cautions", "new"));
        Assert.Equal(
            "attemptDelay",
            Editor.Options(Builder.Build(first).Value, first, null).Single(o => o.Drill == "split-attempt").Why!.Code
        );
    }

    [Fact]
    public void Prop_cue_and_note_are_kept_and_taken_away_again()
    {
        var said = Apply(
            new PlanChange(PlanChangeKind.Cue, "split-ramped", Text: " breathe out into the press "),
            new PlanChange(PlanChangeKind.Note, "split-ramped", Text: "left hip lifts"),
            new PlanChange(PlanChangeKind.Prop, "split-ramped", Text: "two thick books")
        );
        var planned = said.Drills[At(said, "split-ramped")];
        Assert.Equal(("breathe out into the press", "left hip lifts", "two thick books"), (planned.Cue, planned.Note, planned.Prop));
        Assert.Null(
            Editor.Apply(said, [new(PlanChangeKind.Cue, "split-ramped", Text: "  ")], Who).Value.Drills[At(said, "split-ramped")].Cue
        );
    }

    /// <summary>Every stage, shortened: it fits, keeps its core and stays safe.</summary>
    [Theory]
    [InlineData(45)]
    [InlineData(30)]
    [InlineData(15)]
    public void A_shorter_session_fits_keeps_a_core_and_breaks_no_rule_that_must_hold(int minutes)
    {
        foreach (var ladder in Shipped.Content.Skills)
        foreach (var stage in ladder.Stages)
        {
            Trainee who = Panel.Request(new(ladder.Key, stage.Number, "long-and-ramped", 60, "no cautions", "middle"));
            var made = Builder.Build(who).Value;
            var plan = Editor.Apply(made, [new(PlanChangeKind.Shorten, To: minutes)], who).Value;
            var said = $"{ladder.Key} {stage.Number}: {string.Join(", ", plan.Drills.Select(d => d.Drill))}";
            Assert.True(Timeline.SecondsOf(plan, Shipped.Content) <= 60 * minutes, $"{said} {Timeline.SecondsOf(plan, Shipped.Content)}");
            Assert.Empty(Refused(plan, who));
            Assert.True(plan.Drills.Any(d => d.Reason.Code is "core" or "practice" or "practiceReps" or "standIn" or "attempt"), said);
            Assert.True(Maker.Make(plan, who).IsOk, said);
        }
    }

    [Fact]
    public void A_ramp_without_a_ceiling_of_its_own_grows_by_half_at_most()
    {
        SessionPlan Settling(int seconds) => Apply(new PlanChange(PlanChangeKind.Dose, "split-ramped", Dose: new(SettleSeconds: seconds)));
        Assert.Contains("overCeiling", Refused(Settling(136)));
        Assert.Empty(Refused(Settling(135)));
    }

    [Theory]
    [InlineData(15)]
    [InlineData(35)]
    public void Two_skills_are_shortened_together(int minutes)
    {
        OneSkill Of(string ladder) => Panel.Request(new(ladder, 4, "long-and-ramped", 60, "no cautions", "middle"));
        var who = ((Trainee)Of("front-split")) with { Courses = [Of("front-split").Course, Of("handstand").Course, Of("crow").Course] };
        var plan = Editor.Apply(Builder.Build(who).Value, [new(PlanChangeKind.Shorten, To: minutes)], who).Value;
        Assert.True(Timeline.SecondsOf(plan, Shipped.Content) <= 60 * minutes);
        Assert.Empty(Refused(plan, who));
    }

    [Fact]
    public void A_longer_session_has_at_least_what_was_there()
    {
        var plan = Apply(new PlanChange(PlanChangeKind.Lengthen, To: 75));
        Assert.Empty(Refused(plan));
        Assert.True(Timeline.SecondsOf(plan, Shipped.Content) > Timeline.SecondsOf(Made, Shipped.Content));
        Assert.All(Made.Drills, d => Assert.Contains(plan.Drills, p => p.Id == d.Id));
    }

    private static Gen<PlanChange> AnyChange(SessionPlan plan) =>
        from kind in Gen.Enum<PlanChangeKind>()
        from at in Gen.Int[0, plan.Drills.Count - 1]
        from drill in Gen.OneOf(Shipped.Content.DrillList.Select(d => d.Key).ToArray())
        from to in Gen.Int[0, plan.Drills.Count - 1]
        from rounds in Gen.Int[1, 10]
        from seconds in Gen.Int[1, 120]
        from side in Gen.Int[0, 2]
        let planned = plan.Drills[at]
        from variant in Gen.OneOf(Shipped.Content.Drill(planned.Drill).Variants.Select(v => v.Key).ToArray())
        select new PlanChange(
            kind,
            planned.Id,
            drill,
            null,
            side == 0 ? Side.Left
                : side == 1 ? Side.Right
                : null,
            variant,
            kind is PlanChangeKind.Shorten or PlanChangeKind.Lengthen ? 15 + 5 * to : to,
            "as said",
            new(rounds, seconds, rounds, rounds * 3)
        );

    /// <summary>Whatever is changed by hand: what the checker refuses is never run, and what is run loads nothing that is barred.</summary>
    [Fact]
    public void Nothing_that_is_off_limits_is_run_whatever_a_hand_changed() =>
        (
            from request in SessionProperties.AnyRequest
            let plan = Builder.Build(request)
            where plan.IsOk
            from changes in AnyChange(plan.Value).List[1, 6]
            select (Who: (Trainee)request, Plan: plan.Value, Changes: changes)
        ).Sample(
            at =>
            {
                var plan = at.Plan;
                foreach (var change in at.Changes)
                    if (Editor.Apply(plan, [change], at.Who) is { IsOk: true } changed)
                        plan = changed.Value;
                plan = plan with { Bent = plan.Bent ?? [] };
                var pack = Maker.Make(plan, at.Who);
                Assert.Equal(
                    Refused(plan, at.Who).Count > 0,
                    !pack.IsOk && pack.Problems.Any(p => p.Field is not ("otherFormat" or "stageChanged"))
                );
                if (!pack.IsOk)
                    return;
                var ended = PackLoads.Ended(at.Who.Bars);
                var instead = pack.Value.Gates.SelectMany(g => g.Instead).SelectMany(x => x.Slots);
                foreach (var version in pack.Value.Slots.Concat(instead).SelectMany(s => s.Versions))
                    Assert.Empty(version.Loads.Intersect(ended));
            },
            time: Budget.Seconds
        );
}
