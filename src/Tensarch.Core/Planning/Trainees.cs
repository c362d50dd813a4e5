using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>Draws from a student's state what their next session depends on.</summary>
public static class Trainees
{
    /// <summary>A gap counts for choosing props for so long.</summary>
    private const int GapCountsDays = 42;

    private const int SessionsAWeek = 2;

    /// <param name="courses">The skills to train, the most important first.</param>
    /// <param name="date">Bars, easing and the way back are those of this day.</param>
    /// <exception cref="KeyNotFoundException">A course follows no approach that there is.</exception>
    public static Trainee Of(StudentState state, IReadOnlyList<Course> courses, DateOnly date, int minutes, CatalogueContent content)
    {
        var states = courses.Select(c => Of(state, c, date, minutes, content)).ToList();
        return new(
            date,
            minutes,
            [.. FirstSides.Together(states)],
            state.History,
            state.WayBackOn(date),
            state.EasedOn(date),
            state.Bars.On(date),
            state.Facts.Person.Body.BreathSeconds,
            state.Facts.Person.BlocksOwned
        );
    }

    private static CourseState Of(StudentState state, Course course, DateOnly date, int minutes, CatalogueContent content)
    {
        var gate = new Gate(content);
        var enrolment = course.Enrolment;
        var began = state.Now.DayOf(enrolment.StartedAt);
        var daysSinceStart = Math.Max(0, date.DayNumber - began.DayNumber);
        var verdicts = course.Judge(gate);
        var sessions = state.Sessions.Where(s => s.Proves && s.Skills.Contains(course.Skill) && s.At >= enrolment.StartedAt).ToList();
        return new(
            course.Ladder,
            content.FindApproach(enrolment.Approach) ?? throw new KeyNotFoundException(enrolment.Approach),
            course.Evidence.Standard,
            SideOf(Side.Left),
            SideOf(Side.Right),
            course.Compare(content)?.Weaker,
            FirstSides.Last(course.Skill, state.Sessions),
            daysSinceStart,
            sessions.Count,
            sessions
                .GroupBy(s => (s.Day.DayNumber - began.DayNumber) / 7)
                .Count(week => week.Key < daysSinceStart / 7 && week.Count() >= SessionsAWeek),
            verdicts.All(v => WayOut.Shown(gate, course.Ladder, v.Side, Math.Min(v.Stage, course.Ladder.Stages.Count), course.Evidence))
        );

        ReadinessTest Asked(ReadinessTest test) =>
            test is HoldCriterion { Drill: { } drill } hold
                ? hold.For(content.FindDrill(drill), state.Bars.On(date), course.Evidence.StaysShort)
                : test;

        SideState SideOf(Side side)
        {
            var verdict = verdicts.FirstOrDefault(v => v.Side == side) ?? verdicts[0];
            var wanted =
                from test in verdict.Tests
                where Want.Practises(test.Test, content)
                select Want.Of(Asked(test.Test), content)
                    .With(
                        HoldTests.Of(test.Test, test.ReadOn, course.Evidence, content),
                        test.Outcome,
                        test.CountsUntil is { } until ? state.Now.DayOf(until) : null,
                        date,
                        daysSinceStart,
                        minutes
                    );
            return new(side, verdict.Stage, LastOf(state, side, d => d.GapMeasure, content), daysSinceStart < 7 ? [] : [.. wanted])
            {
                Supports = LastOf(state, side, d => d.FitsMeasure, content),
            };
        }
    }

    /// <summary>The last reading of each measure that some drill names, while it counts.</summary>
    private static Dictionary<string, double> LastOf(StudentState state, Side side, Func<Drill, string?> named, CatalogueContent content)
    {
        var evidence = state.Evidence with { Standard = state.Facts.Person.Standard };
        return (
            from key in content.DrillList.Select(named).OfType<string>().Distinct()
            let measure = content.Measure(key)
            let last = PooledTest.From(evidence.Of(measure, measure.PerSide ? side : null, Warmth.Warm)).LastOrDefault()
            where last is not null && evidence.Now - last.Last <= TimeSpan.FromDays(GapCountsDays)
            select (key, Value: Math.Max(0, last.Estimate.Value))
        ).ToDictionary(g => g.key, g => g.Value);
    }
}
