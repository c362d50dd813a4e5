using CsCheck;
using Google.OrTools.Sat;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;
using Tensarch.Solver;

namespace Tensarch.Core.Tests.Programmes;

/// <summary>Which rules conflict, against every answer there is.</summary>
public class ConflictTests
{
    private static readonly Gen<(PieceProblem Problem, bool Asked)> AnyTightProblem =
        from problem in SolverTests.AnyProblem
        from most in Gen.Int[2, 4]
        from asked in Gen.Bool
        let slots = problem.Slots.Take(most).Select(s => s with { Choices = [.. s.Choices.Take(3)] }).ToList()
        select (problem with { Slots = slots }, asked);

    [Fact]
    public void The_rules_that_conflict_do_and_without_any_one_of_them_there_is_an_answer()
    {
        var (conflicts, none, kinds) = (0, 0, new HashSet<PieceRuleKind>());
        AnyTightProblem.Sample(
            at =>
            {
                var core = Solvers.Usual.Conflict(at.Problem, at.Asked);
                if (core.Count == 0)
                {
                    Assert.True(Holds(at.Problem, at.Asked, _ => true), "said to hold together, and does not");
                    Interlocked.Increment(ref none);
                    return;
                }
                Interlocked.Increment(ref conflicts);
                lock (kinds)
                    kinds.UnionWith(core.Select(r => r.Kind));
                Assert.False(Holds(at.Problem, at.Asked, core.Contains), string.Join(", ", core));
                Assert.All(core, left => Assert.True(Holds(at.Problem, at.Asked, r => r != left && core.Contains(r)), $"{left}"));
            },
            iter: 200 * Budget.Seconds
        );
        Assert.True(conflicts > 40 && none > 20, $"{conflicts} conflicts, {none} without");
        // Days are seldom too short since sessions end where their core does.
        Assert.All([PieceRuleKind.Exposures, PieceRuleKind.WeekLoad], kind => Assert.Contains(kind, kinds));
    }

    /// <summary>Plans as it does, and keeps what conflicts were told.</summary>
    private sealed class Listening : IWeekSolver
    {
        private readonly IWeekSolver solver = Solvers.Usual;

        public List<(PieceProblem Problem, bool Asked, IReadOnlyList<PieceRule> Core)> Told { get; } = [];

        public PieceAnswer? Solve(PieceProblem problem) => solver.Solve(problem);

