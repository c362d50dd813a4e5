using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>The shape of a session: shares, few things, and the core of the stage.</summary>
public static partial class SessionChecker
{
    /// <summary>The last thing that warms is done whole: so much over what is needed is not too long.</summary>
    private const int WarmTolerance = 30;

    /// <summary>Rule 3: the shares of the time used, and few things. Where there is not enough to do it is said, and main work may be less.</summary>
    private static IEnumerable<Violation> Shape(List<Line> lines, SessionPlan plan, Trainee facts, CatalogueContent catalogue)
    {
        var shape = catalogue.Shape;
        var all = lines.Sum(l => Seconds(l, plan));
        var warm = lines.Where(l => l.PhaseIn == SessionPhase.Warm).Sum(l => Seconds(l, plan));
        var down = lines.Where(l => l.PhaseIn == SessionPhase.Down).Sum(l => Seconds(l, plan));
        var restful = plan.Skills.All(s => shape.Restful.Contains(s.Skill));
        var needed = Math.Clamp(plan.Minutes * 60 * shape.Warm.Share, shape.Warm.LeastSeconds, shape.Warm.MostSeconds);
        // A day that its skills do not fill has the warm-up of a shorter one.
        if (plan.Notes.Any(n => n.Code == "notEnoughToDo"))
            needed = shape.Warm.LeastSeconds;
        if (warm < needed)
            yield return new(3, "warmUpTooShort");
        if (plan.Notes.Any(n => n.Code == "notEnoughToDo"))
            yield break;
        // What tests the body for the day is as long as it is.
        var tests = lines.Where(l => l.TestsInWarmUp).Sum(l => Seconds(l, plan));
        // What is core is work wherever it stands.
        warm -= lines.Where(l => l.PhaseIn == SessionPhase.Warm && l.Planned.Reason.Code is "core" or "standIn").Sum(l => Seconds(l, plan));
        if (
            warm - tests > needed + WarmTolerance
            && warm - tests > all * (plan.Minutes < shape.Warm.ShortUnderMinutes ? shape.Warm.ShortMostShare : shape.Warm.MostShare)
        )
            yield return new(3, "warmUpTooLong");
        if (down > Math.Max(shape.Down.LeastSeconds, all * (restful ? shape.Down.RestfulShare : shape.Down.Share)))
            yield return new(3, "downTooLong");
        if (all - warm - down < (all - tests) * (restful ? shape.Main.RestfulLeastShare : shape.Main.LeastShare))
            yield return new(3, "mainTooShort");
        var main = lines.Where(l => l.PhaseIn is not (SessionPhase.Warm or SessionPhase.Down)).ToList();
        if (main.Sum(l => Work(l.Side.Dose, plan.BreathSeconds) + Leaving(l)) < shape.Main.WorkShare * main.Sum(l => Seconds(l, plan)))
            yield return new(3, "moreRestThanWork");
        var counted = plan.Drills.Count(d =>
            d.Reason.Code is not ("dayGate" or "leadIn") && catalogue.Drill(d.Drill).Kind is not (DrillKind.Counter or DrillKind.Calm)
        );
        if (counted > shape.Caps.First(c => plan.Minutes < c.UnderMinutes).Drills)
            yield return new(3, "tooManyDrills");
        foreach (
            var region in lines
                .Where(l => l.Side.Dose is RampedDose)
                .SelectMany(l => l.Loads.Keys.Where(t => t.IsRegion()).Select(t => (Tag: t, l.Planned.Id)))
                .Distinct()
                .GroupBy(l => l.Tag)
                .Where(g => g.Count() > 1)
        )
            yield return new(3, "twoRampsOnARegion", catalogue.Drill(lines.First(l => l.Planned.Id == region.Last().Id).Drill.Key).Key);
    }

    /// <summary>The core drills of the stage that is trained are there, or their stand-ins, or it is said why not.</summary>
    private static IEnumerable<Violation> Cores(SessionPlan plan, Trainee facts, CatalogueContent catalogue)
    {
        foreach (var course in facts.Courses.Where(c => plan.Skills.Any(s => s.Skill == c.Ladder.Skill)))
        foreach (var state in new[] { course.Left, course.Right })
        {
            var stages = course.Ladder.Stages;
            var own = stages[Math.Clamp(state.Stage, 1, stages.Count) - 1];
            var lower = plan
                .Notes.FirstOrDefault(n =>
                    n.Code == "lowerStage"
                    && (n.Skill is null || n.Skill == course.Ladder.Skill)
                    && (n.Side is null || n.Side == state.Side)
                )
                ?.Number;
            var stage = lower is { } l ? stages[(int)l - 1] : own;
            var cores = stage.Core ?? catalogue.NewestLadder(course.Ladder.Skill)?.Stages[(stage.TrainsAs ?? stage.Number) - 1].Core ?? [];
            foreach (var core in cores)
                if (
                    !plan.Drills.Any(d =>
                        (d.Drill == core || d.Drill == catalogue.Shape.StandIns.GetValueOrDefault(core))
                        && d.Sides.Any(s => s.Side is null || s.Side == state.Side)
                    ) && plan.Notes.All(n => n.Drill != core)
                )
                    yield return new(3, "coreMissing", core);
        }
    }
}
