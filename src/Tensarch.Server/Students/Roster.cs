using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Students;

/// <summary>Students by name, each with where they stand.</summary>
public sealed class Roster(CatalogueContent catalogue, StudioClock clock)
{
    private const int PageSize = 40;

    /// <summary>Days that a roster line looks back on.</summary>
    private const int Lately = 14;

    private readonly Gate gate = new(catalogue);

    /// <summary>A page of the roster: one query while nothing on it is due.</summary>
    internal static async Task<Ok<RosterResponse>> Page(
        TensarchDb db,
        BoardDesk desk,
        StudioClock clock,
        CancellationToken ct,
        string? after = null,
        string? find = null,
        bool archived = false
    )
    {
        var query = db.Students.AsNoTracking().Where(s => (s.ArchivedAt != null) == archived);
        if (!string.IsNullOrWhiteSpace(find))
            query = query.Where(s => EF.Functions.Like(s.Name, "%" + find.Trim() + "%"));
        if (after is not null)
        {
            var cut = after.LastIndexOf('|');
            var (name, id) = (after[..Math.Max(0, cut)], Guid.TryParse(after[(cut + 1)..], out var g) ? g : Guid.Empty);
            query = query.Where(s => s.Name.CompareTo(name) > 0 || (s.Name == name && s.Id > id));
        }
        var rows = await (
            from student in query
            join kept in db.Roster on student.Id equals kept.StudentId
            orderby student.Name, student.Id
            select new
            {
                student.Id,
                student.Name,
                kept.LineJson,
                kept.DueAt,
            }
        )
            .Take(PageSize + 1)
            .ToListAsync(ct);
        var page = rows.Take(PageSize).ToList();
        var due = page.Where(r => r.DueAt <= clock.Now).Select(r => r.Id).ToList();
        var fresh = due.Count > 0 ? await desk.Derive(due, ct) : new Dictionary<Guid, RosterLine>();
        var lines = page.Select(r =>
            (fresh.GetValueOrDefault(r.Id) ?? StoredJson.TryRead<RosterLine>(r.LineJson) ?? Unreadable(r.Id, r.Name)) with
            {
                Archived = archived,
            }
        );
        var last = rows.Count > PageSize ? page[^1] : null;
        return TypedResults.Ok(new RosterResponse([.. lines], last is null ? null : $"{last.Name}|{last.Id}"));
    }

    public RosterLine Line(Standing standing) =>
        new(
            standing.Student.Id,
            standing.Student.Name,
            standing.Student.About,
            standing.Student.BirthDate is { } born ? Age.Years(born, clock.Today) : null,
            standing.Student.ArchivedAt is not null,
            standing.Screened,
            standing.Screen.State,
            [.. standing.State.Courses.Select(s => SkillSummary.Of(s, gate, catalogue))],
            StudentEndpoints.Tags(standing.Bars),
            standing.State.Sessions.Count(s => clock.Today.DayNumber - s.Day.DayNumber < Lately),
            standing.State.Courses.Sum(s => Lately / 7 * catalogue.FindApproach(s.Enrolment.Approach)!.SessionsPerWeek),
            standing.State.LastSessionOn,
            standing.State.DaysSinceLast,
            Absences.After(standing.State.DaysSinceLast),
            standing.LeftOut
        );

    /// <summary>The line of someone of whom nothing can be worked out: it says so, and the others are shown.</summary>
    public static RosterLine Unreadable(Guid id, string name) =>
        new(id, name, null, null, false, false, ScreenState.NotScreened, [], [], 0, 0, null, null, Absence.None, Unreadable: true);
}
