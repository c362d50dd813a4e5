using System.Globalization;
using System.Text.RegularExpressions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Measuring;

public enum Better
{
    Up,
    Down,

    /// <summary>Neither: the value converts something else (a breath's length).</summary>
    None,
}

/// <summary>How a measure's value comes out of what was written down.</summary>
public enum MeasureKind
{
    /// <summary>The mean of the trials, with a standard error.</summary>
    Range,

    /// <summary>The best of the attempts, each of which is kept; no standard error.</summary>
    Hold,

    /// <summary>Successes of all attempts, shown with its Wilson interval.</summary>
    Rate,

    /// <summary>Read in steps, such as wedges; standard error 0.</summary>
    Step,
}

/// <summary>A way of cheating the number. A disqualifying one keeps the reading out of every gate and trend.</summary>
/// <param name="OnlyStandard">Disqualifies under this standard alone; under all when none is named.</param>
public sealed record Compensation(string Key, string Name, bool Disqualifies, string? OnlyStandard = null);

/// <summary>A variant of a hold or a line. Values of two levels are never put side by side.</summary>
public sealed record MeasureLevel(string Key, string Name);

/// <summary>What is derived from a measure's readings beyond themselves.</summary>
public enum MeasureRole
{
    /// <summary>A calm breath in seconds: what is counted in breaths is reckoned with it.</summary>
    BreathLength,

    /// <summary>Pubic bone to floor in a front split: the angle between the legs.</summary>
    SplitGap,

    /// <summary>Pubic bone to floor in a middle split, held against the heels.</summary>
    StraddleGap,

    /// <summary>Heel to heel in a middle split: the straddle's angle, on which gates ask.</summary>
    StraddleHeels,
}

/// <summary>What is read, how, in which unit, on which side, and how far a reading can be trusted.</summary>
/// <param name="Group">The family in which the library lists it: <c>hips</c>, <c>squat</c>, <c>trunk</c> or <c>holds</c>.</param>
/// <param name="Position">The body position in which it is read; a sitting changes position as little as possible.</param>
/// <param name="SideMeans">What the side names, such as "front leg".</param>
/// <param name="Min">The least plausible value, in the measure's unit.</param>
/// <param name="Max">The greatest plausible value, in the measure's unit.</param>
/// <param name="Resolution">The step in which it is read, in the measure's unit.</param>
/// <param name="Sem">Starting SEM for one trial by one careful coach.</param>
/// <param name="Tau">Starting day-to-day standard deviation.</param>
/// <param name="ShelfDays">After so many days a reading is stale.</param>
/// <param name="Instruments">What it may be read with, the usual one first.</param>
/// <param name="Role">What is derived from it.</param>
/// <param name="Drill">The drill whose attempts it counts.</param>
/// <param name="Quick">A rough reading by the student's own hand, at the last repetition of a drill: no gate reads it.</param>
/// <param name="Loads">What taking it loads. A held tag keeps the measure off the bench.</param>
/// <param name="Landmarks">Where to measure from and to.</param>
/// <param name="Step">Values are multiples of this, in the measure's unit.</param>
/// <param name="Picture">How it is read from a side picture, where it can be.</param>
public sealed partial record Measure(
    string Key,
    string Name,
    string Reads,
    string Group,
    MeasureKind Kind,
    string Position,
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
    IReadOnlyList<MeasureLevel> Levels,
    IReadOnlyList<Instrument> Instruments,
    IReadOnlyDictionary<LoadTag, LoadLevel> Loads,
    IReadOnlyList<string> Landmarks,
    IReadOnlyList<string> Protocol,
    IReadOnlyList<Compensation> Compensations,
    LineFigure Figure,
    double? Step = null,
    PictureProtocol? Picture = null,
    MeasureRole? Role = null,
    string? Drill = null,
    bool Quick = false
)
{
    /// <summary>The protocol for a student: where it ends at a sensation, theirs is the ceiling where that is lower.</summary>
    /// <param name="ceiling">Of 10.</param>
    public IReadOnlyList<string> ProtocolUnder(int ceiling) =>
        [
            .. Protocol.Select(step =>
                EndSensation()
                    .Replace(step, m => $"sensation {Math.Min(ceiling, int.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture))}")
            ),
        ];

    [GeneratedRegex(@"sensation (\d+)")]
    private static partial Regex EndSensation();

    /// <summary>Where pain during a reading is counted.</summary>
    public IEnumerable<LoadTag> Regions() => Loads.Keys.Where(t => t.IsRegion());

    /// <summary>Whether any of the compensations seen disqualifies a reading under this standard.</summary>
    public bool IsDisqualified(IReadOnlyCollection<string> seen, string? standard) =>
        Compensations.Any(c => c.Disqualifies && seen.Contains(c.Key) && (c.OnlyStandard is null || c.OnlyStandard == standard));

    /// <summary>The first tag that keeps this measure off the bench today; none when it may be taken.</summary>
    public LoadTag? BarredBy(DayBars bars) =>
        Loads
            .Where(l => !bars.Allow(new Dictionary<LoadTag, LoadLevel> { [l.Key] = l.Value }))
            .Select(l => (LoadTag?)l.Key)
            .FirstOrDefault();
}

/// <summary>A body position of the bench, in the order in which a sitting goes through them.</summary>
public sealed record BenchPosition(string Key, string Name);

/// <summary>A named set of measures for one sitting.</summary>
public sealed record Battery(string Key, string Name, IReadOnlyList<string> Measures);
