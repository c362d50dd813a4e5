using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>Which drills: the stage's core first, then what its gate asks for, then the rest of it, then companions.</summary>
internal sealed partial class SessionDraft
{
    private IReadOnlyList<string> CoresAt(int stage) =>
        request.Ladder.StageAt(stage).Core
        ?? catalogue.NewestLadder(request.Ladder.Skill)?.StageAt(request.Ladder.TrainsAs(stage)).Core
        ?? [];

    /// <summary>The stage that a side trains: its own; where none of its core is allowed today, the highest lower one with a core that is.</summary>
    private int StageTrained(Side side)
    {
        var own = request.WorkStage(side);
        for (var stage = own; stage >= 1; stage--)
            if (CoresAt(stage) is { Count: 0 } || CoresAt(stage).Any(core => MayBeCore(core, side, stage)))
                return stage;
        return own;
    }

    private bool MayBeCore(string core, Side side, int stage)
    {
        var drill = catalogue.Drill(core);
        Side? on = drill.Sides == SideMode.Each ? side : null;
        var may =
            (drill.Kind != DrillKind.Attempt || request.AttemptsAllowed) && DrillChoice.For(drill, on, stage, request).Planned is not null;
        return may || (shape.StandIns.TryGetValue(core, out var other) && MayBeCore(other, side, stage));
    }

    private void Cores()
    {
        foreach (var side in Sides.Where(s => trained[s] < request.WorkStage(s)))
        {
            notes.Add(new("lowerStage", Side: SideOf(side), Number: trained[side]));
            foreach (var core in CoresAt(request.WorkStage(side)).Select(catalogue.Drill))
                notes.Add(
                    core.Kind == DrillKind.Attempt && !request.AttemptsAllowed
                        ? Delayed(core.Key)
                        : DrillChoice.For(core, core.Sides == SideMode.Each ? side : null, request.WorkStage(side), request).Note
                            ?? new("notPrepared", core.Key)
                );
        }
        foreach (var core in Sides.SelectMany(s => CoresAt(trained[s])).Distinct().ToList())
            Core(core);
        if (!request.AttemptsAllowed)
            foreach (var attempt in Of(DrillKind.Attempt).Where(d => Serving(d) && notes.All(n => n.Drill != d.Key)))
                notes.Add(Delayed(attempt.Key));
    }

    private void Core(string key)
    {
        var drill = catalogue.Drill(key);
        var allowed = drill.Kind != DrillKind.Attempt || request.AttemptsAllowed;
        if (!allowed)
            notes.Add(Delayed(key));
        if (!(allowed && Try(drill, ReasonFor(drill, "core"), must: true)) && shape.StandIns.TryGetValue(key, out var standIn))
            Try(catalogue.Drill(standIn), new("standIn", LowerStage), must: true);
    }

    private PlanNote Delayed(string attempt) =>
        new("attemptDelay", attempt, Number: SessionBuilder.AttemptDelaySessions, Date: EarliestAttempt());

    private DateOnly EarliestAttempt()
    {
        var firstWeekOver = request.Date.AddDays(Math.Max(0, 7 - request.DaysSinceStart));
        var delayOver = request.Date.AddDays(Math.Max(0, SessionBuilder.AttemptDelayDays - request.DaysSinceStart));
        return firstWeekOver > delayOver ? firstWeekOver : delayOver;
    }

