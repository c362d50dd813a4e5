using System.ComponentModel.DataAnnotations;
using Tensarch.Core;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;

namespace Tensarch.Server.Measuring;

public sealed record SplitAngleRequest(
    [Range(-1000, 1000)] double GapCm,
    [Range(-1000, 1000)] double FrontLegCm,
    [Range(-1000, 1000)] double BackLegCm
);

public sealed record SplitAngleResponse(double AngleDeg);

/// <param name="Now">The server's clock, when none is given.</param>
/// <param name="ShelfDays">21 when not given.</param>
/// <param name="BetweenDays">τ, in the measure's unit; 0 when not given.</param>
/// <param name="MinTrials">1 when not given.</param>
/// <param name="Resolution">The instrument's standard error; 0 when not given.</param>
public sealed record RomTestRequest(
    Comparison Comparison,
    [Range(-10_000, 10_000)] double Threshold,
    [Range(0, 10_000)] double Sem,
    IReadOnlyList<RecentReading> Readings,
    DateTimeOffset? Now = null,
    [Range(0.01, 3650)] double? ShelfDays = null,
    [Range(0, 10_000)] double? BetweenDays = null,
    [Range(1, TrialCheck.MostTrials)] int? MinTrials = null,
    [Range(0, 10_000)] double? Resolution = null
);

public sealed record RomTestResponse(Outcome Outcome, double? Value, double? StandardError, double? Margin, double? Noise, string Reason);

/// <summary>Landmarks as x and y, y up, in any one unit.</summary>
/// <param name="Horizon">Two points on a line that is level in the room.</param>
/// <param name="Facing">Where the belly looks; left when not given.</param>
public sealed record LineRequest(
    IReadOnlyList<double> Wrist,
    IReadOnlyList<double> Shoulder,
    IReadOnlyList<double> Hip,
    IReadOnlyList<double> Ankle,
    IReadOnlyList<IReadOnlyList<double>>? Horizon = null,
    Facing? Facing = null
);

/// <summary>Shoulder: positive closed; hip: positive arch; lean: positive towards the back. The line is the largest of the three.</summary>
public sealed record LineResponse(double ShoulderDeg, double HipDeg, double LeanDeg, double LineDeg);

public sealed record StraddleRequest(
    [Range(-1000, 1000)] double LeftLegCm,
    [Range(-1000, 1000)] double RightLegCm,
    [Range(-1000, 1000)] double HeelDistanceCm,
    [Range(-1000, 1000)] double? HipWidthCm = null
);

public sealed record StraddleResponse(double AngleDeg, double ExpectedGapCm);

public sealed record SuccessRateRequest(int Successes, int Attempts);

public sealed record SuccessRateResponse(double Share, double Lower95, double Upper95);

/// <param name="View">A measure that is read from pictures, or a view.</param>
public sealed record LandmarksRequest([RegularExpression(Key.Pattern)] string View, Placement Placement);

public sealed record BreathsRequest(double BreathSeconds, double? Breaths = null, double? Seconds = null);

public sealed record BreathsResponse(double Breaths, double Seconds);

public sealed record BlocksRequest(IReadOnlyList<StackedBlock> Stack);

public sealed record BlocksResponse(double Cm, double ResolutionCm);

/// <param name="Value">In the measure's unit.</param>
public sealed record EstimateRequest([Range(-10_000, 10_000)] double Value, [Range(0, 10_000)] double StandardError);

public sealed record AsymmetryRequest(EstimateRequest Left, EstimateRequest Right, Better Better);

/// <param name="Difference">Right minus left.</param>
/// <param name="Weaker">None while the difference is within noise.</param>
public sealed record AsymmetryResponse(double Difference, double Mdc95, bool Detectable, Side? Weaker);
