using System.ComponentModel.DataAnnotations;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Planning;

/// <param name="Date">Today when none is given.</param>
/// <param name="Minutes">The student's usual ones when none are given.</param>
/// <param name="Skill">The skill to train first; the first one that the student is on when none is named.</param>
/// <param name="Beside">Others to train with it, the most important first; a short day takes fewer.</param>
/// <param name="Second">The coach knows that the day has a session, and wants another one.</param>
public sealed record PlanRequest(
    Guid Id,
    DateOnly? Date,
    int? Minutes,
    [RegularExpression(Key.Pattern)] string? Skill = null,
    [MaxLength(PlanRequest.MostBeside)] [RegularExpression(Key.Pattern)] IReadOnlyList<string>? Beside = null,
    bool Second = false
)
{
    public const int MostBeside = 2;
}

/// <summary>Builds, checks and stores the next session. The demo's simulator goes through here as the screens do.</summary>
public sealed class PlanDesk(TensarchDb db, CatalogueContent catalogue, StudioLadders ladders, StudioClock clock, StudioScope scope)
{
    private const int FarthestDays = 60;

    /// <param name="around">The week that it stands in; see <see cref="Programmes.WeekJudge"/>.</param>
    public async Task<Result<(SessionRow Row, Appended Appended)>> Plan(
        Standing standing,
        PlanRequest request,
        WeekAround around,
        CancellationToken ct
    )
    {
        var hash = Facts.Hash(new { standing.Student.Id, request });
        var stored = await db.WholeSessions.AsNoTracking().SingleOrDefaultAsync(s => s.Id == request.Id, ct);
        if (stored is not null)
            return (stored, stored.BodyHash == hash ? Appended.SameAgain : Appended.Clash);
        Task<Problem?> Taken() =>
            request.Second ? Task.FromResult<Problem?>(null) : Stands(standing.Student.Id, request.Date ?? clock.Today, request.Id, ct);
        if (await Taken() is { } taken)
            return taken;
        var plan = Make(standing, request, around);
        if (!plan.IsOk)
            return plan.Problems.ToList();
        await using var transaction = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(ct) : null;
        if (await Taken() is { } since)
            return since;
        var row = new SessionRow
        {
            Id = request.Id,
            StudentId = standing.Student.Id,
            CreatedAt = clock.Now,
            By = scope.UserId,
            BodyHash = hash,
        };
        Lay(row, plan.Value, "made");
        db.Sessions.Add(row);
        var saved = await db.SaveFact(Appended.Stored, ct);
        if (transaction is not null)
            await transaction.CommitAsync(ct);
        return (row, saved);
    }

    /// <summary>What a day says to one session more: it has one that is still to be done, or under way. Nobody trains twice by mistake.</summary>
    /// <returns><c>dayHasSession</c>, or none.</returns>
    public async Task<Problem?> Stands(Guid student, DateOnly day, Guid except, CancellationToken ct) =>
        await db.Sessions.AnyAsync(
            s =>
                s.StudentId == student
                && s.Date == day
                && s.Id != except
                && s.DeletedAt == null
                && (s.Training == null || s.Training.EndedAt == null),
            ct
        )
            ? Problem.Of("dayHasSession", "date")
            : null;

    /// <summary>Appends a plan to a session, which is run by it from now on. The ones before stay.</summary>
    public void Lay(SessionRow row, SessionPlan plan, string why)
    {
        if (row.Planned is not null)
        {
            row.Version++;
            row.Sequence++;
        }
        row.Date = plan.Date;
        row.Plan = row.Version;
        row.Planned = new()
        {
            SessionId = row.Id,
            Number = row.Version,
            PlanJson = StoredJson.Write(plan),
            Skill = plan.Skills[0].Skill,
            Beside = [.. plan.Skills.Skip(1).Select(s => s.Skill)],
            TotalSeconds = Timeline.SecondsOf(plan, catalogue),
            FirstSide = plan.FirstSide,
            Why = why,
            At = clock.Now,
            By = scope.UserId,
        };
        db.PlanVersions.Add(row.Planned);
    }

