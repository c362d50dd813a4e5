using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Students;

/// <summary>What the facts come to: nothing but the fact that lifts it frees a tag, whatever the order, the window and the time.</summary>
public class StudentStateTests
{
    private static readonly TimeZoneInfo Zone = TimeZoneInfo.Utc;
    private static readonly DateOnly Today = DateOnly.FromDateTime(Shipped.Now.UtcDateTime);
    private static readonly string[] Keys = [.. Shipped.Content.Questions.Select(q => q.Key)];

    private static Moment At(double daysLater = 0) => new(Shipped.Now.AddDays(daysLater), Zone);

    private static StudentState From(StudentFacts facts, double daysLater = 0) => StudentState.From(facts, At(daysLater), Shipped.Content);

    private static Person Person(DateOnly? born = null, bool consentNeeded = false) => new(born, consentNeeded, 7, new(), "square", 4, []);

    private static Consent Said(ConsentKind kind, bool given, double daysAgo) =>
        new(kind, given, Today.AddDays(-(int)daysAgo), Shipped.Now.AddDays(-daysAgo));

    private static TrainedSession Session(double daysAgo, params string[] drills)
    {
        var at = Shipped.Now.AddDays(-daysAgo);
        return new(
            Guid.NewGuid(),
            ["front-split"],
            at,
            DateOnly.FromDateTime(at.UtcDateTime),
            Side.Left,
            [.. drills.Select(d => new Work(d, Shipped.Content.Drill(d).Variants[0].Key, null))]
        );
    }

    /// <summary>Screened today, without a yes.</summary>
    private static StudentFacts Sound(params string[] yes) =>
        StudentFacts.Of(Person()) with
        {
            Answers = [.. Keys.Select((k, i) => new IntakeAnswer(k, yes.Contains(k), Shipped.Now.AddDays(-30), i))],
            Screenings = [new(ScreeningKind.Whole, Today.AddDays(-30), Shipped.Now.AddDays(-30), null)],
        };

    private static readonly Gen<BodySignal> AnySignal =
        from kind in Gen.Enum<SignalKind>()
        from region in Gen.OneOf(LoadTags.Regions.ToArray())
        from pain in Gen.Int[0, 10]
        from daysAgo in Gen.Double[0, 400]
        from toldAfter in Gen.Double[0, 1]
        select new BodySignal(
            Guid.NewGuid(),
            Shipped.Now.AddDays(-daysAgo),
            kind,
            Shipped.Content.StopRules.Single(r => r.Signal == kind).AsksRegion ? region : null,
            null,
            pain == 0 ? null : pain
        )
        {
            // Told at once, or late.
            RecordedAt = Shipped.Now.AddDays(-daysAgo * toldAfter),
        };

    private static readonly Gen<CheckIn> AnyCheckIn =
        from daysAgo in Gen.Int[0, 20]
        from ill in Gen.Int[0, 5]
        from tired in Gen.Bool
        from felt in Gen.Select(
            Gen.Enum<FeltKind>(),
            Gen.OneOf(BodyPlaces.All.ToArray()),
            Gen.Int[0, 10],
            (kind, place, level) => new Felt(kind, place.Key, place.Sided ? Side.Left : null, level)
        ).Array[0, 3]
        select new CheckIn(Guid.NewGuid(), Today.AddDays(-daysAgo), Shipped.Now.AddDays(-daysAgo), tired, ill == 0, false, felt);

