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
using Tensarch.Server.Measuring;
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
        students.MapPost("/{studentId}/consents", BeforeStart.Consent);
        students.MapPost("/{studentId}/check-ins", BeforeStart.CheckIn);
        students.MapPost("/{studentId}/clearances", Clear);
        students.MapPost("/{studentId}/clearances/{clearanceId}/withdrawal", Withdraw);
        students.MapPost("/{studentId}/reviews", Review);
        students.MapGet("/{studentId}/facts", FactLines.Page);
        students.MapPost("/{studentId}/corrections", Correct);
        api.MapPost("/compute/bars", WouldBar).WithTags("Students").WithMetadata(new ReadsOnly());
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
            .Sessions.Where(s => s.StudentId == studentId && s.DeletedAt == null && (s.Training == null || s.Training.EndedAt == null))
            // Today's, else the next one to come, else what was left over.
            .OrderBy(s => s.Date < clock.Today)
            .ThenBy(s => s.Date < clock.Today ? null : (DateOnly?)s.Date)
            .ThenByDescending(s => s.CreatedAt)
            .Select(s => new NextSessionLine(s.Id, s.Planned.Skill, s.Planned.Beside, s.Date, s.Planned.TotalSeconds))
            .FirstOrDefaultAsync(ct);
        var gate = new Gate(catalogue);
        response.Headers.ETag = $"\"{standing.Student.Version}\"";
        return TypedResults.Ok(
            new StudentPage(
                View(standing.Student, clock),
                standing.Screened,
                standing.Screen,
                await BeforeStart.Consents(standing, db, clock, ct),
                BeforeStart.Today(standing.State),
                [
                    .. standing.State.Bars.Answers.Select(a => new AnswerView(
                        a.Question,
                        standing.State.Bars.IsYes(a, clock.Today),
                        a.At,
                        a.Signs
                    )),
                ],
                View(standing.Bars),
                [
                    .. standing.State.Bars.Reviews.Select(h => new ReviewBarView(
                        h.Tag,
                        h.Since,
                        h.NeedsClinician,
                        h.PainFreeSessions,
                        ReviewBar.PainFreeSessionsNeeded,
                        h.MayBeReviewed,
                        h.Signal,
                        h.Injury
                    )),
                ],
                [
                    .. standing
                        .State.Facts.Clearances.OrderByDescending(c => c.Until)
                        .Select(c => new ClearanceView(
                            c.Id,
                            c.Role,
                            c.Tags,
                            c.From,
                            c.Until,
                            c.StandsOn(clock.Today),
                            c.LapsesOn,
                            c.WithdrawnOn is not null
                        )),
                ],
                [.. standing.State.Courses.Select(s => SkillSummary.Of(s, gate, catalogue))],
                next,
                standing.State.LastSessionOn,
                standing.State.DaysSinceLast,
                Absences.After(standing.State.DaysSinceLast),
                standing.LeftOut,
                await ReadingPains.OfVoided(studentId, db, catalogue, ct),
                await Notes.Shown(studentId, db, ct)
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

    /// <summary>What these answers would bar, as if the screen had been gone through.</summary>
    private static Ok<BarsView> WouldBar(BarsRequest request, CatalogueContent catalogue, StudioClock clock)
    {
        var facts = StudentFacts.Of(
            new(request.BirthDate <= clock.Today ? request.BirthDate : null, false, request.SensationCeiling ?? 10, new(), "", 0, [])
        ) with
        {
            Answers =
            [
                .. catalogue.Questions.Select(q => new IntakeAnswer(
                    q.Key,
                    request.Yes.Contains(q.Key),
                    clock.Now,
                    0,
                    q.Signs is null ? null : request.Signs
                )),
            ],
            Screenings = [new(ScreeningKind.Whole, clock.Today, clock.Now, null)],
            Consents = request.GuardianConsent ? [new(ConsentKind.Guardian, true, clock.Today, clock.Now)] : [],
        };
        return TypedResults.Ok(View(StudentState.From(facts, clock.Moment, catalogue).Today));
    }

    internal static IResult Respond(Result<Appended> result, Guid studentId, Guid id) =>
        result.IsOk
            ? Problems.Respond(result.Value, $"/api/v1/students/{studentId}", new { Id = id })
            : Problems.Unprocessable(result.Problems);

    private static async Task<IResult> Clear(
        Guid studentId,
        ClearanceRequest request,
        StudentDesk desk,
        Standings standings,
        CancellationToken ct
    )
    {
        var bars = (await standings.Of(studentId, ct))!.State.Today;
        return Respond(
            await desk.Clear(studentId, request, bars.Reasons.Any(r => r.LiftedBy == LiftedBy.AnyClearance), ct),
            studentId,
            request.Id
        );
    }

    private static async Task<IResult> Correct(Guid studentId, CorrectionRequest request, CorrectionDesk desk, CancellationToken ct) =>
        Respond(await desk.Correct(studentId, request, ct), studentId, request.Id);

    private static async Task<IResult> Review(
        Guid studentId,
        ReviewRequest request,
        StudentDesk desk,
        Standings standings,
        CancellationToken ct
    )
    {
        var bars = (await standings.Of(studentId, ct))!.State.Bars.Reviews;
        return Respond(await desk.Review(studentId, request, bars, ct), studentId, request.Id);
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
                r.HipWidthCm,
                StoredJson.TryRead<List<string>>(r.GoalsJson) ?? [],
                r.Equipment,
                StoredJson.TryRead<List<AvailableDay>>(r.DaysJson) ?? [],
                StoredJson.TryRead<List<BodyWord>>(r.BodyWordsJson) ?? []
            ),
            r.BirthDate is { } born ? Age.Years(born, clock.Today) : null,
            r.ArchivedAt is not null
        );

    public static BarsView View(DayBars bars) =>
        new(Tags(bars), [.. bars.Reasons.Where(r => !r.Standing)], bars.SensationCeiling, bars.RampTopPercent);

    internal static List<BarredTag> Tags(DayBars bars) =>
        [
            .. LoadTags
                .All.Where(t => bars[t] != BarLevel.Free)
                .Select(t => new BarredTag(t, bars[t], [.. bars.Reasons.Where(r => r.Tag == t)])),
        ];
}

public sealed record ArchiveRequest(bool Archived);
