using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What a drill at its doses takes and loads, whatever it is there for.</summary>
internal sealed class PlannedFacts(CatalogueContent catalogue, Drill drill, PlannedDrill planned, double breathSeconds)
{
    public Drill Drill => drill;

    /// <summary>Both sides together, with set-up, changes and rests.</summary>
    public int Seconds { get; } = Timeline.SecondsOf(planned, drill, breathSeconds);

    /// <summary>What of it is work, of both sides.</summary>
    public int Working => working >= 0 ? working : working = planned.Sides.Sum(s => Timeline.WorkSecondsOf(drill, s, breathSeconds));

    /// <summary>What of it is setting up, changing sides or rest.</summary>
    public int Resting => Seconds - Working - planned.Sides.Sum(s => Timeline.SecondsOf(SegmentKind.Out, drill, s, breathSeconds));

    /// <summary>Below nothing while nobody asked: a whole number, so that two who ask at once do no harm.</summary>
    private int working = -1;

    /// <summary>Seconds of work of both sides on what loads a tag, however lightly.</summary>
    public double WorkOn(LoadTag tag) =>
        planned
            .Sides.Where(s => drill.LoadsOf(drill.VariantAt(s.Variant), s.Dose, breathSeconds).GetValueOrDefault(tag) != LoadLevel.None)
            .Sum(s => LightWork.WorkSeconds(s.Dose, breathSeconds));

    /// <summary>By tag and side, as weeks count it.</summary>
    public LoadLedger Load => load ??= LoadLedger.Of(Work.Planned(planned, planned.Skill ?? "", breathSeconds, catalogue), catalogue);

    private LoadLedger? load;

    /// <summary>By tag, of each side.</summary>
    public IReadOnlyList<KeyValuePair<LoadTag, LoadLevel>> Loads =>
        loads ??= [.. planned.Sides.SelectMany(s => drill.LoadsOf(drill.VariantAt(s.Variant), s.Dose, breathSeconds))];

    private IReadOnlyList<KeyValuePair<LoadTag, LoadLevel>>? loads;
}
