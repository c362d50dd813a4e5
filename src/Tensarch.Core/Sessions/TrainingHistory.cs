using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>One day on which something was trained.</summary>
/// <param name="Worked">Of all its sessions.</param>
public sealed record TrainingDay(DateOnly Day, IReadOnlyList<Work> Worked, LoadLedger Loads);

/// <summary>What was trained, day by day, oldest first: what spacing, rest and breaks are counted from.</summary>
public sealed class TrainingHistory
{
    public static readonly TrainingHistory None = new([]);

    private readonly Lazy<ILookup<string, (DateOnly Day, Work Work)>> byDrill;

    private TrainingHistory(IReadOnlyList<TrainingDay> days)
    {
        Days = days;
        byDrill = new(() =>
            Days.SelectMany(d => d.Worked.Where(w => !w.UnderBar).Select(w => (d.Day, Work: w))).ToLookup(w => w.Work.Drill)
        );
    }

    public IReadOnlyList<TrainingDay> Days { get; }

    /// <summary>What was done of one drill, oldest first; not what was done under a bar, on which nothing is built.</summary>
    public IEnumerable<(DateOnly Day, Work Work)> Of(string drill) => byDrill.Value[drill];

    public static TrainingHistory Of(IEnumerable<TrainedSession> sessions, CatalogueContent content) =>
        new([
            .. from session in sessions
            group session by session.Day into day
            orderby day.Key
            let worked = day.SelectMany(s => s.Worked).ToList()
            select new TrainingDay(day.Key, worked, LoadLedger.Of(worked, content)),
        ]);

    /// <summary>With one day more; what was done on the same day before is added to.</summary>
    public TrainingHistory With(DateOnly day, IReadOnlyList<Work> worked, CatalogueContent content)
    {
        var all = Days.Where(d => d.Day == day).SelectMany(d => d.Worked).Concat(worked).ToList();
        return new([.. Days.Where(d => d.Day != day).Append(new(day, all, LoadLedger.Of(all, content))).OrderBy(d => d.Day)]);
    }

    /// <summary>Since anything was trained; none when nothing was.</summary>
    public int? DaysSinceLast(DateOnly day) => Since(day, _ => true);

    /// <summary>Since a tag was loaded heavily, the day itself included; none when it never was.</summary>
    public int? DaysSinceHeavy(LoadTag tag, DateOnly day) => Since(day, d => d.Loads.Heavy.Contains(tag));

    /// <summary>It was done in this variant, as far back as is known.</summary>
    public bool Knows(string drill, string variant) => Of(drill).Any(w => w.Work.Variant == variant);

    /// <summary>Days running, up to the day before, on which a tag was loaded heavily.</summary>
    public int DaysRunning(LoadTag tag, DateOnly day)
    {
        var heavy = Days.Where(d => d.Loads.Heavy.Contains(tag)).Select(d => d.Day).ToHashSet();
        var running = 0;
        while (heavy.Contains(day.AddDays(-1 - running)))
            running++;
        return running;
    }

    /// <summary>Days with heavy load on a tag among so many before a day.</summary>
    public int HeavyDays(LoadTag tag, DateOnly day, int before) =>
        Days.Count(d => d.Day < day && day.DayNumber - d.Day.DayNumber <= before && d.Loads.Heavy.Contains(tag));

    /// <summary>The load of the seven days from a day on.</summary>
    public LoadLedger Week(DateOnly start) =>
        Days.Where(d => d.Day >= start && d.Day < start.AddDays(7)).Select(d => d.Loads).Aggregate(LoadLedger.Empty, (a, b) => a.Plus(b));

    private int? Since(DateOnly day, Func<TrainingDay, bool> which) =>
        Days.Where(d => d.Day <= day && which(d)).Select(d => (int?)(day.DayNumber - d.Day.DayNumber)).Min();
}
