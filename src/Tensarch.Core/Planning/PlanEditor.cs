using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What the checker says of a session that a coach changed.</summary>
/// <param name="Refused">A rule that must hold: the session is neither kept nor run like this. Else a preference is bent, and it is said.</param>
/// <param name="Tag">What is barred, where a bar refuses it.</param>
public sealed record EditVerdict(string Code, bool Refused, string? Drill = null, LoadTag? Tag = null);

/// <summary>A drill that could be put in.</summary>
/// <param name="Skill">The skill that it would count for.</param>
/// <param name="Fits">It is for the same as what it would replace: the same part of the session, and a region in common.</param>
/// <param name="Companion">It goes well beside the skill and counts for no gate.</param>
/// <param name="Why">Why it may not be done today; none when it may.</param>
public sealed record DrillOption(string Drill, string Skill, bool Fits, bool Companion, PlanNote? Why);

/// <summary>
/// The coach's hand: changes a session that has not been run, one change after another, and says at once what the checker makes of it. Pure: the
/// same changes of the same plan give the same session, so that a change is undone by leaving it out.
/// </summary>
public sealed class PlanEditor(CatalogueContent content)
{
    public const int MostRounds = 10;
    public const int MostSeconds = 600;
    public const int MostReps = 60;

    /// <returns>
    /// The changed plan; or at <c>changes[i]</c>: <c>unknownPart</c>, <c>unknownDrill</c>, <c>unknownVariant</c>, <c>alreadyThere</c>,
    /// <c>placeOutOfRange</c>, <c>doseOutOfRange</c> (numbers: least, most), <c>minutesOutOfRange</c> (numbers: least, most), <c>required</c>.
    /// </returns>
    public Result<SessionPlan> Apply(SessionPlan plan, IReadOnlyList<PlanChange> changes, Trainee who)
    {
        foreach (var (i, change) in changes.Index())
        {
            var (changed, problem) = Apply(plan, change, who);
            if (problem is { } code)
                return code with { Field = $"changes[{i}]{code.Field}" };
            plan = changed!;
        }
        return changes.Count == 0 ? plan : plan with { Bent = [.. Judge(plan, who).Where(v => !v.Refused).Select(v => v.Code).Distinct()] };
    }

    /// <summary>A session that was changed by hand, on another day; none where a rule that must hold refuses it there.</summary>
    public SessionPlan? MovedTo(SessionPlan plan, Trainee who)
    {
        var moved = plan with { Date = who.Date };
        var verdicts = Judge(moved, who);
        return verdicts.Any(v => v.Refused) ? null : moved with { Bent = [.. verdicts.Select(v => v.Code).Distinct()] };
    }

    /// <summary>What the checker finds, the refusals first.</summary>
    public IReadOnlyList<EditVerdict> Judge(SessionPlan plan, Trainee who) =>
        [
            .. SessionChecker
                .Check(plan, who with { Minutes = plan.Minutes }, content)
                .Select(v => new EditVerdict(v.Code, !Preferences.Bends(v.Code), v.Drill, BarredTag(plan, v, who)))
                .Distinct()
                .OrderByDescending(v => v.Refused),
        ];

    /// <summary>What could be put in: what serves a stage of the day, and what goes well beside it; what may be done first, and of that what fits.</summary>
    /// <param name="instead">The planned drill that would go; none when something is added.</param>
    public IReadOnlyList<DrillOption> Options(SessionPlan plan, Trainee who, string? instead)
    {
        var gone = plan.Drills.FirstOrDefault(d => d.Id == instead) is { } planned ? content.Drill(planned.Drill) : null;
        var parts = plan.Skills.Select(s => new SkillPart(content, who, who.On(s.Skill), light: false)).ToList();
        var options =
            from drill in content.DrillList
            where drill is { TestOnly: false, Gone: false } && plan.Drills.All(d => d.Drill != drill.Key || d.Reason.IsAid)
            let serving = parts.FirstOrDefault(p => p.Serves(drill))
            let beside = serving is null ? parts.FirstOrDefault(p => p.Companions.Contains(drill)) : null
            // What its own stage has and today's bars keep from it is shown with the reason.
            let own = serving is null && beside is null ? parts.FirstOrDefault(p => p.ServesOwn(drill)) : null
            let part = serving ?? beside ?? own
            where part is not null
            let fits = gone is not null && drill.Phase == gone.Phase && drill.Loads.Keys.Any(t => t.IsRegion() && gone.Loads.ContainsKey(t))
            let near = gone is not null && drill.Phase == gone.Phase
            let why = WhyNot(drill, part, beside is not null, own is not null, who)
            where own is null || why is not null
            orderby why is null ? 0 : 1, fits ? 0
            : near ? 1
            : 2, drill.Kind == gone?.Kind ? 0 : 1, beside is null ? 0 : 1, drill.Phase, drill.Rank
            select new DrillOption(drill.Key, part.Skill, fits, beside is not null, why);
        return [.. options];
    }

