using Tensarch.Core;
using Tensarch.Core.Planning;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Students;

/// <summary>What a coach writes down about a student.</summary>
/// <param name="LeftLegCm">Greater trochanter to heel, standing.</param>
/// <param name="BreathSeconds">One calm breath.</param>
/// <param name="SensationCeiling">Of 10.</param>
/// <param name="HipWidthCm">Between the two hip joints.</param>
/// <param name="GuardianConsentOn">When a guardian's consent was recorded, for someone under 18.</param>
public sealed record StudentBody(
    string Name,
    string? About,
    DateOnly? BirthDate,
    double? LeftLegCm,
    double? RightLegCm,
    double? BodyweightKg,
    double BreathSeconds,
    int SensationCeiling,
    string SplitStandard,
    int BlocksOwned,
    int SessionMinutes,
    DateOnly? GuardianConsentOn,
    double HipWidthCm = Core.Measuring.Straddle.DefaultHipWidthCm
);

public sealed record StudentCreate(Guid Id, StudentBody Student);

public sealed record StudentView(Guid Id, int Version, StudentBody Student, int? AgeYears, bool Archived);

/// <summary>One student, whole: the person, today's cautions and where they stand.</summary>
public sealed record StudentPage(
    StudentView Student,
    bool Screened,
    IReadOnlyList<AnswerView> Answers,
    CautionsView Cautions,
    IReadOnlyList<HoldView> Holds,
    IReadOnlyList<ClearanceView> Clearances,
    bool OnLadder,
    Guid? NextSessionId,
    DateOnly? LastSessionOn,
    int? DaysSinceLast,
    Absence Absence
);

public sealed record AnswerView(string Question, bool Yes, DateTimeOffset At);

/// <param name="Tags">Only what is not free.</param>
public sealed record CautionsView(IReadOnlyList<CautionTag> Tags, int SensationCeiling, int RampTopPercent);

public sealed record CautionTag(LoadTag Tag, CautionLevel Level, IReadOnlyList<CautionReason> Reasons);

public sealed record HoldView(LoadTag Tag, DateTimeOffset Since, bool NeedsClinician, int PainFreeSessions, int Needed, bool MayBeReviewed);

public sealed record ClearanceView(Guid Id, string Role, IReadOnlyList<LoadTag> Tags, DateOnly From, DateOnly Until, bool Standing);

public sealed record AnswersRequest(IReadOnlyList<AnswerItem> Answers);

public sealed record AnswerItem(string Question, bool Yes);

public sealed record ClearanceRequest(Guid Id, string Role, IReadOnlyList<LoadTag> Tags, DateOnly From, DateOnly Until);

public sealed record ReviewRequest(Guid Id, LoadTag Tag, string Note);

public sealed record RosterResponse(IReadOnlyList<RosterLine> Students, string? Next);

/// <summary>One student in a list: a small arch, the weaker side, and what to do next.</summary>
/// <param name="SessionsLately">Logged in the last 14 days.</param>
/// <param name="SessionsAsked">What the approach asks for in 14 days.</param>
public sealed record RosterLine(
    Guid Id,
    string Name,
    string? About,
    int? AgeYears,
    bool Archived,
    bool Screened,
    IReadOnlyList<SideSummary> Sides,
    IReadOnlyList<Stone> Arch,
    Side? Weaker,
    bool SidesRead,
    IReadOnlyList<CautionTag> Cautions,
    int SessionsLately,
    int SessionsAsked,
    DateOnly? LastSessionOn,
    int? DaysSinceLast,
    Absence Absence
);
