namespace Tensarch.Core.Students;

/// <summary>Whether the intake screen still says something about today.</summary>
public enum ScreenState
{
    /// <summary>Some question has no answer.</summary>
    NotScreened,

    /// <summary>Answered, and not six months ago.</summary>
    Current,

    /// <summary>Six months old: it is repeated.</summary>
    Due,

    /// <summary>Someone said that something changed since.</summary>
    SomethingChanged,
}

/// <summary>A question that was answered with yes, and when it was: the same answer given again changes nothing.</summary>
public sealed record YesAnswer(string Question, DateTimeOffset At);

/// <summary>Everything that decides what a student may do on a day.</summary>
/// <param name="Yes">The questions whose newest answer is yes.</param>
/// <param name="Minor">Under 18 on the day, by birth date or by answer.</param>
/// <param name="GuardianConsent">A guardian's consent is on record.</param>
/// <param name="SensationCeiling">The coach's own ceiling for the student, of 10.</param>
/// <param name="Clearances">All that were ever recorded: a lapsed one says why a bar is back.</param>
/// <param name="Age">In years; none where it is not known and nobody said that they are young.</param>
/// <param name="MayTrain">They said that they want to train, or were not asked yet and need not have been.</param>
/// <param name="CheckIn">What was said on the day; none when nothing was.</param>
/// <param name="ChangedAt">When something was said to have changed since the screen.</param>
internal sealed record Screening(
    ScreenState Screen,
    IReadOnlyCollection<YesAnswer> Yes,
    bool Minor,
    bool GuardianConsent,
    int SensationCeiling,
    IReadOnlyList<ReviewBar> Reviews,
    IReadOnlyList<Clearance> Clearances,
    DateOnly Today,
    DateTimeOffset? ChangedAt = null,
    int? Age = null,
    bool MayTrain = true,
    CheckIn? CheckIn = null
)
{
    /// <param name="answered">Every question has an answer.</param>
    /// <param name="screenedOn">The day on which the whole screen was last gone through; none when never.</param>
    /// <param name="changed">Something was said to have changed since.</param>
    public static ScreenState StateOf(bool answered, DateOnly? screenedOn, bool changed, DateOnly today) =>
        !answered || screenedOn is null ? ScreenState.NotScreened
        : changed ? ScreenState.SomethingChanged
        : today >= DueOn(screenedOn.Value) ? ScreenState.Due
        : ScreenState.Current;

    public static DateOnly DueOn(DateOnly screenedOn) => screenedOn.AddMonths(ScreenView.RescreenMonths);
}

/// <summary>
/// A clinician's clearance: the role (no name needed), the tags it covers, the first and the last day it stands; withdrawn early where a
/// coach recorded that.
/// </summary>
/// <param name="RecordedAt">It speaks of what was known by then, and lifts nothing that came later.</param>
public sealed record Clearance(
    Guid Id,
    string Role,
    IReadOnlyList<LoadTag> Tags,
    DateOnly From,
    DateOnly Until,
    DateTimeOffset RecordedAt,
    DateOnly? WithdrawnOn = null
)
{
    public bool Covers(LoadTag tag, DateOnly day) => Tags.Contains(tag) && StandsOn(day);

    public bool StandsOn(DateOnly day) => From <= day && day <= Until && (WithdrawnOn is not { } withdrawn || day < withdrawn);

    /// <summary>The first day on which it no longer stands; the last day of the calendar for one that was recorded until then.</summary>
    public DateOnly LapsesOn =>
        WithdrawnOn is { } withdrawn && withdrawn <= Until ? withdrawn
        : Until == DateOnly.MaxValue ? Until
        : Until.AddDays(1);
}
