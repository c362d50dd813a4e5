using Tensarch.Core.Planning;

namespace Tensarch.Core.Tests.Planning;

/// <summary>A quarter of an hour is a session too: what it is for is in it, and more of it is work than its rules ask.</summary>
public class ShortDayTests
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);

    /// <summary>Somebody on the way back from a break: short holds, and tries of the split beside them.</summary>
    [Theory]
    [InlineData("front-split", "long-and-ramped")]
    [InlineData("front-split", "rhythmic")]
    [InlineData("middle-split", "long-and-ramped")]
    public void Tries_at_an_end_position_leave_room_for_work(string skill, string approach)
    {
        var later = Enumerable.Range(5, Shipped.Content.NewestLadder(skill)!.Stages.Count - 4).ToList();
        foreach (var minutes in Enumerable.Range(SessionBuilder.FewestMinutes, 8))
        foreach (var left in later)
        foreach (var right in skill == "front-split" ? later : [left])
        {
            Trainee who = Panel.Request(new(skill, left, approach, minutes, "no cautions", "middle"));
            var course = who.Courses[0] with { Right = who.Courses[0].Right with { Stage = right } };
            who = who with { Courses = [course], BreathSeconds = 6.3, WayBack = new(11, 2, 0) };
            var plan = Builder.Build(who).Value;
            Assert.Empty(SessionChecker.Check(plan, who, Shipped.Content));
        }
    }
}
