namespace Tensarch.Core.Planning;

/// <summary>What share of a session is what, and how much one skill fills. Data; all numbers are defaults.</summary>
/// <param name="Restful">Ladders whose days end longer and work less.</param>
/// <param name="FilledShare">Less of the day's minutes than this is said.</param>
/// <param name="Caps">How many drills a session has at most; gate tests, counters and calm are not counted.</param>
/// <param name="Longest">The longest sensible day of one skill, by the stage trained; no entry: the day's minutes.</param>
/// <param name="GentleLongestMinutes">The same for approaches without ramps and for the very mobile.</param>
/// <param name="StandIns">What is done in place of a core drill that is not allowed.</param>
/// <param name="TrainedBy">By a measure that is held on the bench, the drill in which that is practised.</param>
/// <param name="OpenedBy">By a measure that gates read, the drills that open its range or build what it reads.</param>
/// <param name="Companions">What fills a session beside the stage's own drills.</param>
/// <param name="Carrying">What share of a ladder's main work its core has, and all that carries it.</param>
/// <param name="LeadIns">What leads into a core drill.</param>
/// <param name="BesideLimitedSeconds">Work of one drill at most, beside a core that a bar limits.</param>
/// <param name="ElsewhereShare">Of main work at most, for what loads no region of the ladder and carries nothing.</param>
/// <param name="SkillShares">By the number of skills, what each gets of the main work, the most important first.</param>
public sealed record SessionShape(
    int Version,
    WarmShape Warm,
    DownShape Down,
    MainShape Main,
    IReadOnlyList<string> Restful,
    double FilledShare,
    IReadOnlyList<DrillCap> Caps,
    IReadOnlyList<LongestDay> Longest,
    int GentleLongestMinutes,
    IReadOnlyDictionary<string, string> StandIns,
    IReadOnlyList<CompanionDrills> Companions,
    IReadOnlyDictionary<string, string> TrainedBy,
    IReadOnlyDictionary<string, IReadOnlyList<string>> OpenedBy,
    IReadOnlyList<SkillCap> Skills,
    IReadOnlyList<IReadOnlyList<double>> SkillShares,
    IReadOnlyList<Carrying> Carrying,
    IReadOnlyList<LeadIns> LeadIns,
    double ElsewhereShare,
    int BesideLimitedSeconds,
    FirstWeekShape FirstWeek
)
{
    public int MostSkills(int minutes) => Skills.First(c => minutes < c.UnderMinutes).Skills;

    /// <summary>The fewest minutes of a day that takes so many skills.</summary>
    public int? MinutesFor(int skills) =>
        skills > Skills.Max(c => c.Skills)
            ? null
            : Skills.Where(c => c.Skills < skills).Select(c => c.UnderMinutes).DefaultIfEmpty(0).Max();

    /// <summary>Of the main work, what the skill at a place among so many gets.</summary>
    public double ShareOf(int place, int skills) => SkillShares[skills - 1][place];

    public bool IsRestful(string skill) => Restful.Contains(skill);

    /// <summary>So much warm-up a day needs, in seconds.</summary>
    public int WarmSeconds(int minutes) => (int)Math.Clamp(Math.Ceiling(Warm.Share * minutes * 60), Warm.LeastSeconds, Warm.MostSeconds);

    /// <summary>The share of the session that the warm-up takes at most.</summary>
    public double WarmMost(int minutes) => minutes < Warm.ShortUnderMinutes ? Warm.ShortMostShare : Warm.MostShare;

    /// <summary>Counters and calm take at most so many seconds of a session of so many.</summary>
    public int DownMost(string skill, int seconds) =>
        (int)Math.Max((IsRestful(skill) ? Down.RestfulShare : Down.Share) * seconds, Down.LeastSeconds);

    public double MainLeast(string skill) => IsRestful(skill) ? Main.RestfulLeastShare : Main.LeastShare;

    public int MostDrills(int minutes) => Caps.First(c => minutes < c.UnderMinutes).Drills;

    /// <summary>The minutes of a day that one skill fills sensibly.</summary>
    /// <param name="gentle">Without ramps, or for someone very mobile.</param>
    public int LongestMinutes(string skill, int stage, bool gentle) =>
        Math.Min(
            Longest.FirstOrDefault(l => l.Ladder == skill && l.FromStage <= stage && stage <= l.ToStage)?.Minutes
                ?? SessionBuilder.MostMinutes,
            gentle ? GentleLongestMinutes : SessionBuilder.MostMinutes
        );

    public Carrying CarryingOf(string skill) => Carrying.FirstOrDefault(c => c.Ladder == skill) ?? Carrying.First(c => c.Ladder == "*");

    public CompanionDrills CompanionsOf(string skill) => Companions.FirstOrDefault(c => c.Ladder == skill) ?? new(skill, 0, []);
}

/// <param name="Share">Of the day's minutes, between the least and the most seconds.</param>
/// <param name="ShortRaiseSeconds">What raises the pulse takes so long in a session of at most so many minutes.</param>
public sealed record WarmShape(
    double Share,
    int LeastSeconds,
    int MostSeconds,
    double MostShare,
    double ShortMostShare,
    int ShortUnderMinutes,
    int ShortRaiseSeconds,
    int ShortRaiseMinutes
);

public sealed record DownShape(double Share, int LeastSeconds, double RestfulShare);

/// <param name="WorkShare">Of the main part, what is work and not rest.</param>
public sealed record MainShape(double LeastShare, double RestfulLeastShare, double WorkShare);

/// <summary>How many skills a session serves at most.</summary>
public sealed record SkillCap(int UnderMinutes, int Skills);

public sealed record DrillCap(int UnderMinutes, int Drills);

public sealed record LongestDay(string Ladder, int FromStage, int ToStage, int Minutes);

/// <param name="Share">Of the main part, at most.</param>
public sealed record CompanionDrills(string Ladder, double Share, IReadOnlyList<string> Drills);

/// <param name="Ladder"><c>*</c> is every one that has no entry of its own.</param>
/// <param name="Carriers">Of its main work at least: core, stand-ins, ways out, and what trains or opens a test of its gate.</param>
/// <param name="Core">The core with its stand-ins alone.</param>
public sealed record Carrying(string Ladder, double Carriers, double Core);

/// <param name="From">One of each, in this order, before the core drill.</param>
public sealed record LeadIns(string Core, IReadOnlyList<IReadOnlyList<string>> From);

/// <param name="Rounds">Of a drill, at most.</param>
/// <param name="HoldSeconds">Passive, at most; ramps keep their settling.</param>
/// <param name="MainShare">Of the day's minutes, at most.</param>
/// <param name="WarmShare">Of the time used, at most.</param>
public sealed record FirstWeekShape(int Rounds, int HoldSeconds, int MainDrills, double MainShare, double WarmShare);