    private static readonly Gen<StudentFacts> AnyFacts =
        from yes in Gen.Shuffle(Keys, 0, 4)
        from age in Gen.Int[16, 20]
        from ageDays in Gen.Int[0, 364]
        from consent in Gen.Bool
        from needed in Gen.Bool
        from said in Gen.Select(Gen.Enum<ConsentKind>(), Gen.Bool, Gen.Double[0, 60], Said).Array[0, 4]
        from checkIns in AnyCheckIn.Array[0, 3]
        from screened in Gen.Int[0, 200]
        from changed in Gen.Int[0, 9]
        from signals in AnySignal.Array[0, 6]
        from sessions in Gen.Double[0, 400].Array[0, 12]
        from reviewed in Gen.OneOf(LoadTags.All.ToArray()).Array[0, 2]
        from reviewedAgo in Gen.Double[0, 60]
        from tags in Gen.Shuffle(LoadTags.All.ToArray(), 0, 5)
        from cleared in Gen.Int[0, 60]
        from clearedFor in Gen.Int[0, 120]
        select Sound(yes) with
        {
            Person = Person(Today.AddYears(-age).AddDays(ageDays), needed),
            Consents = [.. said, .. consent ? new[] { Said(ConsentKind.Guardian, true, 100) } : []],
            CheckIns = checkIns,
            Screenings =
            [
                new(ScreeningKind.Whole, Today.AddDays(-screened), Shipped.Now.AddDays(-screened), null),
                .. changed == 0 ? new Screened[] { new(ScreeningKind.SomethingChanged, Today, Shipped.Now, "a fall") } : [],
            ],
            Signals = signals,
            Sessions = [.. sessions.Select(d => Session(d, "low-lunge"))],
            Reviews = [.. reviewed.Select(t => new BarReview(t, Shipped.Now.AddDays(-reviewedAgo)))],
            Clearances =
            [
                new(
                    Guid.NewGuid(),
                    "physician",
                    tags,
                    Today.AddDays(-cleared),
                    Today.AddDays(clearedFor - cleared),
                    Shipped.Now.AddDays(-cleared)
                ),
            ],
        };

    private static T[] Shuffled<T>(IReadOnlyList<T> items, int seed)
    {
        var shuffled = items.ToArray();
        new Random(seed).Shuffle(shuffled);
        return shuffled;
    }

    private static bool SameOn(StudentState a, StudentState b, DateOnly day) =>
        LoadTags.All.All(t => a.Bars.On(day)[t] == b.Bars.On(day)[t])
        && a.Bars.On(day).SensationCeiling == b.Bars.On(day).SensationCeiling
        && a.Bars.On(day).RampTopPercent == b.Bars.On(day).RampTopPercent
        && a.EasedOn(day).ToHashSet().SetEquals(b.EasedOn(day))
        && a.WayBackOn(day) == b.WayBackOn(day);

    private static bool NoFreer(DayBars after, DayBars before) => LoadTags.All.All(t => after[t] >= before[t]);

    [Fact]
    public void The_order_of_arrival_never_matters() =>
        Gen.Select(AnyFacts, Gen.Int)
            .Sample(
                (facts, seed) =>
                    SameOn(
                        From(facts),
                        From(
                            facts with
                            {
                                Answers = Shuffled(facts.Answers, seed),
                                Screenings = Shuffled(facts.Screenings, seed),
                                Signals = Shuffled(facts.Signals, seed),
                                Sessions = Shuffled(facts.Sessions, seed),
                                Reviews = Shuffled(facts.Reviews, seed),
                                Clearances = Shuffled(facts.Clearances, seed),
                                Consents = Shuffled(facts.Consents, seed),
                                CheckIns = Shuffled(facts.CheckIns, seed),
                            }
                        ),
                        Today
                    ),
                time: Budget.Seconds
            );

    [Fact]
    public void No_signal_and_no_other_fact_frees_a_tag() =>
        Gen.Select(AnyFacts, AnySignal, Gen.OneOf(Keys))
            .Sample(
                (facts, signal, key) =>
                {
                    var before = From(facts).Today;
                    var heard = signal with { RecordedAt = Shipped.Now };
                    Assert.True(NoFreer(From(facts with { Signals = [.. facts.Signals, heard] }).Today, before));
                    var yes = new IntakeAnswer(key, true, Shipped.Now, 999);
                    Assert.True(NoFreer(From(facts with { Answers = [.. facts.Answers, yes] }).Today, before));
                    Assert.True(NoFreer(From(facts with { Sessions = [.. facts.Sessions, Session(0)] }).Today, before));
                },
                time: Budget.Seconds
            );

