using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

/// <summary>What was planned for who trains on is not run by who was away: not by a single session of the panel.</summary>
public class WayBackTests
{
    private const int Stride = 37;
    private static readonly SessionBuilder Builder = new(Shipped.Content);

    public static TheoryData<int, int> Breaks =>
        new()
        {
            { 14, 2 },
            { 21, 3 },
            { 31, 5 },
            { 60, 8 },
        };

    [Theory]
    [MemberData(nameof(Breaks))]
    public void A_plan_from_before_the_break_is_not_run_after_it_and_the_one_that_is_made_then_is(int days, int sessions)
    {
        var cases = Panel.All.Where((c, i) => i % Stride == 0 && c.History != "new").ToList();
        Assert.NotEmpty(cases);
        var unchanged = new List<string>();
        foreach (var at in cases)
        {
            var one = Panel.Request(at);
            var before = Builder.Build(one);
            if (!before.IsOk)
                continue;
            var back = one with { DaysSinceLast = days, WayBack = new WayBack(days, sessions, 0) };
            if (SessionChecker.Check(before.Value, back, Shipped.Content).All(v => v.Code != "overReturnDose"))
                unchanged.Add($"{at}");
            var after = Builder.Build(back);
            if (after.IsOk)
                Assert.Empty(SessionChecker.Check(after.Value, back, Shipped.Content));
        }
        // Rolls and holds toward a small best of one's own: shorter already than the usual dose is on the way back.
        Assert.All(unchanged, at => Assert.StartsWith("shoulderstand 2", at, StringComparison.Ordinal));
    }

    [Fact]
    public void Each_session_of_the_way_back_may_be_longer_than_the_one_before_and_not_sooner()
    {
        var one = Panel.Request(new("front-split", 3, "long-and-ramped", 45, "no cautions", "middle")) with { DaysSinceLast = 20 };
        OneSkill At(int done) => one with { WayBack = new WayBack(20, 3, done) };
        var plans = Enumerable.Range(0, 3).Select(done => Builder.Build(At(done)).Value).ToList();
        for (var made = 0; made < 3; made++)
        for (var run = 0; run < 3; run++)
            Assert.Equal(made > run, SessionChecker.Check(plans[made], At(run), Shipped.Content).Any(v => v.Code == "overReturnDose"));
    }
}
