namespace Tensarch.Core.Planning;

/// <summary>A round less of what is done, after a bad night, other hard training or where it is sore. Source: judgement, day check-in.</summary>
internal sealed partial class SessionDraft
{
    /// <summary>Each drill of the main work that is touched has a round fewer; what only fills and has one is not done.</summary>
    private void Tire()
    {
        foreach (var planned in drills.Where(d => (IsMain(d) || IsCore(d)) && !IsAid(d) && !IsFixed(d) && FewerOf(d) > 0).ToList())
        {
            if (planned.Sides.Any(s => DrillDose.MayLessen(s.Dose)))
                Lessen(planned);
            else if (planned.Reason.Code == "companion")
                drills.RemoveAll(d => d.Id == planned.Id);
        }
        DropOrphans();
        Balance();
    }

    private int FewerOf(PlannedDrill planned)
    {
        var drill = catalogue.Drill(planned.Drill);
        return who.Eased.Where(e => e.Touches(drill.Key, drill.Loads)).Select(e => e.FewerRounds).DefaultIfEmpty(0).Max();
    }
}
