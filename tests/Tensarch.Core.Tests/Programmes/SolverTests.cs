using CsCheck;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Solver;

namespace Tensarch.Core.Tests.Programmes;

/// <summary>The solver against every answer there is, on pieces that are small enough for that.</summary>
public class SolverTests
{
    private static readonly DateOnly Monday = new(2026, 3, 2);
    private static readonly PlanCosts Costs = Shipped.Content.Programme.Costs;

    private static readonly Gen<Choice> AnyChoice =
        from cost in Gen.Int[0, 30]
        from loads in Gen.Int[0, 450].Array[2]
        from heavy in Gen.Int[0, 7].Select(Gen.Int[0, 7], (a, b) => a & b)
        from spacing in Gen.Int[1, 2]
        from exposes in Gen.Int[0, 3]
        from test in Gen.Int[0, 5]
        from hard in Gen.Bool
        from nerve in Gen.Bool
        let tags = new[] { LoadTag.Hamstring, LoadTag.Wrist, LoadTag.Neck }.Where((_, i) => (heavy >> i & 1) == 1).ToHashSet()
        select new Choice(
            cost,
            loads,
            tags,
            tags.Contains(LoadTag.Hamstring) ? new Dictionary<LoadTag, int> { [LoadTag.Hamstring] = spacing } : [],
            new[] { "crow", "front-split" }.Where((_, i) => (exposes >> i & 1) == 1).ToHashSet(),
            test == 0 ? new HashSet<string> { "front-split" } : [],
            test == 0 ? new HashSet<LoadTag> { LoadTag.Hamstring } : [],
            hard,
            nerve
        );

    internal static readonly Gen<PieceProblem> AnyProblem =
        from days in Gen.Int[0, 20].Array[2, 6]
        from choices in AnyChoice.Array[1, 4].Array[6]
        from known in Gen.Int[200, 1500].Array[2]
        from before in Gen.Int[0, 900].Array[2]
        from done in Gen.Int[0, 300]
        from heavy in Gen.Int[1, 6].Array[0, 2]
        from asked in Gen.Int[0, 3].Array[6]
        select new PieceProblem(
            [.. days.Order().Select((d, i) => new PieceSlot(Monday.AddDays(d), d / 7, choices[i]))],
            [
                .. Enumerable
                    .Range(0, 2)
                    .Select(t => new LoadTrack(
                        new LoadKey(t == 0 ? LoadTag.Adductor : LoadTag.Hamstring, Side.Left),
                        240,
                        540,
                        115,
                        60,
                        before[t] / 2,
                        [new(0, known[t], 0, done, false), new(1, null, before[t], 0, false), new(2, null, 0, 0, true)]
                    )),
            ],
            [
                .. Enumerable
                    .Range(0, 6)
                    .Select(i => new GoalOfWeek(
                        i / 2,
                        i % 2 == 0 ? "crow" : "front-split",
                        asked[i],
                        1000 * (i % 2 + 1),
                        i is 3,
                        i > 3 ? 60 : 0
                    )),
            ],
            [.. heavy.Select(d => (Monday.AddDays(-d), (IReadOnlySet<LoadTag>)new HashSet<LoadTag> { LoadTag.Wrist, LoadTag.Neck }))],
            Costs
        );

