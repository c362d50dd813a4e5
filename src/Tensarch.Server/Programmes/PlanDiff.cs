using Tensarch.Core.Programmes;

namespace Tensarch.Server.Programmes;

/// <summary>What one version of a plan has other than the one before it, session by session, and why.</summary>
internal static class PlanDiff
{
    /// <param name="since">Earlier days are over: they do not change.</param>
    /// <param name="barred">Days of the version before on which something is off limits or light only by now.</param>
    /// <param name="missed">Sessions of the version before were not trained.</param>
    public static IReadOnlyList<DayDifference> Of(
        (ProgrammeSketch Sketch, StoredPlan Plan) was,
        (ProgrammeSketch Sketch, StoredPlan Plan) now,
        DateOnly since,
        IReadOnlySet<DateOnly> barred,
        bool missed
    )
    {
        var before = ByPart(was.Plan, since);
        var after = ByPart(now.Plan, since);
        var goals = Goals(was.Sketch) != Goals(now.Sketch);
        var changes = new List<DayDifference>();
        foreach (var at in before.Keys.Union(after.Keys).Order())
        {
            var (old, made) = (before.GetValueOrDefault(at), after.GetValueOrDefault(at));
            if (old is null)
                changes.Add(new(at.Day, at.Half, DayDifferenceKind.New, [], made!.Blocks, made.Pinned ? "pinned" : "timeAdded"));
            else if (made is null)
                changes.Add(new(at.Day, at.Half, DayDifferenceKind.Gone, old.Blocks, [], "timeGone"));
            else if (!Same(old, made))
            {
                var stage = StageChanged(old, made);
                changes.Add(
                    new(
                        at.Day,
                        at.Half,
                        DayDifferenceKind.Changed,
                        old.Blocks,
                        made.Blocks,
                        old.Minutes != made.Minutes ? "minutes"
                            : Theme(was.Sketch, at) != Theme(now.Sketch, at) ? "theme"
                            : goals ? "goals"
                            : stage is not null ? "stage"
                            : barred.Contains(at.Day) ? "barred"
                            : old.Pinned != made.Pinned ? "pinned"
                            : missed ? "missed"
                            : "around",
                        stage
                    )
                );
            }
        }
        return changes;
    }

    /// <summary>Of one that was thrown away and one that came in its place, the newer.</summary>
    private static Dictionary<(DateOnly Day, Core.Students.DayHalf Half), StoredDay> ByPart(StoredPlan plan, DateOnly since) =>
        plan.Days.Where(d => d.Day >= since).GroupBy(d => (d.Day, d.Half)).ToDictionary(g => g.Key, g => g.MaxBy(d => d.Pinned)!);

    /// <summary>What is trained, and not in which of several equal drills.</summary>
    public static bool Same(StoredDay one, StoredDay other) =>
        one.Ask?.ToString() == other.Ask?.ToString() && one.Minutes == other.Minutes && StageChanged(one, other) is null;

    private static string Goals(ProgrammeSketch sketch) => string.Join(' ', sketch.Goals.OrderBy(g => g.Priority).Select(g => g.Skill));

    private static TrainingSlot? Theme(ProgrammeSketch sketch, (DateOnly Day, Core.Students.DayHalf Half) at) =>
        sketch.Slots().FirstOrDefault(s => s.Day == at.Day && s.Half == at.Half) is { } slot ? slot with { Minutes = 0 } : null;

    /// <summary>The skill of which another stage is trained.</summary>
    private static string? StageChanged(StoredDay one, StoredDay other)
    {
        if (one.Plan is null || other.Plan is null)
            return null;
        static HashSet<(string?, Core.Side?, int)> Stages(Core.Planning.SessionPlan plan) =>
            [.. plan.Drills.Where(d => d.Skill is not null).SelectMany(d => d.Sides.Select(s => (d.Skill, s.Side, s.Stage)))];
        var (was, now) = (Stages(one.Plan), Stages(other.Plan));
        foreach (var skill in one.Blocks.Select(b => b.Skill).Intersect(other.Blocks.Select(b => b.Skill)))
        {
            var (had, has) = (
                was.Where(s => s.Item1 == skill).Max(s => (int?)s.Item3),
                now.Where(s => s.Item1 == skill).Max(s => (int?)s.Item3)
            );
            if (had != has)
                return skill;
        }
        return null;
    }
}
