using System.Text.Json.Serialization;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What a drill is for, in the order in which a session takes them.</summary>
public enum DrillKind
{
    Raise,
    Prepare,
    Mobilise,
    Strength,
    EndRange,
    Skill,
    Attempt,
    Counter,
    Calm,
}

public enum SideMode
{
    /// <summary>No sides.</summary>
    Both,

    /// <summary>One side to its end, then the other.</summary>
    Each,

    /// <summary>Left, right, left: counted as one.</summary>
    Alternate,
}

/// <summary>The ladder stages a drill may be used in; ladder <c>*</c> is all of them.</summary>
public sealed record Serves(string Ladder, int FromStage, int ToStage)
{
    public bool Stage(string ladder, int stage) => (Ladder == "*" || Ladder == ladder) && FromStage <= stage && stage <= ToStage;
}

/// <summary>Whether a drill may be done with nobody watching.</summary>
public enum Alone
{
    Never,

    /// <summary>Once it is owned with somebody there.</summary>
    Owned,
    Free,
}

/// <summary>The way out of a position: light, and never hurried.</summary>
/// <param name="Seconds">5 to 20.</param>
public sealed record WayOutOf(int Seconds, string Says);

/// <summary>An easier or harder version. Variants stand in order, easiest first.</summary>
/// <param name="FromStage">The lowest stage in whose range it is.</param>
/// <param name="ToStage">The highest; one below the lowest where it is never chosen, but may be come down to.</param>
/// <param name="FromStages">The same for one ladder, where a drill serves several.</param>
/// <param name="ToStages">The same for one ladder.</param>
/// <param name="Fits">The greatest reading of the drill's measure with which it can be done.</param>
/// <param name="Loads">In place of the drill's, where given.</param>
/// <param name="Dose">In place of the drill's, where given.</param>
/// <param name="HandShare">In place of the drill's, where given.</param>
/// <param name="DayGates">Day gates that this variant alone needs.</param>
/// <param name="Out">In place of the drill's, where given.</param>
public sealed record Variant(
    string Key,
    string Name,
    int FromStage,
    IReadOnlyDictionary<LoadTag, LoadLevel>? Loads = null,
    Dose? Dose = null,
    double? HandShare = null,
    IReadOnlyList<string>? DayGates = null,
    IReadOnlyDictionary<string, int>? FromStages = null,
    int? SetUpSeconds = null,
    int ToStage = 99,
    IReadOnlyDictionary<string, int>? ToStages = null,
    double? Fits = null,
    WayOutOf? Out = null
)
{
    public bool IsInRange(string ladder, int stage) =>
        FromStageIn(ladder) <= stage && stage <= (ToStages?.GetValueOrDefault(ladder, ToStage) ?? ToStage);

    public int FromStageIn(string ladder) => FromStages?.GetValueOrDefault(ladder, FromStage) ?? FromStage;
}