        public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked)
        {
            var core = solver.Conflict(problem, asked);
            Told.Add((problem, asked, core));
            return core;
        }
    }

    [Fact]
    public void What_whole_students_are_told_conflicts_and_nothing_less_of_it_does()
    {
        var told = 0;
        Students.Any.Sample(
            at =>
            {
                // On two days of the week three exposures do not fit: there something is always in the way.
                var two = at.Programme.Slots.Select(s => s.Day.DayOfWeek).Distinct().Take(2).ToList();
                var tight = at.Programme with { Slots = [.. at.Programme.Slots.Where(s => two.Contains(s.Day.DayOfWeek))] };
                foreach (var programme in new[] { at.Programme, tight })
                {
                    var solver = new Listening();
                    var plan = new Planner(Shipped.Content, solver).Plan(Students.For(at.Who, programme));
                    Assert.True(plan.IsOk);
                    // Whatever is asked that did not fit has a reason, or costs more than it gives.
                    foreach (var (problem, asked, core) in solver.Told.Where(t => t.Core.Count > 0))
                    {
                        told++;
                        bool Conflicts(IEnumerable<PieceRule> rules) =>
                            Solved(new PieceModel(problem, RuleBook.Of(rules.ToHashSet(), asked)).Model) == CpSolverStatus.Infeasible;
                        Assert.True(Conflicts(core), string.Join(", ", core));
                        Assert.All(core, left => Assert.False(Conflicts(core.Where(r => r != left)), $"also without {left}"));
                    }
                }
            },
            time: 3 * Budget.Seconds,
            threads: 1
        );
        Assert.True(told > 0);
    }

    private static CpSolverStatus Solved(CpModel model) =>
        new CpSolver { StringParameters = "num_workers:1 max_deterministic_time:30" }.Solve(model);

    /// <summary>Written from the rules, and not from the model: whatever the sessions are, do all these rules hold?</summary>
    private static bool Holds(PieceProblem problem, bool asked, Func<PieceRule, bool> stands)
    {
        // Where a session's time is no rule, it may be several of its choices at once.
        IEnumerable<IReadOnlyList<Choice>> Of(PieceSlot slot)
        {
            var all = Enumerable.Range(1, (1 << slot.Choices.Count) - 1).Select(set => slot.Choices.Where((_, c) => (set >> c & 1) == 1));
            return all.Select(s => s.ToList()).Where(s => s.Count == 1 || !stands(new(PieceRuleKind.Time, slot.Week, slot.Day)));
        }
        var answers = problem.Slots.Aggregate(
            (IEnumerable<IReadOnlyList<Choice>[]>)
                [
                    [],
                ],
            (some, slot) => some.SelectMany(a => Of(slot).Select(c => (IReadOnlyList<Choice>[])[.. a, c]))
        );
        return answers.Any(answer => Keeps(problem, asked, answer, stands));
    }

    private static bool Keeps(PieceProblem problem, bool asked, IReadOnlyList<Choice>[] answer, Func<PieceRule, bool> stands)
    {
        var days = problem.Slots.Select((slot, i) => (slot.Day, slot.Week, Choices: answer[i])).ToList();
        for (var later = 0; later < days.Count; later++)
        for (var earlier = 0; earlier < later; earlier++)
        {
            var (one, two, apart) = (days[earlier], days[later], days[later].Day.DayNumber - days[earlier].Day.DayNumber);
            foreach (var tag in LoadTags.All.Where(t => one.Choices.Any(c => c.Heavy.Contains(t))))
            {
                if (
                    two.Choices.Any(c => c.Spacing.TryGetValue(tag, out var keeps) && apart < keeps)
                    && stands(new(PieceRuleKind.Spacing, two.Week, two.Day, one.Day, Tag: tag))
                )
                    return false;
                if (
                    apart == 1
                    && two.Choices.Any(c => c.Fresh.Contains(tag))
                    && stands(new(PieceRuleKind.Fresh, two.Week, two.Day, one.Day, Tag: tag))
                )
                    return false;
            }
        }
        foreach (var (tag, kind, window, most) in Running)
        {
            var heavy = days.Where(d => d.Choices.Any(c => c.Heavy.Contains(tag))).Select(d => d.Day).ToHashSet();
            var before = problem.Heavy.Where(d => d.Tags.Contains(tag)).Select(d => d.Day).ToHashSet();
            for (var from = days[0].Day.AddDays(1 - window); from <= days[^1].Day; from = from.AddDays(1))
            {
                var span = Enumerable.Range(0, window).Select(from.AddDays).ToList();
                var added = span.Count(heavy.Contains);
                if (added > Math.Max(0, most - span.Count(before.Contains)) && stands(new(kind, Day: from, Tag: tag, Number: most)))
                    return false;
            }
        }
        return LoadsKeep(problem, days, stands) && AskedKeep(problem, asked, days, stands);
    }

    private static readonly (LoadTag Tag, PieceRuleKind Kind, int Window, int Most)[] Running =
    [
        (LoadTag.Wrist, PieceRuleKind.WristDays, 3, 2),
        (LoadTag.Neck, PieceRuleKind.NeckDays, 7, 3),
    ];

    private static bool LoadsKeep(
        PieceProblem problem,
        List<(DateOnly Day, int Week, IReadOnlyList<Choice> Choices)> days,
        Func<PieceRule, bool> stands
    )
    {
        foreach (var (track, t) in problem.Loads.Select((track, t) => (track, t)))
        {
            var loads = track
                .Weeks.Select(w => w.Done + days.Where(d => d.Week == w.Week).Sum(d => d.Choices.Sum(c => c.Loads[t])))
                .ToList();
            foreach (var (limit, w) in track.Weeks.Select((limit, w) => (limit, w)))
            {
                bool Stands(PieceRuleKind kind) =>
                    stands(new(kind, limit.Week, Tag: track.Key.Tag, Limb: track.Key.Limb, Number: limit.Most));
                if (limit.Most is { } known)
                {
                    if (loads[w] > Math.Max(known, limit.Done) && Stands(PieceRuleKind.WeekLoad))
                        return false;
                    continue;
                }
                var based = w == 1 ? Math.Max(loads[0], limit.Before) : Math.Max(loads[w - 1], loads[w - 2]);
                if (
                    loads[w] > track.Entry
                    && loads[w] > based + track.Step
                    && 100 * loads[w] >= track.GrowthPercent * based
                    && Stands(PieceRuleKind.WeekLoad)
                )
                    return false;
                if (
                    limit.BackOff
                    && loads[w] > track.Step
                    && 100 * loads[w] >= track.BackOffPercent * loads[w - 1]
                    && Stands(PieceRuleKind.BackOff)
                )
                    return false;
            }
        }
        return true;
    }

    private static bool AskedKeep(
        PieceProblem problem,
        bool asked,
        List<(DateOnly Day, int Week, IReadOnlyList<Choice> Choices)> days,
        Func<PieceRule, bool> stands
    )
    {
        foreach (var goal in problem.Asked)
        {
            int Count(Func<Choice, bool> which) => days.Where(d => d.Week == goal.Week).Sum(d => d.Choices.Count(which));
            if (
                asked
                && Count(c => c.Exposes.Contains(goal.Skill)) < goal.Exposures
                && stands(new(PieceRuleKind.Exposures, goal.Week, Skill: goal.Skill, Number: goal.Exposures))
            )
                return false;
            var tests = Count(c => c.Tests.Contains(goal.Skill));
            if (goal.Test && (tests > 1 || asked && tests == 0) && stands(new(PieceRuleKind.Test, goal.Week, Skill: goal.Skill)))
                return false;
        }
        return true;
    }
}
