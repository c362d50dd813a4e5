using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

public enum DayReasonKind
{
    /// <summary>A back-off week.</summary>
    BackOff,

    /// <summary>An exposure of a skill: the so manieth (number) of so many (of) in its week.</summary>
    Exposure,

    /// <summary>A skill is tested; number: minutes to measure ranges.</summary>
    Tested,

    /// <summary>The day is for something of its own.</summary>
    Theme,

    /// <summary>A light day, as the coach set it.</summary>
    LightDay,

    /// <summary>More of a skill would be too near another day's heavy work at the end of the same range.</summary>
    Spacing,

    /// <summary>More of a skill would be heavy the day before a test that wants its region fresh, or a test the day after heavy work.</summary>
    Fresh,

    /// <summary>More of a skill would load the hands heavily on too many days running.</summary>
    WristDays,

    /// <summary>More of a skill would load the neck on too many days of seven.</summary>
    NeckDays,

    /// <summary>More of a skill would be over what the week may carry; of: the most.</summary>
    WeekLoad,

    /// <summary>More of a skill would be a second hard day running.</summary>
    HardDays,

    /// <summary>The skill has all the exposures in the week that it asks for.</summary>
    Enough,

    /// <summary>More of a skill would make the largest of these weeks larger; of: what that loads.</summary>
    LargestWeek,

    /// <summary>More of a skill would cost another session of the weeks more than it gives here.</summary>
    Others,

    /// <summary>No more of a skill may be on this day, whatever stands around it: what bars it, its first week, its minutes.</summary>
    NoMore,

    /// <summary>The week is near the most that it may carry: number of of.</summary>
    NearCeiling,

    /// <summary>It stays as it is when the rest is planned again.</summary>
    Pinned,

    /// <summary>A coach changed the session itself.</summary>
    ByHand,

    /// <summary>It is pinned over a rule.</summary>
    Bent,
}

/// <summary>Why a session of a plan is as it is.</summary>
/// <param name="Skill">The skill that it is about.</param>
/// <param name="Day">The other day.</param>
/// <param name="Number">In minutes of heavy work, for the wrist in bodyweight-seconds, where it is a load.</param>
/// <param name="Code">Of a rule that is bent.</param>
public sealed record DayReason(
    DayReasonKind Kind,
    string? Skill = null,
    DateOnly? Day = null,
    LoadTag? Tag = null,
    Side? Limb = null,
    double? Number = null,
    double? Of = null,
    DayTheme? Theme = null,
    string? Code = null
);
