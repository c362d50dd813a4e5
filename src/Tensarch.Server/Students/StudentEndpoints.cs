using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Students;

public static class StudentEndpoints
{
    public static void MapStudents(this IEndpointRouteBuilder api)
    {
        var students = api.MapGroup("/students").WithTags("Students");
        students.MapGet("/", Roster.Page);
        students.MapPost("/", Create).Produces<StudentView>(201).Produces<StudentView>();
        students.MapGet("/{studentId}", Read);
        students.MapPut("/{studentId}", Change);
        students.MapPost("/{studentId}/archive", Archive);
        students.MapPost("/{studentId}/answers", Answer);
        students.MapPost("/{studentId}/changes", SomethingChanged);
        students.MapGet("/{studentId}/history", StudentHistory.Read);
        students.MapPost("/{studentId}/clearances", Clear);
        students.MapPost("/{studentId}/clearances/{clearanceId}/withdrawal", Withdraw);
        students.MapPost("/{studentId}/reviews", Review);
        api.MapPost("/compute/cautions", WouldHold).WithTags("Students").WithMetadata(new ReadsOnly());
    }

    private static async Task<IResult> Create(StudentCreate request, StudentDesk desk, StudioClock clock, CancellationToken ct)
    {
        var added = await desk.Add(request, ct);
        return added.IsOk
            ? Problems.Respond(added.Value.Appended, $"/api/v1/students/{request.Id}", View(added.Value.Row, clock))
            : Problems.Unprocessable(added.Problems);
    }

    private static async Task<Results<Ok<StudentPage>, ProblemHttpResult>> Read(
        Guid studentId,
        TensarchDb db,
        Standings standings,
        CatalogueContent catalogue,
        StudioClock clock,
        HttpResponse response,
        CancellationToken ct
    )
    {
        if (await standings.Of(studentId, ct) is not { } standing)
            return Problems.NotFound();
        var next = await db
            .Sessions.Where(s => s.StudentId == studentId && s.EndedAt == null)
            .OrderByDescending(s => s.CreatedAt)
            .Select(s => new NextSessionLine(s.Id, s.Skill))
            .FirstOrDefaultAsync(ct);
        var gate = new Gate(catalogue);
        response.Headers.ETag = $"\"{standing.Student.Version}\"";
        return TypedResults.Ok(
            new StudentPage(
                View(standing.Student, clock),
                standing.Screened,
                standing.Screen,
                [.. standing.Answers.Values.Select(a => new AnswerView(a.Question, a.Yes, a.At))],
                View(standing.Cautions),
                [
                    .. standing.Holds.Select(h => new HoldView(
                        h.Tag,
                        h.Since,
                        h.NeedsClinician,
                        h.PainFreeSessions,
                        ReviewHold.PainFreeSessionsNeeded,
                        h.MayBeReviewed,
                        h.Signal
                    )),
                ],
                [
                    .. standing
                        .Clearances.OrderByDescending(c => c.Row.Until)
                        .Select(c => new ClearanceView(
                            c.Row.Id,
                            c.Row.Role,
                            c.Row.Tags,
                            c.Row.From,
                            c.Row.Until,
                            c.Clearance.StandsOn(clock.Today),
                            c.Clearance.LapsesOn,
                            c.Clearance.WithdrawnOn is not null
                        )),
                ],
                [.. standing.Skills.Select(s => SkillSummary.Of(s, gate, catalogue))],
                next,
                standing.LastSessionOn,
                standing.DaysSinceLast,
                Absences.After(standing.DaysSinceLast),
                standing.LeftOut
            )
        );
    }

    private static async Task<Results<Ok<StudentView>, ProblemHttpResult>> Change(
        Guid studentId,
        StudentBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        TensarchDb db,
        StudentDesk desk,
        StudioClock clock,
        CancellationToken ct
    )
    {
        var row = await db.Students.SingleAsync(s => s.Id == studentId, ct);
        if (Stale(ifMatch, row, clock) is { } stale)
            return stale;
        var problems = desk.Check(body);
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        row.Version++;
        desk.Write(body, row);
        return await Save(row, db, clock, ct);
    }

    private static async Task<Results<Ok<StudentView>, ProblemHttpResult>> Archive(
        Guid studentId,
        ArchiveRequest request,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        TensarchDb db,
        StudioClock clock,
        CancellationToken ct
    )
    {
        var row = await db.Students.SingleAsync(s => s.Id == studentId, ct);
        if (Stale(ifMatch, row, clock) is { } stale)
            return stale;
        row.Version++;
        row.ArchivedAt = request.Archived ? clock.Now : null;
        return await Save(row, db, clock, ct);
    }

