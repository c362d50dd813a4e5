using System.ComponentModel.DataAnnotations;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Students;

/// <summary>What is said of a fact instead, field by field: what is none stays as it was.</summary>
/// <param name="Times">Of a way out: how many times it was tried.</param>
public sealed record Instead(
    bool? Confirmed = null,
    [Range(0, LoggedSet.LongestSeconds)] double? Seconds = null,
    [Range(0, 500)] int? CleanReps = null,
    [Range(1, 5)] int? Quality = null,
    [RegularExpression(Key.Pattern)] string? Variant = null,
    SignalKind? Signal = null,
    LoadTag? Region = null,
    Side? Side = null,
    [Range(0, 10)] int? Pain = null,
    [MaxLength(40), RegularExpression(Key.Pattern)] IReadOnlyList<string>? Ticked = null,
    [Range(0, 100)] int? Safe = null,
    [Range(1, 100)] int? Times = null
)
{
    public Instead With(Instead newer) =>
        new(
            newer.Confirmed ?? Confirmed,
            newer.Seconds ?? Seconds,
            newer.CleanReps ?? CleanReps,
            newer.Quality ?? Quality,
            newer.Variant ?? Variant,
            newer.Signal ?? Signal,
            newer.Region ?? Region,
            newer.Side ?? Side,
            newer.Pain ?? Pain,
            newer.Ticked ?? Ticked,
            newer.Safe ?? Safe,
            newer.Times ?? Times
        );
}

/// <summary>A fact about a fact.</summary>
/// <param name="Of">The fact that it is about.</param>
/// <param name="Instead">What is said of it now; none when it counts for nothing.</param>
public sealed record Correction(Guid Id, Guid Of, DateTimeOffset At, Instead? Instead);

/// <summary>The corrections of some facts: of two about one, what the newer says stands, field by field; the order of arrival does not matter.</summary>
public sealed class Corrections(IEnumerable<Correction> all)
{
    private readonly ILookup<Guid, Correction> byFact = all.OrderBy(c => c.At).ThenBy(c => c.Id).ToLookup(c => c.Of);

    /// <summary>The newest word is that it counts for nothing.</summary>
    public bool IsGone(Guid fact) => byFact[fact].LastOrDefault() is { Instead: null };

    public Instead Of(Guid fact) =>
        byFact[fact].Select(c => c.Instead).OfType<Instead>().Aggregate(new Instead(), (all, one) => all.With(one));

    /// <summary>As it stands; none when it counts for nothing.</summary>
    private T? Standing<T>(Guid id, T fact, Func<T, Instead, T> with)
        where T : class => IsGone(id) ? null : with(fact, Of(id));

    /// <summary>A set as it stands, for the gates.</summary>
    /// <param name="confirmed">A hand said that it was done; else it was practice: it is trained, and proves nothing.</param>
    public LoggedSet? Apply(LoggedSet set, bool confirmed) =>
        set.Session is { } session && IsGone(session)
            ? null
            : Standing(
                set.Id,
                set,
                (s, i) =>
                    s with
                    {
                        Variant = i.Variant ?? s.Variant,
                        Side = i.Side ?? s.Side,
                        Seconds = i.Confirmed ?? confirmed ? i.Seconds ?? s.Seconds : null,
                        CleanReps = i.Confirmed ?? confirmed ? i.CleanReps ?? s.CleanReps : null,
                        Quality = i.Quality ?? s.Quality,
                    }
            );

    public BodySignal? Apply(BodySignal signal) =>
        Standing(
            signal.Id,
            signal,
            (s, i) =>
                s with
                {
                    Kind = i.Signal ?? s.Kind,
                    Region = i.Region ?? s.Region,
                    Side = i.Side ?? s.Side,
                    Pain = i.Pain ?? s.Pain,
                    RecordedAt = SaidAgain(s.Id) is { } again && again > s.RecordedAt ? again : s.RecordedAt,
                }
        );

    /// <summary>When a signal was last made another one, or stood again after it had been struck out: what was recorded before that knows nothing of it.</summary>
    private DateTimeOffset? SaidAgain(Guid signal)
    {
        var (struck, again) = (false, (DateTimeOffset?)null);
        foreach (var said in byFact[signal])
        {
            if (struck || said.Instead is { Signal: not null } or { Region: not null } or { Pain: not null })
                again = said.At;
            struck = said.Instead is null;
        }
        return again;
    }

    public FormCheck? Apply(FormCheck form) => Standing(form.Id, form, (f, i) => f with { Ticked = i.Ticked ?? f.Ticked });

    public ExitCheck? Apply(ExitCheck exit) =>
        Standing(exit.Id, exit, (e, i) => e with { Safe = i.Safe ?? e.Safe, Of = i.Times ?? e.Of, Side = i.Side ?? e.Side });
}
