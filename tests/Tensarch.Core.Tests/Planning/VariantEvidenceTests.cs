using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Tests.Planning;

public class VariantEvidenceTests
{
    private static OneSkill Request(string skill, int stage) =>
        Panel.Request(new(skill, stage, "long-and-ramped", 60, "no cautions", "middle")) with
        {
            Left = Shipped.At(Side.Left, stage, 20),
            Right = Shipped.At(Side.Right, stage, 20),
        };

    private static string? Planned(OneSkill request, string drill) =>
        new SessionBuilder(Shipped.Content).Build(request).Value.Drills.FirstOrDefault(d => d.Drill == drill)?.Sides[0].Variant;

    /// <summary>Sessions of one drill before today: how many days ago, in which variant, in full or not.</summary>
    private static Trainee After(OneSkill request, string drill, params (int DaysAgo, string Variant, bool Full)[] sessions) =>
        (Trainee)request with
        {
            History = sessions.Aggregate(
                TrainingHistory.None,
                (history, s) =>
                    history.With(
                        request.Date.AddDays(-s.DaysAgo),
                        [new(drill, s.Variant, null, request.Ladder.Skill, Full: s.Full)],
                        Shipped.Content
                    )
            ),
        };

    private static string Variant(Trainee who, string drill) =>
        DrillChoice.For(Shipped.Content.Drill(drill), null, who.Courses[0].LowerStage, who, who.Courses[0]).Planned!.Variant;

    [Fact]
    public void The_easiest_of_the_range_comes_first_and_none_is_skipped()
    {
        var who = Request("handstand", 4);
        Assert.Equal("one-leg", Variant(who, "hollow"));
        Assert.Equal("one-leg", Variant(After(who, "hollow", (9, "one-leg", true)), "hollow"));
        Assert.Equal("one-leg", Variant(After(who, "hollow", (9, "one-leg", true), (7, "one-leg", false)), "hollow"));
        Assert.Equal("full", Variant(After(who, "hollow", (9, "one-leg", true), (7, "one-leg", true)), "hollow"));
        // The stage has no harder one.
        Assert.Equal("full", Variant(After(who, "hollow", (9, "full", true), (7, "full", true)), "hollow"));
        Assert.Equal("one-leg", Variant(After(who, "hollow", (9, "one-leg", true), (8, "one-leg", true), (7, "tuck", true)), "hollow"));
    }

    [Fact]
    public void A_lead_in_says_nothing_about_the_version_that_comes_next()
    {
        var who = After(Request("handstand", 4), "hollow", (9, "full", true), (8, "full", true));
        var led = who with
        {
            History = who.History.With(
                who.Date.AddDays(-2),
                [new("hollow", "one-leg", null, "handstand", Full: true) { LedIn = true }],
                Shipped.Content
            ),
        };
        Assert.Equal("full", Variant(led, "hollow"));
        Assert.Equal(led.History.Days[^1].Worked[0], Work.Parse(led.History.Days[^1].Worked[0].ToString()));
    }

    [Fact]
    public void Nobody_hops_into_a_salutation_before_two_full_sessions_of_stepping()
    {
        foreach (var stage in Enumerable.Range(1, 8))
            Assert.Equal("knees-down", Variant(Request("handstand", stage), "salutation-flow"));
        var stepped = After(Request("handstand", 6), "salutation-flow", (9, "stepped", true), (7, "stepped", true));
        Assert.Equal("hopped", Variant(stepped, "salutation-flow"));
        var early = After(Request("handstand", 4), "salutation-flow", (9, "stepped", true), (7, "stepped", true));
        Assert.Equal("stepped", Variant(early, "salutation-flow"));
    }

    [Fact]
    public void Side_planks_and_the_wall_keep_to_their_stages()
    {
        Assert.Equal(
            ["kneel", "staggered", "stacked", "stacked", "leg-bent", "leg-held"],
            Enumerable.Range(1, 6).Select(s => Planned(Request("side-plank", s), "side-plank")!)
        );
        Assert.Equal(["half-way-up", "chest-to-wall"], new[] { 4, 5 }.Select(s => Planned(Request("handstand", s), "wall-handstand")!));
    }

    [Theory]
    [InlineData(3, 5, "wedge-5")]
    [InlineData(3, 2.5, "wedge-2-5")]
    [InlineData(5, 2.5, "wedge-2-5")]
    [InlineData(4, 0, "flat-with-post")]
    public void The_wedge_is_the_one_that_the_last_reading_allows(int stage, double reading, string variant)
    {
        var request = Request("deep-squat", stage);
        SideState With(SideState side) => side with { Supports = new Dictionary<string, double> { ["squat-heel-wedge"] = reading } };
        var who = request with { Left = With(request.Left), Right = With(request.Right) };
        var done = After(who, "wedge-squat-hold", (9, "wedge-5-with-support", true), (7, "wedge-5-with-support", true));
        Assert.Equal(variant, Variant(done, "wedge-squat-hold"));
    }

    [Fact]
    public void What_pain_eased_comes_back_by_evidence()
    {
        var request = Request("handstand", 4);
        var painOn = request.Date.AddDays(-5);
        (int, string, bool)[] before = [(12, "one-leg", true), (10, "one-leg", true), (8, "full", true)];
        var eased = After(request, "hollow", [.. before, (3, "one-leg", true)]) with { Eased = [new(null, "hollow", 1, 1, painOn)] };
        Assert.Equal("one-leg", Variant(eased, "hollow"));
        var over = After(request, "hollow", [(8, "full", true), (3, "one-leg", true)]);
        Assert.Equal("one-leg", Variant(over, "hollow"));
        Assert.Equal("full", Variant(After(request, "hollow", [(8, "full", true), (3, "one-leg", true), (1, "one-leg", true)]), "hollow"));
    }

    [Fact]
    public void A_session_counts_in_full_with_all_rounds_all_time_and_quality_of_three()
    {
        var plan = new SessionBuilder(Shipped.Content).Build(Request("handstand", 1)).Value;
        var hollow = plan.Drills.Single(d => d.Drill == "hollow");
        var dose = (HoldDose)hollow.Sides[0].Dose;
        Work Done(int rounds, double seconds, int? quality) =>
            Work.Of(
                    Enumerable
                        .Repeat(0, rounds)
                        .Select(_ => new DoneRound(new("hollow", hollow.Sides[0].Variant, null), seconds, null, quality)),
                    plan,
                    Shipped.Content
                )
                .Single();
        Assert.True(Done(dose.Rounds, dose.Seconds!.Value, 3).Full);
        Assert.True(Done(dose.Rounds, dose.Seconds!.Value, null).Full);
        Assert.False(Done(dose.Rounds, dose.Seconds!.Value, 2).Full);
        Assert.False(Done(dose.Rounds - 1, dose.Seconds!.Value, 4).Full);
        Assert.False(Done(dose.Rounds, dose.Seconds!.Value - 1, 4).Full);
        Assert.Equal(Done(dose.Rounds, dose.Seconds!.Value, 3), Work.Parse(Done(dose.Rounds, dose.Seconds!.Value, 3).ToString()));
    }
}
