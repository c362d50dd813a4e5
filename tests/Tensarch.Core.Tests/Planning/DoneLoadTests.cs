using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

/// <summary>What work loads that was done: as long as it was held, and where nobody said so, as long as it usually is.</summary>
public sealed class DoneLoadTests
{
    private static IEnumerable<(Drill Drill, Variant Variant)> All =>
        from drill in Shipped.Content.DrillList
        from variant in drill.Variants
        select (drill, variant);

    [Fact]
    public void Nothing_becomes_light_by_leaving_out_how_long_it_was_held()
    {
        var heavy = 0;
        foreach (var (drill, variant) in All)
        {
            var usual = drill.LoadsOf(variant, drill.DoseOf(variant));
            var untold = Work.Of([new(new(drill.Key, variant.Key, null), null, null, null, null)], null, Shipped.Content);
            var loads = drill.LoadsOf(Assert.Single(untold), 4.5);
            foreach (var (tag, level) in usual)
                Assert.True(loads[tag] >= level, $"{drill.Key}/{variant.Key} {tag}");
            heavy += usual.GetValueOrDefault(LoadTag.PassiveEndRange) == LoadLevel.Heavy ? 1 : 0;
        }
        Assert.True(heavy > 5, $"{heavy}");
    }

    [Fact]
    public void A_short_hold_is_light_and_a_long_one_is_not()
    {
        foreach (
            var (drill, variant) in All.Where(d =>
                d.Drill.DoseOf(d.Variant) is HoldDose && d.Drill.Loads.ContainsKey(LoadTag.PassiveEndRange)
            )
        )
        {
            LoadLevel Held(double seconds) => drill.LoadsOfRound(variant, seconds, 4.5).GetValueOrDefault(LoadTag.PassiveEndRange);
            Assert.True(Held(30) <= LoadLevel.Light);
            Assert.True(Held(60) >= Held(30));
        }
    }
}
