using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Server.Catalogue;

/// <summary>All that a coach looks up about a drill.</summary>
/// <param name="Felt">Where it should be felt, and what it is for.</param>
/// <param name="Alone">Whether it may be done unwatched.</param>
/// <param name="Warms">Said where it wants a warm body: <c>warm</c>, or <c>none</c>.</param>
/// <param name="Ceiling">Most that one round of it grows to, in the unit of its dose.</param>
/// <param name="Counters">The drill that counters it, by key.</param>
/// <param name="StandsInFor">The drill in whose place it is done, by key.</param>
/// <param name="Gates">Names of the tests of the day that it needs.</param>
/// <param name="Serves">Where it is work of a stage; none where it serves every ladder.</param>
/// <param name="Everywhere">It serves every ladder.</param>
/// <param name="CopyOf">The shipped drill that this is the studio's own copy of.</param>
/// <param name="Version">Of the own drill; 0 for a shipped one.</param>
/// <param name="Clips">What shows it: clips and pictures.</param>
/// <param name="Figure">The measure whose figure shows its position; none where none does.</param>
/// <param name="Drawn">Its own figure, where it has one.</param>
/// <param name="QuickMeasure">What is read of it by one's own hand at the last repetition.</param>
public sealed record DrillPage(
    string Key,
    string Name,
    string Purpose,
    string Felt,
    Alone Alone,
    DrillKind Kind,
    SessionPhase Phase,
    SideMode Sides,
    string? SideMeans,
    string Warms,
    int? Ceiling,
    IReadOnlyList<string> Counters,
    string? StandsInFor,
    IReadOnlyList<string> Gates,
    IReadOnlyList<string> Props,
    IReadOnlyList<Cue> Cues,
    IReadOnlyList<string> Checks,
    IReadOnlyList<string> StopSigns,
    IReadOnlyList<VariantPage> Variants,
    IReadOnlyList<DrillServes> Serves,
    bool Everywhere,
    string? Figure,
    LineFigure? Drawn,
    string? QuickMeasure,
    string? CopyOf,
    bool Gone,
    int Version,
    IReadOnlyList<ClipView> Clips
)
{
    public static DrillPage Of(Drill drill, CatalogueContent content, int version, IReadOnlyList<ClipView> clips) =>
        new(
            drill.Key,
            drill.Name,
            drill.Purpose,
            drill.Felt,
            drill.Alone,
            drill.Kind,
            drill.Phase,
            drill.Sides,
            drill.SideMeans,
            drill.Warmth,
            drill.Ceiling,
            drill.Counters ?? [],
            content.Shape.StandIns.Where(s => s.Value == drill.Key).Select(s => s.Key).FirstOrDefault(),
            [.. drill.Gates.Select(g => content.FindDayGate(g)!.Name)],
            drill.Props,
            drill.Cues,
            drill.Checks,
            drill.StopSigns,
            [
                .. drill.Variants.Select(v => new VariantPage(
                    v.Key,
                    v.Name,
                    drill.DoseOf(v),
                    drill.SetUpOf(v),
                    drill.HandShareOf(v),
                    [.. drill.LoadsOf(v, drill.DoseOf(v)).Where(l => l.Value != LoadLevel.None).Select(l => new LoadLine(l.Key, l.Value))],
                    drill.OutOf(v)
                )),
            ],
            [
                .. drill
                    .Serves.Where(s => s.Ladder != "*")
                    .Select(s => new DrillServes(
                        s.Ladder,
                        s.FromStage,
                        s.ToStage,
                        [
                            .. content
                                .NewestLadder(s.Ladder)!
                                .Stages.Where(stage => stage.Core?.Contains(drill.Key) == true)
                                .Select(stage => stage.Number),
                        ]
                    )),
            ],
            drill.Serves.Any(s => s.Ladder == "*"),
            drill.GapMeasure
                ?? content.Shape.TrainedBy.Where(t => t.Value == (drill.CopyOf ?? drill.Key)).Select(t => t.Key).FirstOrDefault(),
            drill.Figure,
            drill.QuickMeasure,
            drill.CopyOf,
            drill.Gone,
            version,
            clips
        );
}

public sealed record VariantPage(
    string Key,
    string Name,
    Dose Dose,
    int SetUpSeconds,
    double HandShare,
    IReadOnlyList<LoadLine> Loads,
    WayOutOf? Out
);

public sealed record LoadLine(LoadTag Tag, LoadLevel Level);

/// <param name="Core">The stages of which it is core.</param>
public sealed record DrillServes(string Ladder, int FromStage, int ToStage, IReadOnlyList<int> Core);
