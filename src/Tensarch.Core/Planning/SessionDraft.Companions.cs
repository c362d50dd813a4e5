using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What comes along with a drill: the tests of its day gate, what warms its regions, what counters it.</summary>
internal sealed partial class SessionDraft
{
    /// <summary>Adds what has to come along; nothing may be done where that cannot.</summary>
    private bool Accompany(SkillPart part, List<PlannedDrill> added) =>
        AddLeadIns(part, added) && AddGateTests(part, added) && AddPreparation(added) && AddWrists(added) && AddCounter(part, added);

    /// <summary>Every drill that tests a day gate which one of the variants needs, planned as that test.</summary>
    private bool AddGateTests(SkillPart part, List<PlannedDrill> added)
    {
        var gates = added
            .SelectMany(p => p.Sides.SelectMany(s => GatesOf(p, s)))
            .Distinct()
            .Select(g => catalogue.FindDayGate(g)!)
            .ToList();
        foreach (var gate in gates)
        {
            var tests = gate.Tests.Where(t => part.Serves(catalogue.Drill(t.Drill))).ToList();
            if (tests.Count == 0 && gate.Tests.Count > 0)
                return false;
            foreach (var test in tests.AsEnumerable().Reverse().Where(t => drills.Concat(added).All(d => d.Id != TestId(t))))
                if (PlanTest(part, test) is { } before)
                    added.Insert(0, before);
                else
                    return false;
        }
        return true;
    }

    private IReadOnlyList<string> GatesOf(PlannedDrill planned, PlannedSide side)
    {
        var drill = catalogue.Drill(planned.Drill);
        return who.GatesOf(drill, drill.VariantAt(side.Variant));
    }

    private IReadOnlyList<KeyValuePair<LoadTag, LoadLevel>> LoadsOf(PlannedDrill planned) => FactsOf(planned).Loads;

    /// <summary>The wrists come before the first weight on the hands.</summary>
    private bool AddWrists(List<PlannedDrill> added)
    {
        if (!added.Any(PutsWeightOnHands) || drills.Concat(added).Any(d => catalogue.Drill(d.Drill).PreparesHands))
            return true;
        var wrists = catalogue
            .ShippedDrills.Where(d => d.PreparesHands)
            .Select(d => Plan(PartFor(d), d, new("wristsBeforeHands")))
            .OfType<PlannedDrill>()
            .FirstOrDefault();
        if (wrists is null)
            return false;
        added.Insert(0, wrists);
        return true;
    }

    private bool PutsWeightOnHands(PlannedDrill planned)
    {
        var drill = catalogue.Drill(planned.Drill);
        return !drill.PreparesHands && planned.Sides.Any(s => drill.HandShareOf(drill.VariantAt(s.Variant)) > 0);
    }

    /// <summary>A test stands beside the same drill done for itself.</summary>
    private static string TestId(DayGateTest test) => $"{test.Drill}-test";

    /// <summary>A test in the variant that the gate names, or at the hardest one, up to the stage's own, that needs no test itself.</summary>
    private PlannedDrill? PlanTest(SkillPart part, DayGateTest named)
    {
        var test = catalogue.Drill(named.Drill);
        if (Plan(part, test, new("dayGate")) is not { } planned)
            return null;
        var sides = planned.Sides.Select(s => named.Variant is { } key ? Named(s, key) : Ungated(s)).ToList();
        return sides.Any(s => s is null)
            ? null
            : planned with
            {
                Id = TestId(named),
                Sides = [.. sides.OfType<PlannedSide>().Select(x => x with { Dose = x.Dose.WithRepeats(1) })],
            };

        PlannedSide? Named(PlannedSide side, string key)
        {
            var variant = test.VariantAt(key);
            return part.Who.Bars.Allow(test.LoadsOf(variant, test.DoseOf(variant), who.BreathSeconds))
                ? side with
                {
                    Variant = key,
                    Dose = test.DoseOf(variant),
                    EasedFrom = null,
                }
                : null;
        }

        PlannedSide? Ungated(PlannedSide side)
        {
            var at = test.Variants.Index().First(v => v.Item.Key == side.Variant).Index;
            for (var i = at; i >= 0; i--)
                if (test.GatesOf(test.Variants[i]).Count == 0)
                    return i == at ? side
                        : part.Who.Bars.Allow(test.LoadsOf(test.Variants[i], test.DoseOf(test.Variants[i]), who.BreathSeconds))
                            ? side with
                            {
                                Variant = test.Variants[i].Key,
                                Dose = test.DoseOf(test.Variants[i]),
                            }
                        : null;
            return null;
        }
    }

    private const int MostPreparing = 7;

    /// <summary>What warms a region before heavy work on it.</summary>
    private bool AddPreparation(List<PlannedDrill> added)
    {
        foreach (var (region, before) in HeavyOn(added).ToList())
        {
            if (drills.Concat(added).Any(d => Warms(d, region, before)))
                continue;
            var warming = Of(DrillKind.Prepare, DrillKind.Mobilise, DrillKind.Raise)
                .Where(d => d.Loads.ContainsKey(region) && !catalogue.GatesTestedBy(d.Key).Any() && parts.Any(p => p.Serves(d)))
                .Index()
                .OrderBy(d => d.Item.HandShare)
                // Another one each time.
                .ThenBy(d =>
                    (d.Index + parts[0].Course.SessionsSinceStart) % (who.Minutes < CalmFromMinutes ? int.MaxValue : MostPreparing)
                )
                .Select(d => d.Item)
                .Select(d => Plan(PartFor(d), d, new("preparesRegions")))
                .OfType<PlannedDrill>()
                .FirstOrDefault(d => Warms(d, region, before));
            if (warming is null)
                return false;
            added.Insert(0, warming);
        }
        return true;
    }

    /// <summary>The regions that some drills load heavily, each with the place of the first that does.</summary>
    private IEnumerable<(LoadTag Region, (SessionPhase, int) Before)> HeavyOn(IEnumerable<PlannedDrill> some) =>
        from planned in some
        from load in LoadsOf(planned)
        where
            load.Value == LoadLevel.Heavy
            && load.Key.IsRegion()
            && !catalogue.Drill(planned.Drill).WarmsUp
            && PlaceOf(planned).Phase != SessionPhase.Down
        group PlaceOf(planned) by load.Key into region
        select (region.Key, region.Min());

    /// <summary>It warms the region, and comes before that place.</summary>
    private bool Warms(PlannedDrill planned, LoadTag region, (SessionPhase, int) before) =>
        catalogue.Drill(planned.Drill).WarmsUp
        && PlaceOf(planned).CompareTo(before) < 0
        && LoadsOf(planned).Any(l => l.Key == region && l.Value != LoadLevel.None);

    /// <summary>What counters a drill comes along with it.</summary>
    private bool AddCounter(SkillPart part, List<PlannedDrill> added)
    {
        foreach (var key in added.SelectMany(d => catalogue.Drill(d.Drill).Counters ?? []).Distinct().ToList())
        {
            if (drills.Concat(added).Any(d => d.Drill == key))
                continue;
            if (Plan(part, catalogue.Drill(key), new("counter")) is not { } counter)
                return false;
            added.Add(counter);
        }
        return true;
    }
}
