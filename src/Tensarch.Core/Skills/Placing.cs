using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>Where a new student might start on one side, and what each stage up to there would still ask for or add.</summary>
/// <param name="Side">None on a bilateral ladder.</param>
/// <param name="Highest">No start lies above it: past it is an exit or a form that was not shown here, or a tag that is off limits.</param>
/// <param name="Stages">From stage 1 to the suggested one.</param>
public sealed record StartAdvice(Side? Side, int Suggested, int Highest, IReadOnlyList<StartStage> Stages);

/// <param name="Tests">All tests of its gate, judged today.</param>
public sealed record StartStage(int Stage, IReadOnlyList<TestVerdict> Tests)
{
    /// <summary>What starting here would still bring: the tests that are not met, exposure and pain included.</summary>
    public IReadOnlyList<TestVerdict> Adds => [.. Tests.Where(t => t.Outcome != Outcome.Met)];
}

/// <summary>Suggests where a new student starts on a ladder; the coach confirms.</summary>
public sealed class Placing(Gate gate)
{
    /// <summary>
    /// The lowest stage with an unmet test other than exposure and pain; an exit or a form that has not been shown here counts as unmet.
    /// A ladder that starts at one starts there.
    /// </summary>
    public StartAdvice Suggest(Ladder ladder, Side? side, Evidence evidence)
    {
        var stages = new List<StartStage>();
        foreach (var stage in ladder.Stages)
        {
            stages.Add(new(stage.Number, gate.JudgeStage(ladder, stage.Number, side, evidence)));
            if (ladder.StartsAtOne || stages[^1].Tests.Any(Stops))
                break;
        }
        return new(side, stages[^1].Stage, Highest(ladder, side, evidence), stages);
    }

    /// <summary>The highest stage at which anyone may be put, whatever the coach knows of them.</summary>
    public int Highest(Ladder ladder, Side? side, Evidence evidence)
    {
        if (ladder.StartsAtOne)
            return 1;
        var barred = ladder.RequiredTags.Where(r => evidence.Bars[r.Tag] == BarLevel.OffLimits).Select(r => Math.Max(1, r.FromStage - 1));
        var unshown =
            from stage in ladder.Stages
            from test in ladder.GateOf(stage.Number)
            where test is ExitCriterion or FormCriterion
            where gate.JudgeTest(test, ladder, stage.Number, side, evidence).Any(v => v.Count < v.Needed)
            select stage.Number;
        return barred.Concat(unshown).Append(ladder.Stages.Count).Min();
    }

    private static bool Stops(TestVerdict test) => test.Outcome != Outcome.Met && test.Test is not (ExposureCriterion or PainCriterion);
}
