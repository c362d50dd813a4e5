using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Programmes;

/// <summary>What did not fit, why, and how much more time would do; days that are for something of their own.</summary>
public class ShortWeekTests
{
    private static readonly Planner Planner = new(Shipped.Content, Solvers.Usual);

    private static PlanFor Tight(params (DayOfWeek Day, int Minutes)[] days)
    {
        var who = Students.Middle(("front-split", 4), ("handstand", 4));
        return Students.For(who, Students.Weekly(who, 4, days));
    }

    [Fact]
    public void What_did_not_fit_says_which_rules_left_no_room()
    {
        var plan = Planner.Plan(Tight((DayOfWeek.Monday, 60), (DayOfWeek.Thursday, 60))).Value;
        foreach (var first in plan.ShortWeeks.GroupBy(w => w.Skill).Select(g => g.First()))
        {
            // Three exposures a week do not fit into two sessions: that, and nothing else, is said.
            Assert.Equal([PieceRuleKind.Exposures, PieceRuleKind.Time, PieceRuleKind.Time], first.Why!.Select(r => r.Kind));
            Assert.Equal(first.Skill, first.Why![0].Skill);
        }
        Assert.Equal(2, plan.ShortWeeks.Select(w => w.Skill).Distinct().Count());
    }

    [Fact]
    public void Sessions_that_are_too_short_for_a_test_say_so_and_what_would_do_does()
    {
        PlanFor With(int minutes) => Tight((DayOfWeek.Monday, 25), (DayOfWeek.Wednesday, minutes), (DayOfWeek.Friday, 25));
        var plan = Planner.Plan(With(25)).Value;
        Assert.DoesNotContain(plan.Days, d => d.Tested.Any());
        Assert.All(plan.Untested, u => Assert.Equal([1, 3], u.Weeks));
        var split = Assert.Single(plan.Untested, u => u.Skill == "front-split");
        Assert.NotNull(split.TooShort);
        Assert.DoesNotContain(
            Planner.Plan(With(split.TooShort!.Value)).Value.Untested,
            u => u.Skill == "front-split" && u.TooShort is not null
        );
        Assert.Empty(Planner.Plan(Tight((DayOfWeek.Monday, 60), (DayOfWeek.Wednesday, 60), (DayOfWeek.Saturday, 60))).Value.Untested);
    }

    [Fact]
    public void Pins_that_leave_no_plan_are_named_with_the_rule_between_them()
    {
        var who = Students.Middle(("front-split", 4));
        var programme = Students.Weekly(who, 4, (DayOfWeek.Monday, 60), (DayOfWeek.Tuesday, 60), (DayOfWeek.Friday, 60));
        var made = Students.For(who, programme);
        var friday = Planner.Plan(made).Value.Days.First(d => d.Slot.Day.DayOfWeek == DayOfWeek.Friday && d.Offer!.Exposed.Any());
        LockedDay At(DayOfWeek day)
        {
            var slot = programme.Slots.First(s => s.Day.DayOfWeek == day && s.Day > friday.Slot.Day);
            return new(slot, friday.Offer!.Plan with { Date = slot.Day }, friday.Offer.Ask);
        }
        var locks = new[] { At(DayOfWeek.Monday), At(DayOfWeek.Tuesday) };
        var problem = Planner.Plan(made with { Locked = locks }).Problems[0];
        var rule = Assert.Single(problem.Rules!);
        Assert.Equal((PieceRuleKind.Spacing, locks[0].Slot.Day, locks[1].Slot.Day), (rule.Kind, rule.Earlier, rule.Day));
    }

    [Fact]
    public void More_time_that_would_do_does()
    {
        var made = Tight((DayOfWeek.Monday, 60), (DayOfWeek.Thursday, 60));
        var room = new RoomFinder(Planner, Shipped.Content.Programme.PieceWeeks).Find(made).Value;
        Assert.True(room.Missing > 0);
        var day = Assert.Single(room.Would, w => w.Weekday is not null);
        Assert.True(day.Left < room.Missing);
        // The programme with that day in it is short of exactly what was said.
        var with = Tight((DayOfWeek.Monday, 60), (DayOfWeek.Thursday, 60), (day.Weekday!.Value, day.Minutes));
        Assert.Equal(day.Left, Planner.Plan(with).Value.ShortWeeks.Sum(w => w.Asked - w.Has));
    }

    /// <summary>A side that is behind carries little, and says nothing of what the other may.</summary>
    [Fact]
    public void What_one_side_carries_makes_no_session_of_the_other_less()
    {
        var (ahead, behind) = (Students.Middle(("front-split", 5)), Students.Middle(("front-split", 2)));
        var course = ahead.Courses[0] with { Right = behind.Courses[0].Right };
        var who = ahead with { Courses = [course], History = TrainingHistory.None };
        (DayOfWeek, int)[] days = [(DayOfWeek.Monday, 60), (DayOfWeek.Wednesday, 60), (DayOfWeek.Friday, 60)];
        var whole = new Assembler(Shipped.Content).Of(who, new([new("front-split", BlockAim.Train)], DayOrder.Whole))!;
        var loads = LoadTags
            .All.Select(t => (Left: whole.Load[new LoadKey(t, Side.Left)], Right: whole.Load[new LoadKey(t, Side.Right)]))
            .ToList();
        Assert.Contains(loads, l => l.Left > 2 * l.Right || l.Right > 2 * l.Left);
        var history = Enumerable
            .Range(1, 4)
            .SelectMany(week => new[] { 0, 2, 4 }.Select(day => Students.Monday.AddDays(day - 7 * week)))
            .Order()
            .Aggregate(TrainingHistory.None, (h, day) => h.With(day, Work.Planned(whole.Plan, Shipped.Content), Shipped.Content));
        var plan = Planner.Plan(Students.For(who with { History = history }, Students.Weekly(who, 4, days))).Value;
        Assert.All(
            plan.Days.Where(d => !d.BackOff && d.Offer is not null),
            // The back and the wrists (a lunge from plank) are loaded whichever side is ahead, and may have enough.
            d =>
                Assert.All(
                    d.Offer!.Blocks,
                    b => Assert.True(b.Level == DayOrder.Whole || (d.WhyNotMore ?? []).All(w => w.Tag is LoadTag.LowBack or LoadTag.Wrist))
                )
        );
    }

