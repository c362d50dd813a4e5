using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Server.Accounts;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Planning;
using Tensarch.Server.Programmes;
using Tensarch.Server.Skills;
using Tensarch.Server.Students;

namespace Tensarch.Server.Sessions;

public static class SessionEndpoints
{
    private const int PageSize = 30;
    private const int DaysAhead = 14;
    private const int MostEvents = 5000;
    private const int MostPacks = 500;

    public static void MapSessions(this IEndpointRouteBuilder api)
    {
        var own = api.MapGroup("/students/{studentId}/sessions").WithTags("Planning");
        own.MapGet("/", List);
        own.MapPost("/", Plan).Produces<SessionLine>(201).Produces<SessionLine>();
        api.MapGet("/sessions/packs", Packs).WithTags("Sessions");
        // A device of before asked for the packs of today in one piece: it runs without them.
        api.MapGet("/sessions/today", () => Problems.Of(410, "doorClosed")).ExcludeFromDescription();
        var sessions = api.MapGroup("/sessions/{sessionId}").WithTags("Sessions");
        sessions.MapGet("/", Sheet);
        sessions.MapGet("/pack", Pack);
        sessions.MapPost("/facts", Closed).ExcludeFromDescription();
        sessions.MapGet("/events", Events);
        sessions.MapPost("/changes", Change);
        sessions.MapPost("/log", LogByHand);
        sessions.MapPost("/edits", Keep);
        sessions.MapPost("/edits/try", TryEdit);
        sessions.MapPost("/edits/options", EditOptions);
        api.MapPost("/facts", Tell).WithTags("Sessions");
    }

    /// <summary>The newest ones, and of what is planned the next two weeks.</summary>
    private static async Task<Ok<List<SessionLine>>> List(Guid studentId, TensarchDb db, StudioClock clock, CancellationToken ct) =>
        TypedResults.Ok(
            await db
                .Sessions.Where(s => s.StudentId == studentId && s.DeletedAt == null && s.Date <= clock.Today.AddDays(DaysAhead))
                .OrderByDescending(s => s.Date)
                .ThenByDescending(s => s.CreatedAt)
                .Take(PageSize)
                .Select(s => new SessionLine(
                    s.Id,
                    s.Planned.Skill,
                    s.Date,
                    s.Planned.TotalSeconds,
                    s.Training!.StartedAt,
                    s.Training.EndedAt,
                    s.Training != null && s.Training.Worked.Any(),
                    s.Planned.Beside,
                    s.Version
                ))
                .ToListAsync(ct)
        );

    /// <summary>What is to be run today or tomorrow, or is under way, for a device to keep: of each the key under which its pack stands now.</summary>
    private static async Task<Ok<List<PackHead>>> Packs(TensarchDb db, PackDesk desk, StudioClock clock, CancellationToken ct)
    {
        var house = await desk.House(ct);
        var (today, tomorrow) = (clock.Today, clock.Today.AddDays(1));
        var rows = await db
            .Sessions.Where(s => s.Date == today || s.Date == tomorrow)
            .Where(s => s.DeletedAt == null && (s.Training == null || s.Training.EndedAt == null))
            .Where(s => db.Students.Any(p => p.Id == s.StudentId && p.ArchivedAt == null))
            .OrderBy(s => s.Date)
            .ThenBy(s => s.CreatedAt)
            .Take(MostPacks)
            .Select(s => new
            {
                s.Id,
                s.Date,
                s.Version,
                Beat = db.Pulses.Where(p => p.StudentId == s.StudentId).Select(p => p.Beat).FirstOrDefault(),
            })
            .ToListAsync(ct);
        return TypedResults.Ok(rows.ConvertAll(r => new PackHead(r.Id, r.Date > today, PackDesk.Key(house, r.Version, r.Beat, today))));
    }

    private static async Task<IResult> Plan(
        Guid studentId,
        PlanRequest request,
        PlanDesk desk,
        WeekJudge weeks,
        ProgrammeDesk programmes,
        Standings standings,
        StudioClock clock,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        var current = await programmes.Current(studentId, ct);
        var around = await weeks.Around(standing, request.Date ?? clock.Today, request.Id, current, ct);
        var planned = await desk.Plan(standing, request, around, ct);
        if (!planned.IsOk)
            return Problems.Unprocessable(planned.Problems);
        var row = planned.Value.Row;
        return Problems.Respond(planned.Value.Appended, $"/api/v1/sessions/{request.Id}", SessionLine.Of(row));
    }

