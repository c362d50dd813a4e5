using Tensarch.Core;
using Tensarch.Core.Students;

namespace Tensarch.Server.Demo;

/// <summary>The true value of one measure at the start and where training takes it.</summary>
/// <param name="Start">True value 14 weeks ago, in the measure's unit; the share of successes for a count.</param>
/// <param name="Limit">Where it levels off.</param>
/// <param name="Side">None for what has no side.</param>
public sealed record TrueRange(string Measure, double Start, double Limit, Side? Side = null, string? Level = null);

/// <summary>One side picture of the demo.</summary>
/// <param name="Level">The variant that it shows, for a line.</param>
public sealed record DemoPicture(int Day, SamplePicture Picture, string? Level = null);

/// <summary>A skill that someone trains.</summary>
/// <param name="Stages">Where each course starts; the suggestion when none are given.</param>
/// <param name="Shown">Forms and ways out of the stages below the start were shown on that day.</param>
/// <param name="From">The day on which it began, counted back from today; the first day when none is given.</param>
public sealed record DemoSkill(
    string Skill,
    IReadOnlyList<int>? Stages = null,
    bool Shown = false,
    int? From = null,
    string Approach = "long-and-ramped"
);

/// <summary>Pain that was felt in the session of a day.</summary>
public sealed record DemoPain(int Day, LoadTag Region, Side? Side, int Pain, string Drill);

/// <summary>A student's weeks.</summary>
/// <param name="From">The first day, counted back from today.</param>
/// <param name="Again">Days on which the coach planned again, besides those on which a gate opened or something hurt.</param>
/// <param name="Target">By which day, counted from today, the coach hopes for the first skill.</param>
/// <param name="Pin">A session of next week is pinned.</param>
public sealed record DemoProgramme(int From, int Weeks, IReadOnlyList<int>? Again = null, int? Target = null, bool Pin = false);

/// <summary>A clearance from a day to a day, counted back from today.</summary>
public sealed record DemoClearance(string Role, IReadOnlyList<LoadTag> Tags, int From, int Until);

/// <summary>One student of the demo: who they are and the case they show. Days are counted back from today.</summary>
/// <param name="Truth">How far the body goes: what is read, and what is held.</param>
public sealed record DemoCase(
    string Name,
    string About,
    int Age,
    double LegCm,
    IReadOnlyList<DemoSkill> Skills,
    IReadOnlyList<TrueRange> Truth
)
{
    public string Standard { get; init; } = "square";

    public int Minutes { get; init; } = 60;

    public int Ceiling { get; init; } = 7;

    public IReadOnlyList<string> Yes { get; init; } = [];

    public IReadOnlyList<string> Goals { get; init; } = [];

    public IReadOnlyList<string> Equipment { get; init; } = ["folded-blanket", "strap", "wall"];

    public IReadOnlyList<int> Days { get; init; } = [];

    public IReadOnlyList<int> Tests { get; init; } = [];

    public double Rate { get; init; }

    public int DecidesUntil { get; init; }

    public IReadOnlyList<DemoPicture> Pictures { get; init; } = [];

    public IReadOnlyList<DemoPain> Pains { get; init; } = [];

    public IReadOnlyList<DemoClearance> Clearances { get; init; } = [];

    public IReadOnlyList<DemoNote> Notes { get; init; } = [];

    public DemoProgramme? Programme { get; init; }

    public int FirstDay => Days.Concat(Tests).Min();
}

/// <summary>What the coach wrote down on a day.</summary>
public sealed record DemoNote(int Day, string Text, bool Pinned = false, bool CarryOver = false);
