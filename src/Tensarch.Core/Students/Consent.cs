namespace Tensarch.Core.Students;

/// <summary>What somebody may say yes or no to.</summary>
public enum ConsentKind
{
    /// <summary>To train: no session without it.</summary>
    Training,

    /// <summary>To be pictured, and to have the pictures shown: no picture without it.</summary>
    Pictures,

    /// <summary>To be touched where it helps.</summary>
    Touch,

    /// <summary>To be measured, and to what is written down.</summary>
    Records,

    /// <summary>A guardian's, that someone under 18 trains.</summary>
    Guardian,
}

/// <summary>A yes or a no, as it was said on a day; the newest of a kind stands.</summary>
/// <param name="On">The day on which it was said, in the studio's time zone.</param>
/// <param name="At">When it was written down.</param>
/// <param name="Order">Settles which of two of one instant is the newer.</param>
public sealed record Consent(ConsentKind Kind, bool Given, DateOnly On, DateTimeOffset At, long Order = 0);

/// <summary>What stands of all that was said.</summary>
public sealed class Consents
{
    private readonly Dictionary<ConsentKind, Consent> newest;
    private readonly bool needed;

    /// <param name="needed">They began when a consent to train was asked of everybody: until it is there, nothing is trained.</param>
    public Consents(IEnumerable<Consent> all, bool needed)
    {
        newest = all.GroupBy(c => c.Kind).ToDictionary(g => g.Key, g => g.MaxBy(c => (c.At, c.Order))!);
        this.needed = needed;
    }

    /// <summary>The newest of its kind; none while it was not asked.</summary>
    public Consent? this[ConsentKind kind] => newest.GetValueOrDefault(kind);

    public bool IsGiven(ConsentKind kind) => this[kind] is { Given: true };

    public bool IsRefused(ConsentKind kind) => this[kind] is { Given: false };

    /// <summary>Nothing is trained: it was refused or withdrawn, or never asked of someone of whom it must be.</summary>
    public bool BarTraining => this[ConsentKind.Training] is { } said ? !said.Given : needed;

    /// <summary>What is asked at the next start.</summary>
    /// <param name="minor">They are under 18: a guardian is asked too.</param>
    public IReadOnlyList<ConsentKind> Unasked(bool minor) =>
        [.. Enum.GetValues<ConsentKind>().Where(k => this[k] is null && (minor || k != ConsentKind.Guardian))];
}
