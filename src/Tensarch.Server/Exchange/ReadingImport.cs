using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Exchange;

public enum ImportStatus
{
    New,

    /// <summary>Here already: adds nothing.</summary>
    Same,

    /// <summary>Far from what its series has shown; taken when the coach says so.</summary>
    Unlikely,
    Problem,
}

/// <summary>What would become of one line.</summary>
/// <param name="Line">In the file, the header being 1.</param>
public sealed record ImportVerdict(
    int Line,
    ImportStatus Status,
    string? Student,
    string? Measure,
    Side? Side,
    double? Value,
    DateTimeOffset? TakenAt,
    Problem? Problem
);

/// <param name="Applied">Whether the new ones were stored.</param>
public sealed record ImportReport(int New, int Same, int Unlikely, int Problems, bool Applied, IReadOnlyList<ImportVerdict> Lines);

/// <summary>Takes readings from a file: first a dry run with a verdict for each line, then all of it or nothing.</summary>
public sealed class ReadingImport(TensarchDb db, StudioMeasures measures, StudioClock clock, StudioScope scope)
{
    public const int MostLines = 20_000;
    private const int LongestReason = 500;
    public const int MostBytes = 10 * 1024 * 1024;

    private sealed record Person(Guid Id, string Name);

    /// <param name="studentId">The one student whose file it is; none for the studio's.</param>
    /// <param name="acceptUnlikely">"Yes, really" for all unlikely values.</param>
    public async Task<Result<ImportReport>> Run(Guid? studentId, string text, bool apply, bool acceptUnlikely, CancellationToken ct)
    {
        var (header, lines, brokenAt) = ReadingCsv.Read(new StringReader(text.TrimStart('\uFEFF')), MostLines);
        if (brokenAt is { } at)
            return Problem.Of("brokenCsv", "file", ("line", at));
        if (
            ReadingCsv.Needed.Any(c => !header.Contains(c))
            || studentId is null && !header.Contains("student_id") && !header.Contains("student")
        )
            return Problem.Of("missingColumn", "file");
        if (header.Any(h => !ReadingCsv.Columns.Contains(h)))
            return Problem.Of("unknownColumn", "file");
        if (lines.Count > MostLines)
            return Problem.Of("tooManyLines", "file", ("most", MostLines));

        var students = await db.Students.AsNoTracking().Select(s => new Person(s.Id, s.Name)).ToListAsync(ct);
        var users = await db.Users.AsNoTracking().Select(u => new { u.Id, u.Email }).ToListAsync(ct);
        var known = (await measures.All(ct)).ToDictionary(m => m.Key);
        var blocks = await measures.Blocks(ct);
        var history = new ImportHistory(db);
        var (verdicts, rows, voids, seen) = (
            new List<ImportVerdict>(),
            new List<ReadingRow>(),
            new List<ReadingVoidRow>(),
            new Dictionary<Guid, ReadingRow>()
        );

        var parsed = lines.Select(l => Parse(l)).ToList();
        var stored = await Stored([.. parsed.Where(p => p.Row is not null).Select(p => p.Row!.Id)], ct);
        foreach (var (line, row, problem) in parsed.OrderBy(p => p.Row?.TakenAt ?? DateTimeOffset.MinValue))
        {
            if (row is null)
            {
                verdicts.Add(new(line.Number, ImportStatus.Problem, Or(line["student"]), Or(line["measure"]), null, null, null, problem));
                continue;
            }
            var before = stored.GetValueOrDefault(row.Id) ?? seen.GetValueOrDefault(row.Id);
            if (before is not null)
            {
                var same = ReadingCsv.Canonical(before) == ReadingCsv.Canonical(row);
                verdicts.Add(Say(line, row, same ? ImportStatus.Same : ImportStatus.Problem, same ? null : Problem.Of("idTaken", "id")));
                continue;
            }
            var measure = known[row.Measure];
            var noise = await history.Noise(measure, row, ct);
            var estimate = InputOf(row).Value(measure, noise, row.Resolution);
            var unlikely = measure.Kind == MeasureKind.Range ? await history.Unlikely(row, estimate, ct) : null;
            Freeze(row, noise, estimate, unlikely is not null);
            seen[row.Id] = row;
            history.Add(row);
            rows.Add(row);
            if (ReadingCsv.Plain(line["void_reason"]) is { Length: > 0 } reason)
                voids.Add(
                    new()
                    {
                        ReadingId = row.Id,
                        Reason = reason,
                        At = clock.Now,
                        By = scope.UserId,
                    }
                );
            verdicts.Add(
                unlikely is null || acceptUnlikely
                    ? Say(line, row, ImportStatus.New, null)
                    : Say(
                        line,
                        row,
                        ImportStatus.Unlikely,
                        Problem.Of("unlikely", "trials", ("median", unlikely.Median), ("limit", unlikely.Limit))
                    )
            );
        }
        var clean = verdicts.All(v => v.Status is ImportStatus.New or ImportStatus.Same);
        if (apply && !clean)
            return Problem.Of(
                "importHasProblems",
                "file",
                ("count", verdicts.Count(v => v.Status is ImportStatus.Problem or ImportStatus.Unlikely))
            );
        if (apply)
        {
            db.Readings.AddRange(rows);
            db.ReadingVoids.AddRange(voids);
            db.Signals.AddRange(rows.SelectMany(r => ReadingPains.Of(r, known[r.Measure], clock.Now)));
            if (await db.SaveFact(Appended.Stored, ct) == Appended.Clash)
                return Problem.Of("changedMeanwhile", "file");
        }
        return new ImportReport(
            Count(ImportStatus.New),
            Count(ImportStatus.Same),
            Count(ImportStatus.Unlikely),
            Count(ImportStatus.Problem),
            apply,
            [.. verdicts.OrderBy(v => v.Line)]
        );

        int Count(ImportStatus status) => verdicts.Count(v => v.Status == status);

        ImportVerdict Say(CsvLine line, ReadingRow row, ImportStatus status, Problem? problem) =>
            new(
                line.Number,
                status,
                students.First(s => s.Id == row.StudentId).Name,
                row.Measure,
                row.Side,
                status == ImportStatus.Problem ? null
                    : row.Trials.Count > 0 ? InputOf(row).Value(known[row.Measure], new(0, 0, 0, 0), 0).Value
                    : null,
                row.TakenAt,
                problem
            );

        (CsvLine Line, ReadingRow? Row, Problem? Problem) Parse(CsvLine line)
        {
            var cells = new CellReader(line, clock);
            var student = Whose(line, studentId, students, cells);
            var key = line["measure"];
            if (!known.TryGetValue(key, out var measure))
                cells.Fail("unknownMeasure", "measure");
            var email = ReadingCsv.Plain(line["taken_by"]);
            cells.Check("note", ReadingInput.LongestNote);
            cells.Check("void_reason", LongestReason);
            var row = new ReadingRow
            {
                Id = cells.Id(),
                StudentId = student,
                Measure = key,
                Side = cells.Optional<Side>("side"),
                Mode = measure?.Mode ?? default,
                Level = Or(line["level"]),
                Warmth = cells.Needed<Warmth>("warmth"),
                Standard = Or(line["standard"]),
                Instrument = cells.Optional<Instrument>("instrument") ?? measure?.Instruments[0] ?? default,
                Trials = cells.Trials(),
                Successes = cells.Whole("successes"),
                Attempts = cells.Whole("attempts"),
                Compensations =
                [
                    .. line["compensations"].Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries),
                ],
                Quality = cells.Whole("quality"),
                Sensation = cells.Whole("sensation"),
                Pain = cells.Whole("pain"),
                Note = Or(ReadingCsv.Plain(line["note"])),
                TakenAt = cells.TakenAt(),
                TakenBy = users.FirstOrDefault(u => string.Equals(u.Email, email, StringComparison.OrdinalIgnoreCase))?.Id ?? scope.UserId,
            };
            if (cells.Problem is null && measure is not null)
                cells.Add(InputOf(row).Check(measure));
            if (cells.Problem is not null)
                return (line, null, cells.Problem);
            row.Disqualified = measure!.IsDisqualified(row.Compensations, row.Standard);
            if (row.Instrument == Instrument.BlockStack && measure.Kind != MeasureKind.Step)
                row.Resolution = BlockFaces.ToCm([], blocks).Value.ResolutionCm;
            if (row.Id == Guid.Empty)
                row.Id = new(SHA256.HashData(Encoding.UTF8.GetBytes($"{scope.StudioId}\n{ReadingCsv.Canonical(row)}")).AsSpan(0, 16));
            return (line, row, null);
        }
    }

    private static ReadingInput InputOf(ReadingRow r) =>
        new(
            r.Side,
            r.Level,
            r.Standard,
            r.Instrument,
            r.Trials,
            r.Successes,
            r.Attempts,
            null,
            r.Compensations,
            r.Quality,
            r.Sensation,
            r.Pain,
            r.Note
        );

    private static void Freeze(ReadingRow row, Noise noise, Estimate estimate, bool confirmed)
    {
        (row.Sem, row.SemDof, row.Tau, row.TauPairs) = (noise.Sem, noise.SemDof, noise.Tau, noise.TauPairs);
        (row.Value, row.StandardError, row.Confirmed) = (estimate.Value, estimate.StandardError, confirmed);
        row.BodyHash = Facts.Hash(ReadingCsv.Canonical(row));
    }

    private static Guid Whose(CsvLine line, Guid? only, IReadOnlyList<Person> students, CellReader cells)
    {
        var (idText, name) = (line["student_id"], ReadingCsv.Plain(line["student"]));
        if (only is { } one && idText.Length == 0 && name.Length == 0)
            return one;
        var found =
            Guid.TryParse(idText, CultureInfo.InvariantCulture, out var id) && students.Any(s => s.Id == id)
                ? [id]
                : students.Where(s => string.Equals(s.Name, name, StringComparison.OrdinalIgnoreCase)).Select(s => s.Id).ToList();
        if (found.Count != 1)
            cells.Fail(found.Count == 0 ? "unknownStudent" : "ambiguousStudent", "student");
        else if (only is not null && found[0] != only)
            cells.Fail("otherStudent", "student");
        return found.FirstOrDefault();
    }

    private async Task<Dictionary<Guid, ReadingRow>> Stored(IReadOnlyList<Guid> ids, CancellationToken ct)
    {
        var found = new Dictionary<Guid, ReadingRow>();
        foreach (var some in ids.Distinct().Chunk(500))
        foreach (var row in await db.Readings.AsNoTracking().Where(r => some.Contains(r.Id)).ToListAsync(ct))
            found[row.Id] = row;
        return found;
    }

    private static string? Or(string text) => text.Length == 0 ? null : text;
}
