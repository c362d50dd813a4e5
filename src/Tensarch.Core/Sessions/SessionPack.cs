using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>
/// All that the runner needs without the server: it selects and measures time, it derives no dose, load or verdict. Loads stand on every
/// version, so that a stop covers what is planned, eased, offered and put in instead alike. Ids are opaque.
/// </summary>
/// <param name="Format">Of this document: 3 since positions are left in stretches of their own; a runner reads 2 as well.</param>
/// <param name="Slots">In the order in which they are done.</param>
public sealed record SessionPack(
    int Format,
    IReadOnlyList<PackSlot> Slots,
    IReadOnlyList<PackGate> Gates,
    IReadOnlyList<PackStop> Stops,
    int TotalSeconds,
    int SensationCeiling
)
{
    public const int CurrentFormat = 3;
    public static readonly TimeSpan Life = TimeSpan.FromHours(24);
}

/// <summary>One drill on one side, with its versions: the planned one first, then the easier ones, hardest first; those with fewer rounds and the like last.</summary>
/// <param name="Group">The planned drill: both sides of it are shortened and left out together.</param>
/// <param name="Keep">When time runs short, what has the least of this is left out first; none: it is never left out.</param>
/// <param name="Fewer">The planned version with fewer rounds, the longest first.</param>
/// <param name="For">Slots that it is there for, the counter of what went before: without them it is left out too. Empty: it is there for itself.</param>
public sealed record PackSlot(
    string Id,
    IReadOnlyList<PackVersion> Versions,
    string Group,
    int? Keep,
    IReadOnlyList<string> Fewer,
    IReadOnlyList<string> For
);

/// <summary>One way of doing a drill on a side, ready-made.</summary>
/// <param name="Loads">What it loads: each tag, and the tag with <c>:heavy</c> where it loads it heavily.</param>
/// <param name="Easier">The version to go on with after backing off; none when this is the easiest.</param>
/// <param name="Shorter">The same with half the settling; none where nothing settles, or it is short already.</param>
/// <param name="Offer">The version two levels easier, or the easiest there is; none when this is it.</param>
/// <param name="Evidence">A gate reads it: a round counts once it is confirmed, with its number.</param>
/// <param name="Prop">What a coach wants under it, in place of the advice.</param>
/// <param name="Note">A coach's note for this student.</param>
/// <param name="Rounds">What a round counts for when it is done to its end.</param>
public sealed record PackVersion(
    string Id,
    string Drill,
    string Name,
    string Variant,
    string VariantName,
    Side? Side,
    string Skill,
    int Stage,
    IReadOnlyList<string> Loads,
    string? Easier,
    string? Offer,
    bool Evidence,
    PropAdvice? Props,
    IReadOnlyList<string> Checks,
    IReadOnlyList<string> StopSigns,
    int Seconds,
    IReadOnlyList<Segment> Segments,
    IReadOnlyList<PackRound> Rounds,
    string? Prop = null,
    string? Note = null,
    string? Shorter = null
);

/// <param name="HoldSeconds">Seconds in position; none for counted work.</param>
/// <param name="Reps">Repetitions; none for held work.</param>
public sealed record PackRound(int Round, int? HoldSeconds, int? Reps);

/// <summary>What ends, and how much easier the rest goes on.</summary>
/// <param name="Loads">What ends today, besides the named region.</param>
/// <param name="ShorterFirst">Half the settling, where a version has such, before anything gets easier.</param>
/// <param name="WorseFrom">Pain of this and more is another signal.</param>
/// <param name="Worse">That signal.</param>
public sealed record PackStop(
    SignalKind Signal,
    string Name,
    string Advice,
    bool AsksRegion,
    bool AsksPain,
    Ends Ends,
    IReadOnlyList<string> Loads,
    int EasierBy,
    int? WorseFrom,
    SignalKind? Worse,
    bool ShorterFirst = false
);

/// <summary>A day gate of this session, with its own checks. It applies to this session only and moves no stage.</summary>
/// <param name="Gate">The key of its data.</param>
/// <param name="Tests">The slots that are its test; it asks when the last of them is done. None when it is a question alone.</param>
/// <param name="Needs">The slots that need it, each with its own easier version.</param>
/// <param name="FirstTime">It is about what is done for the first time, and not about today.</param>
public sealed record PackGate(
    string Id,
    string Gate,
    string Name,
    string Test,
    Side? Side,
    IReadOnlyList<string> Tests,
    IReadOnlyList<PackNeed> Needs,
    IReadOnlyList<PackCheck> Checks,
    IReadOnlyList<PackInstead> Instead,
    bool FirstTime = false
);

/// <summary>A check with what its answers mean: the page offers those that can be given, and asks no bound.</summary>
/// <param name="Otherwise">What any answer means that is not good, and none.</param>
/// <param name="AtMost">For the runner of before, as is the other bound.</param>
/// <param name="Region">Its number is pain in this region.</param>
/// <param name="Felt">Answers that are a fact about the body as well.</param>
/// <param name="Signal">As what: none where no answer is.</param>
public sealed record PackCheck(
    string Key,
    string Asks,
    DayGateResult Otherwise,
    int? AtMost,
    int? AtLeast,
    LoadTag? Region,
    IReadOnlyList<int> Offered,
    IReadOnlyList<int> Good,
    IReadOnlyList<int> Felt,
    SignalKind? Signal
)
{
    public static PackCheck Of(DayGateCheck check) =>
        new(
            check.Key,
            check.Asks,
            check.Otherwise,
            check.AtMost,
            check.AtLeast,
            check.Region,
            check.Offered(),
            check.Good(),
            check.Felt(),
            check.Signal
        );
}

/// <param name="Easier">The slot's own version when the result is "easier"; none when there is no easier one.</param>
public sealed record PackNeed(string Slot, string? Easier);

/// <summary>What is done instead when a check failed: one for the gate, in the place of the first slot that needed it.</summary>
/// <param name="Slots">What is put in; none when what is planned anyway gets a round more.</param>
/// <param name="More">The slot that is planned anyway.</param>
/// <param name="MoreVersion">Its version with a round more.</param>
public sealed record PackInstead(string Failed, IReadOnlyList<PackSlot> Slots, string? More = null, string? MoreVersion = null);
