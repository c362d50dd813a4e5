using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>One session in the making.</summary>
internal sealed partial class SessionDraft(CatalogueContent catalogue, SessionRequest request)
{
    private const int MostSets = 4;
    private readonly List<PlannedDrill> drills = [];
    private readonly List<PlanNote> notes = [];
    private readonly HashSet<string> tried = [];
    private readonly Side firstSide = request.Weaker ?? request.LastFirstSide?.Other() ?? Side.Left;

    private int Budget => request.Minutes * 60;

    private int WarmUpNeeded => (int)Math.Ceiling(Math.Max(SessionBuilder.LeastWarmUpSeconds, SessionBuilder.LeastWarmUpShare * Budget));

    public SessionPlan Finish()
    {
        NoteRules();
        WarmUp();
        Try(Calms.First(), new("calm"));
        Main();
        Extras();
        var plan = new SessionPlan(
            request.Ladder.Key,
            request.Ladder.Version,
            request.Approach.Key,
            request.Standard,
            request.Date,
            request.Minutes,
            firstSide,
            request.BreathSeconds,
            [.. drills.OrderBy(PhaseOf).ThenBy(WristsFirst).ThenBy(d => catalogue.Drill(d.Drill).Kind)],
            Told(),
            SessionPlan.CurrentFormat
        );
        var seconds = Timeline.SecondsOf(plan, catalogue);
        return seconds >= SessionBuilder.LeastFilledShare * Budget
            ? plan
            : plan with
            {
                Notes = [.. plan.Notes, new("notEnoughToDo", Number: Math.Ceiling(seconds / 60.0))],
            };
    }

    private IEnumerable<Drill> Of(params DrillKind[] kinds) => catalogue.DrillList.Where(d => kinds.Contains(d.Kind));

    private IEnumerable<Drill> Calms => Of(DrillKind.Calm);

    private SessionPhase PhaseOf(PlannedDrill planned) =>
        SessionOrder.PhaseOf(catalogue.Drill(planned.Drill), planned.Reason.Code == "dayGate");

    /// <summary>Within a kind, the wrist series comes before anything that puts weight on the hands.</summary>
    private int WristsFirst(PlannedDrill planned) => catalogue.Drill(planned.Drill).PreparesHands ? 0 : 1;

    /// <summary>Raise, prepare and mobilise until the warm-up is long enough, then more sets of what is there.</summary>
    private void WarmUp()
    {
        foreach (var drill in Of(DrillKind.Raise, DrillKind.Prepare, DrillKind.Mobilise).Where(d => d.HandShare == 0 && !d.PreparesHands))
        {
            if (WarmUpSeconds() >= WarmUpNeeded && WarmsRegions())
                break;
            Try(drill, new(drill.Kind == DrillKind.Raise ? "warmUp" : "preparesRegions"));
        }
        for (var i = 0; WarmUpSeconds() < WarmUpNeeded && i < drills.Count * (MostSets - 1); i++)
        {
            var at = i % drills.Count;
            drills[at] = drills[at] with { Sides = [.. drills[at].Sides.Select(MoreSets)] };
        }
    }

    private static PlannedSide MoreSets(PlannedSide side) => side with { Dose = side.Dose.WithRepeats(side.Dose.Repeats + 1) };

    private bool WarmsRegions() => request.Ladder.Regions.All(r => drills.Any(d => catalogue.Drill(d.Drill).Loads.ContainsKey(r)));

    private int WarmUpSeconds() =>
        drills.Where(d => catalogue.Drill(d.Drill).Kind is DrillKind.Raise or DrillKind.Prepare or DrillKind.Mobilise).Sum(Seconds);

    private void Main()
    {
        Attempts();
        foreach (var drill in Of(DrillKind.EndRange, DrillKind.Strength, DrillKind.Skill).Where(Serving).OrderBy(Priority).ToList())
            if (!drill.TestOnly)
                Try(drill, ReasonFor(drill));
    }

