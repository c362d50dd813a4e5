using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Sessions;

public class SessionPackTests
{
    private static SessionPack Pack(int stage = 6)
    {
        var request = new SessionRequest(
            Shipped.FrontSplit,
            Shipped.Content.Approaches[0],
            "square",
            new DateOnly(2026, 3, 3),
            75,
            Shipped.At(Side.Left, stage, 8),
            Shipped.At(Side.Right, stage, 8),
            null,
            Side.Right,
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
        );
        return SessionPack.Of(new SessionBuilder(Shipped.Content).Build(request).Value, request.Bars, Shipped.Content);
    }

    private static PackStop Stop(SessionPack pack, SignalKind signal) => pack.Stops.Single(s => s.Signal == signal);

    [Fact]
    public void Backing_off_leads_one_level_easier_until_the_easiest()
    {
        var part = Pack().Parts.First(p => p.Drill == "split-support");
        Assert.Equal(["floor", "to-low", "to-middle", "high-only"], part.Versions.Select(v => v.Variant));
        Assert.Equal([1, 2, 3, null], part.Versions.Select(v => v.Easier));
        Assert.Equal([2, 3, 3, null], part.Versions.Select(v => v.Offer));
    }

    [Fact]
    public void Sharp_pain_ends_every_drill_with_the_region()
    {
        var pack = Pack();
        var removed = Stop(pack, SignalKind.SharpPain).Removes["hamstring"];
        foreach (var part in pack.Parts)
            Assert.Equal(Shipped.Content.Drill(part.Drill).Loads.ContainsKey(LoadTag.Hamstring), removed.Contains(part.Id));
    }

    [Fact]
    public void Dizziness_ends_everything_head_down_and_head_contact_ends_the_session()
    {
        var pack = Pack();
        var removed = Stop(pack, SignalKind.HeadPressure).Removes[""];
        Assert.Contains(pack.Parts, p => removed.Contains(p.Id));
        Assert.All(
            pack.Parts.Where(p => removed.Contains(p.Id)),
            p => Assert.Contains(LoadTag.HeadDown, Shipped.Content.Drill(p.Drill).Loads.Keys)
        );
        Assert.Equal(pack.Parts.Count, Stop(pack, SignalKind.FallWithHeadContact).Removes[""].Count);
    }

    [Fact]
    public void A_failed_day_gate_replaces_the_attempt_with_its_substitute()
    {
        var gate = Pack().DayGates.Single(g => g.Test == "split-depth-check-left");
        Assert.Equal(["split-attempt-left"], gate.Needing);
        Assert.Equal(
            ("split-support", "to-middle", Side.Left),
            (gate.Substitute!.Drill, gate.Substitute.Versions[0].Variant, gate.Substitute.Side)
        );
        Assert.Equal(1, gate.Easier);
    }

    [Fact]
    public void A_round_says_what_it_counts_for()
    {
        var pack = Pack();
        Assert.Equal([new PackRound(1, 60, null)], pack.Parts.First(p => p.Drill == "split-support").Versions[0].Rounds);
        Assert.Equal(new PackRound(1, null, 24), pack.Parts.First(p => p.Drill == "leg-swings").Versions[0].Rounds[0]);
    }
}
