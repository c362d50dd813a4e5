using Tensarch.Core.Planning;

namespace Tensarch.Core.Tests.Planning;

/// <summary>Opening hours, and what a session needs with what stands in for it.</summary>
public sealed class SettingsOfTheStudioTests
{
    private static OpenTime Open(DayOfWeek day, int from, int until) => new(day, new(from, 0), new(until, 0));

    [Fact]
    public void A_day_without_a_time_is_closed_once_any_is_said()
    {
        var sunday = new DateOnly(2035, 3, 4);
        Assert.False(OpeningHours.IsClosed([], sunday));
        Assert.True(OpeningHours.IsClosed([Open(DayOfWeek.Monday, 8, 20)], sunday));
        Assert.False(OpeningHours.IsClosed([Open(DayOfWeek.Monday, 8, 20)], sunday.AddDays(1)));
    }

    [Fact]
    public void Times_that_cannot_be_are_named_at_their_place()
    {
        Assert.Empty(OpeningHours.Check([Open(DayOfWeek.Monday, 8, 12), Open(DayOfWeek.Monday, 12, 20), Open(DayOfWeek.Friday, 9, 10)]));
        Assert.Equal(
            [("opensTooLate", "opening[0].until"), ("timesOverlap", "opening[2].from")],
            OpeningHours
                .Check([Open(DayOfWeek.Monday, 12, 12), Open(DayOfWeek.Friday, 9, 12), Open(DayOfWeek.Friday, 11, 14)])
                .Select(p => (p.Code, p.Field))
        );
    }

    /// <summary>Whatever a drill needs has a word that stands in for it, a wall aside.</summary>
    [Fact]
    public void Every_prop_of_the_content_has_a_stand_in()
    {
        var props = Shipped.Content.Drills.Values.SelectMany(d => d.Props).Distinct().Where(p => p != "wall");
        Assert.Empty(props.Except(StandIn.Shipped.Select(s => s.Prop)));
        Assert.Equal("a scarf", StandIn.With([new("strap", "a scarf")]).Single(s => s.Prop == "strap").What);
        Assert.Equal(
            [("unknownProp", "standIns[0].prop"), ("required", "standIns[1].what")],
            StandIn.Check([new("piano", "a desk"), new("strap", " ")]).Select(p => (p.Code, p.Field))
        );
    }

    private static IReadOnlyList<PackingLine> Packed(int blocks, string[] equipment, params PropAdvice?[] advice)
    {
        PlannedSide Of(PropAdvice? props) => new(Side.Left, 3, "standard", new HoldDose(30, null, 1, 0), props);
        var drills = advice.Select((a, i) => new PlannedDrill($"d{i}", "split-support", new("stageWork"), [Of(a)]));
        var plan = new SessionPlan("front-split", 1, "long", null, new(2035, 3, 4), 30, Side.Left, 4.5, [.. drills], []);
        return PackingLine.Of(plan, Shipped.Content, blocks, equipment, StandIn.Shipped);
    }

    [Fact]
    public void Blocks_are_counted_for_both_hands_and_what_is_not_at_home_has_its_stand_in()
    {
        var two = new PropAdvice("blocks", 30, [Face.Low, Face.High]);
        var blocks = Packed(2, [], two, null).Single(l => l.Prop == "block");
        Assert.Equal((4, false), (blocks.Count, blocks.AtHome));
        Assert.Contains("books", blocks.Instead, StringComparison.Ordinal);
        Assert.True(Packed(4, [], two).Single(l => l.Prop == "block").AtHome);
        Assert.Null(Packed(4, [], two).Single(l => l.Prop == "block").Instead);
    }

    [Fact]
    public void Chairs_take_the_place_of_blocks_and_the_floor_needs_neither()
    {
        Assert.DoesNotContain(Packed(0, [], new PropAdvice("floor", 0, [])), l => l.Prop is "block" or "chair");
        var chairs = Packed(0, ["chair"], new PropAdvice("chairs", 45, []));
        Assert.DoesNotContain(chairs, l => l.Prop == "block");
        Assert.True(chairs.Single(l => l.Prop == "chair").AtHome);
    }
}
