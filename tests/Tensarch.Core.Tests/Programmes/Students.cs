using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Tests.Planning;

namespace Tensarch.Core.Tests.Programmes;

/// <summary>Made-up students who are planned for: what is known of them on any day, with nothing of the plan.</summary>
internal static class Students
{
    public static readonly DateOnly Monday = new(2026, 3, 9);

    /// <summary>The same student on another day: time passes, and nothing is trained.</summary>
    public static Func<DateOnly, int, Trainee> On(Trainee who) =>
        (day, minutes) =>
            who with
            {
                Date = day,
                Minutes = minutes,
                Courses =
                [
                    .. who.Courses.Select(c =>
                        c with
                        {
                            DaysSinceStart = c.DaysSinceStart + Math.Max(0, day.DayNumber - who.Date.DayNumber),
                        }
                    ),
                ],
                WayBack = Core.Students.WayBack.On(day, who.History.Days.Select(d => d.Day)),
            };

    public static PlanFor For(Trainee who, Programme programme) => new(programme, On(who), programme.Start);

    /// <summary>Somebody in the middle of each of these skills, who trained until lately.</summary>
    public static Trainee Middle(params (string Ladder, int Stage)[] skills)
    {
        OneSkill Of((string Ladder, int Stage) at) =>
            Panel.Request(new(at.Ladder, at.Stage, "long-and-ramped", 60, "no cautions", "middle"));
        return ((Trainee)Of(skills[0])) with { Courses = [.. skills.Select(s => Of(s).Course)], Date = Monday };
    }

    public static Programme Weekly(Trainee who, int weeks, params (DayOfWeek Day, int Minutes)[] days) =>
        new(
            Monday,
            weeks,
            [.. who.Courses.Select((c, i) => new Goal(c.Skill, Math.Min(5, i + 1), RangeTests: i == 0 ? 2 : 0))],
            new ProgrammeSketch(
                Monday,
                weeks,
                [],
                [.. days.Select(d => new Core.Students.AvailableDay(d.Day, null, d.Minutes, Core.Students.DayHalf.Pm))]
            ).Slots()
        );

    public static readonly Gen<(Trainee Who, Programme Programme)> Any =
        from who in SeveralSkillsTests.AnyTrainee
        from weeks in Gen.Int[4, 8]
        from minutes in Gen.Int[3, 15].Array[1, 6]
        from days in Gen.Shuffle(Enum.GetValues<DayOfWeek>(), 6, 6)
        from begins in Gen.Bool
        from sessions in Gen.Int[0, 5]
        let at = who with
        {
            Date = Monday,
            // Half of them have only begun: what they may do depends on what they will have trained by then.
            Courses = begins
                ? [.. who.Courses.Select(c => c with { DaysSinceStart = 2 * sessions, SessionsSinceStart = sessions, WeeksTrained = 0 })]
                : who.Courses,
        }
        select (at, Weekly(at, weeks, [.. minutes.Select((m, i) => (days[i], 5 * m + 5))]));
}
