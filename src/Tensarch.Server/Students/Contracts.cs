using System.ComponentModel.DataAnnotations;
using Tensarch.Core;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;
using Tensarch.Server.Hosting.Door;
using Tensarch.Server.Measuring;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Students;

/// <summary>What a coach writes down about a student.</summary>
/// <param name="LeftLegCm">Greater trochanter to heel, standing.</param>
/// <param name="BreathSeconds">One calm breath.</param>
/// <param name="SensationCeiling">Of 10.</param>
/// <param name="HipWidthCm">Between the two hip joints.</param>
/// <param name="Goals">Skills, the most wanted first.</param>
/// <param name="Equipment">Props at home; see <see cref="HomeProps"/>.</param>
/// <param name="Days">When they can train.</param>
/// <param name="BodyWords">Their own words, which the runner shows beside the part.</param>
public sealed record StudentBody(
    [Required, StringLength(120)] string Name,
    [StringLength(200)] string? About,
    [NotFuture] DateOnly? BirthDate,
    [Range(40, 130)] double? LeftLegCm,
    [Range(40, 130)] double? RightLegCm,
    [Range(20, 300)] double? BodyweightKg,
    [Range(2, 20)] double BreathSeconds,
    [Range(1, 10)] int SensationCeiling,
    [RegularExpression(Key.Pattern)] string SplitStandard,
    [Range(0, 20)] int BlocksOwned,
    [Range(SessionBuilder.FewestMinutes, SessionBuilder.MostMinutes)] int SessionMinutes,
    [Range(0, 40)] double HipWidthCm = Core.Measuring.Straddle.DefaultHipWidthCm,
    [MaxLength(12), RegularExpression(Key.Pattern)] IReadOnlyList<string>? Goals = null,
    [MaxLength(24), RegularExpression(Key.Pattern)] IReadOnlyList<string>? Equipment = null,
    [MaxLength(28)] IReadOnlyList<AvailableDay>? Days = null,
    [MaxLength(20)] IReadOnlyList<BodyWord>? BodyWords = null
);

/// <summary>What a student calls a part of their body.</summary>
public sealed record BodyWord(LoadTag Tag, [Required, StringLength(40)] string Word);

/// <param name="Consents">What was asked at once.</param>
public sealed record StudentCreate(Guid Id, StudentBody Student, [MaxLength(5)] IReadOnlyList<ConsentItem>? Consents = null);

/// <param name="SaidBy">Who said it, where it was not the student: a guardian.</param>
public sealed record ConsentItem(ConsentKind Kind, bool Given, [StringLength(120)] string? SaidBy = null);

public sealed record ConsentRequest(Guid Id, ConsentKind Kind, bool Given, [StringLength(120)] string? SaidBy = null);

/// <summary>The newest of its kind.</summary>
public sealed record ConsentView(ConsentKind Kind, bool Given, DateOnly On, string? SaidBy, string By, DateTimeOffset At);

/// <param name="Said">What stands.</param>
/// <param name="Unasked">What is asked at the next start.</param>
/// <param name="BarTraining">Nothing is trained until there is a consent to it.</param>
public sealed record ConsentsView(IReadOnlyList<ConsentView> Said, IReadOnlyList<ConsentKind> Unasked, bool BarTraining);

/// <summary>What is said on a day before a session. Said again on the same day, it takes the place of what was said first.</summary>
public sealed record CheckInRequest(Guid Id, bool SleptBadly, bool Ill, bool TrainedHard, [MaxLength(24)] IReadOnlyList<FeltItem> Felt);

/// <param name="Place">A key of a place of the body.</param>
/// <param name="Level">0 to 10; of an injury it says nothing.</param>
public sealed record FeltItem(FeltKind Kind, [RegularExpression(Key.Pattern)] string Place, Side? Side, [Range(0, 10)] int Level);

/// <summary>The check-in of today.</summary>
/// <param name="Said">None while nothing was said today.</param>
/// <param name="AfterSessionOn">The last session before today whose day after was not asked about yet; none when there is none.</param>
public sealed record CheckInView(CheckIn? Said, DateOnly? AfterSessionOn);

public sealed record StudentView(Guid Id, int Version, StudentBody Student, int? AgeYears, bool Archived);

/// <summary>One student, whole: the person, today's bars and where they stand.</summary>
/// <param name="LeftOut">Stored entries that cannot be reckoned with and count for nothing.</param>
/// <param name="Notes">Pinned ones, and the one that is carried over to the next session.</param>
/// <param name="VoidedPains">Pain of readings that were voided, which counts all the same, until a coach has looked at it.</param>
public sealed record StudentPage(
    StudentView Student,
    bool Screened,
    ScreenView Screen,
    ConsentsView Consents,
    CheckInView CheckIn,
    IReadOnlyList<AnswerView> Answers,
    BarsView Bars,
    IReadOnlyList<ReviewBarView> ReviewBars,
    IReadOnlyList<ClearanceView> Clearances,
    IReadOnlyList<SkillSummary> Skills,
    NextSessionLine? NextSession,
    DateOnly? LastSessionOn,
    int? DaysSinceLast,
    Absence Absence,
    int LeftOut,
    IReadOnlyList<VoidedPain> VoidedPains,
    IReadOnlyList<NoteView> Notes
);

