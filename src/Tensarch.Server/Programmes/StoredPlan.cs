using System.Text.Json.Serialization;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;

namespace Tensarch.Server.Programmes;

/// <summary>A version of a plan as it is kept.</summary>
public sealed record StoredPlan(
    IReadOnlyList<StoredDay> Days,
    IReadOnlyList<PieceReport> Pieces,
    IReadOnlyList<ShortWeek> ShortWeeks,
    IReadOnlyList<StoredLoad> Loads,
    IReadOnlyList<UntestedGoal>? Untested = null
)
{
    /// <summary>What is planned, after what was before it.</summary>
    internal static StoredPlan Of(ProgrammePlan made, PlanFor asked, StandingPlan? current)
    {
        var before = current?.Plan.Days.Where(d => d.Day < asked.From || current.IsBegun(d) || current.IsDropped(d)) ?? [];
        var planned = made.Days.Select(d => new StoredDay(
            d.Slot.Day,
            d.Slot.Half,
            d.Slot.Minutes,
            d.Week,
            d.BackOff,
            d.Offer?.Ask,
            d.Offer is { } offer ? [.. offer.Blocks.Select(b => new StoredBlock(b.Skill, b.Kind, b.Level, b.Seconds, b.Exposes))] : [],
            d.Offer?.FrameSeconds ?? 0,
            d.TestMinutes,
            d.Offer?.Plan,
            Pinned: asked.Locked.Any(l => l.Slot.Day == d.Slot.Day && l.Slot.Half == d.Slot.Half),
            Broken: [.. made.Bent.Where(b => b.Day == d.Slot.Day).Select(b => b.Violation.Code).Distinct()],
            WhyNotMore: d.WhyNotMore
        ));
        return new(
            [.. before.Concat(planned).OrderBy(d => d.Day).ThenBy(d => d.Half)],
            made.Pieces,
            made.ShortWeeks,
            [.. made.Loads.Select(StoredLoad.Of)],
            made.Untested
        );
    }
}

/// <summary>One session of a plan: what is asked of it, and which session it is. Its plan and its day are the session's own.</summary>
/// <param name="Plan">As the session has it; of a version that was, as it had it then. Not kept here.</param>
/// <param name="Session">The row in which it is run; none where nothing may be done on the day.</param>
/// <param name="Number">The number of the session's plan when this version was made.</param>
/// <param name="Pinned">By a coach: it stays when the rest is planned again.</param>
/// <param name="Broken">Rules that it breaks because it is pinned.</param>
/// <param name="WhyNotMore">When it was planned; none where it was put there by hand.</param>
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
    [property: JsonIgnore] SessionPlan? Plan,
    Guid? Session = null,
    bool Pinned = false,
    IReadOnlyList<string>? Broken = null,
    IReadOnlyList<DayReason>? WhyNotMore = null,
    int? Number = null
);

public sealed record StoredBlock(string Skill, BlockAim Kind, int Level, int Seconds, bool Exposes);

/// <summary>In minutes of heavy work; for the wrist in bodyweight-seconds.</summary>
/// <param name="Load">Done and planned.</param>
public sealed record StoredLoad(LoadTag Tag, Tensarch.Core.Side? Side, int Week, double Done, double Load, double Ceiling)
{
    internal static StoredLoad Of(WeekLoad load) =>
        new(
            load.Key.Tag,
            load.Key.Limb,
            load.Week,
            LoadCeiling.Shown(load.Key.Tag, load.Done),
            LoadCeiling.Shown(load.Key.Tag, load.Load),
            LoadCeiling.Shown(load.Key.Tag, load.Ceiling)
        );
}