    /// <summary>The gate's own tests first, then the heavy work of the stage, then the rest; what is left varies by session.</summary>
    private int Priority(Drill drill)
    {
        // To whom short passive holds alone are left, active work comes before everything.
        if (drill.Kind == DrillKind.Strength && request.Bars[LoadTag.PassiveEndRange] != BarLevel.Free)
            return Place(drill) - catalogue.DrillList.Count;
        if (SideExtensions.Both.Any(s => DrillChoice.Wanted(drill, request.Of(s)) is not null))
            return 0;
        var heavy = request.Ladder.Regions.Any(r => drill.Loads.GetValueOrDefault(r) == Load.Heavy);
        var place = Place(drill);
        return drill.Kind switch
        {
            DrillKind.Skill when SessionOrder.PhaseOf(drill, false) != SessionPhase.Ground || !request.Ladder.PerSide => 90,
            DrillKind.EndRange when heavy => 100 + place,
            DrillKind.EndRange when Constant(drill) => 200 + place,
            DrillKind.Strength => 300 + place,
            _ => 400 + (place + request.SessionsSinceStart) % 7 * 10,
        };
    }

    /// <summary>The two end-range drills that stay from session to session, so that progress shows.</summary>
    private bool Constant(Drill drill) =>
        Of(DrillKind.EndRange)
            .Where(d => d.ServesStage(request.Ladder.Skill, request.Ladder.TrainsAs(request.LowerStage)))
            .Take(2)
            .Contains(drill);

    private Side? SideOf(Side side) => request.Ladder.PerSide ? side : null;

    private DrillReason ReasonFor(Drill drill)
    {
        var wanted = SideExtensions
            .Both.Select(s => (Side: s, Test: DrillChoice.Wanted(drill, request.Of(s))))
            .FirstOrDefault(w => w.Test is not null);
        return wanted.Test switch
        {
            HoldCriterion h => new(
                "gateAsksHold",
                request.WorkStage(wanted.Side),
                (int)Math.Ceiling(h.Asked(request.BreathSeconds)),
                SideOf(wanted.Side)
            ),
            RepsCriterion r => new("gateAsksReps", request.WorkStage(wanted.Side), r.Reps, SideOf(wanted.Side)),
            _ when drill.Kind == DrillKind.Strength => new("strengthForStage", request.LowerStage),
            _ => new("stageWork", request.LowerStage),
        };
    }

    private void Attempts()
    {
        foreach (var drill in Of(DrillKind.Attempt).Where(Serving).OrderByDescending(Place))
            if (request.AttemptsAllowed)
                Try(drill, Attempting(drill));
            else
                notes.Add(new("attemptDelay", drill.Key, Number: SessionBuilder.AttemptDelaySessions, Date: EarliestAttempt()));
    }

    private DrillReason Attempting(Drill drill) =>
        ReasonFor(drill) is { Code: "gateAsksHold" } asked ? asked : new("attempt", request.LowerStage);

    private DateOnly EarliestAttempt()
    {
        var firstWeekOver = request.Date.AddDays(Math.Max(0, 7 - request.DaysSinceStart));
        var delayOver = request.Date.AddDays(Math.Max(0, SessionBuilder.AttemptDelayDays - request.DaysSinceStart));
        return firstWeekOver > delayOver ? firstWeekOver : delayOver;
    }

    private bool Serving(Drill drill) => SideExtensions.Both.Any(s => drill.ServesStage(request.Ladder.Skill, request.Trains(s)));

    private int Place(Drill drill) => catalogue.DrillList.Index().First(d => d.Item.Key == drill.Key).Index;

    /// <summary>What is left of the minutes: counter, calm and the rest of the preparation.</summary>
    private void Extras()
    {
        foreach (var drill in Calms.Take(2))
            Try(drill, new("calm"));
        foreach (var drill in Of(DrillKind.Counter).Where(d => catalogue.DrillList.All(o => o.Counter != d.Key)))
            Try(drill, new("counter"));
        foreach (var drill in Of(DrillKind.Mobilise, DrillKind.Raise, DrillKind.Prepare).Where(d => !d.PreparesHands))
            Try(drill, new(drill.Kind == DrillKind.Raise ? "warmUp" : "preparesRegions"));
        foreach (var drill in Calms)
            Try(drill, new("calm"));
    }

