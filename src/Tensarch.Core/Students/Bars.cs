namespace Tensarch.Core.Students;

/// <summary>The intake screen as it stands on a day.</summary>
/// <param name="ScreenedOn">When the whole screen was last gone through.</param>
/// <param name="DueOn">When it is repeated.</param>
/// <param name="Changed">What was said to have changed since.</param>
/// <param name="Unasked">Questions that came after the student was screened: asked at the next start, and no reason to stop until then.</param>
public sealed record ScreenView(ScreenState State, DateOnly? ScreenedOn, DateOnly? DueOn, string? Changed, IReadOnlyList<string> Unasked)
{
    /// <summary>The screen is repeated after so many months.</summary>
    public const int RescreenMonths = 6;
}

/// <summary>
/// Everything that bars a student, as a function of the day: a clearance that lapses in a plan's third week, or a birthday, falls inside it.
/// </summary>
public sealed class Bars
{
    private readonly StudentFacts facts;
    private readonly IReadOnlyList<IntakeQuestion> questions;
    private readonly Dictionary<string, IntakeAnswer> newest;
    private readonly ILookup<DateOnly, CheckIn> checkIns;
    private readonly Screened? whole;
    private readonly Screened? changed;

    internal Bars(
        StudentFacts facts,
        IReadOnlyList<IntakeQuestion> questions,
        IReadOnlyList<StopRule> rules,
        Func<DateTimeOffset, DateOnly> dayOf
    )
    {
        this.facts = facts;
        this.questions = questions;
        newest = facts.Answers.GroupBy(a => a.Question).ToDictionary(g => g.Key, g => g.MaxBy(a => (a.At, a.Order))!);
        whole = facts.Screenings.Where(s => s.Kind == ScreeningKind.Whole).MaxBy(s => s.At);
        changed = facts
            .Screenings.Where(s => s.Kind == ScreeningKind.SomethingChanged && (whole is null || s.At >= whole.At))
            .MaxBy(s => s.At);
        Consents = new(facts.Consents, facts.Person.ConsentNeeded);
        var said = CheckIn.Standing(facts.CheckIns);
        checkIns = said.ToLookup(c => c.Day);
        Reviews = ReviewBars.From(rules, facts.Signals, facts.Reviews, said, [.. facts.Sessions.Select(s => s.At)], dayOf);
    }

    /// <summary>Raised by what happened in training, and not lifted by a coach's review.</summary>
    public IReadOnlyList<ReviewBar> Reviews { get; }

    /// <summary>What they said yes and no to.</summary>
    public Consents Consents { get; }

    /// <summary>What was said on a day before training; none when nothing was.</summary>
    public CheckIn? CheckInOn(DateOnly day) => checkIns[day].FirstOrDefault();

    /// <summary>The newest answer to each question.</summary>
    public IReadOnlyCollection<IntakeAnswer> Answers => newest.Values;

    /// <summary>Questions that came after the student was screened, and were not asked yet.</summary>
    private IEnumerable<string> Unasked =>
        whole is null ? [] : questions.Where(q => q.AddedLater && !newest.ContainsKey(q.Key)).Select(q => q.Key);

    public ScreenView Screen(DateOnly day) =>
        new(
            Screening.StateOf(questions.All(q => newest.ContainsKey(q.Key) || q.AddedLater), whole?.On, changed is not null, day),
            whole?.On,
            whole is null ? null : Screening.DueOn(whole.On),
            changed?.Note,
            [.. Unasked]
        );

    /// <summary>What an answer says on a day.</summary>
    public bool IsYes(IntakeAnswer answer, DateOnly day) =>
        answer.Signs is { } told && questions.FirstOrDefault(q => q.Key == answer.Question)?.Signs is { } signs
            ? signs.IsYes(told, AgeOn(day))
            : answer.Yes;

    public DayBars On(DateOnly day) =>
        DayBars.Of(
            questions,
            new(
                Screen(day).State,
                [.. newest.Values.Where(a => IsYes(a, day)).Select(a => new YesAnswer(a.Question, a.At))],
                IsMinor(day),
                Consents.IsGiven(ConsentKind.Guardian),
                facts.Person.SensationCeiling,
                Reviews,
                facts.Clearances,
                day,
                changed?.At,
                AgeOn(day),
                !Consents.BarTraining,
                CheckInOn(day)
            )
        );

    public bool IsMinor(DateOnly day) =>
        facts.Person.BirthDate is { } born && Age.Years(born, day) < Age.Adult
        || newest.TryGetValue(IntakeQuestion.Under18, out var answer) && answer.Yes;

    /// <summary>Of who says that they are under 18 and gives no birth date the youngest that may train.</summary>
    private int? AgeOn(DateOnly day) =>
        facts.Person.BirthDate is { } born ? Age.Years(born, day)
        : IsMinor(day) ? Age.Youngest
        : null;

    /// <summary>The days on which something may change without a new fact.</summary>
    internal IEnumerable<DateOnly> Turns()
    {
        if (whole is not null)
            yield return Screening.DueOn(whole.On);
        if (facts.Person.BirthDate is { } born)
            foreach (var years in Age.Turns)
                yield return born.AddYears(years);
        foreach (var said in checkIns)
            yield return said.Key.AddDays(1);
        foreach (var clearance in facts.Clearances)
        {
            yield return clearance.From;
            yield return clearance.LapsesOn;
        }
    }
}
