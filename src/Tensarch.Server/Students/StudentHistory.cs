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
