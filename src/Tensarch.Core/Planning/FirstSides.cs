using Tensarch.Core.Sessions;

namespace Tensarch.Core.Planning;

/// <summary>Which side goes first: the weaker one; where none is weaker, the sides take turns by session (measures, asymmetry).</summary>
internal static class FirstSides
{
    /// <summary>Courses that are trained on one day: where neither side is weaker, the same one goes first in all of them. A weaker side of one skill is no reason in another.</summary>
    /// <param name="courses">The most important first.</param>
    public static IEnumerable<CourseState> Together(IReadOnlyList<CourseState> courses)
    {
        var first = courses.FirstOrDefault(c => c.Weaker is null)?.FirstSide;
        return courses.Select(c => c.Weaker is null && c.FirstSide != first ? c with { LastFirstSide = first!.Value.Other() } : c);
    }

    /// <summary>With no turn in any skill: for what does not depend on it.</summary>
    public static Trainee Alike(Trainee who) => who with { Courses = [.. who.Courses.Select(c => c with { LastFirstSide = null })] };

    /// <summary>The same session with the sides in their turn for who is trained; nothing else of it changes.</summary>
    public static SessionPlan Turned(SessionPlan plan, Trainee who)
    {
        var first = Together([.. plan.Skills.Select(s => who.On(s.Skill))]).ToDictionary(c => c.Skill, c => c.FirstSide);
        if (plan.Skills.All(s => first[s.Skill] == s.FirstSide))
            return plan;
        Side Of(string? skill) => first[plan.Skills.Any(s => s.Skill == skill) ? skill! : plan.Skills[0].Skill];
        return plan with
        {
            FirstSide = first[plan.Skills[0].Skill],
            Beside = plan.Beside is { } beside ? [.. beside.Select(s => s with { FirstSide = first[s.Skill] })] : null,
            Drills =
            [
                .. plan.Drills.Select(d =>
                    d.Sides.Count == 2 && d.Sides[0].Side != Of(d.Skill) ? d with { Sides = [d.Sides[1], d.Sides[0]] } : d
                ),
            ],
            Notes = [.. plan.Notes.Select(n => n.Code == "sidesAlternate" ? n with { Side = Of(n.Skill) } : n)],
        };
    }

    /// <summary>The side that went first in a skill when it was trained last: as it was done, else as it was planned.</summary>
    public static Side? Last(string skill, IReadOnlyList<TrainedSession> sessions)
    {
        if (sessions.LastOrDefault(s => s.Skills.Contains(skill)) is not { } last)
            return null;
        var done = last.Worked.Where(w => w.Skill == skill && w.Side is not null && w.When is not null).MinBy(w => w.When!.Value.First);
        return done?.Side ?? last.FirstSide;
    }
}
