using CsCheck;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Measuring;

public class BenchTests
{
    private static readonly IReadOnlyDictionary<string, Measure> Measures = Shipped.Content.MeasuresByKey;

    private static readonly Gen<List<SittingItem>> Items = Gen.Select(
            Gen.Int[0, Shipped.Content.Measures.Count - 1],
            Gen.Bool,
            (i, cold) => (Measure: Shipped.Content.Measures[i], Cold: cold)
        )
        .Select(p => new SittingItem(p.Measure.Key, p.Measure.Levels.FirstOrDefault()?.Key, p.Cold ? Warmth.Cold : Warmth.Warm))
        .List[1, 20];

    private static IReadOnlyList<SittingItem> Order(IEnumerable<SittingItem> items) =>
        SittingOrder.Of(items, Measures, Shipped.Content.Positions);

    [Fact]
    public void A_sitting_reads_everything_once_and_the_cold_ones_first() =>
        Items.Sample(items =>
        {
            var order = Order(items);
            return order.ToHashSet().SetEquals(items)
                && order.Count == items.Distinct().Count()
                && order.SkipWhile(i => i.Warmth == Warmth.Cold).All(i => i.Warmth == Warmth.Warm);
        });

    /// <summary>A group of one position is never left and come back to; where cold and warm share a position, they meet in it.</summary>
    [Fact]
    public void A_sitting_changes_position_as_little_as_possible() =>
        Items.Sample(items =>
        {
            var positions = items.Distinct().Select(i => (i.Warmth, Measures[i.Measure].Position)).Distinct().ToList();
            var shared = positions.GroupBy(p => p.Position).Any(g => g.Count() == 2) ? 1 : 0;
            return SittingOrder.Changes(Order(items), Measures) == positions.Count - 1 - shared;
        });

    [Fact]
    public void Within_a_position_readings_come_before_holds()
    {
        var order = Order([new("hollow-hold", "tuck", Warmth.Warm), new("passive-slr", null, Warmth.Warm)]);
        Assert.Equal(["passive-slr", "hollow-hold"], order.Select(i => i.Measure));
    }

    [Fact]
    public void Steps_have_no_error_holds_keep_the_best_and_counts_a_share()
    {
        var noise = new Noise(3, 0, 1, 0);
        var hold = new ReadingInput(null, null, null, Instrument.Stopwatch, [21, 34, 28]);
        Assert.Equal(new Estimate(34, 0), hold.Value(Measures["plank-hold"], noise, 0));
        var wedge = new ReadingInput(null, null, null, Instrument.BlockStack, [2.5]);
        Assert.Equal(new Estimate(2.5, 0), wedge.Value(Measures["squat-heel-wedge"], noise, 0));
        var rate = new ReadingInput(Side.Left, null, null, Instrument.Count, [], 7, 10);
        Assert.Equal(new Estimate(0.7, 0), rate.Value(Measures["kick-up-success"], noise, 0));
    }

    public static TheoryData<string, ReadingInput, string, string> Wrong() =>
        new()
        {
            { "plank-hold", new(Side.Left, null, null, Instrument.Stopwatch, [20]), "noSides", "side" },
            { "passive-slr", new(null, null, null, Instrument.Goniometer, [80]), "sideNeeded", "side" },
            { "passive-slr", new(Side.Left, null, null, Instrument.Tape, [80]), "otherInstrument", "instrument" },
            { "hollow-hold", new(null, null, null, Instrument.Stopwatch, [20]), "unknownLevel", "level" },
            { "plank-hold", new(null, "tuck", null, Instrument.Stopwatch, [20]), "unknownLevel", "level" },
            { "front-split-gap", new(Side.Left, null, null, Instrument.Tape, [20]), "unknownStandard", "standard" },
            { "squat-heel-wedge", new(null, null, null, Instrument.BlockStack, [3]), "offStep", "trials[0]" },
            { "kick-up-success", new(Side.Left, null, null, Instrument.Count, [], 11, 10), "successesOutOfRange", "successes" },
            { "kick-up-success", new(Side.Left, null, null, Instrument.Count, [], 0, 0), "outOfRange", "attempts" },
            { "kick-up-success", new(Side.Left, null, null, Instrument.Count, [1], 1, 1), "countsOnly", "trials" },
            { "kick-up-success", new(Side.Left, null, null, Instrument.Count, [], 2, 2, [true, false]), "hitsDisagree", "hits" },
            { "passive-slr", new(Side.Left, null, null, Instrument.Goniometer, [80], Quality: 6), "outOfRange", "quality" },
            {
                "passive-slr",
                new(Side.Left, null, null, Instrument.Goniometer, [80], Compensations: ["flying"]),
                "unknownCompensation",
                "compensations"
            },
        };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_cannot_stand_is_named_at_its_field(string measure, ReadingInput input, string code, string field) =>
        Assert.Contains(input.Check(Measures[measure]), p => p.Code == code && p.Field == field);

