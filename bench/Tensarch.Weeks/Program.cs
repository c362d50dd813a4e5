using System.Diagnostics;
using System.Globalization;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Programmes;
using Tensarch.Solver;
using Tensarch.Weeks;

// Plans of weeks, measured. Usage: Tensarch.Weeks grid EACH [GOALS] | monolith EACH [TIMES] | roster STUDENTS | seasons STUDENTS | read SEED [WEEKS]
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var content = ContentLoader.Load();
int? Arg(int at) => args.Length > at ? int.Parse(args[at], CultureInfo.InvariantCulture) : null;
var count = Arg(1) ?? 0;
Machine();
switch (args.FirstOrDefault())
{
    case "grid":
        Grid(count > 0 ? count : 10, Arg(2));
        break;
    case "monolith":
        Monolith(count > 0 ? count : 5, Arg(2) ?? 3);
        break;
    case "roster":
        Roster(count);
        break;
    case "read":
        Read(count, Arg(2) ?? 8);
        break;
    case "seasons":
        SeasonTable(count);
        break;
    default:
        Console.Error.WriteLine(
            "usage: Tensarch.Weeks grid [EACH] [GOALS] | monolith [EACH] [TIMES] | roster STUDENTS | seasons STUDENTS | read SEED [WEEKS]"
        );
        break;
}

Machine();

// The machine is shared and runs at half its pace at times: the same sum, so that runs of different hours can be held against each other.
static void Machine()
{
    var (watch, sum) = (Stopwatch.StartNew(), 0UL);
    for (var i = 0UL; i < 1_000_000_000; i++)
        sum = 3 * sum + i;
    Console.WriteLine($"the machine: a thousand million steps in {watch.Elapsed.TotalSeconds:0.00} s{(sum == 0 ? " " : "")}");
}

PlanFor Asked(Case of, int weeks) => Seasons.Asked(content, of, of.Body(content).State(Case.Start), weeks, Case.Start, []);

static double At(List<double> sorted, double share) =>
    sorted.Count == 0 ? 0 : sorted[Math.Min(sorted.Count - 1, (int)(share * sorted.Count))];

// Time and proven gap by length and goals, and what the greedy planner's answers cost on the same pieces.
void Grid(int each, int? only)
{
    Warm();
    Console.WriteLine(
        "| weeks | goals | whole plan, median s | a piece: solver p50 / p95 / max ms | largest gap | cost | greedy cost | greedy has none |"
    );
    Console.WriteLine("|---|---|---|---|---|---|---|---|");
    foreach (var weeks in new[] { 4, 8, 16 })
        for (var goals = only ?? 1; goals <= (only ?? Programme.MostGoals); goals++)
        {
            var (whole, gap, cost, greedy, none) = (new List<double>(), 0.0, 0L, 0L, 0);
            var timed = new TimedSolver(new CpWeekSolver());
            for (var i = 0; i < each; i++)
            {
                var asked = Asked(Case.Of(content, 1000 * goals + i, goals), weeks);
                var watch = Stopwatch.StartNew();
                var plan = new Planner(content, timed).Plan(asked);
                whole.Add(watch.Elapsed.TotalSeconds);
                gap = Math.Max(gap, plan.IsOk ? plan.Value.Pieces.Max(p => p.Gap) : 0);
            }
            foreach (var (problem, answer) in timed.Solved)
                if (new GreedyWeekSolver().Solve(problem) is { } other)
                    (cost, greedy) = (cost + answer.Cost, greedy + other.Cost);
                else
                    none++;
            whole.Sort();
            timed.Times.Sort();
            Console.WriteLine(
                $"| {weeks} | {goals} | {At(whole, 0.5):0.00} | {At(timed.Times, 0.5):0} / {At(timed.Times, 0.95):0} / {timed.Times[^1]:0} | {100 * gap:0.00} % | {cost} | {greedy} | {none} of {timed.Solved.Count} |"
            );
        }
}

// Twelve weeks in three pieces, and as one, with so many times the work that a piece has.
void Monolith(int each, int times)
{
    const int Weeks = 12;
    Warm();
    var whole = content.With(content.Programme with { PieceWeeks = Weeks });
    Console.WriteLine("| goals | limit | solver, median s | cost | largest gap | without a plan |");
    Console.WriteLine("|---|---|---|---|---|---|");
    for (var goals = 1; goals <= 3; goals++)
        foreach (
            var (name, under, limit) in new[]
            {
                ("pieces", content, CpWeekSolver.UsualWork),
                ($"monolith, {times}", whole, times * CpWeekSolver.UsualWork),
            }
        )
        {
            var (seconds, cost, gap, none) = (new List<double>(), 0L, 0.0, 0);
            for (var i = 0; i < each; i++)
            {
                var timed = new TimedSolver(new CpWeekSolver(limit));
                var plan = new Planner(under, timed).Plan(Asked(Case.Of(content, 1000 * goals + i, goals), Weeks));
                seconds.Add(timed.Times.Sum() / 1000);
                if (!plan.IsOk)
                {
                    none++;
                    continue;
                }
                cost += plan.Value.Pieces.Sum(p => p.Cost);
                gap = Math.Max(gap, plan.Value.Pieces.Max(p => p.Gap));
            }
            seconds.Sort();
            Console.WriteLine($"| {goals} | {name} | {At(seconds, 0.5):0.00} | {cost} | {100 * gap:0.00} % | {none} of {each} |");
        }
}

