using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;

namespace Tensarch.Core.Sessions;

/// <summary>
/// Makes the pack of a plan under the facts of the moment. The plan is checked in full first: what today's facts no longer allow, a plan for
/// another day, or one from before a step, is refused with its reasons.
/// </summary>
public sealed class PackMaker(CatalogueContent content)
{
    /// <param name="plan">As it was stored.</param>
    /// <param name="now">What today's session depends on, without the session itself.</param>
    /// <returns>
    /// The pack; or <c>planOutdated</c>, with what it breaks in the fields: <c>otherFormat</c>, <c>otherDay</c>, <c>otherLadder</c>, <c>stageChanged</c>, <c>otherApproach</c>, or the code
    /// of the rule.
    /// </returns>
    public Result<SessionPack> Make(SessionPlan plan, Trainee now)
    {
        var broken = Outdated(plan, now).Distinct().ToList();
        return broken.Count > 0 ? broken.Select(code => Problem.Of("planOutdated", code)).ToList() : Pack(plan, now);
    }

    /// <summary>
    /// The pack of a session that is under way: what has happened since is for the runner to take out, by what has ended; nothing is checked but
    /// that the plan can be read.
    /// </summary>
    public SessionPack Pack(SessionPlan plan, Trainee now)
    {
        var parts = Timeline.Of(plan, content);
        var slots = new PackSlots(plan, now, content);
        var line = parts.Select(p => slots.Of(p, practice: p.Planned.Reason.Code == "dayGate")).ToList();
        var gates = new PackGates(slots, parts, line, now, content).Write();
        return new(
            SessionPack.CurrentFormat,
            line,
            gates,
            [.. content.StopRules.Select(PackStops.Of)],
            parts.Sum(p => p.Seconds),
            now.Bars.SensationCeiling
        );
    }

    /// <summary>Why a plan is not run today.</summary>
    public IEnumerable<string> Outdated(SessionPlan plan, Trainee now)
    {
        if (plan.Format != SessionPlan.CurrentFormat)
            yield return "otherFormat";
        if (plan.Date != now.Date)
            yield return "otherDay";
        foreach (var skill in plan.Skills)
        {
            var course = now.Courses.FirstOrDefault(c => c.Skill == skill.Skill);
            if (course is null || skill.Ladder != course.Ladder.Key || skill.LadderVersion != course.Ladder.Version)
            {
                yield return "otherLadder";
                yield break;
            }
            if (skill.Approach != course.Approach.Key)
                yield return "otherApproach";
            int Trains(Side side) => plan.LowerStage(course.Skill, side) ?? course.WorkStage(side);
            var sides =
                from planned in plan.Drills
                where planned.Skill == course.Skill
                from side in planned.Sides
                select side.Stage == (side.Side is { } s ? Trains(s) : SideExtensions.Both.Min(Trains));
            if (!sides.All(same => same))
                yield return "stageChanged";
        }
        foreach (var violation in SessionChecker.Check(plan, now with { Minutes = plan.Minutes }, content))
            // What a coach bent with open eyes stays bent; what keeps a body safe is nobody's to bend.
            if (!Preferences.IsShape(violation.Code) && (plan.Bent is null || !Preferences.Bends(violation.Code)))
                yield return violation.Code;
    }
}