/// <summary>What is to be done next and has not ended: today's, else the next one to come, else what was left over.</summary>
public sealed record NextSessionLine(Guid Id, string Skill, IReadOnlyList<string> Beside, DateOnly Date, int TotalSeconds);

public sealed record AnswerView(string Question, bool Yes, DateTimeOffset At, IReadOnlyList<string>? Signs);

/// <param name="Tags">Only what is not free.</param>
/// <param name="Lifted">What a clearance lifts today.</param>
public sealed record BarsView(IReadOnlyList<BarredTag> Tags, IReadOnlyList<BarReason> Lifted, int SensationCeiling, int RampTopPercent);

public sealed record BarredTag(LoadTag Tag, BarLevel Level, IReadOnlyList<BarReason> Reasons);

/// <param name="Signal">What raised it in a session; none when two pain events did.</param>
public sealed record ReviewBarView(
    LoadTag Tag,
    DateTimeOffset Since,
    bool NeedsClinician,
    int PainFreeSessions,
    int Needed,
    bool MayBeReviewed,
    SignalKind? Signal,
    bool Injury
);

/// <param name="Standing">Stands today.</param>
/// <param name="LapsesOn">The first day on which it no longer stands.</param>
public sealed record ClearanceView(
    Guid Id,
    string Role,
    IReadOnlyList<LoadTag> Tags,
    DateOnly From,
    DateOnly Until,
    bool Standing,
    DateOnly LapsesOn,
    bool Withdrawn
);

/// <summary>Answers, new or changed. A request with every question is the whole screen gone through.</summary>
public sealed record AnswersRequest(IReadOnlyList<AnswerItem> Answers, Guid? Id = null);

/// <param name="Signs">What was told one by one, where the question is counted: it says the answer.</param>
public sealed record AnswerItem(
    [RegularExpression(Key.Pattern)] string Question,
    bool Yes,
    [MaxLength(20), RegularExpression(Key.Pattern)] IReadOnlyList<string>? Signs = null
);

/// <summary>Something changed since the screen: nothing is planned until it is gone through again.</summary>
public sealed record ChangedRequest(Guid Id, [Required, StringLength(500)] string Note);

public sealed record ClearanceRequest(
    Guid Id,
    [Required, StringLength(120)] string Role,
    [MaxLength(40)] IReadOnlyList<LoadTag> Tags,
    [NotFuture] DateOnly From,
    DateOnly Until
);

public sealed record WithdrawalRequest(Guid Id, [StringLength(500, MinimumLength = 10)] string Reason);

public sealed record ReviewRequest(Guid Id, LoadTag Tag, [StringLength(500, MinimumLength = 10)] string Note);

/// <summary>What the answers so far would bar, for a coach who is still asking.</summary>
/// <param name="Signs">What was told of the question that is counted; none while nothing was.</param>
public sealed record BarsRequest(
    [RegularExpression(Key.Pattern)] IReadOnlyList<string> Yes,
    DateOnly? BirthDate,
    bool GuardianConsent,
    [Range(1, 10)] int? SensationCeiling,
    [MaxLength(20), RegularExpression(Key.Pattern)] IReadOnlyList<string>? Signs = null
);

/// <summary>One thing that was written down about a student, by whom and when.</summary>
/// <param name="Kind"><c>answer</c>, <c>screened</c>, <c>somethingChanged</c>, <c>body</c>, <c>clearance</c>, <c>withdrawal</c>, <c>review</c>, <c>consent</c>, <c>checkIn</c>.</param>
/// <param name="Field">The question, or the field of the body data.</param>
public sealed record HistoryLine(
    DateTimeOffset At,
    string By,
    string Kind,
    string? Field = null,
    string? Before = null,
    string? After = null,
    IReadOnlyList<LoadTag>? Tags = null,
    string? Note = null
);

public sealed record RosterResponse(IReadOnlyList<RosterLine> Students, string? Next);

/// <summary>One student in a list: a small arch for each skill, bars, and what to do next.</summary>
/// <param name="SessionsLately">Logged in the last 14 days.</param>
/// <param name="SessionsAsked">What the approach asks for in 14 days.</param>
/// <param name="LeftOut">Stored entries that cannot be reckoned with and count for nothing.</param>
/// <param name="Unreadable">Where they stand cannot be worked out: nothing of them may be decided or planned before that is mended.</param>
public sealed record RosterLine(
    Guid Id,
    string Name,
    string? About,
    int? AgeYears,
    bool Archived,
    bool Screened,
    ScreenState Screen,
    IReadOnlyList<SkillSummary> Skills,
    IReadOnlyList<BarredTag> Bars,
    int SessionsLately,
    int SessionsAsked,
    DateOnly? LastSessionOn,
    int? DaysSinceLast,
    Absence Absence,
    int LeftOut = 0,
    bool Unreadable = false
);
