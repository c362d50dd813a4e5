namespace Tensarch.Core.Programmes;

/// <summary>A piece with its answer, to be asked why it is not another.</summary>
internal sealed record SolvedPiece(Piece Piece, PieceProblem Problem, PieceAnswer Answer)
{
    /// <summary>So many days before a week still decide about it.</summary>
    private const int DaysBefore = 7;

    private Choice ChosenAt(int slot) => Problem.Slots[slot].Choices[Answer.Chosen[slot]];

    private int Count(int week, Func<Choice, bool> which) =>
        Enumerable.Range(0, Problem.Slots.Count).Count(s => Problem.Slots[s].Week == week && which(ChosenAt(s)));

    /// <returns>
    /// What the goal asks of the week, and what leaves no room for it: rules, and what the other goals get; with what was planned before the week,
    /// or, where that is not the reason, with what the weeks around it give. Empty where only costs are.
    /// </returns>
    public IReadOnlyList<PieceRule> WhyShort(ShortWeek week, IWeekSolver solver)
    {
        var asked = Problem with { Asked = [.. Problem.Asked.Select(a => a.Week == week.Week && a.Skill == week.Skill ? a : AsItIs(a))] };
        var alone = solver.Conflict(Alone(asked, week.Week), asked: true);
        return alone.Count > 0 ? alone : solver.Conflict(asked, asked: true);
    }

    /// <summary>What a goal gets of a week is all that it asks of it.</summary>
    private GoalOfWeek AsItIs(GoalOfWeek asked) =>
        asked with
        {
            Exposures = Math.Min(asked.Exposures, Count(asked.Week, c => c.Exposes.Contains(asked.Skill))),
            Test = asked.Test && Count(asked.Week, c => c.Tests.Contains(asked.Skill)) > 0,
        };

    /// <summary>The week by itself; the days before it are as they were chosen.</summary>
    private PieceProblem Alone(PieceProblem asked, int week)
    {
        var first = Problem.Slots.Where(s => s.Week == week).Select(s => (DateOnly?)s.Day).Min() ?? DateOnly.MaxValue;
        var slots = Problem
            .Slots.Select((slot, s) => slot.Week == week ? slot : slot with { Choices = [ChosenAt(s)] })
            .Where(s => s.Week == week || s.Day < first && s.Day >= first.AddDays(-DaysBefore))
            .ToList();
        return asked with
        {
            Slots = slots,
            Loads = [.. Problem.Loads.Select((track, t) => track with { Weeks = [Limit(track, t, week)] })],
            Asked = [.. asked.Asked.Where(a => a.Week == week)],
        };
    }

    private WeekLimit Limit(LoadTrack track, int t, int week)
    {
        var loads = track.Weeks.ToDictionary(
            w => w.Week,
            w => w.Done + Problem.Slots.Select((slot, s) => slot.Week == w.Week ? ChosenAt(s).Loads[t] : 0).Sum()
        );
        return new(week, Piece.MostOf(track.Key, week, loads), 0, track.Weeks.First(w => w.Week == week).Done, false);
    }
}
