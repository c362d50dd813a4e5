using System.ComponentModel.DataAnnotations;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting.Door;
using Tensarch.Server.Planning;
using Tensarch.Server.Students;

namespace Tensarch.Server.Sessions;

/// <summary>A lesson that was held without the runner: as planned, except for what is said.</summary>
/// <param name="EndedAt">Now when none is given; at most 30 days ago.</param>
/// <param name="EndedLocal">Said by the studio's clock, in place of <paramref name="EndedAt"/>: whatever the zone of the device is.</param>
/// <param name="Parts">What was not done, or otherwise than planned.</param>
/// <param name="CarryOver">A note for the start of the next session.</param>
public sealed record LogRequest(
    Guid Id,
    [NotFuture] DateTimeOffset? EndedAt,
    [MaxLength(100)] IReadOnlyList<LoggedPart> Parts,
    [MaxLength(20)] IReadOnlyList<LoggedSignal> Signals,
    [StringLength(2000)] string? CarryOver = null,
    [RegularExpression(LogRequest.LocalPattern)] string? EndedLocal = null
)
{
    /// <summary>A day and a minute, as a page has them.</summary>
    public const string LocalPattern = @"^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$";
}

/// <param name="Part">The id of the part on the sheet.</param>
/// <param name="Seen">What was seen of single rounds: where a gate reads the part, those are its proof, one by one.</param>
public sealed record LoggedPart(
    [Required, StringLength(120)] string Part,
    bool Done = true,
    [Range(1, HandLog.MostRounds)] int? Rounds = null,
    [Range(1, LoggedSet.LongestSeconds)] double? Seconds = null,
    [Range(0, 500)] int? CleanReps = null,
    [MaxLength(HandLog.MostRounds)] IReadOnlyList<LoggedRound>? Seen = null
);

/// <inheritdoc cref="SeenRound"/>
public sealed record LoggedRound([Range(1, HandLog.MostRounds)] int Round, [Range(0, LoggedSet.LongestSeconds)] double Number);

public sealed record LoggedSignal(
    SignalKind Signal,
    LoadTag? Region,
    [Range(0, 10)] int? Pain,
    Side? Side = null,
    [RegularExpression(Key.Pattern)] string? Place = null
);

/// <summary>Writes down a lesson by hand, through the same door as the floor: barred work is no more taken from a hand than from the runner.</summary>
public sealed class LogDesk(TensarchDb db, CatalogueContent catalogue, PlanDesk plans, FloorDesk floor, NoteDesk notes, StudioClock clock)
{
    public async Task<Result<SessionRow>> Log(Guid id, LogRequest request, CancellationToken ct)
    {
        var row = await db.WholeSessions.AsNoTracking().SingleAsync(s => s.Id == id, ct);
        var again = await db.Events.AnyAsync(e => e.Id == Derived(request.Id, "ended"), ct);
        if (row.Training?.EndedAt is not null)
            return again ? row : Problem.Of("sessionOver", "id");
        if (plans.Read(row) is not { } plan)
            return Problem.Of("planUnreadable", "id");
        // What is for another day was judged for that one: it is moved first, where the rules let it.
        if (row.Date > clock.Today)
            return Problem.Of("forLater", "id");
        var ladders = await plans.LaddersOf(plan, ct);
        var said = request
            .Parts.Select(p => new SaidOfPart(
                p.Part,
                p.Done,
                p.Rounds,
                p.Seconds,
                p.CleanReps,
                p.Seen?.Select(r => new SeenRound(r.Round, r.Number)).ToList()
            ))
            .ToList();
        var rounds = HandLog.Of(plan, said, ladders, catalogue);
        if (!rounds.IsOk)
            return rounds.Problems.ToList();

        var typed = Ended(request.EndedLocal);
        if (!typed.IsOk)
            return typed.Problems.ToList();
        var ended = typed.Value ?? request.EndedAt ?? clock.Now;
        var begun = ended.AddSeconds(-row.Planned.TotalSeconds);
        var seq = await db.Events.Where(e => e.SessionId == id).MaxAsync(e => (int?)e.Seq, ct) ?? 0;
        var entries = Entries(row, request, rounds.Value, begun, ended, seq);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        foreach (var batch in entries.Chunk(TellRequest.Most))
        {
            var told = await floor.Tell(new(clock.Now, batch), ct, byHand: true);
            if (told.Told.FirstOrDefault(t => t.Is is ToldIs.Refused or ToldIs.Clash or ToldIs.Gone) is { } refused)
            {
                await transaction.RollbackAsync(ct);
                db.ChangeTracker.Clear();
                var part = rounds.Value.FirstOrDefault(r => Derived(request.Id, r.Part) == refused.Event)?.Part;
                var signal = Enumerable.Range(0, request.Signals.Count).Where(i => Derived(request.Id, $"signal/{i}") == refused.Event);
                var field = part is not null ? $"parts.{part}" : signal.Select(i => $"signals.{i}").FirstOrDefault("id");
                return Problem.Of(refused.Code ?? "clash", field);
            }
        }
        if (!string.IsNullOrWhiteSpace(request.CarryOver))
            await notes.Write(row.StudentId, new(Derived(request.Id, "carry-over"), request.CarryOver, CarryOver: true), ct);
        await transaction.CommitAsync(ct);
        return await db.WholeSessions.AsNoTracking().SingleAsync(s => s.Id == id, ct);
    }

