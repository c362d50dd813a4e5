namespace Tensarch.Core.Programmes;

/// <summary>How much a week may load, and what a plan weighs. Data; all numbers are defaults.</summary>
/// <param name="PieceWeeks">So many weeks are planned at once; the last of them is the back-off week.</param>
public sealed record ProgrammeRules(
    int Version,
    LoadRules Load,
    ExposureRules Exposures,
    HardDayRules Hard,
    TestDayRules Tests,
    PlanCosts Costs,
    int PieceWeeks
);

/// <summary>Planning rule 6.</summary>
/// <param name="Growth">A week's load is at most so many times the larger of the two before it,</param>
/// <param name="StepSeconds">or that and so many seconds of heavy work,</param>
/// <param name="EntrySeconds">or so many.</param>
/// <param name="WristStep">The same for the wrists, in bodyweight-seconds.</param>
/// <param name="WristEntry">The same for the wrists, in bodyweight-seconds.</param>
/// <param name="BackOffEvery">Every so many weeks one is a back-off week,</param>
/// <param name="BackOffShare">with at most this share of the week before.</param>
/// <param name="PlannedShare">Where the sessions of a week each take a part of it, the weeks after it are made for so much of its ceiling.</param>
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
    double PlannedShare,
    double AfterBreakShare,
    int AttemptSeconds
);

/// <summary>Planning rule 8: how often in a week a goal is trained at least.</summary>
public sealed record ExposureRules(int Usual, IReadOnlyDictionary<string, int> BySkill, IReadOnlyDictionary<string, int> ByApproach)
{
    /// <param name="backOff">One less in a back-off week.</param>
    public int Of(string skill, string approach, bool backOff) =>
        Math.Max(
            1,
            (ByApproach.TryGetValue(approach, out var often) ? often : BySkill.GetValueOrDefault(skill, Usual)) - (backOff ? 1 : 0)
        );
}

/// <summary>From so much on a day is a hard one.</summary>
/// <param name="HeavySeconds">Of heavy work in one region.</param>
/// <param name="WristSeconds">In bodyweight-seconds.</param>
public sealed record HardDayRules(int HeavySeconds, int WristSeconds);

/// <summary>Planning rule 11: in which weeks tests fall, counted from 1.</summary>
/// <param name="RangeSeconds">What a side of a range takes.</param>
public sealed record TestDayRules(int FirstWeek, int EveryWeeks, int LeastMinutes, int RangeSeconds)
{
    /// <param name="week">Counted from 0.</param>
    public bool In(int week) => week + 1 >= FirstWeek && (week + 1 - FirstWeek) % EveryWeeks == 0;
}

/// <summary>What a plan is made as small as possible in.</summary>
/// <param name="MissingExposure">For each step that the goal's priority is above 6.</param>
/// <param name="DayChanged">A day that nobody looks at yet and that is another than in the version before: of equals it stays as it was.</param>
/// <param name="LevelStep">Of a block below the week's step.</param>
/// <param name="Uneven">Two exposures of a skill without a day between.</param>
/// <param name="LargestWeek">For as much as anyone may begin with that the largest week of a piece loads above what was carried before it, by tag and side; of less its part.</param>
/// <param name="LaterTest">For each session of the week before it.</param>
/// <param name="ExtraExposure">More in a week than the goal asks for; in a back-off week twice that.</param>
public sealed record PlanCosts(
    int MissingExposure,
    int MissingTest,
    int SeenDayMoved,
    int DayChanged,
    int LevelStep,
    int AdjacentHardDays,
    int NerveAfterHardDay,
    int Uneven,
    int UnfilledMinute,
    int LargestWeek,
    int LaterTest,
    int ExtraExposure
);
