using System.Text.Json.Serialization;
using Tensarch.Core.Measuring;

namespace Tensarch.Core.Skills;

/// <summary>One criterion of a gate, as data.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(RomCriterion), "rom")]
[JsonDerivedType(typeof(HoldCriterion), "hold")]
[JsonDerivedType(typeof(RepsCriterion), "reps")]
[JsonDerivedType(typeof(ExposureCriterion), "exposure")]
[JsonDerivedType(typeof(PainCriterion), "pain")]
[JsonDerivedType(typeof(FormCriterion), "form")]
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
            ExposureCriterion => "exposure",
            PainCriterion => "pain",
            FormCriterion => "form",
            SymmetryCriterion => "symmetry",
            _ => "clear",
        };
}

/// <summary>Which limb a test on a side reads: in a front split the rear hip is the other side's.</summary>
public enum Limb
{
    ThisSide,
    OtherSide,
}

/// <param name="MinTrials">A test of fewer trials counts as borderline at best.</param>
public sealed record RomCriterion(
    string Measure,
    Comparison Comparison,
    double Threshold,
    Limb Limb = Limb.ThisSide,
    Warmth Warmth = Warmth.Warm,
    int MinTrials = 3
) : ReadinessTest
{
    public Side ReadOn(Side side) => Limb == Limb.ThisSide ? side : side.Other();
}

/// <summary>Two attempts of so many seconds; on two days when the drill is an attempt.</summary>
public sealed record HoldCriterion(string Drill, string Variant, int Seconds, int? Quality = null, int ShelfDays = 21) : ReadinessTest;

/// <summary>So many clean repetitions in one set.</summary>
public sealed record RepsCriterion(string Drill, string Variant, int Reps, int ShelfDays = 21) : ReadinessTest;

/// <summary>So many logged sessions with the stage's drills, over at least so many days, since the decision into the stage.</summary>
public sealed record ExposureCriterion(int Sessions, int Days) : ReadinessTest;

/// <summary>No pain above a limit (of 10) in the ladder's regions in the last sessions.</summary>
public sealed record PainCriterion(int AtMost, int Sessions) : ReadinessTest;

/// <summary>Every item ticked by a coach at one sitting.</summary>
public sealed record FormCriterion(IReadOnlyList<FormItem> Items, int ShelfDays = 42) : ReadinessTest;

public sealed record FormItem(string Key, string Name);

/// <summary>The left–right difference is at most so much, both sides with enough trials.</summary>
public sealed record SymmetryCriterion(string Measure, double AtMost, Warmth Warmth = Warmth.Warm, int MinTrials = 3) : ReadinessTest;

/// <summary>No hold on the ladder's required tags.</summary>
public sealed record ClearCriterion : ReadinessTest;
