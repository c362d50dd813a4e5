namespace Tensarch.Core.Planning;

/// <summary>Which rules shaped the session, as it is told.</summary>
internal sealed partial class SessionDraft
{
    /// <summary>The notes, each once; what is true of both sides alike is said without a side.</summary>
    private List<PlanNote> Told() =>
        [
            .. notes
                // What was tried and is not there after all needs no word.
                .Where(n => n.Code is not ("extraRound" or "eased") || Has(n.Drill!))
                .GroupBy(n => n with { Side = null })
                .SelectMany(same => same.Select(n => n.Side).Distinct().Count() > 1 ? [same.Key] : same.Distinct()),
        ];

    private void NoteRules()
    {
        notes.Add(request.Weaker is { } weaker ? new("weakerFirst", Side: weaker) : new PlanNote("sidesAlternate", Side: firstSide));
        if (request.WayBack is { } back)
        {
            notes.Add(new(back.Absence == Absence.ReBaseline ? "reBaseline" : "lighterAfterBreak", Number: back.BreakDays));
            notes.Add(new("wayBack", Number: back.Sessions - back.Done));
        }
        else if (request.FirstWeek)
            notes.Add(new("firstWeek"));
        if (request.Absence == Absence.RepeatLastWeek)
            notes.Add(new("repeatLastWeek", Number: request.DaysSinceLast));
        foreach (var eased in request.Eased)
            notes.Add(
                eased.Drill is not null ? new("easierAfterBackOff", eased.Drill)
                : eased.EasierBy > 0 ? new("easierAfterPain", Tag: eased.Region)
                : new("lighterAfterPain", Tag: eased.Region)
            );
    }
}
