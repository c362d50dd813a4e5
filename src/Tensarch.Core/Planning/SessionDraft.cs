using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>
/// One session in the making: the stage's core drills, the frame of warm-up and rest around them, doses down until it fits, main work up until it
/// is full, in order.
/// </summary>
internal sealed partial class SessionDraft
{
    private readonly CatalogueContent catalogue;
    private readonly SessionRequest request;
    private readonly SessionShape shape;
    private readonly double placeShare;
    private readonly List<PlannedDrill> drills = [];
    private readonly List<PlanNote> notes = [];
    private readonly HashSet<string> tried = [];
    private readonly Side firstSide;
    private readonly Dictionary<Side, int> trained;

    /// <param name="placeShare">How much of its share of the time a drill has to fill to be chosen first.</param>
    public SessionDraft(CatalogueContent catalogue, SessionRequest request, double placeShare)
    {
        (this.catalogue, this.request, shape, this.placeShare) = (catalogue, request, catalogue.Shape, placeShare);
        firstSide = request.Weaker ?? request.LastFirstSide?.Other() ?? Side.Left;
        trained = SideExtensions.Both.ToDictionary(s => s, StageTrained);
    }

    /// <summary>The day's seconds that one skill fills sensibly.</summary>
    private int Budget => 60 * Math.Min(request.Minutes, Longest);

    private int Longest =>
        shape.LongestMinutes(
            request.Ladder.Skill,
            request.Ladder.TrainsAs(LowerStage),
            request.Approach.InsteadOfRamp is not null || request.Bars[LoadTag.PassiveEndRange] != BarLevel.Free
        );

    private int LowerStage => trained.Values.Min();

    public SessionPlan Finish()
    {
        NoteRules();
        Frame();
        Cores();
        Shrink();
        Fill();
        WarmUp();
        GrowAll(IsMain);
        LeftShort = Short;
        Lighten();
        var plan = new SessionPlan(
            request.Ladder.Key,
            request.Ladder.Version,
            request.Approach.Key,
            request.Standard,
            request.Date,
            request.Minutes,
            firstSide,
            request.BreathSeconds,
            [.. drills.OrderBy(PlaceOf)],
            [],
            SessionPlan.CurrentFormat
        );
        var seconds = Timeline.SecondsOf(plan, catalogue);
        if (Longest < request.Minutes)
            notes.Add(new("longestDay", Number: Longest));
        if (seconds < shape.FilledShare * Budget)
            notes.Add(new("notEnoughToDo", Number: Math.Ceiling(seconds / 60.0)));
        return plan with { Notes = Told() };
    }

    private IEnumerable<Drill> Of(params DrillKind[] kinds) => catalogue.DrillList.Where(d => kinds.Contains(d.Kind));

    private static bool IsTest(PlannedDrill planned) => planned.Reason.Code == "dayGate";

    private (SessionPhase Phase, int Rank) PlaceOf(PlannedDrill planned) =>
        SessionOrder.PlaceOf(catalogue.Drill(planned.Drill), IsTest(planned));

    private int SecondsIn(Func<SessionPhase, bool> phases) => drills.Where(d => phases(PlaceOf(d).Phase)).Sum(Seconds);

    private int WarmSeconds => SecondsIn(p => p == SessionPhase.Warm);

    /// <summary>The main work alone did not fill the day.</summary>
    public bool LeftShort { get; private set; }

    public int MainSeconds => SecondsIn(SessionOrder.IsMain);

    private int Used => drills.Sum(Seconds);

    /// <summary>What is left of the day, with what the warm-up will still need set aside.</summary>
    private int Room => Budget - Used - Math.Max(0, shape.WarmSeconds(request.Minutes) + Grain - WarmSeconds);

    /// <summary>Drills that the cap counts: no tests, no counters, no calm.</summary>
    private int Counted => drills.Count(d => Counts(catalogue.Drill(d.Drill)) && !IsTest(d));

    private static bool Counts(Drill drill) => drill.Kind is not (DrillKind.Counter or DrillKind.Calm);

    private bool HasAlternative(Drill drill) =>
        drills.Any(d => d.Drill == drill.AlternativeTo || catalogue.Drill(d.Drill).AlternativeTo == drill.Key);

    private bool IsMain(PlannedDrill planned) => SessionOrder.IsMain(PlaceOf(planned).Phase);

    private bool Has(string drill) => drills.Any(d => d.Drill == drill && !IsTest(d));

    /// <summary>The side that goes first, and the other.</summary>
    private Side[] Sides => [firstSide, firstSide.Other()];

    private Side? SideOf(Side side) => request.Ladder.PerSide ? side : null;

    private bool Serving(Drill drill) => Sides.Any(s => drill.ServesStage(request.Ladder.Skill, request.Ladder.TrainsAs(trained[s])));

