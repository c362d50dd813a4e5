using System.Collections.Concurrent;
using System.Globalization;
using System.Text.Json;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

/// <summary>
/// A bar is felt: after a yes at intake no session comes out as if it had not been said, wherever the stage's work touches what it bars. Every
/// question × skill × stage; where no allowed drill of the session loads the tag, the case is listed in docs/examples/bars-not-felt.md.
/// </summary>
public class FeltBarTests
{
    private const double MostNotFelt = 0.2;
    private const int Stride = 5;
    private static readonly SessionBuilder Builder = new(Shipped.Content);

    private sealed record Case(string Question, Ladder Ladder, Stage Stage)
    {
        public override string ToString() => $"{Question}: {Ladder.Key} {Stage.Number}";
    }

    private static IEnumerable<Case> All =>
        from question in Shipped.Content.Questions
        where question.Effects.Count > 0
        from ladder in Shipped.Content.Skills
        from stage in ladder.Stages
        select new Case(question.Key, ladder, stage);

    private static OneSkill Request(Case at) =>
        Panel.Request(new(at.Ladder.Key, at.Stage.Number, "long-and-ramped", 45, "no cautions", "middle"));

    /// <summary>Of what any clearance lifts, what stays after it.</summary>
    private static DayBars Barred(string question) =>
        DayBars.Of(
            Shipped.Content.Questions,
            new(
                ScreenState.Current,
                [new(question, Shipped.Now)],
                false,
                false,
                7,
                [],
                [
                    new(
                        Guid.NewGuid(),
                        "physician",
                        [],
                        DateOnly.FromDateTime(Shipped.Now.UtcDateTime),
                        DateOnly.FromDateTime(Shipped.Now.UtcDateTime).AddDays(90),
                        Shipped.Now
                    ),
                ],
                DateOnly.FromDateTime(Shipped.Now.UtcDateTime)
            )
        );

    [Fact]
    public void After_a_yes_no_session_comes_out_as_if_it_had_not_been_said()
    {
        var cases = All.ToList();
        var same = cases.AsParallel().AsOrdered().Where(IsSame).ToList();
        // What any clearance lifts whole bars nothing after it.
        var judged = cases.Where(c => Barred(c.Question).Levels.Any(l => l.Value != BarLevel.Free)).ToList();
        var notFelt = same.Where(judged.Contains).ToList();
        var loaded = notFelt.Where(c => Touched(c).Count > 0).Select(c => $"{c}: {string.Join(", ", Touched(c))}").ToList();
        Assert.True(loaded.Count == 0, $"{loaded.Count} of {judged.Count} are the same and load it\n{string.Join('\n', loaded)}");
        Assert.True(notFelt.Count < MostNotFelt * judged.Count, $"{notFelt.Count} of {judged.Count}\n{string.Join('\n', notFelt)}");
        var path = Path.Combine(ExampleTests.Root(), "docs", "examples", "bars-not-felt.md");
        var text = Listed(judged, notFelt);
        if (Environment.GetEnvironmentVariable("EXAMPLES") == "write")
            File.WriteAllText(path, text);
        else
            Assert.Equal(text, File.ReadAllText(path));
    }

    private static readonly ConcurrentDictionary<(string Ladder, int Stage, string? Question), Lazy<SessionPlan?>> Made = [];

    /// <summary>Each session once; without a question, as if none had been answered. None where nothing may be done.</summary>
    private static SessionPlan? Plan(Case at, string? question) =>
        Made.GetOrAdd(
            (at.Ladder.Key, at.Stage.Number, question),
            _ =>
                new(() =>
                {
                    var made = Builder.Build(question is null ? Request(at) : Request(at) with { Bars = Barred(question) });
                    return made.IsOk ? made.Value : null;
                })
        ).Value;

    private static bool IsSame(Case at) =>
        Plan(at, null) is { } free && Plan(at, at.Question) is { } barred && Work(free).SequenceEqual(Work(barred));

    private static IEnumerable<string> Work(SessionPlan plan) =>
        plan.Drills.SelectMany(d => d.Sides.Select(s => $"{d.Drill} {s.Side} {s.Variant} {JsonSerializer.Serialize(s.Dose)}"));

    /// <summary>Drills of the session that load what is barred, and could be felt: the preparation of the wrists and the tests of the day stay as they are.</summary>
    private static List<string> Touched(Case at)
    {
        var bars = Barred(at.Question);
        return
        [
            .. (
                from planned in Plan(at, at.Question)!.Drills
                let drill = Shipped.Content.Drill(planned.Drill)
                where !drill.PreparesHands && planned.Reason.Code != "dayGate"
                from side in planned.Sides
                from load in drill.LoadsOf(drill.VariantAt(side.Variant), side.Dose, 4.5)
                where load.Value != LoadLevel.None && bars.Few.Contains(load.Key)
                select $"{planned.Drill} {load.Key}"
            ).Distinct(),
        ];
    }

    private static string Listed(List<Case> judged, List<Case> notFelt)
    {
        var lines = new List<string>
        {
            "# Bars that change nothing",
            "",
            string.Create(
                CultureInfo.InvariantCulture,
                $"Of {judged.Count} cases (question × skill × stage, 45 minutes, after any clearance where nothing is done before one), {notFelt.Count} are the same with and without the answer: no drill of the session loads what it bars. Made by `EXAMPLES=write`."
            ),
            "",
        };
        lines.AddRange(
            notFelt
                .GroupBy(c => c.Question)
                .Select(q =>
                    $"- **{q.Key}**: "
                    + string.Join(
                        "; ",
                        q.GroupBy(c => c.Ladder.Key).Select(l => $"{l.Key} {string.Join(", ", l.Select(c => c.Stage.Number))}")
                    )
                )
        );
        return string.Join('\n', lines) + "\n";
    }

    /// <summary>Of what is light only there is at most half of what there would be, of each drill and of all main work together.</summary>
    [Fact]
    public void Light_only_is_at_most_half_of_the_work()
    {
        foreach (var at in All.Where((_, i) => Budget.IsLong || i % Stride == 0))
        {
            var bars = Barred(at.Question);
            if (bars.Few.Count == 0 || Plan(at, at.Question) is not { } with)
                continue;
            Assert.Empty(SessionChecker.Check(with, Request(at) with { Bars = bars }, Shipped.Content));
            var without = Builder.Build(Request(at) with { Bars = bars.Freeing(bars.Few) }).Value;
            foreach (var planned in with.Drills)
                if (without.Drills.FirstOrDefault(d => d.Drill == planned.Drill && !d.Reason.IsAid) is { } whole && IsMain(planned))
                    foreach (var side in planned.Sides.Where(s => IsFew(planned, s, bars)))
                        if (whole.Sides.FirstOrDefault(s => s.Side == side.Side) is { } full)
                            Assert.True(
                                Timeline.WorkSecondsOf(Shipped.Content.Drill(planned.Drill), side, 4.5)
                                    <= 0.5 * Timeline.WorkSecondsOf(Shipped.Content.Drill(planned.Drill), full, 4.5) + 1,
                                $"{at}: {planned.Drill} {side.Dose} after {full.Dose}"
                            );
        }
    }

    private static bool IsMain(PlannedDrill planned) => SessionOrder.IsMain(planned, Shipped.Content.Drill(planned.Drill));

    private static bool IsFew(PlannedDrill planned, PlannedSide side, DayBars bars)
    {
        var drill = Shipped.Content.Drill(planned.Drill);
        return drill.LoadsOf(drill.VariantAt(side.Variant), side.Dose, 4.5).Any(l => l.Value != LoadLevel.None && bars.Few.Contains(l.Key));
    }
}