    [Fact]
    public void What_was_recorded_before_a_signal_was_heard_of_lifts_nothing_that_it_bars() =>
        Gen.Select(AnyFacts, AnySignal)
            .Sample(
                (facts, signal) =>
                {
                    // All that lifts is from before; the signal is as old as it likes.
                    var alone = facts with
                    {
                        Signals = [signal with { RecordedAt = Shipped.Now }],
                        CheckIns = [],
                        Reviews = [.. facts.Reviews.Select(r => r with { At = r.At.AddMinutes(-1) })],
                        Clearances = [.. facts.Clearances.Select(c => c with { RecordedAt = c.RecordedAt.AddMinutes(-1) })],
                    };
                    Assert.True(NoFreer(From(alone).Today, From(alone with { Reviews = [] }).Today));
                    foreach (var bar in From(alone).Bars.Reviews)
                        Assert.Equal(BarLevel.OffLimits, From(alone).Today[bar.Tag]);
                },
                time: Budget.Seconds
            );

    private static readonly Gen<TrainedSession> AnyTraining =
        from daysAgo in Gen.Double[0, 60]
        from minutes in Gen.Int[0, 50].Array[1, 4]
        from drills in Gen.Shuffle(Shipped.Content.DrillList.Where(d => !d.TestOnly).Select(d => d.Key).ToArray(), 1, 4)
        let at = Shipped.Now.AddDays(-daysAgo)
        select Session(daysAgo, [.. drills]) with
        {
            Worked =
            [
                .. drills.Select(
                    (d, i) =>
                        new Work(d, Shipped.Content.Drill(d).Variants[0].Key, null, "front-split", 30, 30, 0, true)
                        {
                            When = (at.AddMinutes(i), at.AddMinutes(i + minutes[i % minutes.Length])),
                        }
                ),
            ],
        };

    [Fact]
    public void Work_under_a_bar_loads_once_and_proves_nothing_whatever_was_heard_when() =>
        Gen.Select(AnyFacts, AnyTraining.Array[1, 6])
            .Sample(
                (facts, trained) =>
                {
                    var state = From(facts with { Sessions = trained });
                    var loaded = state.History.Days.SelectMany(d => d.Worked).ToList();
                    Assert.Equal(trained.Sum(t => t.Worked.Count), loaded.Count);
                    foreach (var session in trained)
                    foreach (var work in session.Worked)
                    {
                        var barred = !Allowed(work, work.When!.Value.First) || !Allowed(work, work.When.Value.Last);
                        var kept = Assert.Single(state.Sessions.Single(s => s.Id == session.Id).Worked, w => w.Drill == work.Drill);
                        Assert.Equal(barred, kept.UnderBar);
                        Assert.Equal(!barred, state.Evidence.Sets.Any(s => s.Session == session.Id && s.Drill == work.Drill));
                        Assert.False(barred && kept.Full);
                    }
                    // An instant's bars are those of a student of whom nothing later is known, in a way of their own.
                    bool Allowed(Work work, DateTimeOffset at) =>
                        Then(facts, at).Allow(Shipped.Content.Drill(work.Drill).LoadsOf(work, facts.Person.Body.BreathSeconds));
                },
                time: Budget.Seconds
            );

    private static DayBars Then(StudentFacts facts, DateTimeOffset at) =>
        StudentState
            .From(
                facts with
                {
                    Answers = [.. facts.Answers.Where(a => a.At <= at)],
                    Screenings = [.. facts.Screenings.Where(s => s.At <= at)],
                    Clearances = [.. facts.Clearances.Where(c => c.RecordedAt <= at)],
                    Reviews = [.. facts.Reviews.Where(r => r.At <= at)],
                    Signals = [.. facts.Signals.Where(s => s.At < at)],
                    Consents = [.. facts.Consents.Where(c => c.At <= at)],
                    CheckIns = [.. facts.CheckIns.Where(c => c.At <= at)],
                    Sessions = [],
                },
                new(at, Zone),
                Shipped.Content
            )
            .Today;

