namespace Tensarch.Core.Programmes;

public enum DayHalf
{
    Morning,
    Afternoon,
}

/// <summary>A skill that a programme is for.</summary>
/// <param name="Priority">1 the most important, 5 the least.</param>
/// <param name="Target">The day by which the coach hopes for it.</param>
/// <param name="RangeTests">Sides of ranges that its next gate still asks to be measured.</param>
public sealed record Goal(string Skill, int Priority, DateOnly? Target = null, int RangeTests = 0);

/// <summary>A day of the week on which there is time.</summary>
public sealed record TrainingDayOfWeek(DayOfWeek Day, int Minutes, DayHalf Half = DayHalf.Afternoon);

/// <summary>Time for one session.</summary>
public sealed record TrainingSlot(DateOnly Day, int Minutes, DayHalf Half = DayHalf.Afternoon);

/// <summary>What a student trains for, when there is time, and for how long.</summary>
/// <param name="Start">The first day of the first week.</param>
/// <param name="Weeks">4 to 16.</param>
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

    /// <summary>The same days every week.</summary>
    public static IReadOnlyList<TrainingSlot> Weekly(DateOnly start, int weeks, IReadOnlyList<TrainingDayOfWeek> days) =>
        [
            .. from offset in Enumerable.Range(0, 7 * weeks)
            let day = start.AddDays(offset)
            from at in days
            where at.Day == day.DayOfWeek
            orderby day, at.Half
            select new TrainingSlot(day, at.Minutes, at.Half),
        ];
}
