using Tensarch.Core;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;

namespace Tensarch.Server.Measuring;

/// <param name="TakenAt">Now, when none is given.</param>
public sealed record ReadingRequest(
    Guid Id,
    string Measure,
    Side? Side,
    Warmth Warmth,
    string? Standard,
    Instrument Instrument,
    IReadOnlyList<double> Trials,
    IReadOnlyList<string> Compensations,
    int? Quality,
    int? Sensation,
    int? Pain,
    string? Note,
    DateTimeOffset? TakenAt
);

public sealed record VoidRequest(string Reason);

/// <summary>A reading while it is typed.</summary>
public sealed record PreviewRequest(
    string Measure,
    Side? Side,
    Warmth Warmth,
    string? Standard,
    IReadOnlyList<double> Trials,
    IReadOnlyList<string> Compensations
);

/// <summary>What the typed trials would say.</summary>
/// <param name="Previous">Against the last reading of the series.</param>
/// <param name="OtherSide">Right minus left, against the other side's last reading; none before it was read.</param>
public sealed record PreviewResponse(
    double Value,
    double StandardError,
    bool Disqualified,
    ComparedReading? Previous,
    ComparedReading? OtherSide,
    Side? Weaker
);

public sealed record ComparedReading(double Value, DateTimeOffset At, double Difference, double Mdc95, bool Detectable);

public sealed record ReadingPage(IReadOnlyList<ReadingView> Readings, long? Next);

/// <summary>The measures of a ladder with what was read last and what the gates ask.</summary>
public sealed record BenchResponse(
    Guid StudentId,
    string Name,
    string Standard,
    double? LeftLegCm,
    double? RightLegCm,
    bool OnLadder,
    IReadOnlyList<BenchMeasure> Measures
);

public sealed record BenchMeasure(string Measure, IReadOnlyList<BenchSide> Sides);

/// <param name="Side">The side that is read.</param>
/// <param name="Recent">The warm series within its shelf life, newest first.</param>
/// <param name="Needs">The present gates that read this series.</param>
public sealed record BenchSide(
    Side Side,
    ReadingView? LastWarm,
    ReadingView? LastCold,
    IReadOnlyList<RecentReading> Recent,
    IReadOnlyList<BenchNeed> Needs
);

public sealed record RecentReading(DateTimeOffset At, IReadOnlyList<double> Trials);

/// <param name="ForSide">The side whose gate asks.</param>
public sealed record BenchNeed(Side ForSide, int Stage, Comparison Comparison, double Threshold, int MinTrials, Outcome Outcome);

public sealed record SplitAngleRequest(double GapCm, double FrontLegCm, double BackLegCm);

public sealed record SplitAngleResponse(double AngleDeg);

/// <param name="Now">The server's clock, when none is given.</param>
/// <param name="ShelfDays">21 when not given.</param>
/// <param name="BetweenDays">τ, in the measure's unit; 0 when not given.</param>
/// <param name="MinTrials">1 when not given.</param>
/// <param name="Resolution">The instrument's standard error; 0 when not given.</param>
public sealed record RomTestRequest(
    Comparison Comparison,
    double Threshold,
    double Sem,
    IReadOnlyList<RecentReading> Readings,
    DateTimeOffset? Now = null,
    double? ShelfDays = null,
    double? BetweenDays = null,
    int? MinTrials = null,
    double? Resolution = null
);

public sealed record RomTestResponse(Outcome Outcome, double? Value, double? StandardError, double? Margin, double? Noise, string Reason);
