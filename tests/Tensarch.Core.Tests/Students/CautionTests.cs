using System.Text.Json;
using CsCheck;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Students;

public class CautionTests
{
    private static readonly DateOnly Today = DateOnly.FromDateTime(Shipped.Now.UtcDateTime);
    private static readonly string[] Keys = [.. Shipped.Content.Questions.Select(q => q.Key)];

    private static Screening Screening(params string[] yes) =>
        new(ScreenState.Current, [.. yes.Select(q => Yes(q))], false, false, 7, [], [], Today);

    private static YesAnswer Yes(string question, double daysAgo = 20) => new(question, Shipped.Now.AddDays(-daysAgo));

    private static DayBars Of(Screening screening) => DayBars.Of(Shipped.Content.Questions, screening);

    private static readonly Gen<Clearance> AnyClearance =
        from tags in Gen.Shuffle(LoadTags.All.ToArray(), 0, 6)
        from start in Gen.Int[-30, 10]
        from days in Gen.Int[0, 60]
        from withdrawn in Gen.Int[-20, 90]
        from recorded in Gen.Int[0, 40]
        select new Clearance(
            Guid.NewGuid(),
            "physiotherapist",
            tags,
            Today.AddDays(start),
            Today.AddDays(start + days),
            Shipped.Now.AddDays(-recorded),
            withdrawn > 30 ? null : Today.AddDays(withdrawn)
        );

    private static readonly Gen<ReviewBar> AnyHold =
        from tag in Gen.OneOf(LoadTags.All.ToArray())
        from clinician in Gen.Bool
        from daysAgo in Gen.Int[0, 40]
        select new ReviewBar(tag, Shipped.Now.AddDays(-daysAgo), Today.AddDays(-daysAgo), clinician, 0);

    private static readonly Gen<Screening> AnyScreening =
        from screen in Gen.Enum<ScreenState>()
        from yes in Gen.Shuffle(Keys, 0, 6)
        from minor in Gen.Bool
        from consent in Gen.Bool
        from holds in AnyHold.List[0, 3]
        from clearances in AnyClearance.List[0, 3]
        from answered in Gen.Int[0, 40]
        select new Screening(screen, [.. yes.Select(q => Yes(q, answered))], minor, consent, 7, holds, clearances, Today);

    private static bool NoFreer(DayBars after, DayBars before) =>
        LoadTags.All.All(t => after[t] >= before[t])
        && after.SensationCeiling <= before.SensationCeiling
        && after.RampTopPercent <= before.RampTopPercent;

    [Fact]
    public void Adding_a_caution_never_frees_a_tag() =>
        Gen.Select(AnyScreening, Gen.OneOf(Keys), AnyHold)
            .Sample(
                (screening, key, hold) =>
                    NoFreer(Of(screening with { Yes = [.. screening.Yes, Yes(key)] }), Of(screening))
                    && NoFreer(Of(screening with { Reviews = [.. screening.Reviews, hold] }), Of(screening))
                    && NoFreer(Of(screening with { Minor = true, GuardianConsent = false }), Of(screening))
                    && (
                        screening.Screen == ScreenState.NotScreened
                        || NoFreer(Of(screening), Of(screening with { Screen = ScreenState.Current }))
                    )
            );

    [Fact]
    public void Removing_a_clearance_never_frees_a_tag() =>
        Gen.Select(AnyScreening, AnyClearance)
            .Sample(
                (screening, clearance) => NoFreer(Of(screening), Of(screening with { Clearances = [.. screening.Clearances, clearance] }))
            );

    [Fact]
    public void Every_tag_that_is_not_free_has_its_reason() =>
        AnyScreening.Sample(screening =>
        {
            var bars = Of(screening);
            return LoadTags.All.All(t =>
                (bars[t] != BarLevel.Free) == bars.Reasons.Any(r => r.Tag == t && r.Level == bars[t] && r.Standing && r.On is null)
            );
        });

