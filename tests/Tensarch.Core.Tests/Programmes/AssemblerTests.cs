using System.Text.Json;
using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Core.Tests.Planning;

namespace Tensarch.Core.Tests.Programmes;

public class AssemblerTests
{
    private static readonly Assembler Assembler = new(Shipped.Content);
    private static readonly PackMaker Packs = new(Shipped.Content);

    private static readonly Gen<(Trainee Who, DayAsk Ask, double Share)> AnyDay =
        from who in SeveralSkillsTests.AnyTrainee
        from kinds in Gen.Int[0, 2].Array[3]
        from level in Gen.OneOf(Gen.Const(DayOrder.Whole), Gen.Const(DayOrder.Less), Gen.Const(DayOrder.Least), Gen.Const(DayOrder.Portion))
        from skills in Gen.Int[1, 3]
        from share in Gen.Int[0, 7].Select(n => 0.2 * n)
        select (who, new DayAsk([.. who.Courses.Take(skills).Select((c, i) => new BlockOrder(c.Skill, (BlockAim)kinds[i]))], level), share);

    /// <summary>Of a day's loads so much: what a week may leave of them.</summary>
    private static Dictionary<LoadKey, int>? Most(DayOffer whole, double share) =>
        share > 1
            ? null
            : LoadCeiling
                .Counted.SelectMany(t => SideExtensions.Both.Select(s => new LoadKey(t, s)))
                .ToDictionary(k => k, k => (int)(share * whole.Load[k]));

    private static string Said(Trainee who, DayOffer offer) =>
        string.Join(
            '\n',
            [
                offer.Ask.ToString(),
                string.Join(", ", SessionChecker.Check(offer.Plan, who, Shipped.Content).Select(v => $"{v.Code} {v.Drill}")),
                $"{who.Minutes} min, breath {who.BreathSeconds:F1}, back {who.WayBack?.BreakDays}, "
                    + string.Join(
                        "; ",
                        who.Courses.Select(c => $"{c.Skill} {c.Left.Stage}/{c.Right.Stage} {c.Approach.Key} day {c.DaysSinceStart}")
                    ),
                string.Join(", ", LoadTags.All.Where(t => who.Bars[t] != BarLevel.Free).Select(t => $"{t} {who.Bars[t]}")),
                .. offer.Plan.Drills.Select(d =>
                    $"  {Timeline.SecondsOf(d, Shipped.Content.Drill(d.Drill), who.BreathSeconds)} {d.Skill} {d.Drill}/{d.Sides[0].Variant} x{d.Sides.Count} {d.Reason.Code}"
                ),
                string.Join(", ", offer.Plan.Notes.Select(n => $"{n.Code} {n.Skill} {n.Drill} {n.Number}")),
            ]
        );

    [Fact]
    public void A_day_that_is_offered_breaks_no_rule_keeps_its_order_and_can_be_run()
    {
        var (asked, made, limited) = (0, 0, 0);
        AnyDay.Sample(
            at =>
            {
                Interlocked.Increment(ref asked);
                if (Assembler.Of(at.Who, at.Ask) is not { } whole)
                    return;
                var most = Most(whole, at.Share);
                if ((most is null ? whole : Assembler.Of(at.Who, at.Ask, most)) is not { } less)
                    return;
                Interlocked.Increment(ref made);
                if (most is not null)
                    Interlocked.Increment(ref limited);
                Assert.True(SessionChecker.Check(less.Plan, at.Who, Shipped.Content) is { Count: 0 }, Said(at.Who, less));
                foreach (var (key, load) in most ?? [])
                    Assert.True(less.Load[key] <= load, $"{key} {less.Load[key]} > {load}\n{Said(at.Who, less)}");
                foreach (var light in less.Blocks.Where(b => b.Kind == BlockAim.Light))
                    Assert.True(!light.Load.Heavy.Any(), Said(at.Who, less));
                Assert.Equal(Timeline.SecondsOf(less.Plan, Shipped.Content), less.Seconds);
                Assert.True(Packs.Make(less.Plan, at.Who).IsOk, Said(at.Who, less));
            },
            time: Budget.Seconds
        );
        Assert.True(made > asked / 2 && limited > asked / 4, $"{made} of {asked} made, {limited} limited");
    }

    /// <summary>What the sessions of a day share is of that day and that student alone: no order leaves anything for the next.</summary>
    [Fact]
    public void Sessions_tried_together_are_those_made_one_by_one() =>
        (from at in AnyDay from kinds in Gen.Int[0, 2].Array[3].Array[4] select (at, kinds)).Sample(
            (at, kinds) =>
            {
                var day = Assembler.On(at.Who);
                DayAsk[] asks =
                [
                    at.Ask,
                    .. kinds.Select(
                        (k, i) =>
                            new DayAsk(
                                [.. at.Ask.Blocks.Select((b, j) => b with { Kind = (BlockAim)k[j] })],
                                i % 2 == 0 ? DayOrder.Whole : DayOrder.Least
                            )
                    ),
                    at.Ask,
                ];
                var most = day.Of(at.Ask) is { } whole ? Most(whole, at.Share) : null;
                static string Text(DayOffer? offer) => offer is null ? "none" : JsonSerializer.Serialize(offer.Plan);
                var together = asks.AsParallel().AsOrdered().Select(ask => Text(day.Of(ask, most))).ToList();
                Assert.Equal(asks.Select(ask => Text(Assembler.Of(at.Who, ask, most))), together);
            },
            time: Budget.Seconds
        );
}
