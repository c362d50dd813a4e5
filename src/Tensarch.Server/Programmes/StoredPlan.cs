using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;

namespace Tensarch.Server.Programmes;

/// <summary>A version of a plan as it is kept.</summary>
public sealed record StoredPlan(
    IReadOnlyList<StoredDay> Days,
    IReadOnlyList<PieceReport> Pieces,
    IReadOnlyList<ShortWeek> ShortWeeks,
    IReadOnlyList<StoredLoad> Loads
);

/// <summary>One session of a plan as it is kept.</summary>
/// <param name="Session">The row in which it is run; none where nothing may be done on the day.</param>
/// <param name="Pinned">By a coach: it stays when the rest is planned again.</param>
/// <param name="Broken">Rules that it breaks because it is pinned.</param>
public sealed record StoredDay(
    DateOnly Day,
    DayHalf Half,
    int Minutes,
    int Week,
    bool BackOff,
    DayAsk? Ask,
    IReadOnlyList<StoredBlock> Blocks,
    int FrameSeconds,
    int TestMinutes,
    SessionPlan? Plan,
    Guid? Session = null,
    bool Pinned = false,
    IReadOnlyList<string>? Broken = null
);

public sealed record StoredBlock(string Skill, BlockAim Kind, int Level, int Seconds, bool Exposes);

/// <summary>In minutes of heavy work; for the wrist in bodyweight-seconds.</summary>
/// <param name="Load">Done and planned.</param>
public sealed record StoredLoad(LoadTag Tag, Tensarch.Core.Side? Side, int Week, double Done, double Load, double Ceiling);
