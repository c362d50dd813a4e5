using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Sessions;

namespace Tensarch.Server.Students;

/// <param name="Of">The fact.</param>
/// <param name="Instead">What is said instead; with nothing in it, the fact stands again. None when it counts for nothing.</param>
public sealed record CorrectionRequest(
    Guid Id,
    Corrected What,
    Guid Of,
    [StringLength(500, MinimumLength = 10)] string Reason,
    Instead? Instead = null
);

/// <summary>One fact as it was written down, as it stands, and who said what about it since.</summary>
/// <param name="Now">What is said instead; none when nothing was corrected.</param>
/// <param name="Gone">It counts for nothing.</param>
/// <param name="MayBeTakenBack">It may be struck out; of decisions, the newest of a course alone, and no placing.</param>
public sealed record FactLine(
    Guid Id,
    Corrected What,
    DateTimeOffset At,
    string By,
    string? Drill = null,
    string? Variant = null,
    Side? Side = null,
    double? Seconds = null,
    int? CleanReps = null,
    int? Quality = null,
    bool Confirmed = true,
    bool UnderBar = false,
    SignalKind? Signal = null,
    LoadTag? Region = null,
    int? Pain = null,
    string? Skill = null,
    int? Stage = null,
    IReadOnlyList<string>? Ticked = null,
    int? Safe = null,
    int? Times = null,
    DecisionKind? Decision = null,
    int? ToStage = null,
    Instead? Now = null,
    bool Gone = false,
    bool MayBeTakenBack = true,
    IReadOnlyList<CorrectionLine>? Corrections = null
);

/// <param name="Gone">It said that the fact counts for nothing.</param>
public sealed record CorrectionLine(DateTimeOffset At, string By, string Reason, bool Gone);

/// <summary>Facts about a student, newest first; with the moment of the last one, for the page after it.</summary>
public sealed record FactPage(IReadOnlyList<FactLine> Facts, DateTimeOffset? Before);

