using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Students;

/// <summary>Who wrote down what about a student, and when: answers, screens, body data, clearances and reviews.</summary>
internal static class StudentHistory
{
    private const int MostLines = 300;

    private sealed record Fact(DateTimeOffset At, Guid By, IEnumerable<HistoryLine> Lines);

    public static async Task<Ok<List<HistoryLine>>> Read(Guid studentId, TensarchDb db, CancellationToken ct)
    {
        List<Fact> facts =
        [
            .. Answers(await db.Answers.AsNoTracking().Where(a => a.StudentId == studentId).OrderBy(a => a.Id).ToListAsync(ct)),
            .. Bodies(await db.Bodies.AsNoTracking().Where(b => b.StudentId == studentId).OrderBy(b => b.Id).ToListAsync(ct)),
            .. (await db.Screenings.AsNoTracking().Where(s => s.StudentId == studentId).ToListAsync(ct)).Select(s =>
                One(s.At, s.By, s.Kind == ScreeningKind.Whole ? "screened" : "somethingChanged", note: s.Note)
            ),
            .. (await db.Clearances.AsNoTracking().Where(c => c.StudentId == studentId).ToListAsync(ct)).Select(c =>
                One(c.At, c.By, "clearance", after: c.Until.ToString("O"), tags: c.Tags, note: c.Role)
            ),
            .. (await db.Withdrawals.AsNoTracking().Where(w => w.StudentId == studentId).ToListAsync(ct)).Select(w =>
                One(w.At, w.By, "withdrawal", note: w.Reason)
            ),
            .. (await db.Reviews.AsNoTracking().Where(r => r.StudentId == studentId).ToListAsync(ct)).Select(r =>
                One(r.At, r.By, "review", tags: [r.Tag], note: r.Note)
            ),
            .. (await db.Consents.AsNoTracking().Where(c => c.StudentId == studentId).ToListAsync(ct)).Select(c => new Fact(
                c.At,
                c.By,
                [new(c.At, "", "consent", Name(c.Kind), null, Word(c.Given), null, c.SaidBy)]
            )),
            .. (await db.CheckIns.AsNoTracking().Where(c => c.StudentId == studentId).ToListAsync(ct)).Select(c => new Fact(
                c.At,
                c.By,
                Said(c)
            )),
        ];
        var names = await db.Users.AsNoTracking().ToDictionaryAsync(u => u.Id, u => u.DisplayName, ct);
        return TypedResults.Ok(
            facts
                .OrderByDescending(f => f.At)
                .SelectMany(f => f.Lines.Select(l => l with { By = names.GetValueOrDefault(f.By, "") }))
                .Take(MostLines)
                .ToList()
        );
    }

    private static Fact One(
        DateTimeOffset at,
        Guid by,
        string kind,
        string? after = null,
        IReadOnlyList<Core.Students.LoadTag>? tags = null,
        string? note = null
    ) => new(at, by, [new(at, "", kind, null, null, after, tags, note)]);

    private static string Name<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.CamelCase.ConvertName(value.ToString());

    /// <summary>What was said before a session; that all was well, where it was.</summary>
    private static List<HistoryLine> Said(CheckInRow row)
    {
        HistoryLine Of(string? field, string? after = null, string? note = null) =>
            new(row.At, "", "checkIn", field, null, after, null, note);
        var lines = new List<HistoryLine>();
        if (row.Ill)
            lines.Add(Of("ill"));
        if (row.SleptBadly)
            lines.Add(Of("sleptBadly"));
        if (row.TrainedHard)
            lines.Add(Of("trainedHard"));
        foreach (var felt in StoredJson.TryRead<List<Felt>>(row.FeltJson) ?? [])
            if (BodyPlaces.Find(felt.Place) is { } place)
                lines.Add(
                    Of(
                        Name(felt.Kind),
                        felt.Kind == FeltKind.Injury ? null : felt.Level.ToString(System.Globalization.CultureInfo.InvariantCulture),
                        felt.Side is { } side ? $"{Name(side)} {place.Name}" : place.Name
                    )
                );
        return lines.Count > 0 ? lines : [Of(null)];
    }

    /// <summary>First answers that were no say nothing; a yes, and every change, does.</summary>
    private static IEnumerable<Fact> Answers(List<AnswerRow> rows)
    {
        var said = new Dictionary<string, bool>();
        foreach (var row in rows)
        {
            bool? before = said.TryGetValue(row.Question, out var b) ? b : null;
            said[row.Question] = row.Yes;
            if (before is not null || row.Yes)
                yield return new(row.At, row.By, [new(row.At, "", "answer", row.Question, Word(before), Word(row.Yes))]);
        }
    }

    private static string? Word(bool? yes) =>
        yes switch
        {
            true => "yes",
            false => "no",
            _ => null,
        };

    /// <summary>What differs from the time before, field by field.</summary>
    private static IEnumerable<Fact> Bodies(List<BodyRow> rows)
    {
        JsonObject? before = null;
        foreach (var row in rows)
        {
            if (StoredJson.TryRead<JsonObject>(row.BodyJson) is not { } now)
                continue;
            if (before is { } old)
                yield return new(
                    row.At,
                    row.By,
                    [
                        .. now.Where(field => !JsonNode.DeepEquals(field.Value, old[field.Key]))
                            .Select(field => new HistoryLine(row.At, "", "body", field.Key, Text(old[field.Key]), Text(field.Value))),
                    ]
                );
            else
                yield return new(row.At, row.By, [new(row.At, "", "body")]);
            before = now;
        }
    }

    private static string? Text(JsonNode? value) =>
        value switch
        {
            null => null,
            JsonValue v when v.GetValueKind() == JsonValueKind.String => v.GetValue<string>(),
            _ => value.ToJsonString(),
        };
}
