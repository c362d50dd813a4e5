using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>Prepares what the results of this session's day gates do. It applies to this session only and moves no stage.</summary>
internal static class PackDayGates
{
    public static IEnumerable<PackDayGate> Of(
        IReadOnlyList<PackPart> parts,
        SessionPlan plan,
        Cautions cautions,
        CatalogueContent catalogue
    )
    {
        foreach (var test in parts)
        {
            if (catalogue.Drill(test.Drill).DayGateTest is not { } gate)
                continue;
            var needing = parts.Where(p => p.Side == test.Side && catalogue.Drill(p.Drill).NeedsDayGate == gate).ToList();
            if (needing.Count == 0)
                continue;
            yield return new(
                gate,
                test.Id,
                [.. needing.Select(p => p.Id)],
                needing[0].Versions.Count > 1 ? 1 : null,
                Substitute(needing[0], plan, cautions, catalogue)
            );
        }
    }

    /// <summary>The substitute named in the data, one variant easier than its hardest, where all its own tags are free.</summary>
    private static PackPart? Substitute(PackPart needing, SessionPlan plan, Cautions cautions, CatalogueContent catalogue)
    {
        if (catalogue.Drill(needing.Drill).DayGateSubstitute is not { } key)
            return null;
        var drill = catalogue.Drill(key);
        var variant = drill.Variants[Math.Max(0, drill.Variants.Count - 2)];
        var dose = drill.DoseOf(variant);
        if (drill.LoadsOf(variant, dose).Any(l => l.Value != Load.None && cautions[l.Key] != CautionLevel.Free))
            return null;
        var side = new PlannedSide(needing.Side, needing.Stage, variant.Key, dose, needing.Props);
        var planned = new PlannedDrill(needing.Id + "-instead", key, new("dayGate"), [side]);
        var segments = Timeline.Segments(planned.Id, drill, side, afterOtherSide: false, plan.BreathSeconds);
        return PackParts.Of(new TimelinePart(planned.Id, planned, side, segments), plan, cautions, catalogue);
    }
}
