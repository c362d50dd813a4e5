using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>
/// How much of a drill is done today: practice toward the gate from the student's own best; the test itself when it is due. One step a week
/// (planning rule 7).
/// </summary>
internal static class DrillDose
{
    private const double PracticeShare = 0.75;
    internal const double PastTheGate = 1.2;
    private const double VolumeOfAsked = 1.5;
    private const int FewestRounds = 2;
    private const int MostRounds = 4;
    private const int NeckRounds = 2;
    private const int FewestEntries = 6;
    private const int MostEntries = 10;
    private const int EntrySeconds = 5;
    private const int FewestBreaths = 3;

    /// <summary>A second ramp on one region is a plain hold, light.</summary>
    private const int PlainHoldSeconds = 40;

    /// <param name="want">What the gate still asks for of it, in this variant.</param>
    /// <param name="ramps">No other drill of the day ramps on one of its regions.</param>
    public static Dose Of(Drill drill, Variant variant, Want? want, Trainee who, CourseState course, bool ramps)
    {
        if (want is { Due: true })
            return Test(want.Test, drill, variant);
        return Rested(drill, FirstWeek(drill, Worked(drill, variant, want, who, course, ramps), who, course));
    }

    private static Dose Worked(Drill drill, Variant variant, Want? want, Trainee who, CourseState course, bool ramps) =>
        drill.DoseOf(variant) switch
        {
            RampedDose ramp => Ramp(ramp, drill, who, course, ramps),
            SupportLadderDose ladder => Support(ladder.Owned(who.BlocksOwned), drill, want),
            HoldDose { Seconds: not null } hold => Hold(hold, drill, want),
            HoldDose hold => Breaths(hold, drill, want, who.BreathSeconds),
            AttemptsDose attempts => Entries(attempts, drill, want),
            RepsDose reps => Reps(reps, drill, want, course.WayOutShown),
            var other => other,
        };

    /// <summary>Two rounds at most; tries are counted otherwise.</summary>
    private static Dose FirstWeek(Drill drill, Dose dose, Trainee who, CourseState course) =>
        who.FirstWeekOf(course) && SessionOrder.IsMain(drill.Phase) && dose is not AttemptsDose && dose.Repeats > FewestRounds
            ? dose.WithRepeats(FewestRounds)
            : dose;

    /// <summary>After what is upside down one rests as long as it was, and 45 s at least; between rounds on the neck a minute.</summary>
    internal static Dose Rested(Drill drill, Dose dose)
    {
        var least =
            drill.Phase == SessionPhase.Neck ? NeckRest
            : drill.Loads.GetValueOrDefault(LoadTag.Inverted) == LoadLevel.Heavy && dose is HoldDose { Seconds: { } held }
                ? Math.Max(held, InvertedRest)
            : 0;
        return dose switch
        {
            HoldDose { Rounds: > 1 } d when d.RestSeconds < least => d with { RestSeconds = least },
            RepsDose { Sets: > 1 } d when d.RestSeconds < least => d with { RestSeconds = least },
            FlowDose { Rounds: > 1 } d when d.RestSeconds < least => d with { RestSeconds = least },
            _ => dose,
        };
    }

    private const int NeckRest = 60;
    private const int InvertedRest = 45;

    /// <summary>The same dose with one round more; none where the week's step or the drill allows no more.</summary>
    /// <param name="first">The first week of the skill, or one like it.</param>
    public static Dose? More(Drill drill, Variant variant, Dose dose, int step, bool first)
    {
        var most = dose switch
        {
            RhythmDose => 1,
            _ when drill.IsWayOut => 1,
            // The first week's dose is the first week's.
            not RampedDose when step == 0 && drill.DoseOf(variant) is RampedDose => dose.Repeats,
            not AttemptsDose when first && SessionOrder.IsMain(drill.Phase) && dose is not RampedDose => FewestRounds,
            RampedDose => RampRounds(step),
            _ when drill.Phase == SessionPhase.Neck => dose is RepsDose ? 1 : NeckRounds,
            _ when drill.Loads.ContainsKey(LoadTag.Inverted) && drill.Phase == SessionPhase.Peak => 1,
            AttemptsDose when drill.IsBalance => Math.Min(drill.MostRounds ?? MostEntries, FewestEntries + step) / SidesOf(drill),
            _ when drill.MostRounds is { } own => own,
            _ when drill.Phase == SessionPhase.Warm => FewestRounds,
            // A step a week is for what loads heavily; light work may fill a session from the first day.
            _ when (variant.Loads ?? drill.Loads).All(l => l.Value != LoadLevel.Heavy || !l.Key.IsRegion()) => MostRounds,
            _ => Math.Min(MostRounds, FewestRounds + step),
        };
        return dose.Repeats >= most
            ? null
            : Rested(
                drill,
                dose switch
                {
                    HoldDose { RestSeconds: 0, Seconds: not null } hold => hold with { Rounds = hold.Rounds + 1, RestSeconds = 30 },
                    RepsDose { RestSeconds: 0 } reps => reps with { Sets = reps.Sets + 1, RestSeconds = 30 },
                    FlowDose { RestSeconds: 0 } flow => flow with { Rounds = flow.Rounds + 1 },
                    _ => dose.WithRepeats(dose.Repeats + 1),
                }
            );
    }

    /// <summary>Whether a round of it can go.</summary>
    public static bool MayLessen(Dose dose) => dose is not RhythmDose && dose.Repeats > (dose is AttemptsDose ? 2 : 1);

