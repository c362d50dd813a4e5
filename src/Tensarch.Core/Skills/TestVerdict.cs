using Tensarch.Core.Measuring;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>What to do about a test, as a code with its numbers.</summary>
/// <param name="Code">
/// <c>nothing</c>, <c>takeReading</c>, <c>retest</c>, <c>moreTrials</c>, <c>keepTraining</c>, <c>logSessions</c>, <c>recordHold</c>,
/// <c>recordReps</c>, <c>countAttempts</c>, <c>tickForm</c>, <c>showExit</c>, <c>trainPainFree</c>, <c>measureLegs</c>, <c>liftBar</c>.
/// </param>
/// <param name="Side">The side to read, where one is.</param>
/// <param name="NotBefore">The earliest sensible day.</param>
/// <param name="Count">How many more (sessions, holds).</param>
public sealed record NextStep(string Code, Side? Side = null, DateOnly? NotBefore = null, int? Count = null)
{
    public static readonly NextStep Nothing = new("nothing");
}

/// <summary>One readiness test judged, with all that is needed to word why.</summary>
/// <param name="Reason">A stable code; the interface words it.</param>
/// <param name="ReadOn">The side that was read; none for what has no side.</param>
/// <param name="Value">In the test's unit: cm, degrees, seconds, repetitions, sessions, or pain of 10.</param>
/// <param name="Margin">Past the threshold when positive, in the same unit.</param>
/// <param name="Noise">z·SE for range of motion.</param>
/// <param name="Count">How many of <paramref name="Needed"/> are there: holds, sessions, ticks.</param>
/// <param name="Days">Days spanned so far, for exposure.</param>
/// <param name="Evidence">Ids of the readings, sets, signals or checks it rests on.</param>
/// <param name="Rate">The share of successes with its Wilson interval: shown, not tested.</param>
/// <param name="Adapted">Less is asked than the gate says, for to this student a longer passive hold is not light.</param>
/// <param name="CountsUntil">When it goes stale without a new fact.</param>
public sealed record TestVerdict(
    ReadinessTest Test,
    Outcome Outcome,
    string Reason,
    NextStep Next,
    Side? ReadOn = null,
    double? Value = null,
    double? Threshold = null,
    double? StandardError = null,
    double? Margin = null,
    double? Noise = null,
    DateTimeOffset? At = null,
    int? Count = null,
    int? Needed = null,
    int? Days = null,
    IReadOnlyList<Guid>? Evidence = null,
    IReadOnlyList<LoadTag>? OffLimits = null,
    SuccessRate? Rate = null,
    DateTimeOffset? CountsUntil = null,
    bool Adapted = false
);
