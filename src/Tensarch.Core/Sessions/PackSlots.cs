using System.Security.Cryptography;
using System.Text;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>Writes slots: each part of the timeline with its easier versions.</summary>
internal sealed class PackSlots(SessionPlan plan, Trainee who, CatalogueContent content)
{
    /// <summary>What a stop rule offers is so many levels easier.</summary>
    private const int OfferLevels = 2;

    public PackSlot Of(TimelinePart part, bool practice = false)
    {
        var drill = Timeline.Said(content.Drill(part.Planned.Drill), part.Planned);
        var afterOther = part.Segments.Any(s => s.Kind == SegmentKind.SwitchSides);
        List<PlannedSide> sides = [part.PlannedSide, .. Easier(drill, part.PlannedSide)];
        var last = sides.Count - 1;
        // A test is done as it is; what is held once cannot be held less often.
        var fewer = practice ? [] : FewerRounds(part.PlannedSide.Dose);
        // By the variant: the same at every making, whichever of the others the bars leave.
        string Id(int i, int? rounds) => Opaque($"{part.Id}/{sides[i].Variant}{(rounds is { } n ? $"/{n}" : "")}");
        PlannedSide At(int i, int? rounds) => rounds is { } n ? sides[i] with { Dose = sides[i].Dose.WithRepeats(n) } : sides[i];
        // Less settling only of what is planned: what was eased already is easy enough.
        var settles = !practice && drill.Loads.ContainsKey(LoadTag.PassiveEndRange) && Shortened(At(0, null)) is not null;
        PackVersion Of(int i, int? rounds)
        {
            var side = At(i, rounds);
            return Version(
                Id(i, rounds),
                drill,
                side,
                i == 0 && rounds is null ? part.Segments : Timeline.Segments(part.Id, drill, side, afterOther, who.BreathSeconds),
                i < last ? Id(i + 1, rounds) : null,
                i < last ? Id(Math.Min(i + OfferLevels, last), rounds) : null,
                part.Planned,
                !practice && who.On(part.Planned.Skill).Ladder.Reads(drill.Key, side.Variant, side.Stage),
                i == 0 && settles ? $"{Id(i, rounds)}s" : null
            );
        }
        PackVersion Less(int? rounds)
        {
            var side = Shortened(At(0, rounds))!;
            return Version(
                $"{Id(0, rounds)}s",
                drill,
                side,
                Timeline.Segments(part.Id, drill, side, afterOther, who.BreathSeconds),
                0 < last ? Id(1, rounds) : null,
                0 < last ? Id(Math.Min(OfferLevels, last), rounds) : null,
                part.Planned,
                false
            );
        }
        return new(
            Opaque(part.Id),
            [
                .. Enumerable.Range(0, sides.Count).Select(i => Of(i, null)),
                .. fewer.SelectMany(n => Enumerable.Range(0, sides.Count).Select(i => Of(i, n))),
                .. settles ? fewer.Select(n => (int?)n).Prepend(null).Select(Less) : [],
            ],
            Opaque(part.Planned.Id),
            KeepOf(part, drill),
            [.. fewer.Select(n => Id(0, n))],
            [.. ThereFor(part).Select(p => Opaque(p))]
        );
    }

    private const double HalfTheSettling = 0.5;

    private static PlannedSide? Shortened(PlannedSide side) =>
        side.Dose.Settled(HalfTheSettling) is var less && less != side.Dose ? side with { Dose = less } : null;

    /// <summary>Some numbers of rounds under the planned one: one less, half, and the least.</summary>
    private static List<int> FewerRounds(Dose dose)
    {
        var least = dose is AttemptsDose ? 2 : 1;
        return dose is RhythmDose || dose.Repeats <= least
            ? []
            :
            [
                .. new[] { dose.Repeats - 1, dose.Repeats - 2, dose.Repeats / 2, least }
                    .Where(n => n >= least && n < dose.Repeats)
                    .Distinct()
                    .OrderDescending(),
            ];
    }

    /// <summary>What warms up, tests and ends the session stays; more calm than the last goes before anything else.</summary>
    private int? KeepOf(TimelinePart part, Drill drill)
    {
        if (drill.Kind == DrillKind.Calm)
            return part.Planned == plan.Drills[^1] ? null : -1;
        // A way out that is being learned comes before what it is the way out of.
        var learning = drill.IsWayOut && !who.On(part.Planned.Skill).WayOutShown;
        return drill.Kind == DrillKind.Counter || learning || part.Planned.Reason.IsAid || !SessionOrder.IsMain(drill.Phase)
            ? null
            : Importance.Of(part.Planned);
    }

