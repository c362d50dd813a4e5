using System.Globalization;
using System.Text;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Tests.Planning;

/// <summary>
/// Twelve sessions for reading, in docs/examples: one of each skill and five hard cases. They are what the maker makes; with <c>EXAMPLES=write</c>
/// they are written anew.
/// </summary>
public class ExampleTests
{
    private static readonly (string File, PanelCase Case)[] Examples =
    [
        ("01-front-split", new("front-split", 4, "long-and-ramped", 45, "no cautions", "middle")),
        ("02-middle-split", new("middle-split", 3, "rhythmic", 45, "no cautions", "middle")),
        ("03-deep-squat", new("deep-squat", 4, "long-and-ramped", 45, "no cautions", "at the gate")),
        ("04-crow", new("crow", 4, "brief-and-frequent", 30, "no cautions", "middle")),
        ("05-side-plank", new("side-plank", 3, "long-and-ramped", 45, "no cautions", "middle")),
        ("06-handstand", new("handstand", 5, "long-and-ramped", 60, "no cautions", "middle")),
        ("07-shoulderstand", new("shoulderstand", 5, "long-and-ramped", 45, "no cautions", "middle")),
        ("08-first-day-20-minutes", new("front-split", 1, "brief-and-frequent", 20, "no cautions", "new")),
        ("09-very-mobile-front-split", new("front-split", 6, "long-and-ramped", 60, "very mobile", "at the gate")),
        ("10-wrist-light-only-crow", new("crow", 5, "long-and-ramped", 45, "wrist light only", "middle")),
        ("11-neck-off-limits-shoulderstand", new("shoulderstand", 6, "long-and-ramped", 45, "neck off limits", "middle")),
        ("12-long-day-handstand", new("handstand", 8, "long-and-ramped", 75, "no cautions", "at the gate")),
    ];

    [Fact]
    public void The_examples_in_the_documents_are_what_is_made()
    {
        var write = Environment.GetEnvironmentVariable("EXAMPLES") == "write";
        foreach (var (file, at) in Examples)
        {
            var path = Path.Combine(Root(), "docs", "examples", file + ".md");
            var text = Written(at);
            if (write)
                File.WriteAllText(path, text);
            else
                Assert.Equal(text, File.ReadAllText(path));
        }
    }

    internal static string Root()
    {
        var at = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(at, "Tensarch.slnx")))
            at = Path.GetDirectoryName(at)!;
        return at;
    }

    private static string Written(PanelCase at)
    {
        var plan = new SessionBuilder(Shipped.Content).Build(Panel.Request(at)).Value;
        var text = new StringBuilder();
        void Line(FormattableString line) => text.Append(line.ToString(CultureInfo.InvariantCulture)).Append('\n');
        string Clock(int seconds) => string.Create(CultureInfo.InvariantCulture, $"{seconds / 60}:{seconds % 60:00}");
        var ladder = Shipped.Ladder(at.Ladder);
        Line($"# {ladder.Name}, stage {at.Stage} {ladder.StageAt(at.Stage).Name}, {at.Minutes} minutes");
        Line($"");
        Line(
            $"{Shipped.Content.FindApproach(at.Approach)!.Name}; {at.Body}; {at.History}. Takes {Clock(Timeline.SecondsOf(plan, Shipped.Content))}."
        );
        SessionPhase? phase = null;
        foreach (var planned in plan.Drills)
        {
            var drill = Shipped.Content.Drill(planned.Drill);
            var now = SessionOrder.PlaceOf(drill, planned.Reason).Phase;
            if (now != phase)
                Line($"\n## {now}\n");
            phase = now;
            var side = planned.Sides[0];
            var sides =
                planned.Sides.Count == 2 ? ", each side"
                : side.Side is { } one ? $", {one.ToString().ToLowerInvariant()}"
                : "";
            var numbers = planned.Reason.Number is { } asked
                ? $" (asked {asked}{(planned.Reason.Best is { } best ? $", best {best}" : "")})"
                : "";
            Line(
                $"- {Clock(Timeline.SecondsOf(planned, drill, plan.BreathSeconds))} **{drill.Name}**, {drill.VariantAt(side.Variant).Name.ToLowerInvariant()}{sides}: {Said(side.Dose)}. {planned.Reason.Code}{numbers}"
            );
        }
        Line($"\n## Notes\n");
        foreach (var note in plan.Notes)
            Line(
                $"- {note.Code}{(note.Drill is { } of ? $" {of}" : "")}{(note.Tag is { } tag ? $" ({tag})" : "")}{(note.Number is { } n ? $" {n:0}" : "")}"
            );
        return text.ToString();
    }

    private static string Said(Dose dose) =>
        dose switch
        {
            HoldDose d =>
                $"{d.Rounds} × {(d.Seconds is { } s ? $"{s} s" : $"{d.Breaths} breaths")}{(d.Rounds > 1 ? $", rest {d.RestSeconds} s" : "")}",
            RampedDose d =>
                $"settle {d.SettleSeconds} s, {d.Rounds} × (press {d.PressSeconds} s, lift {d.LiftSeconds} s to {d.ToPercent} %, resettle {d.ResettleSeconds} s)",
            RepsDose d => $"{d.Sets} × {d.Reps}",
            RhythmDose d => $"{d.Reps} slow, one breath each",
            SupportLadderDose d => $"{d.Rounds} × ({string.Join(", ", d.Rungs.Select(r => $"{r.Name.ToLowerInvariant()} {r.Seconds} s"))})",
            AttemptsDose d => $"{d.Attempts} entries of {d.MaxSeconds} s at most, rest {d.RestSeconds} s",
            FlowDose d => $"{d.Rounds} × ({string.Join(", ", d.Positions.Select(p => p.Name.ToLowerInvariant()))})",
            _ => "",
        };
}
