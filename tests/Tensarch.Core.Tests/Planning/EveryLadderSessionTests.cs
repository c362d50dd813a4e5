using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

/// <summary>A session can be built at every stage of every ladder, and trains what the stage is about.</summary>
public class EveryLadderSessionTests
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);

    private static OneSkill At(string key, int stage, DayBars? bars = null)
    {
        var ladder = Shipped.Ladder(key);
        return new(
            ladder,
            Shipped.Content.Approaches[0],
            "square",
            new DateOnly(2026, 3, 3),
            60,
            Shipped.At(Side.Left, stage, 20),
            Shipped.At(Side.Right, stage, 20),
            null,
            Side.Left,
            60,
            20,
            2,
            new Dictionary<LoadTag, int>(),
            null,
            [],
            0,
            0,
            true,
            bars ?? DayBars.None(),
            4.5,
            4
        );
    }

    private static List<string> Planned(string key, int stage, DayBars? bars = null)
    {
        var request = At(key, stage, bars);
        var plan = Builder.Build(request).Value;
        Assert.Empty(SessionChecker.Check(plan, request, Shipped.Content));
        return [.. plan.Drills.Select(d => d.Drill)];
    }

    /// <summary>The drills that a stage is named after.</summary>
    [Theory]
    [InlineData("front-split", 4, "split-support split-ramped")]
    [InlineData("middle-split", 1, "frog side-lunge")]
    [InlineData("middle-split", 4, "straddle-support straddle-lift")]
    [InlineData("middle-split", 6, "straddle-depth-check straddle-attempt")]
    [InlineData("deep-squat", 1, "wedge-squat-hold ankle-rocks")]
    [InlineData("deep-squat", 5, "wedge-squat-hold slow-squat")]
    [InlineData("crow", 2, "wedge-squat-hold crow-perch")]
    [InlineData("crow", 3, "crow-one-foot crow-step-back")]
    [InlineData("crow", 6, "side-crow")]
    [InlineData("side-plank", 1, "side-plank plank")]
    [InlineData("side-plank", 6, "side-plank knee-to-elbow")]
    [InlineData("handstand", 1, "hollow protraction")]
    [InlineData("handstand", 3, "loaded-wrist-rock protraction exit-wheel wall-box")]
    [InlineData("handstand", 6, "wall-pulls kick-up")]
    [InlineData("shoulderstand", 1, "legs-up-support shoulder-clasp")]
    [InlineData("shoulderstand", 3, "bridge-clasp half-shoulderstand roll-out fish")]
    [InlineData("shoulderstand", 7, "bridge-clasp plow-single-lower fish")]
    public void A_stage_trains_what_it_is_named_after(string key, int stage, string drills)
    {
        var planned = Planned(key, stage);
        Assert.All(drills.Split(' '), d => Assert.Contains(d, planned));
    }

    public static TheoryData<string, int> EveryStage =>
        [.. Shipped.Content.Skills.SelectMany(l => l.Stages.Select(s => (l.Key, s.Number)))];

    [Theory]
    [MemberData(nameof(EveryStage))]
    public void Every_stage_gives_a_session_that_counts_for_exposure(string key, int stage)
    {
        var working = Planned(key, stage)
            .Where(d =>
                Shipped.Content.Drill(d) is { Kind: DrillKind.Strength or DrillKind.EndRange or DrillKind.Skill or DrillKind.Attempt } drill
                && drill.ServesStage(key, stage)
            );
        Assert.True(working.Any(), string.Join(" ", Planned(key, stage)));
    }

    [Fact]
    public void A_neck_hold_leaves_stage_one_of_the_shoulderstand_a_full_practice()
    {
        var held = Shipped.Bars("neck");
        Assert.Contains("legs-up-support", Planned("shoulderstand", 1, held));
        Assert.DoesNotContain("half-shoulderstand", Planned("shoulderstand", 3, held));
        Assert.Contains("legs-up-support", Planned("shoulderstand", 3, held));
    }
}