    [Fact]
    public void What_is_held_is_never_allowed_and_what_is_limited_never_heavy() =>
        Gen.Select(AnyScreening, Gen.OneOf(LoadTags.All.ToArray()), Gen.OneOf(LoadLevel.Light, LoadLevel.Heavy))
            .Sample(
                (screening, tag, load) =>
                {
                    var bars = Of(screening);
                    var allowed = bars.Allow(new Dictionary<LoadTag, LoadLevel> { [tag] = load });
                    return allowed == (bars[tag] == BarLevel.Free || (bars[tag] == BarLevel.LightOnly && load == LoadLevel.Light));
                }
            );

    [Fact]
    public void A_hamstring_tear_limits_and_the_strictest_of_two_answers_holds()
    {
        Assert.Equal(BarLevel.LightOnly, Of(Screening("hamstring"))[LoadTag.Hamstring]);
        Assert.Equal(BarLevel.OffLimits, Of(Screening("hip-impingement", "hip-replacement"))[LoadTag.HipFront]);
        Assert.Equal(5, Of(Screening("very-mobile")).SensationCeiling);
    }

    [Fact]
    public void A_lapsed_clearance_brings_the_hold_back_the_same_day_and_the_chain_says_so()
    {
        Clearance Until(int days) =>
            new(Guid.NewGuid(), "physician", [LoadTag.HipFront], Today.AddDays(-10), Today.AddDays(days), Shipped.Now.AddDays(-10));
        var held = Screening("hip-replacement");
        var cleared = Of(held with { Clearances = [Until(0)] });
        var lapsed = Of(held with { Clearances = [Until(-1)] });
        Assert.Equal(BarLevel.Free, cleared[LoadTag.HipFront]);
        Assert.Equal(Today, cleared.Reasons.Single(r => r.Tag == LoadTag.HipFront).ClearedUntil);
        Assert.Equal(BarLevel.OffLimits, lapsed[LoadTag.HipFront]);
        Assert.Equal(
            (Today, LiftedBy.Clearance),
            (lapsed.Reasons.Single(r => r.Tag == LoadTag.HipFront).LapsedOn, lapsed.Reasons.Single(r => r.Tag == LoadTag.HipFront).LiftedBy)
        );
        // The others that the answer holds are not in the clearance.
        Assert.Equal(BarLevel.OffLimits, cleared[LoadTag.Adductor]);
    }

    [Fact]
    public void A_withdrawn_clearance_lifts_nothing_from_that_day()
    {
        Clearance Withdrawn(int days) =>
            new(
                Guid.NewGuid(),
                "physician",
                [LoadTag.Neck],
                Today.AddDays(-10),
                Today.AddDays(90),
                Shipped.Now.AddDays(-10),
                Today.AddDays(days)
            );
        Assert.Equal(BarLevel.OffLimits, Of(Screening("neck") with { Clearances = [Withdrawn(0)] })[LoadTag.Neck]);
        Assert.Equal(BarLevel.Free, Of(Screening("neck") with { Clearances = [Withdrawn(1)] })[LoadTag.Neck]);
    }

    [Fact]
    public void The_screen_is_repeated_after_six_months_or_when_something_changed()
    {
        ScreenState On(DateOnly? screened, bool changed = false, bool answered = true) =>
            Core.Students.Screening.StateOf(answered, screened, changed, Today);
        Assert.Equal(ScreenState.Current, On(Today.AddMonths(-6).AddDays(1)));
        Assert.Equal(ScreenState.Due, On(Today.AddMonths(-6)));
        Assert.Equal(ScreenState.SomethingChanged, On(Today.AddDays(-1), changed: true));
        Assert.Equal(ScreenState.NotScreened, On(Today, answered: false));
        Assert.Equal(ScreenState.NotScreened, On(null));
        Assert.All(LoadTags.All, t => Assert.Equal(BarLevel.OffLimits, Of(Screening() with { Screen = ScreenState.Due })[t]));
    }

