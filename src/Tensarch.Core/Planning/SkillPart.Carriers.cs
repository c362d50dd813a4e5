namespace Tensarch.Core.Planning;

/// <summary>What carries a session: the core and what stands in for it and leads into it, the way out, and what trains or opens a test of the gate.</summary>
internal sealed partial class SkillPart
{
    private HashSet<string>? carriers;

    public bool Carries(Drill drill) =>
        drill.IsWayOut || (carriers ??= [.. Sides.SelectMany(s => CarriersAt(trained[s]))]).Contains(drill.Key);

    private IEnumerable<string> CarriersAt(int stage)
    {
        foreach (var core in CoresAt(stage))
        {
            yield return core;
            foreach (var lead in catalogue.Shape.LeadIns.Where(l => l.Core == core).SelectMany(l => l.From).SelectMany(s => s))
                yield return lead;
            if (catalogue.Shape.StandIns.TryGetValue(core, out var other))
                yield return other;
        }
        foreach (var test in Course.Ladder.GateOf(stage))
        {
            if (Want.Practises(test, catalogue))
                yield return Want.DrillOf(test, catalogue)!;
            foreach (var drill in catalogue.Shape.OpenedBy.GetValueOrDefault(test.ReadMeasure ?? "") ?? [])
                yield return drill;
        }
    }

    public bool IsCore(string drill) => Cores.Contains(drill) || Cores.Any(c => catalogue.Shape.StandIns.GetValueOrDefault(c) == drill);

    /// <summary>A bar, or a light day, limits the core: nothing is measured against it then.</summary>
    public bool CoreLimited =>
        coreLimited ??=
            Light
            || Sides.Any(s => trained[s] < Course.WorkStage(s))
            || Sides.SelectMany(s => CoresAt(Course.WorkStage(s))).Select(catalogue.Drill).Any(IsLimited);

    /// <summary>It is light only, or none of its versions may be done.</summary>
    private bool IsLimited(Drill core) => bars.FewOf(core.Tags) is not null || !core.MayBeDone(null, bars, who.BreathSeconds);

    private bool? coreLimited;

    public bool FirstWeek => who.FirstWeekOf(Course);
}
