using Tensarch.Core.Catalogue;

namespace Tensarch.Core.Students;

/// <summary>What stays lighter for a while, after pain or a back-off.</summary>
/// <param name="Region">All that loads it; none where it is about one drill.</param>
/// <param name="Drill">The one drill; none where it is about a region.</param>
/// <param name="DoseShare">Of the dose, above 0 and at most 1.</param>
/// <param name="EasierBy">How many variants easier than it was before.</param>
/// <param name="Since">The day on which it began to be easier; none where it is not about variants.</param>
/// <param name="SettleShare">Of the passive settling alone, above 0 and at most 1.</param>
/// <param name="FewerRounds">So many rounds less of main work.</param>
/// <param name="NoStep">No harder version and no more of it than in the week before.</param>
public sealed record Eased(
    LoadTag? Region,
    string? Drill,
    double DoseShare,
    int EasierBy,
    DateOnly? Since = null,
    double SettleShare = 1,
    int FewerRounds = 0,
    bool NoStep = false
)
{
    /// <summary>Without a region and a drill it is about everything.</summary>
    public bool Touches(string drill, IReadOnlyDictionary<LoadTag, LoadLevel> loads) =>
        Region is null && Drill is null || drill == Drill || Region is { } region && loads.GetValueOrDefault(region) != LoadLevel.None;
}

/// <summary>
/// What was said before a session is about its day or the week; what pain or a back-off eased stays eased in the next sessions, until two sessions that loaded it went without; after a reviewed bar the
/// region's dose is 40 % less for two weeks. Source: stop rules, pain events.
/// </summary>
internal static class Easing
{
    public const double ReviewedShare = 0.6;
    public const int ReviewedDays = 14;
    private const int SessionsWithout = 2;
    private const double LessSettling = 0.5;
    private const int AgainDays = 14;

    public static IReadOnlyList<Eased> On(
        DateOnly day,
        StudentFacts facts,
        CatalogueContent content,
        Func<DateTimeOffset, DateOnly> dayOf
    ) => [.. Reviewed(day, facts, dayOf), .. Painful(facts, content, dayOf), .. BackedOff(facts, dayOf), .. Said(day, facts)];

    public static IEnumerable<DateOnly> Turns(StudentFacts facts, Func<DateTimeOffset, DateOnly> dayOf) =>
        facts.Reviews.Select(r => dayOf(r.At).AddDays(ReviewedDays)).Concat(facts.CheckIns.Select(c => c.Day.AddDays(CheckIn.NoStepDays)));

    /// <summary>What was said before a session: of the day, and of the day after the one before.</summary>
    private static IEnumerable<Eased> Said(DateOnly day, StudentFacts facts)
    {
        var said = CheckIn.Standing(facts.CheckIns);
        foreach (var fewer in said.Where(c => c.Day == day).SelectMany(c => c.Fewer()))
            yield return fewer;
        foreach (
            var region in said.Where(c => c.Day <= day && day.DayNumber - c.Day.DayNumber < CheckIn.NoStepDays)
                .SelectMany(c => c.NoStep())
                .Distinct()
        )
            yield return new(region, null, 1, 0, NoStep: true);
    }

    private static IEnumerable<Eased> Reviewed(DateOnly day, StudentFacts facts, Func<DateTimeOffset, DateOnly> dayOf) =>
        from tag in facts.Reviews.Where(r => day.DayNumber - dayOf(r.At).DayNumber < ReviewedDays).Select(r => r.Tag).Distinct()
        select new Eased(tag, null, ReviewedShare, 0);

    private static IEnumerable<Eased> Painful(StudentFacts facts, CatalogueContent content, Func<DateTimeOffset, DateOnly> dayOf) =>
        from region in facts.Signals.Where(s => s.IsPainEvent).GroupBy(s => s.Region!.Value)
        let last = region.Max(s => s.At)
        where facts.Sessions.Count(s => s.At > last && Loads(s.Worked.Select(w => w.Drill), region.Key, content)) < SessionsWithout
        select new Eased(region.Key, null, 1, 1, dayOf(last));

    private static IEnumerable<Eased> BackedOff(StudentFacts facts, Func<DateTimeOffset, DateOnly> dayOf) =>
        from drill in facts
            .Signals.Where(s => s is { Kind: SignalKind.BreathHeld or SignalKind.OverCeiling, Drill: not null })
            .GroupBy(s => s.Drill!)
        let last = drill.Max(s => s.At)
        where facts.Sessions.Count(s => s.At > last && s.Worked.Any(w => w.Drill == drill.Key)) < SessionsWithout
        let days = drill.Select(s => dayOf(s.At)).Where(d => dayOf(last).DayNumber - d.DayNumber <= AgainDays).Distinct().Count()
        // Over the ceiling once, and less settling is the first answer.
        select drill.All(s => s.Kind == SignalKind.OverCeiling) && days == 1
            ? new Eased(null, drill.Key, 1, 0, SettleShare: LessSettling)
            : new Eased(null, drill.Key, 1, 1, dayOf(last));

    private static bool Loads(IEnumerable<string> drills, LoadTag region, CatalogueContent content) =>
        drills.Any(d => content.FindDrill(d)?.Loads.GetValueOrDefault(region) > LoadLevel.None);
}
