using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Programmes;

/// <summary>Why a session of a plan is as it is.</summary>
public class DayReasonTests
{
    private static readonly Planner Planner = new(Shipped.Content, Solvers.Usual);

    /// <summary>Days in a row, several goals: much cannot be done in full.</summary>
    private static IEnumerable<PlanFor> Crowded()
    {
        var days = Enum.GetValues<DayOfWeek>();
        foreach (var goals in new[] { new[] { ("front-split", 4), ("crow", 3) }, [("handstand", 4), ("crow", 3)] })
        {
            var who = Students.Middle(goals);
            yield return Students.For(who, Students.Weekly(who, 4, [.. days.Skip(1).Take(5).Select(d => (d, 50))]));
        }
    }

    [Fact]
    public void What_is_less_than_the_weeks_step_says_why_and_what_it_says_is_so()
    {
        var kinds = Crowded().SelectMany(SaysWhy).ToHashSet();
        Assert.True(kinds.Count >= 3, string.Join(", ", kinds));
        Students.Any.Sample(at => SaysWhy(Students.For(at.Who, at.Programme)), time: Budget.Seconds, threads: 1);
    }

    private static HashSet<DayReasonKind> SaysWhy(PlanFor made)
    {
        var plan = Planner.Plan(made).Value;
        foreach (var day in plan.Days.Where(d => d.Offer is not null && !d.BackOff))
        {
            var less = day.Offer!.Blocks.Where(b => b.Kind == BlockAim.Light || b.Level < DayOrder.Whole).Select(b => b.Skill);
            Assert.Equal(less.Order(), day.WhyNotMore!.Select(r => r.Skill!).Order());
            Assert.All(day.WhyNotMore!, reason => Holds(reason, day, plan));
        }
        return [.. plan.Days.SelectMany(d => d.WhyNotMore ?? []).Select(r => r.Kind)];
    }

    private static void Holds(DayReason reason, PlanDay day, ProgrammePlan plan)
    {
        switch (reason.Kind)
        {
            case DayReasonKind.Spacing:
                var apart = Math.Abs(reason.Day!.Value.DayNumber - day.Slot.Day.DayNumber);
                Assert.InRange(apart, 0, reason.Number!.Value - 1);
                Assert.Contains(plan.Days, d => d.Slot.Day == reason.Day && d.Offer is not null);
                break;
            case DayReasonKind.WristDays:
                var hands = plan.Days.Where(d => d.Offer?.Load.Heavy.Contains(LoadTag.Wrist) == true).Select(d => d.Slot.Day).ToHashSet();
                Assert.Contains(hands, d => Math.Abs(d.DayNumber - day.Slot.Day.DayNumber) <= 2);
                break;
            case DayReasonKind.WeekLoad:
                var load = plan.Loads.Single(l => l.Week == day.Week && l.Key == new LoadKey(reason.Tag!.Value, reason.Limb!.Value));
                Assert.Equal(LoadCeiling.Shown(reason.Tag!.Value, load.Ceiling), reason.Of);
                break;
            case DayReasonKind.LargestWeek:
                var piece = plan.Loads.Where(l =>
                    l.Week / 4 == day.Week / 4 && l.Key == new LoadKey(reason.Tag!.Value, reason.Limb!.Value)
                );
                Assert.Equal(LoadCeiling.Shown(reason.Tag!.Value, piece.Max(l => l.Load)), reason.Of);
                break;
            case DayReasonKind.HardDays:
                Assert.Equal(1, Math.Abs(reason.Day!.Value.DayNumber - day.Slot.Day.DayNumber));
                break;
            default:
                Assert.NotNull(reason.Skill);
                break;
        }
    }

    private static ReasonedDay Day(int day, params string[] exposed) =>
        new(new DateOnly(2026, 3, 2).AddDays(day), DayHalf.Pm, exposed, [], 0, false, false, [], []);

    [Fact]
    public void A_day_says_which_exposure_of_the_week_it_is_what_the_week_carries_and_what_a_coach_set()
    {
        var week = new[] { Day(0, "crow"), Day(2, "front-split"), Day(4, "crow", "front-split") };
        var day = week[2] with { Pinned = true, Broken = ["tooSoon"], Tested = ["crow"], TestMinutes = 6 };
        week[2] = day;
        var slot = new TrainingSlot(day.Day, 45, DayHalf.Pm, DayTheme.Hips);
        ReasonedLoad[] loads =
        [
            new(LoadTag.Wrist, Side.Left, 90, 100),
            new(LoadTag.Wrist, Side.Right, 90, 100),
            new(LoadTag.Hamstring, Side.Left, 5, 5),
            new(LoadTag.Hamstring, Side.Right, 4, 5),
        ];
        Assert.Equal(
            [
                new(DayReasonKind.Theme, Theme: DayTheme.Hips),
                new(DayReasonKind.Exposure, "crow", Number: 2, Of: 2),
                new(DayReasonKind.Exposure, "front-split", Number: 2, Of: 2),
                new(DayReasonKind.Tested, "crow", Number: 6),
                new(DayReasonKind.NearCeiling, Tag: LoadTag.Hamstring, Limb: Side.Left, Number: 5, Of: 5),
                new(DayReasonKind.NearCeiling, Tag: LoadTag.Wrist, Number: 90, Of: 100),
                new(DayReasonKind.Pinned),
                new(DayReasonKind.Bent, Code: "tooSoon"),
            ],
            DayReasons.Of(day, week, false, slot, loads)
        );
        Assert.Equal(DayReasonKind.BackOff, DayReasons.Of(week[0], week, true, null, loads)[0].Kind);
    }
}
