using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Students;

namespace Tensarch.Server.Sessions;

/// <param name="Logged">Something was done in it and is in the books.</param>
/// <param name="Version">What a change of it is made on.</param>
public sealed record SessionLine(
    Guid Id,
    string Skill,
    DateOnly Date,
    int TotalSeconds,
    DateTimeOffset? StartedAt,
    DateTimeOffset? EndedAt,
    bool Logged,
    IReadOnlyList<string> Beside,
    int Version
)
{
    internal static SessionLine Of(SessionRow row) =>
        new(
            row.Id,
            row.Planned.Skill,
            row.Date,
            row.Planned.TotalSeconds,
            row.Training?.StartedAt,
            row.Training?.EndedAt,
            row.Training?.Worked.Count > 0,
            row.Planned.Beside,
            row.Version
        );
}

/// <summary>One session as it stands on the sheet.</summary>
/// <param name="Doubled">Sets of a second device that had not heard of the first, which nobody has looked at yet.</param>
/// <param name="NowBarred">Drills that today's bars no longer allow: the session is to be made again.</param>
/// <param name="Version">What changes by hand are made on.</param>
/// <param name="MayTakeBack">It was changed by hand, and what it was before is kept.</param>
/// <param name="Outdated">Why it is not run today, as codes of the rules that it breaks by now; empty when it may be, or has begun.</param>
public sealed record SessionSheet(
    Guid Id,
    string Skill,
    IReadOnlyList<string> Beside,
    Guid StudentId,
    string StudentName,
    int TotalSeconds,
    DateTimeOffset? StartedAt,
    DateTimeOffset? EndedAt,
    SessionPlan Plan,
    IReadOnlyList<SheetPart> Parts,
    IReadOnlyList<DoneSet> Done,
    IReadOnlyList<SaidSignal> Said,
    int Doubled,
    bool Deleted,
    IReadOnlyList<string> NowBarred,
    IReadOnlyList<string> Outdated,
    int SensationCeiling,
    CarriedNote? CarryOver,
    IReadOnlyList<PackingLine> Packing,
    bool Closed,
    string Version,
    bool MayTakeBack
);

/// <summary>What the body said in a session, as it stands after every correction.</summary>
/// <param name="Drill">In which it was said.</param>
public sealed record SaidSignal(
    Guid Id,
    DateTimeOffset At,
    SignalKind Kind,
    LoadTag? Region,
    string? Place,
    Side? Side,
    int? Pain,
    string? Drill
);

/// <summary>What a coach wanted to be told at the start of this session.</summary>
public sealed record CarriedNote(Guid Id, string Text);

/// <summary>How long one side of a planned drill takes.</summary>
/// <param name="Id">Unique in the session: what a lesson that is logged by hand names.</param>
/// <param name="Proves">A test of the gate reads it: a number that was seen counts, the planned one does not.</param>
public sealed record SheetPart(string Id, string Drill, Side? Side, int Seconds, bool Proves)
{
    public static IReadOnlyList<SheetPart> Of(SessionPlan plan, Func<string?, Ladder?> ladders, CatalogueContent catalogue) =>
        [
            .. Timeline
                .Of(plan, catalogue)
                .Select(p => new SheetPart(
                    p.Id,
                    p.Planned.Drill,
                    p.PlannedSide.Side,
                    p.Seconds,
                    ladders(p.Planned.Skill)?.Reads(p.Planned.Drill, p.PlannedSide.Variant, p.PlannedSide.Stage) == true
                        && !p.Planned.Reason.TestsDay
                )),
        ];
}

/// <param name="ExpiresAt">A day from now, or when the student's state changes without a new fact, if that is sooner.</param>
/// <param name="Plan">The number of the plan that it was made of: what is done by it is told with it.</param>
/// <param name="CarryOver">Shown before it starts.</param>
/// <param name="BodyWords">What the student calls parts of their body.</param>
/// <param name="GoodFrom">It is not run before: of a session of tomorrow, when that begins.</param>
/// <param name="Key">See <see cref="PackHead"/>.</param>
/// <param name="Ended">What bars keep from being done by now: no version with one of these loads goes on.</param>
public sealed record PackResponse(
    Guid SessionId,
    Guid StudentId,
    string StudentName,
    DateTimeOffset MadeAt,
    DateTimeOffset ExpiresAt,
    SessionPack Pack,
    int Plan,
    IReadOnlyList<string> Ended,
    CarriedNote? CarryOver,
    IReadOnlyList<BodyWord> BodyWords,
    DateTimeOffset GoodFrom,
    string Key
);

/// <summary>A session that a device keeps ready.</summary>
/// <param name="Ahead">It is tomorrow's.</param>
/// <param name="Key">Under which its pack stands now: one that is kept under it is good.</param>
public sealed record PackHead(Guid SessionId, bool Ahead, string Key);
