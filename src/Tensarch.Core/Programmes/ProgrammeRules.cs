namespace Tensarch.Core.Programmes;

/// <summary>How much a week may load. Data; all numbers are defaults.</summary>
public sealed record ProgrammeRules(int Version, LoadRules Load);

/// <summary>Planning rule 6.</summary>
/// <param name="Growth">A week's load is at most so many times the larger of the two before it,</param>
/// <param name="StepSeconds">or that and so many seconds of heavy work,</param>
/// <param name="EntrySeconds">or so many.</param>
/// <param name="WristStep">The same for the wrists, in bodyweight-seconds.</param>
/// <param name="WristEntry">The same for the wrists, in bodyweight-seconds.</param>
/// <param name="BackOffEvery">Every so many weeks one is a back-off week,</param>
/// <param name="BackOffShare">with at most this share of the week before.</param>
/// <param name="AfterBreakShare">What is left of the last week's load after 11 to 27 days off.</param>
/// <param name="AttemptSeconds">What an attempt counts for while none was timed.</param>
public sealed record LoadRules(
    double Growth,
    int StepSeconds,
    int EntrySeconds,
    int WristStep,
    int WristEntry,
    int BackOffEvery,
    double BackOffShare,
    double AfterBreakShare,
    int AttemptSeconds
);
