using Tensarch.Core.Programmes;
using Tensarch.Core.Students;

namespace Tensarch.Weeks;

/// <summary>
/// What a careful person does without a solver: session after session the best choice that keeps the rules, given those before it. Only to be
/// compared with.
/// </summary>
internal sealed class GreedyWeekSolver : IWeekSolver
{
    public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked) => [];

    /// <returns>None where it has painted itself into a corner.</returns>
    public PieceAnswer? Solve(PieceProblem problem)
    {
        var chosen = new List<int>();
        foreach (var slot in problem.Slots)
        {
            var best = Enumerable
                .Range(0, slot.Choices.Count)
                .Where(c => Keeps(problem, [.. chosen, c]))
                .Select(c => (int?)c)
                .MinBy(c => Cost(problem, [.. chosen, c!.Value]));
            if (best is not { } choice)
                return null;
            chosen.Add(choice);
        }
        var cost = Cost(problem, chosen);
        return new(chosen, cost, cost);
    }

    private static List<(PieceSlot Slot, Choice Choice)> Days(PieceProblem problem, IReadOnlyList<int> chosen) =>
        [.. chosen.Select((c, s) => (problem.Slots[s], problem.Slots[s].Choices[c]))];

    /// <summary>The rules, of the days that are chosen so far: the last of them is the new one.</summary>
    private static bool Keeps(PieceProblem problem, IReadOnlyList<int> chosen)
    {
        var days = Days(problem, chosen);
        var (slot, last) = days[^1];
        foreach (var (earlier, choice) in days.SkipLast(1))
        {
            var apart = slot.Day.DayNumber - earlier.Day.DayNumber;
            if (last.Spacing.Any(s => apart < s.Value && choice.Heavy.Contains(s.Key)))
                return false;
            if (apart == 1 && last.Fresh.Any(choice.Heavy.Contains))
                return false;
            if (earlier.Week == slot.Week && choice.Tests.Any(last.Tests.Contains))
                return false;
        }
        bool Running(LoadTag tag, int window, int most) =>
            !last.Heavy.Contains(tag)
            || days.Where(d => d.Choice.Heavy.Contains(tag))
                .Select(d => d.Slot.Day)
                .Concat(problem.Heavy.Where(h => h.Tags.Contains(tag)).Select(h => h.Day))
                .Distinct()
                .Count(d => slot.Day.DayNumber - d.DayNumber < window) <= most;
        return Running(LoadTag.Wrist, 3, 2)
            && Running(LoadTag.Neck, 7, 3)
            && problem.Loads.Select((_, t) => t).All(t => Within(problem, days, t));
    }

    private static bool Within(PieceProblem problem, List<(PieceSlot Slot, Choice Choice)> days, int t)
    {
        var track = problem.Loads[t];
        var week = days[^1].Slot.Week;
        int Load(int at) =>
            track.Weeks.Where(w => w.Week == at).Sum(w => w.Done) + days.Where(d => d.Slot.Week == at).Sum(d => d.Choice.Loads[t]);
        var place = track.Weeks.ToList().FindIndex(w => w.Week == week);
        var (limit, load) = (track.Weeks[place], Load(week));
        if (limit.Most is { } known)
            return load <= Math.Max(known, limit.Done);
        var based = place == 1 ? Math.Max(Load(week - 1), limit.Before) : Math.Max(Load(week - 1), Load(week - 2));
        if (load > track.Entry && load > based + track.Step && 100 * load >= track.GrowthPercent * based)
            return false;
        return !limit.BackOff || load <= track.Step || 100 * load < track.BackOffPercent * Load(week - 1);
    }

    /// <summary>The objective, of a whole answer or of its beginning.</summary>
    public static long Cost(PieceProblem problem, IReadOnlyList<int> chosen)
    {
        var days = Days(problem, chosen);
        var costs = problem.Costs;
        long cost = days.Sum(d => (long)d.Choice.Cost);
        for (var later = 1; later < days.Count; later++)
        for (var earlier = 0; earlier < later; earlier++)
        {
            var ((from, one), (to, two)) = (days[earlier], days[later]);
            var apart = to.Day.DayNumber - from.Day.DayNumber;
            if (apart == 1 && one.Hard)
                cost += (two.Hard ? costs.AdjacentHardDays : 0) + (two.Nerve ? costs.NerveAfterHardDay : 0);
            if (apart <= 1)
                cost += costs.Uneven * one.Exposes.Count(two.Exposes.Contains);
        }
        foreach (var (track, t) in problem.Loads.Select((track, t) => (track, t)))
        {
            var largest = track.Weeks.Max(w => w.Done + days.Where(d => d.Slot.Week == w.Week).Sum(d => d.Choice.Loads[t]));
            cost += track.CostOf(largest, costs.LargestWeek);
        }
        foreach (var asked in problem.Asked)
        {
            var week = days.Where(d => d.Slot.Week == asked.Week).ToList();
            var given = week.Count(d => d.Choice.Exposes.Contains(asked.Skill));
            cost += asked.MissingCost * Math.Max(0, asked.Exposures - given) + asked.ExtraCost * Math.Max(0, given - asked.Exposures);
            if (!asked.Test)
                continue;
            var test = week.FindIndex(d => d.Choice.Tests.Contains(asked.Skill));
            cost += test < 0 ? costs.MissingTest : costs.LaterTest * test;
        }
        return cost;
    }
}
