using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>Judges the tests that read what was done: holds, repetitions, exposure, pain, form and holds of cautions.</summary>
internal static class TrainingTests
{
    private static readonly TimeSpan BetweenAttempts = TimeSpan.FromSeconds(60);

    public static TestVerdict Hold(HoldCriterion test, Drill drill, Side side, Evidence evidence)
    {
        var all = evidence
            .Sets.Where(s => s.Drill == test.Drill && s.Variant == test.Variant && OnSide(s, side) && s.Seconds is not null)
            .Where(s => test.Quality is not { } quality || s.Quality >= quality)
            .OrderBy(s => s.At)
            .ToList();
        var fresh = all.Where(s => Fresh(s.At, test.ShelfDays, evidence)).ToList();
        if (all.Count == 0)
            return new(
                test,
                Outcome.NoData,
                "noHolds",
                new("recordHold", side, Count: 2),
                side,
                Threshold: test.Seconds,
                Count: 0,
                Needed: 2
            );

        var best = (fresh.Count > 0 ? fresh : all).Max(s => s.Seconds!.Value);
        var passing = fresh.Where(s => s.Seconds >= test.Seconds).ToList();
        var apart = Apart(passing, onTwoDays: drill.Kind == DrillKind.Attempt);
        var (outcome, reason) =
            fresh.Count == 0 ? (Outcome.Stale, "olderThanShelfLife")
            : apart.Count >= 2 ? (Outcome.Met, "heldTwice")
            : apart.Count == 1 ? (Outcome.Borderline, drill.Kind == DrillKind.Attempt ? "heldOnOneDay" : "heldOnce")
            : (Outcome.NotMet, "heldShorter");
        return new(
            test,
            outcome,
            reason,
            outcome == Outcome.Met ? NextStep.Nothing : new("recordHold", side, Count: 2 - Math.Min(2, apart.Count)),
            side,
            best,
            test.Seconds,
            Margin: best - test.Seconds,
            At: (fresh.Count > 0 ? fresh : all)[^1].At,
            Count: Math.Min(2, apart.Count),
            Needed: 2,
            Evidence: [.. (passing.Count > 0 ? passing : all.TakeLast(1)).Select(s => s.Id)]
        );
    }

    public static TestVerdict Reps(RepsCriterion test, Side side, Evidence evidence)
    {
        var all = evidence
            .Sets.Where(s => s.Drill == test.Drill && s.Variant == test.Variant && OnSide(s, side) && s.CleanReps is not null)
            .ToList();
        var fresh = all.Where(s => Fresh(s.At, test.ShelfDays, evidence)).ToList();
        if (all.Count == 0)
            return new(test, Outcome.NoData, "noReps", new("recordReps", side), side, Threshold: test.Reps);

        var best = (fresh.Count > 0 ? fresh : all).MaxBy(s => s.CleanReps)!;
        var (outcome, reason) =
            fresh.Count == 0 ? (Outcome.Stale, "olderThanShelfLife")
            : best.CleanReps >= test.Reps ? (Outcome.Met, "repsClean")
            : (Outcome.NotMet, "repsShort");
        return new(
            test,
            outcome,
            reason,
            outcome == Outcome.Met ? NextStep.Nothing : new("recordReps", side),
            side,
            best.CleanReps,
            test.Reps,
            Margin: best.CleanReps - test.Reps,
            At: best.At,
            Evidence: [best.Id]
        );
    }

    /// <summary>Sessions with a working drill of the stage on this side, since the decision into the stage.</summary>
    public static TestVerdict Exposure(
        ExposureCriterion test,
        Ladder ladder,
        int stage,
        Side side,
        IReadOnlyDictionary<string, Drill> drills,
        Evidence evidence
    )
    {
        var since = EnteredAt(stage, side, evidence);
        var done = evidence
            .Sets.Where(s => s.Session is not null && s.At >= since && OnSide(s, side) && Works(drills, s.Drill, ladder.Key, stage))
            .GroupBy(s => s.Session!.Value)
            .Select(g => g.MinBy(s => s.At)!)
            .OrderBy(s => s.At)
            .ToList();
        var days = done.Count == 0 ? 0 : done[^1].Day.DayNumber - done[0].Day.DayNumber + 1;
        var met = done.Count >= test.Sessions && days >= test.Days;
        return new(
            test,
            met ? Outcome.Met : Outcome.NotMet,
            met ? "enoughSessions"
                : done.Count < test.Sessions ? "tooFewSessions"
                : "tooFewDays",
            met ? NextStep.Nothing : new("logSessions", side, Count: Math.Max(1, test.Sessions - done.Count)),
            side,
            done.Count,
            test.Sessions,
            Margin: done.Count - test.Sessions,
            At: done.LastOrDefault()?.At,
            Count: done.Count,
            Needed: test.Sessions,
            Days: days,
            Evidence: [.. done.Select(s => s.Session!.Value)]
        );
    }