    /// <summary>Adds a drill when it serves, is allowed and fits; with the wrist series before the first weight on the hands.</summary>
    private bool Try(Drill drill, DrillReason reason)
    {
        if (!tried.Add(drill.Key))
            return drills.Any(d => d.Drill == drill.Key);
        if (Plan(drill, reason) is not { } planned)
            return false;

        var added = new List<PlannedDrill> { planned };
        if (!AddGateTests(planned, added) || !AddPreparation(added) || !AddCounter(added))
            return Refuse();
        if (added.Any(PutsWeightOnHands) && !drill.PreparesHands && !drills.Concat(added).Any(d => catalogue.Drill(d.Drill).PreparesHands))
        {
            if (
                catalogue
                    .DrillList.Where(d => d.PreparesHands)
                    .Select(d => Plan(d, new("wristsBeforeHands")))
                    .OfType<PlannedDrill>()
                    .FirstOrDefault()
                is not { } wrists
            )
                return Refuse();
            added.Insert(0, wrists);
        }
        if (drills.Concat(added).Sum(Seconds) > Budget)
        {
            if (drill.Kind is not (DrillKind.Calm or DrillKind.Raise or DrillKind.Prepare or DrillKind.Mobilise or DrillKind.Counter))
                notes.Add(new("didNotFit", drill.Key, Number: Math.Ceiling(added.Sum(Seconds) / 60.0)));
            return false;
        }
        tried.UnionWith(added.Select(d => d.Drill));
        foreach (var replaced in added)
            drills.RemoveAll(d => d.Id == replaced.Id);
        drills.AddRange(added);
        return true;

        bool Refuse()
        {
            if (drill.Kind is not (DrillKind.Raise or DrillKind.Prepare or DrillKind.Mobilise))
                notes.Add(new("notPrepared", drill.Key));
            return false;
        }
    }

    private bool Missing(string drill, List<PlannedDrill> added) => drills.Concat(added).All(d => d.Drill != drill);

    private bool WarmsUp(PlannedDrill planned) =>
        catalogue.Drill(planned.Drill).Kind is DrillKind.Raise or DrillKind.Prepare or DrillKind.Mobilise;

    private IEnumerable<KeyValuePair<LoadTag, Load>> LoadsOf(PlannedDrill planned)
    {
        var drill = catalogue.Drill(planned.Drill);
        return planned.Sides.SelectMany(s => drill.LoadsOf(VariantOf(drill, s), s.Dose, request.BreathSeconds));
    }

    private static Variant VariantOf(Drill drill, PlannedSide side) => drill.Variants.First(v => v.Key == side.Variant);

    private PlannedDrill? Plan(Drill drill, DrillReason reason)
    {
        var sides = new List<PlannedSide>();
        foreach (var side in SidesOf(drill))
        {
            var stage = side is { } s ? request.WorkStage(s) : request.LowerStage;
            if (!drill.ServesStage(request.Ladder.Skill, request.Ladder.TrainsAs(stage)))
                continue;
            var (planned, note) = DrillChoice.For(drill, side, stage, request);
            if (note is not null)
                notes.Add(note with { Side = side });
            if (planned is null)
                continue;
            if (planned.EasedFrom is not null)
                notes.Add(new("eased", drill.Key, Side: side));
            sides.Add(planned);
        }
        return sides.Count == 0 ? null : new(drill.Key, drill.Key, reason, ExtraRound(drill, sides));
    }

    private IEnumerable<Side?> SidesOf(Drill drill) => drill.Sides == SideMode.Each ? [firstSide, firstSide.Other()] : [null];

    /// <summary>One more round for the weaker side, where both sides do at least two rounds of the same.</summary>
    private List<PlannedSide> ExtraRound(Drill drill, List<PlannedSide> sides)
    {
        if (
            request.Weaker is not { } weaker
            || drill.Kind is not (DrillKind.EndRange or DrillKind.Strength)
            || DrillChoice.Wanted(drill, request.Of(weaker)) is not null
            || sides.Count < 2
            || sides.Any(s => s.Dose.Repeats != sides[0].Dose.Repeats)
            || sides[0].Dose.Repeats < 2
        )
            return sides;
        notes.Add(new("extraRound", drill.Key, Side: weaker));
        return [.. sides.Select(s => s.Side == weaker ? MoreSets(s) : s)];
    }

    private bool PutsWeightOnHands(PlannedDrill planned)
    {
        var drill = catalogue.Drill(planned.Drill);
        return planned.Sides.Any(s => drill.HandShareOf(drill.Variants.First(v => v.Key == s.Variant)) > 0);
    }

    private int Seconds(PlannedDrill planned) => Timeline.SecondsOf(planned, catalogue.Drill(planned.Drill), request.BreathSeconds);
}
