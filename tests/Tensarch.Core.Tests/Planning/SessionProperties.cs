using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

public class SessionProperties
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);
    private static readonly PackMaker Maker = new(Shipped.Content);

    internal static readonly Gen<DayBars> AnyCautions =
        from yes in Gen.Shuffle(Shipped.Content.Questions.Select(q => q.Key).ToArray(), 0, 4)
        from minor in Gen.Bool
        select DayBars.Of(
            Shipped.Content.Questions,
            new(
                ScreenState.Current,
                [.. yes.Select(q => new YesAnswer(q, Shipped.Now))],
                minor,
                true,
                7,
                [],
                [],
                DateOnly.FromDateTime(Shipped.Now.UtcDateTime)
            )
        );

    private static Gen<SideState> AnyLeft(Ladder ladder) =>
        from stage in Gen.Int[1, ladder.Keystone]
        from gap in Gen.Double[0, 60]
        from measured in Gen.Bool
        from wants in Gen.Bool
        select Shipped.At(Side.Left, stage, measured ? gap : null, wants ? Wanted(ladder, stage) : []);

    internal static readonly Gen<OneSkill> AnyRequest =
        from ladder in Gen.OneOf(Shipped.Content.Skills.ToArray())
        from left in AnyLeft(ladder)
        from right in AnyLeft(ladder)
        from minutes in Gen.Int[15, 120]
        from weaker in Gen.Int[0, 2]
        from first in Gen.Int[0, 2]
        from start in Gen.Int[0, 120]
        from sessions in Gen.Int[0, 40]
        from last in Gen.Int[-1, 45]
        from heavy in Gen.Int[0, 5]
        from done in Gen.Int[0, 3]
        from eased in Gen.Bool
        from wrists in Gen.Int[0, 3]
        from neck in Gen.Int[0, 4]
        from exit in Gen.Bool
        from bars in AnyCautions
        from breath in Gen.Double[2, 9]
        from blocks in Gen.Int[0, 6]
        from approach in Gen.Int[0, Shipped.Content.Approaches.Count - 1]
        select new OneSkill(
            ladder,
            Shipped.Content.Approaches[approach],
            "square",
            new DateOnly(2026, 3, 3),
            minutes,
            left,
            (ladder.PerSide ? right : left) with
            {
                Side = Side.Right,
            },
            ladder.PerSide ? AsSide(weaker) : null,
            AsSide(first),
            start,
            sessions,
            last < 0 ? null : last,
            new Dictionary<LoadTag, int>
            {
                [LoadTag.Hamstring] = heavy,
                [LoadTag.HipFront] = heavy,
                [LoadTag.Adductor] = heavy,
            },
            last >= 11 ? new WayBack(last, 4, done) : null,
            eased ? [new(LoadTag.Hamstring, null, 0.6, 0), new(LoadTag.Wrist, null, 1, 1)] : [],
            wrists,
            neck,
            exit,
            bars,
            breath,
            blocks
        );

    private static Side? AsSide(int n) =>
        n switch
        {
            0 => Side.Left,
            1 => Side.Right,
            _ => null,
        };

    private static IReadOnlyList<ReadinessTest> Wanted(Ladder ladder, int stage) =>
        stage >= ladder.Keystone ? [] : [.. ladder.StageAt(stage).Tests.Where(t => t.ReadDrill is not null)];

    /// <summary>The student and the session, short enough to be read.</summary>
    private static string Said(OneSkill r, SessionPlan plan) =>
        string.Join(
            '\n',
            [
                string.Join(", ", SessionChecker.Check(plan, r, Shipped.Content).Select(v => $"{v.Code} {v.Drill}")),
                $"{r.Ladder.Key} {r.Left.Stage}/{r.Right.Stage}, {r.Minutes} min, day {r.DaysSinceStart}, {r.SessionsSinceStart} sessions, breath {r.BreathSeconds:F1}, weaker {r.Weaker}, back {r.WayBack?.BreakDays}, wrists {r.WristDaysRunning}, neck {r.NeckDaysInWeek}, way out {r.WayOutShown}",
                string.Join(", ", LoadTags.All.Where(t => r.Bars[t] != BarLevel.Free).Select(t => $"{t} {r.Bars[t]}")),
                .. plan.Drills.Select(d =>
                    $"  {Timeline.SecondsOf(d, Shipped.Content.Drill(d.Drill), r.BreathSeconds)} {d.Drill}/{d.Sides[0].Variant} x{d.Sides.Count} {d.Reason.Code} {d.Sides[0].Dose.Repeats}"
                ),
                string.Join(", ", plan.Notes.Select(n => $"{n.Code} {n.Drill} {n.Number}")),
            ]
        );

    [Fact]
    public void No_session_breaks_a_rule_that_must_hold_for_any_student() =>
        AnyRequest.Sample(
            request =>
            {
                var plan = Builder.Build(request);
                if (!plan.IsOk)
                    Assert.Equal("everythingOffLimits", plan.Problems[0].Code);
                else
                    Assert.True(SessionChecker.Check(plan.Value, request, Shipped.Content) is { Count: 0 }, Said(request, plan.Value));
            },
            time: Budget.Seconds
        );

    [Fact]
    public void Nothing_held_is_ever_planned_or_offered_as_an_easier_version_or_substitute() =>
        AnyRequest.Sample(
            request =>
            {
                var plan = Builder.Build(request);
                if (!plan.IsOk)
                    return;
                var made = Maker.Make(plan.Value, request);
                Assert.True(made.IsOk, string.Join(", ", made.Problems.Select(p => p.Field)) + Said(request, plan.Value));
                var pack = made.Value;
                var ended = PackLoads.Ended(request.Bars);
                var instead = pack.Gates.SelectMany(g => g.Instead).SelectMany(x => x.Slots);
                foreach (var version in pack.Slots.Concat(instead).SelectMany(s => s.Versions))
                {
                    Assert.Empty(version.Loads.Intersect(ended));
                    var drill = Shipped.Content.Drill(version.Drill);
                    Assert.DoesNotContain(
                        (drill.VariantAt(version.Variant).Loads ?? drill.Loads).Keys,
                        tag => request.Bars[tag] == BarLevel.OffLimits
                    );
                }
            },
            time: Budget.Seconds
        );

    [Fact]
    public void The_timeline_adds_up_to_the_second_and_leaves_no_gap() =>
        AnyRequest.Sample(
            request =>
            {
                var plan = Builder.Build(request);
                if (!plan.IsOk)
                    return;
                var segments = Timeline.Of(plan.Value, Shipped.Content).SelectMany(p => p.Segments).ToList();
                var end = 0;
                foreach (var segment in segments)
                {
                    Assert.Equal(end, segment.StartSeconds);
                    Assert.True(segment.Seconds >= 1);
                    Assert.True(segment.Effort is null || segment.Effort.Count == segment.Seconds);
                    end += segment.Seconds;
                }
                Assert.Equal(end, Timeline.SecondsOf(plan.Value, Shipped.Content));
                Assert.Equal(end, plan.Value.Drills.Sum(d => Timeline.SecondsOf(d, Shipped.Content.Drill(d.Drill), request.BreathSeconds)));
                Assert.Equal(end, Maker.Make(plan.Value, request).Value.Slots.Sum(p => p.Versions[0].Seconds));
            },
            time: Budget.Seconds
        );

    [Fact]
    public void No_kick_up_is_planned_before_the_way_out_was_shown() =>
        AnyRequest.Sample(
            request =>
            {
                var plan = Builder.Build(request with { WayOutShown = false });
                Assert.True(!plan.IsOk || plan.Value.Drills.All(d => d.Drill != "kick-up"));
            },
            time: Budget.Seconds
        );

    [Fact]
    public void Everything_held_makes_no_session()
    {
        var held = Shipped.Bars("saddle");
        AnyRequest.Sample(request => Builder.Build(request with { Bars = held }).Problems[0].Code == "everythingOffLimits", iter: 50);
    }
}
