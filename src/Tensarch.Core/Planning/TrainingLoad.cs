using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What the sessions so far loaded heavily, in days. Reads what was worked under the newest content.</summary>
internal static class TrainingLoad
{
    /// <summary>Days on which a tag was loaded heavily.</summary>
    public static IReadOnlySet<DateOnly> HeavyDays(IEnumerable<TrainedSession> sessions, LoadTag tag, CatalogueContent content) =>
        (
            from session in sessions
            from worked in session.Worked
            let drill = content.FindDrill(worked.Drill)
            let variant = drill?.Variants.FirstOrDefault(v => v.Key == worked.Variant)
            where variant is not null && drill.LoadsOf(variant, drill.DoseOf(variant)).GetValueOrDefault(tag) == Load.Heavy
            select session.Day
        ).ToHashSet();

    /// <summary>How many days running, up to the day before.</summary>
    public static int DaysRunning(IReadOnlySet<DateOnly> days, DateOnly date)
    {
        var running = 0;
        while (days.Contains(date.AddDays(-1 - running)))
            running++;
        return running;
    }

    /// <summary>Per region, days since heavy work on it, by the variant that was worked.</summary>
    public static IReadOnlyDictionary<LoadTag, int> DaysSinceHeavy(
        IEnumerable<TrainedSession> sessions,
        DateOnly date,
        CatalogueContent content
    ) =>
        (
            from session in sessions
            from worked in session.Worked
            let drill = content.FindDrill(worked.Drill)
            let variant = drill?.Variants.FirstOrDefault(v => v.Key == worked.Variant)
            where variant is not null
            from load in drill.LoadsOf(variant, drill.DoseOf(variant))
            where load.Value == Load.Heavy && load.Key.IsRegion()
            select (Tag: load.Key, Days: date.DayNumber - session.Day.DayNumber)
        )
            .GroupBy(l => l.Tag)
            .ToDictionary(g => g.Key, g => g.Min(l => l.Days));
}
