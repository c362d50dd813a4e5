using System.Text.Json.Serialization;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>One planned session: drills in the order in which they are done.</summary>
/// <param name="Minutes">What the day allows.</param>
/// <param name="FirstSide">The side that goes first in every drill with sides.</param>
/// <param name="Notes">Every rule that shaped the session, as codes.</param>
/// <param name="Skill">The first skill; the ladder's own key where it is none.</param>
/// <param name="Beside">The other skills that it is for.</param>
/// <param name="Bent">What a coach's hand bent of a good session's rules, as codes; none while nobody changed it.</param>
/// <param name="Format">Which product made it: one of before that has not begun is made again, one that was run stays readable.</param>
public sealed record SessionPlan(
    string Ladder,
    int LadderVersion,
    string Approach,
    string? Standard,
    DateOnly Date,
    int Minutes,
    Side FirstSide,
    double BreathSeconds,
    IReadOnlyList<PlannedDrill> Drills,
    IReadOnlyList<PlanNote> Notes,
    int Format = 1,
    string? Skill = null,
    IReadOnlyList<PlannedSkill>? Beside = null,
    IReadOnlyList<string>? Bent = null
)
{
    public const int CurrentFormat = 4;

    /// <summary>What it is for, the first one first.</summary>
    [JsonIgnore]
    public IReadOnlyList<PlannedSkill> Skills =>
        [new(Skill ?? Ladder, Ladder, LadderVersion, Approach, Standard, FirstSide), .. Beside ?? []];

    /// <summary>The stage below its own that a side trains, where none of its own core was allowed.</summary>
    public int? LowerStage(string skill, Side side) =>
        (int?)
            Notes
                .FirstOrDefault(n => n.Code == "lowerStage" && (n.Skill is null || n.Skill == skill) && (n.Side is null || n.Side == side))
                ?.Number;
}

/// <summary>One skill of a session, on the ladder and under the approach that were followed when it was made.</summary>
/// <param name="FirstSide">The side that goes first in its drills.</param>
public sealed record PlannedSkill(string Skill, string Ladder, int LadderVersion, string Approach, string? Standard, Side FirstSide);

/// <param name="Id">Unique within the session.</param>
/// <param name="Reason">Why the drill is there, as a code: see <see cref="DrillReason"/>.</param>
/// <param name="Skill">The skill that it is planned for, and counts for; none in a plan for one skill from before there were several.</param>
/// <param name="Prop">What a coach wants under it, in words, in place of the advice.</param>
/// <param name="Cue">What a coach wants said to this student, in place of the first cue.</param>
/// <param name="Note">A coach's note on it for this student.</param>
public sealed record PlannedDrill(
    string Id,
    string Drill,
    DrillReason Reason,
    IReadOnlyList<PlannedSide> Sides,
    string? Skill = null,
    string? Prop = null,
    string? Cue = null,
    string? Note = null
);

/// <summary>One side of a planned drill, or the whole of one without sides.</summary>
/// <param name="Stage">The stage of the skill it trains.</param>
public sealed record PlannedSide(Side? Side, int Stage, string Variant, Dose Dose, PropAdvice? Props, string? EasedFrom = null);

/// <summary>Why a drill is in the session.</summary>
/// <param name="Code">
/// <c>warmUp</c>, <c>preparesRegions</c>, <c>wristsBeforeHands</c>, <c>stageWork</c>, <c>gateAsksHold</c>, <c>gateAsksReps</c>, <c>strengthForStage</c>,
/// <c>dayGate</c>, <c>attempt</c>, <c>counter</c>, <c>calm</c>, <c>core</c>, <c>standIn</c>, <c>practice</c>, <c>practiceReps</c>, <c>wayOut</c>, <c>companion</c>,
/// <c>leadIn</c>.
/// </param>
/// <param name="Stage">The stage it serves, where it serves one.</param>
/// <param name="Number">Seconds or repetitions that the gate asks for.</param>
/// <param name="Best">The student's own best that counts, in seconds.</param>
/// <param name="For">What it leads into, where it does.</param>
/// <param name="Phase">The phase at whose head it leads in.</param>
public sealed record DrillReason(
    string Code,
    int? Stage = null,
    int? Number = null,
    Side? Side = null,
    int? Best = null,
    string? For = null,
    SessionPhase? Phase = null
)
{
    [JsonIgnore]
    public bool TestsDay => Code == "dayGate";

    [JsonIgnore]
    public bool LeadsIn => Code == "leadIn";

    /// <summary>It may stand beside the same drill done for itself, and is as long as it is.</summary>
    [JsonIgnore]
    public bool IsAid => TestsDay || LeadsIn;
}

/// <summary>A rule that shaped the session.</summary>
/// <param name="Code">
/// <c>offLimits</c>, <c>lightOnly</c>, <c>lightWork</c> (the tag is light only: what loads it is half of what it would be, with the ceiling of sensation), <c>lightDay</c>, <c>weekLoad</c> (of the tag no more is left), <c>eased</c>, <c>spacing</c>, <c>firstWeek</c>, <c>attemptDelay</c>, <c>weakerFirst</c>, <c>extraRound</c>, <c>sidesAlternate</c>,
/// <c>reBaseline</c>, <c>lighterAfterBreak</c>, <c>wayBack</c> (sessions that it still takes), <c>repeatLastWeek</c>, <c>lighterAfterPain</c>, <c>easierAfterPain</c>, <c>easierAfterBackOff</c>, <c>shorterAfterCeiling</c>, <c>oneRoundFewer</c> (of what loads the tag, or of all), <c>noStep</c>, <c>notEnoughToDo</c>, <c>didNotFit</c>, <c>notPrepared</c>,
/// <c>longestDay</c> (minutes that one skill fills), <c>lowerStage</c> (whose core is allowed),
/// <c>wristRest</c>, <c>neckRest</c>, <c>wayOutFirst</c>, <c>instead</c>, <c>otherSkillHeavy</c> (another skill of the day loads the tag heavily),
/// <c>skillLeftOut</c> (with the minutes from which a day takes it).
/// </param>
/// <param name="Skill">The skill that it is about, where there are several.</param>
public sealed record PlanNote(
    string Code,
    string? Drill = null,
    LoadTag? Tag = null,
    Side? Side = null,
    double? Number = null,
    DateOnly? Date = null,
    string? Skill = null
);
