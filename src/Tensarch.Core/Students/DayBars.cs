namespace Tensarch.Core.Students;

/// <summary>One link of the chain that bars a tag.</summary>
/// <param name="Code">
/// <c>intake</c>, <c>painEvents</c>, <c>stopRule</c>, <c>notScreened</c>, <c>screenDue</c>, <c>somethingChanged</c>, <c>guardianConsent</c>, <c>needsClearance</c>, <c>tooYoung</c>,
/// <c>under16</c>, <c>trainingConsent</c>, <c>injury</c>; of the day alone <c>ill</c>, <c>newInjury</c>, <c>painToday</c> or <c>soreToday</c>.
/// </param>
/// <param name="Question">The intake question, where one is the reason.</param>
/// <param name="Signal">The signal in a session, where one is the reason.</param>
/// <param name="LiftedBy">What would lift it.</param>
/// <param name="Since">When what bars it was said or felt; none where nothing was, as where a screen is due.</param>
/// <param name="ClearedUntil">A clearance lifts it up to this day: it does not count today.</param>
/// <param name="LapsedOn">A clearance that lifted it has lapsed: the bar is back since this day.</param>
/// <param name="ClearedBefore">A clearance stands for the tag, but is older than this: it lifts nothing that came after it.</param>
/// <param name="Manner">How light, where it is light only.</param>
/// <param name="On">It bars the tag only in what loads this as well.</param>
public sealed record BarReason(
    LoadTag Tag,
    BarLevel Level,
    string Code,
    LiftedBy LiftedBy,
    string? Question = null,
    SignalKind? Signal = null,
    DateTimeOffset? Since = null,
    DateOnly? ClearedUntil = null,
    DateOnly? LapsedOn = null,
    bool ClearedBefore = false,
    LightManner Manner = LightManner.Few,
    LoadTag? On = null
)
{
    /// <summary>Counts on the day.</summary>
    public bool Standing => ClearedUntil is null;
}

/// <summary>What lifts a reason. Nothing else does.</summary>
public enum LiftedBy
{
    /// <summary>A clinician's clearance that covers the tag.</summary>
    Clearance,

    /// <summary>A coach's review, not before two pain-free sessions.</summary>
    Review,

    /// <summary>Going through the intake screen.</summary>
    Screen,

    /// <summary>A guardian's recorded consent.</summary>
    GuardianConsent,

    /// <summary>The student's own consent to train.</summary>
    TrainingConsent,

    /// <summary>Any clinician's clearance that knows of it.</summary>
    AnyClearance,

    /// <summary>Nothing but growing older.</summary>
    Age,

    /// <summary>It is of the day alone, and can be said anew.</summary>
    NextDay,
}

/// <summary>
/// What a student may do on one day, per load tag: the strictest of all that applies, with the whole chain of reasons. Made by
/// <see cref="Bars.On"/> alone.
/// </summary>
public sealed class DayBars
{
    public const int MinorCeiling = 6;
    public const int MinorRampTop = 60;
    private readonly Dictionary<LoadTag, BarLevel> levels;
    private readonly IReadOnlyList<(string Gate, LoadTag Tag)> askedGates;
    private readonly List<BarReason> pairs;

    private DayBars(
        IReadOnlyList<BarReason> reasons,
        int sensationCeiling,
        int rampTopPercent,
        IReadOnlyList<(string Gate, LoadTag Tag)> askedGates
    )
    {
        Reasons = reasons;
        this.askedGates = askedGates;
        SensationCeiling = sensationCeiling;
        RampTopPercent = rampTopPercent;
        levels = LoadTags.All.ToDictionary(
            t => t,
            t => reasons.Where(r => r.Tag == t && r.Standing && r.On is null).Select(r => r.Level).DefaultIfEmpty().Max()
        );
        pairs = [.. reasons.Where(r => r.Standing && r.On is not null)];
    }

    public IReadOnlyDictionary<LoadTag, BarLevel> Levels => levels;

    /// <summary>All of them, also those that a clearance lifts on the day.</summary>
    public IReadOnlyList<BarReason> Reasons { get; }

    /// <summary>Of 10.</summary>
    public int SensationCeiling { get; }

    public int RampTopPercent { get; }

    public BarLevel this[LoadTag tag] => levels[tag];

    /// <summary>The same with nothing on some tags: what a bar on it is compared with.</summary>
    internal DayBars Freeing(IReadOnlyCollection<LoadTag> tags) =>
        new([.. Reasons.Where(r => !tags.Contains(r.Tag))], SensationCeiling, RampTopPercent, askedGates);

