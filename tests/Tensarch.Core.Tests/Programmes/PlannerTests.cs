using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Programmes;

public class PlannerTests
{
    private static readonly Planner Planner = new(Shipped.Content, Solvers.Usual);
    private static readonly PackMaker Packs = new(Shipped.Content);

    private static ProgrammePlan Plan(PlanFor made)
    {
        var plan = Planner.Plan(made);
        Assert.True(plan.IsOk, plan.IsOk ? "" : string.Join(", ", plan.Problems));
        return plan.Value;
    }

    private static Programme ThreeDays(Trainee who, int weeks = 8) =>
        Students.Weekly(who, weeks, (DayOfWeek.Monday, 60), (DayOfWeek.Wednesday, 45), (DayOfWeek.Saturday, 75));

    private static string Said(Trainee who, Programme programme) =>
        string.Join(
            '\n',
            [
                string.Join(
                    "; ",
                    who.Courses.Select(c =>
                        $"{c.Skill} {c.Left.Stage}/{c.Right.Stage} {c.Approach.Key} day {c.DaysSinceStart} {c.SessionsSinceStart} sessions"
                    )
                ),
                string.Join(", ", LoadTags.All.Where(t => who.Bars[t] != BarLevel.Free).Select(t => $"{t} {who.Bars[t]}")),
                string.Join(", ", programme.Slots.TakeWhile(s => programme.WeekOf(s.Day) == 0).Select(s => $"{s.Day:ddd} {s.Minutes}")),
            ]
        );

    [Fact]
    public void Whatever_is_planned_passes_the_checker_and_can_be_run() =>
        Students.Any.Sample(
            at =>
            {
                var made = Students.For(at.Who, at.Programme);
                var plan = Planner.Plan(made);
                Assert.True(plan.IsOk, plan.IsOk ? "" : string.Join(", ", plan.Problems) + Said(at.Who, at.Programme));
                foreach (var day in plan.Value.Days.Where(d => d.Offer is not null).Take(3))
                {
                    var who = made.Facts(day.Slot.Day, day.Slot.Minutes);
                    Assert.All(
                        day.Offer!.Plan.Drills.SelectMany(d => Loads(day.Offer.Plan, d)),
                        l => Assert.NotEqual(BarLevel.OffLimits, who.Bars[l])
                    );
                    Assert.NotEmpty(Packs.Pack(day.Offer.Plan, who).Slots);
                }
            },
            time: Budget.Seconds,
            threads: 1
        );

    private static IEnumerable<LoadTag> Loads(SessionPlan plan, PlannedDrill planned)
    {
        var drill = Shipped.Content.Drill(planned.Drill);
        return planned.Sides.SelectMany(s => drill.LoadsOf(drill.VariantAt(s.Variant), s.Dose, plan.BreathSeconds).Keys);
    }

    [Fact]
    public void The_same_facts_give_the_same_plan()
    {
        var who = Students.Middle(("front-split", 4), ("handstand", 4));
        string Text() =>
            System.Text.Json.JsonSerializer.Serialize(Plan(Students.For(who, ThreeDays(who, 4))).Days.Select(d => d.Offer!.Plan));
        Assert.Equal(Text(), Text());
    }

    /// <summary>Where no side is weaker the sides take turns, in each skill by its own sessions, however the skills share the days.</summary>
    [Theory]
    [InlineData("front-split", "middle-split", 60)]
    [InlineData("front-split", "handstand", 45)]
    [InlineData("front-split", "side-plank", 75)]
    [InlineData("front-split", "front-split", 60)]
    public void Sides_take_turns_in_each_skill(string one, string other, int minutes)
    {
        var who = Students.Middle(one == other ? [(one, 3)] : [(one, 3), (other, 3)]);
        var plan = Plan(
            Students.For(
                who,
                Students.Weekly(who, 4, (DayOfWeek.Monday, minutes), (DayOfWeek.Wednesday, minutes), (DayOfWeek.Saturday, minutes))
            )
        );
        var sessions = plan.Days.Where(d => d.Offer is not null).Select(d => d.Offer!.Plan).ToList();
        foreach (var session in sessions)
            Assert.Single(session.Skills.Select(s => s.FirstSide).Distinct());
        var first = sessions.SelectMany(s => s.Skills).Where(s => s.Skill == one).Select(s => s.FirstSide).ToList();
        Assert.True(first.Count >= 4, string.Join(' ', first));
        Assert.All(first.Zip(first.Skip(1)), pair => Assert.NotEqual(pair.First, pair.Second));
    }

