using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

/// <summary>A studio's copy of a drill, over the years of the drill that it was made of.</summary>
public sealed class OwnDrillTests
{
    private static readonly Drill Source = Shipped.Content.Drill("low-lunge");

    private static readonly OwnDrill Copy = new("Ours", ["Say it our way"], [], [], [], [], Source.Loads);

    [Fact]
    public void What_its_source_has_gained_of_load_it_has_too_and_it_stays()
    {
        Assert.DoesNotContain(LoadTag.Wrist, Source.Loads.Keys);
        var heavier = Source with { Loads = new Dictionary<LoadTag, LoadLevel>(Source.Loads) { [LoadTag.Wrist] = LoadLevel.Heavy } };
        var kept = Copy with { Loads = new Dictionary<LoadTag, LoadLevel>(Copy.Loads) { [LoadTag.Wrist] = LoadLevel.Light } };
        Assert.Contains(kept.Check(heavier), p => p.Code == "loadBelow");
        Assert.True(kept.Stands(heavier));
        Assert.Equal(LoadLevel.Heavy, kept.Of(heavier, "own-copy", false).Loads[LoadTag.Wrist]);
    }

    [Fact]
    public void What_names_a_version_that_its_source_has_no_more_does_not_stand() =>
        Assert.False((Copy with { Variants = [new("gone", "Gone")] }).Stands(Source));
}
