using System.Collections.Concurrent;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>
/// What each of its drills would be today, worked out once however many sessions are tried: it does not depend on what else is done, but for
/// whether it may ramp.
/// </summary>
internal sealed partial class SkillPart
{
    private readonly ConcurrentDictionary<(string Drill, bool Companion, bool Ramps), PlanOf> plans = [];

    /// <summary>A drill as it is planned; no sides where it is not, and what is to be said of it.</summary>
    public sealed record PlanOf(IReadOnlyList<PlannedSide>? Sides, IReadOnlyList<PlanNote> Notes);

    /// <param name="ramps">No other drill of the day ramps on one of its regions.</param>
    public PlanOf Plan(Drill drill, bool companion, bool ramps) =>
        plans.GetOrAdd((drill.Key, companion, ramps), _ => PlanAnew(drill, companion, ramps));

    private PlanOf PlanAnew(Drill drill, bool companion, bool ramps)
    {
        var (sides, notes) = (new List<PlannedSide>(), new List<PlanNote>());
        foreach (var side in drill.Sides == SideMode.Each ? Sides.Select(s => (Side?)s) : [null])
        {
            var stage = StageOf(side);
            if (!companion && !drill.ServesStage(Skill, Course.Ladder.TrainsAs(stage)))
                continue;
            if (stage < drill.DelayedBelow && !AttemptsAllowed)
                continue;
            var (planned, note) = DrillChoice.For(drill, side, stage, who, Course, companion, ramps);
            if (note is not null)
                notes.Add(Worded(note) with { Side = side });
            if (planned is null)
                continue;
            if (planned.EasedFrom is not null)
                notes.Add(new("eased", drill.Key, Side: side));
            sides.Add(planned);
        }
        return new(sides.Count == 0 ? null : Even(ExtraRound(drill, sides, notes)), notes);
    }

    /// <summary>What is light for the day's sake is not called barred.</summary>
    private PlanNote Worded(PlanNote note) =>
        Light && note is { Code: "lightOnly", Tag: { } tag } && bars[tag] == BarLevel.Free ? note with { Code = "lightDay" } : note;

    public static PlannedSide MoreSets(PlannedSide side) => side with { Dose = side.Dose.WithRepeats(side.Dose.Repeats + 1) };

    /// <summary>One more round for the weaker side, where both sides do at least two rounds of the same.</summary>
    private List<PlannedSide> ExtraRound(Drill drill, List<PlannedSide> sides, List<PlanNote> notes)
    {
        if (
            Course.Weaker is not { } weaker
            || FirstWeek
            || drill.Kind is not (DrillKind.EndRange or DrillKind.Strength)
            || Wanted(drill, weaker) is { Due: true }
            || sides.Count < 2
            || sides.Exists(s => IsSpared(drill, s))
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

    /// <summary>It loads what is light only: less of it is done, and no more.</summary>
    public bool IsSpared(Drill drill, PlannedSide side) =>
        who.Bars.FewOf(drill.LoadsOf(drill.VariantAt(side.Variant), side.Dose, who.BreathSeconds)) is not null;

    private readonly ConcurrentDictionary<IReadOnlyList<PlannedSide>, IReadOnlyList<PlannedSide>?> grown = new(
        ReferenceEqualityComparer.Instance
    );

    /// <summary>A round more on each side; none where one of them allows no more.</summary>
    public IReadOnlyList<PlannedSide>? Grown(Drill drill, IReadOnlyList<PlannedSide> sides) =>
        grown.GetOrAdd(sides, from => GrownAnew(drill, from));

    private List<PlannedSide>? GrownAnew(Drill drill, IReadOnlyList<PlannedSide> sides)
    {
        var more = new List<PlannedSide>(sides.Count);
        foreach (var side in sides)
        {
            var variant = drill.VariantAt(side.Variant);
            if (
                DrillDose.More(drill, variant, side.Dose, who.StepOf(Course, drill), who.FirstWeekOf(Course)) is not { } dose
                || IsSpared(drill, side)
                || !who.Bars.Allow(drill.LoadsOf(variant, dose, who.BreathSeconds))
            )
                return null;
            more.Add(side with { Dose = dose });
        }
        return more;
    }
}
