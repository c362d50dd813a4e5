using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>One timed attempt, whether it was logged in a session, on the bench or in a reading.</summary>
internal sealed record HoldAttempt(Guid Id, DateTimeOffset At, DateOnly Day, double Seconds, int? Quality);

/// <summary>Judges holds: two attempts of so many seconds, far enough apart to count as two.</summary>
internal static class HoldTests
{
    private const int Attempts = 2;
    private static readonly TimeSpan BetweenAttempts = TimeSpan.FromSeconds(60);

    public static TestVerdict Hold(HoldCriterion test, Measure? measure, Drill? drill, Side? side, Evidence evidence)
    {
        Side? readOn = measure is { PerSide: false } ? null : side;
        var adapted = test.For(drill, evidence.Bars, evidence.StaysShort);
        var asked = adapted.Asked(evidence.Body.BreathSeconds);
        var twoDays = test.TwoDays || drill?.Kind == DrillKind.Attempt;
        var all = Of(test, measure, readOn, evidence)
            .Where(a => test.Quality is not { } quality || a.Quality >= quality)
            .Where(a => !test.BreathFree || !BreathHeld(a, evidence))
            .ToList();
        if (all.Count == 0)
            return new(
                test,
                Outcome.NoData,
                "noHolds",
                new("recordHold", readOn, Count: Attempts),
                readOn,
                Threshold: asked,
                Count: 0,
                Needed: Attempts,
                Adapted: adapted != test
            );

        var fresh = all.Where(a => evidence.OnShelf(a.At, test.ShelfDays)).ToList();
        var best = (fresh.Count > 0 ? fresh : all).Max(a => a.Seconds);
        var passing = fresh.Where(a => a.Seconds >= asked).ToList();
        var apart = Apart(passing, twoDays);
        var (outcome, reason) =
            fresh.Count == 0 ? (Outcome.Stale, "olderThanShelfLife")
            : apart.Count >= Attempts ? (Outcome.Met, twoDays ? "heldOnTwoDays" : "heldTwice")
            : apart.Count == 1 ? (Outcome.Borderline, twoDays ? "heldOnOneDay" : "heldOnce")
            : (Outcome.NotMet, "heldShorter");
        return new(
            test,
            outcome,
            reason,
            outcome == Outcome.Met ? NextStep.Nothing : Again(test, readOn, twoDays, apart, evidence),
            readOn,
            best,
            asked,
            Margin: best - asked,
            At: (fresh.Count > 0 ? fresh : all)[^1].At,
            Count: Math.Min(Attempts, apart.Count),
            Needed: Attempts,
            Evidence: [.. (passing.Count > 0 ? passing : all.TakeLast(1)).Select(a => a.Id).Distinct()],
            CountsUntil: fresh.Count == 0 ? null : (apart.Count >= Attempts ? apart[^Attempts] : fresh[^1]).At.AddDays(test.ShelfDays),
            Adapted: adapted != test
        );
    }

    /// <summary>Every attempt at what a test asks to be held; none for a test of another kind.</summary>
    public static IReadOnlyList<HoldAttempt> Of(ReadinessTest test, Side? side, Evidence evidence, CatalogueContent content) =>
        test is HoldCriterion hold ? [.. Of(hold, hold.Measure is { } key ? content.FindMeasure(key) : null, side, evidence)] : [];

    private static IEnumerable<HoldAttempt> Of(HoldCriterion test, Measure? measure, Side? side, Evidence evidence)
    {
        var asked = measure is not null
            ? evidence.From(measure, side, test.Level).Where(r => !r.Disqualified).SelectMany(AttemptsIn)
            : InDrill(test.Drill, test.Variant, side, evidence);
        return test.OrDrill is { } or ? asked.Concat(InDrill(or, null, side, evidence)).OrderBy(a => a.At) : asked.OrderBy(a => a.At);
    }

    /// <summary>Attempts at a drill and variant, or at a measure and level, oldest first.</summary>
    public static IEnumerable<HoldAttempt> Of(
        string? drill,
        string? variant,
        Measure? measure,
        string? level,
        Side? side,
        Evidence evidence
    ) =>
        measure is not null
            ? evidence.Of(measure, side, Warmth.Warm, level).Where(r => !r.Disqualified).SelectMany(AttemptsIn).OrderBy(a => a.At)
            : InDrill(drill, variant, side, evidence);

    private static IEnumerable<HoldAttempt> InDrill(string? drill, string? variant, Side? side, Evidence evidence) =>
        evidence
            .Sets.Where(s => s.Drill == drill && (variant is null || s.Variant == variant) && s.Side == side && s.Seconds is not null)
            .OrderBy(s => s.At)
            .Select(s => new HoldAttempt(s.Id, s.At, s.Day, s.Seconds!.Value, s.Quality));

    /// <summary>Each trial where the bench saw when it was taken; else the best one, for nobody knows how far apart they were.</summary>
    private static IEnumerable<HoldAttempt> AttemptsIn(Reading reading) =>
        reading.TrialsAt is { } times && times.Count == reading.Trials.Count
            ? reading.Trials.Zip(times).Select(t => new HoldAttempt(reading.Id, t.Second, reading.Day, t.First, reading.Quality))
            : [new(reading.Id, reading.At, reading.Day, reading.Trials.Max(), reading.Quality)];

    private static bool BreathHeld(HoldAttempt attempt, Evidence evidence) =>
        evidence.Signals.Any(s =>
            s.Kind == SignalKind.BreathHeld && s.At >= attempt.At && s.At <= attempt.At.AddSeconds(attempt.Seconds + 30)
        );

    private static NextStep Again(HoldCriterion test, Side? side, bool twoDays, List<HoldAttempt> apart, Evidence evidence) =>
        new(
            "recordHold",
            side,
            twoDays && apart.Count > 0 && apart[^1].Day == evidence.Today ? evidence.Today.AddDays(1) : null,
            Attempts - Math.Min(Attempts, apart.Count)
        );

    /// <summary>As many of the attempts, oldest first, as are far enough apart to count as attempts of their own.</summary>
    private static List<HoldAttempt> Apart(List<HoldAttempt> attempts, bool onTwoDays)
    {
        var kept = new List<HoldAttempt>();
        foreach (var attempt in attempts)
            if (kept.Count == 0 || (onTwoDays ? attempt.Day > kept[^1].Day : attempt.At - kept[^1].At >= BetweenAttempts))
                kept.Add(attempt);
        return kept;
    }
}
