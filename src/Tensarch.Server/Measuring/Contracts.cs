using System.ComponentModel.DataAnnotations;
using Tensarch.Core;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Hosting.Door;

namespace Tensarch.Server.Measuring;

/// <summary>A reading as it is typed, and as it is sent. Trials come as numbers, as block stacks, or as placed landmarks.</summary>
/// <param name="TakenAt">Now, when none is given.</param>
/// <param name="Stacks">One stack of blocks a trial; the core converts.</param>
/// <param name="Marks">One placement of landmarks a trial.</param>
/// <param name="Hits">Each attempt in order, held or not.</param>
/// <param name="Confirmed">"Yes, really": takes an unlikely value.</param>
/// <param name="TrialsAt">When each trial began, where the bench saw it: holds a minute apart count as two.</param>
public sealed record ReadingRequest(
    Guid Id,
    [RegularExpression(Key.Pattern)] string Measure,
    Side? Side,
    Warmth Warmth,
    [RegularExpression(Key.Pattern)] string? Standard,
    Instrument Instrument,
    [MaxLength(TrialCheck.MostTrials), Range(-10_000, 10_000)] IReadOnlyList<double> Trials,
    [MaxLength(20), RegularExpression(Key.Pattern)] IReadOnlyList<string> Compensations,
    [Range(1, 5)] int? Quality,
    [Range(0, 10)] int? Sensation,
    [Range(0, 10)] int? Pain,
    [StringLength(ReadingInput.LongestNote)] string? Note,
    [NotFuture] DateTimeOffset? TakenAt,
    [RegularExpression(Key.Pattern)] string? Level = null,
    [Range(0, ReadingInput.MostAttempts)] int? Successes = null,
    [Range(1, ReadingInput.MostAttempts)] int? Attempts = null,
    [MaxLength(ReadingInput.MostAttempts)] IReadOnlyList<bool>? Hits = null,
    [MaxLength(TrialCheck.MostTrials)] IReadOnlyList<IReadOnlyList<StackedBlock>>? Stacks = null,
    [MaxLength(TrialCheck.MostTrials)] IReadOnlyList<Guid>? Marks = null,
    Guid? SittingId = null,
    bool Confirmed = false,
    [MaxLength(TrialCheck.MostTrials)] IReadOnlyList<DateTimeOffset>? TrialsAt = null
);

public sealed record VoidRequest([StringLength(500, MinimumLength = 3)] string Reason);

/// <summary>What the typed trials would say.</summary>
/// <param name="Trials">As numbers in the measure's unit, where they were typed as blocks or landmarks.</param>
/// <param name="Sem">Trial to trial, the catalogue's blended with the coach's own.</param>
/// <param name="SemDof">Degrees of freedom of the coach's own repeats.</param>
/// <param name="Rate">For counts.</param>
/// <param name="Previous">Against the last reading of the series.</param>
/// <param name="OtherSide">Right minus left, against the other side's last reading; none before it was read.</param>
/// <param name="Unlikely">Far from what the series has shown: ask "yes, really".</param>
/// <param name="Straddle">The middle split's two readings against each other.</param>
/// <param name="Odd">A trial far from the others: ask "yes, really".</param>
/// <param name="Pooled">Earlier readings that make one test with this one.</param>
/// <param name="Pain">What the pain that is typed does; none when none is.</param>
public sealed record PreviewResponse(
    IReadOnlyList<double> Trials,
    double Value,
    double StandardError,
    double Sem,
    int SemDof,
    double Tau,
    int TauPairs,
    double Resolution,
    SuccessRate? Rate,
    bool Disqualified,
    ComparedReading? Previous,
    ComparedReading? OtherSide,
    Side? Weaker,
    Unlikely? Unlikely,
    StraddleCheck? Straddle,
    OddTrial? Odd,
    PooledWith? Pooled,
    PainEffect? Pain
);

/// <summary>Readings of one series within twelve hours are one test.</summary>
/// <param name="Since">When the first of them was taken.</param>
/// <param name="Readings">How many, with this one.</param>
public sealed record PooledWith(DateTimeOffset Since, int Readings, int Trials, double Value);

/// <summary>What pain that is told with a reading does at once.</summary>
/// <param name="IsEvent">It is more than the limit: the reading stops here.</param>
/// <param name="Bars">What would be barred by it that is not, or less, now.</param>
public sealed record PainEffect(bool IsEvent, IReadOnlyList<TagLevel> Bars);

public sealed record TagLevel(LoadTag Tag, BarLevel Level);

public sealed record ComparedReading(double Value, DateTimeOffset At, double Difference, double Mdc95, bool Detectable);

public sealed record ReadingPage(IReadOnlyList<ReadingView> Readings, string? Next);

/// <summary>What may be read on one student today.</summary>
/// <param name="Needs">What the next gates still need; the baseline before the student is on a ladder.</param>
/// <param name="Barred">Measures that a bar keeps off the bench.</param>
public sealed record BenchResponse(
    Guid StudentId,
    bool Screened,
    bool OnLadder,
    SittingOffer Needs,
    IReadOnlyList<SittingOffer> Batteries,
    IReadOnlyList<BarredMeasure> Barred,
    IReadOnlyList<OpenSitting> Open
);

/// <param name="Items">In the order in which they would be read.</param>
/// <param name="LeftOut">Barred, and never offered.</param>
public sealed record SittingOffer(
    string Scope,
    string? Name,
    IReadOnlyList<SittingItem> Items,
    IReadOnlyList<BarredMeasure> LeftOut,
    int PositionChanges
);

