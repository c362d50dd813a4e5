using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Tests.Catalogue;

public class ContentTests
{
    private static Dictionary<string, string> With(string file, string find, string replace)
    {
        var files = new Dictionary<string, string>(ContentLoader.Shipped());
        Assert.Contains(find, files[file], StringComparison.Ordinal);
        files[file] = files[file].Replace(find, replace, StringComparison.Ordinal);
        return files;
    }

    [Fact]
    public void The_front_split_ships_with_seven_stages_and_six_measures()
    {
        Assert.Equal(7, Shipped.FrontSplit.Stages.Count);
        Assert.Equal(6, Shipped.Content.MeasuresOf(Shipped.FrontSplit).Count);
        Assert.Equal(Better.Down, Shipped.Content.Measure("front-split-gap").Better);
        Assert.Equal(["exposure", "rom", "rom", "pain", "clear"], Shipped.FrontSplit.GateOf(1).Select(t => t.Kind));
        Assert.Equal(35, Shipped.FrontSplit.StageAt(3).Tests.OfType<RomCriterion>().First().Threshold);
    }

    [Theory]
    [InlineData("measures.v1.json", "\"sem\": 2.5", "\"sem\": -1")]
    [InlineData("measures.v1.json", "\"unit\": \"°\"", "\"unit\": \"furlong\"")]
    [InlineData("ladders/front-split.v2.json", "\"kind\": \"exposure\"", "\"kind\": \"luck\"")]
    [InlineData("drills.v1.json", "\"hamstring\": \"heavy\"", "\"hamstring\": \"crushing\"")]
    [InlineData("intake.v1.json", "\"level\": \"offLimits\"", "\"level\": \"ignored\"")]
    public void Content_that_breaks_its_schema_names_file_path_and_reason(string file, string find, string replace)
    {
        var error = Assert.Throws<ContentException>(() => ContentLoader.Load(With(file, find, replace)));
        Assert.Equal(file, error.File);
        Assert.NotEmpty(error.Path);
        Assert.NotEmpty(error.Reason);
    }

    [Theory]
    [InlineData("ladders/front-split.v2.json", "\"measure\": \"active-slr\"", "\"measure\": \"no-such-measure\"", "unknownMeasure")]
    [InlineData("ladders/front-split.v2.json", "\"variant\": \"high-only\"", "\"variant\": \"no-such-variant\"", "unknownVariant")]
    [InlineData("drills.v1.json", "\"end-position\"\n", "\"other-gate\"\n", "other-gate")]
    [InlineData("drills.v1.json", "\"plateauSeconds\": 4", "\"plateauSeconds\": 12", "plateau")]
    [InlineData("ladders/front-split.v2.json", "\"number\": 2", "\"number\": 3", "stagesCountUp")]
    [InlineData("ladders/front-split.v2.json", "\"low-lunge\"", "\"no-such-drill\"", "no-such-drill")]
    [InlineData("ladders/front-split.v2.json", "\"low-lunge\"", "\"kick-up\"", "kick-up is no drill of this stage")]
    [InlineData(
        "drills.v1.json",
        "Squeeze the rear glute, hips forward",
        "a a a a a a a a a a a a a a a a a a a a a a a a a a a",
        "is too long for 10 s"
    )]
    [InlineData("drills.v1.json", "\"position\": \"Fold\"", "\"position\": \"Nowhere\"", "belongs to nothing")]
    [InlineData("session-shape.v1.json", "\"active-slr\": [", "\"plank-hold\": [", "opens active-slr")]
    public void Content_that_points_at_nothing_is_refused(string file, string find, string replace, string reason) =>
        Assert.Contains(
            reason,
            Assert.Throws<ContentException>(() => ContentLoader.Load(With(file, find, replace))).Reason,
            StringComparison.Ordinal
        );

    [Fact]
    public void A_file_that_is_no_json_is_refused_by_name()
    {
        var files = new Dictionary<string, string>(ContentLoader.Shipped()) { ["drills.v1.json"] = "{ not json" };
        Assert.Equal("drills.v1.json", Assert.Throws<ContentException>(() => ContentLoader.Load(files)).File);
    }
}
