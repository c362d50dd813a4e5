using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Catalogue;

/// <summary>The shipped content, checked: measures, ladders, drills, intake questions, stop rules, approaches and day gates.</summary>
public sealed class CatalogueContent(
    IReadOnlyList<Measure> measures,
    IReadOnlyList<BenchPosition> positions,
    IReadOnlyList<Battery> batteries,
    IReadOnlyList<PictureView> views,
    IReadOnlyList<Ladder> ladders,
    IReadOnlyList<Drill> drills,
    IReadOnlyList<IntakeQuestion> questions,
    IReadOnlyList<StopRule> stopRules,
    IReadOnlyList<Approach> approaches,
    IReadOnlyList<DayGate> dayGates,
    SessionShape shape,
    ProgrammeRules programme
)
{
    private readonly Dictionary<string, Measure> measuresByKey = measures.ToDictionary(m => m.Key);
    private readonly Dictionary<string, Drill> drillsByKey = drills.ToDictionary(d => d.Key);
    private readonly Dictionary<string, Drill> drillsByEveryKey = drills
        .SelectMany(d => (d.Was ?? []).Append(d.Key).Select(key => (key, d)))
        .ToDictionary(k => k.key, k => k.d);

    public IReadOnlyList<Measure> Measures { get; } = measures;

    /// <summary>Body positions, in the order in which a sitting goes through them.</summary>
    public IReadOnlyList<BenchPosition> Positions { get; } = positions;

    public IReadOnlyList<Battery> Batteries { get; } = batteries;

    public IReadOnlyList<PictureView> Views { get; } = views;

    /// <summary>How a picture is read: by a measure's key, or by that of a view which gives an angle and no reading.</summary>
    public PictureProtocol? FindPicture(string key) => FindMeasure(key)?.Picture ?? Views.FirstOrDefault(v => v.Key == key)?.Picture;

    public IReadOnlyDictionary<string, Measure> MeasuresByKey => measuresByKey;

    public IReadOnlyList<Ladder> Ladders { get; } = ladders;

    public IReadOnlyDictionary<string, Drill> Drills => drillsByKey;

    /// <summary>Drills in the order in which the content lists them.</summary>
    public IReadOnlyList<Drill> DrillList { get; } = drills;

    /// <summary>The drills that the maker chooses from: without those that a studio made its own.</summary>
    public IReadOnlyList<Drill> ShippedDrills { get; } = [.. drills.Where(d => d.CopyOf is null)];

    /// <summary>The same with a studio's own drills after the shipped ones.</summary>
    public CatalogueContent With(IReadOnlyList<Drill> own) =>
        new(
            Measures,
            Positions,
            Batteries,
            Views,
            Ladders,
            [.. ShippedDrills, .. own],
            Questions,
            StopRules,
            Approaches,
            DayGates,
            Shape,
            Programme
        );

    /// <summary>The same under other rules of weeks.</summary>
    public CatalogueContent With(ProgrammeRules other) =>
        new(Measures, Positions, Batteries, Views, Ladders, DrillList, Questions, StopRules, Approaches, DayGates, Shape, other);

    public IReadOnlyList<IntakeQuestion> Questions { get; } = questions;

    public IReadOnlyList<StopRule> StopRules { get; } = stopRules;

    public IReadOnlyList<Approach> Approaches { get; } = approaches;

    public IReadOnlyList<DayGate> DayGates { get; } = dayGates;

    public SessionShape Shape { get; } = shape;

    public ProgrammeRules Programme { get; } = programme;

    public DayGate? FindDayGate(string key) => DayGates.FirstOrDefault(g => g.Key == key);

    /// <summary>The day gates whose test a drill is, or a part of.</summary>
    public IEnumerable<DayGate> GatesTestedBy(string drill) => DayGates.Where(g => g.Tests.Any(t => t.Drill == drill));

    /// <exception cref="KeyNotFoundException">No such measure.</exception>
    public Measure Measure(string key) => measuresByKey[key];

    public Measure? FindMeasure(string key) => measuresByKey.GetValueOrDefault(key);

    /// <param name="key">As it is, or as it was.</param>
    /// <exception cref="KeyNotFoundException">No such drill.</exception>
    public Drill Drill(string key) => drillsByEveryKey[key];

    public Drill? FindDrill(string key) => drillsByEveryKey.GetValueOrDefault(key);

    /// <summary>Keys that drills had before, with what they are called now.</summary>
    public IEnumerable<(string Was, string Key)> RenamedDrills =>
        drillsByEveryKey.Where(d => d.Key != d.Value.Key).Select(d => (d.Key, d.Value.Key));

    /// <summary>A ladder at the version a student follows.</summary>
    public Ladder? FindLadder(string key, int version) => Ladders.FirstOrDefault(l => l.Key == key && l.Version == version);

    /// <summary>The newest shipped ladder of every skill, in the order in which the content lists them.</summary>
    public IReadOnlyList<Ladder> Skills => [.. Ladders.GroupBy(l => l.Key).Select(g => g.MaxBy(l => l.Version)!)];

    /// <summary>The newest shipped version of a ladder.</summary>
    public Ladder? NewestLadder(string key) => Ladders.Where(l => l.Key == key).MaxBy(l => l.Version);

    public Approach? FindApproach(string key) => Approaches.FirstOrDefault(a => a.Key == key);

    /// <summary>Measures that a ladder's gates read, in the order in which the stages first need them.</summary>
    public IReadOnlyList<Measure> MeasuresOf(Ladder ladder) =>
        [.. ladder.Stages.SelectMany(s => ladder.GateOf(s.Number)).Select(t => t.ReadMeasure).OfType<string>().Distinct().Select(Measure)];
}