    [Fact]
    public void Kept_work_is_read_as_it_was_written()
    {
        var work = new Work("hollow", "tuck", null, "handstand", 40, 20, 0, true) { When = (Shipped.Now, Shipped.Now.AddTicks(7)) };
        Assert.Equal(work, Work.Parse(work.ToString()));
        Assert.Equal(work with { Full = false, When = null }, Work.Parse("hollow/tuck//handstand/40/20/0"));
        Assert.Equal(work with { When = null }, Work.Parse("hollow/tuck//handstand/40/20/0/full"));
        Assert.Null(Work.Parse("hollow/tuck//handstand/40/20/0/full/@nonsense")!.When);
    }

    [Fact]
    public void Time_and_windows_free_no_tag_that_a_signal_barred() =>
        Gen.Select(AnyFacts, Gen.Int[0, 2000])
            .Sample(
                (facts, days) =>
                {
                    // Neither a clearance that begins nor a birthday: signals, reviews and answers alone.
                    var still = facts with
                    {
                        Clearances = [],
                        CheckIns = [],
                        Person = Person(),
                    };
                    Assert.True(NoFreer(From(still, days).Today, From(still).Today));
                    // What the reader cuts off: no session, reading or set of before bears on a bar.
                    Assert.True(NoFreer(From(still with { Sessions = [] }).Today, From(still).Today));
                },
                time: Budget.Seconds
            );

    [Fact]
    public void Until_then_nothing_changes_without_a_new_fact() =>
        Gen.Select(AnyFacts, Gen.Double[0, 1])
            .Sample(
                (facts, share) =>
                {
                    var now = From(facts);
                    Assert.True(now.Until > Shipped.Now);
                    var last = now.Until == DateTimeOffset.MaxValue ? Shipped.Now.AddDays(900) : now.Until.AddTicks(-1);
                    var then = StudentState.From(facts, new(Shipped.Now + (last - Shipped.Now) * share, Zone), Shipped.Content);
                    Assert.True(LoadTags.All.All(t => then.Today[t] == now.Today[t]));
                    Assert.Equal(now.Today.SensationCeiling, then.Today.SensationCeiling);
                    Assert.Equal(now.Today.RampTopPercent, then.Today.RampTopPercent);
                    Assert.True(now.EasedOn(Today).ToHashSet().SetEquals(then.EasedOn(then.Now.Day)));
                    Assert.Equal(now.WayBackOn(Today)?.Absence, then.WayBackOn(then.Now.Day)?.Absence);
                    Assert.Equal(now.Until, then.Until);
                    // What a plan for a later day is told today is what that day will find.
                    Assert.True(SameOn(now, then, Today.AddDays(200)));
                },
                time: Budget.Seconds
            );

    [Fact]
    public void A_birthday_inside_a_plan_lifts_what_only_minors_have()
    {
        var facts = Sound() with { Person = Person(Today.AddDays(10).AddYears(-18)), Consents = [Said(ConsentKind.Guardian, true, 0)] };
        var state = From(facts);
        Assert.Equal((60, 6), (state.Today.RampTopPercent, state.Today.SensationCeiling));
        Assert.Equal(60, state.Bars.On(Today.AddDays(9)).RampTopPercent);
        Assert.Equal((100, 7), (state.Bars.On(Today.AddDays(10)).RampTopPercent, state.Bars.On(Today.AddDays(10)).SensationCeiling));
        Assert.Equal(At().StartOf(Today.AddDays(10)), state.Until);
    }

    [Fact]
    public void Two_pinches_without_a_number_bar_the_region()
    {
        BodySignal Pinch(double daysAgo) =>
            new(Guid.NewGuid(), Shipped.Now.AddDays(-daysAgo), SignalKind.Pinch, LoadTag.KneeDeepFlexion, Side.Left, null);
        Assert.Equal(BarLevel.OffLimits, From(Sound() with { Signals = [Pinch(3), Pinch(1)] }).Today[LoadTag.KneeDeepFlexion]);
        Assert.Equal(BarLevel.Free, From(Sound() with { Signals = [Pinch(1)] }).Today[LoadTag.KneeDeepFlexion]);
    }

