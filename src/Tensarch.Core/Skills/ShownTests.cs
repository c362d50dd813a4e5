using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>Judges what a coach has to see: form, and a safe way out; and the bars that nothing gets around.</summary>
internal static class ShownTests
{
    public static TestVerdict Form(FormCriterion test, Ladder ladder, int stage, Side? side, Evidence evidence)
    {
        var last = evidence
            .Forms.Where(f => f.Ladder == ladder.Skill && f.Stage == stage && f.Side == side)
            .Where(f => f.Ticked.Count == 0 || f.Ticked.Any(t => test.Items.Any(i => i.Key == t)))
            .MaxBy(f => f.At);
        if (last is null)
            return new(test, Outcome.NoData, "notShown", new("tickForm", side), side, Count: 0, Needed: test.Items.Count);

        var ticked = test.Items.Count(i => last.Ticked.Contains(i.Key));
        var (outcome, reason) =
            !evidence.OnShelf(last.At, test.ShelfDays) ? (Outcome.Stale, "olderThanShelfLife")
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
            Evidence: [last.Id],
            CountsUntil: outcome == Outcome.Stale ? null : last.At.AddDays(test.ShelfDays)
        );
    }

    /// <summary>Of two ways out, the one that is shown better.</summary>
    public static TestVerdict Exit(ExitCriterion test, Side? side, Evidence evidence) =>
        test.Ways.Select(way => Exit(test, way, side, evidence)).OrderBy(v => v.Outcome.Rank()).ThenByDescending(v => v.Count).First();

    /// <summary>The latest so many times must all have been safe; one that was not counts until so many safe ones came after it.</summary>
    private static TestVerdict Exit(ExitCriterion test, ExitWay way, Side? side, Evidence evidence)
    {
        var all = evidence.Exits.Where(e => e.Shows(way) && e.Side == side).OrderByDescending(e => e.At).ToList();
        if (all.Count == 0)
            return new(test, Outcome.NoData, "exitNotShown", new("showExit", side, Count: test.Times), side, Count: 0, Needed: test.Times);

        var latest = new List<ExitCheck>();
        var fresh = all.Where(e => evidence.OnShelf(e.At, test.ShelfDays)).ToList();
        foreach (var check in fresh.Count > 0 ? fresh : all)
        {
            if (latest.Sum(e => e.Of) >= test.Times)
                break;
            latest.Add(check);
        }
        var safe = latest.TakeWhile(e => e.Safe == e.Of).Sum(e => e.Safe);
        var shown = safe >= test.Times;
        var (outcome, reason) =
            fresh.Count == 0 ? (Outcome.Stale, "olderThanShelfLife")
            : shown ? (Outcome.Met, "exitShown")
            : (Outcome.NotMet, "exitIncomplete");
        return new(
            test,
            outcome,
            reason,
            outcome == Outcome.Met ? NextStep.Nothing : new("showExit", side, Count: shown ? test.Times : test.Times - safe),
            side,
            At: latest[0].At,
            Count: Math.Min(safe, test.Times),
            Needed: test.Times,
            Evidence: [.. latest.Select(e => e.Id)],
            CountsUntil: fresh.Count == 0 ? null : latest[^1].At.AddDays(test.ShelfDays)
        );
    }

    public static TestVerdict Clear(ClearCriterion test, Ladder ladder, int stage, DayBars bars)
    {
        var barred = ladder.RequiredAt(stage).Where(t => bars[t] == BarLevel.OffLimits).ToList();
        return barred.Count == 0
            ? new(test, Outcome.Met, "noBars", NextStep.Nothing)
            : new(test, Outcome.Blocked, "tagOffLimits", new("liftBar"), OffLimits: barred);
    }
}
