using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>Draws from a student's state what their next session depends on.</summary>
public static class SessionRequests
{
    /// <summary>A gap counts for choosing props for so long.</summary>
    private const int GapCountsDays = 42;

    /// <param name="course">The skill to train.</param>
    /// <param name="date">Bars, easing and the way back are those of this day.</param>
    /// <exception cref="KeyNotFoundException">The course follows no approach that there is.</exception>
    public static SessionRequest Of(StudentState state, Course course, DateOnly date, int minutes, CatalogueContent content)
    {
        var gate = new Gate(content);
        var enrolment = course.Enrolment;
        var daysSinceStart = Math.Max(0, date.DayNumber - state.Now.DayOf(enrolment.StartedAt).DayNumber);
        var verdicts = course.Judge(gate);
        return new(
            course.Ladder,
            content.FindApproach(enrolment.Approach) ?? throw new KeyNotFoundException(enrolment.Approach),
            course.Evidence.Standard,
            date,
            minutes,
            SideOf(Side.Left),
            SideOf(Side.Right),
            course.Compare(content)?.Weaker,
            state.Sessions.LastOrDefault(s => s.Skill == course.Skill)?.FirstSide,
            daysSinceStart,
            state.Sessions.Count(s => s.Skill == course.Skill && s.At >= enrolment.StartedAt),
            state.LastSessionOn is { } on ? date.DayNumber - on.DayNumber : null,
            TrainingLoad.DaysSinceHeavy(state.Sessions, date, content),
            state.WayBackOn(date),
            state.EasedOn(date),
            TrainingLoad.DaysRunning(TrainingLoad.HeavyDays(state.Sessions, LoadTag.Wrist, content), date),
            TrainingLoad.HeavyDays(state.Sessions, LoadTag.Neck, content).Count(d => d < date && date.DayNumber - d.DayNumber < 7),
            verdicts.All(v => WayOut.Shown(gate, course.Ladder, v.Side, Math.Min(v.Stage, course.Ladder.Stages.Count), course.Evidence)),
            state.Bars.On(date),
            state.Facts.Person.Body.BreathSeconds,
            state.Facts.Person.BlocksOwned
        );

        SideState SideOf(Side side)
        {
            var verdict = verdicts.FirstOrDefault(v => v.Side == side) ?? verdicts[0];
            var wanted =
                from test in verdict.Tests
                where Want.Practises(test.Test, content) && test.Outcome != Outcome.Met
                select Want.Of(test.Test, content)
                    .With(HoldTests.Of(test.Test, test.ReadOn, course.Evidence, content), test.Outcome, date, daysSinceStart, minutes);
            return new(side, verdict.Stage, GapsOf(state, side, content), daysSinceStart < 7 ? [] : [.. wanted]);
        }
    }

    private static Dictionary<string, double> GapsOf(StudentState state, Side side, CatalogueContent content)
    {
        var evidence = state.Evidence with { Standard = state.Facts.Person.Standard };
        return (
            from key in content.DrillList.Select(d => d.GapMeasure).OfType<string>().Distinct()
            let last = PooledTest.From(evidence.Of(content.Measure(key), side, Warmth.Warm)).LastOrDefault()
            where last is not null && evidence.Now - last.Last <= TimeSpan.FromDays(GapCountsDays)
            select (key, Gap: Math.Max(0, last.Estimate.Value))
        ).ToDictionary(g => g.key, g => g.Gap);
    }
}
