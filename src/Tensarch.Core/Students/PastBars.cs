using System.Collections.Concurrent;
using Tensarch.Core.Catalogue;

namespace Tensarch.Core.Students;

/// <summary>
/// The bars of an instant that is over: made by what had happened by then, whenever it was heard. A signal that is told late bars what was done
/// after it; what was done before something was said is not barred by it. Source: laws of a session, 6.
/// </summary>
public sealed class PastBars
{
    private readonly StudentFacts facts;
    private readonly CatalogueContent content;
    private readonly Func<DateTimeOffset, DateOnly> dayOf;
    private readonly List<DateTimeOffset> turns;
    private readonly ConcurrentDictionary<(int Turn, DateOnly Day), DayBars> known = new();

    internal PastBars(StudentFacts facts, CatalogueContent content, Func<DateTimeOffset, DateOnly> dayOf)
    {
        // Sessions count for no level of a bar.
        (this.facts, this.content, this.dayOf) = (facts with { Sessions = [] }, content, dayOf);
        turns =
        [
            .. facts
                .Answers.Select(a => a.At)
                .Concat(facts.Screenings.Select(s => s.At))
                .Concat(facts.Clearances.Select(c => c.RecordedAt))
                .Concat(facts.Reviews.Select(r => r.At))
                .Concat(facts.Signals.Select(s => s.At))
                .Concat(facts.Consents.Select(c => c.At))
                .Concat(facts.CheckIns.Select(c => c.At))
                .Distinct()
                .Order(),
        ];
    }

    /// <summary>A signal at the instant itself bars what comes after it; an answer, a clearance or a review at the instant counts.</summary>
    public DayBars At(DateTimeOffset at)
    {
        var turn = turns.BinarySearch(at);
        // At a turn, and between two of them, are different answers: twice the count, and one more where it is met.
        return known.GetOrAdd((turn >= 0 ? 2 * turn + 1 : 2 * ~turn, dayOf(at)), key => Made(at, key.Day));
    }

    private DayBars Made(DateTimeOffset at, DateOnly day) =>
        new Bars(
            facts with
            {
                Answers = [.. facts.Answers.Where(a => a.At <= at)],
                Screenings = [.. facts.Screenings.Where(s => s.At <= at)],
                Clearances = [.. facts.Clearances.Where(c => c.RecordedAt <= at)],
                Reviews = [.. facts.Reviews.Where(r => r.At <= at)],
                Signals = [.. facts.Signals.Where(s => s.At < at)],
                Consents = [.. facts.Consents.Where(c => c.At <= at)],
                CheckIns = [.. facts.CheckIns.Where(c => c.At <= at)],
            },
            content.Questions,
            content.StopRules,
            dayOf
        ).On(day);
}
