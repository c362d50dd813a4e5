using System.ComponentModel.DataAnnotations;
using System.Text.Json.Serialization;
using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>One criterion of a gate, as data.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(RomCriterion), "rom")]
[JsonDerivedType(typeof(HoldCriterion), "hold")]
[JsonDerivedType(typeof(RepsCriterion), "reps")]
[JsonDerivedType(typeof(RateCriterion), "rate")]
[JsonDerivedType(typeof(ExposureCriterion), "exposure")]
[JsonDerivedType(typeof(PainCriterion), "pain")]
[JsonDerivedType(typeof(FormCriterion), "form")]
[JsonDerivedType(typeof(ExitCriterion), "exit")]
[JsonDerivedType(typeof(SymmetryCriterion), "symmetry")]
[JsonDerivedType(typeof(ClearCriterion), "clear")]
public abstract record ReadinessTest
{
    [JsonIgnore]
    public string Kind =>
        this switch
        {
            RomCriterion => "rom",
            HoldCriterion => "hold",
            RepsCriterion => "reps",
            RateCriterion => "rate",
            ExposureCriterion => "exposure",
            PainCriterion => "pain",
            FormCriterion => "form",
            ExitCriterion => "exit",
            SymmetryCriterion => "symmetry",
            _ => "clear",
        };

    /// <summary>Which limb is read; what no limb is named for is the gate's own side.</summary>
    [JsonIgnore]
    public Limb ReadFrom =>
        this switch
        {
            RomCriterion t => t.Limb,
            HoldCriterion t => t.Limb,
            RepsCriterion t => t.Limb,
            RateCriterion t => t.Limb,
            ExitCriterion t => t.Limb,
            FormCriterion or ExposureCriterion => Limb.ThisSide,
            _ => Limb.Bilateral,
        };

    /// <summary>The measure that is read, where one is.</summary>
    [JsonIgnore]
    public string? ReadMeasure =>
        this switch
        {
            RomCriterion t => t.Measure,
            HoldCriterion t => t.Measure,
            RateCriterion t => t.Measure,
            SymmetryCriterion t => t.Measure,
            _ => null,
        };

    /// <summary>For how many days its evidence counts, where the test says so; a measure says it for its readings.</summary>
    [JsonIgnore]
    public int? Shelf =>
        this switch
        {
            HoldCriterion t => t.ShelfDays,
            RepsCriterion t => t.ShelfDays,
            RateCriterion t => t.ShelfDays,
            ExitCriterion t => t.ShelfDays,
            FormCriterion t => t.ShelfDays,
            SymmetryCriterion t => t.ShelfDays,
            _ => null,
        };

    /// <summary>The level of the measure that is read, where it has levels.</summary>
    [JsonIgnore]
    public string? ReadLevel =>
        this switch
        {
            RomCriterion t => t.Level,
            HoldCriterion t => t.Level,
            RateCriterion t => t.Level,
            SymmetryCriterion t => t.Level,
            _ => null,
        };

    /// <summary>The drill whose logged sets are read, where one is.</summary>
    [JsonIgnore]
    public string? ReadDrill =>
        this switch
        {
            HoldCriterion t => t.Drill,
            RepsCriterion t => t.Drill,
            SymmetryCriterion t => t.Drill,
            ExitCriterion t => t.Drill,
            _ => null,
        };

    /// <summary>The drill's variant, where one is named.</summary>
    [JsonIgnore]
    public string? ReadVariant =>
        this switch
        {
            HoldCriterion t => t.Variant,
            RepsCriterion t => t.Variant,
            SymmetryCriterion t => t.Variant,
            ExitCriterion t => t.Variant,
            _ => null,
        };
}

/// <summary>Range of motion, or a line, past a threshold.</summary>
/// <param name="Threshold">In the measure's unit; in degrees of straddle angle when <paramref name="StraddleAngle"/>.</param>
/// <param name="MinTrials">A test of fewer trials counts as borderline at best.</param>
/// <param name="StraddleAngle">The threshold is an angle between the legs, judged in centimetres on the heel distance.</param>
/// <param name="Adaptation">What may stand in for the range, where a coach recorded that it is used.</param>
public sealed record RomCriterion(
    [RegularExpression(Key.Pattern)] string Measure,
    Comparison Comparison,
    [Range(-1000, 1000)] double Threshold,
    Limb Limb = Limb.ThisSide,
    Warmth Warmth = Warmth.Warm,
    int MinTrials = 3,
    [RegularExpression(Key.Pattern)] string? Level = null,
    bool StraddleAngle = false,
    FormItem? Adaptation = null
) : ReadinessTest;

