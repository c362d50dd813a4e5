using CsCheck;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Core.Tests.Planning;

namespace Tensarch.Core.Tests.Skills;

/// <summary>Where anyone may start, whatever was read, shown or held.</summary>
public class PlacingProperties
{
    private static readonly Gate Gate = new(Shipped.Content);
    private static readonly Placing Placing = new(Gate);

    private sealed record Case(Ladder Ladder, Side? Side, Evidence Evidence);

    /// <summary>Some readings of the ladder's own measures, some exits and forms shown, some bars.</summary>
    private static readonly Gen<Case> AnyCase =
        from ladder in Gen.OneOf(Shipped.Content.Skills.ToArray())
        from side in Gen.OneOf(ladder.Courses.ToArray())
        from generous in Gen.Bool
        from shownUpTo in Gen.Int[0, ladder.Stages.Count]
        from daysAgo in Gen.Double[0, 60]
        from bars in SessionProperties.AnyCautions
        select new Case(ladder, side, Facts(ladder, generous, shownUpTo, daysAgo) with { Bars = bars });

    private static Evidence Facts(Ladder ladder, bool generous, int shownUpTo, double daysAgo)
    {
        var tests = ladder.Stages.SelectMany(s => s.Tests.Select(t => (Stage: s.Number, Test: t))).ToList();
        var readings =
            from rom in tests.Select(t => t.Test).OfType<RomCriterion>()
            let measure = Shipped.Content.Measure(rom.Measure)
            let good = rom.Comparison == Comparison.AtLeast ? measure.Max : measure.Min
            let bad = rom.Comparison == Comparison.AtLeast ? measure.Min : measure.Max
            from side in measure.PerSide ? new Side?[] { Side.Left, Side.Right } : [null]
            select Shipped.Read(rom.Measure, side, 1, [.. Enumerable.Repeat(generous ? good : bad, 3)], level: rom.Level);
        var at = Shipped.Now.AddDays(-daysAgo);
        var exits =
            from t in tests
            where t.Test is ExitCriterion && t.Stage <= shownUpTo
            from side in new Side?[] { Side.Left, Side.Right, null }
            select new ExitCheck(Guid.NewGuid(), at, t.Test.ReadDrill!, t.Test.ReadVariant, side, 5, 5);
        var forms =
            from t in tests
            where t.Test is FormCriterion && t.Stage <= shownUpTo
            from side in new Side?[] { Side.Left, Side.Right, null }
            select new FormCheck(Guid.NewGuid(), at, ladder.Skill, t.Stage, side, [.. ((FormCriterion)t.Test).Items.Select(i => i.Key)]);
        return Shipped.Evidence([.. readings], exits: [.. exits], forms: [.. forms]);
    }

    private static bool OnlyTraining(TestVerdict test) => test.Test is ExposureCriterion or PainCriterion;

    [Fact]
    public void The_suggestion_is_the_lowest_stage_that_still_asks_for_something()
    {
        var above = 0;
        AnyCase.Sample(c =>
        {
            var advice = Placing.Suggest(c.Ladder, c.Side, c.Evidence);
            Assert.Equal(Enumerable.Range(1, advice.Suggested), advice.Stages.Select(s => s.Stage));
            Assert.All(advice.Stages.SkipLast(1), s => Assert.All(s.Adds, t => Assert.True(OnlyTraining(t))));
            Assert.True(
                c.Ladder.StartsAtOne || advice.Suggested == c.Ladder.Stages.Count || advice.Stages[^1].Adds.Any(t => !OnlyTraining(t))
            );
            if (advice.Suggested > 1)
                Interlocked.Increment(ref above);
        });
        Assert.True(above > 0);
    }

    [Fact]
    public void Nobody_is_put_past_what_was_not_shown_or_past_what_is_held()
    {
        AnyCase.Sample(c =>
        {
            var advice = Placing.Suggest(c.Ladder, c.Side, c.Evidence);
            Assert.InRange(advice.Suggested, 1, advice.Highest);
            for (var stage = 1; stage < advice.Highest; stage++)
            {
                Assert.All(c.Ladder.RequiredAt(stage), tag => Assert.NotEqual(BarLevel.OffLimits, c.Evidence.Bars[tag]));
                foreach (var test in c.Ladder.StageAt(stage).Tests.Where(t => t is ExitCriterion or FormCriterion))
                    Assert.All(
                        Gate.JudgeTest(test, c.Ladder, stage, c.Side, c.Evidence),
                        v => Assert.Contains(v.Outcome, new[] { Outcome.Met, Outcome.Stale })
                    );
            }
        });
    }

    [Fact]
    public void One_more_hold_never_lets_anyone_start_higher() =>
        Gen.Select(AnyCase, Gen.OneOf(LoadTags.All.ToArray()))
            .Sample(
                (c, tag) =>
                {
                    var before = Placing.Suggest(c.Ladder, c.Side, c.Evidence);
                    var held = c.Evidence with
                    {
                        Bars = Shipped.Barred([
                            .. c.Evidence.Bars.Levels.Where(l => l.Value == BarLevel.OffLimits).Select(l => l.Key),
                            tag,
                        ]),
                    };
                    var after = Placing.Suggest(c.Ladder, c.Side, held);
                    Assert.True(after.Suggested <= before.Suggested && after.Highest <= before.Highest);
                }
            );
}
