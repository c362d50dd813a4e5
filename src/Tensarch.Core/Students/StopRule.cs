using Tensarch.Core.Planning;

namespace Tensarch.Core.Students;

public enum Ends
{
    /// <summary>Nothing ends; the drill goes on one level easier.</summary>
    Nothing,

    /// <summary>The drill, on the side that is worked.</summary>
    DrillSide,

    /// <summary>Every drill today with the region, without a substitute.</summary>
    Region,

    /// <summary>Every drill today with one of the rule's tags.</summary>
    Tags,
    Session,
}

/// <summary>The response to a signal in a session. Stop rules are data and always come from the newest shipped version.</summary>
/// <param name="AsksRegion">The coach names the region.</param>
/// <param name="EasierBy">How many levels easier the rest of the drill goes on, or is offered; 0 for none.</param>
/// <param name="ShorterFirst">Where there is settling, it gets half as long before anything gets easier.</param>
/// <param name="Tags">What ends today, where <see cref="Ends"/> is tags.</param>
/// <param name="BarsRegion">A review bar on the named region.</param>
/// <param name="Bars">A review bar on these tags.</param>
/// <param name="ClinicianBars">Off limits until a clinician's clearance.</param>
/// <param name="ClinicianRegion">The named region is off limits until a clinician's clearance.</param>
/// <param name="ClinicianAll">Everything is.</param>
/// <param name="ClinicianRegions">Where the named region is one of these, the clinician bars apply; always when empty.</param>
public sealed record StopRule(
    SignalKind Signal,
    string Name,
    string Advice,
    bool AsksRegion,
    bool AsksPain,
    Ends Ends,
    int EasierBy,
    IReadOnlyList<LoadTag> Tags,
    bool BarsRegion,
    IReadOnlyList<LoadTag> Bars,
    IReadOnlyList<LoadTag> ClinicianBars,
    IReadOnlyList<LoadTag> ClinicianRegions,
    bool ShorterFirst = false,
    bool ClinicianRegion = false,
    bool ClinicianAll = false
)
{
    /// <summary>Whether a signal that is met by this takes a drill out of the rest of its session: the one in which it was said, and what it ends.</summary>
    /// <param name="side">Of the drill; none where it has none.</param>
    public bool TakesOut(BodySignal signal, Drill drill, Side? side) =>
        Ends switch
        {
            Ends.Session => true,
            Ends.Nothing => false,
            Ends.DrillSide => signal.Drill == drill.Key && (side is null || signal.Side is null || signal.Side == side),
            Ends.Region => signal.Drill == drill.Key || signal.Region is { } region && drill.Tags.Contains(region),
            _ => signal.Drill == drill.Key || Tags.Any(drill.Tags.Contains),
        };
}
