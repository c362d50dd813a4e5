using CsCheck;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Programmes;

public class WorthwhileTests
{
    private static Choice Day(int cost, int load, params string[] exposes) =>
        new(
            cost,
            [load],
            new HashSet<LoadTag>(),
            new Dictionary<LoadTag, int>(),
            exposes.ToHashSet(),
            new HashSet<string>(),
            new HashSet<LoadTag>(),
            false,
            false
        );

    [Fact]
    public void A_day_that_loads_more_and_is_better_in_nothing_is_left_out()
    {
        var (whole, less) = (Day(10, 400, "crow"), Day(70, 400, "crow"));
        var (light, none) = (Day(70, 0), Day(70, 0));
        var part = Day(20, 200, "crow");
        Assert.Equal([0, 2, 4], Worthwhile.Places([whole, less, light, none, part]));
    }

    /// <summary>No rule can tell the two apart: whatever it is chosen with, the other may stand in its place.</summary>
    [Fact]
    public void What_is_left_out_has_another_in_its_place_that_breaks_nothing_more_and_costs_no_more() =>
        SolverTests.AnyProblem.Sample(
            problem =>
            {
                foreach (var choices in problem.Slots.Select(s => s.Choices))
                {
                    var left = Worthwhile.Places(choices);
                    Assert.All(
                        choices,
                        c =>
                            Assert.Contains(
                                left.Select(at => choices[at]),
                                o =>
                                    o.Cost <= c.Cost
                                    && o.Exposes.SetEquals(c.Exposes)
                                    && o.Tests.SetEquals(c.Tests)
                                    && o.Loads.Select((l, t) => l <= c.Loads[t]).All(x => x)
                                    && o.Heavy.All(c.Heavy.Contains)
                                    && o.Fresh.All(c.Fresh.Contains)
                                    && o.Spacing.All(s => c.Spacing.GetValueOrDefault(s.Key) >= s.Value)
                                    && (c.Hard || !o.Hard)
                                    && (c.Nerve || !o.Nerve)
                            )
                    );
                }
            },
            time: Budget.Seconds
        );

    [Fact]
    public void The_answer_is_told_as_a_choice_of_all_and_there_is_one_wherever_there_was() =>
        SolverTests.AnyProblem.Sample(
            problem =>
            {
                var answer = Worthwhile.Solve(Solvers.Exact, problem);
                var all = SolverTests.Every(problem).Where(a => SolverTests.CostOf(problem, a) is not null).ToList();
                Assert.Equal(all.Count == 0, answer is null);
                if (answer is null)
                    return;
                Assert.Equal(answer.Cost, SolverTests.CostOf(problem, answer.Chosen));
                bool IsWorth(IReadOnlyList<int> chosen) =>
                    chosen.Zip(problem.Slots).All(c => Worthwhile.Places(c.Second.Choices).Contains(c.First));
                Assert.Equal(all.Any(IsWorth), IsWorth(answer.Chosen));
            },
            iter: 100 * Budget.Seconds
        );
}
