using CsCheck;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Sessions;

public class DayGateTests
{
    private static DayGateVerdict Judge(string gate, string drill, string answers, DayBars? bars = null) =>
        DayGates.Judge(
            Shipped.Content.FindDayGate(gate)!,
            drill,
            answers
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(a => a.Split('='))
                .ToDictionary(a => a[0], a => int.Parse(a[1])),
            bars ?? DayBars.None(),
            Shipped.Content
        );

    [Theory]
    [InlineData("inversion-neck", "shoulderstand", "shoulders-tucked=1 hands-clasped=1 breaths=5 no-neck-pain=1", DayGateResult.Go, null)]
    [InlineData(
        "inversion-neck",
        "plow",
        "shoulders-tucked=1 hands-clasped=0 breaths=5 no-neck-pain=1",
        DayGateResult.NotToday,
        "legs-up-support"
    )]
    [InlineData(
        "inversion-neck",
        "roll-out",
        "shoulders-tucked=1 hands-clasped=1 breaths=4 no-neck-pain=1",
        DayGateResult.NotToday,
        "legs-up-support"
    )]
    [InlineData("inversion-neck", "plow", "", DayGateResult.NotToday, "legs-up-support")]
    [InlineData("handstand", "kick-up", "wrist-pain=1 protractions=5", DayGateResult.Go, null)]
    [InlineData("handstand", "kick-up", "wrist-pain=1 protractions=4", DayGateResult.Easier, "forward-lean")]
    [InlineData("handstand", "kick-up", "wrist-pain=2 protractions=9", DayGateResult.NotToday, "hollow")]
    [InlineData("squat-knee", "wedge-squat-hold", "left-knee=1 right-knee=0", DayGateResult.NotToday, "wedge-squat-hold")]
    [InlineData("squat-knee", "crow", "left-knee=0 right-knee=1", DayGateResult.NotToday, "plank")]
    [InlineData("end-position", "split-attempt", "warm=1 breaths=3", DayGateResult.Go, null)]
    [InlineData("end-position", "split-attempt", "warm=1 breaths=2", DayGateResult.Easier, "split-support")]
    [InlineData("end-position", "straddle-attempt", "warm=0 breaths=3", DayGateResult.NotToday, "straddle-support")]
    public void The_worst_check_decides_and_the_data_names_what_is_done_instead(
        string gate,
        string drill,
        string answers,
        DayGateResult result,
        string? instead
    )
    {
        var verdict = Judge(gate, drill, answers);
        Assert.Equal((result, instead), (verdict.Result, verdict.Instead?.Drill));
    }

    [Fact]
    public void A_substitute_is_free_in_every_tag_of_its_own()
    {
        var keys = Shipped.Content.Questions.Select(q => q.Key).ToArray();
        Gen.Select(Gen.Shuffle(keys, 0, 4), Gen.OneOf(Shipped.Content.DayGates.ToArray()), Gen.OneOf(Shipped.Content.DrillList.ToArray()))
            .Sample(
                (yes, gate, drill) =>
                {
                    var bars = Shipped.Bars(yes);
                    if (DayGates.Instead(gate, drill.Key, [], bars, Shipped.Content) is not { } instead)
                        return true;
                    var other = Shipped.Content.Drill(instead.Drill);
                    var variant = other.Variants.Single(v => v.Key == instead.Variant);
                    return other.LoadsOf(variant, other.DoseOf(variant)).All(l => l.Value == Load.None || bars[l.Key] == BarLevel.Free);
                },
                time: Budget.Seconds
            );
    }

    [Fact]
    public void A_neck_hold_leaves_the_wall_version_that_loads_nothing()
    {
        var bars = Shipped.Bars("eyes");
        Assert.Equal("legs-on-the-wall", Judge("inversion-neck", "plow", "", bars).Instead?.Variant);
    }
}
