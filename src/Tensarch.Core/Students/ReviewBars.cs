namespace Tensarch.Core.Students;

/// <summary>A tag that what happened in training bars.</summary>
/// <param name="SinceDay">The day in the studio's time zone.</param>
/// <param name="NeedsClinician">Lifted by a clinician's clearance only; else by a coach's recorded review.</param>
/// <param name="PainFreeSessions">Sessions logged since without a pain event in it.</param>
/// <param name="Signal">The signal that raised it under a stop rule; none when two pain events did.</param>
public sealed record ReviewBar(
    LoadTag Tag,
    DateTimeOffset Since,
    DateOnly SinceDay,
    bool NeedsClinician,
    int PainFreeSessions,
    SignalKind? Signal = null
)
{
    /// <summary>When the last of what raised it was heard of, and no earlier than <see cref="Since"/>: a clearance from before knows nothing of it.</summary>
    public DateTimeOffset RecordedAt { get; init; } = Since;

    /// <summary>A coach's review is taken no earlier than after so many pain-free sessions.</summary>
    public const int PainFreeSessionsNeeded = 2;

    /// <summary>It was told before a session as injured of late: it is looked at, and the day after that it is free.</summary>
    public bool Injury { get; init; }

    public bool MayBeReviewed => !NeedsClinician && (Injury || PainFreeSessions >= PainFreeSessionsNeeded);
}

/// <summary>A coach's recorded review of a barred tag.</summary>
public sealed record BarReview(LoadTag Tag, DateTimeOffset At);

/// <summary>Derives the standing review bars from signals and reviews.</summary>
internal static class ReviewBars
{
    /// <summary>Two pain events in one region within so many days bar it.</summary>
    public const int PainWindowDays = 14;

    /// <param name="said">What stands of what was said before sessions.</param>
    /// <param name="sessions">When each session was logged.</param>
    /// <param name="dayOf">The studio's day of an instant.</param>
    public static IReadOnlyList<ReviewBar> From(
        IReadOnlyList<StopRule> rules,
        IReadOnlyList<BodySignal> signals,
        IReadOnlyList<BarReview> reviews,
        IReadOnlyList<CheckIn> said,
        IReadOnlyList<DateTimeOffset> sessions,
        Func<DateTimeOffset, DateOnly> dayOf
    )
    {
        var raised = ByPain(signals).Concat(ByRule(rules, signals)).Concat(ByInjury(said));
        var standing =
            from bar in raised
            where bar.NeedsClinician || !reviews.Any(r => r.Tag == bar.Tag && r.At >= bar.RecordedAt)
            group bar by (bar.Tag, bar.NeedsClinician) into same
            let last = same.MaxBy(b => b.Since)
            select new ReviewBar(
                same.Key.Tag,
                last.Since,
                dayOf(last.Since),
                same.Key.NeedsClinician,
                PainFree(same.Key.Tag, last.Since, signals, sessions),
                last.Signal
            )
            {
                RecordedAt = same.Max(b => b.RecordedAt),
                // Whatever else bars it too asks for more than a look.
                Injury = same.All(b => b.Injury),
            };
        return [.. standing.OrderBy(b => b.Tag)];
    }

    private sealed record Raised(LoadTag Tag, DateTimeOffset Since, DateTimeOffset RecordedAt, bool NeedsClinician, SignalKind? Signal)
    {
        public bool Injury { get; init; }

        public static Raised By(LoadTag tag, bool needsClinician, SignalKind? kind, params BodySignal[] signals) =>
            new(tag, signals.Max(s => s.At), signals.Max(s => s.RecordedAt > s.At ? s.RecordedAt : s.At), needsClinician, kind);
    }

    private static IEnumerable<Raised> ByPain(IReadOnlyList<BodySignal> signals) =>
        from region in signals.Where(s => s.IsPainEvent).GroupBy(s => s.Region!.Value)
        let ordered = region.OrderBy(s => s.At).ToList()
        from pair in ordered.Zip(ordered.Skip(1))
        where pair.Second.At - pair.First.At <= TimeSpan.FromDays(PainWindowDays)
        select Raised.By(region.Key, false, null, pair.First, pair.Second);

    private static IEnumerable<Raised> ByInjury(IReadOnlyList<CheckIn> said) =>
        from day in said
        from injured in day.Felt
        where injured.Kind == FeltKind.Injury
        select new Raised(injured.Region, day.At, day.At, false, null) { Injury = true };

    private static IEnumerable<Raised> ByRule(IReadOnlyList<StopRule> rules, IReadOnlyList<BodySignal> signals)
    {
        foreach (var signal in signals)
        {
            var rule = rules.Single(r => r.Signal == signal.MetAs);
            if (rule.BarsRegion && signal.Region is { } region)
                yield return Raised.By(region, false, signal.Kind, signal);
            if (rule.ClinicianRegion && signal.Region is { } hurt)
                yield return Raised.By(hurt, true, signal.Kind, signal);
            foreach (var tag in rule.ClinicianAll ? LoadTags.All : [])
                yield return Raised.By(tag, true, signal.Kind, signal);
            foreach (var tag in rule.Bars)
                yield return Raised.By(tag, false, signal.Kind, signal);
            if (rule.ClinicianRegions.Count == 0 || (signal.Region is { } at && rule.ClinicianRegions.Contains(at)))
                foreach (var tag in rule.ClinicianBars)
                    yield return Raised.By(tag, true, signal.Kind, signal);
        }
    }

    private static int PainFree(
        LoadTag tag,
        DateTimeOffset since,
        IReadOnlyList<BodySignal> signals,
        IReadOnlyList<DateTimeOffset> sessions
    )
    {
        var later = sessions.Where(s => s > since).Order().ToList();
        return later
            .Where(
                (start, i) =>
                {
                    var end = i + 1 < later.Count ? later[i + 1] : DateTimeOffset.MaxValue;
                    return !signals.Any(s => s.IsPainEvent && s.Region == tag && s.At >= start && s.At < end);
                }
            )
            .Count();
    }
}
