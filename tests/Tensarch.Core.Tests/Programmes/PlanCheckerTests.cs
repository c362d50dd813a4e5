using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Core.Tests.Planning;

namespace Tensarch.Core.Tests.Programmes;

public class PlanCheckerTests
{
    private static readonly DateOnly Monday = new(2026, 3, 2);
    private static readonly LoadCeiling Ceiling = new(Shipped.Content.Programme.Load, Monday);
    private static readonly LoadKey Hamstring = new(LoadTag.Hamstring, Side.Left);

    private static PlannedDay Day(int day, string ladder = "front-split", int minutes = 60)
    {
        Trainee who = Panel.Request(new(ladder, 4, "long-and-ramped", minutes, "no cautions", "middle"));
        who = who with { Date = Monday.AddDays(day), History = TrainingHistory.None };
        return new(new SessionBuilder(Shipped.Content).Build(who).Value, who);
    }

    private static List<string> Codes(DateOnly? weeks, params PlannedDay[] days) =>
        [
            .. PlanChecker
                .Check(days, TrainingHistory.None, Shipped.Content, weeks)
                .Select(v => $"{v.Day.DayNumber - Monday.DayNumber} {v.Violation.Code}")
                .Distinct(),
        ];

    [Fact]
    public void One_day_is_a_session() =>
        SessionProperties.AnyRequest.Sample(
            request =>
            {
                Trainee who = request;
                if (new SessionBuilder(Shipped.Content).Build(who) is not { IsOk: true } built)
                    return;
                var less = built.Value with { Drills = [.. built.Value.Drills.Skip(1)] };
                foreach (var plan in new[] { built.Value, less })
                    Assert.Equal(
                        SessionChecker.Check(plan, who, Shipped.Content),
                        PlanChecker.Check([new(plan, who)], who.History, Shipped.Content).Select(v => v.Violation)
                    );
            },
            iter: 100
        );

    [Fact]
    public void A_day_is_judged_with_the_days_of_the_plan_before_it()
    {
        Assert.Empty(Codes(null, Day(0), Day(2), Day(4)));
        Assert.Equal(["1 tooSoonForRegion"], Codes(null, Day(0), Day(1)));
        // In whatever order they are handed over.
        Assert.Equal(["1 tooSoonForRegion"], Codes(null, Day(1), Day(0)));
        Assert.Equal(
            ["3 neckNeedsRest"],
            Codes(null, Day(0, "shoulderstand", 45), Day(1, "shoulderstand", 45), Day(2, "shoulderstand", 45), Day(3, "shoulderstand", 45))
        );
    }

    [Fact]
    public void A_week_that_loads_more_than_a_step_is_refused()
    {
        var three = new[] { 0, 2, 4 };
        int Load(int count) =>
            Enumerable.Range(0, count).Sum(_ => LoadLedger.Of(Work.Planned(Day(0).Plan, Shipped.Content), Shipped.Content)[Hamstring]);
        Assert.True(Load(1) <= 540 && Load(3) > 540, $"{Load(1)}");
        Assert.Empty(Codes(Monday, Day(0)));
        Assert.Equal(["0 overWeeksLoad"], Codes(Monday, [.. three.Select(d => Day(d))]));
    }

    private static TrainingHistory Done(params (int Day, int Seconds)[] days) =>
        days.Aggregate(
            TrainingHistory.None,
            (all, d) =>
                all.With(Monday.AddDays(d.Day), [new("split-lift", "floor", Side.Left, "front-split", d.Seconds, 60)], Shipped.Content)
        );

    [Theory]
    [InlineData("", 0, 540)]
    // A step of four minutes; fifteen per cent once that is more.
    [InlineData("-7:540", 0, 780)]
    [InlineData("-7:2000", 0, 2300)]
    // The larger of the two weeks before.
    [InlineData("-14:2000 -7:600", 0, 2300)]
    // Twelve days off: seven tenths of the last week; four weeks: as at the beginning.
    [InlineData("-12:2000", 0, 1640)]
    [InlineData("-28:2000", 0, 540)]
    // Every fourth week at most six tenths of the one before, and the next one from there before it.
    [InlineData("7:900 14:1000", 3, 600)]
    [InlineData("7:900 14:300", 3, 240)]
    [InlineData("14:1000 21:600", 4, 1240)]
    [InlineData("0:900 11:900", 3, 1140)]
    public void A_weeks_ceiling(string done, int week, int seconds)
    {
        var days = done.Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Select(d => d.Split(':').Select(int.Parse).ToList())
            .Select(d => (d[0], d[1]))
            .ToArray();
        Assert.Equal(seconds, Ceiling.Of(Hamstring, week, Done(days)));
        Assert.Equal(week % 4 == 3, Ceiling.IsBackOff(week));
    }

    [Fact]
    public void The_ceiling_and_the_checker_agree_on_every_history() =>
        Gen.Select(Gen.Int[-40, -1], Gen.Int[0, 1500])
            .List[0, 12]
            .Select(Gen.Int[0, 7], Gen.Int[0, 2000], (done, week, planned) => (done, week, planned))
            .Sample(
                at =>
                {
                    var history = Done([.. at.done.Select(d => (d.Item1 + 7 * at.week, d.Item2))]);
                    var most = Ceiling.Of(Hamstring, at.week, history);
                    var day = Day(7 * at.week);
                    var lift = day.Plan.Drills.First(d => d.Drill == "split-ramped");
                    PlannedSide Of(int seconds) => new(Side.Left, 4, "floor", new HoldDose(seconds, null, 1, 0), null);
                    PlannedDay With(int seconds) =>
                        day with
                        {
                            Plan = day.Plan with { Drills = [lift with { Drill = "split-lift", Sides = [Of(seconds)] }] },
                        };
                    bool Over(int seconds) =>
                        PlanChecker
                            .Check([With(seconds)], history, Shipped.Content, Monday)
                            .Any(v => v is { Violation.Rule: 6, Load.Tag: LoadTag.Hamstring });
                    Assert.False(Over(most));
                    Assert.True(Over(most + 1));
                },
                iter: 200
            );
}
