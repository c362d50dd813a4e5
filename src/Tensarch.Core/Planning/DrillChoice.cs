using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>Fits one drill to one side: variant, dose and props, or the reason why it cannot be done.</summary>
internal static class DrillChoice
{
    /// <summary>A passive hold stays light below 45 s.</summary>
    private const int LightHoldSeconds = 40;

    /// <summary>A ramp strains the breath lightly up to this effort.</summary>
    private const int LightTopPercent = 60;

    /// <returns>The planned side, or the note that says why there is none.</returns>
    /// <param name="companion">It fills the session beside the stage's own drills: in its easiest variant.</param>
    /// <param name="ramps">No other drill of the day ramps on one of its regions.</param>
    public static (PlannedSide? Planned, PlanNote? Note) For(
        Drill drill,
        Side? side,
        int stage,
        Trainee who,
        CourseState course,
        bool companion = false,
        bool ramps = true
    )
    {
        if (drill.NeedsWayOut && !course.WayOutShown)
            return (null, new("wayOutFirst", drill.Key));
        var trains = course.Ladder.TrainsAs(stage);
        var eased = who.Eased.Where(e => e.Touches(drill.Key, drill.Loads)).ToList();
        var easier = eased.Select(e => e.EasierBy).DefaultIfEmpty(0).Max();
        var few = Few(drill, who);
        if (few is { } tag1 && companion)
            return (null, new("lightOnly", drill.Key, tag1));
        // What pain eased is practised, not tested; what is light only is not either.
        var wanted = easier > 0 || companion || few is not null ? null : Wanted(drill, side, course);
        var since = eased.Where(e => e.EasierBy > 0).Select(e => e.Since).Min();
        var advice = Props(drill, side, who, course);
        var planned = companion ? drill.Easiest : VariantEvidence.Of(drill, side, trains, wanted, who, course, since);
        // Practised below what the gate asks for, until two full sessions lead there: nothing is tested, and no best counts.
        if (wanted?.Variant is { } asked && asked != drill.Variants[planned].Key)
            wanted = null;
        var start = Math.Max(0, planned - easier);
        LoadTag? refused = null;
        PlanNote? spaced = null;
        // The easiest of all where it is light only, else the hardest that may be.
        foreach (var i in Enumerable.Range(0, start + 1).Select(n => few is null ? start - n : n))
        {
            var variant = drill.Variants[i];
            foreach (var dose in Doses(drill, variant, i == start ? wanted : null, who, course, ramps))
            {
                var loads = drill.LoadsOf(variant, dose, who.BreathSeconds);
                if (OverHands(drill, variant, who))
                    refused = LoadTag.Wrist;
                else if (who.Bars.Allow(loads) && Spacing(drill, loads, who, course) is { } note)
                    spaced ??= note;
                else if (who.Bars.Allow(loads))
                    return (
                        new(
                            side,
                            stage,
                            variant.Key,
                            advice is not null && dose is SupportLadderDose ladder ? ladder.Advised(advice, who.BlocksOwned) : dose,
                            advice,
                            i == planned ? null : drill.Variants[planned].Key
                        ),
                        null
                    );
                else
                    refused = Strictest(loads, who.Bars);
            }
        }
        if (spaced is not null)
            return (null, spaced);
        var off = refused is { } tag && who.Bars[tag] == BarLevel.OffLimits;
        return (null, new(off ? "offLimits" : "lightOnly", drill.Key, refused));
    }

    /// <summary>The first tag of a drill that is light only: it is done in its easiest version and at half the dose.</summary>
    public static LoadTag? Few(Drill drill, Trainee who) => who.Bars.FewOf(drill.Tags);

    private static bool OverHands(Drill drill, Variant variant, Trainee who) =>
        drill.HandShareOf(variant) > LightWork.HandShare && who.Bars.Few.Contains(LoadTag.Wrist);

    /// <summary>What the gate still asks for that this drill trains.</summary>
    /// <param name="side">None: of both, what the side asks that can less.</param>
    public static Want? Wanted(Drill drill, Side? side, CourseState course) =>
        (side is { } one ? course.Of(one).Wanted : course.Left.Wanted.Concat(course.Right.Wanted))
            .Where(w => w.Drill == drill.Key)
            .OrderBy(w => w.Met)
            .ThenBy(w => w.Best ?? 0)
            .FirstOrDefault();

    /// <summary>What a break or pain leaves of a dose.</summary>
    internal static Dose Lightened(Dose dose, Drill drill, Trainee who, CourseState course)
    {
        // A first-week ramp is light as it is.
        if (
            who.WayBack is { } back
            && drill.Kind is not (DrillKind.Raise or DrillKind.Prepare or DrillKind.Calm)
            && !(who.FirstWeekOf(course) && dose is RampedDose)
        )
            dose = dose.Lightened(back.DoseShare);
        return who.Eased.Where(e => e.Touches(drill.Key, drill.Loads)).Select(e => e.DoseShare).DefaultIfEmpty(1).Min() is var share and < 1
            ? dose.Lightened(share)
            : dose;
    }