    private Result<DateTimeOffset?> Ended(string? local)
    {
        if (local is null)
            return (DateTimeOffset?)null;
        if (!DateTime.TryParseExact(local, "yyyy-MM-ddTHH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var read))
            return Problem.Of("notADate", "endedAt");
        return clock.AtTyped(read) is not { } at ? Problem.Of("noSuchTime", "endedAt")
            : at > clock.Now ? Problem.Of("dateInFuture", "endedAt")
            : at;
    }

    private static List<FloorEntry> Entries(
        SessionRow row,
        LogRequest request,
        IReadOnlyList<RoundDone> rounds,
        DateTimeOffset begun,
        DateTimeOffset ended,
        int seq
    )
    {
        FloorEvent Said(string what, DateTimeOffset at) =>
            new(Derived(request.Id, what), row.Id, ++seq, at, """{"is":"logged"}""", row.Plan);
        var entries = new List<FloorEntry>();
        foreach (var part in rounds.GroupBy(r => r.Part))
            entries.Add(
                new(
                    Said(part.Key, begun.AddSeconds(part.First().AtSeconds)),
                    [
                        .. part.Select(r => new FloorFact(
                            Derived(request.Id, $"{r.Part}/{r.Round}"),
                            FloorFactKind.Set,
                            begun.AddSeconds(r.AtSeconds).AddMilliseconds(r.Round),
                            r.Drill,
                            r.Variant,
                            r.Side,
                            r.Round,
                            r.Seconds,
                            r.CleanReps,
                            r.Confirmed
                        )),
                    ]
                )
            );
        foreach (var (i, signal) in request.Signals.Index())
            entries.Add(
                new(
                    Said($"signal/{i}", ended),
                    [
                        new(
                            Derived(request.Id, $"signal/{i}/fact"),
                            FloorFactKind.Signal,
                            ended,
                            Side: signal.Side,
                            Signal: signal.Signal,
                            Region: signal.Region,
                            Place: signal.Place,
                            Pain: signal.Pain
                        ),
                    ]
                )
            );
        entries.Add(new(Said("ended", ended), [new(Derived(request.Id, "ended/fact"), FloorFactKind.Finished, ended)]));
        return entries;
    }

    /// <summary>The same at every try, so that what is sent twice is told once.</summary>
    private static Guid Derived(Guid request, string what) =>
        new(SHA256.HashData(Encoding.UTF8.GetBytes($"{request:N}/{what}")).AsSpan(0, 16));
}
