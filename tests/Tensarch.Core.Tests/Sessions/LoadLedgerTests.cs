using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Sessions;

public class LoadLedgerTests
{
    private static LoadLedger Of(params Work[] work) => LoadLedger.Of(work, Shipped.Content);

    [Fact]
    public void What_is_stretched_at_the_rear_leg_belongs_to_the_other_side()
    {
        var ledger = Of(new Work("split-ramped", "sliders", Side.Left, "front-split", 240, 90, 80));
        Assert.Equal(
            (240, 0, 0, 240),
            (
                ledger[new LoadKey(LoadTag.Hamstring, Side.Left)],
                ledger[new LoadKey(LoadTag.Hamstring, Side.Right)],
                ledger[new LoadKey(LoadTag.HipFront, Side.Left)],
                ledger[new LoadKey(LoadTag.HipFront, Side.Right)]
            )
        );
    }

    [Fact]
    public void A_wrist_carries_hundredths_of_a_bodyweight_second()
    {
        var drill = Shipped.Content.Drill("wall-handstand");
        var ledger = Of(new Work("wall-handstand", "chest-to-wall", null, "handstand", 40, 40));
        Assert.Equal(
            (int)Math.Round(100 * drill.HandShareOf(drill.VariantAt("chest-to-wall")) * 40),
            ledger[new LoadKey(LoadTag.Wrist, Side.Left)]
        );
    }

    [Theory]
    [InlineData(44, 0)]
    [InlineData(45, 90)]
    public void A_passive_hold_is_heavy_from_forty_five_seconds(int longest, int heavy) =>
        Assert.Equal(heavy, Of(new Work("low-lunge", "padded-knee", Side.Left, null, 90, longest))[LoadTag.PassiveEndRange]);

    [Fact]
    public void The_order_of_work_never_matters_and_ledgers_add_up()
    {
        Work[] work =
        [
            new("split-support", "to-low", Side.Left, null, 100, 40),
            new("crow", "free", null, null, 30, 10),
            new("straddle-support", "low", null, null, 80, 30),
        ];
        foreach (var tag in LoadTags.All)
        {
            Assert.Equal(Of(work)[tag], Of([.. work.Reverse()])[tag]);
            Assert.Equal(Of(work)[tag], Of(work[0]).Plus(Of(work[1], work[2]))[tag]);
        }
    }

    [Theory]
    [InlineData("frog/wide/")]
    [InlineData("split-support/to-low/Left")]
    public void Work_from_before_seconds_were_kept_is_taken_at_its_drills_own_dose(string text)
    {
        var work = Work.Parse(text)!;
        Assert.Null(work.Seconds);
        Assert.True(Of(work)[text.StartsWith("frog", StringComparison.Ordinal) ? LoadTag.Adductor : LoadTag.Hamstring] > 0);
    }

    [Fact]
    public void What_is_written_is_read_again()
    {
        var work = new Work("split-ramped", "sliders", Side.Right, "front-split", 240, 90, 80);
        Assert.Equal(work, Work.Parse(work.ToString()));
        Assert.Null(Work.Parse("no such thing"));
    }

    [Fact]
    public void A_history_tells_days_since_and_days_running()
    {
        var day = new DateOnly(2026, 3, 3);
        TrainedSession On(int daysAgo, string drill, string variant) =>
            new(
                Guid.NewGuid(),
                ["crow"],
                Shipped.Now.AddDays(-daysAgo),
                day.AddDays(-daysAgo),
                Side.Left,
                [new(drill, variant, null, "crow", 60, 20)]
            );
        var history = TrainingHistory.Of(
            [On(1, "crow", "free"), On(2, "crow", "free"), On(4, "crow", "free"), On(3, "frog", "wide")],
            Shipped.Content
        );
        Assert.Equal(
            (1, 2, 3),
            (history.DaysSinceLast(day), history.DaysRunning(LoadTag.Wrist, day), history.DaysSinceHeavy(LoadTag.Adductor, day))
        );
        Assert.Equal(3, history.HeavyDays(LoadTag.Wrist, day, 6));
        Assert.Equal(0, history.With(day, [new("crow", "free", null, "crow", 60, 20)], Shipped.Content).DaysSinceHeavy(LoadTag.Wrist, day));
        Assert.Equal(3 * 60 * 100, history.Week(day.AddDays(-7))[LoadTag.Wrist]);
    }
}
