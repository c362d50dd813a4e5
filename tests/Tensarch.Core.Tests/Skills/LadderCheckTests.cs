using System.Text.Json;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Skills;

public class LadderCheckTests
{
    private static readonly JsonSerializerOptions Json = CoreJson.Apply(new(JsonSerializerDefaults.Web));
    private static readonly Ladder Handstand = Own(Shipped.Ladder("handstand"));
    private static readonly Ladder Split = Own(Shipped.FrontSplit);

    private static Ladder Own(Ladder shipped) => shipped with { Key = "own-copy", Name = "Gentle" };

    private static string[] Codes(Ladder ladder) => [.. LadderCheck.Check(ladder, Shipped.Content).Select(p => $"{p.Field} {p.Code}")];

    private static Ladder With(Ladder ladder, int stage, Func<Stage, Stage> change) =>
        ladder with
        {
            Stages = [.. ladder.Stages.Select(s => s.Number == stage ? change(s) : s)],
        };

    private static Ladder WithTest(Ladder ladder, int stage, int test, ReadinessTest other) =>
        With(ladder, stage, s => s with { Tests = [.. s.Tests.Select((t, i) => i == test ? other : t)] });

    [Fact]
    public void Every_shipped_ladder_and_a_plain_copy_of_it_are_sound() =>
        Assert.All(Shipped.Content.Skills, l => Assert.Empty(Codes(l).Concat(Codes(Own(l)))));

    [Fact]
    public void A_copy_survives_the_way_through_its_file()
    {
        var again = ContentLoader.ReadLadder(JsonSerializer.Serialize(Handstand, Json), Shipped.Content);
        Assert.Empty(again.Problems);
        Assert.Equal(JsonSerializer.Serialize(Handstand, Json), JsonSerializer.Serialize(again.Value, Json));
    }

    [Theory]
    [InlineData("{ not json")]
    [InlineData("{}")]
    [InlineData("[]")]
    public void A_file_that_is_no_ladder_is_refused(string text) =>
        Assert.Equal("notALadder", ContentLoader.ReadLadder(text, Shipped.Content).Problems[0].Code);

    [Fact]
    public void Nothing_counts_for_ever_and_nothing_is_nameless()
    {
        Assert.Equal(
            ["stages[0].tests[0].shelfDays outOfRange"],
            Codes(WithTest(Split, 1, 0, new RepsCriterion("split-slide", "sliders", 3, ShelfDays: 0)))
        );
        Assert.Equal(
            ["stages[0].tests[0].shelfDays outOfRange", "stages[0].tests[0].items[1].name required"],
            Codes(WithTest(Split, 1, 0, new FormCriterion([new("a", "Chest lifted"), new("b", " ")], 400)))
        );
        Assert.Equal(["stages[0].tests[0].name required"], Codes(WithTest(Handstand, 1, 0, new ExitCriterion("", "exit-step", 5))));
    }

    [Fact]
    public void Care_is_not_copied_away()
    {
        Assert.Contains("everyGate clearMissing", Codes(Split with { EveryGate = [new PainCriterion(3, 2)] }));
        Assert.Contains("everyGate painMissing", Codes(Split with { EveryGate = [new ClearCriterion()] }));
        Assert.Contains(
            "everyGate[0].atMost outOfRange",
            Codes(Split with { EveryGate = [new PainCriterion(5, 2), new ClearCriterion()] })
        );
        Assert.Contains("leadLimit outOfRange", Codes(Split with { LeadLimit = 0 }));
        Assert.Contains("regions regionsMissing", Codes(Split with { Regions = [LoadTag.Hamstring] }));
        Assert.Contains("requiredTags requiredTagsMissing", Codes(Handstand with { RequiredTags = [.. Handstand.RequiredTags.Skip(1)] }));
        Assert.Contains("startsAtOne startsAtOne", Codes(Own(Shipped.Ladder("shoulderstand")) with { StartsAtOne = false }));
        Assert.Contains(
            "requiredTags requiredTagsMissing",
            Codes(Own(Shipped.Ladder("crow")) with { RequiredTags = [new(LoadTag.Wrist), new(LoadTag.FallRisk, 6)] })
        );
    }

    [Theory]
    [InlineData("crow")]
    [InlineData("handstand")]
    [InlineData("shoulderstand")]
    public void No_copy_trains_past_a_way_out_that_it_does_not_ask_for(string key)
    {
        var shipped = Shipped.Ladder(key);
        var at = shipped.Stages.First(s => s.Tests.OfType<ExitCriterion>().Any()).Number;
        var without = With(shipped, at, s => s with { Tests = [.. s.Tests.Where(t => t is not ExitCriterion)] });
        Assert.Contains($"stages[{at}].trainsAs exitBeforeKickUp", Codes(without));
        Assert.DoesNotContain(Codes(shipped), c => c.EndsWith("exitBeforeKickUp", StringComparison.Ordinal));
    }

    [Fact]
    public void The_way_out_stays_before_the_way_in()
    {
        var without = With(Handstand, 3, s => s with { Tests = [.. s.Tests.Where(t => t is not ExitCriterion)] });
        Assert.Contains("stages[5].tests exitBeforeKickUp", Codes(without));
        var early = With(Handstand, 2, s => s with { Tests = [.. s.Tests, new RateCriterion("kick-up-success", 5, 10, Limb.BetterSide)] });
        Assert.Contains("stages[1].tests exitBeforeKickUp", Codes(early));
    }