    /// <summary>Adds a drill when it serves, is allowed and fits, together with what has to come along.</summary>
    /// <param name="must">It is shrunk into the session later rather than left out.</param>
    private bool Try(Drill drill, DrillReason reason, bool companion = false, bool must = false)
    {
        if (Has(drill.Key))
            return true;
        if (!tried.Add(drill.Key) || (!must && HasAlternative(drill)))
            return false;
        if (Plan(drill, reason, companion) is not { } planned)
            return false;

        var added = new List<PlannedDrill> { planned };
        if (!AddGateTests(added) || !AddWrists(added) || !AddPreparation(added) || !AddCounter(added))
        {
            if (!drill.WarmsUp)
                notes.Add(new("notPrepared", drill.Key));
            return false;
        }
        if (!must && !Fits(added))
        {
            if (reason.Best is not null || reason.Code is "wayOut" or "practice" or "practiceReps" or "gateAsksHold" or "gateAsksReps")
                notes.Add(new("didNotFit", drill.Key, Number: Math.Ceiling(added.Sum(Seconds) / 60.0)));
            return false;
        }
        foreach (var replaced in added)
            drills.RemoveAll(d => d.Id == replaced.Id);
        drills.AddRange(added);
        tried.UnionWith(added.Where(a => !IsTest(a)).Select(a => a.Drill));
        return true;
    }

    /// <summary>So many places among the few things of a session are kept for the warm-up.</summary>
    private const int WarmDrills = 3;

    private int PlacesLeft =>
        shape.MostDrills(request.Minutes)
        - Counted
        - Math.Max(0, WarmDrills - drills.Count(d => PlaceOf(d).Phase == SessionPhase.Warm && !IsTest(d)));

    private bool Fits(List<PlannedDrill> added)
    {
        var counted = Counted + added.Count(d => Counts(catalogue.Drill(d.Drill)) && !IsTest(d));
        var warm = WarmSeconds + added.Where(d => PlaceOf(d).Phase == SessionPhase.Warm).Sum(Seconds);
        var kept = added.Any(IsMain)
            ? Math.Max(0, WarmDrills - drills.Concat(added).Count(d => PlaceOf(d).Phase == SessionPhase.Warm && !IsTest(d)))
            : 0;
        var more = added.Sum(Seconds) - Math.Clamp(warm - WarmSeconds, 0, Math.Max(0, shape.WarmSeconds(request.Minutes) - WarmSeconds));
        return more <= Room && counted + kept <= shape.MostDrills(request.Minutes) && warm <= shape.WarmMost(request.Minutes) * Budget;
    }

    private PlannedDrill? Plan(Drill drill, DrillReason reason, bool companion = false)
    {
        var ramps = !drills.Any(d =>
            d.Drill != drill.Key
            && d.Sides.Any(s => s.Dose is RampedDose)
            && catalogue.Drill(d.Drill).Loads.Keys.Any(t => t.IsRegion() && drill.Loads.ContainsKey(t))
        );
        var sides = new List<PlannedSide>();
        foreach (var side in SidesOf(drill))
        {
            var stage = side is { } s ? trained[s] : LowerStage;
            if (!companion && !drill.ServesStage(request.Ladder.Skill, request.Ladder.TrainsAs(stage)))
                continue;
            var (planned, note) = DrillChoice.For(drill, side, stage, request, companion, ramps);
            if (note is not null)
                notes.Add(note with { Side = side });
            if (planned is null)
                continue;
            if (planned.EasedFrom is not null)
                notes.Add(new("eased", drill.Key, Side: side));
            sides.Add(planned);
        }
        return sides.Count == 0 ? null : new(drill.Key, drill.Key, reason, Even(ExtraRound(drill, sides)));
    }

    private IEnumerable<Side?> SidesOf(Drill drill) => drill.Sides == SideMode.Each ? [firstSide, firstSide.Other()] : [null];

    private static PlannedSide MoreSets(PlannedSide side) => side with { Dose = side.Dose.WithRepeats(side.Dose.Repeats + 1) };

    /// <summary>One more round for the weaker side, where both sides do at least two rounds of the same.</summary>
    private List<PlannedSide> ExtraRound(Drill drill, List<PlannedSide> sides)
    {
        if (
            request.Weaker is not { } weaker
            || drill.Kind is not (DrillKind.EndRange or DrillKind.Strength)
            || DrillChoice.Wanted(drill, weaker, request) is { Due: true }
            || sides.Count < 2
            || sides.Any(s => s.Dose.Repeats != sides[0].Dose.Repeats)
            || sides[0].Dose.Repeats < 2
        )
            return sides;
        notes.Add(new("extraRound", drill.Key, Side: weaker));
        return [.. sides.Select(s => s.Side == weaker ? MoreSets(s) : s)];
    }

    /// <summary>No side has more than half as many rounds again as the other: the one that has less gets more (planning rule 12).</summary>
    private static List<PlannedSide> Even(List<PlannedSide> sides)
    {
        var least = (int)Math.Ceiling(sides.Max(s => s.Dose.Repeats) / 1.5);
        return [.. sides.Select(s => s.Dose.Repeats < least ? s with { Dose = s.Dose.WithRepeats(least) } : s)];
    }

    private int Seconds(PlannedDrill planned) => Timeline.SecondsOf(planned, catalogue.Drill(planned.Drill), request.BreathSeconds);
}