    /// <summary>Written from the rules, and not from the model.</summary>
    internal static long? CostOf(PieceProblem problem, IReadOnlyList<int> chosen)
    {
        var days = problem.Slots.Select((slot, i) => (slot.Day, slot.Week, Choice: slot.Choices[chosen[i]])).ToList();
        long cost = days.Sum(d => (long)d.Choice.Cost);
        for (var later = 0; later < days.Count; later++)
        for (var earlier = 0; earlier < later; earlier++)
        {
            var (one, two, apart) = (days[earlier], days[later], days[later].Day.DayNumber - days[earlier].Day.DayNumber);
            if (two.Choice.Spacing.Any(s => apart < s.Value && one.Choice.Heavy.Contains(s.Key)))
                return null;
            if (apart == 1 && two.Choice.Fresh.Any(one.Choice.Heavy.Contains))
                return null;
            if (apart == 1 && one.Choice.Hard)
                cost += (two.Choice.Hard ? Costs.AdjacentHardDays : 0) + (two.Choice.Nerve ? Costs.NerveAfterHardDay : 0);
            if (apart <= 1)
                cost += Costs.Uneven * one.Choice.Exposes.Count(two.Choice.Exposes.Contains);
        }
        foreach (var (tag, window, most) in new[] { (LoadTag.Wrist, 3, 2), (LoadTag.Neck, 7, 3) })
        {
            var heavy = days.Where(d => d.Choice.Heavy.Contains(tag)).Select(d => d.Day).ToHashSet();
            var all = problem.Heavy.Where(d => d.Tags.Contains(tag)).Select(d => d.Day).Concat(heavy).ToHashSet();
            // What was before is as it was: only a day of the piece can be too much.
            if (heavy.Any(d => Enumerable.Range(0, window).Any(back => Window(d.AddDays(-back)) > most)))
                return null;
            int Window(DateOnly from) => Enumerable.Range(0, window).Count(i => all.Contains(from.AddDays(i)));
        }
        foreach (var (track, t) in problem.Loads.Select((track, t) => (track, t)))
        {
            var loads = track.Weeks.Select(w => w.Done + days.Where(d => d.Week == w.Week).Sum(d => d.Choice.Loads[t])).ToList();
            foreach (var (limit, w) in track.Weeks.Select((limit, w) => (limit, w)))
            {
                if (limit.Most is { } known)
                {
                    if (loads[w] > Math.Max(known, limit.Done))
                        return null;
                    continue;
                }
                var based = w == 1 ? Math.Max(loads[0], limit.Before) : Math.Max(loads[w - 1], loads[w - 2]);
                if (loads[w] > track.Entry && loads[w] > based + track.Step && 100 * loads[w] >= track.GrowthPercent * based)
                    return null;
                if (limit.BackOff && loads[w] > track.Step && 100 * loads[w] >= track.BackOffPercent * loads[w - 1])
                    return null;
            }
            var above = Math.Max(0, loads.Max() - track.Carried);
            cost += (Costs.LargestWeek * above + track.Entry - 1) / track.Entry;
        }
        foreach (var asked in problem.Asked)
        {
            var week = days.Where(d => d.Week == asked.Week).ToList();
            var given = week.Count(d => d.Choice.Exposes.Contains(asked.Skill));
            cost += asked.MissingCost * Math.Max(0, asked.Exposures - given) + asked.ExtraCost * Math.Max(0, given - asked.Exposures);
            if (!asked.Test)
                continue;
            var tests = week.Index().Where(d => d.Item.Choice.Tests.Contains(asked.Skill)).ToList();
            if (tests.Count > 1)
                return null;
            cost += tests.Count == 0 ? Costs.MissingTest : Costs.LaterTest * tests[0].Index;
        }
        return cost;
    }

    internal static IEnumerable<int[]> Every(PieceProblem problem) =>
        problem.Slots.Aggregate(
            (IEnumerable<int[]>)
                [
                    [],
                ],
            (all, slot) => all.SelectMany(a => Enumerable.Range(0, slot.Choices.Count).Select(c => (int[])[.. a, c]))
        );

    [Fact]
    public void The_answer_costs_as_little_as_any_and_none_is_said_only_where_there_is_none()
    {
        var (solved, none) = (0, 0);
        AnyProblem.Sample(
            problem =>
            {
                var best = Every(problem).Select(a => CostOf(problem, a)).Where(c => c is not null).Min();
                var answer = Solvers.Exact.Solve(problem);
                Assert.Equal(best, answer?.Cost);
                Assert.Equal(best, answer?.Bound);
                if (answer is null)
                    Interlocked.Increment(ref none);
                else
                {
                    Interlocked.Increment(ref solved);
                    Assert.Equal(best, CostOf(problem, answer.Chosen));
                }
            },
            iter: 300 * Budget.Seconds
        );
        Assert.True(solved > 50 && none > 10, $"{solved} solved, {none} without an answer");
    }

    /// <summary>The search ends early where hardly anything is left to be saved, and says how much at most.</summary>
    [Fact]
    public void What_is_left_to_be_saved_is_no_more_than_the_gap_that_is_told() =>
        AnyProblem.Sample(
            problem =>
            {
                if (Solvers.Usual.Solve(problem) is not { } answer)
                    return;
                var best = Every(problem).Select(a => CostOf(problem, a)).Where(c => c is not null).Min();
                Assert.Equal(answer.Cost, CostOf(problem, answer.Chosen));
                Assert.InRange(best!.Value, answer.Bound, answer.Cost);
                Assert.InRange(answer.Cost - answer.Bound, 0, CpWeekSolver.UsualLeft);
                Assert.InRange(answer.Gap, 0, 0.02);
            },
            iter: 100 * Budget.Seconds
        );

    [Fact]
    public void The_same_piece_has_the_same_answer() =>
        AnyProblem.Sample(problem => Assert.Equal(Solvers.Usual.Solve(problem)?.Chosen, Solvers.Usual.Solve(problem)?.Chosen), iter: 30);

    /// <summary>That the limit ends early is no proof that there is no plan; and what a second search goes on from is told as it is.</summary>
    [Fact]
    public void However_little_it_works_what_can_be_planned_is() =>
        AnyProblem.Sample(
            problem =>
            {
                var (whole, little) = (Solvers.Exact.Solve(problem), Solvers.Hasty.Solve(problem));
                Assert.Equal(whole is null, little is null);
                if (whole is null || little is null)
                    return;
                Assert.Equal(little.Cost, CostOf(problem, little.Chosen));
                Assert.InRange(whole.Cost, little.Bound, little.Cost);
            },
            iter: 300
        );
}
