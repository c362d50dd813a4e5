using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Skills;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>Hands a student's facts to the planner.</summary>
internal static class ProgrammeFacts
{
    /// <returns>What the planner is asked; or what of the sketch cannot stand, each at its field.</returns>
    public static Result<PlanFor> Of(Standing standing, ProgrammeSketch sketch, DateOnly from, CatalogueContent content)
    {
        var problems = sketch.Check().ToList();
        foreach (var (i, goal) in sketch.Goals.Index())
            if (standing.State.On(goal.Skill) is not { } course)
                problems.Add(Problem.Of("notOnLadder", $"goals[{i}].skill"));
            else if (content.FindApproach(course.Enrolment.Approach) is null)
                problems.Add(Problem.Of("unknownApproach", $"goals[{i}].skill"));
        if (sketch.End < from)
            problems.Add(Problem.Of("dateInPast", "start"));
        if (problems.Count > 0)
            return problems;
        var goals = sketch.Goals.OrderBy(g => g.Priority).ToList();
        var courses = goals.Select(g => standing.State.On(g.Skill)!).ToList();
        var gate = new Gate(content);
        var known = new Dictionary<(DateOnly, int), Trainee>();
        Trainee On(DateOnly day, int minutes) =>
            known.TryGetValue((day, minutes), out var who)
                ? who
                : known[(day, minutes)] = Trainees.Of(standing.State, courses, day, minutes, content);
        return new PlanFor(
            new(
                sketch.Start,
                sketch.Weeks,
                [.. goals.Zip(courses, (g, c) => new Goal(g.Skill, g.Priority, RangeTests(c.Judge(gate), content)))],
                sketch.Slots()
            ),
            On,
            from
        );
    }

    /// <summary>Sides of ranges that the next gates still ask to be measured.</summary>
    private static int RangeTests(IReadOnlyList<GateVerdict> verdicts, CatalogueContent content) =>
        (
            from verdict in verdicts
            from test in verdict.Tests
            where test.Outcome != Outcome.Met && test.Test.ReadMeasure is not null && !Want.Practises(test.Test, content)
            select (test.Test.ReadMeasure, verdict.Side)
        )
            .Distinct()
            .Count();
}
