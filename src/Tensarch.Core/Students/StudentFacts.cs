using Tensarch.Core.Measuring;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Students;

/// <summary>What a coach keeps of a person.</summary>
/// <param name="ConsentNeeded">They began when everybody was asked whether they want to train: until they say so, nothing is.</param>
/// <param name="SensationCeiling">The coach's own ceiling for them, of 10.</param>
/// <param name="Standard">The standard of a skill that has standards.</param>
/// <param name="BlocksOwned">Both hands together.</param>
/// <param name="Props">Keys of the props that they have.</param>
public sealed record Person(
    DateOnly? BirthDate,
    bool ConsentNeeded,
    int SensationCeiling,
    BodyData Body,
    string Standard,
    int BlocksOwned,
    IReadOnlyCollection<string> Props
);

/// <summary>One answer to one intake question.</summary>
/// <param name="Order">Settles which of two answers of one instant is the newer.</param>
/// <param name="Signs">What was told one by one, where the question is counted: it says the answer, and with age may say another one.</param>
public sealed record IntakeAnswer(string Question, bool Yes, DateTimeOffset At, long Order, IReadOnlyList<string>? Signs = null);

public enum ScreeningKind
{
    /// <summary>The whole screen was gone through.</summary>
    Whole,

    /// <summary>Something changed since: nothing is planned until the screen is gone through again.</summary>
    SomethingChanged,
}

/// <param name="On">The day in the studio's time zone.</param>
/// <param name="Note">What changed, in the student's words.</param>
public sealed record Screened(ScreeningKind Kind, DateOnly On, DateTimeOffset At, string? Note);

/// <summary>A student on a ladder.</summary>
/// <param name="Approach">The key of the approach that sets dose and spacing.</param>
public sealed record Enrolment(Guid Id, Ladder Ladder, string Approach, DateTimeOffset StartedAt);

/// <param name="Skill">The skill that it is about.</param>
public sealed record SkillDecision(string Skill, StageDecision Decision);

/// <summary>
/// The facts about one student, as they were written down, in any order. What sets or lifts a bar and the newest sessions are here in full,
/// however old; readings, sets and forms only as far back as anything counts.
/// </summary>
/// <param name="Sessions">Those of late, and the newest <see cref="NewestSessions"/> however old.</param>
public sealed record StudentFacts(
    Person Person,
    IReadOnlyList<IntakeAnswer> Answers,
    IReadOnlyList<Screened> Screenings,
    IReadOnlyList<Clearance> Clearances,
    IReadOnlyList<BarReview> Reviews,
    IReadOnlyList<BodySignal> Signals,
    IReadOnlyList<TrainedSession> Sessions,
    IReadOnlyList<Reading> Readings,
    IReadOnlyList<LoggedSet> Sets,
    IReadOnlyList<FormCheck> Forms,
    IReadOnlyList<ExitCheck> Exits,
    IReadOnlyList<SkillDecision> Decisions,
    IReadOnlyList<Enrolment> Enrolments
)
{
    /// <summary>As many sessions as the way back after a break can take, and the one before it, with room for two in a day.</summary>
    public const int NewestSessions = 16;

    /// <summary>All that were ever said.</summary>
    public IReadOnlyList<Consent> Consents { get; init; } = [];

    /// <summary>What was said before sessions of late.</summary>
    public IReadOnlyList<CheckIn> CheckIns { get; init; } = [];

    /// <summary>Nothing but the person.</summary>
    public static StudentFacts Of(Person person) => new(person, [], [], [], [], [], [], [], [], [], [], [], []);
}