public sealed record BarredMeasure(string Measure, LoadTag Tag);

public sealed record OpenSitting(Guid Id, string Scope, DateTimeOffset StartedAt, string By, int Taken, int Asked);

/// <param name="Scope"><c>needs</c>, a battery's key, or <c>single</c> with its measures.</param>
/// <param name="Cold">Also read the range of motion cold, first.</param>
/// <param name="Level">Of the measures chosen, where they have it; else their first one.</param>
public sealed record SittingRequest(
    Guid Id,
    [RegularExpression(Key.Pattern)] string Scope,
    [RegularExpression(Key.Pattern)] IReadOnlyList<string> Measures,
    bool Cold,
    [RegularExpression(Key.Pattern)] string? Level = null
);

/// <summary>A sitting, with all that the bench shows while reading.</summary>
/// <param name="Read">Readings taken of <paramref name="Places"/>, those that are asked: each side once.</param>
/// <param name="Changed">Names of measures that are not what they were when it began, or not there: they are read in a new sitting.</param>
public sealed record SittingView(
    Guid Id,
    string Scope,
    DateTimeOffset StartedAt,
    DateTimeOffset? EndedAt,
    string Standard,
    double? LeftLegCm,
    double? RightLegCm,
    double HipWidthCm,
    double BreathSeconds,
    IReadOnlyList<BlockKind> Blocks,
    IReadOnlyList<SittingPart> Items,
    int Read,
    int Places,
    IReadOnlyList<BarredMeasure> LeftOut,
    IReadOnlyList<string> Changed
);

/// <param name="Asks">Trials that the gate counts.</param>
/// <param name="Read">Of its <paramref name="Places"/> (sides, or the one), how many are read.</param>
/// <param name="Protocol">How it is taken on this student: a sensation that ends it is theirs.</param>
public sealed record SittingPart(
    string Measure,
    string? Level,
    Warmth Warmth,
    int Asks,
    int Read,
    int Places,
    IReadOnlyList<string> Protocol,
    IReadOnlyList<SittingSide> Sides
);

/// <summary>One side of an item at one level and warmth: the item's own warmth, and for a range of motion the other one too.</summary>
/// <param name="Taken">What this sitting has read.</param>
/// <param name="Previous">The last reading of the series before this sitting.</param>
/// <param name="Band">Within it a new value is no detectable change.</param>
/// <param name="Recent">The series within its shelf life, newest first.</param>
/// <param name="Needs">The present gates that read this series.</param>
public sealed record SittingSide(
    string Slot,
    Side? Side,
    string? Level,
    Warmth Warmth,
    ReadingView? Taken,
    ReadingView? Previous,
    MdcBand? Band,
    IReadOnlyList<RecentReading> Recent,
    IReadOnlyList<BenchNeed> Needs,
    DraftView? Draft
);

public sealed record MdcBand(double Low, double High, double Mdc95);

public sealed record RecentReading(
    DateTimeOffset At,
    [MaxLength(TrialCheck.MostTrials), Range(-10_000, 10_000)] IReadOnlyList<double> Trials
);

/// <param name="Skill">The skill whose gate asks.</param>
/// <param name="ForSide">The side whose gate asks; none on a bilateral ladder.</param>
/// <param name="Threshold">In the measure's unit: a straddle angle as the heel distance.</param>
public sealed record BenchNeed(
    string Skill,
    Side? ForSide,
    int Stage,
    Comparison Comparison,
    double Threshold,
    int MinTrials,
    Outcome Outcome
);

/// <summary>What was captured and is not a reading yet.</summary>
public sealed record Draft(
    Guid Id,
    Instrument Instrument,
    [MaxLength(TrialCheck.MostTrials), Range(-10_000, 10_000)] IReadOnlyList<double> Trials,
    [MaxLength(ReadingInput.MostAttempts)] IReadOnlyList<bool> Hits,
    [MaxLength(TrialCheck.MostTrials)] IReadOnlyList<IReadOnlyList<StackedBlock>> Stacks,
    [MaxLength(TrialCheck.MostTrials)] IReadOnlyList<Guid> Marks,
    [MaxLength(20), RegularExpression(Key.Pattern)] IReadOnlyList<string> Compensations,
    [StringLength(20)] string Quality,
    [StringLength(20)] string Sensation,
    [StringLength(20)] string Pain,
    [StringLength(ReadingInput.LongestNote)] string Note
);

public sealed record DraftView(int Version, Draft Draft);

/// <param name="Version">The version that was seen; 0 for a new one.</param>
public sealed record DraftRequest([Range(0, 100_000)] int Version, Draft Draft);

public sealed record DraftStored(int Version);

/// <summary>The series of a student: one line each.</summary>
public sealed record SeriesList(IReadOnlyList<SeriesLine> Series);

public sealed record SeriesLine(
    string Measure,
    Side? Side,
    string? Level,
    Warmth Warmth,
    string? Standard,
    int Count,
    double LastValue,
    double LastStandardError,
    DateTimeOffset LastAt,
    double? Change,
    double? Mdc95,
    bool? Detectable
);

/// <summary>Both sides of a measure over time, newest first.</summary>
/// <param name="Lines">What the present gates ask of it.</param>
public sealed record SeriesPoints(IReadOnlyList<SeriesPoint> Points, IReadOnlyList<BenchNeed> Lines, string? Next);

public sealed record SeriesPoint(
    Guid Id,
    Side? Side,
    DateTimeOffset At,
    double Value,
    double StandardError,
    double? Lower95,
    double? Upper95
);
