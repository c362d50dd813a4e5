using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>Where one side stands on the ladder.</summary>
/// <param name="Stage">The same on both sides of a bilateral ladder.</param>
/// <param name="GapsCm">By measure, the last gap that counts, for choosing props.</param>
/// <param name="Wanted">Holds and repetitions that the side's gate still asks for.</param>
public sealed record SideState(Side Side, int Stage, IReadOnlyDictionary<string, double> GapsCm, IReadOnlyList<Want> Wanted);

/// <summary>Everything the next session depends on; <see cref="SessionRequests"/> draws it from a student's state.</summary>
/// <param name="Minutes">What the day allows; see <see cref="SessionBuilder.FewestMinutes"/>.</param>
/// <param name="Weaker">The weaker side; none while the difference is within noise.</param>
/// <param name="LastFirstSide">The side that went first last time.</param>
/// <param name="DaysSinceStart">Since the student began this skill.</param>
/// <param name="SessionsSinceStart">Logged since then.</param>
/// <param name="DaysSinceLast">Since the last logged session; none when there was none.</param>
/// <param name="DaysSinceHeavy">Per region, days since heavy work on it.</param>
/// <param name="WayBack">The way back after a break, on the day; none when there is none.</param>
/// <param name="Eased">What stays lighter after pain or a back-off.</param>
/// <param name="WristDaysRunning">Days running, up to the day before, with heavy load on the wrists.</param>
/// <param name="NeckDaysInWeek">Days with neck-loaded work in the six days before.</param>
/// <param name="WayOutShown">Every exit of the ladder's lower stages has been shown.</param>
public sealed record SessionRequest(
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
    public SideState Of(Side side) => side == Side.Left ? Left : Right;

    /// <summary>The stage whose work a side does: the last one when the skill is owned.</summary>
    public int WorkStage(Side side) => Math.Clamp(Of(side).Stage, 1, Ladder.Stages.Count);

    /// <summary>The shipped stage whose drills a side does.</summary>
    public int Trains(Side side) => Ladder.TrainsAs(WorkStage(side));

    public int LowerStage => Math.Min(WorkStage(Side.Left), WorkStage(Side.Right));

    /// <summary>Week one of the skill, or the way back after four weeks away.</summary>
    public bool FirstWeek => DaysSinceStart < 7 || WayBack?.Absence == Absence.ReBaseline;

    /// <summary>Weeks of growth so far: one a week, and none without two sessions in it.</summary>
    public int Step => FirstWeek ? 0 : Math.Min(DaysSinceStart / 7, Math.Max(1, SessionsSinceStart / 2));

    public Absence Absence => Absences.After(DaysSinceLast);

    /// <summary>The full position is tried after the first-attempt delay only, and not in a first week.</summary>
    public bool AttemptsAllowed =>
        !FirstWeek && DaysSinceStart >= SessionBuilder.AttemptDelayDays && SessionsSinceStart >= SessionBuilder.AttemptDelaySessions;
}
