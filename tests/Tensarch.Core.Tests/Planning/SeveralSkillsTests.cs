using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

/// <summary>A student on two or three ladders gets one session that serves them.</summary>
public class SeveralSkillsTests
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);
    private static readonly PackMaker Maker = new(Shipped.Content);

    /// <summary>Up to three skills of one person, each at its own stage, under its own approach.</summary>
    internal static readonly Gen<Trainee> AnyTrainee =
        from first in SessionProperties.AnyRequest
        from others in SessionProperties.AnyRequest.List[1, 2]
        select ((Trainee)first) with
        {
            Courses = [first.Course, .. others.Select(o => o.Course).DistinctBy(c => c.Skill).Where(c => c.Skill != first.Course.Skill)],
        };

    private static Trainee Middle(int minutes, params (string Ladder, int Stage)[] skills)
    {
        OneSkill Of((string Ladder, int Stage) at) =>
            Panel.Request(new(at.Ladder, at.Stage, "long-and-ramped", minutes, "no cautions", "middle"));
        return ((Trainee)Of(skills[0])) with { Courses = [.. skills.Select(s => Of(s).Course)] };
    }

    private static SessionPlan Plan(Trainee who)
    {
        var plan = Builder.Build(who).Value;
        Assert.Empty(SessionChecker.Check(plan, who, Shipped.Content));
        return plan;
    }

    private static int MainOf(SessionPlan plan, string skill) =>
        plan
            .Drills.Where(d => d.Skill == skill && SessionOrder.IsMain(Shipped.Content.Drill(d.Drill).Phase))
            .Sum(d => Timeline.SecondsOf(d, Shipped.Content.Drill(d.Drill), plan.BreathSeconds));

    private static string Said(Trainee who, SessionPlan plan) =>
        string.Join(
            '\n',
            [
                string.Join(", ", SessionChecker.Check(plan, who, Shipped.Content).Select(v => $"{v.Code} {v.Drill}")),
                $"{who.Minutes} min, breath {who.BreathSeconds:F1}, back {who.WayBack?.BreakDays}, "
                    + string.Join(
                        "; ",
                        who.Courses.Select(c => $"{c.Skill} {c.Left.Stage}/{c.Right.Stage} {c.Approach.Key} day {c.DaysSinceStart}")
                    ),
                string.Join(", ", LoadTags.All.Where(t => who.Bars[t] != BarLevel.Free).Select(t => $"{t} {who.Bars[t]}")),
                .. plan.Drills.Select(d =>
                    $"  {Timeline.SecondsOf(d, Shipped.Content.Drill(d.Drill), who.BreathSeconds)} {d.Skill} {d.Drill}/{d.Sides[0].Variant} x{d.Sides.Count} {d.Reason.Code}"
                ),
                string.Join(", ", plan.Notes.Select(n => $"{n.Code} {n.Skill} {n.Drill} {n.Number}")),
            ]
        );

    [Fact]
    public void No_session_of_several_skills_breaks_a_rule_and_each_can_be_run() =>
        AnyTrainee.Sample(
            who =>
            {
                var built = Builder.Build(who);
                if (!built.IsOk)
                    return;
                Assert.True(SessionChecker.Check(built.Value, who, Shipped.Content) is { Count: 0 }, Said(who, built.Value));
                var pack = Maker.Make(built.Value, who);
                Assert.True(pack.IsOk, Said(who, built.Value));
                var ended = PackLoads.Ended(who.Bars);
                var instead = pack.Value.Gates.SelectMany(g => g.Instead).SelectMany(x => x.Slots);
                foreach (var version in pack.Value.Slots.Concat(instead).SelectMany(s => s.Versions))
                    Assert.Empty(version.Loads.Intersect(ended));
            },
            time: Budget.Seconds
        );

    [Fact]
    public void Every_skill_that_is_named_has_main_work_of_its_own() =>
        AnyTrainee.Sample(
            who =>
            {
                var built = Builder.Build(who);
                if (built.IsOk && built.Value.Skills.Count > 1)
                    foreach (var skill in built.Value.Skills.Skip(1))
                        Assert.True(
                            MainOf(built.Value, skill.Skill) > 0
                                || built.Value.Drills.Any(d => d.Skill == skill.Skill && d.Reason.Code == "core"),
                            Said(who, built.Value)
                        );
            },
            iter: 300
        );

    [Theory]
    [InlineData("deep-squat", 41)]
    [InlineData("deep-squat", 59)]
    [InlineData("handstand", 41)]
    public void Sides_far_apart_are_two_cores_and_still_no_more_things_than_the_day_takes(string beside, int minutes)
    {
        foreach (var (left, right) in from l in Enumerable.Range(1, 6) from r in Enumerable.Range(1, 6) select (l, r))
        {
            var who = Middle(minutes, ("front-split", left), (beside, 1));
            var apart = who.Courses[0] with { Right = who.Courses[0].Right with { Stage = right } };
            var plan = Plan(who with { Courses = [apart, who.Courses[1]] });
            Assert.Equal(2, plan.Skills.Count);
        }
    }

    [Theory]
    [InlineData(30, 1)]
    [InlineData(45, 2)]
    [InlineData(75, 3)]
    public void A_day_takes_as_many_skills_as_its_minutes_allow_and_says_what_would_make_room(int minutes, int skills)
    {
        var plan = Plan(Middle(minutes, ("front-split", 4), ("handstand", 4), ("crow", 3)));
        Assert.Equal(skills, plan.Skills.Count);
        Assert.Equal(
            skills == 3 ? [] : [skills == 1 ? 40 : 60],
            plan.Notes.Where(n => n.Code == "skillLeftOut").Take(1).Select(n => (int)n.Number!)
        );
    }

    [Fact]
    public void The_first_skill_gets_most_and_balance_comes_before_the_end_of_a_range()
    {
        var plan = Plan(Middle(75, ("front-split", 4), ("handstand", 5)));
        Assert.True(MainOf(plan, "front-split") > MainOf(plan, "handstand"));
        Assert.True(MainOf(plan, "handstand") > 0.25 * MainOf(plan, "front-split"));
        var order = plan.Drills.Select(d => d.Drill).ToList();
        Assert.True(order.IndexOf("wall-handstand") < order.IndexOf("split-ramped"));
        Assert.Equal(1, plan.Drills.Count(d => Shipped.Content.Drill(d.Drill).PreparesHands));
    }

    [Fact]
    public void Two_skills_never_both_work_hard_at_the_end_of_one_range()
    {
        // Both open the adductors: the second one does what is light there.
        var plan = Plan(Middle(75, ("middle-split", 4), ("front-split", 5)));
        foreach (var region in new[] { LoadTag.Hamstring, LoadTag.HipFront, LoadTag.Adductor })
            Assert.True(
                plan.Drills.Where(d =>
                        d.Sides.Any(s =>
                        {
                            var drill = Shipped.Content.Drill(d.Drill);
                            return drill.LoadsOf(drill.VariantAt(s.Variant), s.Dose, 4.5).GetValueOrDefault(region) == LoadLevel.Heavy;
                        })
                    )
                    .Select(d => d.Skill)
                    .Distinct()
                    .Count() <= 1
            );
    }

    [Fact]
    public void The_neck_comes_last_of_the_main_work()
    {
        var plan = Plan(Middle(75, ("shoulderstand", 5), ("front-split", 3)));
        var order = plan.Drills.Select(d => Shipped.Content.Drill(d.Drill).Phase).ToList();
        Assert.True(order.LastIndexOf(SessionPhase.Deep) < order.IndexOf(SessionPhase.Neck));
    }

    [Fact]
    public void Work_counts_for_the_skill_that_it_was_planned_for()
    {
        var plan = Plan(Middle(75, ("front-split", 4), ("handstand", 5)));
        DoneRound Done(string drill) =>
            new(
                new(
                    drill,
                    plan.Drills.First(d => d.Drill == drill).Sides[0].Variant,
                    plan.Drills.First(d => d.Drill == drill).Sides[0].Side
                ),
                30,
                null
            );
        var companion = plan.Drills.FirstOrDefault(d => d.Reason.Code == "companion")?.Drill;
        string[] drills = ["split-support", "wall-handstand", .. companion is null ? [] : new[] { companion }];
        var work = Work.Of(drills.Select(Done), plan, Shipped.Content).ToDictionary(w => w.Drill, w => w.Skill);
        Assert.Equal(("front-split", "handstand"), (work["split-support"], work["wall-handstand"]));
        if (companion is not null)
            Assert.Equal(Work.ForNone, work[companion]);
    }
}
