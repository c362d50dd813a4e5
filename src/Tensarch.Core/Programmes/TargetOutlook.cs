using Tensarch.Core.Skills;

namespace Tensarch.Core.Programmes;

/// <summary>Whether a goal can be there by the day that the coach hopes for.</summary>
/// <param name="Code">
/// <c>possible</c>; <c>tooManyGates</c> where the gates that are left ask for more days of training than there are; <c>notAtThisSlope</c> where the
/// present gate is not expected in time; <c>barred</c> where it is blocked; <c>reached</c>.
/// </param>
/// <param name="Gates">That are left, on the side that has most.</param>
/// <param name="Earliest">Before it the ladder cannot be done, whatever is measured: each gate asks for days and sessions of its own.</param>
public sealed record TargetVerdict(string Skill, DateOnly Target, string Code, int Gates, DateOnly? Earliest);

/// <summary>A target day held against what the gates ask for at least.</summary>
public static class TargetOutlook
{
    /// <param name="expected">The goal's present gates.</param>
    /// <param name="sessionsAWeek">As the plan gives them to the goal; more than 0.</param>
    public static TargetVerdict Of(
        Course course,
        DateOnly target,
        IReadOnlyList<ExpectedGate> expected,
        double sessionsAWeek,
        DateOnly today
    )
    {
        var open = expected.Where(g => g.Code != "owned").ToList();
        if (open.Count == 0)
            return new(course.Skill, target, "reached", 0, null);
        var gates = open.Max(g => course.Ladder.Stages.Count - g.Stage + 1);
        if (open.Any(g => g.Code == "blocked"))
            return new(course.Skill, target, "barred", gates, null);
        var earliest = open.Max(g => Earliest(course.Ladder, g, g.Code == "expected" ? g.Earliest ?? today : today, sessionsAWeek));
        var code =
            open.Max(g => Earliest(course.Ladder, g, today, sessionsAWeek)) > target ? "tooManyGates"
            : earliest > target || open.Any(g => g.Code == "notAtThisSlope") ? "notAtThisSlope"
            : "possible";
        return new(course.Skill, target, code, gates, earliest);
    }

    /// <summary>The present gate on a day, and the days that each gate after it asks for.</summary>
    private static DateOnly Earliest(Ladder ladder, ExpectedGate gate, DateOnly present, double sessionsAWeek) =>
        present.AddDays(
            ladder
                .Stages.Where(s => s.Number > gate.Stage)
                .SelectMany(s => s.Tests.OfType<ExposureCriterion>())
                .Sum(t => Math.Max(t.Days, (int)Math.Floor(7 * (t.Sessions - 1) / sessionsAWeek)))
        );
}
