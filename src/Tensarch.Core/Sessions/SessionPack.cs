using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>
/// All that the runner needs without the server: it looks up and splices, it derives nothing. Every part carries its easier
/// versions as ready-made segments; every signal and day gate says which parts go and what takes their place.
/// </summary>
public sealed record SessionPack(
    IReadOnlyList<PackPart> Parts,
    IReadOnlyList<PackStop> Stops,
    IReadOnlyList<PackDayGate> DayGates,
    int TotalSeconds,
    int SensationCeiling
)
{
    public static readonly TimeSpan Life = TimeSpan.FromHours(24);

    public static SessionPack Of(SessionPlan plan, DayBars bars, CatalogueContent catalogue)
    {
        var timeline = Timeline.Of(plan, catalogue);
        var parts = timeline.Select(p => PackParts.Of(p, plan, bars, catalogue)).ToList();
        return new(
            parts,
            [.. catalogue.StopRules.Select(r => PackStops.Of(r, parts, catalogue))],
            [.. PackDayGates.Of(parts, plan, bars, catalogue)],
            timeline.Sum(p => p.Seconds),
            bars.SensationCeiling
        );
    }
}

/// <summary>One drill on one side, with its versions from the planned one to the easiest.</summary>
public sealed record PackPart(
    string Id,
    string Drill,
    string Name,
    DrillKind Kind,
    Side? Side,
    int Stage,
    PropAdvice? Props,
    IReadOnlyList<string> Checks,
    IReadOnlyList<string> StopSigns,
    IReadOnlyList<PackVersion> Versions
);

/// <param name="Easier">Index of the version to go on with after backing off; none when this is the easiest.</param>
/// <param name="Offer">Index of the version two levels easier, or the easiest there is; none when this is it.</param>
/// <param name="Rounds">What a round counts for when it is done to its end.</param>
public sealed record PackVersion(
    string Variant,
    string Name,
    int Seconds,
    int? Easier,
    int? Offer,
    IReadOnlyList<Segment> Segments,
    IReadOnlyList<PackRound> Rounds
);

/// <param name="HoldSeconds">Seconds in position; none for counted work.</param>
/// <param name="Reps">Repetitions; none for held work.</param>
public sealed record PackRound(int Round, int? HoldSeconds, int? Reps);

/// <param name="Removes">The parts that end, per named region; under an empty key where no region is asked.</param>
public sealed record PackStop(
    SignalKind Signal,
    string Name,
    string Advice,
    bool AsksRegion,
    bool AsksPain,
    Ends Ends,
    int EasierBy,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Removes
);

/// <summary>What a day gate's result does: the needing parts stay, go on easier, or are replaced.</summary>
/// <param name="Test">The part that is the test.</param>
/// <param name="Needing">The parts that need it.</param>
/// <param name="Easier">Index of the needing parts' version when the result is "easier"; none when there is no easier one.</param>
/// <param name="Substitute">Takes the place of the needing parts when the result is "not today"; none when nothing is free.</param>
public sealed record PackDayGate(string Gate, string Test, IReadOnlyList<string> Needing, int? Easier, PackPart? Substitute);
