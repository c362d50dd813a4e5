using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Weeks;

/// <summary>A student with their programme, made of a seed.</summary>
internal sealed record Case(int Seed, IReadOnlyList<(string Skill, int Stage)> Skills, IReadOnlyList<AvailableDay> Days)
{
    public static readonly DateOnly Start = new(2026, 3, 2);

    public static Case Of(CatalogueContent content, int seed, int? goals = null)
    {
        var random = new Random(seed);
        var skills = content.Skills.ToArray();
        random.Shuffle(skills);
        var days = Enum.GetValues<DayOfWeek>();
        random.Shuffle(days);
        return new(
            seed,
            [.. skills.Take(goals ?? random.Next(1, 4)).Select(l => (l.Key, random.Next(1, l.Stages.Count + 1)))],
            [.. days.Take(random.Next(3, 6)).Select(d => new AvailableDay(d, null, 15 * random.Next(3, 6), DayHalf.Pm))]
        );
    }

    public Body Body(CatalogueContent content) => new(content, Skills, Start, Seed);
}

/// <summary>What came of a programme.</summary>
/// <param name="Passed">Gates.</param>
/// <param name="Peaks">By load the largest week there was.</param>
/// <param name="Stuck">Days on which no plan was found.</param>
internal sealed record Season(int Passed, Dictionary<LoadKey, int> Peaks, int Stuck, int Exposures);

/// <summary>Plans for made-up students, and lets them live through it.</summary>
internal static class Seasons
{
    public static PlanFor Asked(
        CatalogueContent content,
        Case of,
        StudentState state,
        int weeks,
        DateOnly from,
        IReadOnlyList<DoneDay> done
    )
    {
        var gate = new Gate(content);
        var courses = of.Skills.Select(s => state.On(s.Skill)!).ToList();
        var known = new Dictionary<(DateOnly, int), Trainee>();
        return new(
            new(
                Case.Start,
                weeks,
                [.. courses.Select((c, i) => new Goal(c.Skill, Math.Min(Programme.MostGoals, i + 1), Ranges(content, c.Judge(gate))))],
                [.. new ProgrammeSketch(Case.Start, weeks, [], of.Days).Slots().Where(s => s.Day >= from)]
            ),
            (day, minutes) =>
                known.TryGetValue((day, minutes), out var who)
                    ? who
                    : known[(day, minutes)] = Trainees.Of(state, courses, day, minutes, content),
            from
        )
        {
            Done = done,
        };
    }

    private static int Ranges(CatalogueContent content, IReadOnlyList<GateVerdict> verdicts) =>
        verdicts
            .SelectMany(v => v.Tests)
            .Where(t => t.Outcome != Outcome.Met && t.Test.ReadMeasure is not null && !Want.Practises(t.Test, content))
            .Select(t => (t.Test.ReadMeasure, t.ReadOn))
            .Distinct()
            .Count();

    /// <summary>Lives through a programme, planned again whenever a gate opens.</summary>
    public static Season Live(CatalogueContent content, Case of, IWeekSolver solver, int weeks)
    {
        var (body, planner, done, stuck) = (of.Body(content), new Planner(content, solver), new List<DoneDay>(), 0);
        var end = Case.Start.AddDays(7 * weeks);
        for (var from = Case.Start; from < end; )
        {
            // So far as a piece reaches: what comes after it is planned again anyway.
            var week = (from.DayNumber - Case.Start.DayNumber) / 7;
            var until = Math.Min(weeks, (week / content.Programme.PieceWeeks + 1) * content.Programme.PieceWeeks);
            var plan = planner.Plan(Asked(content, of, body.State(from), until, from, done));
            if (!plan.IsOk)
            {
                // Nothing is planned on the day that leads nowhere; a coach would look at it by hand.
                (stuck, from) = (stuck + 1, from.AddDays(1));
                continue;
            }
            from = Case.Start.AddDays(7 * until);
            foreach (var day in plan.Value.Days.Where(d => d.Offer is not null))
            {
                var (exposed, tested) = (day.Offer!.Exposed.ToList(), day.Tested.ToList());
                body.Train(day.Offer.Plan, exposed, tested);
                done.Add(new(day.Slot.Day, exposed, tested));
                if (body.Decide(day.Slot.Day))
                {
                    from = day.Slot.Day.AddDays(1);
                    break;
                }
            }
        }
        var history = body.State(end).History;
        return new(
            body.Passed,
            history
                .Days.Where(d => d.Day >= Case.Start)
                .GroupBy(d => (d.Day.DayNumber - Case.Start.DayNumber) / 7)
                .SelectMany(w =>
                    w.SelectMany(d => Keys.Select(k => (Key: k, Load: d.Loads[k])))
                        .GroupBy(x => x.Key)
                        .Select(g => (g.Key, Load: g.Sum(x => x.Load)))
                )
                .GroupBy(x => x.Key)
                .ToDictionary(g => g.Key, g => g.Max(x => x.Load)),
            stuck,
            done.Sum(d => d.Skills.Count)
        );
    }

    private static readonly IReadOnlyList<LoadKey> Keys =
    [
        .. LoadCeiling.Counted.SelectMany(t => SideExtensions.Both.Select(s => new LoadKey(t, s))),
    ];
}
