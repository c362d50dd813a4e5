using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;
using Tensarch.Server.Students;

namespace Tensarch.Server.Measuring;

/// <summary>A reading with everything that is worked out before it is stored.</summary>
/// <param name="Noise">Of the coach who takes it, from what they took before.</param>
/// <param name="Resolution">Of the instrument, as a standard error in the measure's unit.</param>
public sealed record PreparedReading(
    Measure Measure,
    ReadingInput Input,
    Noise Noise,
    double Resolution,
    Estimate Estimate,
    Unlikely? Unlikely,
    OddTrial? Odd
);

/// <summary>Takes and voids readings. The demo's simulator and the import go through here as the bench does.</summary>
public sealed class ReadingDesk(
    TensarchDb db,
    StudioMeasures measures,
    OwnNoises noises,
    Standings standings,
    StudentDesk students,
    StudioClock clock,
    StudioScope scope
)
{
    public async Task<Result<(ReadingRow Row, Appended Appended)>> Take(Guid studentId, ReadingRequest request, CancellationToken ct)
    {
        if (request.TrialsAt is { } times && times.Count != request.Trials.Count)
            return Problem.Of("trialTimesDoNotFit", "trialsAt");
        if (await Known(studentId, request, ct) is { } known)
            return known;
        var prepared = await Prepare(studentId, request, request.TakenAt ?? clock.Now, ct);
        if (!prepared.IsOk)
            return prepared.Problems.ToList();
        var (measure, _, _, _, _, unlikely, odd) = prepared.Value;
        if (odd is not null && !request.Confirmed)
            return Problem.Of("oddTrial", "trials", ("trial", odd.Value), ("median", odd.Middle), ("limit", odd.Limit));
        if (unlikely is not null && !request.Confirmed)
            return Problem.Of("unlikely", "trials", ("median", unlikely.Median), ("limit", unlikely.Limit));
        // What was read before is a fact; what is barred is not read now.
        if (clock.IsLive(request.TakenAt) && measure.BarredBy((await standings.Of(studentId, ct))!.Bars) is not null)
            return Problem.Of("offLimits", "measure");
        if (request.SittingId is { } sitting && !await db.Sittings.AnyAsync(s => s.Id == sitting && s.StudentId == studentId, ct))
            return Problem.Of("unknownSitting", "sittingId");

        var row = Row(studentId, request, prepared.Value, request.TakenAt ?? clock.Now, scope.UserId);
        var appended = await db.Readings.AddFact(row, new { studentId, request }, ct);
        // What was captured is a reading now: voided, it is taken anew and not under its old id.
        if (appended == Appended.Stored && request.SittingId is { } done)
            await Forget(done, SittingViews.Slot(row.Measure, row.Side, row.Level, row.Warmth), ct);
        if (appended == Appended.Stored)
            db.Signals.AddRange(ReadingPains.Of(row, measure, clock.Now));
        if (appended == Appended.Stored && request.TakenAt is null && measure.Role == MeasureRole.BreathLength)
            await students.Breathes(studentId, row.Value, ct);
        return (row, await db.SaveFact(appended, ct));
    }

    private async Task Forget(Guid sitting, string slot, CancellationToken ct)
    {
        if (await db.Drafts.SingleOrDefaultAsync(d => d.SittingId == sitting && d.Slot == slot, ct) is { } draft)
            db.Drafts.Remove(draft);
    }

    /// <summary>A retry is answered from what was stored, whatever the clock and the bars say by now.</summary>
    private async Task<Result<(ReadingRow, Appended)>?> Known(Guid studentId, ReadingRequest request, CancellationToken ct)
    {
        var stored = await db.Readings.AsNoTracking().FirstOrDefaultAsync(r => r.Id == request.Id, ct);
        if (stored is null)
            return null;
        var same = stored.BodyHash == Facts.Hash(new { studentId, request });
        return (stored, same ? Appended.SameAgain : Appended.Clash);
    }

    /// <summary>A device whose clock runs ahead is set right: what counts is how far apart the trials were.</summary>
    private static List<long> TimesOf(IReadOnlyList<DateTimeOffset> times, DateTimeOffset at)
    {
        var ahead = times.Count > 0 && times.Max() > at ? times.Max() - at : TimeSpan.Zero;
        return [.. times.Select(t => (t - ahead).UtcTicks)];
    }

    public static ReadingRow Row(Guid studentId, ReadingRequest request, PreparedReading prepared, DateTimeOffset at, Guid takenBy) =>
        new()
        {
            Id = request.Id,
            StudentId = studentId,
            Measure = prepared.Measure.Key,
            Side = request.Side,
            Mode = prepared.Measure.Mode,
            Level = request.Level,
            Warmth = request.Warmth,
            Standard = request.Standard,
            Instrument = request.Instrument,
            Trials = [.. prepared.Input.Trials],
            TrialsAt = TimesOf(request.TrialsAt ?? [], at),
            Successes = request.Successes,
            Attempts = request.Attempts,
            Hits = request.Hits is { } hits ? string.Concat(hits.Select(h => h ? '1' : '0')) : null,
            StacksJson = request.Stacks is { } stacks ? StoredJson.Write(stacks) : null,
            Marks = [.. request.Marks ?? []],
            SittingId = request.SittingId,
            Confirmed = prepared.Unlikely is not null || prepared.Odd is not null,
            Compensations = [.. request.Compensations],
            Disqualified = prepared.Measure.IsDisqualified(request.Compensations, request.Standard),
            Quality = request.Quality,
            Sensation = request.Sensation,
            Pain = request.Pain,
            Note = string.IsNullOrWhiteSpace(request.Note) ? null : request.Note.Trim(),
            Sem = prepared.Noise.Sem,
            SemDof = prepared.Noise.SemDof,
            Tau = prepared.Noise.Tau,
            TauPairs = prepared.Noise.TauPairs,
            Resolution = prepared.Resolution,
            Value = prepared.Estimate.Value,
            StandardError = prepared.Estimate.StandardError,
            TakenAt = at,
            TakenBy = takenBy,
        };

    public async Task<Result<PreparedReading>> Prepare(Guid studentId, ReadingRequest request, DateTimeOffset at, CancellationToken ct)
    {
        if (await measures.Find(request.Measure, ct) is not { } measure)
            return Problem.Of("unknownMeasure", "measure");
        var trials = await Trials(studentId, request, measure, ct);
        if (!trials.IsOk)
            return trials.Problems.ToList();
        var input = new ReadingInput(
            request.Side,
            request.Level,
            request.Standard,
            request.Instrument,
            trials.Value.Trials,
            request.Successes,
            request.Attempts,
            request.Hits,
            request.Compensations,
            request.Quality,
            request.Sensation,
            request.Pain,
            request.Note
        );
        var problems = input.Check(measure);
        if (problems.Count > 0)
            return problems;
        var noise = await noises.Of(measure, request.Instrument, scope.UserId, at, ct);
        var estimate = input.Value(measure, noise, trials.Value.Resolution);
        var unlikely = measure.Kind == MeasureKind.Range ? Unlikely.Of(estimate, at, await Lately(studentId, request, at, ct)) : null;
        var odd = measure.Kind == MeasureKind.Range ? OddTrial.Of(input.Trials, noise.Sem, measure.Resolution) : null;
        return new PreparedReading(measure, input, noise, trials.Value.Resolution, estimate, unlikely, odd);
    }

    /// <summary>Trials in the measure's unit, from whatever they were read with, and the resolution of that.</summary>
    private async Task<Result<(IReadOnlyList<double> Trials, double Resolution)>> Trials(
        Guid studentId,
        ReadingRequest request,
        Measure measure,
        CancellationToken ct
    )
    {
        if (request.Marks is { Count: > 0 } ids)
        {
            var marks = await (
                from mark in db.Marks
                join picture in db.Pictures on mark.PictureId equals picture.Id
                where ids.Contains(mark.Id) && mark.StudentId == studentId && picture.View == measure.Key
                select new { mark.Id, mark.Value }
            ).ToDictionaryAsync(m => m.Id, m => m.Value, ct);
            return ids.All(marks.ContainsKey) && ids.Distinct().Count() == ids.Count
                ? ([.. ids.Select(id => marks[id])], 0)
                : Problem.Of("unknownMarks", "marks");
        }
        if (request.Instrument != Instrument.BlockStack || measure.Kind == MeasureKind.Step)
            return (request.Trials, 0);
        var kinds = await measures.Blocks(ct);
        if (request.Stacks is null)
            return (request.Trials, BlockFaces.ToCm([], kinds).Value.ResolutionCm);
        var heights = request.Stacks.Select(s => BlockFaces.ToCm(s, kinds)).ToList();
        var wrong = heights.FirstOrDefault(h => !h.IsOk).Problems;
        return wrong is { Count: > 0 }
            ? wrong.ToList()
            : ([.. heights.Select(h => h.Value.Cm)], heights.Select(h => h.Value.ResolutionCm).DefaultIfEmpty().Max());
    }

    public IQueryable<ReadingRow> SeriesOf(Guid studentId, ReadingRequest request, Side? side) =>
        db
            .Readings.AsNoTracking()
            .Where(r =>
                r.StudentId == studentId
                && r.Measure == request.Measure
                && r.Side == side
                && r.Level == request.Level
                && r.Warmth == request.Warmth
                && r.Standard == request.Standard
                && !r.Disqualified
                && r.Void == null
            )
            .Sound();

    private async Task<IEnumerable<(DateTimeOffset, Estimate)>> Lately(
        Guid studentId,
        ReadingRequest request,
        DateTimeOffset at,
        CancellationToken ct
    )
    {
        var rows = await SeriesOf(studentId, request, request.Side)
            .Where(r => r.TakenAt < at)
            .OrderByDescending(r => r.TakenAt)
            .Take(Unlikely.LastReadings)
            .Select(r => new
            {
                r.TakenAt,
                r.Value,
                r.StandardError,
            })
            .ToListAsync(ct);
        return rows.Select(r => (r.TakenAt, new Estimate(r.Value, r.StandardError)));
    }

    public static Estimate EstimateOf(ReadingRow row) => new(row.Value, row.StandardError);

    public async Task<Result<Appended>> Void(Guid readingId, VoidRequest request, CancellationToken ct)
    {
        var reason = request.Reason.Trim();
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
        // In the history it stands beside what else was corrected.
        db.Corrections.Add(
            new()
            {
                Id = Guid.CreateVersion7(),
                StudentId = await db.Readings.Where(r => r.Id == readingId).Select(r => r.StudentId).SingleAsync(ct),
                What = Corrected.Reading,
                Of = readingId,
                Reason = reason,
                At = clock.Now,
                By = scope.UserId,
            }
        );
        return await db.SaveFact(Appended.Stored, ct);
    }
}
