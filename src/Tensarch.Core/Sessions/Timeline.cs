using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;

namespace Tensarch.Core.Sessions;

/// <summary>One drill on one side, or a drill without sides: the unit that the runner skips, eases or ends.</summary>
/// <param name="Id">The planned drill's id, with the side.</param>
public sealed record TimelinePart(string Id, PlannedDrill Planned, PlannedSide PlannedSide, IReadOnlyList<Segment> Segments)
{
    public int Seconds => Segments.Sum(s => s.Seconds);
}

/// <summary>
/// A session to the second. Set-up once a drill, as its variant needs; 5 s to switch sides; rests between rounds.
/// </summary>
public static class Timeline
{
    public const int SwitchSeconds = 5;

    /// <summary>To let go of one side before the other.</summary>
    public const int ReleaseSeconds = 15;

    public static IReadOnlyList<TimelinePart> Of(SessionPlan plan, CatalogueContent catalogue)
    {
        var parts = new List<TimelinePart>();
        var start = 0;
        foreach (var planned in plan.Drills)
        foreach (var part in Parts(planned, catalogue.Drill(planned.Drill), plan.BreathSeconds))
        {
            parts.Add(part with { Segments = StartingAt(part.Segments, ref start) });
        }
        return parts;
    }

    /// <summary>How long a planned drill takes, both sides together.</summary>
    public static int SecondsOf(PlannedDrill planned, Drill drill, double breathSeconds) =>
        planned.Sides.Select((side, i) => Write("", drill, side, i > 0, breathSeconds, said: false).Sum(s => s.Seconds)).Sum();

    /// <summary>What of one side is work, in seconds.</summary>
    internal static int WorkSecondsOf(Drill drill, PlannedSide side, double breathSeconds) =>
        SecondsOf(SegmentKind.Work, drill, side, breathSeconds);

    internal static int SecondsOf(SegmentKind kind, Drill drill, PlannedSide side, double breathSeconds) =>
        Write("", drill, side, afterOtherSide: false, breathSeconds, said: false).Where(s => s.Kind == kind).Sum(s => s.Seconds);

    public static int SecondsOf(SessionPlan plan, CatalogueContent catalogue) =>
        plan.Drills.Sum(d => SecondsOf(d, catalogue.Drill(d.Drill), plan.BreathSeconds));

    /// <summary>The segments of one side in one version, starting at 0; used for the plan and for every easier version.</summary>
    public static IReadOnlyList<Segment> Segments(string part, Drill drill, PlannedSide side, bool afterOtherSide, double breathSeconds) =>
        Write(part, drill, side, afterOtherSide, breathSeconds, said: true);

    private static IReadOnlyList<Segment> Write(
        string part,
        Drill drill,
        PlannedSide side,
        bool afterOtherSide,
        double breathSeconds,
        bool said
    )
    {
        var writer = new SegmentWriter(part, drill, side, breathSeconds, said);
        if (afterOtherSide)
            writer.Add(SegmentKind.SwitchSides, drill.Release is null ? SwitchSeconds : ReleaseSeconds, cue: drill.Release);
        else
            writer.Add(SegmentKind.SetUp, drill.SetUpOf(drill.VariantAt(side.Variant)));
        writer.Dose();
        return writer.Segments;
    }

    public static string PartId(PlannedDrill planned, PlannedSide side) =>
        side.Side is { } s ? $"{planned.Id}-{(s == Side.Left ? "left" : "right")}" : planned.Id;

    internal static IEnumerable<TimelinePart> Parts(PlannedDrill planned, Drill drill, double breathSeconds)
    {
        for (var i = 0; i < planned.Sides.Count; i++)
        {
            var side = planned.Sides[i];
            var id = PartId(planned, side);
            yield return new(id, planned, side, Segments(id, Said(drill, planned), side, i > 0, breathSeconds));
        }
    }

    /// <summary>A drill with the cue that a coach wants said; what must be said stays.</summary>
    internal static Drill Said(Drill drill, PlannedDrill planned)
    {
        if (planned.Cue is not { } cue)
            return drill;
        var first = drill.Cues.FirstOrDefault(c => !c.Must);
        return drill with
        {
            Cues = [.. drill.Cues.Where(c => c.Must), new Cue(cue, At: first?.At), .. drill.Cues.Where(c => !c.Must && c != first)],
        };
    }

    private static List<Segment> StartingAt(IReadOnlyList<Segment> segments, ref int start)
    {
        var moved = new List<Segment>(segments.Count);
        foreach (var segment in segments)
        {
            moved.Add(segment with { StartSeconds = start });
            start += segment.Seconds;
        }
        return moved;
    }
}
