using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Tests.Planning;

/// <summary>What leads into a core drill; that it is there at all, the panel asks of every session.</summary>
public class LeadInTests
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);

    private static OneSkill Who(string ladder, int stage, string body = "no cautions") =>
        Panel.Request(new(ladder, stage, "long-and-ramped", 45, body, "middle"));

    [Theory]
    [InlineData("handstand", 5, SessionPhase.Fresh, "shoulder-opener", "hollow")]
    [InlineData("side-plank", 3, SessionPhase.Fresh, "protraction")]
    [InlineData("shoulderstand", 5, SessionPhase.Neck, "neck-range", "shoulder-clasp")]
    public void It_stands_at_the_head_of_the_phase_once_and_easily(string ladder, int stage, SessionPhase phase, params string[] leads)
    {
        var plan = Builder.Build(Who(ladder, stage)).Value;
        var there = plan.Drills.Where(d => SessionOrder.PlaceOf(Shipped.Content.Drill(d.Drill), d.Reason).Phase == phase).ToList();
        Assert.Equal(leads, there.Take(leads.Length).Select(d => d.Drill));
        Assert.All(there.Take(leads.Length), d => Assert.True(d.Reason.LeadsIn && d.Sides.All(s => s.Dose.Repeats == 1)));
        Assert.DoesNotContain(there.Skip(leads.Length), d => d.Reason.LeadsIn);
    }

    [Fact]
    public void What_is_done_before_the_core_anyway_leads_in_by_itself()
    {
        var plan = Builder.Build(Who("crow", 5)).Value;
        Assert.Contains(plan.Drills, d => d is { Drill: "crow-perch", Reason.LeadsIn: false });
        Assert.DoesNotContain(plan.Drills, d => d is { Drill: "crow-perch", Reason.LeadsIn: true });
    }

    [Fact]
    public void What_is_light_only_leads_into_nothing() =>
        Assert.All(
            Builder.Build(Who("crow", 5, "wrist light only")).Value.Drills.Where(d => d.Reason.LeadsIn),
            d => Assert.DoesNotContain(Core.Students.LoadTag.Wrist, Shipped.Content.Drill(d.Drill).Loads.Keys)
        );

    /// <summary>Left to the clock a round of it is practice wherever a gate reads it; and on the floor it goes when its core goes.</summary>
    [Fact]
    public void It_proves_nothing_by_the_clock_and_is_there_for_its_core()
    {
        var seen = 0;
        foreach (var ladder in Shipped.Content.Skills)
        foreach (var stage in ladder.Stages)
        {
            var who = Who(ladder.Key, stage.Number);
            var plan = Builder.Build(who).Value;
            var pack = new PackMaker(Shipped.Content).Make(plan, who).Value;
            foreach (var (part, slot) in Timeline.Of(plan, Shipped.Content).Zip(pack.Slots).Where(p => p.First.Planned.Reason.LeadsIn))
            {
                seen++;
                var version = slot.Versions[0];
                Assert.Equal(ladder.Reads(version.Drill, version.Variant, version.Stage), version.Evidence);
                Assert.NotEmpty(slot.For);
                Assert.All(pack.Slots.Where(s => slot.For.Contains(s.Id)), s => Assert.Equal(part.Planned.Reason.For, s.Versions[0].Drill));
            }
        }
        Assert.True(seen > 20, $"{seen}");
    }
}