/// <summary>Corrects what was entered: with a reason, who and when. What was said first stays where it was.</summary>
public sealed class CorrectionDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    private const int PageSize = 40;

    public async Task<Result<Appended>> Correct(Guid student, CorrectionRequest request, CancellationToken ct)
    {
        var row = new CorrectionRow
        {
            Id = request.Id,
            StudentId = student,
            What = request.What,
            Of = request.Of,
            InsteadJson = request.Instead is null ? null : StoredJson.Write(request.Instead),
            Reason = request.Reason.Trim(),
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.Corrections.AddFact(row, new { student, request }, ct);
        if (appended != Appended.Stored)
            return appended;
        if (await Refuse(student, request, ct) is { } problem)
        {
            db.Entry(row).State = EntityState.Detached;
            return problem;
        }
        var saved = await db.SaveFact(appended, ct);
        if (saved == Appended.Stored && request.What == Corrected.Set)
            await Rework(request.Of, ct);
        return saved;
    }

    private async Task<Problem?> Refuse(Guid student, CorrectionRequest request, CancellationToken ct)
    {
        var (what, of, instead) = (request.What, request.Of, request.Instead);
        var there = what switch
        {
            Corrected.Set => await db.Sets.AnyAsync(s => s.Id == of && s.StudentId == student, ct),
            Corrected.Signal => await db.Signals.AnyAsync(s => s.Id == of && s.StudentId == student, ct),
            Corrected.Form => await db.FormChecks.AnyAsync(f => f.Id == of && f.StudentId == student, ct),
            Corrected.Exit => await db.ExitChecks.AnyAsync(e => e.Id == of && e.StudentId == student, ct),
            Corrected.Decision => await db.Decisions.AnyAsync(d => d.Id == of && d.StudentId == student, ct),
            _ => await db.Sessions.AnyAsync(s => s.Id == of && s.StudentId == student && s.StartedAt != null, ct),
        };
        if (!there)
            return Problem.Of("noSuchFact", "of");
        if (what == Corrected.Set && instead?.Variant is { } variant)
        {
            var drill = await db.Sets.Where(s => s.Id == of).Select(s => s.Drill).SingleAsync(ct);
            if (catalogue.FindDrill(drill)?.Variants.Any(v => v.Key == variant) != true)
                return Problem.Of("unknownDrill", "instead.variant");
        }
        if (what == Corrected.Exit && instead is { Safe: { } safe })
        {
            var times = instead.Times ?? await db.ExitChecks.Where(e => e.Id == of).Select(e => e.Of).SingleAsync(ct);
            if (safe > times)
                return Problem.Of("successesOutOfRange", "instead.safe", ("value", safe), ("max", times));
        }
        return what == Corrected.Decision && instead is null && !await MayBeTakenBack(of, ct) ? Problem.Of("notTheNewest", "of") : null;
    }

    /// <summary>The newest of its course that stands, and not the placing: what came after it rests on it.</summary>
    private async Task<bool> MayBeTakenBack(Guid id, CancellationToken ct)
    {
        var decision = await db.Decisions.AsNoTracking().SingleAsync(d => d.Id == id, ct);
        var later = await db
            .Decisions.Where(d =>
                d.StudentId == decision.StudentId && d.Skill == decision.Skill && d.Side == decision.Side && d.At > decision.At
            )
            .Select(d => d.Id)
            .ToListAsync(ct);
        var corrections = new Corrections(await db.Corrections.AsNoTracking().Where(c => later.Contains(c.Of)).ToListAsync(ct));
        return decision.Kind is not (DecisionKind.Place or DecisionKind.Move) && later.All(corrections.IsGone);
    }

    /// <summary>What was worked in the session that a set belongs to, without what counts for nothing.</summary>
    private async Task Rework(Guid set, CancellationToken ct)
    {
        if (await db.Sets.Where(s => s.Id == set).Select(s => s.SessionId).SingleAsync(ct) is not { } id)
            return;
        var session = await db.Sessions.SingleAsync(s => s.Id == id, ct);
        session.Worked = await SessionDesk.WorkedIn(db, id, ct);
        await db.SaveChangesAsync(ct);
    }

    internal static async Task<Ok<FactPage>> Page(Guid studentId, TensarchDb db, CancellationToken ct, DateTimeOffset? before = null)
    {
        var until = before ?? DateTimeOffset.MaxValue;
        List<FactLine> found =
        [
            .. await db
                .Sets.Where(s => s.StudentId == studentId && s.At < until)
                .OrderByDescending(s => s.At)
                .Take(PageSize)
                .Select(s => new FactLine(
                    s.Id,
                    Corrected.Set,
                    s.At,
                    s.By.ToString(),
                    s.Drill,
                    s.Variant,
                    s.Side,
                    s.Seconds,
                    s.CleanReps,
                    s.Quality,
                    s.Confirmed,
                    s.UnderBar,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    false,
                    true,
                    null
                ))
                .ToListAsync(ct),
            .. await db
                .Signals.Where(s => s.StudentId == studentId && s.At < until)
                .OrderByDescending(s => s.At)
                .Take(PageSize)
                .Select(s => new FactLine(
                    s.Id,
                    Corrected.Signal,
                    s.At,
                    s.By.ToString(),
                    s.Drill,
                    null,
                    s.Side,
                    null,
                    null,
                    null,
                    true,
                    false,
                    s.Kind,
                    s.Region,
                    s.Pain,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    false,
                    true,
                    null
                ))
                .ToListAsync(ct),
            .. (
                await db
                    .FormChecks.AsNoTracking()
                    .Where(f => f.StudentId == studentId && f.At < until)
                    .OrderByDescending(f => f.At)
                    .Take(PageSize)
                    .ToListAsync(ct)
            ).Select(f => new FactLine(
                f.Id,
                Corrected.Form,
                f.At,
                f.By.ToString(),
                Side: f.Side,
                Skill: f.Skill,
                Stage: f.Stage,
                Ticked: f.Ticked
            )),
            .. (
                await db
                    .ExitChecks.AsNoTracking()
                    .Where(e => e.StudentId == studentId && e.At < until)
                    .OrderByDescending(e => e.At)
                    .Take(PageSize)
                    .ToListAsync(ct)
            ).Select(e => new FactLine(
                e.Id,
                Corrected.Exit,
                e.At,
                e.By.ToString(),
                Side: e.Side,
                Skill: e.Skill,
                Stage: e.Stage,
                Safe: e.Safe,
                Times: e.Of
            )),
            .. (
                await db
                    .Decisions.Where(d => d.StudentId == studentId && d.At < until)
                    .OrderByDescending(d => d.At)
                    .Take(PageSize)
                    .Select(d => new
                    {
                        d.Id,
                        d.At,
                        d.By,
                        d.Side,
                        d.Skill,
                        d.FromStage,
                        d.ToStage,
                        d.Kind,
                    })
                    .ToListAsync(ct)
            ).Select(d => new FactLine(
                d.Id,
                Corrected.Decision,
                d.At,
                d.By.ToString(),
                Side: d.Side,
                Skill: d.Skill,
                Stage: d.FromStage,
                ToStage: d.ToStage,
                Decision: d.Kind
            )),
            .. (
                await db
                    .Sessions.Where(s => s.StudentId == studentId && s.StartedAt != null && s.StartedAt < until)
                    .OrderByDescending(s => s.StartedAt)
                    .Take(PageSize)
                    .Select(s => new
                    {
                        s.Id,
                        s.StartedAt,
                        s.By,
                        s.Skill,
                    })
                    .ToListAsync(ct)
            ).Select(s => new FactLine(s.Id, Corrected.Session, s.StartedAt!.Value, s.By.ToString(), Skill: s.Skill)),
        ];
        var page = found.OrderByDescending(f => f.At).ThenBy(f => f.Id).Take(PageSize).ToList();
        var ids = page.Select(f => f.Id).ToList();
        var corrections = new Corrections(await db.Corrections.AsNoTracking().Where(c => ids.Contains(c.Of)).ToListAsync(ct));
        var names = await db.Users.AsNoTracking().ToDictionaryAsync(u => u.Id, u => u.DisplayName, ct);
        string Name(Guid id) => names.GetValueOrDefault(id, "");
        var newest = await NewestDecisions(db, studentId, ct);
        return TypedResults.Ok(
            new FactPage(
                [
                    .. page.Select(f =>
                        f with
                        {
                            By = Name(Guid.Parse(f.By)),
                            Now = corrections.All(f.Id).Any() ? corrections.Of(f.Id) : null,
                            Gone = corrections.IsGone(f.Id),
                            MayBeTakenBack = f.What != Corrected.Decision || newest.Contains(f.Id),
                            Corrections =
                            [
                                .. corrections.All(f.Id).Select(c => new CorrectionLine(c.At, Name(c.By), c.Reason, c.InsteadJson is null)),
                            ],
                        }
                    ),
                ],
                found.Count > PageSize ? page[^1].At : null
            )
        );
    }

    /// <summary>The newest decision of each course that stands, placings and moves left out.</summary>
    private static async Task<HashSet<Guid>> NewestDecisions(TensarchDb db, Guid student, CancellationToken ct)
    {
        var decisions = await db
            .Decisions.Where(d => d.StudentId == student)
            .Select(d => new
            {
                d.Id,
                d.Skill,
                d.Side,
                d.At,
                d.Kind,
            })
            .ToListAsync(ct);
        var ids = decisions.Select(d => d.Id).ToList();
        var corrections = new Corrections(await db.Corrections.AsNoTracking().Where(c => ids.Contains(c.Of)).ToListAsync(ct));
        return
        [
            .. decisions
                .Where(d => !corrections.IsGone(d.Id))
                .GroupBy(d => (d.Skill, d.Side))
                .Select(g => g.MaxBy(d => d.At)!)
                .Where(d => d.Kind is not (DecisionKind.Place or DecisionKind.Move))
                .Select(d => d.Id),
        ];
    }
}
