using System.Collections.Concurrent;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What one skill brings to a session: the stage's core first, then what its gate asks for, then the rest of it, then companions.</summary>
internal sealed partial class SkillPart
{
    private readonly CatalogueContent catalogue;
    private readonly Trainee who;
    private readonly DayBars bars;
    private readonly Dictionary<Side, int> trained;

    /// <param name="light">Nothing of it is done heavily today, though it may be.</param>
    public SkillPart(CatalogueContent catalogue, Trainee who, CourseState course, bool light)
    {
        (this.catalogue, Course, Light, bars) = (catalogue, course, light, who.Bars);
        this.who = light ? who with { Bars = who.Bars.Lightened() } : who;
        trained = SideExtensions.Both.ToDictionary(s => s, StageTrained);
    }

    public CourseState Course { get; }

    public bool Light { get; }

    /// <summary>The trainee as this skill reads them.</summary>
    public Trainee Who => who;

    public string Skill => Course.Skill;

    /// <summary>The side that goes first, and the other.</summary>
    public Side[] Sides => [Course.FirstSide, Course.FirstSide.Other()];

    public int LowerStage => trained.Values.Min();

    public int StageOf(Side? side) => side is { } one ? trained[one] : LowerStage;

    public bool AttemptsAllowed => who.AttemptsAllowedIn(Course);

    /// <summary>The minutes of a day that it fills sensibly.</summary>
    public int Longest =>
        catalogue.Shape.LongestMinutes(Skill, Course.Ladder.TrainsAs(LowerStage), Course.Approach.InsteadOfRamp is not null || who.Mobile);

    public bool Serves(Drill drill) => Sides.Any(s => ServesOn(drill, s));

    public bool ServesOn(Drill drill, Side side) => drill.ServesStage(Skill, Course.Ladder.TrainsAs(trained[side]));

    /// <summary>It serves the stage that a side is at, though a lower one may be trained today.</summary>
    public bool ServesOwn(Drill drill) => Sides.Any(s => drill.ServesStage(Skill, Course.Ladder.TrainsAs(Course.WorkStage(s))));

    public Want? Wanted(Drill drill, Side? side) => wanted.GetOrAdd((drill.Key, side), _ => DrillChoice.Wanted(drill, side, Course));

    private readonly ConcurrentDictionary<(string Drill, Side? Side), Want?> wanted = [];

    /// <summary>Its gate asks for it, or it is the way out.</summary>
    public bool IsWanted(Drill drill) => drill.IsWayOut || Sides.Any(s => Wanted(drill, s) is { Met: false });

    /// <summary>The core of what is trained, each once, that of the side which goes first before.</summary>
    public IReadOnlyList<string> Cores => cores ??= [.. Sides.SelectMany(s => CoresAt(trained[s])).Distinct()];

    private IReadOnlyList<string>? cores;

    private IReadOnlyList<string> CoresAt(int stage) =>
        Course.Ladder.StageAt(stage).Core ?? catalogue.NewestLadder(Skill)?.StageAt(Course.Ladder.TrainsAs(stage)).Core ?? [];

    /// <summary>The stage that a side trains: its own; where none of its core is allowed today, the highest lower one with a core that is.</summary>
    private int StageTrained(Side side)
    {
        var own = Course.WorkStage(side);
        // What is light for a day is no lower stage.
        for (var stage = Light ? 0 : own; stage >= 1; stage--)
            if (CoresAt(stage) is { Count: 0 } || CoresAt(stage).Any(core => MayBeCore(core, side, stage)))
                return stage;
        return own;
    }

    private bool MayBeCore(string core, Side side, int stage)
    {
        var drill = catalogue.Drill(core);
        Side? on = drill.Sides == SideMode.Each ? side : null;
        var may =
            (drill.Kind != DrillKind.Attempt || AttemptsAllowed) && DrillChoice.For(drill, on, stage, who, Course).Planned is not null;
        return may || (catalogue.Shape.StandIns.TryGetValue(core, out var other) && MayBeCore(other, side, stage));
    }

    /// <summary>Where a lower stage is trained, that it is, and why nothing of the own one's core may be done.</summary>
    public IEnumerable<PlanNote> NotesOfLowerStages()
    {
        foreach (var side in Sides.Where(s => trained[s] < Course.WorkStage(s)))
        {
            yield return new("lowerStage", Side: SideOf(side), Number: trained[side], Skill: Skill);
            foreach (var core in CoresAt(Course.WorkStage(side)).Select(catalogue.Drill))
                yield return core.Kind == DrillKind.Attempt && !AttemptsAllowed
                    ? Delayed(core.Key)
                    : DrillChoice.For(core, core.Sides == SideMode.Each ? side : null, Course.WorkStage(side), who, Course).Note
                        ?? new("notPrepared", core.Key);
        }
    }

