using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>No more of a load than the day's order leaves.</summary>
internal sealed partial class SessionDraft
{
    private LoadLedger LoadOf(PlannedDrill planned) => FactsOf(planned).Load;

    /// <summary>The first load of which there would be too much with these; what is there already and is lessened goes first. None: all may be.</summary>
    private LoadTag? TooMuch(IReadOnlyList<PlannedDrill> added)
    {
        if (order.Most is not { } most)
            return null;
        var more = Loading(added);
        if (more.Count == 0)
            return null;
        List<LoadLedger>? rest = null;
        foreach (var (key, allowed) in most)
            if (
                Sum(more, key) is > 0 and var one
                && one + Sum(rest ??= Loading(drills.Where(d => added.All(a => a.Id != d.Id))), key) > allowed
            )
                return key.Tag;
        return null;
    }

    private List<LoadLedger> Loading(IEnumerable<PlannedDrill> some)
    {
        var loads = new List<LoadLedger>();
        foreach (var planned in some)
            if (LoadOf(planned) is { IsEmpty: false } load)
                loads.Add(load);
        return loads;
    }

    private static int Sum(List<LoadLedger> loads, LoadKey key)
    {
        var sum = 0;
        foreach (var load in loads)
            sum += load[key];
        return sum;
    }

    /// <summary>Rounds go until the drill fits under what is left of its load; where it must, of what is there already as well.</summary>
    private bool Lessened(List<PlannedDrill> added, PlannedDrill planned, bool must)
    {
        while (TooMuch(added) is { } much)
        {
            var at = added.FindIndex(a => a.Id == planned.Id);
            if (added[at].Sides.Any(s => IsDue(added[at], s)) || !added[at].Sides.All(s => DrillDose.MayLessen(s.Dose)))
            {
                if (!must || Lessenable().Where(d => LoadOf(d)[much] > 0).MaxBy(d => LoadOf(d)[much]) is not { } other)
                    return false;
                Lessen(other);
                continue;
            }
            added[at] = OneLess(added[at]);
        }
        return true;
    }
}