    /// <summary>The version the client saw must still be the stored one; else both are sent back.</summary>
    private static ProblemHttpResult? Stale(string? ifMatch, StudentRow row, StudioClock clock)
    {
        if (ifMatch is null)
            return Problems.Of(428, "versionNeeded");
        if (ifMatch.Trim('"') == row.Version.ToString(System.Globalization.CultureInfo.InvariantCulture))
            return null;
        var problem = Problems.Of(412, "changedMeanwhile");
        problem.ProblemDetails.Extensions["current"] = View(row, clock);
        return problem;
    }

    private static async Task<Results<Ok<StudentView>, ProblemHttpResult>> Save(
        StudentRow row,
        TensarchDb db,
        StudioClock clock,
        CancellationToken ct
    )
    {
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            return Problems.Of(412, "changedMeanwhile");
        }
        return TypedResults.Ok(View(row, clock));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Answer(
        Guid studentId,
        AnswersRequest request,
        StudentDesk desk,
        CancellationToken ct
    )
    {
        var problems = await desk.Answer(studentId, request, ct);
        return problems.Count > 0 ? Problems.Unprocessable(problems) : TypedResults.NoContent();
    }

    private static async Task<IResult> SomethingChanged(Guid studentId, ChangedRequest request, StudentDesk desk, CancellationToken ct) =>
        Respond(await desk.SomethingChanged(studentId, request, ct), studentId, request.Id);

    private static async Task<IResult> Withdraw(
        Guid studentId,
        Guid clearanceId,
        WithdrawalRequest request,
        StudentDesk desk,
        CancellationToken ct
    ) => Respond(await desk.Withdraw(studentId, clearanceId, request, ct), studentId, request.Id);

    /// <summary>What these answers would hold and limit, as if the screen had been gone through.</summary>
    private static Ok<CautionsView> WouldHold(CautionsRequest request, CatalogueContent catalogue, StudioClock clock)
    {
        var minor =
            request.BirthDate is { } born && born <= clock.Today && Age.Years(born, clock.Today) < Age.Adult
            || request.Yes.Contains(IntakeQuestion.Under18);
        return TypedResults.Ok(
            View(
                Cautions.Of(
                    catalogue.Questions,
                    new(
                        ScreenState.Current,
                        [.. request.Yes.Select(q => new YesAnswer(q, clock.Now))],
                        minor,
                        request.GuardianConsentOn is not null,
                        request.SensationCeiling ?? 10,
                        [],
                        [],
                        clock.Today
                    )
                )
            )
        );
    }

    private static IResult Respond(Result<Appended> result, Guid studentId, Guid id) =>
        result.IsOk
            ? Problems.Respond(result.Value, $"/api/v1/students/{studentId}", new { Id = id })
            : Problems.Unprocessable(result.Problems);

    private static async Task<IResult> Clear(Guid studentId, ClearanceRequest request, StudentDesk desk, CancellationToken ct) =>
        Respond(await desk.Clear(studentId, request, ct), studentId, request.Id);

    private static async Task<IResult> Review(
        Guid studentId,
        ReviewRequest request,
        StudentDesk desk,
        Standings standings,
        CancellationToken ct
    )
    {
        var holds = (await standings.Of(studentId, ct))!.Holds;
        return Respond(await desk.Review(studentId, request, holds, ct), studentId, request.Id);
    }

    public static StudentView View(StudentRow r, StudioClock clock) =>
        new(
            r.Id,
            r.Version,
            new(
                r.Name,
                r.About,
                r.BirthDate,
                r.LeftLegCm,
                r.RightLegCm,
                r.BodyweightKg,
                r.BreathSeconds,
                r.SensationCeiling,
                r.SplitStandard,
                r.BlocksOwned,
                r.SessionMinutes,
                r.GuardianConsentOn,
                r.HipWidthCm,
                r.ConsentOn,
                StoredJson.TryRead<List<string>>(r.GoalsJson) ?? [],
                r.Equipment,
                StoredJson.TryRead<List<AvailableDay>>(r.DaysJson) ?? []
            ),
            r.BirthDate is { } born ? Age.Years(born, clock.Today) : null,
            r.ArchivedAt is not null
        );

    public static CautionsView View(Cautions cautions) =>
        new(Tags(cautions), [.. cautions.Reasons.Where(r => !r.Standing)], cautions.SensationCeiling, cautions.RampTopPercent);

    internal static List<CautionTag> Tags(Cautions cautions) =>
        [
            .. LoadTags
                .All.Where(t => cautions[t] != CautionLevel.Free)
                .Select(t => new CautionTag(t, cautions[t], [.. cautions.Reasons.Where(r => r.Tag == t)])),
        ];
}

public sealed record ArchiveRequest(bool Archived);
