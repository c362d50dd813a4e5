using System.ComponentModel.DataAnnotations;
using Tensarch.Core;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Server.Sessions;

/// <summary>What the floor tells, entry by entry: each with the event that was said and the facts that it made.</summary>
/// <param name="SentAt">The device's clock at sending: what it is off by is taken out of every instant.</param>
/// <param name="Author">Who said it: nobody else sends it. Whoever is signed in when none is named.</param>
/// <param name="Device">The device that tells; it says the same of itself each time.</param>
public sealed record TellRequest(
    DateTimeOffset SentAt,
    [MaxLength(TellRequest.Most)] IReadOnlyList<FloorEntry> Entries,
    Guid? Author = null,
    Guid? Device = null
)
{
    /// <summary>Entries in one request.</summary>
    public const int Most = 50;

    /// <summary>Facts in one request, of all entries.</summary>
    public const int MostFacts = 200;
}

public sealed record FloorEntry(FloorEvent Event, [MaxLength(20)] IReadOnlyList<FloorFact> Facts);

/// <param name="Session">The session that is run.</param>
/// <param name="Seq">Counts up on the device.</param>
/// <param name="Said">The event, as JSON of the runner's own.</param>
/// <param name="Plan">The number of the plan that is run, as the pack had it.</param>
public sealed record FloorEvent(
    Guid Id,
    Guid Session,
    [Range(0, 1_000_000)] int Seq,
    DateTimeOffset At,
    [Required, StringLength(4000)] string Said,
    [Range(-1_000_000, 1_000_000)] int? Plan = null
);

public enum FloorFactKind
{
    Set,
    Signal,
    Gate,

    /// <summary>A round that a gate reads was done, with its number.</summary>
    Confirmed,
    Quality,
    Finished,
}

/// <summary>One fact of the floor; which fields it has depends on its kind.</summary>
/// <param name="Of">The set that is confirmed, or whose quality is said.</param>
/// <param name="Quality">Of a set, where it is said with it; else of the set that is named.</param>
public sealed record FloorFact(
    Guid Id,
    FloorFactKind Kind,
    DateTimeOffset At,
    [RegularExpression(Key.Pattern)] string? Drill = null,
    [RegularExpression(Key.Pattern)] string? Variant = null,
    Side? Side = null,
    [Range(0, 100)] int? Round = null,
    [Range(0, LoggedSet.LongestSeconds)] double? Seconds = null,
    [Range(0, 500)] int? CleanReps = null,
    bool? Confirmed = null,
    SignalKind? Signal = null,
    LoadTag? Region = null,
    [Range(0, 10)] int? Pain = null,
    [RegularExpression(Key.Pattern)] string? Gate = null,
    [MaxLength(20)] IReadOnlyList<GateAnswer>? Answers = null,
    Guid? Of = null,
    [Range(1, 5)] int? Quality = null,
    [RegularExpression(Key.Pattern)] string? Place = null
);

public sealed record GateAnswer([RegularExpression(Key.Pattern)] string Check, [Range(0, 100)] int Answer);

public enum ToldIs
{
    Stored,

    /// <summary>A retry: it was there already.</summary>
    Same,

    /// <summary>Its id has another body already; it was not stored.</summary>
    Clash,
    Refused,

    /// <summary>The session is not there.</summary>
    Gone,
}

/// <param name="Code">Why it was refused.</param>
public sealed record Told(Guid Event, ToldIs Is, string? Code = null, string? Field = null);

/// <summary>One answer to each entry, in their order.</summary>
/// <param name="Ended">By session, what bars keep from being done from now on: the runner stops every version with one of these loads.</param>
/// <param name="Doubled">Sessions that another device runs too, without having heard of this one: what was told now is kept, and counts for no gate.</param>
public sealed record TellResponse(
    IReadOnlyList<Told> Told,
    IReadOnlyDictionary<Guid, IReadOnlyList<string>> Ended,
    IReadOnlyList<Guid> Doubled
);
