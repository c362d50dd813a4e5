using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>The core carries a session; what is beside it never outgrows it. Source: judgement, what a session is made of.</summary>
internal sealed partial class SessionDraft
{
    /// <summary>Whether a drill may be there at these doses, in the place of what is there of it already.</summary>
    private bool Borne(SkillPart part, Drill drill, PlannedDrill planned)
    {
        if (!IsMain(planned) || part.Cores.Contains(drill.Key))
            return true;
        // What stands in is core where the core is not; beside it there is no more of it.
        if (part.IsCore(drill.Key))
            return StoodInFor(part, drill) is not { } itself || WorkOf(planned) <= WorkOf(itself);
        if (part.FirstWeek && IsTooMuchAtFirst(part, planned))
            return false;
        if (part.CoreLimited)
            return part.Carries(drill) || WorkOf(planned) <= shape.BesideLimitedSeconds;
        var others = drills.Where(d => d.Skill == part.Skill && d.Id != planned.Id && !IsTest(d)).ToList();
        double main = others.Where(IsMain).Sum(Seconds) + Seconds(planned);
        double core = others.Where(d => part.IsCore(d.Drill)).Sum(Seconds);
        // Where the week leaves nothing of the core, there is nothing to measure against.
        if (core == 0)
            return true;
        var carrying = shape.CarryingOf(part.Skill);
        // A test that is due and a way out are as long as they are.
        double fixedWork = others.Append(planned).Where(d => IsMain(d) && IsFixed(d)).Sum(Seconds);
        if (core < carrying.Core * (main - fixedWork))
            return false;
        if (part.Carries(drill))
            return true;
        if (others.Where(d => part.Carries(catalogue.Drill(d.Drill))).Sum(Seconds) < carrying.Carriers * main)
            return false;
        if (WorkOf(planned) > MostCoreWork(part, drill, PlaceOf(planned).Phase, others))
            return false;
        return !IsElsewhere(drill)
            || others.Where(d => IsMain(d) && !part.Carries(catalogue.Drill(d.Drill)) && IsElsewhere(catalogue.Drill(d.Drill))).Sum(Seconds)
                + Seconds(planned)
                <= shape.ElsewhereShare * main;
    }

    private PlannedDrill? StoodInFor(SkillPart part, Drill drill) =>
        drills.FirstOrDefault(d => d.Skill == part.Skill && !IsAid(d) && shape.StandIns.GetValueOrDefault(d.Drill) == drill.Key);

    private bool IsFixed(PlannedDrill planned) => catalogue.Drill(planned.Drill).IsWayOut || planned.Sides.Any(s => IsDue(planned, s));

    /// <summary>What is beside a core that came out smaller is made smaller too, the least important first.</summary>
    private void Balance()
    {
        while (
            drills
                .Where(d => IsMain(d) && !IsAid(d) && !IsFixed(d) && catalogue.Drill(d.Drill).Kind != DrillKind.Counter)
                // What something else needs to be prepared stays.
                .Where(d => d.Reason.Code != "preparesRegions" || !Prepares(d))
                .Where(d => !Borne(PartOf(d), catalogue.Drill(d.Drill), d))
                .OrderBy(Importance.Of)
                .ThenByDescending(Seconds)
                .FirstOrDefault()
                is { } over
        )
        {
            if (over.Sides.All(s => DrillDose.MayLessen(s.Dose)))
                Lessen(over);
            else
                drills.Remove(over);
            DropOrphans();
        }
    }

    /// <summary>The first week is light: few things, and no more than a part of the day; beside another skill nothing but what carries it.</summary>
    private bool IsTooMuchAtFirst(SkillPart part, PlannedDrill planned)
    {
        var others = drills.Where(d => IsMain(d) && !IsTest(d) && d.Id != planned.Id).ToList();
        if (IsFixed(planned))
            return false;
        return others.Count(d => !IsAid(d) && catalogue.Drill(d.Drill).Kind != DrillKind.Counter) >= shape.FirstWeek.MainDrills
            || others.Sum(Seconds) + Seconds(planned) > shape.FirstWeek.MainShare * 60 * who.Minutes
            || (parts.Count > 1 && !catalogue.Drill(planned.Drill).IsWayOut);
    }

    /// <summary>
    /// Of the core drills that load one of its regions, the work of the one that has most: those of its own phase, where there are any, for what is
    /// stretched is not measured against what is strengthened. As much as it likes where none does.
    /// </summary>
    private double MostCoreWork(SkillPart part, Drill drill, SessionPhase phase, List<PlannedDrill> others)
    {
        var cores = others
            .Where(d => part.IsCore(d.Drill) && catalogue.Drill(d.Drill).Tags.Any(t => t.IsRegion() && drill.Tags.Contains(t)))
            .ToList();
        var alike = cores.Where(d => PlaceOf(d).Phase == phase).ToList();
        return (alike.Count > 0 ? alike : cores).Select(WorkOf).DefaultIfEmpty(double.MaxValue).Max();
    }

    private double WorkOf(PlannedDrill planned) => FactsOf(planned).Working;

    /// <summary>It loads no region of what the session is for.</summary>
    private bool IsElsewhere(Drill drill) => !drill.Tags.Any(Regions.Contains);
}
