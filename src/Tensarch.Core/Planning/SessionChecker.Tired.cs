namespace Tensarch.Core.Planning;

/// <summary>What is a round less, as was said on the day. Source: judgement, day check-in.</summary>
public static partial class SessionChecker
{
    private const int MostRounds = 4;
    private const int MostEntries = 10;

    /// <summary>
    /// Rule 7: a plan says that it has a round fewer where the day asks for it, or it was made before that was said; and no drill has all the rounds
    /// that there may be.
    /// </summary>
    private static IEnumerable<Violation> Fewer(List<Line> lines, SessionPlan plan, Trainee facts)
    {
        foreach (var eased in facts.Eased.Where(e => e.FewerRounds > 0))
        {
            var touched = lines
                .Where(l => l.PhaseIn is not (SessionPhase.Warm or SessionPhase.Down))
                .Where(l => l.Planned.Reason.Code is not ("dayGate" or "leadIn" or "gateAsksHold" or "gateAsksReps") && IsAbout(eased, l))
                .ToList();
            if (touched.Count > 0 && !plan.Notes.Any(n => n.Code == "oneRoundFewer" && n.Tag == eased.Region))
                yield return new(7, "notRested");
            foreach (var line in touched)
                if (line.Side.Dose.Repeats > Math.Max(1, Most(line.Side.Dose) - eased.FewerRounds))
                    yield return new(7, "notRested", line.Drill.Key);
        }
    }

    private static int Most(Dose dose) => dose is AttemptsDose ? MostEntries : MostRounds;
}
