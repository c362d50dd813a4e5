namespace Tensarch.Core.Students;

/// <summary>Why a tag is limited or held: an intake answer, a review, a missing screen or a missing consent.</summary>
/// <param name="Code"><c>intake</c>, <c>review</c>, <c>clinician</c>, <c>notScreened</c> or <c>guardianConsent</c>.</param>
/// <param name="Question">The intake question, where one is the reason.</param>
public sealed record CautionReason(LoadTag Tag, CautionLevel Level, string Code, string? Question = null, DateTimeOffset? Since = null);

/// <summary>What a student may do today, per load tag: the strictest of all that applies, with its reasons.</summary>
public sealed record Cautions(
    IReadOnlyDictionary<LoadTag, CautionLevel> Levels,
    IReadOnlyList<CautionReason> Reasons,
    int SensationCeiling,
    int RampTopPercent
)
{
    public const int MinorCeiling = 6;
    public const int MinorRampTop = 60;

    /// <summary>The cautions of someone to whom nothing applies.</summary>
    public static Cautions None(int sensationCeiling = 7) =>
        new(LoadTags.All.ToDictionary(t => t, _ => CautionLevel.Free), [], sensationCeiling, 100);

    public CautionLevel this[LoadTag tag] => Levels[tag];

    /// <summary>Nothing held is allowed; what is limited is allowed when light.</summary>
    public bool Allow(IReadOnlyDictionary<LoadTag, Load> loads) =>
        loads.All(l =>
            l.Value == Load.None
            || Levels[l.Key] switch
            {
                CautionLevel.Free => true,
                CautionLevel.Limited => l.Value == Load.Light,
                _ => false,
            }
        );

    public static Cautions Of(IReadOnlyList<IntakeQuestion> questions, Screening screening)
    {
        var reasons = new List<CautionReason>();
        if (!screening.Screened)
            reasons.AddRange(LoadTags.All.Select(t => new CautionReason(t, CautionLevel.Held, "notScreened")));
        if (screening.Minor && !screening.GuardianConsent)
            reasons.AddRange(LoadTags.All.Select(t => new CautionReason(t, CautionLevel.Held, "guardianConsent")));

        var yes = questions.Where(q => screening.Yes.Contains(q.Key)).ToList();
        var intake =
            from question in yes
            from effect in question.Effects
            from tag in effect.Covers
            select new CautionReason(tag, effect.Level, "intake", question.Key);
        reasons.AddRange(intake.Where(r => !Cleared(r.Tag, screening)));
        reasons.AddRange(
            screening
                .Holds.Where(h => !(h.NeedsClinician && ClearedSince(h, screening)))
                .Select(h => new CautionReason(h.Tag, CautionLevel.Held, h.NeedsClinician ? "clinician" : "review", Since: h.Since))
        );

        return new(
            LoadTags.All.ToDictionary(t => t, t => reasons.Where(r => r.Tag == t).Select(r => r.Level).DefaultIfEmpty().Max()),
            reasons,
            yes.Select(q => q.SensationCeiling ?? 10).Append(screening.Minor ? MinorCeiling : 10).Append(screening.SensationCeiling).Min(),
            yes.Select(q => q.RampTopPercent ?? 100).Append(screening.Minor ? MinorRampTop : 100).Min()
        );
    }

    /// <summary>A clearance from before the event says nothing about it.</summary>
    private static bool ClearedSince(ReviewHold hold, Screening screening) =>
        screening.Clearances.Any(c => c.Covers(hold.Tag, screening.Today) && c.From >= DateOnly.FromDateTime(hold.Since.UtcDateTime));

    private static bool Cleared(LoadTag tag, Screening screening) => screening.Clearances.Any(c => c.Covers(tag, screening.Today));
}
