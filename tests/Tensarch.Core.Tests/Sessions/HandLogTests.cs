using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Core.Tests.Planning;

namespace Tensarch.Core.Tests.Sessions;

public class HandLogTests
{
    private static readonly SessionPlan Plan = PlanAt(4);

    private static SessionPlan PlanAt(int stage) =>
        new SessionBuilder(Shipped.Content)
            .Build(
                new OneSkill(
                    Shipped.FrontSplit,
                    Shipped.Content.Approaches[0],
                    "square",
                    new DateOnly(2026, 3, 3),
                    60,
                    Shipped.At(Side.Left, stage, 25),
                    Shipped.At(Side.Right, stage, 20),
                    null,
                    Side.Left,
                    60,
                    20,
                    2,
                    new Dictionary<LoadTag, int>(),
                    null,
                    [],
                    0,
                    0,
                    true,
                    DayBars.None(),
                    4.5,
                    4
                )
            )
            .Value;

    private static IReadOnlyList<RoundDone> Of(params SaidOfPart[] said) =>
        HandLog.Of(Plan, said, _ => Shipped.FrontSplit, Shipped.Content).Value;

    [Fact]
    public void As_planned_is_every_work_segment_once_in_its_order()
    {
        var work = Timeline.Of(Plan, Shipped.Content).SelectMany(p => p.Segments).Where(s => s.Kind == SegmentKind.Work).ToList();
        var rounds = Of();
        Assert.Equal(work.Where(s => s.Reps is null).Sum(s => s.Seconds), rounds.Sum(r => r.Seconds ?? 0));
        Assert.Equal(work.Sum(s => s.Reps ?? 0), rounds.Sum(r => r.CleanReps ?? 0));
        Assert.Equal(rounds.Select(r => r.AtSeconds).Order(), rounds.Select(r => r.AtSeconds));
        Assert.All(rounds, r => Assert.True(r.Seconds is null != r.CleanReps is null));
    }

    [Fact]
    public void A_part_that_was_not_done_has_no_round_and_extra_ones_are_a_minute_apart()
    {
        var first = Of()[0].Part;
        Assert.DoesNotContain(Of(new SaidOfPart(first, Done: false)), r => r.Part == first);
        var hold = Of().First(r => r.Seconds is not null).Part;
        var planned = Of().Count(r => r.Part == hold);
        var more = Of(new SaidOfPart(hold, Rounds: planned + 2, Seconds: 20)).Where(r => r.Part == hold).ToList();
        Assert.Equal(planned + 2, more.Count);
        Assert.All(more, r => Assert.Equal((20.0, true), (r.Seconds!.Value, r.Confirmed)));
        Assert.All(more.Skip(planned - 1).Zip(more.Skip(planned)), p => Assert.True(p.Second.AtSeconds - p.First.AtSeconds >= 60));
    }

    [Fact]
    public void Proof_is_one_by_one()
    {
        var (plan, ladder) = (PlanAt(3), Shipped.FrontSplit);
        List<RoundDone> Logged(params SaidOfPart[] said) => [.. HandLog.Of(plan, said, _ => ladder, Shipped.Content).Value];
        var read = Logged().First(r => !r.Confirmed && r.Seconds is not null);
        List<RoundDone> With(SaidOfPart said) => [.. Logged(said).Where(r => r.Part == read.Part)];
        // One number for the part is one round's; the rest stays practice, as it was planned.
        var one = With(new(read.Part, Rounds: 3, Seconds: 90));
        Assert.Equal(
            [(90, true), (read.Seconds!.Value, false), (read.Seconds.Value, false)],
            one.Select(r => (r.Seconds!.Value, r.Confirmed))
        );
        // Each round its number.
        var second = With(new(read.Part, Rounds: 3, Seconds: 90, Seen: [new(2, 41)]));
        Assert.Equal([false, true, false], second.Select(r => r.Confirmed));
        Assert.Equal(41, second[1].Seconds);
        var beyond = With(new(read.Part, Seen: [new(4, 33)]));
        Assert.Equal([false, false, false, true], beyond.Select(r => r.Confirmed));
        Assert.Equal(
            ["parts[0].seen"],
            HandLog.Of(plan, [new(read.Part, Seen: [new(1, 3), new(1, 4)])], _ => ladder, Shipped.Content).Problems.Select(p => p.Field)
        );
    }

    [Fact]
    public void What_is_not_in_the_plan_or_named_twice_has_a_code()
    {
        var first = Of()[0].Part;
        Assert.Equal(
            ["parts[0].part", "parts[2].part"],
            HandLog.Of(Plan, [new("no-such"), new(first), new(first)], _ => null, Shipped.Content).Problems.Select(p => p.Field)
        );
    }

    [Fact]
    public void What_was_not_done_stands_in_its_planned_place()
    {
        WorkedDrill Of(string drill) => new(drill, "standard", null);
        var lines = DoneOrder.Of([Of("a"), Of("b"), Of("c"), Of("d")], [Of("c"), Of("a")]);
        Assert.Equal([("c", true), ("a", true), ("b", false), ("d", false)], lines.Select(l => (l.Drill.Drill, l.Done)));
        // What goes before everything that was done comes first.
        Assert.Equal(["a", "b"], DoneOrder.Of([Of("a"), Of("b")], [Of("b")]).Select(l => l.Drill.Drill));
    }
}