    /// <summary>As many sessions as the break had weeks, at least two, at most eight.</summary>
    [Theory]
    [InlineData(3, 0, null, 0)]
    [InlineData(10, 0, null, 0)]
    [InlineData(11, 0, 2, 0.7)]
    [InlineData(11, 1, 2, 0.85)]
    [InlineData(11, 2, null, 0)]
    [InlineData(25, 3, 4, 0.925)]
    [InlineData(30, 1, 5, 0.76)]
    [InlineData(125, 0, 8, 0.7)]
    [InlineData(400, 7, 8, 0.9625)]
    [InlineData(400, 8, null, 0)]
    public void The_way_back_lasts_as_many_sessions_as_the_break_had_weeks(int away, int done, int? of, double share)
    {
        var days = Enumerable.Range(1, done).Select(d => Today.AddDays(-2 * d)).ToList();
        days.Add((days.Count == 0 ? Today : days[^1]).AddDays(-away));
        days.Add(days[^1].AddDays(-2));
        var way = WayBack.On(Today, days);
        Assert.Equal(of, way?.Sessions);
        if (way is not null)
            Assert.Equal((away, done, share), (way.BreakDays, way.Done, Math.Round(way.DoseShare, 4)));
    }

    [Fact]
    public void Pain_eases_the_region_until_two_sessions_that_load_it_went_without()
    {
        var pain = Shipped.Pain(LoadTag.Hamstring, 4, 5);
        IReadOnlyList<Eased> After(params TrainedSession[] sessions) =>
            From(Sound() with { Signals = [pain], Sessions = sessions }).EasedOn(Today);
        Assert.Equal(1, Assert.Single(After()).EasierBy);
        Assert.Single(After(Session(4, "pyramid-fold"), Session(3, "lie-still"), Session(2, "lie-still")));
        Assert.Empty(After(Session(4, "pyramid-fold"), Session(2, "pyramid-fold")));
    }

    [Fact]
    public void A_back_off_eases_the_drill_until_two_sessions_went_without()
    {
        var held = new BodySignal(Guid.NewGuid(), Shipped.Now.AddDays(-5), SignalKind.BreathHeld, null, null, null, "plank");
        IReadOnlyList<Eased> After(params TrainedSession[] sessions) =>
            From(Sound() with { Signals = [held], Sessions = sessions }).EasedOn(Today);
        Assert.Equal("plank", Assert.Single(After(Session(4, "plank"))).Drill);
        Assert.Empty(After(Session(4, "plank"), Session(2, "plank")));
    }

    [Fact]
    public void What_is_eased_is_planned_one_version_easier()
    {
        var enrolment = new Enrolment(Guid.NewGuid(), Shipped.FrontSplit, Shipped.Content.Approaches[0].Key, Shipped.Now.AddDays(-60));
        var facts = Sound() with
        {
            Enrolments = [enrolment],
            Decisions =
            [
                new("front-split", new(Side.Left, 0, 4, Shipped.Now.AddDays(-60))),
                new("front-split", new(Side.Right, 0, 4, Shipped.Now.AddDays(-60))),
            ],
            Sessions = [Session(3, "lie-still")],
        };
        IReadOnlyDictionary<string, string> Variants(StudentFacts f)
        {
            var state = From(f);
            var request = Trainees.Of(state, [state.Courses[0]], Today, 75, Shipped.Content);
            var plan = new SessionBuilder(Shipped.Content).Build(request).Value;
            Assert.Empty(SessionChecker.Check(plan, request, Shipped.Content));
            return plan.Drills.ToDictionary(d => d.Drill, d => d.Sides[0].Variant);
        }
        var (before, after) = (Variants(facts), Variants(facts with { Signals = [Shipped.Pain(LoadTag.Hamstring, 5, 2)] }));
        var eased = before.Keys.Intersect(after.Keys).Where(d => before[d] != after[d]).ToList();
        Assert.NotEmpty(eased);
        foreach (var key in before.Keys.Intersect(after.Keys))
        {
            var drill = Shipped.Content.Drill(key);
            int Place(string variant) => drill.Variants.Index().Single(v => v.Item.Key == variant).Index;
            var loads = drill.Loads.GetValueOrDefault(LoadTag.Hamstring) != LoadLevel.None;
            Assert.Equal(loads ? Math.Max(0, Place(before[key]) - 1) : Place(before[key]), Place(after[key]));
        }
    }
}
