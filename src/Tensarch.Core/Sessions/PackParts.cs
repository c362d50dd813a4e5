using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>Writes a part of the timeline with its easier versions.</summary>
internal static class PackParts
{
    /// <summary>What a stop rule offers is so many levels easier.</summary>
    private const int OfferLevels = 2;

    public static PackPart Of(TimelinePart part, SessionPlan plan, DayBars bars, CatalogueContent catalogue)
    {
        var drill = catalogue.Drill(part.Planned.Drill);
        var planned = part.PlannedSide;
        var afterOther = part.Segments[0].Kind == SegmentKind.SwitchSides;
        var sides = new List<PlannedSide> { planned };
        sides.AddRange(Easier(drill, planned, bars));

        var last = sides.Count - 1;
        var versions = sides.Select(
            (side, i) =>
            {
                var segments = i == 0 ? part.Segments : Timeline.Segments(part.Id, drill, side, afterOther, plan.BreathSeconds);
                return new PackVersion(
                    side.Variant,
                    drill.Variants.First(v => v.Key == side.Variant).Name,
                    segments.Sum(s => s.Seconds),
                    i < last ? i + 1 : null,
                    i < last ? Math.Min(i + OfferLevels, last) : null,
                    segments,
                    Rounds(segments)
                );
            }
        );
        return new(
            part.Id,
            drill.Key,
            drill.Name,
            drill.Kind,
            planned.Side,
            planned.Stage,
            planned.Props,
            drill.Checks,
            drill.StopSigns,
            [.. versions]
        );
    }

    /// <summary>Variants easier than the planned one, hardest first, that the bars allow; with their own dose where they have one.</summary>
    private static IEnumerable<PlannedSide> Easier(Drill drill, PlannedSide planned, DayBars bars)
    {
        var at = drill.Variants.Index().First(v => v.Item.Key == planned.Variant).Index;
        for (var i = at - 1; i >= 0; i--)
        {
            var variant = drill.Variants[i];
            var dose =
                variant.Dose is { } own && own.GetType() == planned.Dose.GetType() ? own.WithRepeats(planned.Dose.Repeats) : planned.Dose;
            if (bars.Allow(drill.LoadsOf(variant, dose)))
                yield return planned with
                {
                    Variant = variant.Key,
                    Dose = dose,
                };
        }
    }

    private static List<PackRound> Rounds(IReadOnlyList<Segment> segments) =>
        [
            .. segments
                .Where(s => s.Kind == SegmentKind.Work)
                .GroupBy(s => s.Round)
                .Select(round =>
                {
                    var counted = round.Any(s => s.Reps is not null);
                    return new PackRound(
                        round.Key,
                        counted ? null : round.Sum(s => s.Seconds),
                        counted ? round.Sum(s => s.Reps ?? 0) : null
                    );
                }),
        ];
}