    [Fact]
    public void The_whole_catalogue_is_shipped_with_figures_protocols_and_sources()
    {
        Assert.Equal(40, Shipped.Content.Measures.Count);
        Assert.Equal(4, Shipped.Content.Batteries.Count);
        foreach (var measure in Shipped.Content.Measures)
        {
            Assert.NotEmpty(measure.Protocol);
            Assert.NotEmpty(measure.Landmarks);
            Assert.NotEmpty(measure.Source);
            Assert.NotEmpty(measure.Figure.End.Lines);
            Assert.True(measure.Key == "breath-length" || measure.Loads.Count > 0, measure.Key);
        }
    }

    /// <summary>Range, SEM, side, unit, direction and mode of the specification's table, row by row.</summary>
    [Theory]
    [InlineData("passive-slr", true, "°", Better.Up, 20, 150, 2.5, Mode.Passive)]
    [InlineData("active-slr", true, "°", Better.Up, 10, 140, 2.5, Mode.Active)]
    [InlineData("hip-extension", true, "°", Better.Up, -30, 40, 2.5, Mode.Passive)]
    [InlineData("middle-split-gap", false, "cm", Better.Down, 0, 80, 1.0, Mode.Passive)]
    [InlineData("straddle-heel-distance", false, "cm", Better.Up, 40, 230, 1.5, Mode.Passive)]
    [InlineData("hinge-angle", false, "°", Better.Up, 10, 130, 3, Mode.Active)]
    [InlineData("seated-reach", false, "cm", Better.Up, -50, 40, 1.0, Mode.Active)]
    [InlineData("active-leg-hover", true, "s", Better.Up, 0, 120, 1, Mode.Active)]
    [InlineData("knee-to-wall", true, "cm", Better.Up, 0, 25, 0.5, Mode.Passive)]
    [InlineData("squat-heel-wedge", false, "cm", Better.Down, 0, 10, 0.4, Mode.Active)]
    [InlineData("squat-torso-lean", false, "°", Better.Down, 0, 90, 3, Mode.Active)]
    [InlineData("shoulder-flexion", true, "°", Better.Up, 60, 200, 2.5, Mode.Passive)]
    [InlineData("neck-flexion-gap", false, "cm", Better.Down, 0, 15, 0.5, Mode.Active)]
    [InlineData("wrist-extension", true, "°", Better.Up, 30, 120, 2.5, Mode.Passive)]
    [InlineData("side-plank-hold", true, "s", Better.Up, 0, 300, 2, Mode.Active)]
    [InlineData("handstand-line", false, "°", Better.Down, 0, 90, 2, Mode.Active)]
    [InlineData("breath-length", false, "s", Better.None, 2, 20, 0.5, Mode.Passive)]
    public void The_catalogue_says_what_the_specification_says(
        string key,
        bool perSide,
        string unit,
        Better better,
        double min,
        double max,
        double sem,
        Mode mode
    )
    {
        var m = Measures[key];
        Assert.Equal((perSide, unit, better, min, max, sem, mode), (m.PerSide, m.Unit, m.Better, m.Min, m.Max, m.Sem, m.Mode));
    }

    [Fact]
    public void A_held_tag_keeps_its_measures_off_the_bench_and_adding_a_hold_never_brings_one_back() =>
        Gen.Select(Gen.Enum<LoadTag>().List[0, 6], Gen.Enum<LoadTag>(), Gen.Int[0, 39])
            .Sample(
                (held, more, i) =>
                {
                    var measure = Shipped.Content.Measures[i];
                    DayBars With(IEnumerable<LoadTag> tags)
                    {
                        return Shipped.Barred([.. tags]);
                    }
                    var (before, after) = (measure.BarredBy(With(held)), measure.BarredBy(With([.. held, more])));
                    return before.HasValue == measure.Loads.Keys.Any(held.Contains) && (before is null || after is not null);
                }
            );

    [Fact]
    public void A_stream_is_captured_once_it_stands_still_for_a_second()
    {
        var stability = new Stability();
        var captured = new List<(double At, double Angle)>();
        for (var i = 0; i < 200; i++)
        {
            var t = i * 0.05;
            // Settles from 0 towards 80 within the first seconds, then jumps to 60 at 6 s.
            var angle = t < 6 ? 80 * (1 - Math.Exp(-3 * t)) : 60;
            if (stability.Add(TimeSpan.FromSeconds(t), angle + (i % 2 == 0 ? 0.2 : -0.2)) is { } stable)
                captured.Add((t, stable));
        }
        Assert.Equal(2, captured.Count);
        Assert.InRange(captured[0].At, 1.5, 3.5);
        Assert.InRange(captured[0].Angle, 79, 80.5);
        Assert.InRange(captured[1].Angle, 59.5, 60.5);
    }

    [Fact]
    public void A_trembling_stream_and_a_broken_one_are_never_stable()
    {
        var (trembling, broken) = (new Stability(), new Stability());
        for (var i = 0; i < 100; i++)
        {
            Assert.Null(trembling.Add(TimeSpan.FromSeconds(i * 0.05), 80 + (i % 2 == 0 ? 0.6 : -0.6)));
            Assert.Null(broken.Add(TimeSpan.FromSeconds(i * 0.3), 80));
        }
        Assert.Null(trembling.StableDeg);
    }
}