    [Fact]
    public void Two_goals_are_trained_as_often_as_they_ask_back_off_every_fourth_week_and_tested_in_every_second()
    {
        var who = Students.Middle(("front-split", 4), ("handstand", 4));
        var plan = Plan(Students.For(who, ThreeDays(who)));
        Assert.Equal(24, plan.Days.Count);
        Assert.All(plan.Pieces, p => Assert.InRange(p.Gap, 0, 0.02));
        Assert.Equal([3, 7], plan.Days.Where(d => d.BackOff).Select(d => d.Week).Distinct());
        // A back-off week has an exposure fewer of each.
        foreach (var week in plan.Days.Where(d => d.BackOff).GroupBy(d => d.Week))
            Assert.All(["front-split", "handstand"], skill => Assert.True(week.Count(d => d.Offer!.Exposed.Contains(skill)) <= 2));
        // Only the first week, so soon after hard days, has less than three, and a week whose tests take the time.
        Assert.All(plan.ShortWeeks, s => Assert.True(s.Week == 0 || s.Week % 2 == 1));
        Assert.Equal([1, 3, 5, 7], plan.Days.Where(d => d.Tested.Contains("front-split")).Select(d => d.Week));
        Assert.All(plan.Loads, l => Assert.True(l.Load <= l.Ceiling));
        // It grows, and backs off.
        int Hamstring(int week) => plan.Loads.Single(l => l.Week == week && l.Key == new LoadKey(LoadTag.Hamstring, Side.Left)).Load;
        Assert.True(Hamstring(2) > Hamstring(0) && Hamstring(3) <= 0.6 * Hamstring(2) && Hamstring(6) > Hamstring(2));
    }

    [Fact]
    public void Sessions_of_a_week_are_not_all_the_same()
    {
        var who = Students.Middle(("front-split", 4), ("handstand", 4));
        var plan = Plan(Students.For(who, ThreeDays(who, 4)));
        foreach (var week in plan.Days.GroupBy(d => d.Week))
            Assert.True(week.Select(d => string.Join(',', d.Offer!.Plan.Drills.Select(x => x.Drill))).Distinct().Count() > 1);
    }

    [Fact]
    public void What_is_pinned_stays_and_what_was_seen_moves_little()
    {
        var who = Students.Middle(("front-split", 4), ("handstand", 4));
        var made = Students.For(who, ThreeDays(who, 4));
        var first = Plan(made);
        var pinned = first.Days[4];
        var seen = first.Days.ToDictionary(d => (d.Slot.Day, d.Slot.Half), d => d.Offer!.Ask);
        var from = Students.Monday.AddDays(7);
        var again = Plan(
            made with
            {
                From = from,
                Seen = seen,
                Locked = [new(pinned.Slot, pinned.Offer!.Plan, pinned.Offer.Ask)],
                Done = [.. first.Days.TakeWhile(d => d.Slot.Day < from).Select(d => new DoneDay(d.Slot.Day, [.. d.Offer!.Exposed], []))],
            }
        );
        Assert.Equal(9, again.Days.Count);
        Assert.Same(pinned.Offer.Plan.Drills, again.Days.Single(d => d.Slot == pinned.Slot).Offer!.Plan.Drills);
        // Nothing was trained in the week before, and that is said where what was pinned is too much now.
        Assert.All(again.Bent, b => Assert.Equal(pinned.Slot.Day, b.Day));
        Assert.NotEmpty(again.Bent);
        Assert.True(again.Days.Count(d => d.Offer!.Ask.ToString() == seen[(d.Slot.Day, d.Slot.Half)].ToString()) >= 3);
    }

    [Fact]
    public void Pins_that_break_a_rule_leave_no_plan()
    {
        var who = Students.Middle(("front-split", 4));
        var programme = Students.Weekly(who, 4, (DayOfWeek.Monday, 60), (DayOfWeek.Tuesday, 60), (DayOfWeek.Friday, 60));
        var made = Students.For(who, programme);
        var friday = Plan(made).Days.First(d => d.Slot.Day.DayOfWeek == DayOfWeek.Friday && d.Offer!.Exposed.Any());
        LockedDay At(DayOfWeek day)
        {
            var slot = programme.Slots.First(s => s.Day.DayOfWeek == day && s.Day > friday.Slot.Day);
            return new(slot, friday.Offer!.Plan with { Date = slot.Day }, friday.Offer.Ask);
        }
        Assert.Equal("planInfeasible", Planner.Plan(made with { Locked = [At(DayOfWeek.Monday), At(DayOfWeek.Tuesday)] }).Problems[0].Code);
    }
}
