namespace Tensarch.Core.Programmes;

/// <summary>A planned programme: what each session is, how far it can be trusted to be the best, and what did not fit.</summary>
/// <param name="Days">In order of time; a session that nothing may be done in has no offer.</param>
/// <param name="ShortWeeks">Weeks in which a goal is trained less often than it asks for.</param>
/// <param name="Untested">Goals that are not tested where they should be.</param>
/// <param name="Bent">Rules that pinned sessions break, each on its day.</param>
public sealed record ProgrammePlan(
    Programme Programme,
    IReadOnlyList<PlanDay> Days,
    IReadOnlyList<PieceReport> Pieces,
    IReadOnlyList<ShortWeek> ShortWeeks,
    IReadOnlyList<WeekLoad> Loads,
    IReadOnlyList<DayViolation> Bent,
    IReadOnlyList<UntestedGoal> Untested
);

/// <summary>One session of a plan.</summary>
/// <param name="Offer">None where everything is off limits on the day.</param>
/// <param name="TestMinutes">For measuring ranges, besides the session.</param>
/// <param name="WhyNotMore">For each skill that is below the week's step.</param>
public sealed record PlanDay(
    TrainingSlot Slot,
    int Week,
    bool BackOff,
    DayOffer? Offer,
    int TestMinutes,
    IReadOnlyList<DayReason>? WhyNotMore = null
)
{
    public IEnumerable<string> Tested => Offer?.Ask.Of(BlockAim.Test) ?? [];
}

/// <summary>Some weeks that were planned at once.</summary>
/// <param name="Gap">Proven: at most so much of the cost could be saved.</param>
public sealed record PieceReport(int FromWeek, int Weeks, long Cost, long Bound, double Gap);

/// <summary>A week in which a goal is trained less often than it asks for.</summary>
/// <param name="Why">Rules that leave no room for it, with what goals ask for; of the goal's first such week in a piece, else empty.</param>
public sealed record ShortWeek(int Week, string Skill, int Asked, int Has, IReadOnlyList<PieceRule>? Why = null);

/// <summary>A goal that has something to show, and no test in weeks that are for tests.</summary>
/// <param name="Weeks">Counted from 0.</param>
/// <param name="TooShort">No session of these weeks is long enough for a test: it would take so many minutes. None where that is not what is in the way.</param>
public sealed record UntestedGoal(string Skill, IReadOnlyList<int> Weeks, int? TooShort);

/// <summary>What a week loads, and the most that it may; in the ledger's units.</summary>
/// <param name="Done">Of it, what was trained already.</param>
/// <param name="Load">Done and planned.</param>
public sealed record WeekLoad(int Week, Sessions.LoadKey Key, int Done, int Load, int Ceiling);
