using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

/// <summary>A trainee with one skill, flat, so that a test changes one thing of it; the history is told by what is counted from it.</summary>
/// <param name="DaysSinceHeavy">Per region, days since heavy work on it.</param>
/// <param name="WristDaysRunning">Days running, up to the day before, with heavy load on the wrists.</param>
/// <param name="NeckDaysInWeek">Days with neck-loaded work in the six days before.</param>
public sealed record OneSkill(
    Ladder Ladder,
    Approach Approach,
    string? Standard,
    DateOnly Date,
    int Minutes,
    SideState Left,
    SideState Right,
    Side? Weaker,
    Side? LastFirstSide,
    int DaysSinceStart,
    int SessionsSinceStart,
    int? DaysSinceLast,
    IReadOnlyDictionary<LoadTag, int> DaysSinceHeavy,
    WayBack? WayBack,
    IReadOnlyList<Eased> Eased,
    int WristDaysRunning,
    int NeckDaysInWeek,
    bool WayOutShown,
    DayBars Bars,
    double BreathSeconds,
    int BlocksOwned
)
{
    /// <summary>Done in full in two sessions, a week ago and two days before.</summary>
    public IReadOnlyList<(string Drill, string Variant)> Full { get; init; } = [];

    public CourseState Course =>
        new(
            Ladder,
            Approach,
            Standard,
            Left,
            Right,
            Weaker,
            LastFirstSide,
            DaysSinceStart,
            SessionsSinceStart,
            Math.Min(DaysSinceStart / 7, SessionsSinceStart / 2),
            WayOutShown
        );

    public TrainingHistory History =>
        TrainingHistory.Of(
            Told()
                .Select(t => new TrainedSession(
                    Guid.NewGuid(),
                    [Ladder.Skill],
                    new DateTimeOffset(Date.AddDays(-t.DaysAgo), new TimeOnly(9, 0), TimeSpan.Zero),
                    Date.AddDays(-t.DaysAgo),
                    Side.Left,
                    t.Work is { } work ? [work] : []
                )),
            Shipped.Content
        );

    private IEnumerable<(int DaysAgo, Work? Work)> Told()
    {
        static Work Hardest(string drill) => new(drill, Shipped.Content.Drill(drill).Variants[^1].Key, null);
        foreach (var (drill, variant) in Full)
        foreach (var ago in new[] { 9, 7 })
            yield return (ago, new(drill, variant, null, Ladder.Skill, Full: true));
        if (DaysSinceLast is { } last)
            yield return (last, null);
        foreach (var (tag, days) in DaysSinceHeavy)
            yield return (days, Hardest(tag == LoadTag.Adductor ? "straddle-support" : "split-support"));
        for (var i = 1; i <= WristDaysRunning; i++)
            yield return (i, Hardest("crow"));
        for (var i = 1; i <= NeckDaysInWeek; i++)
            yield return (i, Hardest("half-shoulderstand"));
    }

    public static implicit operator Trainee(OneSkill one) =>
        new(one.Date, one.Minutes, [one.Course], one.History, one.WayBack, one.Eased, one.Bars, one.BreathSeconds, one.BlocksOwned);
}