    /// <summary>What it counters or leads into.</summary>
    private IEnumerable<string> ThereFor(TimelinePart part) =>
        plan
            .Drills.Where(d =>
                part.Planned.Reason.Code == "counter"
                    ? content.Drill(d.Drill).IsCounteredBy(part.Planned.Drill)
                    : part.Planned.Reason.LeadsIn && !d.Reason.IsAid && d.Drill == part.Planned.Reason.For
            )
            .SelectMany(d => d.Sides.Select(s => Timeline.PartId(d, s)));

    /// <summary>A slot for what is done instead.</summary>
    public PackSlot Instead(string id, DrillAt at, Side? side, int stage, string? skill)
    {
        var drill = content.Drill(at.Drill);
        var dose = drill.DoseOf(drill.VariantAt(at.Variant));
        if (who.Bars.FewOf(drill.Tags) is not null)
            dose = LightWork.Half(dose, who.BreathSeconds) ?? dose.WithRepeats(1);
        var planned = new PlannedSide(side, stage, at.Variant, dose, null);
        var whole = new PlannedDrill(id, drill.Key, new("dayGate"), [planned], skill);
        return Of(new(id, whole, planned, Timeline.Segments(id, drill, planned, false, who.BreathSeconds)), practice: true);
    }

    /// <summary>The slot with one version more: what is planned, a round longer. None when another round would change nothing.</summary>
    public (PackSlot Slot, string Version)? WithMore(PackSlot slot, TimelinePart part)
    {
        var longer = part.PlannedSide with { Dose = part.PlannedSide.Dose.WithRepeats(part.PlannedSide.Dose.Repeats + 1) };
        var drill = content.Drill(part.Planned.Drill);
        if (
            longer.Dose.Repeats == part.PlannedSide.Dose.Repeats
            || who.Bars.FewOf(drill.Tags) is not null
            || !who.Bars.Allow(drill.LoadsOf(drill.VariantAt(longer.Variant), longer.Dose, who.BreathSeconds))
        )
            return null;
        var first = slot.Versions[0];
        var more = Version(
            Opaque($"{part.Id}/more"),
            drill,
            longer,
            Timeline.Segments(part.Id, drill, longer, part.Segments.Any(s => s.Kind == SegmentKind.SwitchSides), who.BreathSeconds),
            first.Easier,
            first.Offer,
            part.Planned,
            first.Evidence
        );
        return (slot with { Versions = [.. slot.Versions, more] }, more.Id);
    }

    /// <summary>The same at every making, and nothing that could be read out of it.</summary>
    public string Opaque(string name) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{who.Date:O}/{plan.Ladder}/{name}")).AsSpan(0, 8));

    private PackVersion Version(
        string id,
        Drill drill,
        PlannedSide side,
        IReadOnlyList<Segment> segments,
        string? easier,
        string? offer,
        PlannedDrill planned,
        bool evidence,
        string? shorter = null
    )
    {
        var variant = drill.VariantAt(side.Variant);
        return new(
            id,
            drill.Key,
            drill.Name,
            side.Variant,
            variant.Name,
            side.Side,
            who.On(planned.Skill).Skill,
            side.Stage,
            PackLoads.Of(drill.LoadsOf(variant, side.Dose, who.BreathSeconds)),
            easier,
            offer,
            evidence,
            side.Props,
            drill.Checks,
            drill.StopSigns,
            segments.Sum(s => s.Seconds),
            segments,
            Rounds(segments),
            planned.Prop,
            planned.Note,
            shorter
        );
    }

    /// <summary>Variants easier than the planned one, hardest first, that the bars allow; with their own dose where they have one.</summary>
    private IEnumerable<PlannedSide> Easier(Drill drill, PlannedSide planned)
    {
        var at = drill.Variants.Index().First(v => v.Item.Key == planned.Variant).Index;
        for (var i = at - 1; i >= 0; i--)
        {
            var variant = drill.Variants[i];
            var dose =
                variant.Dose is { } own && own.GetType() == planned.Dose.GetType() ? own.WithRepeats(planned.Dose.Repeats) : planned.Dose;
            if (who.Bars.Allow(drill.LoadsOf(variant, dose, who.BreathSeconds)))
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
