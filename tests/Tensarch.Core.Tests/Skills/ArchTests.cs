using Tensarch.Core.Skills;

namespace Tensarch.Core.Tests.Skills;

public class ArchTests
{
    private static TestVerdict Test(Outcome outcome) => new(new ClearCriterion(), outcome, "", NextStep.Nothing);

    private static GateVerdict Verdict(Side side, int stage, GateState state, params Outcome[] outcomes) =>
        new(side, stage, state, "", [.. outcomes.Select(Test)], null);

    private static Stone Here(params Outcome[] outcomes) =>
        Arch.Of(
                Shipped.FrontSplit,
                [Verdict(Side.Left, 3, GateState.Closed, outcomes), Verdict(Side.Right, 1, GateState.Closed, Outcome.NotMet)]
            )
            .Single(s => s.Side == Side.Left && s.Here);

    [Fact]
    public void Stages_below_are_solid_and_stages_above_are_ahead()
    {
        var stones = Arch.Of(
            Shipped.FrontSplit,
            [Verdict(Side.Left, 3, GateState.Closed, Outcome.NotMet), Verdict(Side.Right, 8, GateState.Owned)]
        );
        Assert.Equal(14, stones.Count);
        Assert.Equal(
            [StoneLook.Met, StoneLook.Met, StoneLook.NotMet, StoneLook.Ahead, StoneLook.Ahead, StoneLook.Ahead, StoneLook.Ahead],
            stones.Where(s => s.Side == Side.Left).Select(s => s.Look)
        );
        Assert.All(
            stones.Where(s => s.Side == Side.Right),
            s => Assert.Equal((StoneLook.Met, false, 1.0), (s.Look, s.Here, s.FilledShare))
        );
    }

    [Fact]
    public void The_present_stone_fills_as_its_tests_are_met() =>
        Assert.Equal(
            (StoneLook.NotMet, 0.75),
            (
                Here(Outcome.Met, Outcome.Met, Outcome.Met, Outcome.NotMet).Look,
                Here(Outcome.Met, Outcome.Met, Outcome.Met, Outcome.NotMet).FilledShare
            )
        );

    [Fact]
    public void A_bilateral_ladder_has_one_course_for_each_stage()
    {
        var stones = Arch.Of(Shipped.Ladder("handstand"), [new(null, 2, GateState.Closed, "", [Test(Outcome.NotMet)], null)]);
        Assert.Equal(8, stones.Count);
        Assert.All(stones, s => Assert.Null(s.Side));
        Assert.Equal(2, stones.Single(s => s.Here).Stage);
    }

    [Theory]
    [InlineData(Outcome.Met, StoneLook.Met)]
    [InlineData(Outcome.Borderline, StoneLook.Borderline)]
    [InlineData(Outcome.Stale, StoneLook.NoData)]
    [InlineData(Outcome.NoData, StoneLook.NoData)]
    [InlineData(Outcome.NotMet, StoneLook.NotMet)]
    [InlineData(Outcome.Blocked, StoneLook.Blocked)]
    public void The_worst_outcome_gives_the_look(Outcome outcome, StoneLook look) => Assert.Equal(look, Here(Outcome.Met, outcome).Look);

    [Fact]
    public void Borderline_beside_stale_is_drawn_as_borderline() =>
        Assert.Equal(StoneLook.Borderline, Here(Outcome.Stale, Outcome.Borderline).Look);
}