    /// <summary>Two of what the gate asks for, far enough apart to count as two; one set of what it counts.</summary>
    private static Dose Test(ReadinessTest test, Drill drill, Variant variant) =>
        (test, drill.DoseOf(variant)) switch
        {
            (HoldCriterion { Seconds: { } seconds }, _) when drill.Kind == DrillKind.Attempt => new AttemptsDose(2, seconds, 60),
            (HoldCriterion hold, _) => new HoldDose(hold.Seconds, hold.Breaths, 2, 60),
            (RepsCriterion reps, RepsDose counted) => counted with { Reps = reps.Reps, Sets = 1 },
            (_, var dose) => dose,
        };

    /// <summary>
    /// Week by week: the first week's ramp; the whole length once; twice; up to 80 %; three rounds. An approach that does not ramp does its own.
    /// </summary>
    private static Dose Ramp(RampedDose full, Drill drill, Trainee who, CourseState course, bool ramps)
    {
        var step = who.StepOf(course, drill);
        var first = step == 0;
        if (course.Approach.InsteadOfRamp is { } instead)
            return first ? course.Approach.FirstWeekInstead ?? instead : instead;
        if (!ramps)
            return new HoldDose(PlainHoldSeconds, null, first ? 1 : FewestRounds, 30);
        var ramp = step switch
        {
            0 => course.Approach.FirstWeekRamp,
            <= 2 => full with { ToPercent = Math.Min(60, full.ToPercent) },
            _ => full,
        };
        // Who stays short has room for what is active first.
        return (ramp with { Rounds = who.Mobile ? 1 : RampRounds(step) }).CappedAt(who.Bars.RampTopPercent);
    }

    /// <summary>Entries are counted over both sides.</summary>
    private static int SidesOf(Drill drill) => drill.Sides == SideMode.Each ? 2 : 1;

    private static int RampRounds(int step) =>
        step >= 4 ? 3
        : step >= 2 ? 2
        : 1;

    private static HoldDose Hold(HoldDose hold, Drill drill, Want? want)
    {
        if (want?.Test is not HoldCriterion { Seconds: { } asked })
            return hold;
        var seconds = Practised(hold.Seconds!.Value, asked, want.Best, drill.Ceiling);
        return new(seconds, null, RoundsOf(asked, seconds), Math.Clamp(seconds, Math.Min(30, 2 * seconds), 90));
    }

    /// <summary>The last rung is the hold.</summary>
    private static SupportLadderDose Support(SupportLadderDose ladder, Drill drill, Want? want)
    {
        var last = ladder.Rungs[^1];
        if (want?.Test is not HoldCriterion { Seconds: { } asked })
            return drill.Ceiling < last.Seconds
                ? ladder with
                {
                    Rungs = [.. ladder.Rungs.SkipLast(1), last with { Seconds = drill.Ceiling.Value }],
                }
                : ladder;
        var seconds = Practised(last.Seconds, asked, want.Best, drill.Ceiling);
        return ladder with { Rungs = [.. ladder.Rungs.SkipLast(1), last with { Seconds = seconds }], Rounds = FewestRounds };
    }

    private static HoldDose Breaths(HoldDose hold, Drill drill, Want? want, double breathSeconds)
    {
        if (want?.Test is not HoldCriterion asked || want.Best is not { } best)
            return hold;
        var breaths = Math.Max(FewestBreaths, (int)Math.Floor(PracticeShare * best / breathSeconds + 1e-9));
        var most = drill.Ceiling ?? (int)Math.Ceiling(asked.Asked(breathSeconds) / breathSeconds * PastTheGate);
        return hold with { Breaths = Math.Min(breaths, most) };
    }

    private static AttemptsDose Entries(AttemptsDose attempts, Drill drill, Want? want)
    {
        var asked = want?.Test is HoldCriterion { Seconds: { } seconds } ? seconds : 0;
        if (drill.IsBalance)
            return attempts with
            {
                Attempts = FewestEntries / SidesOf(drill),
                MaxSeconds = EntryOf(),
                RestSeconds = Math.Max(attempts.RestSeconds, EntryOf() / 2),
            };
        int EntryOf() => Math.Min(drill.Ceiling ?? int.MaxValue, Math.Max(EntrySeconds, asked > 0 ? asked : attempts.MaxSeconds));
        return asked == 0
            ? attempts
            : attempts with
            {
                MaxSeconds = Practised(attempts.MaxSeconds, asked, want!.Best, drill.Ceiling),
                RestSeconds = 30,
            };
    }

    /// <summary>A way out that is owned is kept, not drilled: three a side.</summary>
    private static RepsDose Reps(RepsDose reps, Drill drill, Want? want, bool wayOutShown)
    {
        if (drill.IsWayOut)
            return reps with { Reps = wayOutShown ? Math.Min(3, reps.Reps) : reps.Reps };
        return want?.Test is RepsCriterion asked
            ? reps with
            {
                Reps = Math.Min(drill.Ceiling ?? int.MaxValue, Math.Max(reps.Reps, (int)Math.Ceiling(PracticeShare * asked.Reps))),
            }
            : reps;
    }

    /// <summary>Three quarters of one's best, in steps of 5 s from 20 s on; without one, the default, at most half of what is asked.</summary>
    internal static int Practised(int usual, int asked, double? best, int? ceiling)
    {
        var seconds = best is { } most ? (int)Math.Floor(PracticeShare * most + 1e-9) : Math.Min(usual, asked / 2);
        if (seconds >= 20)
            seconds -= seconds % 5;
        return Math.Clamp(seconds, 1, ceiling ?? (int)Math.Ceiling(PastTheGate * asked));
    }

    private static int RoundsOf(int asked, int seconds) =>
        Math.Clamp((int)Math.Ceiling(VolumeOfAsked * asked / seconds - 1e-9), FewestRounds, MostRounds);
}
