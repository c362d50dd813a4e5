namespace Tensarch.Core.Planning;

/// <summary>What leads into a core drill: one easy round at the head of its phase. Source: judgement, what a session is made of.</summary>
internal sealed partial class SessionDraft
{
    private const int LeadSeconds = 30;
    private const int LeadEntries = 2;

    /// <summary>A core drill brings what leads into it; what cannot be done today is left out.</summary>
    private bool AddLeadIns(SkillPart part, List<PlannedDrill> added)
    {
        foreach (var core in added.Where(d => !IsAid(d) && part.Cores.Contains(d.Drill)).ToList())
            added.InsertRange(0, LeadInsOf(part, core).Where(l => drills.Concat(added).All(d => d.Id != l.Id)));
        return true;
    }

    private IEnumerable<PlannedDrill> LeadInsOf(SkillPart part, PlannedDrill core) =>
        shape
            .LeadIns.Where(l => l.Core == core.Drill)
            .SelectMany(l => l.From.Index())
            .Select(step =>
                step.Item.Select(key => LeadIn(part, core, catalogue.Drill(key), step.Index)).FirstOrDefault(l => l is not null)
            )
            .OfType<PlannedDrill>();

    /// <returns>None where it is not of the stage, or may not be done freely today.</returns>
    private PlannedDrill? LeadIn(SkillPart part, PlannedDrill core, Drill drill, int order)
    {
        if (
            !part.Serves(drill)
            || who.Bars.FewOf(drill.Tags) is not null
            || part.Plan(drill, companion: false, ramps: false).Sides is not { } sides
        )
            return null;
        var easy = sides.Select(s => Easy(part, drill, s)).OfType<PlannedSide>().ToList();
        if (easy.Count < sides.Count)
            return null;
        var reason = new DrillReason("leadIn", Number: order, For: core.Drill, Phase: PlaceOf(core).Phase);
        return new($"{drill.Key}-lead", drill.Key, reason, easy, part.Skill);
    }

    /// <summary>Once, in the easiest version of the stage, and no longer than it usually is, nor than a break or pain leaves it; none where a bar forbids it.</summary>
    private PlannedSide? Easy(SkillPart part, Drill drill, PlannedSide side)
    {
        var planned = drill.VariantAt(side.Variant);
        var easiest = drill.Variants.TakeWhile(v => v.Key != side.Variant).FirstOrDefault(v => v.IsInRange(part.Skill, side.Stage));
        return new[] { easiest, planned }
            .OfType<Variant>()
            .Select(v => side with { Variant = v.Key, Dose = Once(v), EasedFrom = v == planned ? side.EasedFrom : null })
            .FirstOrDefault(s => part.Who.Bars.Allow(drill.LoadsOf(drill.VariantAt(s.Variant), s.Dose, who.BreathSeconds)));

        Dose Once(Variant variant)
        {
            var usual = DrillChoice.Lightened(drill.DoseOf(variant), drill, part.Who, part.Course);
            return side.Dose switch
            {
                AttemptsDose d => d.WithRepeats(LeadEntries),
                RampedDose => DrillChoice.Lightened(
                    new HoldDose(Math.Min(LeadSeconds, part.Course.Approach.MostStillSeconds ?? LeadSeconds), null, 1, 0),
                    drill,
                    part.Who,
                    part.Course
                ),
                HoldDose { Seconds: { } seconds } d when usual is HoldDose { Seconds: { } most } => d with
                {
                    Seconds = Math.Min(Math.Min(seconds, most), LeadSeconds),
                    Rounds = 1,
                },
                var d => d.WithRepeats(1),
            };
        }
    }

    /// <summary>What is done before a core drill anyway leads into it by itself; what is not, is led into.</summary>
    private void LeadIn()
    {
        foreach (var core in drills.Where(d => !IsAid(d) && IsCore(d)).ToList())
        foreach (var steps in shape.LeadIns.Where(l => l.Core == core.Drill).SelectMany(l => l.From))
        {
            var leads = drills.Where(d => d.Reason.LeadsIn && steps.Contains(d.Drill)).ToList();
            if (drills.Any(d => !d.Reason.LeadsIn && steps.Contains(d.Drill) && LeadsAnyway(d, core)))
                foreach (var lead in leads.Where(l => !NeededElsewhere(l, core)))
                    drills.Remove(lead);
            else if (leads.Count == 0)
            {
                var missing = LeadInsOf(PartOf(core), core).Where(l => steps.Contains(l.Drill) && drills.All(d => d.Id != l.Id)).ToList();
                if (missing.Count > 0 && Accompanied(PartOf(core), missing) is { } added && TooMuch(added) is null)
                    Put(PartOf(core), added);
            }
        }
    }

    private List<PlannedDrill>? Accompanied(SkillPart part, List<PlannedDrill> added) => Accompany(part, added) ? added : null;

    /// <summary>In the main part, or as a test of the day, and before it.</summary>
    private bool LeadsAnyway(PlannedDrill planned, PlannedDrill core) =>
        (IsMain(planned) || IsTest(planned)) && PlaceOf(planned).CompareTo(PlaceOf(core)) < 0;

    private bool NeededElsewhere(PlannedDrill lead, PlannedDrill core) =>
        drills.Any(o =>
            o != core
            && !IsAid(o)
            && IsCore(o)
            && shape.LeadIns.Where(l => l.Core == o.Drill).SelectMany(l => l.From).Where(s => s.Contains(lead.Drill)).ToList()
                is { Count: > 0 } steps
            && !steps.TrueForAll(s => drills.Any(d => !d.Reason.LeadsIn && s.Contains(d.Drill) && LeadsAnyway(d, o)))
        );
}
