using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>What a rule of a piece asks for.</summary>
public enum PieceRuleKind
{
    /// <summary>A goal is trained as often in a week as it asks for.</summary>
    Exposures,

    /// <summary>A goal is tested once in a week.</summary>
    Test,

    /// <summary>A session is one thing only: there is not more time.</summary>
    Time,

    /// <summary>Days between heavy work at the end of a range.</summary>
    Spacing,

    /// <summary>An easier day before a test.</summary>
    Fresh,

    /// <summary>Heavy wrist load on at most so many days running.</summary>
    WristDays,

    /// <summary>The neck loaded on at most so many days of seven.</summary>
    NeckDays,

    /// <summary>A load of a week.</summary>
    WeekLoad,

    /// <summary>A load of a back-off week.</summary>
    BackOff,
}

/// <summary>One rule at one place: what can be taken away to see whether the rest holds.</summary>
/// <param name="Week">Of the programme, counted from 0.</param>
/// <param name="Day">Of the session; of two the later, or the first of several.</param>
/// <param name="Earlier">The session that it stands too near to.</param>
/// <param name="Number">Exposures asked for; days; or the most that the load may be, where that is known, in the ledger's units.</param>
public sealed record PieceRule(
    PieceRuleKind Kind,
    int? Week = null,
    DateOnly? Day = null,
    DateOnly? Earlier = null,
    string? Skill = null,
    LoadTag? Tag = null,
    Side? Limb = null,
    double? Number = null
)
{
    /// <summary>As people read it: weeks from 1 on; of load minutes, for the wrist bodyweight-seconds.</summary>
    public PieceRule ToShown() =>
        this with
        {
            Week = Week + 1,
            Number = Kind is PieceRuleKind.WeekLoad && Number is { } load ? LoadCeiling.Shown(Tag!.Value, (int)load) : Number,
        };
}