// The whole of a studio, as many at once as the server plans, by a solver in processes of its own as there.
void Roster(int students)
{
    Warm();
    using var solver = new SolverProcess();
    var times = new System.Collections.Concurrent.ConcurrentBag<double>();
    var watch = Stopwatch.StartNew();
    Parallel.For(
        0,
        students,
        new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount },
        i =>
        {
            var from = watch.Elapsed.TotalSeconds;
            var plan = new Planner(content, solver).Plan(Asked(Case.Of(content, i), 8));
            if (!plan.IsOk)
                Console.WriteLine($"student {i}: {plan.Problems[0].Code} {plan.Problems[0].Field}");
            times.Add(watch.Elapsed.TotalSeconds - from);
        }
    );
    var sorted = times.Order().ToList();
    Console.WriteLine(
        $"{students} students, 8 weeks, 1 to 3 goals, {Environment.ProcessorCount} at once: {watch.Elapsed.TotalSeconds:0.0} s; one: median {At(sorted, 0.5):0.00} s, p95 {At(sorted, 0.95):0.00} s, max {sorted[^1]:0.00} s"
    );
}

// A plan as its coach reads it.
void Read(int seed, int weeks)
{
    var of = Case.Of(content, seed);
    var plan = new Planner(content, new CpWeekSolver()).Plan(Asked(of, weeks)).Value;
    Console.WriteLine($"## {string.Join(", ", of.Skills.Select(s => $"{s.Skill} from stage {s.Stage}"))}");
    foreach (var week in plan.Days.GroupBy(d => d.Week))
    {
        Console.WriteLine($"\n### Week {week.Key + 1}{(week.First().BackOff ? ", back-off" : "")}\n");
        foreach (var day in week)
        {
            Console.WriteLine(
                $"- **{day.Slot.Day:ddd d MMM}, {day.Slot.Minutes} min**: {day.Offer?.Ask.ToString() ?? "nothing"}; {day.Offer?.Seconds / 60} min, tests {day.TestMinutes} min"
            );
            foreach (var block in day.Offer?.Blocks ?? [])
                Console.WriteLine(
                    $"  - {block.Skill} {block.Kind}, {block.Seconds / 60} min{(block.Exposes ? ", exposure" : "")}{(block.Entries ? ", entries" : "")}: {string.Join(", ", block.Drills.Select(d => d.Drill))}"
                );
            foreach (var why in day.WhyNotMore ?? [])
                Console.WriteLine($"  - no more of {why.Skill}: {why.Kind} {why.Day:ddd} {why.Tag} {why.Number} {why.Of}");
        }
    }
    foreach (var week in plan.ShortWeeks)
        Console.WriteLine($"- short: week {week.Week + 1} {week.Skill} {week.Has} of {week.Asked}");
    foreach (var load in plan.Loads.GroupBy(l => l.Key))
        Console.WriteLine($"- {load.Key}: {string.Join(" ", load.Select(l => $"{l.Load}/{l.Ceiling}"))}");
}

// Students who do as the plan says for twelve weeks, under the solver's plan and under the greedy one. Whoever gets further trains
// later stages, which load more: beside all of them stand those who passed as many gates under both.
void SeasonTable(int students)
{
    const int Weeks = 12;
    var (solver, greedy) = (Live(() => new CpWeekSolver()), Live(() => new GreedyWeekSolver()));
    var same = Enumerable.Range(0, students).Where(i => solver[i].Passed == greedy[i].Passed).ToList();
    Console.WriteLine(
        $"| | solver, all {students} | greedy, all {students} | solver, the {same.Count} with as many gates under both | greedy, the same {same.Count} |"
    );
    Console.WriteLine("|---|---|---|---|---|");
    Row("gates passed", of => $"{of.Sum(s => s.Passed)}");
    Row("exposures", of => $"{of.Sum(s => s.Exposures)}");
    foreach (var tag in LoadCeiling.Counted)
        Row($"largest week, {tag}, mean over students", of => Mean(of, tag));
    Row("days on which no plan was found", of => $"{of.Sum(s => s.Stuck)}");
    Console.WriteLine();
    Console.WriteLine(
        $"More gates than under the other: {Better(solver, greedy)} under the solver, {Better(greedy, solver)} under the greedy planner."
    );

    List<Season> Live(Func<IWeekSolver> with) =>
        [
            .. Enumerable
                .Range(0, students)
                .AsParallel()
                .AsOrdered()
                .WithDegreeOfParallelism(Environment.ProcessorCount)
                .Select(i => Seasons.Live(content, Case.Of(content, i), with(), Weeks)),
        ];

    void Row(string name, Func<IReadOnlyList<Season>, string> of) =>
        Console.WriteLine(
            $"| {name} | {of(solver)} | {of(greedy)} | {of([.. same.Select(i => solver[i])])} | {of([.. same.Select(i => greedy[i])])} |"
        );

    static int Better(List<Season> one, List<Season> other) => one.Zip(other).Count(x => x.First.Passed > x.Second.Passed);

    static string Mean(IReadOnlyList<Season> of, Tensarch.Core.Students.LoadTag tag)
    {
        var mean = of.Select(s => s.Peaks.Where(p => p.Key.Tag == tag).Select(p => p.Value).DefaultIfEmpty(0).Max())
            .DefaultIfEmpty(0)
            .Average();
        return $"{LoadCeiling.Shown(tag, (int)mean)}";
    }
}

void Warm()
{
    for (var i = 0; i < 2; i++)
        new Planner(content, new CpWeekSolver()).Plan(Asked(Case.Of(content, 900 + i, 2), 4));
}
