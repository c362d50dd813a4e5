using Tensarch.Core.Planning;

namespace Tensarch.Core.Skills;

/// <summary>Judges the tests on what was trained: exposure and pain.</summary>
internal static class TrainingTests
{
    /// <summary>Sessions with a working drill of the stage on this side, since the decision into the stage.</summary>
    public static TestVerdict Exposure(
        ExposureCriterion test,
        Ladder ladder,
        int stage,
        Side? side,
        IReadOnlyDictionary<string, Drill> drills,
        Evidence evidence
    )
    {
        var since = evidence.EnteredAt(side, stage);
        var done = evidence
            .Sets.Where(s => s.Session is not null && s.At >= since && (side is null || s.Side == side))
            .Where(s => s.Skill is null || s.Skill == ladder.Skill)
            .Where(s => Works(drills, s.Drill, ladder, stage))
            .GroupBy(s => s.Session!.Value)
            .Select(g => g.MinBy(s => s.At)!)
            .OrderBy(s => s.At)
            .ToList();
        var days = done.Count == 0 ? 0 : done[^1].Day.DayNumber - done[0].Day.DayNumber + 1;
        var met = done.Count >= test.Sessions && days >= test.Days;
        return new(
            test,
            met ? Outcome.Met : Outcome.NotMet,
            met ? "enoughSessions"
                : done.Count < test.Sessions ? "tooFewSessions"
                : "tooFewDays",
            met ? NextStep.Nothing : new("logSessions", side, Count: Math.Max(1, test.Sessions - done.Count)),
            side,
            done.Count,
            test.Sessions,
            Margin: done.Count - test.Sessions,
            At: done.LastOrDefault()?.At,
            Count: done.Count,
            Needed: test.Sessions,
            Days: days,
            Evidence: [.. done.Select(s => s.Session!.Value)]
        );
    }

    public static TestVerdict Pain(PainCriterion test, Ladder ladder, Evidence evidence)
    {
        var last = evidence.Sessions.OrderByDescending(s => s.At).Take(test.Sessions).ToList();
        // What is sharp hurts with or without a number.
        var hurt = evidence
            .Signals.Where(s => s.Region is { } r && ladder.Regions.Contains(r))
            .Where(s => s.Pain > test.AtMost || (s.Pain is null && s.IsPainEvent))
            .ToList();
        var free = last.Index().Count(s => !hurt.Any(h => h.At >= s.Item.At && (s.Index == 0 || h.At < last[s.Index - 1].At)));
        if (last.Count < test.Sessions)
            return new(
                test,
                Outcome.NoData,
                "tooFewSessions",
                new("logSessions", Count: test.Sessions - free),
                Threshold: test.AtMost,
                Count: free,
                Needed: test.Sessions
            );

        var felt = evidence
            .Signals.Where(s => s.At >= last[^1].At && s.Region is { } r && ladder.Regions.Contains(r))
            .Select(s => s.Pain ?? (hurt.Contains(s) ? test.AtMost + 1 : 0));
        var worst = felt.DefaultIfEmpty(0).Max();
        var met = worst <= test.AtMost;
        return new(
            test,
            met ? Outcome.Met : Outcome.NotMet,
            met ? "painFree" : "painInRegion",
            met ? NextStep.Nothing : new("trainPainFree", Count: test.Sessions),
            Value: worst,
            Threshold: test.AtMost,
            Margin: test.AtMost - worst,
            At: last[0].At,
            Count: free,
            Needed: test.Sessions,
            Evidence: [.. hurt.Where(s => s.At >= last[^1].At).Select(s => s.Id)]
        );
    }

    private static bool Works(IReadOnlyDictionary<string, Drill> drills, string key, Ladder ladder, int stage) =>
        drills.TryGetValue(key, out var drill)
        && drill.ServesStage(ladder.Skill, ladder.TrainsAs(stage))
        && drill.Kind is DrillKind.Mobilise or DrillKind.Strength or DrillKind.EndRange or DrillKind.Skill or DrillKind.Attempt;
}
