using System.Security.Cryptography;
using System.Text;

namespace Tensarch.Core.Students;

/// <summary>What is said of one place of the body before a session.</summary>
public enum FeltKind
{
    /// <summary>Injured within the last 14 days.</summary>
    Injury,

    /// <summary>Sore now.</summary>
    Sore,

    /// <summary>Painful now.</summary>
    Pain,

    /// <summary>How sore it was on the day after the last session.</summary>
    SoreAfter,

    /// <summary>How painful it was on the day after the last session.</summary>
    PainAfter,
}

/// <summary>One place, and how much of it.</summary>
/// <param name="Place">A key of <see cref="BodyPlaces"/>.</param>
/// <param name="Side">Where the place has sides.</param>
/// <param name="Level">0 to 10; of an injury it says nothing.</param>
public sealed record Felt(FeltKind Kind, string Place, Side? Side, int Level)
{
    public BodyPlace Where => BodyPlaces.Find(Place) ?? throw new KeyNotFoundException(Place);

    public LoadTag Region => Where.Region;
}

/// <summary>
/// What was said on a day before a session, in half a minute. The newest of a day stands. Source: judgement, day check-in and next-day soreness.
/// </summary>
/// <param name="TrainedHard">Other hard training in the last 24 hours.</param>
public sealed record CheckIn(
    Guid Id,
    DateOnly Day,
    DateTimeOffset At,
    bool SleptBadly,
    bool Ill,
    bool TrainedHard,
    IReadOnlyList<Felt> Felt
)
{
    /// <summary>Sore as much as this, of 10, and the region is light only.</summary>
    public const int LightFrom = 6;

    /// <summary>Sore as much as this, and what loads the region has one round fewer.</summary>
    public const int FewerFrom = 4;

    /// <summary>Painful as much as this, and the region rests.</summary>
    public const int PainFrom = 4;

    /// <summary>After a bad day after, the region takes no step for so many days.</summary>
    public const int NoStepDays = 7;

    /// <summary>The one of each day that stands: what was said last.</summary>
    public static IReadOnlyList<CheckIn> Standing(IEnumerable<CheckIn> all) =>
        [.. all.GroupBy(c => c.Day).Select(day => day.MaxBy(c => (c.At, c.Id))!).OrderBy(c => c.Day)];

    /// <summary>Pain that was said is pain like any other: it counts where pain is counted.</summary>
    public IEnumerable<BodySignal> Signals() =>
        Felt.Where(f => f is { Kind: FeltKind.Pain, Level: > 0 })
            .Select(f => new BodySignal(IdOf(f), At, SignalKind.DullPain, f.Region, f.Side, f.Level) { Place = f.Place });

    /// <summary>What is off limits or light only on the day.</summary>
    internal IEnumerable<BarReason> Bars()
    {
        if (Ill)
            foreach (var tag in LoadTags.All)
                yield return Today(tag, BarLevel.OffLimits, "ill");
        foreach (var felt in Felt)
            if (felt.Kind == FeltKind.Injury)
                yield return Today(felt.Region, BarLevel.OffLimits, "newInjury");
            else if (felt is { Kind: FeltKind.Pain, Level: >= PainFrom })
                yield return Today(felt.Region, BarLevel.OffLimits, "painToday");
            else if (felt is { Kind: FeltKind.Sore, Level: >= LightFrom })
                yield return Today(felt.Region, BarLevel.LightOnly, "soreToday");
    }

    private BarReason Today(LoadTag tag, BarLevel level, string code) => new(tag, level, code, LiftedBy.NextDay, Since: At);

    /// <summary>What is a round less on the day.</summary>
    internal IEnumerable<Eased> Fewer()
    {
        if (SleptBadly || TrainedHard)
            yield return new(null, null, 1, 0, FewerRounds: 1);
        foreach (
            var region in Felt.Where(f => f is { Kind: FeltKind.Sore, Level: >= FewerFrom and < LightFrom })
                .Select(f => f.Region)
                .Distinct()
        )
            yield return new(region, null, 1, 0, FewerRounds: 1);
    }

    /// <summary>Regions that felt too much on the day after: they take no step this week.</summary>
    internal IEnumerable<LoadTag> NoStep() =>
        Felt.Where(f => f is { Kind: FeltKind.SoreAfter, Level: >= LightFrom } or { Kind: FeltKind.PainAfter, Level: >= PainFrom })
            .Select(f => f.Region)
            .Distinct();

    /// <summary>The same at every look.</summary>
    private Guid IdOf(Felt felt) => new(SHA256.HashData(Encoding.UTF8.GetBytes($"{Id:N}/{felt.Place}/{felt.Side}")).AsSpan(0, 16));
}
