using System.Globalization;
using System.Text.Json.Serialization;

namespace Tensarch.Core.Planning;

/// <summary>How much of a drill is done on one side, or on both at once where the drill has no sides.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(HoldDose), "hold")]
[JsonDerivedType(typeof(RampedDose), "ramped")]
[JsonDerivedType(typeof(RepsDose), "reps")]
[JsonDerivedType(typeof(RhythmDose), "rhythm")]
[JsonDerivedType(typeof(SupportLadderDose), "supportLadder")]
[JsonDerivedType(typeof(AttemptsDose), "attempts")]
[JsonDerivedType(typeof(FlowDose), "flow")]
public abstract record Dose
{
    /// <summary>How many times the work comes, with a rest between.</summary>
    [JsonIgnore]
    public abstract int Repeats { get; }

    public abstract Dose WithRepeats(int repeats);

    /// <summary>The same dose with its times of holding cut to a share, to whole seconds (rule of absence and of pain events).</summary>
    /// <param name="share">Above 0, at most 1.</param>
    public abstract Dose Lightened(double share);

    /// <summary>The same dose with its passive settling cut to a share: of a ramp what lies between the contractions, of a hold all of it.</summary>
    /// <param name="share">Above 0, at most 1.</param>
    public Dose Settled(double share) =>
        this switch
        {
            RampedDose d => d with { SettleSeconds = Cut(d.SettleSeconds, share), ResettleSeconds = Cut(d.ResettleSeconds, share) },
            HoldDose or SupportLadderDose => Lightened(share),
            _ => this,
        };

    private protected static int Cut(int amount, double share) => Math.Max(1, (int)Math.Floor(amount * share + 1e-9));
}

/// <summary>A counted hold, in seconds or in breaths of the student's own length.</summary>
public sealed record HoldDose(int? Seconds, int? Breaths, int Rounds, int RestSeconds) : Dose
{
    public override int Repeats => Rounds;

    public override Dose WithRepeats(int repeats) => this with { Rounds = repeats };

    public override Dose Lightened(double share) =>
        this with
        {
            Seconds = Seconds is { } s ? Cut(s, share) : null,
            Breaths = Breaths is { } b ? Cut(b, share) : null,
        };
}

/// <summary>Settle, then rounds of press, lift and resettle; the effort rises from p₀ to p₁ and stays there for the last seconds.</summary>
/// <param name="PlateauSeconds">m: the last seconds of press and of lift at the top effort; 0 ≤ m &lt; press and lift.</param>
public sealed record RampedDose(
    int SettleSeconds,
    int PressSeconds,
    int LiftSeconds,
    int ResettleSeconds,
    int Rounds,
    int FromPercent,
    int ToPercent,
    int PlateauSeconds
) : Dose
{
    public override int Repeats => Rounds;

    public override Dose WithRepeats(int repeats) => this with { Rounds = repeats };

    public override Dose Lightened(double share) =>
        this with
        {
            SettleSeconds = Cut(SettleSeconds, share),
            ResettleSeconds = Cut(ResettleSeconds, share),
            ToPercent = Math.Max(FromPercent, (int)Math.Floor(ToPercent * share + 1e-9)),
        };

    public RampedDose CappedAt(int topPercent) =>
        this with
        {
            ToPercent = Math.Min(ToPercent, topPercent),
            FromPercent = Math.Min(FromPercent, topPercent),
        };
}

/// <summary>Counted repetitions.</summary>
/// <param name="SecondsPerRep">Default tempos: a repetition 4 s, a circle 3 s, a flip 2 s.</param>
public sealed record RepsDose(int Reps, int Sets, int RestSeconds, int SecondsPerRep) : Dose
{
    public override int Repeats => Sets;

    public override Dose WithRepeats(int repeats) => this with { Sets = repeats };

    public override Dose Lightened(double share) => this with { Reps = Cut(Reps, share) };
}