    [Fact]
    public void Names_levels_limbs_and_kinds_must_fit()
    {
        string Of(ReadinessTest test) => Assert.Single(Codes(WithTest(Handstand, 4, 1, test)));
        var at = "stages[3].tests[1]";
        Assert.Equal($"{at}.measure unknownMeasure", Of(new RomCriterion("elbow-luck", Comparison.AtLeast, 5, Limb.Bilateral)));
        Assert.Equal($"{at}.level levelNeeded", Of(new RomCriterion("handstand-line", Comparison.AtMost, 18, Limb.Bilateral)));
        Assert.Equal(
            $"{at}.level noLevels",
            Of(new RomCriterion("shoulder-flexion", Comparison.AtLeast, 150, Limb.EachSide, Level: "wall"))
        );
        Assert.Equal($"{at}.measure wrongKindOfMeasure", Of(new RomCriterion("plank-hold", Comparison.AtLeast, 30, Limb.Bilateral)));
        Assert.Equal($"{at}.measure wrongKindOfMeasure", Of(new RomCriterion("fingers-to-floor", Comparison.AtMost, 5, Limb.Bilateral)));
        Assert.Equal($"{at}.limb noSidesHere", Of(new RomCriterion("shoulder-flexion", Comparison.AtLeast, 150)));
        Assert.Equal($"{at}.limb limbDoesNotFit", Of(new RomCriterion("shoulder-flexion", Comparison.AtLeast, 150, Limb.Bilateral)));
        Assert.Equal($"{at}.threshold outOfRange", Of(new RomCriterion("shoulder-flexion", Comparison.AtLeast, 500, Limb.EachSide)));
        Assert.Equal($"{at}.comparison wrongWay", Of(new RomCriterion("shoulder-flexion", Comparison.AtMost, 150, Limb.EachSide)));
        Assert.Equal($"{at}.drill unknownDrill", Of(new RepsCriterion("levitation", "free", 8, Limb.Bilateral)));
        Assert.Equal($"{at}.variant unknownVariant", Of(new RepsCriterion("sumo-squat", "levitating", 8, Limb.Bilateral)));
        Assert.Equal($"{at}.measure measureOrDrill", Of(new HoldCriterion(Seconds: 30, Limb: Limb.Bilateral)));
        Assert.Equal($"{at}.seconds secondsOrBreaths", Of(new HoldCriterion(Drill: "hollow", Limb: Limb.Bilateral)));
        Assert.Equal($"{at}.successes outOfRange", Of(new RateCriterion("crow-entry-success", 21, 20, Limb.Bilateral)));
        Assert.Equal(
            $"{at}.straddleAngle straddleAngleElsewhere",
            Of(new RomCriterion("seated-reach", Comparison.AtLeast, 100, Limb.Bilateral, StraddleAngle: true))
        );
    }

    [Fact]
    public void Stages_have_names_tests_and_rising_work()
    {
        Assert.Contains("stages[1].name required", Codes(With(Split, 2, s => s with { Name = " " })));
        Assert.Contains("stages[1].tests noTests", Codes(With(Split, 2, s => s with { Tests = [] })));
        Assert.Contains("stages[2].tests[1] sameTestTwice", Codes(With(Split, 3, s => s with { Tests = [s.Tests[0], s.Tests[0]] })));
        Assert.Contains("stages[1].number stagesCountUp", Codes(With(Split, 2, s => s with { Number = 3 })));
        Assert.Contains("stages[3].trainsAs stagesRise", Codes(With(Split, 4, s => s with { TrainsAs = 2 })));
        Assert.Contains("stages[3].trainsAs outOfRange", Codes(With(Split, 4, s => s with { TrainsAs = 9 })));
        Assert.Contains("skill unknownSkill", Codes(Split with { Skill = "no-such-skill" }));
        Assert.Contains("perSide sidesChanged", Codes(Split with { PerSide = false, SideMeasures = [] }));
    }

    [Fact]
    public void A_move_to_another_version_trains_nothing_above_the_present_stage()
    {
        // Stage 3 in two steps: 3 and 4 both train as the shipped stage 3.
        var finer = Split with
        {
            Stages =
            [
                .. Split.Stages.Take(3),
                Split.Stages[2] with
                {
                    Number = 4,
                    TrainsAs = 3,
                    Name = "High hands, longer",
                },
                .. Split.Stages.Skip(3).Select(s => s with { Number = s.Number + 1, TrainsAs = s.Number }),
            ],
        };
        Assert.Empty(Codes(finer));
        // The gate of its third stage was not passed yet.
        Assert.Equal(3, Decision.HighestAfterMove(Split, 3, finer));
        Assert.Equal(3, Decision.Move(Split, 3, finer, 3).Value);
        Assert.Equal("moveRaises", Decision.Move(Split, 3, finer, 4).Problems[0].Code);
        Assert.Equal("outOfRange", Decision.Move(Split, 3, finer, 0).Problems[0].Code);
        Assert.Equal(finer.Keystone, Decision.HighestAfterMove(Split, Split.Keystone, finer));
        Assert.Equal(3, Decision.HighestAfterMove(finer, 4, Split));
    }

    [Fact]
    public void A_copy_of_one_stage_is_no_way_to_the_end_of_the_ladder()
    {
        var handstand = Shipped.Ladder("handstand");
        var copy = handstand with { Stages = [handstand.Stages[0]] };
        Assert.Equal(2, Decision.HighestAfterMove(copy, copy.Keystone, handstand));
    }

    [Fact]
    public void A_stricter_gate_of_a_newer_version_was_not_passed()
    {
        var stricter = With(
            Split,
            2,
            s =>
                s with
                {
                    Tests = [.. s.Tests.Select(t => t is RomCriterion { Measure: "lunge-chest-gap" } r ? r with { Threshold = 5 } : t)],
                }
        );
        Assert.Equal(2, Decision.HighestAfterMove(Split, 5, stricter));
        Assert.Equal(5, Decision.HighestAfterMove(stricter, 5, Split));
    }
}
