using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What is light only is half of what it would be, measured against the session without that bar.</summary>
internal sealed partial class SessionDraft
{
    /// <summary>Of what is light only no more than half of what it would be without that bar.</summary>
    private IReadOnlyList<PlannedSide> Halved(SkillPart part, Drill drill, IReadOnlyList<PlannedSide> sides) =>
        order.MostWork is { } most && SessionOrder.IsMain(drill.Phase) && sides.Any(s => part.IsSpared(drill, s))
            ?
            [
                .. sides.Select(s =>
                    part.IsSpared(drill, s) && most.TryGetValue((drill.Key, s.Side), out var half)
                        ? s with
                        {
                            Dose = LightWork.AtMost(s.Dose, half, who.BreathSeconds),
                        }
                        : s
                ),
            ]
            : sides;

    /// <summary>The first tag that is light only of which there would be more than half of what there would be without that bar.</summary>
    private LoadTag? OverHalf(PlannedDrill planned) =>
        order
            .MostOn?.Where(m =>
                OnTag(planned, m.Key) is > 0 and var more && more + drills.Where(IsMain).Sum(d => OnTag(d, m.Key)) > m.Value
            )
            .Select(m => (LoadTag?)m.Key)
            .FirstOrDefault();

    private double OnTag(PlannedDrill planned, LoadTag tag) => FactsOf(planned).WorkOn(tag);
}
