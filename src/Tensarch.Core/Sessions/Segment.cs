namespace Tensarch.Core.Sessions;

public enum SegmentKind
{
    SetUp,
    SwitchSides,
    Work,
    Rest,

    /// <summary>Out of a position, slowly and by its own words. It ends a round and is no rest.</summary>
    Out,
}

/// <summary>What is done in a work segment.</summary>
public enum Phase
{
    None,
    Hold,
    Settle,
    Press,
    Lift,
    Resettle,
    Repeat,
    Rung,
    Position,
    Attempt,
}

/// <summary>A stretch of time in a session.</summary>
/// <param name="StartSeconds">From the start of the session.</param>
/// <param name="Seconds">Whole seconds, at least 1.</param>
/// <param name="Round">Counted from 1; 0 where nothing is counted.</param>
/// <param name="Effort">Percent of effort, one number a second; none when there is no ramp.</param>
/// <param name="Reps">Repetitions in this segment.</param>
/// <param name="Label">The rung or position, where it has a name.</param>
/// <param name="Cue">What is said when it begins.</param>
/// <param name="Later">What is said while it lasts, in order of time; none where nothing is.</param>
public sealed record Segment(
    string Part,
    string Drill,
    string Variant,
    Side? Side,
    SegmentKind Kind,
    Phase Phase,
    int StartSeconds,
    int Seconds,
    int Round,
    int Rounds,
    IReadOnlyList<int>? Effort,
    int? Reps,
    string? Label,
    string? Cue,
    IReadOnlyList<LaterCue>? Later = null
);

/// <param name="At">Seconds from the start of the segment.</param>
public sealed record LaterCue(int At, string Says);
