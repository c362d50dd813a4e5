using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What comes along with a drill: the tests of its day gate, what warms its regions, what counters it.</summary>
internal sealed partial class SessionDraft
{
    /// <summary>Every drill that tests a day gate which one of the variants needs, planned as that test.</summary>
    private bool AddGateTests(PlannedDrill planned, List<PlannedDrill> added)
    {
        var drill = catalogue.Drill(planned.Drill);
        foreach (var gate in planned.Sides.Select(s => drill.GateOf(VariantOf(drill, s))).OfType<string>().Distinct())
        {
            var tests = catalogue.DrillList.Where(d => d.DayGateTest == gate && Serving(d)).ToList();
            foreach (var test in tests.Where(t => !drills.Concat(added).Any(d => d.Drill == t.Key && d.Reason.Code == "dayGate")))
            {
                if (PlanTest(test, test.Key == drill.Key) is not { } before)
                    return false;
                added.Insert(0, before);
            }
            if (tests.Count == 0)
                return false;
        }
        return true;
    }

    /// <summary>A test at the hardest variant, up to the stage's own, that needs no test itself.</summary>
    private PlannedDrill? PlanTest(Drill test, bool ofItself)
    {
        if (Plan(test, new("dayGate")) is not { } planned)
            return null;
        var sides = planned.Sides.Select(Ungated).ToList();
        return sides.Any(s => s is null)
            ? null
            : planned with
            {
                Id = ofItself ? $"{test.Key}-test" : test.Key,
                Sides = [.. sides.OfType<PlannedSide>()],
            };

        PlannedSide? Ungated(PlannedSide side)
        {
            var at = test.Variants.Index().First(v => v.Item.Key == side.Variant).Index;
            for (var i = at; i >= 0; i--)
                if (test.GateOf(test.Variants[i]) is null)
                    return i == at ? side
                        : request.Bars.Allow(test.LoadsOf(test.Variants[i], test.DoseOf(test.Variants[i])))
                            ? side with
                            {
                                Variant = test.Variants[i].Key,
                                Dose = test.DoseOf(test.Variants[i]),
                            }
                        : null;
            return null;
        }
    }

    /// <summary>What warms a region before heavy work on it.</summary>
    private bool AddPreparation(List<PlannedDrill> added)
    {
        var heavy = added.SelectMany(LoadsOf).Where(l => l.Value == Load.Heavy && l.Key.IsRegion()).Select(l => l.Key).Distinct();
        foreach (var region in heavy.ToList())
        {
            if (drills.Concat(added).Any(d => WarmsUp(d) && LoadsOf(d).Any(l => l.Key == region && l.Value != Load.None)))
                continue;
            var warming = Of(DrillKind.Prepare, DrillKind.Mobilise, DrillKind.Raise)
                .Where(d => d.Loads.ContainsKey(region) && d.DayGateTest is null && Serving(d))
                .OrderBy(d => d.HandShare)
                .Select(d => Plan(d, new("preparesRegions")))
                .OfType<PlannedDrill>()
                .FirstOrDefault(d => LoadsOf(d).Any(l => l.Key == region && l.Value != Load.None));
            if (warming is null)
                return false;
            added.Insert(0, warming);
        }
        return true;
    }

    /// <summary>What counters the neck's load comes along with it; a roll-out alone needs none.</summary>
    private bool AddCounter(List<PlannedDrill> added)
    {
        if (
            !added.Any(d => d.Drill != "roll-out" && LoadsOf(d).Any(l => l is { Key: LoadTag.Neck, Value: Load.Heavy }))
            || !Missing(Fish, added)
        )
            return true;
        if (Plan(catalogue.Drill(Fish), new("counter")) is not { } counter)
            return false;
        added.Add(counter);
        return true;
    }
}
