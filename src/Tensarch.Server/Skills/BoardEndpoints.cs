using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Skills;

/// <summary>One page of a group.</summary>
public sealed record BoardPage(IReadOnlyList<BoardEntry> Lines, string? Next);

/// <param name="Line">None where it cannot be worked out: a stored value stands in its way.</param>
public sealed record BoardEntry(Guid Id, Guid StudentId, string Name, string Skill, Side? Side, BoardLine? Line);

/// <summary>How many gates lie where: by group, and by skill.</summary>
public sealed record BoardCount(string Skill, ReadinessGroup Group, int Gates);

/// <summary>The readiness board: every gate of the studio, what presses first.</summary>
public static class BoardEndpoints
{
    private const int PageSize = 40;

    public static void MapBoard(this IEndpointRouteBuilder api)
    {
        var board = api.MapGroup("/readiness").WithTags("Skills");
        board.MapGet("/", Page);
        board.MapGet("/counts", Counts);
    }

    private sealed record Row(
        Guid Id,
        Guid StudentId,
        string Name,
        string Skill,
        Side? Side,
        ReadinessGroup Group,
        double Rank,
        string LineJson,
        DateTimeOffset DueAt
    );

    /// <summary>
    /// One page of one group. Lines that are due come along in the same query; they are derived, and the page is asked for again. Without any
    /// it is one query.
    /// </summary>
    private static async Task<Results<Ok<BoardPage>, ProblemHttpResult>> Page(
        TensarchDb db,
        BoardDesk desk,
        StudioClock clock,
        CancellationToken ct,
        string group = "ready",
        string? skill = null,
        string? after = null
    )
    {
        if (!Enum.TryParse<ReadinessGroup>(group, ignoreCase: true, out var wanted))
            return Problems.Unprocessable([Problem.Of("unknownWord", "group")]);
        var rows = await Read(db, wanted, skill, after, clock.Now, ct);
        if (rows.Any(r => r.DueAt <= clock.Now))
        {
            await desk.DeriveDue(ct);
            rows = await Read(db, wanted, skill, after, clock.Now, ct);
        }
        // What is still due, since someone logged in this very moment, is left for the next look.
        var page = rows.Where(r => r.DueAt > clock.Now).ToList();
        var last = page.Count > PageSize ? page[PageSize - 1] : null;
        return TypedResults.Ok(
            new BoardPage(
                [
                    .. page.Take(PageSize)
                        .Select(r => new BoardEntry(r.Id, r.StudentId, r.Name, r.Skill, r.Side, StoredJson.TryRead<BoardLine>(r.LineJson))),
                ],
                last is null ? null : string.Create(CultureInfo.InvariantCulture, $"{last.Rank:R}_{last.Id:N}")
            )
        );
    }

    private static async Task<List<Row>> Read(
        TensarchDb db,
        ReadinessGroup group,
        string? skill,
        string? after,
        DateTimeOffset now,
        CancellationToken ct
    )
    {
        var here = db.Board.Where(b => db.Students.Any(s => s.Id == b.StudentId && s.ArchivedAt == null));
        var lines = here.Where(b => b.Group == group && (skill == null || b.Skill == skill));
        if (Place(after) is var (rank, id))
            lines = lines.Where(b => b.Rank > rank || (b.Rank == rank && b.Id > id));
        var page = lines.OrderBy(b => b.Rank).ThenBy(b => b.Id).Take(PageSize + 1);
        var due = here.Where(b => b.DueAt <= now).OrderBy(b => b.DueAt).Take(1);
        var rows = await (
            from line in page.Concat(due).AsNoTracking()
            join student in db.Students on line.StudentId equals student.Id
            select new Row(line.Id, line.StudentId, student.Name, line.Skill, line.Side, line.Group, line.Rank, line.LineJson, line.DueAt)
        ).ToListAsync(ct);
        // As SQLite orders ids: by their text.
        return [.. rows.OrderBy(r => r.Rank).ThenBy(r => r.Id.ToString("D").ToUpperInvariant(), StringComparer.Ordinal)];
    }

    private static (double Rank, Guid Id)? Place(string? after) =>
        after?.Split('_') is [var rank, var id]
        && double.TryParse(rank, NumberStyles.Float, CultureInfo.InvariantCulture, out var r)
        && double.IsFinite(r)
        && Guid.TryParse(id, out var g)
            ? (r, g)
            : null;

    private static async Task<Ok<List<BoardCount>>> Counts(TensarchDb db, BoardDesk desk, StudioClock clock, CancellationToken ct)
    {
        var now = clock.Now;
        var counts = await Read();
        if (counts.Any(c => c.Due))
        {
            await desk.DeriveDue(ct);
            counts = await Read();
        }
        return TypedResults.Ok(
            counts.GroupBy(c => (c.Skill, c.Group)).Select(g => new BoardCount(g.Key.Skill, g.Key.Group, g.Sum(c => c.Gates))).ToList()
        );

        Task<List<Counted>> Read() =>
            (
                from line in db.Board
                join student in db.Students on line.StudentId equals student.Id
                where student.ArchivedAt == null
                group line by new
                {
                    line.Skill,
                    line.Group,
                    Due = line.DueAt <= now,
                } into same
                select new Counted(same.Key.Skill, same.Key.Group, same.Key.Due, same.Count())
            ).ToListAsync(ct);
    }

    private sealed record Counted(string Skill, ReadinessGroup Group, bool Due, int Gates);
}
