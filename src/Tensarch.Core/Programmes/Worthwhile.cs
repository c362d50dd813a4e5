namespace Tensarch.Core.Programmes;

/// <summary>
/// What a careful coach would choose from: a day that loads more than another and is better in nothing is not worth it, though what a week carries
/// lets the weeks after it carry more. The plan is shorter to find, and its largest weeks are smaller.
/// </summary>
internal static class Worthwhile
{
    /// <returns>The best of what is worth it, told as a choice of all; its bound is of what is worth it. None where nothing keeps the rules.</returns>
    public static PieceAnswer? Solve(IWeekSolver solver, PieceProblem problem)
    {
        var places = problem.Slots.Select(s => Places(s.Choices)).ToList();
        var left = problem with
        {
            Slots = [.. problem.Slots.Select((slot, s) => slot with { Choices = [.. places[s].Select(c => slot.Choices[c])] })],
        };
        return solver.Solve(left) is { } answer
            ? answer with
            {
                Chosen = [.. answer.Chosen.Select((c, s) => places[s][c])],
            }
            // What loads less lets less follow: then all of it is asked.
            : solver.Solve(problem);
    }

    /// <summary>Of the choices of a session those worth it, in their order.</summary>
    public static IReadOnlyList<int> Places(IReadOnlyList<Choice> choices)
    {
        // Of those that are alike in everything the first stays.
        bool Beaten(int at) =>
            Enumerable
                .Range(0, choices.Count)
                .Any(other => other != at && NoWorse(choices[other], choices[at]) && (other < at || !NoWorse(choices[at], choices[other])));
        return [.. Enumerable.Range(0, choices.Count).Where(c => !Beaten(c))];
    }

    private static bool NoWorse(Choice one, Choice than) =>
        one.Cost <= than.Cost
        && one.Loads.Zip(than.Loads).All(l => l.First <= l.Second)
        && one.Exposes.SetEquals(than.Exposes)
        && one.Tests.SetEquals(than.Tests)
        && one.Heavy.IsSubsetOf(than.Heavy)
        && one.Fresh.IsSubsetOf(than.Fresh)
        && one.Spacing.All(s => than.Spacing.TryGetValue(s.Key, out var keeps) && keeps >= s.Value)
        && (!one.Hard || than.Hard)
        && (!one.Nerve || than.Nerve);
}
