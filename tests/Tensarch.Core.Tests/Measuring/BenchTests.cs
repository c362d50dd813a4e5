using CsCheck;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
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
    public void A_series_stands_in_a_sitting_once_with_the_most_trials_that_are_asked()
    {
        var order = Order([
            new("passive-slr", null, Warmth.Warm, 3),
            new("passive-slr", null, Warmth.Warm, 5),
            new("hollow-hold", "tuck", Warmth.Warm, 2),
            new("hollow-hold", "full", Warmth.Warm, 2),
        ]);
        Assert.Equal([("passive-slr", 5), ("hollow-hold", 2), ("hollow-hold", 2)], order.Select(i => (i.Measure, i.Asks)));
        // The baseline of every skill, and of all of them at once.
        foreach (var ladder in Shipped.Content.Skills)
        {
            Assert.Distinct(MeasureNeeds.Baseline(ladder, Shipped.Content).Select(i => i.Series));
            foreach (var stage in ladder.Stages)
                Assert.Distinct(
                    MeasureNeeds
                        .Of(
                            ladder.Courses.Select(side => new Gate(Shipped.Content).Judge(ladder, side, At(ladder, stage.Number))),
                            Shipped.Content
                        )
                        .Select(i => i.Series)
                );
        }
        Assert.Distinct(Order(Shipped.Content.Skills.SelectMany(l => MeasureNeeds.Baseline(l, Shipped.Content))).Select(i => i.Series));
    }

    [Fact]
    public void A_side_is_read_at_its_own_level_or_at_one_that_nothing_else_asks_for()
    {
        List<SittingItem> both = [new("hollow-hold", "tuck", Warmth.Warm), new("hollow-hold", "full", Warmth.Warm)];
        TakenIn Hollow(string level) => new("hollow-hold", null, level, Warmth.Warm);
        Assert.Equal([1, 0], both.Select(i => i.ReadBy([Hollow("tuck")], both)));
        Assert.Equal([0, 1], both.Select(i => i.ReadBy([Hollow("full"), Hollow("full")], both)));
        Assert.Equal(1, both[0].ReadBy([Hollow("full")], [both[0]]));
        SittingItem split = new("front-split-gap", null, Warmth.Warm);
        TakenIn Split(Side side, Warmth warmth) => new("front-split-gap", side, null, warmth);
        Assert.Equal(1, split.ReadBy([Split(Side.Left, Warmth.Warm), Split(Side.Right, Warmth.Cold)], [split]));
    }

    private static Evidence At(Ladder ladder, int stage) =>
        Shipped.Evidence(decisions: [.. ladder.Courses.Select(side => new StageDecision(side, 1, stage, Shipped.Now.AddDays(-1)))]);

    [Theory]
    [InlineData(new[] { 60.0, 88, 89 }, 2.5, 0)]
    [InlineData(new[] { 88.0, 89, 60 }, 2.5, 2)]
    [InlineData(new[] { 88.0, 60, 89, 90, 87 }, 2.5, 1)]
    [InlineData(new[] { 86.0, 88, 91 }, 2.5, null)]
    [InlineData(new[] { 60.0, 88 }, 2.5, null)]
    [InlineData(new[] { 10.0, 10, 10 }, 0.0, null)]
    public void A_trial_far_from_the_others_is_asked_about(double[] trials, double sem, int? odd) =>
        Assert.Equal(odd, OddTrial.Of(trials, sem, 0.5)?.Index);

    [Fact]
    public void A_protocol_that_ends_at_a_sensation_ends_at_the_students_ceiling()
    {
        var measure = Measures["passive-slr"];
        Assert.Contains(measure.ProtocolUnder(8), s => s.Contains("sensation 6", StringComparison.Ordinal));
        Assert.Contains(measure.ProtocolUnder(5), s => s.Contains("sensation 5", StringComparison.Ordinal));
        Assert.DoesNotContain(measure.ProtocolUnder(5), s => s.Contains("sensation 6", StringComparison.Ordinal));
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
        Assert.Equal(43, Shipped.Content.Measures.Count);
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
