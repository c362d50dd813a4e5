using Tensarch.Core.Planning;
using Tensarch.Core.Students;
using Tensarch.Core.Tests.Planning;

namespace Tensarch.Core.Tests.Students;

/// <summary>What is said before a session: what it bars, what it makes a round less, and what takes no step.</summary>
public class CheckInTests
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);
    private static readonly DateOnly Day = DateOnly.FromDateTime(Shipped.Now.UtcDateTime);

    private static CheckIn Said(bool sleptBadly = false, bool ill = false, bool trainedHard = false, params Felt[] felt) =>
        new(Guid.NewGuid(), Day, Shipped.Now, sleptBadly, ill, trainedHard, felt);

    [Theory]
    [InlineData(FeltKind.Sore, 5, null)]
    [InlineData(FeltKind.Sore, 6, BarLevel.LightOnly)]
    [InlineData(FeltKind.Pain, 3, null)]
    [InlineData(FeltKind.Pain, 4, BarLevel.OffLimits)]
    [InlineData(FeltKind.Injury, 0, BarLevel.OffLimits)]
    [InlineData(FeltKind.SoreAfter, 10, null)]
    public void A_region_is_spared_from_a_level_on(FeltKind kind, int level, BarLevel? barred)
    {
        var bars = Said(felt: new Felt(kind, "wrist", Side.Left, level)).Bars().ToList();
        Assert.Equal(barred, bars.Select(b => (BarLevel?)b.Level).SingleOrDefault());
        Assert.All(bars, b => Assert.Equal((LoadTag.Wrist, LiftedBy.NextDay), (b.Tag, b.LiftedBy)));
    }

    [Fact]
    public void Ill_is_a_day_of_rest() =>
        Assert.Equal(LoadTags.All.Order(), Said(ill: true).Bars().Where(b => b.Level == BarLevel.OffLimits).Select(b => b.Tag).Order());

    [Theory]
    [InlineData(3, 0)]
    [InlineData(4, 1)]
    [InlineData(5, 1)]
    [InlineData(6, 0)]
    public void Sore_is_a_round_fewer_of_what_loads_it(int level, int fewer)
    {
        var eased = Said(felt: new Felt(FeltKind.Sore, "back-of-thigh", Side.Left, level)).Fewer().ToList();
        Assert.Equal(fewer, eased.Sum(e => e.FewerRounds));
        Assert.All(eased, e => Assert.Equal(LoadTag.Hamstring, e.Region));
    }

    [Theory]
    [InlineData(FeltKind.SoreAfter, 5, false)]
    [InlineData(FeltKind.SoreAfter, 6, true)]
    [InlineData(FeltKind.PainAfter, 3, false)]
    [InlineData(FeltKind.PainAfter, 4, true)]
    public void The_day_after_may_take_the_step(FeltKind kind, int level, bool none) =>
        Assert.Equal(none, Said(felt: new Felt(kind, "inner-thigh", Side.Right, level)).NoStep().Any());

    [Fact]
    public void What_was_said_last_on_a_day_stands()
    {
        var (first, last) = (Said(ill: true), Said() with { At = Shipped.Now.AddHours(1) });
        Assert.Equal([last], CheckIn.Standing([last, first]));
    }

    public static TheoryData<string, int> Stages =>
        new(from ladder in Shipped.Content.Skills from stage in ladder.Stages select (ladder.Key, stage.Number));

    /// <summary>After a bad night every stage's session has less, nothing has more, and what was made before is not run.</summary>
    [Theory, MemberData(nameof(Stages))]
    public void Tired_is_a_round_fewer_in_every_stage(string ladder, int stage)
    {
        var rested = Panel.Request(new(ladder, stage, "long-and-ramped", 45, "no cautions", "middle"));
        var tired = rested with { Eased = [.. rested.Eased, .. Said(sleptBadly: true).Fewer()] };
        var (whole, less) = (Builder.Build(rested).Value, Builder.Build(tired).Value);
        Assert.Empty(SessionChecker.Check(less, tired, Shipped.Content));
        Assert.Contains(SessionChecker.Check(whole, tired, Shipped.Content), v => v.Code == "notRested");
        foreach (var planned in less.Drills.Where(IsMain))
            if (whole.Drills.FirstOrDefault(d => d.Id == planned.Id) is { } before)
                Assert.True(Rounds(planned) <= Rounds(before), $"{planned.Drill}: {Rounds(planned)} after {Rounds(before)}");
        Assert.True(
            less.Drills.Where(IsMain).Sum(Rounds) < whole.Drills.Where(IsMain).Sum(Rounds),
            string.Join(", ", whole.Drills.Concat(less.Drills).Select(d => $"{d.Drill} {d.Reason.Code} {Rounds(d)}"))
        );
    }

    private static bool IsMain(PlannedDrill planned) =>
        planned.Reason.Code == "core" || !planned.Reason.IsAid && SessionOrder.IsMain(planned, Shipped.Content.Drill(planned.Drill));

    private static int Rounds(PlannedDrill planned) => planned.Sides.Sum(s => s.Dose.Repeats);
}