/// <summary>Slow repetitions in and out, one breath each.</summary>
public sealed record RhythmDose(int Reps) : Dose
{
    public override int Repeats => 1;

    public override Dose WithRepeats(int repeats) => this;

    public override Dose Lightened(double share) => this with { Reps = Cut(Reps, share) };
}

/// <summary>The same position, lowered step by step.</summary>
public sealed record SupportLadderDose(IReadOnlyList<Rung> Rungs, int Rounds, int RestSeconds) : Dose
{
    public override int Repeats => Rounds;

    public override Dose WithRepeats(int repeats) => this with { Rounds = repeats };

    public override Dose Lightened(double share) =>
        this with
        {
            Rungs = [.. Rungs.Select(r => r with { Seconds = Cut(r.Seconds, share) })],
        };

    /// <summary>With what is there: without a block for each hand, every rung that stands on one stands on chairs, as one.</summary>
    public SupportLadderDose Owned(int blocks)
    {
        if (blocks >= 2)
            return this;
        var onBlocks = Rungs.Where(r => r.OnBlocks).ToList();
        return onBlocks.Count == 0
            ? this
            : this with
            {
                Rungs = [new("Two chairs", "chair", onBlocks.Sum(r => r.Seconds)), .. Rungs.Where(r => !r.OnBlocks)],
            };
    }

    /// <summary>
    /// From the advised height downwards, named by its centimetres. What the advice cannot name, a bench, stays; so do the seconds:
    /// where fewer heights are left than rungs, the last one has the rest.
    /// </summary>
    /// <param name="blocksOwned">Both hands together.</param>
    public SupportLadderDose Advised(PropAdvice advice, int blocksOwned)
    {
        if (Rungs.Any(r => r.Face == "none"))
            return this;
        var heights = advice.Down(Rungs.Count, blocksOwned);
        return this with
        {
            Rungs = [.. heights.Select((h, i) => Rung.At(h, i < heights.Count - 1 ? Rungs[i].Seconds : Rungs.Skip(i).Sum(r => r.Seconds)))],
        };
    }
}

/// <param name="Face">The block face under the hands: high, middle, low; or stack, chair, floor, or none.</param>
public sealed record Rung(string Name, string Face, int Seconds)
{
    [JsonIgnore]
    public bool OnBlocks => Face is "high" or "middle" or "low" or "stack";

    public static Rung At(PropAdvice height, int seconds) =>
        height.HeightCm == 0 ? new("Floor", "floor", seconds)
        : height.Faces.Count == 0 ? new($"Chairs at {Cm(height.HeightCm)}", "chair", seconds)
        : new(
            $"Blocks at {Cm(height.HeightCm)}",
            height.Faces.Count > 1 ? "stack" : height.Faces[0].ToString().ToLowerInvariant(),
            seconds
        );

    private static string Cm(double cm) => $"{cm.ToString(CultureInfo.InvariantCulture)} cm";
}

/// <summary>Tries at a position, each logged with its time.</summary>
public sealed record AttemptsDose(int Attempts, int MaxSeconds, int RestSeconds) : Dose
{
    public override int Repeats => Attempts;

    public override Dose WithRepeats(int repeats) => this with { Attempts = repeats };

    public override Dose Lightened(double share) => this with { MaxSeconds = Cut(MaxSeconds, share) };
}

/// <summary>A list of positions, each for breaths or seconds, in rounds.</summary>
public sealed record FlowDose(IReadOnlyList<FlowPosition> Positions, int Rounds, int RestSeconds) : Dose
{
    public override int Repeats => Rounds;

    public override Dose WithRepeats(int repeats) => this with { Rounds = repeats };

    public override Dose Lightened(double share) =>
        this with
        {
            Positions = [.. Positions.Select(p => p with { Seconds = p.Seconds is { } s ? Cut(s, share) : null })],
        };
}

public sealed record FlowPosition(string Name, int? Breaths, int? Seconds);