    [Fact]
    public void Where_a_load_is_in_the_way_no_more_time_is_named()
    {
        // Rules under which hardly any weight on the hands fits into a week.
        var rules = Shipped.Content.Programme;
        var strict = new Planner(
            Shipped.Content.With(rules with { Load = rules.Load with { WristEntry = 40, WristStep = 10 } }),
            Solvers.Usual
        );
        var who = Students.Middle(("handstand", 5)) with { History = TrainingHistory.None };
        var made = Students.For(
            who,
            Students.Weekly(who, 4, (DayOfWeek.Monday, 60), (DayOfWeek.Wednesday, 60), (DayOfWeek.Friday, 60), (DayOfWeek.Sunday, 60))
        );
        var room = new RoomFinder(strict, Shipped.Content.Programme.PieceWeeks).Find(made).Value;
        Assert.True(room.Missing > 0);
        Assert.Empty(room.Would);
        Assert.Contains(strict.Plan(made).Value.ShortWeeks[0].Why!, r => r.Kind == PieceRuleKind.WeekLoad);
    }

    /// <summary>
    /// A coach who has one skill to plan for, and three days with one between, gives it the three sessions. Where the week could not carry three
    /// long ones, each takes its part of it. (Three of 48 stages have a week that lacks one, a test or a load in its way.)
    /// </summary>
    [Fact]
    public void One_goal_with_days_enough_is_trained_as_often_as_it_asks_for()
    {
        // A third of the stages, of every ladder some; all of them where there is time.
        var stages = Shipped
            .Content.Skills.SelectMany(l => l.Stages.Select(s => (l.Key, s.Number)))
            .Where((_, i) => Budget.IsLong || i % 3 == 0)
            .ToList();
        var plans = stages
            .AsParallel()
            .AsOrdered()
            .Select(at =>
            {
                var who = Students.Middle(at);
                return Planner
                    .Plan(
                        Students.For(
                            who,
                            Students.Weekly(who, 4, (DayOfWeek.Monday, 60), (DayOfWeek.Wednesday, 60), (DayOfWeek.Friday, 60))
                        )
                    )
                    .Value;
            })
            .ToList();
        Assert.All(plans, p => Assert.True(p.ShortWeeks.Sum(w => w.Asked - w.Has) <= 1));
        Assert.InRange(plans.Count(p => p.ShortWeeks.Count > 0), 0, 3);
    }

    [Theory]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    public void The_part_that_a_session_takes_grows_with_the_week(int stage)
    {
        var who = Students.Middle(("handstand", stage));
        var plan = Planner
            .Plan(Students.For(who, Students.Weekly(who, 8, (DayOfWeek.Monday, 60), (DayOfWeek.Wednesday, 60), (DayOfWeek.Friday, 60))))
            .Value;
        var hands = plan.Loads.Where(l => l.Key == new LoadKey(LoadTag.Wrist, Side.Left)).ToDictionary(l => l.Week, l => l.Load);
        Assert.True(hands[6] > 1.1 * hands[0], $"{hands[0]} {hands[6]}");
    }

    [Fact]
    public void Days_of_a_series_are_for_what_their_theme_says()
    {
        var who = Students.Middle(("front-split", 4), ("crow", 4));
        var sketch = new ProgrammeSketch(
            Students.Monday,
            4,
            [],
            [.. Enum.GetValues<DayOfWeek>().Select(d => new AvailableDay(d, null, 45, DayHalf.Pm))],
            Themes:
            [
                .. Enumerable.Range(0, 7).Select(i => new ThemedDay(null, Students.Monday.AddDays(i), null, Light: true)),
                new(DayOfWeek.Tuesday, null, DayTheme.Hamstrings),
                new(DayOfWeek.Wednesday, null, DayTheme.Care),
                new(DayOfWeek.Friday, null, DayTheme.Test),
            ]
        );
        var plan = Planner.Plan(Students.For(who, Students.Weekly(who, 4, (DayOfWeek.Monday, 45)) with { Slots = sketch.Slots() })).Value;
        Assert.Equal(28, plan.Days.Count);
        // The light first week is light, though Tuesday has a theme as well.
        Assert.All(
            plan.Days.Where(d => d.Week == 0),
            d => Assert.True(d.Offer!.Ask.Level <= DayOrder.Least || d.Offer.Ask.Blocks.All(b => b.Kind == BlockAim.Light))
        );
        var later = plan.Days.Where(d => d.Week > 0).ToLookup(d => d.Slot.Day.DayOfWeek);
        Assert.All(later[DayOfWeek.Tuesday], d => Assert.All(d.Offer!.Ask.Blocks, b => Assert.Equal("front-split", b.Skill)));
        Assert.All(
            later[DayOfWeek.Wednesday],
            d => Assert.All(d.Offer!.Ask.Blocks, b => Assert.Equal(("crow", BlockAim.Light), (b.Skill, b.Kind)))
        );
        Assert.Contains(later[DayOfWeek.Friday], d => d.Offer!.Ask.Of(BlockAim.Test).Any());
    }
}
