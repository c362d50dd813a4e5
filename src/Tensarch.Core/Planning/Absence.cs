namespace Tensarch.Core.Planning;

/// <summary>What a break does to the plan.</summary>
public enum Absence
{
    None,

    /// <summary>4 to 10 days: the last week's dose again.</summary>
    RepeatLastWeek,

    /// <summary>11 to 27 days: 30 % less, re-test first.</summary>
    Lighter,

    /// <summary>28 days and more: a new baseline, one stage lower suggested.</summary>
    ReBaseline,
}

public static class Absences
{
    /// <summary>The dose's share after a break of 11 to 27 days.</summary>
    public const double LighterShare = 0.7;

    /// <summary>Days away after which something else is asked for.</summary>
    internal static readonly IReadOnlyList<int> Turns = [4, 11, 28];

    /// <param name="daysSinceLast">Since the last logged session; none when there was none.</param>
    public static Absence After(int? daysSinceLast) =>
        daysSinceLast switch
        {
            null or <= 3 => Absence.None,
            <= 10 => Absence.RepeatLastWeek,
            <= 27 => Absence.Lighter,
            _ => Absence.ReBaseline,
        };
}