    /// <summary>The dose asked for, then the same with its passive holds cut short, for someone to whom light ones are left.</summary>
    private static IEnumerable<Dose> Doses(Drill drill, Variant variant, Want? wanted, Trainee who, CourseState course, bool ramps)
    {
        var dose = Lightened(DrillDose.Of(drill, variant, wanted, who, course, ramps), drill, who, course);
        if (
            who.Eased.Where(e => e.Touches(drill.Key, drill.Loads)).Select(e => e.SettleShare).DefaultIfEmpty(1).Min() is var settle and < 1
        )
            dose = dose.Settled(settle);
        if (SessionOrder.IsMain(drill.Phase) && who.Bars.FewOf(drill.LoadsOf(variant, dose, who.BreathSeconds)) is not null)
        {
            if (LightWork.Half(dose, who.BreathSeconds) is not { } half)
                yield break;
            dose = half;
        }
        if (MostStill(drill, dose, wanted, who, course) is { } still)
            dose = LightWork.Held(dose, still, who.BreathSeconds);
        if (who.Bars.Brief && drill.Loads.ContainsKey(LoadTag.PassiveEndRange) && wanted is not { Due: true })
            dose = LightWork.Held(dose, LightWork.ShortHold, who.BreathSeconds);
        yield return dose;
        var bounds = drill.Loads.Keys.Where(t => who.Bars[t] == BarLevel.LightOnly).Select(t => drill.HeavyAt(t) - 1).OfType<int>();
        if (bounds.DefaultIfEmpty(0).Min() is > 0 and var bound)
            dose = LightWork.Held(dose, bound < LightHoldSeconds ? bound : Math.Max(LightHoldSeconds, bound / 10 * 10), who.BreathSeconds);
        yield return dose is RampedDose ramp ? ramp.CappedAt(LightTopPercent) : dose;
    }

    /// <summary>
    /// The longest passive hold of a drill: in a first week 30 s, and what the approach keeps to; in what the gate has held one of 30 s. None where it
    /// may be longer, and for ramps.
    /// </summary>
    private static int? MostStill(Drill drill, Dose dose, Want? wanted, Trainee who, CourseState course)
    {
        if (dose is RampedDose || !drill.Loads.ContainsKey(LoadTag.PassiveEndRange) || wanted is { Due: true })
            return null;
        var approach = wanted is null ? course.Approach.MostStillSeconds : Larger(course.Approach.MostStillSeconds);
        return who.FirstWeekOf(course) ? Math.Min(approach ?? FirstWeekHold, FirstWeekHold) : approach;
    }

    private static int? Larger(int? seconds) => seconds is { } s ? Math.Max(s, FirstWeekHold) : null;

    private const int FirstWeekHold = 30;

    /// <summary>Where end-range work needs days between.</summary>
    internal static readonly HashSet<LoadTag> EndRangeRegions = [LoadTag.Hamstring, LoadTag.HipFront, LoadTag.Adductor];

    public const int MostWristDaysRunning = 2;
    public const int MostNeckDaysInWeek = 3;

    private static PlanNote? Spacing(Drill drill, IReadOnlyDictionary<LoadTag, LoadLevel> loads, Trainee who, CourseState course)
    {
        var heavy = loads.Where(l => l.Value == LoadLevel.Heavy).Select(l => l.Key).ToList();
        if (heavy.Contains(LoadTag.Wrist) && who.History.DaysRunning(LoadTag.Wrist, who.Date) is var running and >= MostWristDaysRunning)
            return new("wristRest", drill.Key, LoadTag.Wrist, Number: running);
        if (heavy.Contains(LoadTag.Neck) && who.History.HeavyDays(LoadTag.Neck, who.Date, 6) is var neck and >= MostNeckDaysInWeek)
            return new("neckRest", drill.Key, LoadTag.Neck, Number: neck);
        var between = course.Approach.EndRangeSpacingDays;
        foreach (var tag in heavy.Where(EndRangeRegions.Contains))
            if (who.History.DaysSinceHeavy(tag, who.Date) is { } days && days < between)
                return new("spacing", drill.Key, tag, Number: between, Date: who.Date.AddDays(between - days));
        return null;
    }

    private static LoadTag? Strictest(IReadOnlyDictionary<LoadTag, LoadLevel> loads, DayBars bars) =>
        loads
            .Where(l => l.Value != LoadLevel.None && bars[l.Key] != BarLevel.Free)
            .OrderByDescending(l => bars[l.Key])
            .ThenByDescending(l => l.Value)
            .Select(l => (LoadTag?)l.Key)
            .FirstOrDefault();

    private static PropAdvice? Props(Drill drill, Side? side, Trainee who, CourseState course) =>
        drill.GapMeasure is { } measure && side is { } s && course.Of(s).GapsCm.TryGetValue(measure, out var gap)
            ? PropAdvice.ForFrontSplit(gap, who.BlocksOwned)
            : null;
}
