namespace Tensarch.Core.Students;

/// <summary>Everything that decides what a student may do on a day.</summary>
/// <param name="Screened">Every intake question has an answer.</param>
/// <param name="Yes">Keys of the questions whose newest answer is yes.</param>
/// <param name="Minor">Under 18 on the day, by birth date or by answer.</param>
/// <param name="GuardianConsent">A guardian's consent is on record.</param>
/// <param name="SensationCeiling">The coach's own ceiling for the student, of 10.</param>
public sealed record Screening(
    bool Screened,
    IReadOnlyCollection<string> Yes,
    bool Minor,
    bool GuardianConsent,
    int SensationCeiling,
    IReadOnlyList<ReviewHold> Holds,
    IReadOnlyList<Clearance> Clearances,
    DateOnly Today
);

/// <summary>A clinician's clearance: the role (no name needed), the tags it covers, the first and the last day it holds.</summary>
public sealed record Clearance(Guid Id, string Role, IReadOnlyList<LoadTag> Tags, DateOnly From, DateOnly Until)
{
    public bool Covers(LoadTag tag, DateOnly day) => Tags.Contains(tag) && From <= day && day <= Until;
}
