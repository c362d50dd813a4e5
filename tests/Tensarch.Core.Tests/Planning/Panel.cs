using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

/// <summary>One student on one day: what the panel looks at.</summary>
public sealed record PanelCase(string Ladder, int Stage, string Approach, int Minutes, string Body, string History)
{
    public override string ToString() => $"{Ladder} {Stage}, {Approach}, {Minutes} min, {Body}, {History}";
}

/// <summary>
/// All 48 stages × three approaches × 20 to 75 minutes × four bodies × three histories, and what a coach would say no to. Counts anew, in its own
/// way: it shares no code with the maker nor the checker.
/// </summary>
public static class Panel
{
    public static readonly int[] Minutes = [20, 30, 45, 60, 75];
    private static readonly (string Name, string[] Yes)[] Bodies =
    [
        ("no cautions", []),
        ("wrist light only", ["wrist"]),
        ("neck off limits", ["neck"]),
        ("very mobile", ["very-mobile"]),
    ];
    private static readonly string[] Histories = ["new", "middle", "at the gate"];

    public static IEnumerable<PanelCase> All =>
        from ladder in Shipped.Content.Skills
        from stage in ladder.Stages
        from approach in Shipped.Content.Approaches
        from minutes in Minutes
        from body in Bodies
        from history in Histories
        select new PanelCase(ladder.Key, stage.Number, approach.Key, minutes, body.Name, history);

    public static OneSkill Request(PanelCase at)
    {
        var ladder = Shipped.Ladder(at.Ladder);
        var (days, sessions) = at.History switch
        {
            "new" => (2, 1),
            "middle" => (30, 12),
            _ => (90, 40),
        };
        return new(
            ladder,
            Shipped.Content.FindApproach(at.Approach)!,
            "square",
            new DateOnly(2026, 3, 3),
            at.Minutes,
            Side(Core.Side.Left),
            Side(Core.Side.Right),
            null,
            Core.Side.Right,
            days,
            sessions,
            2,
            new Dictionary<LoadTag, int>(),
            null,
            [],
            0,
            0,
            at.History != "new",
            Shipped.Bars(Bodies.First(b => b.Name == at.Body).Yes),
            4.5,
            4
        );

        SideState Side(Side side) => Shipped.At(side, at.Stage, 20) with { Wanted = at.History == "new" ? [] : [.. Wanted()] };

        IEnumerable<Want> Wanted() =>
            from test in ladder.StageAt(at.Stage).Tests
            where Want.Practises(test, Shipped.Content)
            select Want.Of(test, Shipped.Content) with
            {
                Best = test is HoldCriterion hold ? hold.Asked(4.5) * (at.History == "middle" ? 0.6 : 0.95) : null,
            };
    }

