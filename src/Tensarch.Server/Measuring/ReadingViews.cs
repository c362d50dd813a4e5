using Tensarch.Core;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>A reading as the screens show it.</summary>
/// <param name="StandardError">In the measure's unit, as frozen when it was taken.</param>
public sealed record ReadingView(
    Guid Id,
    string Measure,
    Side? Side,
    Warmth Warmth,
    string? Standard,
    IReadOnlyList<double> Trials,
    double Value,
    double StandardError,
    bool Disqualified,
    IReadOnlyList<string> Compensations,
    int? Pain,
    string? Note,
    DateTimeOffset TakenAt,
    Guid TakenBy,
    string? VoidReason
);

public static class ReadingViews
{
    public static ReadingView ToView(ReadingRow r) =>
        new(
            r.Id,
            r.Measure,
            r.Side,
            r.Warmth,
            r.Standard,
            r.Trials,
            r.Value,
            r.StandardError,
            r.Disqualified,
            r.Compensations,
            r.Pain,
            r.Note,
            r.TakenAt,
            r.TakenBy,
            r.Void?.Reason
        );

    public static Reading ToCore(ReadingRow r) =>
        new(r.Id, SeriesOf(r), r.TakenAt, r.Trials, r.Sem, r.Tau, r.Resolution, r.TakenBy, r.Disqualified, r.Pain);

    private static Series SeriesOf(ReadingRow r) => new(r.Measure, r.Side, r.Mode, r.Level, r.Warmth, r.Standard);
}
