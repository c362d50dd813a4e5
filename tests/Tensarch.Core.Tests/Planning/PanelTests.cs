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
        Assert.True(faults.All(f => f.Fault is "filled" || (f.Fault is "warm" && faults.Contains((f.Case, "filled")))), text);
        // Where a coach's day is usual and nothing bars anything there is no exception at all.
        Assert.False(bad.Exists(at => at is { Minutes: <= 45, Body: "no cautions" }), text);
        if (Environment.GetEnvironmentVariable("PANEL_OUT") is { } path)
            File.WriteAllText(path, Report(cases, faults.Select(f => f.Case).Distinct().ToList()));
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
            "All of them are filled to less than nine tenths, and say so: one skill at that stage has no more that may grow in its first week, or in a day of that length.",
            "",
        ]);
        lines.AddRange(bad.Select(b => $"- {b}"));
        return string.Join('\n', lines) + "\n";
    }
}
