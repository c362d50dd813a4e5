using System.ComponentModel.DataAnnotations;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Planning;

/// <param name="Date">Today when none is given.</param>
/// <param name="Minutes">The student's usual ones when none are given.</param>
/// <param name="Skill">The skill to train; the first one that the student is on when none is named.</param>
public sealed record PlanRequest(Guid Id, DateOnly? Date, int? Minutes, [RegularExpression(Key.Pattern)] string? Skill = null);

/// <summary>Builds, checks and stores the next session. The demo's simulator goes through here as the screens do.</summary>
public sealed class PlanDesk(TensarchDb db, CatalogueContent catalogue, StudioLadders ladders, StudioClock clock, StudioScope scope)
{
    private const int FarthestDays = 60;

    public async Task<Result<(SessionRow Row, Appended Appended)>> Plan(Standing standing, PlanRequest request, CancellationToken ct)
    {
        var hash = Facts.Hash(new { standing.Student.Id, request });
        var stored = await db.Sessions.AsNoTracking().SingleOrDefaultAsync(s => s.Id == request.Id, ct);
        if (stored is not null)
            return (stored, stored.BodyHash == hash ? Appended.SameAgain : Appended.Clash);
        var plan = Make(standing, request);
        if (!plan.IsOk)
            return plan.Problems.ToList();
        var row = new SessionRow
        {
            Id = request.Id,
            StudentId = standing.Student.Id,
            Skill = standing.State.Courses.First(c => c.Ladder.Key == plan.Value.Ladder).Skill,
            PlanJson = "",
            CreatedAt = clock.Now,
            By = scope.UserId,
            BodyHash = hash,
        };
        Lay(row, plan.Value);
        db.Sessions.Add(row);
        return (row, await db.SaveFact(Appended.Stored, ct));
    }

    public void Lay(SessionRow row, SessionPlan plan)
    {
        row.Date = plan.Date;
        row.PlanJson = StoredJson.Write(plan);
        row.TotalSeconds = Timeline.SecondsOf(plan, catalogue);
        row.FirstSide = plan.FirstSide;
    }

    /// <summary>A session as it is planned today for its day, checked and not stored.</summary>
    public Result<SessionPlan> Make(Standing standing, PlanRequest request)
    {
        if ((request.Skill is { } named ? standing.State.On(named) : standing.State.Courses.FirstOrDefault()) is not { } skill)
            return Problem.Of("notOnLadder", "student");
        if (catalogue.FindApproach(skill.Enrolment.Approach) is null)
            return Problem.Of("unknownApproach", "approach");
        var date = request.Date ?? clock.Today;
        if (date < clock.Today)
            return Problem.Of("dateInPast", "date");
        if (date > clock.Today.AddDays(FarthestDays))
            return Problem.Of("dateTooFar", "date", ("most", FarthestDays));

        var facts = SessionRequests.Of(standing.State, skill, date, request.Minutes ?? standing.Student.SessionMinutes, catalogue);
        var plan = new SessionBuilder(catalogue).Build(facts);
        if (!plan.IsOk)
            return plan.Problems.ToList();
        return SessionChecker.Check(plan.Value, facts, catalogue) is { Count: > 0 } broken
            ? Problem.Of("planCheckFailed", broken[0].Code)
            : plan;
    }

    /// <summary>None when what is stored is no plan, or names a drill that is no longer there: it is made again.</summary>
    public SessionPlan? Read(SessionRow row) =>
        StoredJson.TryRead<SessionPlan>(row.PlanJson) is { Drills: not null } plan
        && plan.Drills.All(p => catalogue.FindDrill(p.Drill) is { } drill && p.Sides.All(s => drill.Variants.Any(v => v.Key == s.Variant)))
            ? plan
            : null;

    /// <summary>The ladder that a plan was made for; none when it is not there any more.</summary>
    public Task<Ladder?> LadderOf(SessionPlan plan, CancellationToken ct) => ladders.Find(plan.Ladder, plan.LadderVersion, ct);

    /// <summary>
    /// What a session depends on today, were it planned now: without itself, for what it did already is not what it follows. None when the
    /// student is no longer on its skill.
    /// </summary>
    public SessionRequest? RequestToday(SessionRow row, SessionPlan plan, Standing standing)
    {
        var facts = standing.State.Facts;
        var before = StudentState.From(
            facts with
            {
                Sessions = [.. facts.Sessions.Where(s => s.Id != row.Id)],
            },
            standing.State.Now,
            catalogue
        );
        return before.On(row.Skill) is { } course && catalogue.FindApproach(course.Enrolment.Approach) is not null
            ? SessionRequests.Of(before, course, clock.Today, plan.Minutes, catalogue)
            : null;
    }

    /// <summary>Why a session that has not begun is not run today: rule codes of the core's; empty when it may be.</summary>
    public IReadOnlyList<string> Outdated(SessionRow row, SessionPlan plan, Standing standing) =>
        row.StartedAt is not null ? []
        : RequestToday(row, plan, standing) is { } now ? [.. new PackMaker(catalogue).Outdated(plan, now).Distinct()]
        : ["otherLadder"];

    /// <summary>Drills of a plan that today's bars no longer allow.</summary>
    public IReadOnlyList<string> NowBarred(SessionPlan plan, DayBars bars) =>
        [
            .. plan
                .Drills.Where(planned =>
                {
                    var drill = catalogue.Drill(planned.Drill);
                    return planned.Sides.Any(s =>
                        !bars.Allow(drill.LoadsOf(drill.Variants.First(v => v.Key == s.Variant), s.Dose, plan.BreathSeconds))
                    );
                })
                .Select(planned => planned.Drill),
        ];
}
