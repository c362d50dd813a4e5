namespace Tensarch.Core.Planning;

/// <summary>How a coach chooses to stretch: it sets dose and spacing.</summary>
/// <param name="EndRangeSpacingDays">Calendar days between heavy end-range work on one region.</param>
/// <param name="FirstWeekRamp">The ramped dose in week one of a new skill.</param>
public sealed record Approach(string Key, string Name, string Text, int EndRangeSpacingDays, int SessionsPerWeek, RampedDose FirstWeekRamp);