    /// <summary>Every row of the intake table: what a yes holds and what it limits.</summary>
    [Theory]
    [InlineData("neck", "neck", "")]
    [InlineData("upper-neck-looseness", "neck inverted", "")]
    [InlineData("eyes", "inverted head-down neck breath-strain", "")]
    [InlineData("blood-pressure-heart", "inverted", "head-down breath-strain")]
    [InlineData("vertigo-head", "inverted fall-risk", "")]
    [InlineData(
        "pregnancy",
        "inverted fall-risk prone impact twist spine-flexion",
        "passive-end-range supine adductor low-back breath-strain"
    )]
    [InlineData("chest-pain", "", "")]
    [InlineData("medicines", "fall-risk", "inverted")]
    [InlineData("rheumatoid-arthritis", "neck inverted", "wrist ankle")]
    [InlineData("reflux", "", "inverted head-down")]
    [InlineData("pelvic-floor", "", "breath-strain impact")]
    [InlineData("surgery-6-weeks", "", "")]
    [InlineData("wrist", "", "wrist")]
    [InlineData("elbow", "", "elbow")]
    [InlineData("shoulder", "fall-risk", "shoulder")]
    [InlineData("knee", "knee-twist impact", "knee-deep-flexion")]
    [InlineData("ankle", "", "ankle")]
    [InlineData("hamstring", "", "hamstring passive-end-range")]
    [InlineData("hip-impingement", "", "hip-front adductor hip-deep-flexion")]
    [InlineData("hip-replacement", "hip-front adductor hip-deep-flexion", "")]
    [InlineData("back", "", "low-back spine-flexion")]
    [InlineData("back-leg", "low-back spine-flexion", "hamstring head-down")]
    [InlineData("osteoporosis", "neck fall-risk spine-flexion impact", "low-back twist")]
    [InlineData("very-mobile", "", "passive-end-range")]
    [InlineData("blood-thinners", "fall-risk", "")]
    [InlineData("hernia", "", "breath-strain low-back")]
    [InlineData(
        "unsure",
        "inverted fall-risk impact",
        "neck wrist shoulder elbow low-back hip-front hip-deep-flexion hamstring adductor knee-deep-flexion knee-twist ankle breath-strain"
    )]
    public void Each_answer_holds_and_limits_what_the_table_says(string question, string held, string limited)
    {
        // Some hold everything until any clearance; what stays after it is what is listed.
        var bars = Of(Screening(question) with { Clearances = [Cleared([])] });
        string At(BarLevel level) =>
            string.Join(
                " ",
                LoadTags.All.Where(t => bars[t] == level).Select(t => JsonNamingPolicy.KebabCaseLower.ConvertName(t.ToString())).Order()
            );
        string Ordered(string tags) => string.Join(" ", tags.Split(' ', StringSplitOptions.RemoveEmptyEntries).Order());
        Assert.Equal((Ordered(held), Ordered(limited)), (At(BarLevel.OffLimits), At(BarLevel.LightOnly)));
        Assert.All(bars.Reasons.Where(r => r.Standing), r => Assert.Equal((question, LiftedBy.Clearance), (r.Question, r.LiftedBy)));
    }

    private static Clearance Cleared(IReadOnlyList<LoadTag> tags, double recorded = 1) =>
        new(Guid.NewGuid(), "physician", tags, Today.AddDays(-1), Today.AddDays(60), Shipped.Now.AddDays(-recorded));

    [Theory]
    [InlineData("pregnancy")]
    [InlineData("chest-pain")]
    [InlineData("surgery-6-weeks")]
    public void Before_any_clearance_that_knows_of_it_nothing_is_done_at_all(string question)
    {
        Assert.All(LoadTags.All, t => Assert.Equal(BarLevel.OffLimits, Of(Screening(question))[t]));
        // One from before the answer knows nothing of it.
        Assert.All(
            LoadTags.All,
            t => Assert.Equal(BarLevel.OffLimits, Of(Screening(question) with { Clearances = [Cleared(LoadTags.All, 30)] })[t])
        );
        Assert.Contains(Of(Screening(question) with { Clearances = [Cleared([])] }).Levels, l => l.Value == BarLevel.Free);
    }

    [Fact]
    public void Pain_down_a_leg_holds_passive_work_on_the_hamstring_and_nowhere_else()
    {
        var bars = Of(Screening("back-leg"));
        Dictionary<LoadTag, LoadLevel> Passive(LoadTag region) =>
            new() { [region] = LoadLevel.Light, [LoadTag.PassiveEndRange] = LoadLevel.Light };
        Assert.False(bars.Allow(Passive(LoadTag.Hamstring)));
        Assert.True(bars.Allow(Passive(LoadTag.Adductor)));
        Assert.True(bars.Allow(new Dictionary<LoadTag, LoadLevel> { [LoadTag.Hamstring] = LoadLevel.Light }));
    }

