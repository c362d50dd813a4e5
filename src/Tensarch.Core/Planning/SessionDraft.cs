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
    private readonly Trainee who;
    private readonly SkillParts made;
    private readonly SessionShape shape;
    private readonly double placeShare;
    private readonly List<SkillPart> parts;
    private readonly DraftDrills drills;
    private readonly List<PlanNote> notes = [];
    private readonly HashSet<(string Skill, string Drill)> tried = [];

    private readonly DayOrder order;

    /// <param name="made">The parts of the day's skills.</param>
    /// <param name="placeShare">How much of its share of the time a drill has to fill to be chosen first.</param>
    public SessionDraft(CatalogueContent catalogue, Trainee who, SkillParts made, double placeShare, DayOrder order)
        : this(catalogue, who, who.Courses.Take(catalogue.Shape.MostSkills(who.Minutes)), made, placeShare, order) { }

    private SessionDraft(
        CatalogueContent catalogue,
        Trainee who,
        IEnumerable<CourseState> courses,
        SkillParts made,
        double placeShare,
        DayOrder order
    )
    {
        (this.catalogue, this.who, this.made, shape, this.placeShare, this.order) = (
            catalogue,
            who,
            made,
            catalogue.Shape,
            placeShare,
            order
        );
        parts = [.. courses.Select(c => made.Of(c, order))];
        drills = new(made);
    }

    /// <summary>The day's seconds that its skills fill sensibly.</summary>
    private int Budget => 60 * Math.Min(who.Minutes, Longest);

    private int Longest => longest ??= Math.Min(SessionBuilder.MostMinutes, parts.Sum(p => p.Longest));

    private int? longest;

    /// <param name="tired">A round less of it, where the day asks for that.</param>
    public SessionPlan Finish(bool tired = false)
    {
        NoteRules();
        Frame();
        foreach (var part in parts)
            Cores(part);
        Shrink();
        if (who.Minutes >= CalmFromMinutes)
            TakeTurn();
        Fill();
        LeadIn();
        WarmUp();
        GrowAll(IsMain);
        SpareTries();
        Balance();
        LeadIn();
        Shrink();
        LeftShort = Short;
        if (tired)
            Tire();
        Lighten();
        return Closed();
    }

    /// <summary>In order, with what there is to be said.</summary>
    private SessionPlan Closed()
    {
        var (first, beside) = (Named(parts[0]), parts.Skip(1).Select(Named).ToList());
        var plan = new SessionPlan(
            first.Ladder,
            first.LadderVersion,
            first.Approach,
            first.Standard,
            who.Date,
            who.Minutes,
            first.FirstSide,
            who.BreathSeconds,
            [.. drills.OrderBy(PlaceOf)],
            [],
            SessionPlan.CurrentFormat,
            first.Skill,
            beside.Count > 0 ? beside : null
        );
        var seconds = Timeline.SecondsOf(plan, catalogue);
        foreach (var tag in who.Bars.Few.Where(t => drills.Any(d => IsMain(d) && OnTag(d, t) > 0)))
            notes.Add(new("lightWork", Tag: tag, Number: Math.Min(LightWork.SensationCeiling, who.Bars.SensationCeiling)));
        if (Longest < who.Minutes)
            notes.Add(new("longestDay", Number: Longest));
        if (seconds < shape.FilledShare * Budget)
            notes.Add(new("notEnoughToDo", Number: Math.Ceiling(seconds / 60.0)));
        return plan with { Notes = Told() };
    }

    private static PlannedSkill Named(SkillPart part) =>
        new(
            part.Skill,
            part.Course.Ladder.Key,
            part.Course.Ladder.Version,
            part.Course.Approach.Key,
            part.Course.Standard,
            part.Course.FirstSide
        );

    /// <summary>Skills after the first of which nothing may be done beside the others: they are for another day.</summary>
    public IEnumerable<string> Empty =>
        parts.Skip(1).Where(p => drills.All(d => d.Skill != p.Skill || !(IsMain(d) || p.Cores.Contains(d.Drill)))).Select(p => p.Skill);

    private SkillPart PartOf(PlannedDrill planned) => parts.First(p => p.Skill == planned.Skill);

    /// <summary>The skill that a drill of the frame is planned for: the first one that it serves.</summary>
    private SkillPart PartFor(Drill drill) => parts.FirstOrDefault(p => p.Serves(drill)) ?? parts[0];

    /// <summary>Whose rules of a session's shape hold: those of a restful skill only where it is alone.</summary>
    private string ShapedBy => (parts.FirstOrDefault(p => !shape.IsRestful(p.Skill)) ?? parts[0]).Skill;

    private IEnumerable<Drill> Of(params DrillKind[] kinds) => catalogue.ShippedDrills.Where(d => kinds.Contains(d.Kind));

    private static bool IsTest(PlannedDrill planned) => planned.Reason.TestsDay;

    private static bool IsAid(PlannedDrill planned) => planned.Reason.IsAid;

    private (SessionPhase Phase, int Rank) PlaceOf(PlannedDrill planned) => drills.PlaceOf(planned);

    private int WarmSeconds => drills.Together.Warm;

    private int DownSeconds => drills.Together.Down;

    /// <summary>The main work alone did not fill the day.</summary>
    public bool LeftShort { get; private set; }

    public int MainSeconds => drills.Together.Main;

    private int Used => drills.Together.Used;

    /// <summary>What is left of the day, with what the warm-up will still need set aside; of the share of a skill, while that is filled.</summary>
    private int Room =>
        Math.Min(
            Budget - Used - Math.Max(0, shape.WarmSeconds(who.Minutes) + Grain - WarmSeconds),
            sharing is { } part ? ShareOf(part) - MainOf(part) : int.MaxValue
        );

    /// <summary>Drills that the cap counts: no tests, no counters, no calm.</summary>
    private int Counted => drills.Together.Counted;

    private bool HasAlternative(Drill drill) =>
        drills.Any(d => d.Drill == drill.AlternativeTo || catalogue.Drill(d.Drill).AlternativeTo == drill.Key);

    private bool IsMain(PlannedDrill planned) => SessionOrder.IsMain(PlaceOf(planned).Phase);

    private bool Has(string drill) => drills.Any(d => d.Drill == drill && !IsAid(d));

    /// <summary>Adds a drill when it serves, is allowed and fits, together with what has to come along.</summary>
    /// <param name="must">It is shrunk into the session later rather than left out.</param>
    /// <param name="less">Rounds of it go until it fits.</param>
    private bool Try(SkillPart part, Drill drill, DrillReason reason, bool companion = false, bool must = false, bool less = false)
    {
        if (Has(drill.Key))
            return true;
        // What leads into the work later warms no one twice.
        if (reason.Code == "preparesRegions" && drills.Any(d => d.Reason.LeadsIn && d.Drill == drill.Key))
            return false;
        if (!tried.Add((part.Skill, drill.Key)) || (!must && HasAlternative(drill)))
            return false;
        if (Plan(part, drill, reason, companion) is not { } planned)
            return false;
        while (!must && !Borne(part, drill, planned))
        {
            if (!planned.Sides.All(s => DrillDose.MayLessen(s.Dose)) || planned.Sides.Any(s => IsDue(planned, s)))
                return false;
            planned = OneLess(planned);
        }
        if (!must && IsMain(planned) && OverHalf(planned) is { } half)
        {
            notes.Add(new("lightOnly", drill.Key, half));
            return false;
        }
        if (SharedWithOther(planned) is { } region)
        {
            notes.Add(new("otherSkillHeavy", drill.Key, region, Skill: part.Skill));
            return false;
        }

        var added = new List<PlannedDrill> { planned };
        if (!Accompany(part, added))
        {
            if (!drill.WarmsUp || must)
                notes.Add(new("notPrepared", drill.Key));
            return false;
        }
        if (!Lessened(added, planned, must) && TooMuch(added) is { } much)
        {
            if (!drill.WarmsUp)
                notes.Add(new(who.Bars[much] == BarLevel.Free ? "weekLoad" : "lightOnly", drill.Key, much));
            return false;
        }
        while (
            less
            && !Fits(added)
            && added.FindIndex(a => a.Id == planned.Id) is var at
            && added[at].Sides.All(s => DrillDose.MayLessen(s.Dose))
        )
            added[at] = OneLess(added[at]);
        if (!must && !Fits(added))
        {
            if (reason.Best is not null || reason.Code is "wayOut" or "practice" or "practiceReps" or "gateAsksHold" or "gateAsksReps")
                notes.Add(new("didNotFit", drill.Key, Number: Math.Ceiling(added.Sum(Seconds) / 60.0)));
            return false;
        }
        Put(part, added);
        return true;
    }

    private void Put(SkillPart part, List<PlannedDrill> added)
    {
        foreach (var replaced in added)
            drills.RemoveAll(d => d.Id == replaced.Id);
        drills.AddRange(added);
        tried.UnionWith(added.Where(a => !IsAid(a)).Select(a => (part.Skill, a.Drill)));
    }

    /// <summary>Two skills never both work hard at the end of one range on one day.</summary>
    private LoadTag? SharedWithOther(PlannedDrill planned) =>
        IsMain(planned)
            ? LoadsOf(planned)
                .Where(l => l.Value == LoadLevel.Heavy && DrillChoice.EndRangeRegions.Contains(l.Key))
                .Select(l => (LoadTag?)l.Key)
                .FirstOrDefault(region =>
                    drills.Any(d =>
                        d.Skill != planned.Skill && IsMain(d) && LoadsOf(d).Any(l => l.Key == region && l.Value == LoadLevel.Heavy)
                    )
                )
            : null;

    /// <summary>So many places among the few things of a session are kept for the warm-up.</summary>
    private const int WarmDrills = 3;

    private int PlacesLeft => shape.MostDrills(who.Minutes) - Counted - Math.Max(0, WarmDrills - drills.Together.Warming);

    private bool Fits(List<PlannedDrill> added)
    {
        var counted = Counted + added.Count(d => DraftDrills.Counts(catalogue.Drill(d.Drill)) && !IsAid(d));
        var warm = WarmSeconds + added.Where(d => PlaceOf(d).Phase == SessionPhase.Warm).Sum(Seconds);
        var kept = added.Any(IsMain)
            ? Math.Max(0, WarmDrills - drills.Concat(added).Count(d => PlaceOf(d).Phase == SessionPhase.Warm && !IsAid(d)))
            : 0;
        var more = added.Sum(Seconds) - Math.Clamp(warm - WarmSeconds, 0, Math.Max(0, shape.WarmSeconds(who.Minutes) - WarmSeconds));
        return more <= Room
            && counted + kept <= shape.MostDrills(who.Minutes)
            && warm - (RaiseSeconds - LeastRaise) <= shape.WarmMost(who.Minutes) * Budget;
    }

    private PlannedDrill? Plan(SkillPart part, Drill drill, DrillReason reason, bool companion = false)
    {
        var plan = part.Plan(drill, companion, MayRamp(drill));
        notes.AddRange(plan.Notes);
        return plan.Sides is { } sides ? new(drill.Key, drill.Key, reason, Halved(part, drill, sides), part.Skill) : null;
    }

    /// <summary>No other drill of the day ramps on one of its regions.</summary>
    private bool MayRamp(Drill drill) =>
        !drills.Any(d =>
            d.Drill != drill.Key
            && d.Sides.Any(s => s.Dose is RampedDose)
            && catalogue.Drill(d.Drill).Loads.Keys.Any(t => t.IsRegion() && drill.Loads.ContainsKey(t))
        );

    private PlannedFacts FactsOf(PlannedDrill planned) => made.FactsOf(planned);

    private int Seconds(PlannedDrill planned) => FactsOf(planned).Seconds;
}
