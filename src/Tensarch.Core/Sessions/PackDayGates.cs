using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>Prepares what the results of this session's day gates do. It applies to this session only and moves no stage.</summary>
internal static class PackDayGates
{
    public static IEnumerable<PackDayGate> Of(IReadOnlyList<PackPart> parts, SessionPlan plan, DayBars bars, CatalogueContent catalogue)
    {
        foreach (var test in parts)
        {
            if (catalogue.Drill(test.Drill).DayGateTest is not { } key)
                continue;
            var gate = catalogue.FindDayGate(key)!;
            var needing = parts.Where(p => (test.Side is null || p.Side == test.Side) && Needs(p, catalogue) == key).ToList();
            // Where two drills make one test together, the last one asks.
            if (
                needing.Count == 0
                || parts.SkipWhile(p => p != test).Skip(1).Any(p => p.Side == test.Side && catalogue.Drill(p.Drill).DayGateTest == key)
            )
                continue;
            yield return new(
                key,
                test.Id,
                [.. needing.Select(p => p.Id)],
                needing[0].Versions.Count > 1 ? 1 : null,
                Substitute(gate, needing[0], plan, bars, catalogue)
            );
        }
    }

    private static string? Needs(PackPart part, CatalogueContent catalogue)
    {
        var drill = catalogue.Drill(part.Drill);
        return drill.GateOf(drill.Variants.First(v => v.Key == part.Versions[0].Variant));
    }

    /// <summary>The substitute named in the data whose every tag is free, in place of the drill that needs the gate.</summary>
    private static PackPart? Substitute(DayGate gate, PackPart needing, SessionPlan plan, DayBars bars, CatalogueContent catalogue)
    {
        if (DayGates.Instead(gate, needing.Drill, [], bars, catalogue) is not { } instead)
            return null;
        var drill = catalogue.Drill(instead.Drill);
        var variant = drill.Variants.First(v => v.Key == instead.Variant);
        var dose = drill.DoseOf(variant);
        var sided = drill.Sides == SideMode.Each ? needing.Side : null;
        var side = new PlannedSide(sided, needing.Stage, variant.Key, dose, needing.Props);
        var planned = new PlannedDrill(needing.Id + "-instead", drill.Key, new("dayGate"), [side]);
        var segments = Timeline.Segments(planned.Id, drill, side, afterOtherSide: false, plan.BreathSeconds);
        return PackParts.Of(new TimelinePart(planned.Id, planned, side, segments), plan, bars, catalogue);
    }
}