    private static async Task<Results<Ok<SessionLine>, ProblemHttpResult>> Change(
        Guid sessionId,
        SessionChange change,
        SessionChanges changes,
        CancellationToken ct
    )
    {
        var made = await changes.Make(sessionId, change, ct);
        return made.IsOk ? TypedResults.Ok(made.Value) : await Refused(sessionId, made.Problems, changes, ct);
    }

    /// <summary>A lesson that was held without the runner.</summary>
    private static async Task<Results<Ok<SessionLine>, ProblemHttpResult>> LogByHand(
        Guid sessionId,
        LogRequest request,
        LogDesk desk,
        CancellationToken ct
    )
    {
        var logged = await desk.Log(sessionId, request, ct);
        return logged.IsOk ? TypedResults.Ok(SessionLine.Of(logged.Value)) : Problems.Unprocessable(logged.Problems);
    }

    /// <summary>The session as changes by hand would make it, with the checker's word on it; nothing is kept.</summary>
    private static async Task<Results<Ok<EditView>, ProblemHttpResult>> TryEdit(
        Guid sessionId,
        EditRequest request,
        EditDesk desk,
        CancellationToken ct
    )
    {
        var view = await desk.Try(sessionId, request, ct);
        return view.IsOk ? TypedResults.Ok(view.Value) : Problems.Unprocessable(view.Problems);
    }

    /// <summary>What could be put in, or in the place of a drill.</summary>
    private static async Task<Results<Ok<IReadOnlyList<DrillOption>>, ProblemHttpResult>> EditOptions(
        Guid sessionId,
        OptionsRequest request,
        EditDesk desk,
        CancellationToken ct
    )
    {
        var options = await desk.Options(sessionId, request, ct);
        return options.IsOk ? TypedResults.Ok(options.Value) : Problems.Unprocessable(options.Problems);
    }

    /// <summary>Keeps a session as it was changed by hand; what the checker refuses is not kept.</summary>
    private static async Task<Results<Ok<SessionLine>, ProblemHttpResult>> Keep(
        Guid sessionId,
        EditKeep request,
        SessionChanges changes,
        CancellationToken ct
    )
    {
        var kept = await changes.Keep(sessionId, request, ct);
        return kept.IsOk ? TypedResults.Ok(kept.Value) : await Refused(sessionId, kept.Problems, changes, ct);
    }

    /// <summary>Of a session that is another than the one that was seen, the answer says how it stands now.</summary>
    private static async Task<ProblemHttpResult> Refused(
        Guid sessionId,
        IReadOnlyList<Problem> problems,
        SessionChanges changes,
        CancellationToken ct
    )
    {
        if (problems[0].Code == "clash")
            return Problems.IdTaken();
        if (problems[0].Code != "changedMeanwhile")
            return Problems.Unprocessable(problems);
        var refused = Problems.Of(412, "changedMeanwhile", [.. problems]);
        refused.ProblemDetails.Extensions["now"] = await changes.Now(sessionId, ct);
        return refused;
    }