    /// <summary>What a coach would not sign, each in a word.</summary>
    public static IEnumerable<string> Faults(PanelCase at, OneSkill request, SessionPlan plan)
    {
        var content = Shipped.Content;
        var lines = plan
            .Drills.Select(d => (Planned: d, Drill: content.Drill(d.Drill), Seconds: Timeline.SecondsOf(d, content.Drill(d.Drill), 4.5)))
            .ToList();
        double all = lines.Sum(l => l.Seconds);
        bool Test(PlannedDrill d) => d.Reason.Code == "dayGate";
        SessionPhase Phase(PlannedDrill d, Drill drill) => Test(d) && !drill.TestOnly ? SessionPhase.Warm : d.Reason.Phase ?? drill.Phase;
        double In(params SessionPhase[] phases) => lines.Where(l => phases.Contains(Phase(l.Planned, l.Drill))).Sum(l => l.Seconds);
        var restful = at.Ladder == "shoulderstand";
        var gentle = at.Approach != "long-and-ramped" || at.Body == "very mobile";
        // By the stage that is trained: a lower one where none of the core of this one is allowed.
        var trained = (int)(plan.Notes.FirstOrDefault(n => n.Code == "lowerStage")?.Number ?? at.Stage);
        var longest = Math.Min(Longest(at.Ladder, trained), gentle ? 60 : 120);
        var day = 60.0 * Math.Min(at.Minutes, longest);

        var said = plan.Notes.Any(n => n.Code == "notEnoughToDo");
        if (all < 0.9 * day && !said)
            yield return "filled";
        if (all > 60 * at.Minutes)
            yield return "over";
        // What is core is work wherever it stands, and what tests the body for the day is as long as it is.
        var coreWarm = lines
            .Where(l => !Test(l.Planned) && l.Drill.Phase == SessionPhase.Warm)
            .Where(l =>
                Shipped.Ladder(at.Ladder).StageAt(trained).Core!.Contains(l.Drill.Key)
                // What leads into the neck work counts as work.
                || at.Ladder == "shoulderstand" && l.Drill.Key is "neck-range" or "shoulder-clasp" or "bridge-clasp"
            )
            .Sum(l => l.Seconds);
        var tests = lines.Where(l => Test(l.Planned) && !l.Drill.TestOnly).Sum(l => l.Seconds);
        var warm = In(SessionPhase.Warm);
        // A day that its skill does not fill still warms up whole.
        if (
            warm - coreWarm - tests > 305
            && warm - coreWarm - tests
                > all
                    * (
                        at.History == "new" || said ? 0.4
                        : at.Minutes < 30 ? 0.35
                        : 0.3
                    )
        )
            yield return "warm";
        if (warm < (said ? 300 : Math.Clamp(at.Minutes * 16, 300, 480)))
            yield return "cold";
        if (In(SessionPhase.Down) > Math.Max(120, all * (restful ? 0.25 : 0.12)))
            yield return "down";
        var main = all - warm + coreWarm - In(SessionPhase.Down);
        if (main < (all - tests) * (restful || at.History == "new" || said ? 0.35 : 0.5))
            yield return "main";
        foreach (var fault in OfCarriers(at, request, plan))
            yield return fault;
        var counted = lines.Count(l =>
            l.Planned.Reason.Code is not ("dayGate" or "leadIn") && l.Drill.Kind is not (DrillKind.Counter or DrillKind.Calm)
        );
        if (
            counted
            > (
                at.Minutes < 45 ? 8
                : at.Minutes < 60 ? 11
                : at.Minutes < 75 ? 14
                : 17
            )
        )
            yield return "many";
        if (lines[^1].Drill.Key is not ("lie-still" or "guided-rest"))
            yield return "ends";
        var order = lines
            .Select(l =>
                (
                    Phase(l.Planned, l.Drill),
                    Test(l.Planned) && !l.Drill.TestOnly ? 10_000
                    : l.Planned.Reason.Code == "leadIn" ? -1
                    : l.Drill.Rank
                )
            )
            .ToList();
        if (!order.SequenceEqual(order.Order()))
            yield return "order";
        foreach (var core in Shipped.Ladder(at.Ladder).StageAt(at.Stage).Core!)
            if (
                !plan.Drills.Any(d => !Test(d) && (d.Drill == core || d.Drill == content.Shape.StandIns.GetValueOrDefault(core)))
                && !plan.Notes.Any(n => n.Drill == core && n.Code != "didNotFit")
            )
                yield return $"core {core}";
        foreach (var (planned, drill, _) in lines)
        foreach (var side in planned.Sides)
            if (
                side.Dose is HoldDose { Seconds: { } held, Rounds: 2, RestSeconds: 60 }
                && request.Left.Wanted.Any(w => w.Drill == drill.Key && w.Test is HoldCriterion { Seconds: { } asked } && held >= asked)
            )
                yield return $"test dose {drill.Key}";
        foreach (var broken in SessionChecker.Check(plan, request, content))
            yield return $"checker {broken.Code}";
    }

