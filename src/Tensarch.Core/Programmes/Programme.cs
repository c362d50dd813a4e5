using System.ComponentModel.DataAnnotations;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>What a coach sets: what for, when there is time, and for how long.</summary>
/// <param name="Start">The first day of the first week.</param>
/// <param name="Days">On which there is time, every week or once.</param>
/// <param name="Off">Days on which there is none after all.</param>
/// <param name="Moved">Parts of days from which what was planned has moved away: nothing comes in its place.</param>
/// <param name="Themes">Days that are for something of their own; a date says more than its weekday.</param>
public sealed record ProgrammeSketch(
    DateOnly Start,
    [Range(Programme.FewestWeeks, Programme.MostWeeks)] int Weeks,
    [MaxLength(Programme.MostGoals)] IReadOnlyList<GoalSketch> Goals,
    [MaxLength(ProgrammeSketch.MostDays)] IReadOnlyList<AvailableDay> Days,
    [MaxLength(ProgrammeSketch.MostDays)] IReadOnlyList<DateOnly>? Off = null,
    [MaxLength(ProgrammeSketch.MostDays)] IReadOnlyList<ThemedDay>? Themes = null,
    [MaxLength(ProgrammeSketch.MostSlots)] IReadOnlyList<DayPart>? Moved = null
)
{
    public const int MostDays = 60;

    /// <summary>A session on every day of the longest programme.</summary>
    public const int MostSlots = 7 * Programme.MostWeeks;

    /// <summary>So many sessions a day at most: a morning and an afternoon.</summary>
    private const int MostHalves = 2;

    public DateOnly End => Start.AddDays(7 * Weeks - 1);

    /// <summary>All time that there is, in order; of two on the same half of a day the longer.</summary>
    public IReadOnlyList<TrainingSlot> Slots() =>
        [
            .. from offset in Enumerable.Range(0, 7 * Weeks)
            let day = Start.AddDays(offset)
            where Off?.Contains(day) != true
            from half in Enum.GetValues<DayHalf>().Take(MostHalves)
            where Moved?.Contains(new(day, half)) != true
            let here = Days.Where(d => d.Half == half && (d.Date is { } date ? date == day : d.Weekday == day.DayOfWeek)).ToList()
            where here.Count > 0
            let theme = ThemeOf(day)
            select new TrainingSlot(day, here.Max(d => d.Minutes), half, theme?.Theme, theme?.Light == true),
        ];

    /// <summary>With the time of one session on another part of a day.</summary>
    public ProgrammeSketch WithMoved(DayPart from, DayPart to, int minutes)
    {
        // Of a day off that has a session after all, the other half stays off.
        var off = Off?.Contains(to.Day) == true;
        var others = off ? Enum.GetValues<DayHalf>().Where(h => h != to.Half).Select(h => new DayPart(to.Day, h)) : [];
        return this with
        {
            Days =
            [
                .. Days.Where(d => d.Date is null || new DayPart(d.Date.Value, d.Half) != from && new DayPart(d.Date.Value, d.Half) != to),
                new(null, to.Day, minutes, to.Half),
            ],
            Off = off ? [.. Off!.Where(d => d != to.Day)] : Off,
            Moved = [.. (Moved ?? []).Concat(others).Append(from).Where(p => p != to).Distinct()],
        };
    }

    private ThemedDay? ThemeOf(DateOnly day) =>
        Themes?.FirstOrDefault(t => t.Date == day) ?? Themes?.FirstOrDefault(t => t.Date is null && t.Weekday == day.DayOfWeek);

    /// <returns><c>noGoals</c>, <c>namedTwice</c>, <c>noTime</c>, <c>tooManySessions</c> (number: most) or <c>targetOutside</c>, each at its field.</returns>
    public IReadOnlyList<Problem> Check()
    {
        var problems = new List<Problem>();
        if (Goals.Count == 0)
            problems.Add(Problem.Of("noGoals", "goals"));
        foreach (var (i, goal) in Goals.Index())
        {
            if (Goals.Take(i).Any(g => g.Skill == goal.Skill))
                problems.Add(Problem.Of("namedTwice", $"goals[{i}].skill"));
            if (goal.Target is { } target && target < Start)
                problems.Add(Problem.Of("targetOutside", $"goals[{i}].target"));
        }
        foreach (var (i, day) in Days.Index())
            if (day.Weekday is null == day.Date is null)
                problems.Add(Problem.Of("oneOfTwo", $"days[{i}].weekday"));
        foreach (var (i, day) in (Themes ?? []).Index())
            if (day.Weekday is null == day.Date is null)
                problems.Add(Problem.Of("oneOfTwo", $"themes[{i}].weekday"));
        if (problems.Count == 0 && Slots().Count is var slots && slots is 0 or > MostSlots)
            problems.Add(slots == 0 ? Problem.Of("noTime", "days") : Problem.Of("tooManySessions", "days", ("most", MostSlots)));
        return problems;
    }
}

/// <summary>A part of one day.</summary>
public readonly record struct DayPart(DateOnly Day, DayHalf Half);

/// <param name="Priority">1 the most important.</param>
/// <param name="Target">The day by which the coach hopes for it.</param>
public sealed record GoalSketch(
    [RegularExpression(Key.Pattern)] string Skill,
    [Range(1, Programme.MostGoals)] int Priority,
    DateOnly? Target = null
);

/// <summary>A skill that a programme is for.</summary>
/// <param name="Priority">1 the most important, 5 the least.</param>
/// <param name="RangeTests">Sides of ranges that its next gate still asks to be measured.</param>
public sealed record Goal(string Skill, int Priority, int RangeTests = 0);

/// <summary>Time for one session.</summary>
/// <param name="Light">Nothing of it at this week's step.</param>
public sealed record TrainingSlot(DateOnly Day, int Minutes, DayHalf Half = DayHalf.Pm, DayTheme? Theme = null, bool Light = false);

/// <summary>What a student trains for, and when.</summary>
/// <param name="Start">The first day of the first week.</param>
/// <param name="Slots">All of them, in any order.</param>
public sealed record Programme(DateOnly Start, int Weeks, IReadOnlyList<Goal> Goals, IReadOnlyList<TrainingSlot> Slots)
{
    public const int FewestWeeks = 4;
    public const int MostWeeks = 16;
    public const int MostGoals = 5;

    public DateOnly End => Start.AddDays(7 * Weeks - 1);

    public int WeekOf(DateOnly day) => (day.DayNumber - Start.DayNumber) / 7;

    /// <summary>The most important goal first.</summary>
    public IReadOnlyList<Goal> ByPriority => [.. Goals.OrderBy(g => g.Priority)];
}
