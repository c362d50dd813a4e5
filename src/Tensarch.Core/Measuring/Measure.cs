using Tensarch.Core.Students;

namespace Tensarch.Core.Measuring;

public enum Better
{
    Up,
    Down,
}

/// <summary>A way of cheating the number. A disqualifying one keeps the reading out of every gate and trend.</summary>
/// <param name="OnlyStandard">Disqualifies under this standard alone; under all when none is named.</param>
public sealed record Compensation(string Key, string Name, bool Disqualifies, string? OnlyStandard = null);

/// <summary>What is read, how, in which unit, on which side, and how far a reading can be trusted.</summary>
/// <param name="SideMeans">What the side names, such as "front leg".</param>
/// <param name="Min">The least plausible value, in the measure's unit.</param>
/// <param name="Max">The greatest plausible value, in the measure's unit.</param>
/// <param name="Resolution">The step in which it is read, in the measure's unit.</param>
/// <param name="Sem">Starting SEM for one trial by one careful coach.</param>
/// <param name="Tau">Starting day-to-day standard deviation.</param>
/// <param name="ShelfDays">After so many days a reading is stale.</param>
/// <param name="Regions">Where pain during this reading is counted.</param>
public sealed record Measure(
    string Key,
    string Name,
    string Reads,
    bool PerSide,
    string? SideMeans,
    string Unit,
    Better Better,
    double Min,
    double Max,
    double Resolution,
    double Sem,
    double Tau,
    string Source,
    Mode Mode,
    int ShelfDays,
    IReadOnlyList<string> Standards,
    IReadOnlyList<LoadTag> Regions,
    IReadOnlyList<string> Protocol,
    IReadOnlyList<Compensation> Compensations
)
{
    /// <summary>Whether any of the compensations seen disqualifies a reading under this standard.</summary>
    public bool IsDisqualified(IReadOnlyCollection<string> seen, string? standard) =>
        Compensations.Any(c => c.Disqualifies && seen.Contains(c.Key) && (c.OnlyStandard is null || c.OnlyStandard == standard));
}
