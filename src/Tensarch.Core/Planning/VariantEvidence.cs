namespace Tensarch.Core.Planning;

/// <summary>
/// Which variant of a drill somebody does: the easiest of the stage's range, or what they did last in it; the next one after two sessions that
/// were done in full. None is skipped.
/// </summary>
internal static class VariantEvidence
{
    private const int FullSessions = 2;

    /// <param name="side">None where the drill has no sides.</param>
    /// <param name="trains">The stage whose range it is.</param>
    /// <param name="want">What the gate asks of it; none where it asks nothing.</param>
    /// <param name="before">What was done from this day on says nothing: it was eased.</param>
    /// <returns>The place of the variant among the drill's, easiest first.</returns>
    public static int Of(Drill drill, Side? side, int trains, Want? want, Trainee who, CourseState course, DateOnly? before)
    {
        var skill = course.Skill;
        var all = drill.Variants.Index().Where(v => Fits(drill, v.Item, side, course)).ToList();
        var inRange = all.Where(v => v.Item.IsInRange(skill, trains)).Select(v => v.Index).ToList();
        if (inRange.Count == 0)
            inRange =
            [
                all.Where(v => v.Item.FromStageIn(skill) <= trains)
                    .Select(v => v.Index)
                    .DefaultIfEmpty(all.Select(v => v.Index).DefaultIfEmpty(0).Min())
                    .Max(),
            ];
        var asked = want?.Variant is { } read ? drill.Variants.Index().First(v => v.Item.Key == read).Index : (int?)null;
        // What was held or counted as the gate asks for it is no news any more.
        if (want?.Best is not null)
            return asked ?? inRange[^1];
        var top = Math.Max(inRange[^1], asked ?? 0);
        return Math.Clamp(Reached(drill, side, who, course, before) ?? inRange[0], inRange[0], top);
    }

    /// <summary>What was done last, or the next one after two full sessions of it; none before the first.</summary>
    private static int? Reached(Drill drill, Side? side, Trainee who, CourseState course, DateOnly? before)
    {
        var all = (
            from done in who.History.Of(drill.Key)
            where before is null || done.Day < before
            let work = done.Work
            where !work.LedIn
            where (side is null || work.Side is null || work.Side == side) && (work.Skill is null || work.Skill == course.Skill)
            let at = drill.Variants.Index().Where(v => v.Item.Key == work.Variant).Select(v => (int?)v.Index).FirstOrDefault()
            where at is not null
            select (done.Day, At: at.Value, work.Full)
        ).ToList();
        if (all.Count == 0)
            return null;
        var last = all.Where(d => d.Day == all[^1].Day).Max(d => d.At);
        return !who.HoldsBack(drill) && all.Count(d => d.At == last && d.Full) >= FullSessions ? last + 1 : last;
    }

    /// <summary>A support that was measured is the one that is used: the least that the last reading allows.</summary>
    private static bool Fits(Drill drill, Variant variant, Side? side, CourseState course)
    {
        if (
            drill.FitsMeasure is not { } measure
            || !(side is { } one ? course.Of(one) : course.Left).Supports.TryGetValue(measure, out var needed)
        )
            return true;
        var enough = drill.Variants.Where(v => v.Fits >= needed).Select(v => v.Fits).DefaultIfEmpty(drill.Variants.Max(v => v.Fits)).Min();
        return variant.Fits == enough;
    }
}
