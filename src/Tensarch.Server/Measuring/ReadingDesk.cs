using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>Takes and voids readings. The demo's simulator goes through here as the bench does.</summary>
public sealed class ReadingDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    public async Task<Result<(ReadingRow Row, Appended Appended)>> Take(Guid studentId, ReadingRequest request, CancellationToken ct)
    {
        var problems = Check(request);
        if (problems.Count > 0)
            return problems;

        var measure = catalogue.Measure(request.Measure);
        var standardError = ReadingError.StandardError(measure.Sem, measure.Tau, request.Trials.Count);
        var row = new ReadingRow
        {
            Id = request.Id,
            StudentId = studentId,
            Measure = measure.Key,
            Side = request.Side,
            Mode = measure.Mode,
            Warmth = request.Warmth,
            Standard = request.Standard,
            Instrument = request.Instrument,
            Trials = [.. request.Trials],
            Compensations = [.. request.Compensations],
            Disqualified = measure.IsDisqualified(request.Compensations, request.Standard),
            Quality = request.Quality,
            Sensation = request.Sensation,
            Pain = request.Pain,
            Note = string.IsNullOrWhiteSpace(request.Note) ? null : request.Note.Trim(),
            Sem = measure.Sem,
            Tau = measure.Tau,
            Value = request.Trials.Average(),
            StandardError = standardError,
            TakenAt = request.TakenAt ?? clock.Now,
            TakenBy = scope.UserId,
        };
        var appended = await db.Readings.AddFact(row, new { studentId, request }, ct);
        return (row, await db.SaveFact(appended, ct));
    }

    /// <summary>The series' and the other side's last counting readings before now, warm or cold like the typed one.</summary>
    public async Task<Result<PreviewResponse>> Preview(Guid studentId, PreviewRequest request, CancellationToken ct)
    {
        var problems = Check(
            new(
                Guid.Empty,
                request.Measure,
                request.Side,
                request.Warmth,
                request.Standard,
                default,
                request.Trials,
                request.Compensations,
                null,
                null,
                null,
                null,
                null
            )
        );
        if (problems.Count > 0)
            return problems;

        var measure = catalogue.Measure(request.Measure);
        var estimate = new Estimate(request.Trials.Average(), ReadingError.StandardError(measure.Sem, measure.Tau, request.Trials.Count));
        var same = await Last(studentId, request, request.Side, ct);
        var other = request.Side is { } side ? await Last(studentId, request, side.Other(), ct) : null;
        var asymmetry =
            other is null ? null
            : request.Side == Side.Left ? Asymmetry.Between(estimate, EstimateOf(other), measure.Better, other.TakenBy == scope.UserId)
            : Asymmetry.Between(EstimateOf(other), estimate, measure.Better, other.TakenBy == scope.UserId);
        return new PreviewResponse(
            estimate.Value,
            estimate.StandardError,
            measure.IsDisqualified(request.Compensations, request.Standard),
            same is null ? null : Compared(same, Change.Between(EstimateOf(same), estimate, same.TakenBy == scope.UserId)),
            other is null ? null : Compared(other, asymmetry!.Change),
            asymmetry?.Weaker
        );
    }

    private Task<ReadingRow?> Last(Guid studentId, PreviewRequest request, Side? side, CancellationToken ct) =>
        db
            .Readings.AsNoTracking()
            .Where(r =>
                r.StudentId == studentId
                && r.Measure == request.Measure
                && r.Side == side
                && r.Warmth == request.Warmth
                && r.Standard == request.Standard
                && !r.Disqualified
                && r.Void == null
            )
            .OrderByDescending(r => r.TakenAt)
            .FirstOrDefaultAsync(ct);

    private static Estimate EstimateOf(ReadingRow row) => new(row.Value, row.StandardError);

    private static ComparedReading Compared(ReadingRow row, Change change) =>
        new(row.Value, row.TakenAt, change.Difference, change.Mdc95, change.Detectable);

    private List<Problem> Check(ReadingRequest request)
    {
        if (catalogue.FindMeasure(request.Measure) is not { } measure)
            return [Problem.Of("unknownMeasure", "measure")];

        var problems = TrialCheck.Check(request.Trials, measure.Min, measure.Max);
        if (measure.PerSide != request.Side is not null)
            problems.Add(Problem.Of(measure.PerSide ? "sideNeeded" : "noSides", "side"));
        var standardFits =
            measure.Standards.Count == 0
                ? request.Standard is null
                : request.Standard is not null && measure.Standards.Contains(request.Standard);
        if (!standardFits)
            problems.Add(Problem.Of("unknownStandard", "standard"));
        if (request.Compensations.Any(c => measure.Compensations.All(known => known.Key != c)))
            problems.Add(Problem.Of("unknownCompensation", "compensations"));
        if (request.TakenAt > clock.Now)
            problems.Add(Problem.Of("dateInFuture", "takenAt"));
        Between(request.Quality, 1, 5, "quality", problems);
        Between(request.Sensation, 0, 10, "sensation", problems);
        Between(request.Pain, 0, 10, "pain", problems);
        if (request.Note?.Length > 1000)
            problems.Add(Problem.Of("tooLong", "note", ("most", 1000)));
        return problems;
    }

    private static void Between(int? value, int least, int most, string field, List<Problem> problems)
    {
        if (value < least || value > most)
            problems.Add(Problem.Of("outOfRange", field, ("value", value.Value), ("min", least), ("max", most)));
    }

    public async Task<Result<Appended>> Void(Guid readingId, VoidRequest request, CancellationToken ct)
    {
        var reason = request.Reason?.Trim() ?? "";
        if (reason.Length < 3)
            return Problem.Of("reasonTooShort", "reason", ("least", 3));
        var before = await db.ReadingVoids.AsNoTracking().SingleOrDefaultAsync(v => v.ReadingId == readingId, ct);
        if (before is not null)
            return before.Reason == reason ? Appended.SameAgain : Appended.Clash;
        db.ReadingVoids.Add(
            new()
            {
                ReadingId = readingId,
                Reason = reason,
                At = clock.Now,
                By = scope.UserId,
            }
        );
        return await db.SaveFact(Appended.Stored, ct);
    }
}