    private static PlanNote? WhyNot(Drill drill, SkillPart part, bool companion, bool own, Trainee who)
    {
        if (drill.Kind == DrillKind.Attempt && !part.AttemptsAllowed)
            return part.Delayed(drill.Key);
        PlanNote? why = null;
        foreach (var side in SidesOf(drill, part).Where(s => companion || own || s is null || part.ServesOn(drill, s.Value)))
        {
            var (planned, note) = DrillChoice.For(
                drill,
                side,
                own ? part.Course.LowerStage : part.StageOf(side),
                who,
                part.Course,
                companion
            );
            if (planned is not null)
                return null;
            why = note;
        }
        return why;
    }

    private static Side?[] SidesOf(Drill drill, SkillPart part) =>
        drill.Sides == SideMode.Each ? [.. part.Sides.Select(s => (Side?)s)] : [null];

    private (SessionPlan? Plan, Problem? Problem) Apply(SessionPlan plan, PlanChange change, Trainee who)
    {
        var at = change.Id is { } id ? plan.Drills.Index().FirstOrDefault(d => d.Item.Id == id, (-1, null!)).Index : -1;
        if (change.Kind is not (PlanChangeKind.Add or PlanChangeKind.Shorten or PlanChangeKind.Lengthen) && at < 0)
            return (null, Problem.Of("unknownPart", ".id"));
        return change.Kind switch
        {
            PlanChangeKind.Add => PutIn(plan, null, change, who),
            PlanChangeKind.Swap => PutIn(plan, plan.Drills[at], change, who),
            PlanChangeKind.Remove => With(plan, [.. plan.Drills.Where((_, i) => i != at)]),
            PlanChangeKind.Move when change.To is not { } to || to < 0 || to >= plan.Drills.Count => Refused("placeOutOfRange", ".to"),
            PlanChangeKind.Move => With(plan, Moved(plan.Drills, at, change.To!.Value)),
            PlanChangeKind.Variant => Variant(plan, at, change, who),
            PlanChangeKind.Dose => Dose(plan, at, change),
            PlanChangeKind.TurnSides => Change(plan, at, d => d with { Sides = [.. d.Sides.Reverse()] }),
            PlanChangeKind.Prop => Change(plan, at, d => d with { Prop = Said(change.Text) }),
            PlanChangeKind.Cue => Change(plan, at, d => d with { Cue = Said(change.Text) }),
            PlanChangeKind.Note => Change(plan, at, d => d with { Note = Said(change.Text) }),
            _ when change.To is not { } minutes || minutes < SessionBuilder.FewestMinutes || minutes > SessionBuilder.MostMinutes => (
                null,
                Problem.Of("minutesOutOfRange", ".to", ("least", SessionBuilder.FewestMinutes), ("most", SessionBuilder.MostMinutes))
            ),
            PlanChangeKind.Shorten => (SessionDraft.Shortened(content, plan, who with { Minutes = change.To.Value }), null),
            _ => (SessionDraft.Lengthened(content, plan, who with { Minutes = change.To.Value }), null),
        };
    }

