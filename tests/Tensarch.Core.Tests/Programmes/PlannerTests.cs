using System.Diagnostics;
using CsCheck;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;
using Tensarch.Solver;

namespace Tensarch.Core.Tests.Programmes;

public class PlannerTests
{
    private static readonly Planner Planner = new(Shipped.Content, new Timed());

    private sealed class Timed : IWeekSolver
    {
        public PieceAnswer? Solve(PieceProblem p)
        {
            var w = Stopwatch.StartNew();
            var a = new CpWeekSolver().Solve(p);
            Times.Add($"{w.ElapsedMilliseconds} ms solve, {p.Slots.Sum(s => s.Choices.Count)} choices {p.Loads.Count} tracks");
            return a;
        }
    }

    private static readonly List<string> Times = [];

    private static string Said(ProgrammePlan plan) =>
        string.Join(
            '\n',
            plan.Pieces.Select(p => $"weeks {p.FromWeek}+{p.Weeks}: cost {p.Cost} bound {p.Bound} gap {p.Gap:F3}")
                .Concat(
                    plan.Days.Select(d =>
                        $"{d.Week} {d.Slot.Day:ddd} {d.Slot.Minutes} {(d.BackOff ? "back" : "")} {d.Offer?.Ask} {d.Offer?.Seconds / 60} min, tests {d.TestMinutes}; {string.Join(",", d.Offer?.Exposed ?? [])}"
                    )
                )
                .Concat(plan.ShortWeeks.Select(s => $"short {s.Week} {s.Skill} {s.Has}/{s.Asked}"))
                .Concat(plan.Loads.Where(l => l.Planned > 0).Select(l => $"load {l.Week} {l.Key} {l.Planned}/{l.Ceiling}"))
        );

    [Fact]
    public void Whatever_is_planned_passes_the_checker()
    {
        var (planned, refused) = (0, 0);
        Students.Any.Sample(
            at =>
            {
                var plan = Planner.Plan(at.Programme, Students.On(at.Who));
                if (plan.IsOk)
                    Interlocked.Increment(ref planned);
                else
                    Interlocked.Increment(ref refused);
                Assert.True(
                    plan.IsOk || plan.Problems[0].Code == "planInfeasible",
                    string.Join(", ", plan.Problems)
                        + string.Join(
                            "; ",
                            at.Who.Courses.Select(c =>
                                $"{c.Skill} {c.Left.Stage}/{c.Right.Stage} {c.Approach.Key} day {c.DaysSinceStart} {c.SessionsSinceStart} sessions"
                            )
                        )
                        + $" back {at.Who.WayBack} "
                        + string.Join(", ", LoadTags.All.Where(t => at.Who.Bars[t] != BarLevel.Free).Select(t => $"{t} {at.Who.Bars[t]}"))
                        + string.Join(
                            ", ",
                            at.Programme.Slots.TakeWhile(s => at.Programme.WeekOf(s.Day) == 0).Select(s => $"{s.Day:ddd} {s.Minutes}")
                        )
                );
            },
            time: Budget.Seconds,
            threads: 2
        );
        Console.Error.WriteLine($"{planned} {refused}");
    }

    [Fact]
    public void Look()
    {
        var said = new List<string>();
        foreach (
            var skills in new[]
            {
                new[] { ("front-split", 4) },
                [("front-split", 4), ("handstand", 4)],
                [("front-split", 4), ("handstand", 4), ("shoulderstand", 3)],
            }
        )
        {
            var who = Students.Middle(skills);
            var watch = Stopwatch.StartNew();
            var plan = Planner.Plan(
                Students.Weekly(who, 8, (DayOfWeek.Monday, 60), (DayOfWeek.Wednesday, 45), (DayOfWeek.Saturday, 75)),
                Students.On(who)
            );
            said.Add($"{watch.ElapsedMilliseconds} ms; " + string.Join("; ", Times));
            Times.Clear();
            said.Add(plan.IsOk ? Said(plan.Value) : string.Join(", ", plan.Problems));
        }
        Assert.Fail(string.Join('\n', said));
    }
}
