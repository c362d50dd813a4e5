using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Students;

/// <param name="CarryOver">Shown at the start of the next session; an earlier one that is still open is ticked off by it.</param>
public sealed record NoteRequest(Guid Id, [Required, StringLength(2000)] string Text, bool Pinned = false, bool CarryOver = false);

/// <param name="Done">Of one that is carried over: ticked off.</param>
/// <param name="Text">Said anew; what was said first stays readable.</param>
/// <param name="Gone">Struck out, or standing again.</param>
public sealed record NoteChange(bool? Pinned = null, bool? Done = null, [StringLength(2000)] string? Text = null, bool? Gone = null);

/// <param name="Said">What was written first, where it was said anew since.</param>
public sealed record NoteView(
    Guid Id,
    string Text,
    string? Said,
    bool Pinned,
    bool CarryOver,
    DateTimeOffset? DoneAt,
    bool Gone,
    DateTimeOffset At,
    string By
);

/// <summary>Newest first, pinned ones before all; with the cursor of the page after it.</summary>
public sealed record NotePage(IReadOnlyList<NoteView> Notes, string? Before);

/// <summary>A coach's own words about a student: dated, searched, pinned, carried over to the next session.</summary>
public static class Notes
{
    private const int PageSize = 40;
    private const int MostPinned = 12;

    public static void MapNotes(this IEndpointRouteBuilder api)
    {
        var notes = api.MapGroup("/students/{studentId}/notes").WithTags("Students");
        notes.MapGet("/", List);
        notes.MapPost("/", Write).Produces(201).Produces(200);
        notes.MapPost("/{noteId}/changes", Change);
    }

    private static async Task<Ok<NotePage>> List(
        Guid studentId,
        TensarchDb db,
        CancellationToken ct,
        [StringLength(100)] string? find = null,
        string? before = null
    )
    {
        var last = Cursor.Parse(before) ?? new(DateTimeOffset.MaxValue, Guid.Empty);
        var all = db.Notes.AsNoTracking().Where(n => n.StudentId == studentId);
        if (!string.IsNullOrWhiteSpace(find))
        {
            var like = $"%{find.Trim().Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_")}%";
            all = all.Where(n => EF.Functions.Like(n.Text, like, "\\"));
        }
        var pinned = before is null
            ? await all.Where(n => n.Pinned && !n.Gone).OrderByDescending(n => n.At).Take(MostPinned).ToListAsync(ct)
            : [];
        var found = await all.Where(n => !n.Pinned || n.Gone)
            .Where(n => n.At < last.At || n.At == last.At && n.Id.CompareTo(last.Id) < 0)
            .OrderByDescending(n => n.At)
            .ThenByDescending(n => n.Id)
            .Take(PageSize + 1)
            .ToListAsync(ct);
        var page = found.Take(PageSize).ToList();
        return TypedResults.Ok(
            new NotePage(
                await Views([.. pinned, .. page], db, ct),
                found.Count > PageSize ? new Cursor(page[^1].At, page[^1].Id).ToString() : null
            )
        );
    }

    /// <summary>What the student's page shows: pinned ones, and the one that is carried over.</summary>
    public static async Task<IReadOnlyList<NoteView>> Shown(Guid studentId, TensarchDb db, CancellationToken ct) =>
        await Views(
            await db
                .Notes.AsNoTracking()
                .Where(n => n.StudentId == studentId && !n.Gone && (n.Pinned || n.CarryOver && n.DoneAt == null))
                .OrderByDescending(n => n.CarryOver && n.DoneAt == null)
                .ThenByDescending(n => n.At)
                .Take(MostPinned)
                .ToListAsync(ct),
            db,
            ct
        );

    /// <summary>The note that is shown at the start of the next session.</summary>
    public static Task<NoteRow?> CarriedOver(Guid studentId, TensarchDb db, CancellationToken ct) =>
        db
            .Notes.AsNoTracking()
            .Where(n => n.StudentId == studentId && n.CarryOver && n.DoneAt == null && !n.Gone)
            .OrderByDescending(n => n.At)
            .FirstOrDefaultAsync(ct);

    private static async Task<IResult> Write(Guid studentId, NoteRequest request, NoteDesk desk, CancellationToken ct) =>
        string.IsNullOrWhiteSpace(request.Text)
            ? Problems.Unprocessable([Problem.Of("required", "text")])
            : Problems.Respond(await desk.Write(studentId, request, ct), $"/api/v1/students/{studentId}/notes", new { request.Id });

    private static async Task<Results<Ok<NoteView>, ProblemHttpResult>> Change(
        Guid studentId,
        Guid noteId,
        NoteChange change,
        NoteDesk desk,
        TensarchDb db,
        CancellationToken ct
    )
    {
        var changed = await desk.Change(noteId, change, ct);
        return changed.IsOk ? TypedResults.Ok((await Views([changed.Value], db, ct))[0]) : Problems.Unprocessable(changed.Problems);
    }

    private static async Task<List<NoteView>> Views(List<NoteRow> rows, TensarchDb db, CancellationToken ct)
    {
        if (rows.Count == 0)
            return [];
        var authors = rows.Select(r => r.By).Distinct().ToList();
        var names = await db.Users.AsNoTracking().Where(u => authors.Contains(u.Id)).ToDictionaryAsync(u => u.Id, u => u.DisplayName, ct);
        return
        [
            .. rows.Select(r => new NoteView(
                r.Id,
                r.Text,
                r.Said == r.Text ? null : r.Said,
                r.Pinned,
                r.CarryOver,
                r.DoneAt,
                r.Gone,
                r.At,
                names.GetValueOrDefault(r.By, "")
            )),
        ];
    }
}

/// <summary>Writes notes down, and what is said of them since.</summary>
public sealed class NoteDesk(TensarchDb db, StudioClock clock, StudioScope scope)
{
    public async Task<Appended> Write(Guid student, NoteRequest request, CancellationToken ct)
    {
        var text = request.Text.Trim();
        var row = new NoteRow
        {
            Id = request.Id,
            StudentId = student,
            Text = text,
            Said = text,
            Pinned = request.Pinned,
            CarryOver = request.CarryOver,
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.Notes.AddFact(row, new { student, request }, ct);
        // One note is carried over: the newer one takes the place of what was still open.
        if (appended == Appended.Stored && request.CarryOver)
            foreach (var open in await db.Notes.Where(n => n.StudentId == student && n.CarryOver && n.DoneAt == null).ToListAsync(ct))
                open.DoneAt = clock.Now;
        return await db.SaveFact(appended, ct);
    }

    public async Task<Result<NoteRow>> Change(Guid id, NoteChange change, CancellationToken ct)
    {
        var row = await db.Notes.SingleAsync(n => n.Id == id, ct);
        if (change.Text is { } text && string.IsNullOrWhiteSpace(text))
            return Problem.Of("required", "text");
        row.Text = change.Text?.Trim() ?? row.Text;
        row.Pinned = change.Pinned ?? row.Pinned;
        row.Gone = change.Gone ?? row.Gone;
        if (change.Done is { } done)
            row.DoneAt = done ? row.DoneAt ?? clock.Now : null;
        await db.SaveChangesAsync(ct);
        return row;
    }
}