    /// <summary>The core carries it, what is beside it stays smaller, and a first week is light.</summary>
    private static IEnumerable<string> OfCarriers(PanelCase at, OneSkill request, SessionPlan plan)
    {
        var content = Shipped.Content;
        var stage = Shipped.Ladder(at.Ladder).StageAt(at.Stage);
        var all = plan
            .Drills.Where(d => d.Reason.Code != "dayGate")
            .Select(d =>
                (
                    Drill: content.Drill(d.Drill),
                    d.Reason.Code,
                    Seconds: (double)Timeline.SecondsOf(d, content.Drill(d.Drill), 4.5),
                    Work: d.Sides.Sum(s => Timeline.WorkSecondsOf(content.Drill(d.Drill), s, 4.5)),
                    d.Sides
                )
            )
            .ToList();
        var main = all.Where(l => l.Drill.Phase is not (SessionPhase.Warm or SessionPhase.Down)).ToList();
        HashSet<LoadTag> Tags(Drill d) => [.. d.Variants.SelectMany(v => (v.Loads ?? d.Loads).Keys)];
        var limited =
            plan.Notes.Any(n => n.Code is "lowerStage" or "lightWork")
            || at.Body == "very mobile"
            || stage.Core!.Any(c => Tags(content.Drill(c)).Overlaps(request.Bars.Few));
        var core = stage.Core!.Concat(stage.Core!.Select(c => content.Shape.StandIns.GetValueOrDefault(c)).OfType<string>()).ToHashSet();
        var carriers = core.Concat(
                stage.Tests.SelectMany(t =>
                    (content.Shape.OpenedBy.GetValueOrDefault(t.ReadMeasure ?? "") ?? []).Append(
                        t.ReadDrill ?? content.Shape.TrainedBy.GetValueOrDefault(t.ReadMeasure ?? "", "")
                    )
                )
            )
            .ToHashSet();
        carriers.UnionWith(core.SelectMany(c => Leads(c)).SelectMany(s => s));
        bool Carries(Drill d) => d.IsWayOut || carriers.Contains(d.Key);
        var (carried, cored) = at.Ladder switch
        {
            "side-plank" => (0.35, 0.2),
            "handstand" or "crow" => (0.3, 0.15),
            "shoulderstand" => (0.3, 0.12),
            _ => (0.4, 0.25),
        };
        if (!limited)
        {
            var asked = main.Where(l => l.Drill.IsWayOut).Sum(l => l.Seconds);
            if (all.Where(l => core.Contains(l.Drill.Key)).Sum(l => l.Seconds) < cored * (main.Sum(l => l.Seconds) - asked) - 1)
                yield return "core small";
            if (all.Where(l => Carries(l.Drill)).Sum(l => l.Seconds) < carried * main.Sum(l => l.Seconds) - 1)
                yield return "carriers small";
            foreach (var beside in main.Where(l => !Carries(l.Drill)))
                if (
                    all.Where(l => core.Contains(l.Drill.Key) && Tags(l.Drill).Any(t => t.IsRegion() && Tags(beside.Drill).Contains(t)))
                        .Select(l => (int?)l.Work)
                        .Max() < beside.Work
                )
                    yield return $"beside {beside.Drill.Key}";
        }
        foreach (var (i, planned) in plan.Drills.Index())
            if (stage.Core!.Contains(planned.Drill) && planned.Reason.Code is not ("dayGate" or "leadIn"))
                foreach (var step in Leads(planned.Drill))
                    if (
                        !plan.Drills.Take(i).Any(d => step.Contains(d.Drill))
                        && step.Any(s =>
                            content.Drill(s).ServesStage(at.Ladder, at.Stage) && !Tags(content.Drill(s)).Overlaps(request.Bars.Few)
                        )
                        && step.Any(s => content.Drill(s).MayBeDone(null, request.Bars, 4.5))
                    )
                        yield return $"nothing leads into {planned.Drill}: {step[0]}";
        foreach (var beside in main.Where(l => !Carries(l.Drill) && l.Work > 180))
            if (stage.Core!.Any(c => Tags(content.Drill(c)).Overlaps(request.Bars.Few)) && !plan.Notes.Any(n => n.Code == "lowerStage"))
                yield return $"beside a limited core {beside.Drill.Key}";
        if (at.History == "new")
        {
            if (main.Any(l => l.Sides.Any(s => s.Dose is not AttemptsDose && s.Dose.Repeats > 2)))
                yield return "first week rounds";
            if (main.Count(l => l.Drill.Kind != DrillKind.Counter && l.Code != "leadIn") > 5)
                yield return "first week many";
            if (main.Sum(l => l.Seconds) > 0.6 * 60 * at.Minutes + 1)
                yield return "first week long";
        }
    }

    /// <summary>What leads into a core drill, one of each, in this order.</summary>
    private static string[][] Leads(string core) =>
        core switch
        {
            "split-support" =>
            [
                ["half-split", "low-lunge", "pyramid-fold"],
            ],
            "straddle-support" =>
            [
                ["side-lunge", "frog"],
            ],
            "crow" =>
            [
                ["crow-perch"],
                ["crow-one-foot"],
            ],
            "wall-box" =>
            [
                ["hollow"],
            ],
            "wall-handstand" or "wall-pulls" or "kick-up" =>
            [
                ["shoulder-opener"],
                ["hollow"],
            ],
            "shoulderstand" or "plow" =>
            [
                ["neck-range"],
                ["shoulder-clasp"],
                ["bridge-clasp"],
            ],
            "side-plank" =>
            [
                ["protraction"],
            ],
            _ => [],
        };

    /// <summary>Of the sensible day, what is filled; and of that, what is main work.</summary>
    public static (double Filled, double Main) Shares(PanelCase at)
    {
        var content = Shipped.Content;
        var plan = new SessionBuilder(content).Build(Request(at)).Value;
        double Of(Func<PlannedDrill, bool> which) => plan.Drills.Where(which).Sum(d => Timeline.SecondsOf(d, content.Drill(d.Drill), 4.5));
        var all = Of(_ => true);
        var gentle = at.Approach != "long-and-ramped" || at.Body == "very mobile";
        var trained = (int)(plan.Notes.FirstOrDefault(n => n.Code == "lowerStage")?.Number ?? at.Stage);
        var day = 60.0 * Math.Min(at.Minutes, Math.Min(Longest(at.Ladder, trained), gentle ? 60 : 120));
        return (
            all / day,
            Of(d =>
                d.Reason.Code != "dayGate" && content.Drill(d.Drill).Phase is not (SessionPhase.Warm or SessionPhase.Down)
                || (d.Reason.Code == "dayGate" && content.Drill(d.Drill).TestOnly)
            ) / all
        );
    }

    private static int Longest(string ladder, int stage) =>
        (ladder, stage) switch
        {
            ("shoulderstand", <= 3 or 6) => 30,
            ("shoulderstand", _) or ("deep-squat" or "middle-split", <= 2) or ("crow", <= 5) or ("side-plank", _) => 45,
            ("handstand", <= 2 or 4) => 45,
            ("front-split", not 3) => 75,
            _ => 60,
        };
}