    [Theory]
    [InlineData(11, BarLevel.OffLimits, BarLevel.OffLimits)]
    [InlineData(12, BarLevel.LightOnly, BarLevel.Free)]
    [InlineData(15, BarLevel.LightOnly, BarLevel.Free)]
    [InlineData(16, BarLevel.Free, BarLevel.Free)]
    public void Children_stretch_short_carry_nothing_on_the_neck_and_the_youngest_follow_no_programme(
        int age,
        BarLevel neck,
        BarLevel hamstring
    )
    {
        var bars = Of(Screening() with { Minor = true, GuardianConsent = true, Age = age });
        Assert.Equal((neck, neck, hamstring), (bars[LoadTag.Neck], bars[LoadTag.PassiveEndRange], bars[LoadTag.Hamstring]));
        Assert.Equal(age is >= 12 and < 16, bars.Brief);
        Assert.Empty(bars.Few);
    }

    [Fact]
    public void Nobody_trains_before_the_screen_or_a_minor_before_consent()
    {
        Assert.All(LoadTags.All, t => Assert.Equal(BarLevel.OffLimits, Of(Screening() with { Screen = ScreenState.NotScreened })[t]));
        var minor = Screening() with { Minor = true };
        Assert.All(LoadTags.All, t => Assert.Equal(BarLevel.OffLimits, Of(minor)[t]));
        var consented = Of(minor with { GuardianConsent = true });
        Assert.All(LoadTags.All, t => Assert.Equal(BarLevel.Free, consented[t]));
        Assert.Equal((6, 60), (consented.SensationCeiling, consented.RampTopPercent));
    }

    [Fact]
    public void Two_pain_events_within_fourteen_days_hold_the_region_until_a_review()
    {
        IReadOnlyList<ReviewBar> Holds(double first, double second, BarReview[] reviews, params DateTimeOffset[] sessions) =>
            ReviewBars.From(
                Shipped.Content.StopRules,
                [Shipped.Pain(LoadTag.Hamstring, 4, first), Shipped.Pain(LoadTag.Hamstring, 5, second)],
                reviews,
                [],
                sessions,
                at => DateOnly.FromDateTime(at.UtcDateTime)
            );

        Assert.Equal(LoadTag.Hamstring, Assert.Single(Holds(16, 2, [])).Tag);
        Assert.Empty(Holds(16.1, 2, []));
        Assert.False(Holds(10, 5, [], Shipped.Now.AddDays(-3)).Single().MayBeReviewed);
        Assert.True(Holds(10, 5, [], Shipped.Now.AddDays(-3), Shipped.Now.AddDays(-1)).Single().MayBeReviewed);
        Assert.Empty(Holds(10, 5, [new(LoadTag.Hamstring, Shipped.Now)]));
    }

    private static IReadOnlyList<ReviewBar> After(SignalKind kind, LoadTag? region = null, int? pain = null) =>
        ReviewBars.From(
            Shipped.Content.StopRules,
            [new(Guid.NewGuid(), Shipped.Now.AddDays(-1), kind, region, null, pain)],
            [.. LoadTags.All.Select(t => new BarReview(t, Shipped.Now))],
            [],
            [],
            at => DateOnly.FromDateTime(at.UtcDateTime)
        );

    /// <summary>What a coach’s review does not lift, each by itself.</summary>
    [Theory]
    [InlineData(SignalKind.Pop, LoadTag.KneeDeepFlexion, new[] { LoadTag.KneeDeepFlexion })]
    [InlineData(SignalKind.StrengthLost, LoadTag.Shoulder, new[] { LoadTag.Shoulder })]
    [InlineData(SignalKind.HeadPressure, null, new[] { LoadTag.Inverted, LoadTag.HeadDown })]
    [InlineData(SignalKind.FallWithHeadContact, null, new[] { LoadTag.Neck, LoadTag.Inverted, LoadTag.FallRisk })]
    [InlineData(SignalKind.Click, LoadTag.KneeDeepFlexion, new LoadTag[0])]
    public void What_only_a_clinician_lifts_after_a_signal(SignalKind kind, LoadTag? region, LoadTag[] held)
    {
        var bars = After(kind, region);
        Assert.All(bars, b => Assert.True(b.NeedsClinician));
        Assert.Equal(held.Order(), bars.Select(b => b.Tag).Order());
    }