    /// <summary>Further drills of the stage, the most wanted first; what is left over varies by session.</summary>
    /// <param name="all">What stands in for barred work too.</param>
    private List<Drill> Further(bool all = false) =>
        [
            .. catalogue
                .DrillList.Where(d =>
                    SessionOrder.IsMain(d.Phase)
                    && d is { TestOnly: false, Kind: not DrillKind.Counter }
                    && (d.Kind != DrillKind.Attempt || request.AttemptsAllowed)
                    && (!d.IsWayOut || !request.WayOutShown || d.Key == KeptWayOut)
                    && Serving(d)
                    && (all || d.WhenLimited is not { } limited || request.Bars[limited] != BarLevel.Free)
                    // What serves every ladder is no work of a stage.
                    && d.Serves.All(s => s.Ladder != "*")
                )
                .Index()
                .OrderBy(d => Priority(d.Item, d.Index))
                .Select(d => d.Item)
                .GroupBy(d => d.Kind)
                .SelectMany(kind => kind.Select((drill, turn) => (Drill: drill, Turn: turn)))
                // Kinds take turns: what opens a range and what holds it. The very mobile get all that is active before.
                .OrderBy(d =>
                    IsWanted(d.Drill) ? -2
                    : Mobile && d.Drill.Kind == DrillKind.Strength ? -1
                    : d.Turn
                )
                .Select(d => d.Drill),
        ];

    /// <summary>Of the ways out that are owned one is kept up each time, in turn.</summary>
    private string? KeptWayOut
    {
        get
        {
            var ways = catalogue.DrillList.Where(d => d.IsWayOut && Serving(d)).ToList();
            return ways.Count == 0 ? null : ways[request.SessionsSinceStart % ways.Count].Key;
        }
    }

    private int Priority(Drill drill, int place)
    {
        if (Sides.Any(s => DrillChoice.Wanted(drill, s, request) is not null))
            return 1000 + place;
        if (drill.IsWayOut)
            return 2000 + place;
        var favoured = request.Approach.Favours.Index().Where(f => f.Item == drill.Kind).Select(f => f.Index).DefaultIfEmpty(9).First();
        // What the ladder is about comes before what is only near it.
        var near = request.Ladder.Regions.Any(drill.Loads.ContainsKey) ? 0 : 2000;
        return 3000 + near + 100 * favoured + (place + request.SessionsSinceStart) % 7 * 10;
    }

    /// <summary>Short passive holds alone are left to them.</summary>
    private bool Mobile => request.Bars[LoadTag.PassiveEndRange] != BarLevel.Free;

    private List<Drill> Companions() =>
        [.. shape.CompanionsOf(request.Ladder.Skill).Drills.Select(catalogue.Drill).Where(d => !Has(d.Key) && !ServesAsWork(d))];

    /// <summary>A drill of the stage itself is no companion.</summary>
    private bool ServesAsWork(Drill drill) => Serving(drill) && drill.WhenLimited is null;

    /// <param name="code">Why it is there when no test asks for it.</param>
    private DrillReason ReasonFor(Drill drill, string code)
    {
        var wanted = Sides
            .Where(s => drill.ServesStage(request.Ladder.Skill, request.Ladder.TrainsAs(trained[s])))
            .Select(s => (Side: s, Want: DrillChoice.Wanted(drill, s, request)))
            .FirstOrDefault(w => w.Want is not null);
        return wanted.Want switch
        {
            { Test: HoldCriterion hold } want => new(
                want.Due ? "gateAsksHold" : "practice",
                request.WorkStage(wanted.Side),
                (int)Math.Ceiling(hold.Asked(request.BreathSeconds)),
                SideOf(wanted.Side),
                want.Best is { } best ? (int)Math.Floor(best) : null
            ),
            { Test: RepsCriterion reps } want => new(
                want.Due ? "gateAsksReps" : "practiceReps",
                request.WorkStage(wanted.Side),
                reps.Reps,
                SideOf(wanted.Side)
            ),
            _ when drill.IsWayOut => new("wayOut", LowerStage),
            _ when drill.Kind == DrillKind.Attempt => new("attempt", LowerStage),
            _ when code == "core" => new("core", Sides.Select(s => trained[s]).Where(s => CoresAt(s).Contains(drill.Key)).Min()),
            _ when drill.Kind == DrillKind.Strength => new("strengthForStage", LowerStage),
            _ => new("stageWork", LowerStage),
        };
    }
}
