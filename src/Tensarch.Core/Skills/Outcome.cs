namespace Tensarch.Core.Skills;

/// <summary>What a readiness test says.</summary>
public enum Outcome
{
    Met,
    Borderline,
    Stale,
    NoData,
    NotMet,
    Blocked,
}

public enum Comparison
{
    AtLeast,
    AtMost,
}

public static class Outcomes
{
    /// <summary>met &lt; borderline = stale &lt; no data &lt; not met &lt; blocked; the worst decides a gate.</summary>
    public static int Rank(this Outcome outcome) =>
        outcome switch
        {
            Outcome.Met => 0,
            Outcome.Borderline or Outcome.Stale => 1,
            Outcome.NoData => 2,
            Outcome.NotMet => 3,
            _ => 4,
        };
}