/// <summary>One thing that is done.</summary>
/// <param name="HandShare">Share of bodyweight on the hands, 0 to 1.</param>
/// <param name="OtherSide">Loads that belong to the other side: the side is the front leg, and these are of the rear one.</param>
/// <param name="GapMeasure">The measure of the gap from which its support is chosen.</param>
/// <param name="QuickMeasure">What the student reads of it by their own hand at the last repetition; no gate reads that.</param>
/// <param name="HeavyFrom">Held so many seconds and more at a time, it loads the tag heavily.</param>
/// <param name="Figure">Its position, where that is hard to put in words.</param>
/// <param name="Release">What is done between its sides, and said; it takes longer than only changing sides.</param>
/// <param name="DelayedBelow">Below this stage it waits for the first-attempt delay, like an attempt.</param>
/// <param name="FitsMeasure">The measure whose last reading says which of its supports is used.</param>
/// <param name="RampStrain">The breath strain is heavy when the ramp tops out above 60 %.</param>
/// <param name="NeedsWayOut">It is planned only once the way out has been shown, an override or not.</param>
/// <param name="MostRounds">More rounds of it than this are too much of a good thing.</param>
/// <param name="WhenLimited">It stands in for what loads this, and is no work of a stage while nothing bars that.</param>
/// <param name="AlternativeTo">One of the two is enough for a session.</param>
/// <param name="CopyOf">The shipped drill that it is a studio's own copy of: put into a session by a coach's hand, never by the maker.</param>
/// <param name="Gone">An own drill that was taken out of the library: what was done of it stays readable.</param>
/// <param name="IsWayOut">It is learned before what it is the way out of, and kept in small doses once it is owned.</param>
/// <param name="DayGates">It needs these day gates, tested earlier in the same session.</param>
/// <param name="TestOnly">It is there as a day gate's test, and never for itself.</param>
/// <param name="Counters">The drills that counter its load, each later in the same session.</param>
/// <param name="SideMeans">What left and right name: the front leg, the supporting arm.</param>
/// <param name="Was">Keys that it had before: what was stored or told under one of them is of this drill.</param>
/// <param name="Phase">The part of the session in which it is done.</param>
/// <param name="Rank">Its place within the phase, light before heavy.</param>
/// <param name="SetUpSeconds">To get ready for it, once.</param>
/// <param name="Ceiling">Most that one round of it grows to: seconds, breaths or repetitions, by the dose; of a ladder of supports, the last rung.</param>
/// <param name="Out">How its position is left, after each round that ends in it; none where there is nothing to leave.</param>
/// <param name="Felt">Where it should be felt, and what it is for.</param>
/// <param name="Alone">Whether it may be done unwatched.</param>
/// <param name="PreparesHands">It comes before anything that puts weight on the hands.</param>
public sealed record Drill(
    string Key,
    string Name,
    string Purpose,
    DrillKind Kind,
    SideMode Sides,
    Dose Dose,
    IReadOnlyDictionary<LoadTag, LoadLevel> Loads,
    IReadOnlyList<Variant> Variants,
    IReadOnlyList<Serves> Serves,
    IReadOnlyList<string> Props,
    IReadOnlyList<Cue> Cues,
    IReadOnlyList<string> Checks,
    IReadOnlyList<string> StopSigns,
    string Warmth,
    double HandShare,
    IReadOnlyList<LoadTag>? OtherSide = null,
    string? GapMeasure = null,
    string? FitsMeasure = null,
    string? Release = null,
    int? DelayedBelow = null,
    bool RampStrain = false,
    bool NeedsWayOut = false,
    IReadOnlyList<string>? DayGates = null,
    bool TestOnly = false,
    IReadOnlyList<string>? Counters = null,
    bool PreparesHands = false,
    IReadOnlyList<string>? Was = null,
    string? SideMeans = null,
    SessionPhase Phase = SessionPhase.Warm,
    int Rank = 0,
    int SetUpSeconds = 15,
    int? Ceiling = null,
    bool IsWayOut = false,
    int? MostRounds = null,
    LoadTag? WhenLimited = null,
    string? AlternativeTo = null,
    string? CopyOf = null,
    bool Gone = false,
    string? QuickMeasure = null,
    LineFigure? Figure = null,
    IReadOnlyDictionary<LoadTag, int>? HeavyFrom = null,
    WayOutOf? Out = null,
    string Felt = "",
    Alone Alone = Alone.Never
)
{
    public bool IsCounteredBy(string drill) => Counters?.Contains(drill) == true;

    /// <param name="ladder">A shipped ladder.</param>
    /// <param name="stage">A stage of it.</param>
    public bool ServesStage(string ladder, int stage) => Serves.Any(s => s.Stage(ladder, stage));

    /// <summary>The day gates that it, or one of its variants, needs.</summary>
    public IEnumerable<string> Gates => Variants.SelectMany(GatesOf).Distinct();

    /// <summary>The day gates that a variant needs.</summary>
    public IReadOnlyList<string> GatesOf(Variant variant) => [.. (DayGates ?? []).Concat(variant.DayGates ?? []).Distinct()];

    public Variant VariantAt(string key) => Variants.First(v => v.Key == key);

    /// <summary>The place of its easiest version that is more than something to come down to.</summary>
    internal int Easiest => Variants.Index().FirstOrDefault(v => v.Item.ToStage >= v.Item.FromStage).Index;

    public Dose DoseOf(Variant variant) => variant.Dose ?? Dose;

    public WayOutOf? OutOf(Variant variant) => variant.Out ?? Out;

    public int SetUpOf(Variant variant) => variant.SetUpSeconds ?? SetUpSeconds;

    /// <summary>It warms up, whatever it is there for.</summary>
    [JsonIgnore]
    public bool WarmsUp => Kind is DrillKind.Raise or DrillKind.Prepare or DrillKind.Mobilise;

    /// <summary>Entries into a balance: many short ones, and the number grows before the time.</summary>
    [JsonIgnore]
    public bool IsBalance => Phase == SessionPhase.Fresh && Dose is AttemptsDose;

    public double HandShareOf(Variant variant) => variant.HandShare ?? HandShare;

    /// <summary>Whether the bars of today allow it, in a variant or in any when none is named.</summary>
    public bool MayBeDone(string? variant, DayBars bars, double breathSeconds) =>
        Variants.Where(v => variant is null || v.Key == variant).Any(v => bars.Allow(LoadsOf(v, DoseOf(v), breathSeconds)));

    /// <summary>
    /// The load per tag of one variant at one dose. Breath strain of a ramp is heavy above a top of 60 %, else light;
    /// a passive end-range hold is heavy from 45 s, and others by what the drill says.
    /// </summary>
    /// <param name="breathSeconds">One calm breath of whoever does it; a region's load does not depend on it.</param>
    public IReadOnlyDictionary<LoadTag, LoadLevel> LoadsOf(Variant variant, Dose dose, double breathSeconds = Breaths.DefaultSeconds) =>
        LoadsOf(variant, LongestHoldSeconds(dose, breathSeconds), dose is RampedDose ramp ? ramp.ToPercent : 0);

    /// <summary>The same for work that was done.</summary>
    public IReadOnlyDictionary<LoadTag, LoadLevel> LoadsOf(Variant variant, double longestHoldSeconds, int topPercent)
    {
        var loads = new Dictionary<LoadTag, LoadLevel>(variant.Loads ?? Loads);
        if (RampStrain && topPercent > 60)
            loads[LoadTag.BreathStrain] = LoadLevel.Heavy;
        foreach (var (tag, seconds) in LoadTags.HeavyFrom)
            if (loads.ContainsKey(tag))
                loads[tag] = longestHoldSeconds >= seconds ? LoadLevel.Heavy : LoadLevel.Light;
        if (HeavyFrom is not null)
            foreach (var (tag, seconds) in HeavyFrom)
                if (loads.ContainsKey(tag) && longestHoldSeconds >= seconds)
                    loads[tag] = LoadLevel.Heavy;
        return loads;
    }

    /// <summary>Tags that one of its versions may load.</summary>
    [JsonIgnore]
    internal IReadOnlySet<LoadTag> Tags => tags ??= Variants.SelectMany(v => (v.Loads ?? Loads).Keys).Concat(Loads.Keys).ToHashSet();

    private HashSet<LoadTag>? tags;

    /// <summary>Held less than this at a time, a tag is loaded lightly; none where it does not depend on that.</summary>
    internal int? HeavyAt(LoadTag tag) =>
        HeavyFrom?.TryGetValue(tag, out var own) == true ? own
        : Loads.ContainsKey(tag) ? LoadTags.HeavyFrom.Where(h => h.Tag == tag).Select(h => (int?)h.Seconds).FirstOrDefault()
        : null;

    /// <summary>Of work that was done, by what is kept of it; of what nobody said how long it was held, as much as it usually is.</summary>
    public IReadOnlyDictionary<LoadTag, LoadLevel> LoadsOf(Sessions.Work work, double breathSeconds)
    {
        var variant = VariantAt(work.Variant);
        if (work.Seconds is null)
            return LoadsOf(variant, DoseOf(variant), breathSeconds);
        var held = work.LongestHold > 0 ? work.LongestHold : LongestHoldSeconds(DoseOf(variant), breathSeconds);
        return LoadsOf(variant, held, work.TopPercent);
    }

    /// <summary>Of one round of which nothing is known but how long it was.</summary>
    /// <param name="seconds">None where repetitions were counted: as much as it usually is.</param>
    public IReadOnlyDictionary<LoadTag, LoadLevel> LoadsOfRound(Variant variant, double? seconds, double breathSeconds)
    {
        var usual = DoseOf(variant);
        var longest = LongestHoldSeconds(usual, breathSeconds);
        return LoadsOf(
            variant,
            usual is HoldDose or AttemptsDose && seconds is { } held ? held : Math.Min(longest, seconds ?? longest),
            usual is RampedDose ramp ? ramp.ToPercent : 0
        );
    }

    internal static double LongestHoldSeconds(Dose dose, double breathSeconds) =>
        dose switch
        {
            RampedDose d => Math.Max(d.SettleSeconds, d.ResettleSeconds),
            SupportLadderDose d => d.Rungs.Sum(r => r.Seconds),
            HoldDose d => d.Seconds ?? (d.Breaths ?? 0) * breathSeconds,
            AttemptsDose d => d.MaxSeconds,
            FlowDose d => d.Positions.Max(p => p.Seconds ?? (p.Breaths ?? 0) * breathSeconds),
            _ => 0,
        };
}