/// <summary>
/// Two attempts of so many seconds, or breaths, at least a minute apart; on two days when the drill is an attempt or the gate asks
/// for it. Held at a measure and level, or at a drill and variant.
/// </summary>
/// <param name="Variant">None: any variant of the drill.</param>
/// <param name="Breaths">In place of seconds, by the student's own breath length.</param>
/// <param name="Quality">An attempt of less, of 5, does not count.</param>
/// <param name="BreathFree">An attempt during which the breath was held does not count.</param>
/// <param name="OrDrill">What is held in this drill, in whatever version, counts as well.</param>
public sealed record HoldCriterion(
    [RegularExpression(Key.Pattern)] string? Drill = null,
    [RegularExpression(Key.Pattern)] string? Variant = null,
    int? Seconds = null,
    int? Breaths = null,
    [RegularExpression(Key.Pattern)] string? Measure = null,
    [RegularExpression(Key.Pattern)] string? Level = null,
    Limb Limb = Limb.ThisSide,
    int? Quality = null,
    bool TwoDays = false,
    bool BreathFree = false,
    int ShelfDays = 21,
    [RegularExpression(Key.Pattern)] string? OrDrill = null
) : ReadinessTest
{
    /// <summary>Seconds to be held.</summary>
    public double Asked(double breathSeconds) => Seconds ?? Breaths!.Value * breathSeconds;

    /// <summary>To whom only short passive holds are left, a long passive one is asked for so long.</summary>
    private const int LightSeconds = 40;
    private const int LongFrom = 45;

    /// <summary>
    /// The same test as it is asked of someone very mobile, or who trains by an approach of short holds: a passive hold of 45 s and more is one of
    /// 40 s. Source: doses, very mobile students; what an approach promises.
    /// </summary>
    /// <param name="staysShort">By the approach.</param>
    public HoldCriterion For(Drill? drill, DayBars bars, bool staysShort) =>
        Seconds >= LongFrom
        && (staysShort || bars[LoadTag.PassiveEndRange] == BarLevel.LightOnly)
        && drill?.Loads.ContainsKey(LoadTag.PassiveEndRange) == true
            ? this with
            {
                Seconds = LightSeconds,
            }
            : this;
}

/// <summary>So many clean repetitions in one set; or, of such as are held, on one day.</summary>
/// <param name="Tempo">How each one is done, in words.</param>
/// <param name="EachSeconds">Each is held for so long: holds of a day are counted, and so are the clean ones of a set.</param>
public sealed record RepsCriterion(
    [RegularExpression(Key.Pattern)] string Drill,
    [RegularExpression(Key.Pattern)] string Variant,
    int Reps,
    Limb Limb = Limb.ThisSide,
    string? Tempo = null,
    int ShelfDays = 21,
    int? EachSeconds = null
) : ReadinessTest;

/// <summary>Of the latest attempts, all counted and made on at least two days, so many succeed.</summary>
public sealed record RateCriterion(
    [RegularExpression(Key.Pattern)] string Measure,
    int Successes,
    int Of,
    Limb Limb = Limb.ThisSide,
    int ShelfDays = 21,
    [RegularExpression(Key.Pattern)] string? Level = null
) : ReadinessTest
{
    [JsonIgnore]
    public double Share => (double)Successes / Of;
}

/// <summary>So many logged sessions with the stage's drills, over at least so many days, since the decision into the stage.</summary>
public sealed record ExposureCriterion(int Sessions, int Days) : ReadinessTest;

/// <summary>No pain above a limit (of 10) in the ladder's regions in the last sessions.</summary>
public sealed record PainCriterion(int AtMost, int Sessions) : ReadinessTest;

/// <summary>Every item ticked by a coach at one sitting.</summary>
public sealed record FormCriterion(IReadOnlyList<FormItem> Items, int ShelfDays = 42) : ReadinessTest;

public sealed record FormItem([RegularExpression(Core.Key.Pattern)] string Key, string Name);

/// <summary>A safe way out, shown so many times of as many.</summary>
/// <param name="Drill">The drill that trains it: by it and the variant a way out is known, whatever the stage that asks for it.</param>
/// <param name="Variant">None: the drill as it is taught first.</param>
/// <param name="Or">Another way out that serves as well: either is shown whole.</param>
public sealed record ExitCriterion(
    string Name,
    [RegularExpression(Key.Pattern)] string Drill,
    int Times,
    Limb Limb = Limb.Bilateral,
    int ShelfDays = 42,
    [RegularExpression(Key.Pattern)] string? Variant = null,
    ExitWay? Or = null
) : ReadinessTest
{
    /// <summary>The ways out of which one is asked for.</summary>
    [JsonIgnore]
    public IReadOnlyList<ExitWay> Ways => Or is null ? [new(Name, Drill, Variant)] : [new(Name, Drill, Variant), Or];
}

/// <summary>A way out by its drill.</summary>
public sealed record ExitWay(
    string Name,
    [RegularExpression(Key.Pattern)] string Drill,
    [RegularExpression(Key.Pattern)] string? Variant = null
);

/// <summary>The left–right difference is at most so much, both sides with enough trials: of a measure, or of a drill's best holds.</summary>
public sealed record SymmetryCriterion(
    double AtMost,
    [RegularExpression(Key.Pattern)] string? Measure = null,
    [RegularExpression(Key.Pattern)] string? Level = null,
    [RegularExpression(Key.Pattern)] string? Drill = null,
    [RegularExpression(Key.Pattern)] string? Variant = null,
    Warmth Warmth = Warmth.Warm,
    int MinTrials = 3,
    int ShelfDays = 21
) : ReadinessTest;

/// <summary>No hold on the ladder's required tags.</summary>
public sealed record ClearCriterion : ReadinessTest;