    public static TestVerdict Pain(PainCriterion test, Ladder ladder, Evidence evidence)
    {
        var last = evidence.Sessions.OrderByDescending(s => s.At).Take(test.Sessions).ToList();
        if (last.Count < test.Sessions)
            return new(
                test,
                Outcome.NoData,
                "tooFewSessions",
                new("logSessions", Count: test.Sessions - last.Count),
                Threshold: test.AtMost,
                Count: last.Count,
                Needed: test.Sessions
            );

        var felt = evidence
            .Signals.Where(s => s.At >= last[^1].At && s.Pain is not null && s.Region is { } r && ladder.Regions.Contains(r))
            .ToList();
        var worst = felt.Count == 0 ? 0 : felt.Max(s => s.Pain!.Value);
        var met = worst <= test.AtMost;
        return new(
            test,
            met ? Outcome.Met : Outcome.NotMet,
            met ? "painFree" : "painInRegion",
            met ? NextStep.Nothing : new("trainPainFree", Count: test.Sessions),
            Value: worst,
            Threshold: test.AtMost,
            Margin: test.AtMost - worst,
            At: last[0].At,
            Count: last.Count,
            Needed: test.Sessions,
            Evidence: [.. felt.Where(s => s.Pain > test.AtMost).Select(s => s.Id)]
        );
    }

    public static TestVerdict Form(FormCriterion test, Ladder ladder, int stage, Side side, Evidence evidence)
    {
        var last = evidence.Forms.Where(f => f.Ladder == ladder.Key && f.Stage == stage && f.Side == side).MaxBy(f => f.At);
        if (last is null)
            return new(test, Outcome.NoData, "notShown", new("tickForm", side), side, Count: 0, Needed: test.Items.Count);

        var ticked = test.Items.Count(i => last.Ticked.Contains(i.Key));
        var (outcome, reason) =
            !Fresh(last.At, test.ShelfDays, evidence) ? (Outcome.Stale, "olderThanShelfLife")
            : ticked == test.Items.Count ? (Outcome.Met, "formShown")
            : (Outcome.NotMet, "formIncomplete");
        return new(
            test,
            outcome,
            reason,
            outcome == Outcome.Met ? NextStep.Nothing : new("tickForm", side),
            side,
            At: last.At,
            Count: ticked,
            Needed: test.Items.Count,
            Evidence: [last.Id]
        );
    }

    public static TestVerdict Clear(ClearCriterion test, Ladder ladder, Cautions cautions)
    {
        var held = ladder.RequiredTags.Where(t => cautions[t] == CautionLevel.Held).ToList();
        return held.Count == 0
            ? new(test, Outcome.Met, "noHolds", NextStep.Nothing)
            : new(test, Outcome.Blocked, "tagHeld", new("resolveHold"), HeldTags: held);
    }

    /// <summary>When the side came to the stage it is at; the beginning when no decision says.</summary>
    public static DateTimeOffset EnteredAt(int stage, Side? side, Evidence evidence) =>
        evidence
            .Decisions.Where(d => d.Side == side && d.ToStage == stage && d.FromStage != stage)
            .Select(d => d.At)
            .DefaultIfEmpty(DateTimeOffset.MinValue)
            .Max();

    private static bool Works(IReadOnlyDictionary<string, Drill> drills, string key, string ladder, int stage) =>
        drills.TryGetValue(key, out var drill)
        && drill.ServesStage(ladder, stage)
        && drill.Kind is DrillKind.Mobilise or DrillKind.Strength or DrillKind.EndRange or DrillKind.Skill or DrillKind.Attempt;

    private static bool OnSide(LoggedSet set, Side side) => set.Side == side;

    private static bool Fresh(DateTimeOffset at, int shelfDays, Evidence evidence) => evidence.Now - at <= TimeSpan.FromDays(shelfDays);

    /// <summary>As many of the attempts, oldest first, as are far enough apart to count as attempts of their own.</summary>
    private static List<LoggedSet> Apart(List<LoggedSet> attempts, bool onTwoDays)
    {
        var kept = new List<LoggedSet>();
        foreach (var attempt in attempts)
            if (kept.Count == 0 || (onTwoDays ? attempt.Day > kept[^1].Day : attempt.At - kept[^1].At >= BetweenAttempts))
                kept.Add(attempt);
        return kept;
    }
}