    private static async Task<Results<Ok<SessionSheet>, ProblemHttpResult>> Sheet(
        Guid sessionId,
        TensarchDb db,
        PlanDesk desk,
        Standings standings,
        CatalogueContent catalogue,
        StudioDesk settings,
        CancellationToken ct
    )
    {
        var studio = await settings.Read(ct);
        var row = await db.WholeSessions.AsNoTracking().SingleAsync(s => s.Id == sessionId, ct);
        var standing = (await standings.Of(row.StudentId, ct))!;
        if (desk.Read(row) is not { } plan)
            return Problems.Of(409, "planUnreadable");
        var ladders = await desk.LaddersOf(plan, ct);
        var today = desk.Today(row, plan, standing);
        var said = row.IsTrained ? await DoneLines.Said(row, standing.State, db, ct) : [];
        var carried = row.Training?.EndedAt is null ? await Notes.CarriedOver(row.StudentId, db, ct) : null;
        return TypedResults.Ok(
            new SessionSheet(
                row.Id,
                row.Planned.Skill,
                row.Planned.Beside,
                row.StudentId,
                standing.Student.Name,
                row.Planned.TotalSeconds,
                row.Training?.StartedAt,
                row.Training?.EndedAt,
                plan,
                SheetPart.Of(plan, ladders, catalogue),
                !row.IsTrained ? [] : await DoneLines.Of(row, plan, said, standing.State, db, catalogue, ct),
                [.. said.Select(s => new SaidSignal(s.Id, s.At, s.Kind, s.Region, s.Place, s.Side, s.Pain, s.Drill))],
                await db.Sets.CountAsync(
                    s =>
                        s.SessionId == sessionId
                        && s.Doubled
                        && !db.Corrections.Any(c =>
                            c.StudentId == s.StudentId
                            && c.Of == s.Id
                            && c.Reason != CorrectionRow.Confirmed
                            && c.Reason != CorrectionRow.Quality
                        ),
                    ct
                ),
                row.DeletedAt is not null,
                row.Training?.EndedAt is null ? today.Barred : [],
                row.Training is null or { StartedAt: null, EndedAt: null } ? today.Outdated : [],
                standing.Bars.SensationCeiling,
                carried is null ? null : new(carried.Id, carried.Text),
                PackingLine.Of(
                    plan,
                    catalogue,
                    standing.Student.BlocksOwned,
                    standing.Student.Equipment,
                    StandIn.With(StudioDesk.StandInsOf(studio))
                ),
                OpeningHours.IsClosed(StudioDesk.OpeningOf(studio), row.Date),
                EditDesk.VersionOf(row),
                row.Before is not null && !row.IsTrained
            )
        );
    }

    /// <param name="keep">For a device to keep: of a session of tomorrow, as it can be run then; no content where it cannot be run.</param>
    private static async Task<Results<Ok<PackResponse>, NoContent, ProblemHttpResult>> Pack(
        Guid sessionId,
        TensarchDb db,
        PackDesk desk,
        Standings standings,
        CancellationToken ct,
        bool keep = false
    )
    {
        var row = await db.WholeSessions.AsNoTracking().SingleAsync(s => s.Id == sessionId, ct);
        // Before what it is made of: what is written meanwhile makes another key.
        var key = await desk.Key(row, ct);
        var pack = await desk.Pack(row, (await standings.Of(row.StudentId, ct))!, key, keep, ct);
        return pack.IsOk ? TypedResults.Ok(pack.Value)
            : keep ? TypedResults.NoContent()
            : Problems.Of(409, pack.Problems[0].Code, [.. pack.Problems.Where(p => p.Field.Length > 0)]);
    }

    /// <summary>What the floor tells of any session: one answer to each entry, and none blocks the others.</summary>
    private static async Task<Results<Ok<TellResponse>, ProblemHttpResult>> Tell(
        TellRequest request,
        FloorDesk desk,
        StudioScope scope,
        CancellationToken ct
    ) =>
        request.Author is { } author && author != scope.UserId ? Problems.Of(409, "otherAuthor")
        : request.Entries.Sum(e => e.Facts.Count) > TellRequest.MostFacts
            ? Problems.Unprocessable([Problem.Of("tooMany", "entries", ("most", TellRequest.MostFacts))])
        : TypedResults.Ok(await desk.Tell(request, ct));

    /// <summary>
    /// What was said in a session, in the order in which it was: another device goes on from there. What was said without having heard the rest is
    /// no part of it.
    /// </summary>
    private static async Task<Ok<List<FloorEvent>>> Events(Guid sessionId, TensarchDb db, CancellationToken ct) =>
        TypedResults.Ok(
            await db
                .Events.Where(e => e.SessionId == sessionId && !e.Doubled)
                .OrderBy(e => e.Seq)
                .ThenBy(e => e.At)
                .Take(MostEvents)
                .Select(e => new FloorEvent(e.Id, e.SessionId, e.Seq, e.At, e.SaidJson))
                .ToListAsync(ct)
        );

    /// <summary>Rounds without what was said of them: a runner of before told them here. What it still keeps, its next start tells as entries.</summary>
    private static ProblemHttpResult Closed(Guid sessionId) => Problems.Of(410, "doorClosed");
}
