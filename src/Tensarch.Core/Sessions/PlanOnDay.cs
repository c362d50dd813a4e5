using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>A stored plan on a day: who would do it then, and what keeps it from being run as it is. The sheet, the pack and what a device keeps all ask here.</summary>
public sealed class PlanOnDay
{
    private readonly SessionPlan plan;
    private readonly DayBars bars;
    private readonly CatalogueContent content;

    private PlanOnDay(SessionPlan plan, Trainee? who, StudentState state, DateOnly day, CatalogueContent content)
    {
        (this.plan, Who, bars, this.content) = (plan, who, state.Bars.On(day), content);
        Until = state.Until;
    }

    /// <param name="session">Its own id: what it did already is not what it follows.</param>
    /// <param name="skills">What it is for, the first one first.</param>
    /// <param name="state">As it is known, at the moment of which it is asked.</param>
    public static PlanOnDay Of(
        SessionPlan plan,
        Guid session,
        IReadOnlyList<string> skills,
        StudentState state,
        DateOnly day,
        CatalogueContent content
    )
    {
        var facts = state.Facts;
        var before = StudentState.From(facts with { Sessions = [.. facts.Sessions.Where(s => s.Id != session)] }, state.Now, content);
        var courses = skills.Select(before.On).ToList();
        var known = courses.All(c => c is not null && content.FindApproach(c.Enrolment.Approach) is not null);
        var who = known ? Trainees.Of(before, [.. courses.OfType<Skills.Course>()], day, plan.Minutes, content) : null;
        return new(plan, who, state, day, content);
    }

    /// <summary>What the session depends on; none when its student is no longer on its skill.</summary>
    public Trainee? Who { get; }

    /// <summary>The first instant at which something of it changes without a new fact.</summary>
    public DateTimeOffset Until { get; }

    /// <summary>Why a session that has not begun is not run: rule codes; empty when it may be.</summary>
    public IReadOnlyList<string> Outdated => Who is null ? ["otherLadder"] : [.. new PackMaker(content).Outdated(plan, Who).Distinct()];

    /// <summary>Drills that the day's bars do not allow.</summary>
    public IReadOnlyList<string> Barred =>
        [
            .. plan
                .Drills.Where(planned =>
                {
                    var drill = content.Drill(planned.Drill);
                    return planned.Sides.Any(s => !bars.Allow(drill.LoadsOf(drill.VariantAt(s.Variant), s.Dose, plan.BreathSeconds)));
                })
                .Select(planned => planned.Drill),
        ];

    /// <param name="underWay">It goes on where it stood: what happened since is what has ended.</param>
    /// <returns>The pack; or <c>planBarred</c> or <c>planOutdated</c>, with what it breaks in the fields of the problems after the first.</returns>
    public Result<SessionPack> Pack(bool underWay)
    {
        if (Who is null)
            return Problem.Of("planOutdated", "otherLadder");
        var maker = new PackMaker(content);
        if (underWay)
            return maker.Pack(plan, Who);
        var made = maker.Make(plan, Who);
        return made.IsOk ? made : made.Problems.Prepend(Problem.Of(Barred.Count > 0 ? "planBarred" : "planOutdated", "")).ToList();
    }

    /// <summary>What bars keep from being done on the day: no version with one of these loads goes on.</summary>
    public IReadOnlyList<string> Ended => PackLoads.Ended(bars);
}
