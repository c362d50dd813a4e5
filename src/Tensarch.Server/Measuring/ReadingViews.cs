using Tensarch.Core;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>A reading as the screens show it.</summary>
/// <param name="StandardError">In the measure's unit, as frozen when it was taken.</param>
/// <param name="Rate">For counts.</param>
/// <param name="SemDof">On how many of the taker's own degrees of freedom the frozen SEM rests.</param>
/// <param name="Unreadable">A stored value cannot be reckoned with: it counts for nothing, its numbers are left out, and it can be voided.</param>
/// <param name="Student">Whose it is, in lists of the whole studio.</param>
public sealed record ReadingView(
    Guid Id,
    string Measure,
    Side? Side,
    string? Level,
    Warmth Warmth,
    string? Standard,
    Instrument Instrument,
    IReadOnlyList<double> Trials,
    double Value,
    double StandardError,
    SuccessRate? Rate,
    int? Successes,
    int? Attempts,
    double Sem,
    int SemDof,
    double Tau,
    int TauPairs,
    double Resolution,
    bool Disqualified,
    bool Confirmed,
    IReadOnlyList<string> Compensations,
    int? Quality,
    int? Pain,
    string? Note,
    IReadOnlyList<IReadOnlyList<StackedBlock>>? Stacks,
    IReadOnlyList<Guid> Marks,
    DateTimeOffset TakenAt,
    Guid TakenBy,
    string? VoidReason,
    bool Unreadable = false,
    ReadingOwner? Student = null
);

public sealed record ReadingOwner(Guid Id, string Name);

public static class ReadingViews
{
    public static ReadingView ToView(ReadingRow r) =>
        SoundReadings.IsSound(r) ? Whole(r) : Whole(WithoutNumbers(r)) with { Unreadable = true };

    private static ReadingRow WithoutNumbers(ReadingRow r) =>
        new()
        {
            Id = r.Id,
            StudentId = r.StudentId,
            Measure = r.Measure,
            Side = r.Side,
            Level = r.Level,
            Warmth = r.Warmth,
            Standard = r.Standard,
            Instrument = r.Instrument,
            Trials = [],
            Compensations = r.Compensations,
            Note = r.Note,
            TakenAt = r.TakenAt,
            TakenBy = r.TakenBy,
            Void = r.Void,
        };

    private static ReadingView Whole(ReadingRow r) =>
        new(
            r.Id,
            r.Measure,
            r.Side,
            r.Level,
            r.Warmth,
            r.Standard,
            r.Instrument,
            r.Trials,
            r.Value,
            r.StandardError,
            r is { Successes: { } k, Attempts: { } n } ? SuccessRate.Of(k, n).Value : null,
            r.Successes,
            r.Attempts,
            r.Sem,
            r.SemDof,
            r.Tau,
            r.TauPairs,
            r.Resolution,
            r.Disqualified,
            r.Confirmed,
            r.Compensations,
            r.Quality,
            r.Pain,
            r.Note,
            StoredJson.TryRead<List<List<StackedBlock>>>(r.StacksJson),
            r.Marks,
            r.TakenAt,
            r.TakenBy,
            r.Void?.Reason
        );

    /// <param name="day">The day in the studio's time zone.</param>
    public static Reading ToCore(ReadingRow r, DateOnly day) =>
        new(
            r.Id,
            SeriesOf(r),
            r.TakenAt,
            r.Trials,
            r.Sem,
            r.Tau,
            r.Resolution,
            r.TakenBy,
            r.Disqualified,
            r.Pain,
            r.Quality,
            r is { Successes: { } k, Attempts: { } n } ? new Tally(k, n) : null,
            day,
            r.TrialsAt.Count > 0 ? [.. r.TrialsAt.Select(t => new DateTimeOffset(t, TimeSpan.Zero))] : null
        );

    private static Series SeriesOf(ReadingRow r) => new(r.Measure, r.Side, r.Mode, r.Level, r.Warmth, r.Standard);
}
