namespace Tensarch.Core.Sessions;

/// <summary>What was done, in the order in which it was; what was planned and not done in its planned place among it.</summary>
public static class DoneOrder
{
    /// <param name="planned">In the order of the plan.</param>
    /// <param name="done">In the order in which it was done.</param>
    public static IReadOnlyList<(WorkedDrill Drill, bool Done)> Of(IReadOnlyList<WorkedDrill> planned, IReadOnlyList<WorkedDrill> done)
    {
        var lines = done.Select(d => (Drill: d, Done: true)).ToList();
        // A side of a drill that was done at another variant was done.
        bool Missed(WorkedDrill p) => done.All(d => (d.Drill, d.Side) != (p.Drill, p.Side));
        for (var i = 0; i < planned.Count; i++)
            if (Missed(planned[i]))
            {
                var before = planned.Take(i).ToList();
                var at = lines.FindLastIndex(l => before.Any(b => (b.Drill, b.Side) == (l.Drill.Drill, l.Drill.Side)));
                lines.Insert(at + 1, (planned[i], false));
            }
        return lines;
    }
}
