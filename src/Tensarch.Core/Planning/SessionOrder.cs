using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>The phases of a session, in order: nerve and balance while fresh, end range before the position, the neck last.</summary>
public enum SessionPhase
{
    Raise,
    Prepare,
    Mobilise,

    /// <summary>The tests that say what this body can do today.</summary>
    DayGate,
    Balance,
    Strength,
    EndRange,
    Ground,
    NeckLoaded,
    Counter,
    Calm,
}

public static class SessionOrder
{
    /// <param name="testsDayGate">It is in the session as the test of a day gate.</param>
    public static SessionPhase PhaseOf(Drill drill, bool testsDayGate) =>
        drill.Kind switch
        {
            // What puts weight on the hands follows the wrists, however it warms.
            DrillKind.Raise when drill.HandShare == 0 => SessionPhase.Raise,
            DrillKind.Raise or DrillKind.Prepare => SessionPhase.Prepare,
            DrillKind.Mobilise => SessionPhase.Mobilise,
            _ when testsDayGate => SessionPhase.DayGate,
            DrillKind.Strength => SessionPhase.Strength,
            DrillKind.EndRange => SessionPhase.EndRange,
            DrillKind.Counter => SessionPhase.Counter,
            DrillKind.Calm => SessionPhase.Calm,
            _ when drill.Loads.GetValueOrDefault(LoadTag.Neck) == Load.Heavy => SessionPhase.NeckLoaded,
            _ when drill.Loads.GetValueOrDefault(LoadTag.Wrist) == Load.Heavy => SessionPhase.Balance,
            _ when drill.Loads.ContainsKey(LoadTag.Inverted) => SessionPhase.NeckLoaded,
            _ => SessionPhase.Ground,
        };
}
