namespace Tensarch.Core.Tests.Catalogue;

/// <summary>A drill that is called otherwise now is found under what it was called.</summary>
public sealed class RenamedDrillTests
{
    [Theory]
    [InlineData("ball-rolls", "back-rolls")]
    [InlineData("crow-shelf", "crow-perch")]
    [InlineData("wrist-flip-rotate", "wrist-turns")]
    public void An_old_key_finds_the_drill_and_is_no_name_of_its_own(string was, string key)
    {
        Assert.Equal(key, Shipped.Content.Drill(was).Key);
        Assert.DoesNotContain(was, Shipped.Content.Drills.Keys);
        Assert.Contains((was, key), Shipped.Content.RenamedDrills);
    }
}