    /// <summary>The same with everything light only that is free: what a light part of a plan is made by.</summary>
    internal DayBars Lightened() => new(this);

    private DayBars(DayBars of)
        : this(of.Reasons, of.SensationCeiling, of.RampTopPercent, of.askedGates)
    {
        foreach (var tag in LoadTags.All)
            levels[tag] = (BarLevel)Math.Max((int)of[tag], (int)BarLevel.LightOnly);
    }

    /// <summary>Nothing off limits is allowed; what is light only is allowed when light.</summary>
    public bool Allow(IReadOnlyDictionary<LoadTag, LoadLevel> loads) =>
        loads.All(l =>
            l.Value == LoadLevel.None
            || levels[l.Key] switch
            {
                BarLevel.Free => true,
                BarLevel.LightOnly => l.Value == LoadLevel.Light,
                _ => false,
            }
        )
        && pairs.All(p =>
            loads.GetValueOrDefault(p.On!.Value) == LoadLevel.None
            || loads.GetValueOrDefault(p.Tag) is var level
                && (level == LoadLevel.None || (level == LoadLevel.Light && p.Level == BarLevel.LightOnly))
        );

    /// <summary>What is off limits in what loads something else as well: the tag, and that.</summary>
    public IEnumerable<(LoadTag Tag, LoadTag On)> Together =>
        pairs.Where(p => p.Level == BarLevel.OffLimits).Select(p => (p.Tag, p.On!.Value)).Distinct();

    /// <summary>
    /// The first tag of a load that is light only and asks for less of it: the easiest version, half the work. Not what a light day makes light.
    /// </summary>
    public LoadTag? FewOf(IReadOnlyDictionary<LoadTag, LoadLevel> loads) =>
        Few.Cast<LoadTag?>().FirstOrDefault(t => loads.GetValueOrDefault(t!.Value) != LoadLevel.None);

    internal LoadTag? FewOf(IReadOnlySet<LoadTag> tags) => Few.Cast<LoadTag?>().FirstOrDefault(t => tags.Contains(t!.Value));

    /// <summary>Tags of which there is less; where a bar holds them off limits there is none.</summary>
    public IReadOnlyList<LoadTag> Few => few ??= [.. LoadTags.All.Where(t => IsLight(t, LightManner.Few))];

    private IReadOnlyList<LoadTag>? few;

    /// <summary>Passive holds stay short.</summary>
    public bool Brief => IsLight(LoadTag.PassiveEndRange, LightManner.Brief);

    private bool IsLight(LoadTag tag, LightManner manner) =>
        levels[tag] != BarLevel.OffLimits
        && Reasons.Any(r => r.Tag == tag && r.Standing && r.On is null && r.Level == BarLevel.LightOnly && r.Manner == manner);

    /// <summary>The day gates that an answer at intake puts before work with such a load, whoever cleared it.</summary>
    public IEnumerable<string> GatesFor(IReadOnlyDictionary<LoadTag, LoadLevel> loads) =>
        askedGates.Where(a => loads.GetValueOrDefault(a.Tag) != LoadLevel.None).Select(a => a.Gate).Distinct();

    /// <summary>Every tag of a load is free: what a substitute must be.</summary>
    public bool LeaveFree(IReadOnlyDictionary<LoadTag, LoadLevel> loads) =>
        loads.All(l => l.Value == LoadLevel.None || levels[l.Key] == BarLevel.Free);

    /// <summary>The bars of someone to whom nothing applies.</summary>
    internal static DayBars None(int sensationCeiling = 7) => new([], sensationCeiling, 100, []);

    internal static DayBars Of(IReadOnlyList<IntakeQuestion> questions, Screening screening)
    {
        var answered = questions.Join(screening.Yes, q => q.Key, y => y.Question, (q, y) => (Question: q, y.At)).ToList();
        var yes = answered.Select(a => a.Question).ToList();
        return new(
            [
                .. screening.CheckIn?.Bars() ?? [],
                .. FromScreen(screening),
                .. FromAge(screening),
                .. FromIntake(answered, screening),
                .. FromReviews(screening),
            ],
            yes.Select(q => q.SensationCeiling ?? 10).Append(screening.Minor ? MinorCeiling : 10).Append(screening.SensationCeiling).Min(),
            yes.Select(q => q.RampTopPercent ?? 100).Append(screening.Minor ? MinorRampTop : 100).Min(),
            [
                .. from question in yes
                from gate in question.DayGates ?? []
                from tag in question.Effects.SelectMany(e => e.Covers)
                select (gate, tag),
            ]
        );
    }

