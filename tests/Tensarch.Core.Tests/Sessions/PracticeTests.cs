using Tensarch.Core.Sessions;

namespace Tensarch.Core.Tests.Sessions;

/// <summary>A hold that is practised by the clock alone.</summary>
public sealed class PracticeTests
{
    private static IReadOnlyList<PracticeSegment> Of(Practice practice) => practice.Segments().Value;

    private static IEnumerable<string> Told(Practice practice) =>
        Of(practice).Select(s => $"{s.Phase} {s.Side?.ToString() ?? "-"} {s.Round} {s.StartSeconds}+{s.Seconds}");

    [Fact]
    public void Sides_alternate_within_a_round_and_the_change_is_taken_from_the_rest() =>
        Assert.Equal(
            [
                "CountIn Left 1 0+5",
                "Work Left 1 5+30",
                "SwitchSides Right 1 35+5",
                "Work Right 1 40+30",
                "Rest Left 2 70+15",
                "SwitchSides Left 2 85+5",
                "Work Left 2 90+30",
                "SwitchSides Right 2 120+5",
                "Work Right 2 125+30",
            ],
            Told(new(Seconds: 30, Sides: PracticeSides.LeftFirst, Rounds: 2, RestSeconds: 20))
        );

    [Fact]
    public void Side_by_side_does_all_rounds_of_a_side_first() =>
        Assert.Equal(
            [
                "CountIn Right 1 0+3",
                "Work Right 1 3+10",
                "Rest Right 2 13+20",
                "Work Right 2 33+10",
                "Rest Left 1 43+12",
                "SwitchSides Left 1 55+8",
                "Work Left 1 63+10",
                "Rest Left 2 73+20",
                "Work Left 2 93+10",
            ],
            Told(
                new(
                    Seconds: 10,
                    Sides: PracticeSides.RightFirst,
                    SideBySide: true,
                    Rounds: 2,
                    RestSeconds: 20,
                    SwitchSeconds: 8,
                    CountInSeconds: 3
                )
            )
        );

    [Fact]
    public void A_ramp_settles_first_and_tells_its_effort_by_second()
    {
        var segments = Of(new(Seconds: 10, Ramp: new(0, 80, 2), SettleSeconds: 20, CountInSeconds: 0));
        Assert.Equal([PracticePhase.Settle, PracticePhase.Work], segments.Select(s => s.Phase));
        Assert.Null(segments[0].Effort);
        Assert.Equal(new ContractionRamp(10, 0, 80, 2).BySecond(), segments[1].Effort);
    }

    [Fact]
    public void Breaths_are_counted_in_their_own_length()
    {
        var held = Of(new(Breaths: 3, BreathSeconds: 4.5, CountInSeconds: 0)).Single();
        Assert.Equal(14, held.Seconds);
        Assert.Equal([1, 1, 1, 1, 1, 2, 2, 2, 2, 3, 3, 3, 3, 3], held.Breath);
    }

    [Theory]
    [InlineData(null, null, 0, 1, "oneOfTwo")]
    [InlineData(10, 3, 0, 1, "oneOfTwo")]
    [InlineData(10, null, 10, 1, "plateauTooLong")]
    [InlineData(3600, null, 0, 5, "practiceTooLong")]
    public void What_cannot_be_is_named(int? seconds, int? breaths, int plateau, int rounds, string code) =>
        Assert.Equal(code, new Practice(seconds, breaths, Ramp: new(0, 50, plateau), Rounds: rounds).Segments().Problems.Single().Code);

    /// <summary>Whatever is chosen: nothing overlaps or is left out, each side has each round once, and one never changes side without the time for it.</summary>
    [Fact]
    public void Every_practice_is_whole()
    {
        var chance = new Random(11);
        for (var i = 0; i < 3000; i++)
        {
            var practice = new Practice(
                Seconds: chance.Next(2) == 0 ? chance.Next(1, 90) : null,
                Breaths: 5,
                BreathSeconds: 2 + chance.NextDouble() * 10,
                Sides: (PracticeSides)chance.Next(5),
                SideBySide: chance.Next(2) == 0,
                Rounds: chance.Next(1, 8),
                RestSeconds: chance.Next(0, 40),
                SwitchSeconds: chance.Next(0, 20),
                CountInSeconds: chance.Next(0, 10)
            );
            if (practice.Seconds is not null)
                practice = practice with { Breaths = null };
            var segments = Of(practice);
            var at = 0;
            foreach (var segment in segments)
            {
                Assert.Equal(at, segment.StartSeconds);
                Assert.True(segment.Seconds > 0);
                Assert.True(segment.Breath is null || segment.Breath.Count == segment.Seconds);
                at += segment.Seconds;
            }
            var held = segments.Where(s => s.Phase == PracticePhase.Work).Select(s => (s.Side, s.Round)).ToList();
            var sides = practice.Sides is PracticeSides.LeftFirst or PracticeSides.RightFirst ? 2 : 1;
            Assert.Equal(practice.Rounds * sides, held.Count);
            Assert.Equal(held.Count, held.Distinct().Count());
            for (var s = 1; s < segments.Count; s++)
                if (practice.SwitchSeconds > 0 && segments[s].Phase == PracticePhase.Work && segments[s - 1].Phase == PracticePhase.Work)
                    Assert.Equal(segments[s - 1].Side, segments[s].Side);
        }
    }
}
