using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Tests.Sessions;

public class TimelineTests
{
    private static IReadOnlyList<Segment> Segments(string drill, Dose dose, double breath = 4.5) =>
        Timeline.Segments(
            "part",
            Shipped.Content.Drill(drill),
            new(Side.Left, 4, Shipped.Content.Drill(drill).Variants[0].Key, dose, null),
            false,
            breath
        );

    private static int Work(IEnumerable<Segment> segments) => segments.Where(s => s.Kind == SegmentKind.Work).Sum(s => s.Seconds);

    [Fact]
    public void The_default_ramped_dose_takes_258_seconds() =>
        Assert.Equal(258, Work(Segments("low-lunge", Shipped.Content.Drill("low-lunge").Dose)));

    [Fact]
    public void The_first_week_ramped_dose_takes_125_seconds() =>
        Assert.Equal(125, Work(Segments("low-lunge", Shipped.Content.Approaches[0].FirstWeekRamp)));

    [Fact]
    public void A_ramp_rises_to_the_top_and_stays_there_for_the_last_seconds()
    {
        var ramp = new ContractionRamp(12, 20, 80, 4);
        Assert.Equal([20, 50, 80, 80], new[] { 0.0, 4, 8, 12 }.Select(ramp.PercentAt));
        Assert.Equal(12, ramp.BySecond().Count);
        Assert.Equal([80, 80, 80, 80], ramp.BySecond().TakeLast(4));
        Assert.Throws<ArgumentOutOfRangeException>(() => ramp.PercentAt(12.1));
        Assert.Throws<ArgumentOutOfRangeException>(() => new ContractionRamp(4, 20, 80, 4).PercentAt(1));
    }

    [Fact]
    public void A_ramp_integrates_to_what_the_timeline_shows() =>
        Gen.Select(Gen.Int[2, 30], Gen.Int[0, 100], Gen.Int[0, 100], Gen.Int[0, 29])
            .Where((r, _, _, m) => m < r)
            .Sample(
                (r, from, to, m) =>
                {
                    var ramp = new ContractionRamp(r, from, to, m);
                    return Math.Abs(ramp.BySecond().Sum() - ramp.Impulse) <= 0.5 * r + 1e-9;
                }
            );

    [Fact]
    public void Set_up_once_a_drill_and_five_seconds_to_switch()
    {
        var planned = new PlannedDrill(
            "p",
            "pigeon",
            new("stageWork"),
            [
                .. new Side?[] { Side.Right, Side.Left }.Select(s => new PlannedSide(
                    s,
                    4,
                    "forearms",
                    Shipped.Content.Drill("pigeon").Dose,
                    null
                )),
            ]
        );
        var plan = new SessionPlan("front-split", 1, "long-and-ramped", "square", new(2026, 3, 3), 60, Side.Right, 4.5, [planned], []);
        var kinds = Timeline.Of(plan, Shipped.Content).SelectMany(p => p.Segments).Select(s => (s.Kind, s.Seconds, s.Side)).ToList();
        Assert.Equal(
            [
                (SegmentKind.SetUp, 30, Side.Right),
                (SegmentKind.Work, 60, Side.Right),
                (SegmentKind.Out, 10, Side.Right),
                (SegmentKind.SwitchSides, 5, Side.Left),
                (SegmentKind.Work, 60, Side.Left),
                (SegmentKind.Out, 10, Side.Left),
            ],
            kinds
        );
    }

    [Theory]
    [InlineData(4.5, 23)]
    [InlineData(6, 30)]
    public void Breaths_are_counted_at_the_students_own_length(double breath, int seconds) =>
        Assert.Equal(seconds, Work(Segments("child-rest", new HoldDose(null, 5, 1, 0), breath)));

    [Fact]
    public void Rests_stand_between_rounds_only() =>
        Assert.Equal(
            [30],
            Segments("leg-lifts-over", new RepsDose(6, 2, 30, 4)).Where(s => s.Kind == SegmentKind.Rest).Select(s => s.Seconds)
        );
}
