using Tensarch.Core.Skills;

namespace Tensarch.Core.Planning;

/// <summary>Where one side stands on the ladder.</summary>
/// <param name="Stage">The same on both sides of a bilateral ladder.</param>
/// <param name="GapsCm">By measure, the last gap that counts, for choosing props.</param>
/// <param name="Wanted">Holds and repetitions that the side's gate still asks for.</param>
public sealed record SideState(Side Side, int Stage, IReadOnlyDictionary<string, double> GapsCm, IReadOnlyList<Want> Wanted)
{
    /// <summary>By measure, the last reading that counts of what says which support is used.</summary>
    public IReadOnlyDictionary<string, double> Supports { get; init; } = new Dictionary<string, double>();
}

/// <summary>Where a trainee stands on one skill.</summary>
/// <param name="Weaker">The weaker side; none while the difference is within noise.</param>
/// <param name="LastFirstSide">The side that went first last time.</param>
/// <param name="DaysSinceStart">Since the student began this skill.</param>
/// <param name="SessionsSinceStart">Logged since then.</param>
/// <param name="WeeksTrained">Weeks since then, before this one, in which two sessions or more were done.</param>
/// <param name="WayOutShown">Every exit of the ladder's lower stages has been shown.</param>
public sealed record CourseState(
    Ladder Ladder,
    Approach Approach,
    string? Standard,
    SideState Left,
    SideState Right,
    Side? Weaker,
    Side? LastFirstSide,
    int DaysSinceStart,
    int SessionsSinceStart,
    int WeeksTrained,
    bool WayOutShown
)
{
    public string Skill => Ladder.Skill;

    /// <summary>Steps of growth that a lighter week leaves; none where it leaves all.</summary>
    public int? MostStep { get; init; }

    public SideState Of(Side side) => side == Side.Left ? Left : Right;

    /// <summary>The side that goes first: the weaker one, else the sides take turns.</summary>
    public Side FirstSide => Weaker ?? LastFirstSide?.Other() ?? Side.Left;

    /// <summary>The stage whose work a side does: the last one when the skill is owned.</summary>
    public int WorkStage(Side side) => Math.Clamp(Of(side).Stage, 1, Ladder.Stages.Count);

    public int LowerStage => Math.Min(WorkStage(Side.Left), WorkStage(Side.Right));
}
