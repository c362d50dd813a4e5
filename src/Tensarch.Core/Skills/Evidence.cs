using Tensarch.Core.Measuring;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>One set that was done: in a session or, as a tested hold, on the bench.</summary>
/// <param name="Session">The session it belongs to; none on the bench.</param>
/// <param name="Day">The day in the studio's time zone.</param>
/// <param name="Seconds">The longest hold of the set, where it was held.</param>
/// <param name="Skill">The skill that it was planned for, of work; none where that is not known: then any that it serves.</param>
/// <param name="CleanReps">Clean repetitions, where it was counted.</param>
public sealed record LoggedSet(
    Guid Id,
    Guid? Session,
    DateTimeOffset At,
    DateOnly Day,
    string Drill,
    string Variant,
    Side? Side,
    double? Seconds,
    int? CleanReps,
    int? Quality,
    string? Skill = null
)
{
    /// <summary>No set is held for longer: what says so was mistyped.</summary>
    public const int LongestSeconds = 3600;

    public bool IsSound => Seconds is null or (>= 0 and <= LongestSeconds);
}

/// <summary>A form checklist, ticked at one sitting; or an adaptation that was recorded.</summary>
public sealed record FormCheck(Guid Id, DateTimeOffset At, string Ladder, int Stage, Side? Side, IReadOnlyList<string> Ticked);

/// <summary>A way out, shown to a coach: how many of how many times it was safe. It belongs to the way out, not to a stage.</summary>
/// <param name="Drill">The way out, with its variant where one is named.</param>
public sealed record ExitCheck(Guid Id, DateTimeOffset At, string Drill, string? Variant, Side? Side, int Safe, int Of)
{
    public bool Shows(ExitWay way) => (Drill, Variant) == (way.Drill, way.Variant);
}

/// <summary>A logged session: when it started, and on which day.</summary>
public sealed record SessionDay(Guid Session, DateTimeOffset At, DateOnly Day);

/// <summary>A coach's decision about one side of a ladder, or about a bilateral one.</summary>
public sealed record StageDecision(Side? Side, int FromStage, int ToStage, DateTimeOffset At);

/// <summary>What the core needs to know of a body. Lengths in cm.</summary>
/// <param name="BreathSeconds">One calm breath.</param>
/// <param name="LeftLegCm">Greater trochanter to heel, standing; none when it was not measured.</param>
/// <param name="HipWidthCm">Between the two hip joints.</param>
public sealed record BodyData(
    double BreathSeconds = Breaths.DefaultSeconds,
    double? LeftLegCm = null,
    double? RightLegCm = null,
    double HipWidthCm = Straddle.DefaultHipWidthCm
);

/// <summary>The facts on which a student's gates on one skill are judged.</summary>
/// <param name="Standard">The standard of the skill; readings under another are not looked at.</param>
/// <param name="Forms">Of this skill.</param>
/// <param name="Exits">Of any skill: a way out is known by its drill.</param>
/// <param name="Decisions">Of this skill, oldest first.</param>
/// <param name="Now">The moment of judging.</param>
public sealed record Evidence(
    string? Standard,
    BodyData Body,
    IReadOnlyList<Reading> Readings,
    IReadOnlyList<LoggedSet> Sets,
    IReadOnlyList<SessionDay> Sessions,
    IReadOnlyList<BodySignal> Signals,
    IReadOnlyList<FormCheck> Forms,
    IReadOnlyList<ExitCheck> Exits,
    IReadOnlyList<StageDecision> Decisions,
    DayBars Bars,
    DateTimeOffset Now,
    DateOnly Today
)
{
    /// <summary>The skill is trained by an approach of short passive holds.</summary>
    public bool StaysShort { get; init; }

    /// <summary>Readings of a measure on a side, in the warmth and mode named, under the skill's standard where the measure has standards.</summary>
    public IEnumerable<Reading> Of(Measure measure, Side? side, Warmth warmth, string? level = null) =>
        Of(measure, side, warmth, r => r.Series.Level == level);

    /// <summary>
    /// Warm readings at a level or a harder one: what is held without help is held with it. Of a test from before the measure had levels, all.
    /// </summary>
    public IEnumerable<Reading> From(Measure measure, Side? side, string? level)
    {
        var enough = measure.Levels.SkipWhile(l => level is not null && l.Key != level).Select(l => (string?)l.Key).ToHashSet();
        return Of(measure, side, Warmth.Warm, r => measure.Levels.Count == 0 || enough.Contains(r.Series.Level));
    }

    private IEnumerable<Reading> Of(Measure measure, Side? side, Warmth warmth, Func<Reading, bool> which) =>
        Readings.Where(r =>
            r.Series.Measure == measure.Key
            && r.Series.Side == (measure.PerSide ? side : null)
            && r.Series.Warmth == warmth
            && r.Series.Mode == measure.Mode
            && which(r)
            && (measure.Standards.Count == 0 || r.Series.Standard == Standard)
        );

    public bool OnShelf(DateTimeOffset at, int shelfDays) => Now - at <= TimeSpan.FromDays(shelfDays);

    /// <summary>When a course came to the stage it is at; the beginning when no decision says.</summary>
    public DateTimeOffset EnteredAt(Side? side, int stage) =>
        Decisions
            .Where(d => d.Side == side && d.ToStage == stage && d.FromStage != stage)
            .Select(d => d.At)
            .DefaultIfEmpty(DateTimeOffset.MinValue)
            .Max();

    /// <summary>The stage a course is at: where the newest decision put it; 1 before any.</summary>
    public int StageOf(Side? side) => Decisions.LastOrDefault(d => d.Side == side)?.ToStage ?? 1;
}
