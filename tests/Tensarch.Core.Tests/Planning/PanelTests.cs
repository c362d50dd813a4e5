using System.Globalization;
using Tensarch.Core.Planning;

namespace Tensarch.Core.Tests.Planning;

/// <summary>
/// Sessions that a good coach would sign. A seventh of the panel each time the suite runs; the whole of it with <c>PANEL=whole</c>, as
/// <c>./dev bench</c> does.
/// </summary>
public class PanelTests
{
    private const int Stride = 7;
    private static readonly SessionBuilder Builder = new(Shipped.Content);

    /// <summary>At most this share of the cases may have a fault; each of them is listed in docs/examples/panel.md with its reason.</summary>
    private const double MostExceptions = 0.02;

    [Fact]
    public void Sessions_keep_what_a_coach_asks_of_them_with_few_exceptions()
    {
        var whole = Environment.GetEnvironmentVariable("PANEL") == "whole";
        var cases = Panel.All.Where((_, i) => whole || i % Stride == 0).ToList();
        var faults = cases
            .AsParallel()
            .AsOrdered()
            .SelectMany(at =>
            {
                var request = Panel.Request(at);
                var plan = Builder.Build(request);
                return plan.IsOk
                    ? Panel.Faults(at, request, plan.Value).Distinct().Select(f => (Case: at, Fault: f))
                    : [(Case: at, Fault: "no session")];
            })
            .ToList();
        var text = string.Join('\n', faults.Select(f => $"{f.Fault}: {f.Case}"));
        var bad = faults.Select(f => f.Case).Distinct().ToList();
        Assert.True(
            bad.Count <= MostExceptions * cases.Count,
            string.Create(CultureInfo.InvariantCulture, $"{bad.Count} of {cases.Count}\n{text}")
        );
        // What is not full has relatively more warm-up; nothing else is wrong with any of them.
        Assert.True(faults.All(f => f.Fault is "warm" or "main"), text);
        // Where a coach's day is usual and nothing bars anything there is no exception at all.
        Assert.False(bad.Exists(at => at is { Minutes: <= 45, Body: "no cautions", History: not "new" }), text);
        if (Environment.GetEnvironmentVariable("PANEL_OUT") is { } path)
        {
            File.WriteAllText(path, Report(cases, faults.Select(f => f.Case).Distinct().ToList()));
            File.WriteAllText(Path.ChangeExtension(path, ".svg"), Figure(cases));
        }
    }

    private const int RowHeight = 16;
    private const int BarWidth = 130;
    private const int LeftOf = 140;

    /// <summary>
    /// A row for each stage, a bar for each length: its outline is the sensible day, the light part what is filled at least, the dark part of it
    /// main work; a mark at nine tenths.
    /// </summary>
    private static string Figure(List<PanelCase> cases)
    {
        var stages = cases.Where(c => c.Body == "no cautions").GroupBy(c => (c.Ladder, c.Stage)).ToList();
        var (width, height) = (LeftOf + Panel.Minutes.Length * (BarWidth + 12) + 10, 40 + RowHeight * stages.Count + 30);
        var drawn = new List<string>();
        void Draw(FormattableString text) => drawn.Add(text.ToString(CultureInfo.InvariantCulture));
        Draw($"<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 {width} {height}' font-family='sans-serif' font-size='11'>");
        Draw($"<rect width='{width}' height='{height}' fill='#f5f2ea'/>");
        foreach (var (column, minutes) in Panel.Minutes.Index())
            Draw($"<text x='{LeftOf + column * (BarWidth + 12)}' y='24' font-weight='bold'>{minutes} min</text>");
        foreach (var (row, stage) in stages.Index())
        {
            var y = 36 + RowHeight * row;
            Draw($"<text x='8' y='{y + 10}'>{stage.Key.Ladder.Replace('-', ' ')} {stage.Key.Stage}</text>");
            foreach (var (column, minutes) in Panel.Minutes.Index())
            {
                var shares = stage.Where(c => c.Minutes == minutes).Select(Panel.Shares).ToList();
                var filled = Math.Min(1, shares.Min(s => s.Filled));
                var main = filled * shares.Min(s => s.Main);
                var x = LeftOf + column * (BarWidth + 12);
                Draw($"<rect x='{x}' y='{y}' width='{BarWidth}' height='11' fill='none' stroke='#b9b3a4'/>");
                Draw($"<rect x='{x}' y='{y}' width='{BarWidth * filled:0.0}' height='11' fill='#d9c9a0'/>");
                Draw($"<rect x='{x}' y='{y}' width='{BarWidth * main:0.0}' height='11' fill='#1f3a47'/>");
                Draw($"<line x1='{x + 0.9 * BarWidth:0.0}' x2='{x + 0.9 * BarWidth:0.0}' y1='{y - 1}' y2='{y + 12}' stroke='#a3402a'/>");
            }
        }
        Draw(
            $"<text x='8' y='{height - 10}'>Dark: main work. Light: the rest of what is filled. Outline: the longest sensible day; line: nine tenths of it. No cautions.</text>"
        );
        return string.Join('\n', [.. drawn, "</svg>"]) + "\n";
    }

    /// <summary>How full each stage is and how much of it is main work, without cautions, over approaches and histories; and the exceptions.</summary>
    private static string Report(List<PanelCase> cases, List<PanelCase> bad)
    {
        var lines = new List<string>
        {
            "# The panel of sessions",
            "",
            string.Create(CultureInfo.InvariantCulture, $"{cases.Count} sessions, {bad.Count} with a fault. Made by `./dev bench panel`."),
            "",
            "![Share of main work and fill by stage and length](panel.svg)",
            "",
            "Least share of the sensible day that is filled, and least share of that which is main work, in percent, without cautions:",
            "",
            "| stage | " + string.Join(" | ", Panel.Minutes.Select(m => $"{m} min")) + " |",
            "|---|" + string.Concat(Panel.Minutes.Select(_ => "---|")),
        };
        foreach (var stage in cases.Where(c => c.Body == "no cautions").GroupBy(c => (c.Ladder, c.Stage)))
            lines.Add(
                $"| {stage.Key.Ladder} {stage.Key.Stage} | "
                    + string.Join(
                        " | ",
                        stage
                            .GroupBy(c => c.Minutes)
                            .OrderBy(g => g.Key)
                            .Select(g =>
                                g.Select(Panel.Shares).Aggregate((a, b) => (Math.Min(a.Filled, b.Filled), Math.Min(a.Main, b.Main)))
                            )
                            .Select(s => string.Create(CultureInfo.InvariantCulture, $"{100 * s.Filled:0} · {100 * s.Main:0}"))
                    )
                    + " |"
            );
        lines.AddRange([
            "",
            "## Exceptions",
            "",
            "All of them are short and say so: what the stage may do is little, so the five minutes of warm-up that any session has are more than their share.",
            "",
        ]);
        lines.AddRange(bad.Select(b => $"- {b}"));
        return string.Join('\n', lines) + "\n";
    }
}