    [Theory]
    [InlineData(SignalKind.ChestTightness)]
    [InlineData(SignalKind.SaddleNumbness)]
    public void After_what_sends_to_urgent_care_nothing_is_done(SignalKind kind) =>
        Assert.All(LoadTags.All, t => Assert.Equal(BarLevel.OffLimits, Of(Screening() with { Reviews = After(kind) })[t]));

    [Fact]
    public void Numbness_in_an_arm_holds_the_neck_until_a_clinician_clears_it()
    {
        var holds = ReviewBars.From(
            Shipped.Content.StopRules,
            [new(Guid.NewGuid(), Shipped.Now.AddDays(-1), SignalKind.Numbness, LoadTag.Elbow, Side.Left, null)],
            [new(LoadTag.Neck, Shipped.Now), new(LoadTag.Elbow, Shipped.Now)],
            [],
            [],
            at => DateOnly.FromDateTime(at.UtcDateTime)
        );
        var hold = Assert.Single(holds);
        Assert.Equal((LoadTag.Neck, true), (hold.Tag, hold.NeedsClinician));
        Clearance From(int days, double recorded = 0) =>
            new(Guid.NewGuid(), "physician", [LoadTag.Neck], Today.AddDays(days), Today.AddDays(60), Shipped.Now.AddDays(-recorded));
        Assert.Equal(BarLevel.OffLimits, Of(Screening() with { Reviews = holds, Clearances = [From(-30)] })[LoadTag.Neck]);
        Assert.Equal(BarLevel.OffLimits, Of(Screening() with { Reviews = holds, Clearances = [From(0, 2)] })[LoadTag.Neck]);
        Assert.Equal(BarLevel.Free, Of(Screening() with { Reviews = holds, Clearances = [From(0)] })[LoadTag.Neck]);
    }

    [Fact]
    public void A_clearance_lifts_nothing_that_was_said_after_it()
    {
        var cleared = new Clearance(
            Guid.NewGuid(),
            "physician",
            [LoadTag.Neck],
            Today.AddDays(-30),
            Today.AddDays(60),
            Shipped.Now.AddDays(-10)
        );
        DayBars Under(params YesAnswer[] yes) => Of(Screening() with { Yes = yes, Clearances = [cleared] });
        BarLevel Neck(params YesAnswer[] yes) => Under(yes)[LoadTag.Neck];
        Assert.Equal(BarLevel.Free, Neck(Yes("neck", 10)));
        Assert.Equal(BarLevel.OffLimits, Neck(Yes("neck", 9)));
        // What it knew of stays lifted; what came later holds.
        Assert.Equal(BarLevel.OffLimits, Neck(Yes("neck", 20), Yes("osteoporosis", 3)));
        Assert.True(Under(Yes("osteoporosis", 3)).Reasons.Single(r => r.Tag == LoadTag.Neck).ClearedBefore);
    }

    [Theory]
    [InlineData(SignalKind.DullPain, 3, false)]
    [InlineData(SignalKind.DullPain, 4, true)]
    [InlineData(SignalKind.SharpPain, null, true)]
    [InlineData(SignalKind.Pinch, null, true)]
    [InlineData(SignalKind.Pop, null, true)]
    [InlineData(SignalKind.StrengthLost, null, true)]
    [InlineData(SignalKind.Numbness, null, false)]
    public void A_pain_event_is_pain_above_three_or_anything_sharp(SignalKind kind, int? pain, bool isEvent) =>
        Assert.Equal(isEvent, new BodySignal(Guid.NewGuid(), Shipped.Now, kind, LoadTag.Hamstring, null, pain).IsPainEvent);

    [Theory]
    [InlineData(5, SignalKind.DullPain)]
    [InlineData(6, SignalKind.SharpPain)]
    public void Pain_of_six_is_met_as_sharp(int pain, SignalKind metAs) =>
        Assert.Equal(metAs, Shipped.Pain(LoadTag.Hamstring, pain, 1).MetAs);
}
