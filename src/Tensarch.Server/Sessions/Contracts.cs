using Tensarch.Core;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Server.Sessions;

public sealed record SessionLine(
    Guid Id,
    string Skill,
    DateOnly Date,
    int TotalSeconds,
    DateTimeOffset? StartedAt,
    DateTimeOffset? EndedAt
);

/// <summary>One session as it stands on the sheet.</summary>
/// <param name="NowHeld">Drills that a caution set since then holds: the session is to be made again.</param>
public sealed record SessionSheet(
    Guid Id,
    Guid StudentId,
    string StudentName,
    int TotalSeconds,
    DateTimeOffset? StartedAt,
    DateTimeOffset? EndedAt,
    SessionPlan Plan,
    IReadOnlyList<SheetPart> Parts,
    IReadOnlyList<DoneSet> Done,
    IReadOnlyList<string> NowHeld,
    int SensationCeiling
);

/// <summary>How long one side of a planned drill takes.</summary>
public sealed record SheetPart(string Drill, Side? Side, int Seconds);

public sealed record DoneSet(string Drill, string Variant, Side? Side, int Rounds, double? LongestSeconds, int? MostReps, int? Quality);

public sealed record PackResponse(Guid SessionId, Guid StudentId, string StudentName, DateTimeOffset ExpiresAt, SessionPack Pack);

/// <summary>What was done, sent by the runner under ids of its own.</summary>
/// <param name="SentAt">The runner's clock at sending: what it is off by is taken out of every instant.</param>
/// <param name="FinishedAt">When the session ended; none while it goes on.</param>
public sealed record FactsRequest(
    DateTimeOffset SentAt,
    IReadOnlyList<SetFact> Sets,
    IReadOnlyList<SignalFact> Signals,
    DateTimeOffset? FinishedAt
);

public sealed record SetFact(
    Guid Id,
    string Drill,
    string Variant,
    Side? Side,
    int Round,
    double? Seconds,
    int? CleanReps,
    int? Quality,
    int? Sensation,
    DateTimeOffset At
);

public sealed record SignalFact(
    Guid Id,
    string? Drill,
    SignalKind Kind,
    LoadTag? Region,
    Side? Side,
    int? Pain,
    string? Note,
    DateTimeOffset At
);

/// <param name="Clashes">Ids that another fact has already; these were not stored.</param>
/// <param name="NowHeld">Drills of this session that are held from now on: the runner stops them.</param>
public sealed record FactsResponse(int Stored, int SameAgain, IReadOnlyList<Guid> Clashes, IReadOnlyList<string> NowHeld);