    private static string? Said(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();

    private static (SessionPlan?, Problem?) Refused(string code, string field) => (null, Problem.Of(code, field));

    private static (SessionPlan?, Problem?) With(SessionPlan plan, List<PlannedDrill> drills) =>
        drills.Count == 0 ? Refused("nothingLeft", ".id") : (plan with { Drills = drills }, null);

    private static (SessionPlan?, Problem?) Change(SessionPlan plan, int at, Func<PlannedDrill, PlannedDrill> change) =>
        With(plan, [.. plan.Drills.Select((d, i) => i == at ? change(d) : d)]);

    private static List<PlannedDrill> Moved(IReadOnlyList<PlannedDrill> drills, int from, int to)
    {
        var moved = drills.ToList();
        var drill = moved[from];
        moved.RemoveAt(from);
        moved.Insert(to, drill);
        return moved;
    }

    private (SessionPlan?, Problem?) PutIn(SessionPlan plan, PlannedDrill? instead, PlanChange change, Trainee who)
    {
        if (change.Drill is not { } key || content.FindDrill(key) is not { TestOnly: false } drill)
            return Refused("unknownDrill", ".drill");
        if (plan.Drills.Any(d => d.Drill == drill.Key && d != instead && !d.Reason.IsAid))
            return Refused("alreadyThere", ".drill");
        if (change.Skill is { } skill && plan.Skills.All(s => s.Skill != skill))
            return Refused("notOnLadder", ".skill");
        return (SessionDraft.PutIn(content, plan, who, drill, change.Skill, instead), null);
    }

    private (SessionPlan?, Problem?) Variant(SessionPlan plan, int at, PlanChange change, Trainee who)
    {
        var planned = plan.Drills[at];
        var drill = content.Drill(planned.Drill);
        if (drill.Variants.FirstOrDefault(v => v.Key == change.Variant) is not { } variant)
            return Refused("unknownVariant", ".variant");
        return Change(plan, at, d => d with { Sides = [.. d.Sides.Select(s => change.Side is { } one && s.Side != one ? s : On(s))] });

        PlannedSide On(PlannedSide side) =>
            side with
            {
                Variant = variant.Key,
                EasedFrom = null,
                // A variant with a dose of its own brings it along, as often as before.
                Dose = variant.Dose is { } own ? Advised(own.WithRepeats(Math.Max(1, side.Dose.Repeats)), side.Props) : side.Dose,
            };

        Dose Advised(Dose dose, PropAdvice? advice) =>
            dose is SupportLadderDose ladder && ladder.Owned(who.BlocksOwned) is var owned
                ? advice is null
                    ? owned
                    : owned.Advised(advice, who.BlocksOwned)
                : dose;
    }

    private static (SessionPlan?, Problem?) Dose(SessionPlan plan, int at, PlanChange change)
    {
        if (change.Dose is not { } numbers)
            return Refused("required", ".dose");
        foreach (
            var (value, least, most, field) in new[]
            {
                (numbers.Rounds, 1, MostRounds, "rounds"),
                (numbers.Seconds, 1, MostSeconds, "seconds"),
                (numbers.Breaths, 1, MostReps, "breaths"),
                (numbers.Reps, 1, MostReps, "reps"),
                (numbers.RestSeconds, 0, MostSeconds, "restSeconds"),
                (numbers.SettleSeconds, 5, MostSeconds, "settleSeconds"),
                (numbers.PressSeconds, 3, 60, "pressSeconds"),
                (numbers.LiftSeconds, 3, 60, "liftSeconds"),
                (numbers.ResettleSeconds, 5, MostSeconds, "resettleSeconds"),
                (numbers.ToPercent, 20, 100, "toPercent"),
            }
        )
            if (value < least || value > most)
                return (null, Problem.Of("doseOutOfRange", $".dose.{field}", ("least", least), ("most", most)));
        return Change(
            plan,
            at,
            d =>
                d with
                {
                    Sides = [.. d.Sides.Select(s => change.Side is { } one && s.Side != one ? s : s with { Dose = numbers.On(s.Dose) })],
                }
        );
    }

    private LoadTag? BarredTag(SessionPlan plan, Violation violation, Trainee who) =>
        violation.Rule != 1 || violation.Drill is not { } key
            ? null
            : plan
                .Drills.Where(d => d.Drill == key)
                .SelectMany(d => d.Sides)
                .SelectMany(s => content.Drill(key).LoadsOf(content.Drill(key).VariantAt(s.Variant), s.Dose, plan.BreathSeconds))
                .Where(l => l.Value != LoadLevel.None && who.Bars[l.Key] != BarLevel.Free)
                .OrderByDescending(l => who.Bars[l.Key])
                .Select(l => (LoadTag?)l.Key)
                .FirstOrDefault();
}
