using System.ComponentModel.DataAnnotations;
using Tensarch.Core.Planning;

namespace Tensarch.Core.Students;

/// <summary>Morning or afternoon: a re-test is taken in the same half of the day as the baseline.</summary>
public enum DayHalf
{
    Am,
    Pm,
}

/// <summary>A day on which a student can train: every week on a weekday, or once on a date.</summary>
/// <param name="Minutes">What that day allows.</param>
public sealed record AvailableDay(
    DayOfWeek? Weekday,
    DateOnly? Date,
    [Range(SessionBuilder.FewestMinutes, SessionBuilder.MostMinutes)] int Minutes,
    DayHalf Half
);

/// <summary>The props that a student may have at home; blocks are counted.</summary>
public static class HomeProps
{
    public static readonly IReadOnlyList<string> All =
    [
        "folded-blanket",
        "cushion",
        "bolster",
        "strap",
        "wedge-2-5",
        "wedge-5",
        "chair",
        "bench",
        "wall",
        "knee-pad",
        "sliders",
    ];
}
