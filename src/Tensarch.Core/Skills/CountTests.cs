using Tensarch.Core.Measuring;

namespace Tensarch.Core.Skills;

/// <summary>Judges what is counted: clean repetitions, and successes of attempts.</summary>
internal static class CountTests
{
    public static TestVerdict Reps(RepsCriterion test, Side? side, Evidence evidence)
    {
        var sets = evidence.Sets.Where(s => s.Drill == test.Drill && s.Variant == test.Variant && s.Side == side);
        var all = test.EachSeconds is { } each ? Held(sets, each) : [.. sets.Where(s => s.CleanReps is not null)];
        if (all.Count == 0)
            return new(test, Outcome.NoData, "noReps", new("recordReps", side), side, Threshold: test.Reps);

        var fresh = all.Where(s => evidence.OnShelf(s.At, test.ShelfDays)).ToList();
        var counted = fresh.Count > 0 ? fresh : all;
        var most = counted.Max(s => s.CleanReps!.Value);
        var best = counted.Where(s => s.CleanReps == most).MaxBy(s => s.At)!;
        var (outcome, reason) =
            fresh.Count == 0 ? (Outcome.Stale, "olderThanShelfLife")
            : most >= test.Reps ? (Outcome.Met, "repsClean")
            : (Outcome.NotMet, "repsShort");
        return new(
            test,
            outcome,
            reason,
            outcome == Outcome.Met ? NextStep.Nothing : new("recordReps", side),
            side,
            most,
            test.Reps,
            Margin: most - test.Reps,
            At: best.At,
            Evidence: [best.Id],
            CountsUntil: fresh.Count == 0 ? null : best.At.AddDays(test.ShelfDays)
        );
    }

    /// <summary>Those of a day as one set: each hold that was long enough is one, and the clean ones of a set are counted.</summary>
    private static List<LoggedSet> Held(IEnumerable<LoggedSet> sets, int seconds) =>
        [
            .. from set in sets
            where set.Seconds is not null || set.CleanReps is not null
            group set by set.Day into day
            let last = day.MaxBy(s => s.At)!
            select last with
            {
                CleanReps = day.Sum(s => s.CleanReps ?? (s.Seconds >= seconds ? 1 : 0)),
            },
        ];

    /// <summary>
    /// Counts attempts from the newest reading back, every reading whole, until there are enough of them on two days; what was tried
    /// is never left out. The share is tested; its Wilson interval is shown.
    /// </summary>
    public static TestVerdict Rate(RateCriterion test, Measure measure, Side? side, Evidence evidence)
    {
        Side? readOn = measure.PerSide ? side : null;
        var all = evidence.From(measure, readOn, test.Level).Where(r => r is { Tally: not null, Disqualified: false }).ToList();
        if (all.Count == 0)
            return new(
                test,
                Outcome.NoData,
                "noAttempts",
                new("countAttempts", readOn, Count: test.Of),
                readOn,
                Threshold: test.Successes,
                Count: 0,
                Needed: test.Of
            );

        var latest = new List<Reading>();
        var fresh = all.Where(r => evidence.OnShelf(r.At, test.ShelfDays)).ToList();
        foreach (var reading in (fresh.Count > 0 ? fresh : all).OrderByDescending(r => r.At))
        {
            if (Attempts(latest) >= test.Of && Days(latest) >= 2)
                break;
            latest.Add(reading);
        }
        var (attempts, successes) = (Attempts(latest), latest.Sum(r => r.Tally!.Successes));
        var rate = SuccessRate.Of(successes, attempts).Value;
        var reaches = rate.Share >= test.Share - 1e-12;
        var (outcome, reason) =
            fresh.Count == 0 ? (Outcome.Stale, "olderThanShelfLife")
            : !reaches ? (Outcome.NotMet, "rateShort")
            : attempts < test.Of ? (Outcome.Borderline, "tooFewAttempts")
            : Days(latest) < 2 ? (Outcome.Borderline, "countedOnOneDay")
            : (Outcome.Met, "rateReached");
        return new(
            test,
            outcome,
            reason,
            outcome == Outcome.Met
                ? NextStep.Nothing
                : new(
                    "countAttempts",
                    readOn,
                    outcome == Outcome.Borderline && Days(latest) < 2 && latest[0].Day == evidence.Today ? evidence.Today.AddDays(1) : null,
                    attempts < test.Of ? test.Of - attempts : null
                ),
            readOn,
            successes,
            test.Successes,
            Margin: successes - test.Share * attempts,
            At: latest[0].At,
            Count: attempts,
            Needed: test.Of,
            Days: Days(latest),
            Evidence: [.. latest.Select(r => r.Id)],
            Rate: rate,
            CountsUntil: fresh.Count == 0 ? null : latest[^1].At.AddDays(test.ShelfDays)
        );
    }

    private static int Attempts(List<Reading> readings) => readings.Sum(r => r.Tally!.Attempts);

    private static int Days(List<Reading> readings) => readings.Select(r => r.Day).Distinct().Count();
}
