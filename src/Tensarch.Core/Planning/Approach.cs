namespace Tensarch.Core.Planning;

/// <summary>How a coach chooses to stretch: it sets dose and spacing, and which drills come first.</summary>
/// <param name="EndRangeSpacingDays">Calendar days between heavy end-range work on one region.</param>
/// <param name="FirstWeekRamp">The ramped dose in week one of a new skill.</param>
/// <param name="Favours">Kinds of drills that it prefers where there is a choice, first to last.</param>
/// <param name="InsteadOfRamp">What it does in place of a ramped dose; none where it ramps.</param>
/// <param name="FirstWeekInstead">The same in week one.</param>
/// <param name="MostStillSeconds">A passive hold at the end of range is no longer than this; none where it may be long.</param>
public sealed record Approach(
    string Key,
    string Name,
    string Text,
    int EndRangeSpacingDays,
    int SessionsPerWeek,
    RampedDose FirstWeekRamp,
    IReadOnlyList<DrillKind> Favours,
    Dose? InsteadOfRamp = null,
    Dose? FirstWeekInstead = null,
    int? MostStillSeconds = null
);