    /// <summary>Without a screen that speaks of the day, a consent, and a guardian's for a minor, nothing is planned.</summary>
    private static IEnumerable<BarReason> FromScreen(Screening screening)
    {
        var code = screening.Screen switch
        {
            ScreenState.NotScreened => "notScreened",
            ScreenState.Due => "screenDue",
            ScreenState.SomethingChanged => "somethingChanged",
            _ => null,
        };
        foreach (var tag in LoadTags.All)
        {
            if (code is not null)
                yield return new(tag, BarLevel.OffLimits, code, LiftedBy.Screen, Since: screening.ChangedAt);
            if (!screening.MayTrain)
                yield return new(tag, BarLevel.OffLimits, "trainingConsent", LiftedBy.TrainingConsent);
            if (screening.Minor && !screening.GuardianConsent)
                yield return new(tag, BarLevel.OffLimits, "guardianConsent", LiftedBy.GuardianConsent);
        }
    }

    private static IEnumerable<BarReason> FromIntake(
        IReadOnlyList<(IntakeQuestion Question, DateTimeOffset At)> answered,
        Screening screening
    ) =>
        from yes in answered
        from effect in yes.Question.Effects
        from tag in effect.Covers
        select Weighed(
            effect.AnyClearance
                ? new(tag, effect.Level, "needsClearance", LiftedBy.AnyClearance, yes.Question.Key, Since: yes.At)
                : new(
                    tag,
                    effect.Level,
                    "intake",
                    LiftedBy.Clearance,
                    yes.Question.Key,
                    Since: yes.At,
                    Manner: effect.Manner,
                    On: effect.On
                ),
            screening,
            c => c.RecordedAt >= yes.At
        );

    /// <summary>Children stretch actively and short, and carry nothing on the neck; the youngest follow no programme at all.</summary>
    private static IEnumerable<BarReason> FromAge(Screening screening)
    {
        if (screening.Age < Core.Students.Age.Youngest)
            foreach (var tag in LoadTags.All)
                yield return new(tag, BarLevel.OffLimits, "tooYoung", LiftedBy.Age);
        if (screening.Age < Core.Students.Age.Grown)
        {
            yield return new(LoadTag.PassiveEndRange, BarLevel.LightOnly, "under16", LiftedBy.Age, Manner: LightManner.Brief);
            yield return new(LoadTag.Neck, BarLevel.LightOnly, "under16", LiftedBy.Age, Manner: LightManner.NotHeavy);
        }
    }

    private static IEnumerable<BarReason> FromReviews(Screening screening) =>
        from bar in screening.Reviews
        let reason = new BarReason(
            bar.Tag,
            BarLevel.OffLimits,
            bar.Injury ? "injury"
                : bar.Signal is null ? "painEvents"
                : "stopRule",
            bar.NeedsClinician ? LiftedBy.Clearance : LiftedBy.Review,
            Signal: bar.Signal,
            Since: bar.Since
        )
        select bar.NeedsClinician ? Weighed(reason, screening, c => c.RecordedAt >= bar.RecordedAt && c.From >= bar.SinceDay) : reason;

    /// <summary>Weighs a reason against the clearances: one that knows of it and covers its tag on the day lifts it.</summary>
    private static BarReason Weighed(BarReason reason, Screening screening, Func<Clearance, bool> knows)
    {
        var any = reason.LiftedBy == LiftedBy.AnyClearance;
        var about = screening.Clearances.Where(c => (any || c.Tags.Contains(reason.Tag)) && knows(c)).ToList();
        var standing = about.Where(c => c.StandsOn(screening.Today)).ToList();
        if (standing.Count > 0)
            return reason with { ClearedUntil = standing.Max(c => c.LapsesOn).AddDays(-1) };
        var lapsed = about.Where(c => c.LapsesOn <= screening.Today && c.LapsesOn > c.From).ToList();
        return reason with
        {
            LapsedOn = lapsed.Count > 0 ? lapsed.Max(c => c.LapsesOn) : null,
            ClearedBefore = screening.Clearances.Any(c => (any || c.Tags.Contains(reason.Tag)) && c.StandsOn(screening.Today)),
        };
    }
}
