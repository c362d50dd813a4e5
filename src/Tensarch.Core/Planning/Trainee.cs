using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>One person on one day, as a session reads them; <see cref="Trainees"/> draws it from a student's state.</summary>
/// <param name="Minutes">What the day allows; see <see cref="SessionBuilder.FewestMinutes"/>.</param>
/// <param name="Courses">What the session is for, the most important first; at least one.</param>
/// <param name="WayBack">The way back after a break, on the day; none when there is none.</param>
/// <param name="Eased">What stays lighter after pain or a back-off.</param>
public sealed record Trainee(
    DateOnly Date,
    int Minutes,
    IReadOnlyList<CourseState> Courses,
    TrainingHistory History,
    WayBack? WayBack,
    IReadOnlyList<Eased> Eased,
    DayBars Bars,
    double BreathSeconds,
    int BlocksOwned
)
{
    public Absence Absence => Absences.After(History.DaysSinceLast(Date));

    /// <summary>Light passive work alone is left to them.</summary>
    public bool Mobile => Bars[LoadTag.PassiveEndRange] != BarLevel.Free;

    public CourseState On(string? skill) => Courses.FirstOrDefault(c => c.Skill == skill) ?? Courses[0];

    /// <summary>The day gates that a drill needs in a variant: its own, and before main work those that an answer at intake asks for.</summary>
    public IReadOnlyList<string> GatesOf(Drill drill, Variant variant) =>
        SessionOrder.IsMain(drill.Phase)
            ? [.. drill.GatesOf(variant).Union(Bars.GatesFor(drill.LoadsOf(variant, drill.DoseOf(variant), BreathSeconds)))]
            : drill.GatesOf(variant);

    /// <summary>Week one of a skill, or the way back after four weeks away.</summary>
    public bool FirstWeekOf(CourseState course) => course.DaysSinceStart < 7 || WayBack?.Absence == Absence.ReBaseline;

    /// <summary>Steps of growth so far: one for each week in which two sessions of the skill were done, and none on a way back that begins anew.</summary>
    public int StepOf(CourseState course) =>
        FirstWeekOf(course)
            ? 0
            : Math.Min(course.MostStep ?? int.MaxValue, Math.Min(course.DaysSinceStart / 7, Math.Max(1, course.WeeksTrained)));

    /// <summary>Of a drill: none of this week's where a region of it felt too much on the day after.</summary>
    public int StepOf(CourseState course, Drill drill) => HoldsBack(drill) ? Math.Max(0, StepOf(course) - 1) : StepOf(course);

    /// <summary>It takes no step this week.</summary>
    public bool HoldsBack(Drill drill) => Eased.Any(e => e.NoStep && e.Touches(drill.Key, drill.Loads));

    /// <summary>The full position is tried after the first-attempt delay only, and not in a first week.</summary>
    public bool AttemptsAllowedIn(CourseState course) =>
        !FirstWeekOf(course)
        && course.DaysSinceStart >= SessionBuilder.AttemptDelayDays
        && course.SessionsSinceStart >= SessionBuilder.AttemptDelaySessions;
}