    /// <summary>A session as it is planned today for its day, checked and not stored.</summary>
    public Result<SessionPlan> Make(Standing standing, PlanRequest request, WeekAround around)
    {
        if ((request.Skill is { } named ? standing.State.On(named) : standing.State.Courses.FirstOrDefault()) is not { } skill)
            return Problem.Of("notOnLadder", "student");
        var courses = new List<Course> { skill };
        foreach (var (i, key) in (request.Beside ?? []).Index())
        {
            if (standing.State.On(key) is not { } beside)
                return Problem.Of("notOnLadder", $"beside[{i}]");
            if (courses.Any(c => c.Skill == beside.Skill))
                return Problem.Of("namedTwice", $"beside[{i}]");
            courses.Add(beside);
        }
        if (courses.Any(c => catalogue.FindApproach(c.Enrolment.Approach) is null))
            return Problem.Of("unknownApproach", "approach");
        var date = request.Date ?? clock.Today;
        if (date < clock.Today)
            return Problem.Of("dateInPast", "date");
        if (date > clock.Today.AddDays(FarthestDays))
            return Problem.Of("dateTooFar", "date", ("most", FarthestDays));

        var facts = Trainees.Of(standing.State, courses, date, request.Minutes ?? standing.Student.SessionMinutes, catalogue);
        var builder = new SessionBuilder(catalogue);
        var plan = builder.Build(facts);
        // Where the week has not room for all of it, it is made again for what is left.
        if (plan.IsOk && around.Over(plan.Value).Count > 0)
            plan = builder.Build(facts, DayOrder.Free with { Most = around.Left() });
        if (!plan.IsOk)
            return plan.Problems.ToList();
        if (around.Over(plan.Value) is [var over, ..])
            return Problem.Of(
                "weekFull",
                "date",
                ("has", LoadCeiling.Shown(over.Key.Tag, over.Has)),
                ("most", LoadCeiling.Shown(over.Key.Tag, over.Most))
            );
        return PlanChecker.Check([new(plan.Value, facts)], facts.History, catalogue) is { Count: > 0 } broken
            ? Problem.Of("planCheckFailed", broken[0].Violation.Code)
            : plan;
    }

    /// <summary>None when what is stored is no plan, or names a drill that is no longer there: it is made again.</summary>
    public SessionPlan? Read(SessionRow row) => Read(row.Planned);

    /// <inheritdoc cref="Read(SessionRow)"/>
    public SessionPlan? Read(PlanVersionRow version) =>
        StoredJson.TryRead<SessionPlan>(version.PlanJson) is { Drills: not null } plan
        && plan.Drills.All(p => catalogue.FindDrill(p.Drill) is { } drill && p.Sides.All(s => drill.Variants.Any(v => v.Key == s.Variant)))
            ? plan
            : null;

    /// <summary>The ladders that a plan was made for, by skill; without those that are not there any more. Of no skill: the first one's.</summary>
    public async Task<Func<string?, Ladder?>> LaddersOf(SessionPlan plan, CancellationToken ct)
    {
        var found = new Dictionary<string, Ladder?>();
        foreach (var skill in plan.Skills)
            found[skill.Skill] = await ladders.Find(skill.Ladder, skill.LadderVersion, ct);
        return skill => found.GetValueOrDefault(skill ?? plan.Skills[0].Skill);
    }

    /// <summary>A stored plan on a day, with what is known now.</summary>
    public PlanOnDay On(DateOnly day, SessionRow row, SessionPlan plan, StudentState state) =>
        PlanOnDay.Of(plan, row.Id, [row.Planned.Skill, .. row.Planned.Beside], state, day, catalogue);

    /// <summary>The same today.</summary>
    public PlanOnDay Today(SessionRow row, SessionPlan plan, Standing standing) => On(clock.Today, row, plan, standing.State);
}
