using System.Collections.ObjectModel;

namespace Tensarch.Core.Planning;

/// <summary>The drills of a session in the making, and what they add up to, added up once after each change.</summary>
internal sealed class DraftDrills(SkillParts made) : Collection<PlannedDrill>
{
    /// <summary>In seconds by phase; and how many there are, tests and what leads in left out.</summary>
    /// <param name="Counted">Of those that the cap counts.</param>
    /// <param name="Warming">In the warm-up.</param>
    public sealed record Sums(int Used, int Warm, int Main, int Down, int Counted, int Warming);

    private Sums? sums;

    public Sums Together => sums ??= Add();

    public (SessionPhase Phase, int Rank) PlaceOf(PlannedDrill planned) =>
        SessionOrder.PlaceOf(made.FactsOf(planned).Drill, planned.Reason);

    /// <summary>Drills that the cap counts: no counters, no calm.</summary>
    public static bool Counts(Drill drill) => drill.Kind is not (DrillKind.Counter or DrillKind.Calm);

    public void AddRange(IEnumerable<PlannedDrill> more)
    {
        foreach (var planned in more)
            Add(planned);
    }

    public void RemoveAll(Predicate<PlannedDrill> which)
    {
        // All are asked before any goes.
        foreach (var gone in Items.Where(d => which(d)).ToList())
            Remove(gone);
    }

    public int At(string id)
    {
        for (var i = 0; i < Count; i++)
            if (Items[i].Id == id)
                return i;
        return -1;
    }

    protected override void InsertItem(int index, PlannedDrill item)
    {
        base.InsertItem(index, item);
        sums = null;
    }

    protected override void SetItem(int index, PlannedDrill item)
    {
        base.SetItem(index, item);
        sums = null;
    }

    protected override void RemoveItem(int index)
    {
        base.RemoveItem(index);
        sums = null;
    }

    protected override void ClearItems()
    {
        base.ClearItems();
        sums = null;
    }

    private Sums Add()
    {
        var (used, warm, down, counted, warming) = (0, 0, 0, 0, 0);
        foreach (var planned in Items)
        {
            var facts = made.FactsOf(planned);
            var (phase, aid) = (PlaceOf(planned).Phase, planned.Reason.IsAid);
            used += facts.Seconds;
            warm += phase == SessionPhase.Warm ? facts.Seconds : 0;
            down += phase == SessionPhase.Down ? facts.Seconds : 0;
            counted += !aid && Counts(facts.Drill) ? 1 : 0;
            warming += !aid && phase == SessionPhase.Warm ? 1 : 0;
        }
        return new(used, warm, used - warm - down, down, counted, warming);
    }
}
