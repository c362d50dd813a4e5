using Tensarch.Core.Skills;

namespace Tensarch.Core.Programmes;

/// <summary>Whether a goal can be there by the day that the coach hopes for.</summary>
/// <param name="Code">
/// <c>possible</c>; <c>tooManyGates</c> where more gates are left than test days; <c>notAtThisSlope</c> where the present gate is not expected in time;
/// <c>barred</c> where it is blocked; <c>reached</c>.
/// </param>
/// <param name="Gates">That are left, on the side that has most.</param>
/// <param name="Earliest">When the last of them may open first.</param>
public sealed record TargetVerdict(string Skill, DateOnly Target, string Code, int Gates, DateOnly? Earliest);

/// <summary>A target day held against the gates that are left: each is shown on a test day of its own.</summary>
public static class TargetOutlook
{
    /// <param name="expected">The goal's present gates.</param>
    /// <param name="testDays">From today on, in order; after the last of them a test comes every so many days.</param>
    /// <param name="everyDays">Between test days.</param>
    public static TargetVerdict Of(
        Course course,
        DateOnly target,
        IReadOnlyList<ExpectedGate> expected,
        IReadOnlyList<DateOnly> testDays,
        int everyDays,
        DateOnly today
    )
    {
        var open = expected.Where(g => g.Code != "owned").ToList();
        if (open.Count == 0)
            return new(course.Skill, target, "reached", 0, null);
        int Left(ExpectedGate gate) => course.Ladder.Stages.Count - gate.Stage + 1;
        var gates = open.Max(Left);
        if (open.Any(g => g.Code == "blocked"))
            return new(course.Skill, target, "barred", gates, null);
        // A gate that is open needs no test day more.
        var tested = open.Max(g => Left(g) - (g.Code == "openNow" ? 1 : 0));
        var byTests = tested == 0 ? today : TestDay(tested - 1, testDays, everyDays, today);
        var present = open.Max(g => g.Code == "expected" ? g.Earliest ?? today : today);
        var earliest = present > byTests ? present : byTests;
        var code =
            byTests > target ? "tooManyGates"
            : present > target || open.Any(g => g.Code == "notAtThisSlope") ? "notAtThisSlope"
            : "possible";
        return new(course.Skill, target, code, gates, earliest);
    }

    private static DateOnly TestDay(int place, IReadOnlyList<DateOnly> days, int every, DateOnly today) =>
        place < days.Count ? days[place] : (days.Count > 0 ? days[^1] : today).AddDays(every * (place - days.Count + 1));
}