    public Side? SideOf(Side side) => Course.Ladder.PerSide ? side : null;

    public PlanNote Delayed(string attempt) =>
        new("attemptDelay", attempt, Number: SessionBuilder.AttemptDelaySessions, Date: EarliestAttempt());

    private DateOnly EarliestAttempt()
    {
        var firstWeekOver = who.Date.AddDays(Math.Max(0, 7 - Course.DaysSinceStart));
        var delayOver = who.Date.AddDays(Math.Max(0, SessionBuilder.AttemptDelayDays - Course.DaysSinceStart));
        return firstWeekOver > delayOver ? firstWeekOver : delayOver;
    }

    /// <summary>Further drills of the stage, the most wanted first; what is left over varies by session.</summary>
    public IReadOnlyList<Drill> Further() => further ??= FurtherOf();

    private IReadOnlyList<Drill>? further;

    private List<Drill> FurtherOf() =>
        [
            .. catalogue
                .ShippedDrills.Where(d =>
                    SessionOrder.IsMain(d.Phase)
                    && d is { TestOnly: false, Kind: not DrillKind.Counter }
                    && (d.Kind != DrillKind.Attempt || AttemptsAllowed)
                    && (!d.IsWayOut || !Course.WayOutShown || d.Key == KeptWayOut)
                    && Serves(d)
                    && MayStandIn(d)
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
                    : who.Mobile && d.Drill.Kind == DrillKind.Strength ? -1
                    : d.Turn
                )
                .Select(d => d.Drill),
        ];

    /// <summary>Of the ways out that are owned one is kept up each time, in turn.</summary>
    private string? KeptWayOut
    {
        get
        {
            var ways = catalogue.ShippedDrills.Where(d => d.IsWayOut && Serves(d)).ToList();
            return ways.Count == 0 ? null : ways[Course.SessionsSinceStart % ways.Count].Key;
        }
    }

    private int Priority(Drill drill, int place)
    {
        if (Sides.Any(s => Wanted(drill, s) is { Met: false }))
            return 1000 + place;
        if (drill.IsWayOut)
            return 2000 + place;
        var favoured = Course.Approach.Favours.Index().Where(f => f.Item == drill.Kind).Select(f => f.Index).DefaultIfEmpty(9).First();
        // What the ladder is about comes before what is only near it.
        var near = Course.Ladder.Regions.Any(drill.Loads.ContainsKey) ? 0 : 2000;
        return 3000 + near + 100 * favoured + (place + Course.SessionsSinceStart) % 7 * 10;
    }

    /// <summary>What goes well beside it; a drill of the stage itself is no companion.</summary>
    public IReadOnlyList<Drill> Companions =>
        companions ??= [
            .. catalogue
                .Shape.CompanionsOf(Skill)
                .Drills.Select(catalogue.Drill)
                .Where(d => (!Serves(d) || d.WhenLimited is not null || d.Serves.All(s => s.Ladder == "*")) && MayStandIn(d)),
        ];

    /// <summary>What stands in for barred work is no filler while nothing bars that; a day that is only meant to be light bars nothing.</summary>
    private bool MayStandIn(Drill drill) => drill.WhenLimited is not { } limited || bars[limited] != BarLevel.Free;

    private IReadOnlyList<Drill>? companions;

    /// <param name="code">Why it is there when no test asks for it.</param>
    public DrillReason ReasonFor(Drill drill, string code)
    {
        var wanted = Sides
            .Where(s => ServesOn(drill, s))
            .Select(s => (Side: s, Want: Wanted(drill, s)))
            .FirstOrDefault(w => w.Want is not null);
        return wanted.Want switch
        {
            { Test: HoldCriterion hold } want => new(
                want.Due ? "gateAsksHold" : "practice",
                Course.WorkStage(wanted.Side),
                (int)Math.Ceiling(hold.Asked(who.BreathSeconds)),
                SideOf(wanted.Side),
                want.Best is { } best ? (int)Math.Floor(best) : null
            ),
            { Test: RepsCriterion reps } want => new(
                want.Due ? "gateAsksReps" : "practiceReps",
                Course.WorkStage(wanted.Side),
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
