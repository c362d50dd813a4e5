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
        foreach (var left in who.Courses.Skip(parts.Count))
            notes.Add(new("skillLeftOut", Number: shape.MinutesFor(parts.Count + 1), Skill: left.Skill));
        foreach (var part in parts)
        {
            var skill = parts.Count > 1 ? part.Skill : null;
            if (skill is null || part.Course.Ladder.PerSide)
                notes.Add(
                    part.Course.Weaker is { } weaker
                        ? new("weakerFirst", Side: weaker, Skill: skill)
                        : new PlanNote("sidesAlternate", Side: part.Course.FirstSide, Skill: skill)
                );
            if (who.WayBack is null && who.FirstWeekOf(part.Course))
                notes.Add(new("firstWeek", Skill: skill));
        }
        if (who.WayBack is { } back)
        {
            notes.Add(new(back.Absence == Absence.ReBaseline ? "reBaseline" : "lighterAfterBreak", Number: back.BreakDays));
            notes.Add(new("wayBack", Number: back.Sessions - back.Done));
        }
        if (who.Absence == Absence.RepeatLastWeek)
            notes.Add(new("repeatLastWeek", Number: who.History.DaysSinceLast(who.Date)));
        foreach (var eased in who.Eased)
            notes.Add(
                eased.NoStep ? new("noStep", Tag: eased.Region)
                : eased.FewerRounds > 0 ? new("oneRoundFewer", Tag: eased.Region)
                : eased.SettleShare < 1 ? new("shorterAfterCeiling", eased.Drill)
                : eased.Drill is not null ? new("easierAfterBackOff", eased.Drill)
                : eased.EasierBy > 0 ? new("easierAfterPain", Tag: eased.Region)
                : new("lighterAfterPain", Tag: eased.Region)
            );
    }
}
