using Tensarch.Core.Catalogue;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>
/// Builds the next session of a student: warm-up, preparation, strength, end-range work, attempt when allowed, counter and
/// calm; weaker side first; within the minutes given; a reason for every drill and a note for every rule that shaped it.
/// </summary>
public sealed class SessionBuilder(CatalogueContent catalogue)
{
    /// <summary>How much of its share of the time a drill has to fill to be chosen first, tried in turn.</summary>
    private static readonly double[] PlaceShares = [0.7, 1, 0.5, 0.25, 0];

    /// <summary>A day that an order limits is short for its sake more often than for the drills chosen.</summary>
    private static readonly double[] OrderedShares = [0.7, 0.25];

    public const int FewestMinutes = 15;
    public const int MostMinutes = 120;
    public const int AttemptDelayDays = 5;
    public const int AttemptDelaySessions = 4;

    /// <param name="order">What a plan asks of the day; none where there is none.</param>
    /// <returns>
    /// The plan; or <c>minutesOutOfRange</c> (numbers: least, most) or <c>everythingOffLimits</c> when nothing may be trained.
    /// </returns>
    public Result<SessionPlan> Build(Trainee who, DayOrder? order = null) => Build(who, new(catalogue, who), order ?? DayOrder.Free);

    /// <param name="made">The parts of the same student on the same day.</param>
    internal Result<SessionPlan> Build(Trainee who, SkillParts made, DayOrder order)
    {
        if (who.Minutes is < FewestMinutes or > MostMinutes)
            return Problem.Of("minutesOutOfRange", "minutes", ("least", FewestMinutes), ("most", MostMinutes));
        if (LoadTags.All.All(t => who.Bars[t] == BarLevel.OffLimits))
            return Problem.Of("everythingOffLimits", "student");
        var spared = Sparing(who, made, order);
        var (plan, empty, share) = Best(who, made, spared);
        // The same session as without it, with a round less.
        if (who.Eased.Any(e => e.FewerRounds > 0))
            plan = new SessionDraft(catalogue, who, made, share, spared).Finish(tired: true);
        if (empty.Count == 0)
            return plan;
        var others = Build(who with { Courses = [.. who.Courses.Where(c => !empty.Contains(c.Skill))] }, made, order).Value;
        return others with
        {
            Notes =
            [
                .. empty.Select(skill => new PlanNote("skillLeftOut", Skill: skill)),
                // Why nothing of it may be done is said, though it is not there.
                .. plan.Notes.Where(n => n.Code == "otherSkillHeavy" && n.Skill is { } skill && empty.Contains(skill)),
                .. others.Notes,
            ],
        };
    }

    /// <summary>
    /// What is light only is half of what it would be: of each drill at most half the work that the session of a student without that bar has, and on
    /// wrists no more weight than in it.
    /// </summary>
    private DayOrder Sparing(Trainee who, SkillParts made, DayOrder order)
    {
        if (who.Bars.Few.Count == 0)
            return order;
        var free = Build(made.Freed.Who with { Minutes = who.Minutes, Courses = who.Courses }, made.Freed, order);
        if (!free.IsOk)
            return order;
        var spared = order with
        {
            MostWork = Halves(free.Value),
            MostOn = who.Bars.Few.ToDictionary(t => t, t => MainWork(free.Value, made.Freed).Sum(f => f.WorkOn(t)) / 2),
        };
        if (!who.Bars.Few.Contains(LoadTag.Wrist))
            return spared;
        var hands = Math.Min(
            LoadLedger.Of(Work.Planned(free.Value, catalogue), catalogue)[LoadTag.Wrist],
            LoadCeiling.WristUnit * LightWork.HandSeconds
        );
        var key = new LoadKey(LoadTag.Wrist, null);
        var most = order.Most is null ? [] : new Dictionary<LoadKey, int>(order.Most);
        most[key] = Math.Min(hands, most.GetValueOrDefault(key, hands));
        return spared with { Most = most };
    }

    private IEnumerable<PlannedFacts> MainWork(SessionPlan plan, SkillParts made) =>
        plan.Drills.Where(d => SessionOrder.IsMain(d, catalogue.Drill(d.Drill))).Select(made.FactsOf);

    private static Dictionary<(string Drill, Side? Side), double> Halves(SessionPlan free) =>
        (
            from planned in free.Drills
            where !planned.Reason.IsAid
            from side in planned.Sides
            select (planned.Drill, side.Side, Half: LightWork.WorkSeconds(side.Dose, free.BreathSeconds) / 2)
        ).ToDictionary(h => (h.Drill, h.Side), h => h.Half);

    /// <summary>Few things for longer; where that left the day short, more things for less time may fill it better.</summary>
    private (SessionPlan Plan, List<string> Empty, double Share) Best(Trainee who, SkillParts made, DayOrder order)
    {
        var first = new SessionDraft(catalogue, who, made, PlaceShares[0], order);
        var plan = first.Finish();
        if (!first.LeftShort)
            return (plan, [.. first.Empty], PlaceShares[0]);
        var best = (order.IsFree ? PlaceShares : OrderedShares)
            .Skip(1)
            .Select(share => (Draft: new SessionDraft(catalogue, who, made, share, order), Share: share))
            .Select(tried => (Plan: tried.Draft.Finish(), tried.Draft, tried.Share))
            .Prepend((Plan: plan, Draft: first, Share: PlaceShares[0]))
            .MaxBy(draft => draft.Draft.MainSeconds);
        return (best.Plan, [.. best.Draft.Empty], best.Share);
    }
}
