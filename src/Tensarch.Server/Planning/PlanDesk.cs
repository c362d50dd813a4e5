using System.ComponentModel.DataAnnotations;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
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
public sealed class PlanDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    private const int FarthestDays = 60;
    private const int EasedDays = 14;
    private const int GapCountsDays = 42;

    public async Task<Result<(SessionRow Row, Appended Appended)>> Plan(Standing standing, PlanRequest request, CancellationToken ct)
    {
        var hash = Facts.Hash(new { standing.Student.Id, request });
        var stored = await db.Sessions.AsNoTracking().SingleOrDefaultAsync(s => s.Id == request.Id, ct);
        if (stored is not null)
            return (stored, stored.BodyHash == hash ? Appended.SameAgain : Appended.Clash);
        if ((request.Skill is { } named ? standing.On(named) : standing.Skills.FirstOrDefault()) is not { } skill)
            return Problem.Of("notOnLadder", "student");
        if (catalogue.FindApproach(skill.Row.Approach) is null)
            return Problem.Of("unknownApproach", "approach");
        var date = request.Date ?? clock.Today;
        if (date < clock.Today)
            return Problem.Of("dateInPast", "date");
        if (date > clock.Today.AddDays(FarthestDays))
            return Problem.Of("dateTooFar", "date", ("most", FarthestDays));

        var facts = FactsFor(standing, skill, date, request.Minutes ?? standing.Student.SessionMinutes);
        var plan = new SessionBuilder(catalogue).Build(facts);
        if (!plan.IsOk)
            return plan.Problems.ToList();
        if (SessionChecker.Check(plan.Value, facts, catalogue) is { Count: > 0 } broken)
            return Problem.Of("planCheckFailed", broken[0].Code);

        var row = new SessionRow
        {
            Id = request.Id,
            StudentId = standing.Student.Id,
            Skill = skill.Row.Skill,
            Date = date,
            PlanJson = StoredJson.Write(plan.Value),
            TotalSeconds = Timeline.SecondsOf(plan.Value, catalogue),
            FirstSide = plan.Value.FirstSide,
            CreatedAt = clock.Now,
            By = scope.UserId,
            BodyHash = hash,
        };
        db.Sessions.Add(row);
        return (row, await db.SaveFact(Appended.Stored, ct));
    }

    /// <summary>None when what is stored is no plan, or names a drill that is no longer there: it is made again.</summary>
    public SessionPlan? Read(SessionRow row) =>
        StoredJson.TryRead<SessionPlan>(row.PlanJson) is { Drills: not null } plan
        && plan.Drills.All(p => catalogue.FindDrill(p.Drill) is { } drill && p.Sides.All(s => drill.Variants.Any(v => v.Key == s.Variant)))
            ? plan
            : null;

    /// <summary>Drills of a plan that today's cautions no longer allow.</summary>
    public IReadOnlyList<string> NowHeld(SessionPlan plan, Cautions cautions) =>
        [
            .. plan
                .Drills.Where(planned =>
                {
                    var drill = catalogue.Drill(planned.Drill);
                    return planned.Sides.Any(s => !cautions.Allow(drill.LoadsOf(drill.Variants.First(v => v.Key == s.Variant), s.Dose)));
                })
                .Select(planned => planned.Drill),
        ];

    private SessionRequest FactsFor(Standing standing, SkillStanding skill, DateOnly date, int minutes)
    {
        var gate = new Gate(catalogue);
        var startedOn = clock.DayOf(skill.Row.StartedAt);
        var daysSinceStart = Math.Max(0, date.DayNumber - startedOn.DayNumber);
        var last = standing.Sessions.LastOrDefault();
        var verdicts = skill.Judge(gate);
        return new(
            skill.Ladder,
            catalogue.FindApproach(skill.Row.Approach)!,
            skill.Evidence.Standard,
            date,
            minutes,
            SideOf(Side.Left),
            SideOf(Side.Right),
            skill.Compare(catalogue)?.Weaker,
            last?.FirstSide,
            daysSinceStart,
            standing.Sessions.Count(s => s.Skill == skill.Row.Skill && s.StartedAt >= skill.Row.StartedAt),
            standing.LastSessionOn is { } on ? date.DayNumber - on.DayNumber : null,
            DaysSinceHeavy(standing, date),
            standing.Reviews.Where(r => date.DayNumber - clock.DayOf(r.At).DayNumber < EasedDays).Select(r => r.Tag).ToHashSet(),
            DaysRunning(HeavyDays(standing, LoadTag.Wrist), date),
            HeavyDays(standing, LoadTag.Neck).Count(d => d < date && date.DayNumber - d.DayNumber < 7),
            verdicts.All(v => WayOut.Shown(gate, skill.Ladder, v.Side, Math.Min(v.Stage, skill.Ladder.Stages.Count), skill.Evidence)),
            standing.Cautions,
            standing.Student.BreathSeconds,
            standing.Student.BlocksOwned
        );

        SideState SideOf(Side side)
        {
            var verdict = verdicts.FirstOrDefault(v => v.Side == side) ?? verdicts[0];
            var wanted = verdict.Tests.Where(t => t.Test.ReadDrill is not null && t.Outcome != Outcome.Met).Select(t => t.Test);
            return new(side, verdict.Stage, GapOf(standing, side), daysSinceStart < 7 ? [] : [.. wanted]);
        }
    }

    /// <summary>Days on which a tag was loaded heavily.</summary>
    private HashSet<DateOnly> HeavyDays(Standing standing, LoadTag tag) =>
        [
            .. from session in standing.Sessions
            from worked in session.Worked
            let drill = catalogue.FindDrill(worked.Drill)
            let variant = drill?.Variants.FirstOrDefault(v => v.Key == worked.Variant)
            where variant is not null && drill.LoadsOf(variant, drill.DoseOf(variant)).GetValueOrDefault(tag) == Load.Heavy
            select session.StartedOn,
        ];

    /// <summary>How many days running, up to the day before.</summary>
    private static int DaysRunning(HashSet<DateOnly> days, DateOnly date)
    {
        var running = 0;
        while (days.Contains(date.AddDays(-1 - running)))
            running++;
        return running;
    }

    private double? GapOf(Standing standing, Side side)
    {
        var gap = catalogue.Measure("front-split-gap");
        var last = PooledTest
            .From((standing.Facts with { Standard = standing.Student.SplitStandard }).Of(gap, side, Warmth.Warm))
            .LastOrDefault();
        return last is not null && standing.Facts.Now - last.Last <= TimeSpan.FromDays(GapCountsDays)
            ? Math.Max(0, last.Estimate.Value)
            : null;
    }

    private Dictionary<LoadTag, int> DaysSinceHeavy(Standing standing, DateOnly date)
    {
        var days = new Dictionary<LoadTag, int>();
        foreach (var session in standing.Sessions)
        foreach (var worked in session.Worked)
        {
            if (catalogue.FindDrill(worked.Drill) is not { } drill)
                continue;
            foreach (var (tag, load) in drill.Loads)
                if (load == Load.Heavy && tag.IsRegion())
                    days[tag] = Math.Min(days.GetValueOrDefault(tag, int.MaxValue), date.DayNumber - session.StartedOn.DayNumber);
        }
        return days;
    }
}
