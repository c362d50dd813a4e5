using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Sessions;

/// <summary>Writes down what the floor tells: each entry with its facts, all or nothing, and an answer to each.</summary>
public sealed class FloorDesk(TensarchDb db, CatalogueContent catalogue, Standings standings, StudioClock clock, StudioScope scope)
{
    private readonly TrainingDesk trainings = new(db, clock);
    private readonly FloorFacts facts = new(db, clock, scope);
    private readonly Dictionary<Guid, SessionPlan?> plans = [];

    /// <summary>
    /// One commit for all, so that what is acknowledged is on the disk; an entry that cannot stand is left out alone. What is barred is worked out before
    /// anything is locked; within, only what has changed since is worked out again.
    /// </summary>
    /// <param name="byHand">A coach says when it was: it may lie before the session was made.</param>
    /// <param name="known">The student of the request, where the caller has read all of them.</param>
    public async Task<TellResponse> Tell(TellRequest request, CancellationToken ct, bool byHand = false, Standing? known = null)
    {
        var skew = clock.Now - request.SentAt;
        var ids = request.Entries.Select(e => e.Event.Session).Distinct().ToList();
        var states = new FloorStates(db, standings, catalogue, clock);
        var students = await db.Sessions.Where(s => ids.Contains(s.Id)).Select(s => s.StudentId).Distinct().ToListAsync(ct);
        if (known is not null)
            states.Know(known);
        else
            await states.Know(students, ct);
        await using var transaction = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(ct) : null;
        await states.Renew(students, ct);
        var sessions = await db.WholeSessions.Where(s => ids.Contains(s.Id)).ToDictionaryAsync(s => s.Id, ct);
        var others = await Branches.OthersReached(db, ids, request.Device, ct);
        var doubled = await Branches.Of(db, ids, request.Device, ct);
        var sets = await SetsNamed(request.Entries, ct);
        var there = await There(request.Entries, ct);
        var taken = await Taken(request.Entries, ct);
        var check = new FloorCheck(catalogue, clock.Now, skew);
        var worked = new HashSet<SessionRow>();
        var told = new List<Told>();
        foreach (var entry in request.Entries)
        {
            var hash = Facts.HashSent(entry);
            if (!sessions.TryGetValue(entry.Event.Session, out var session))
                told.Add(new(entry.Event.Id, ToldIs.Gone));
            else if (there.TryGetValue(entry.Event.Id, out var before))
                told.Add(new(entry.Event.Id, before == hash ? ToldIs.Same : ToldIs.Clash));
            else if (check.Read(entry, sets) is var read && !read.IsOk)
                told.Add(new(entry.Event.Id, ToldIs.Refused, read.Problems[0].Code, read.Problems[0].Field));
            else if (entry.Facts.Any(f => taken.Contains(f.Id)))
                told.Add(new(entry.Event.Id, ToldIs.Clash));
            else if (states.IsBarred(read.Value, session.StudentId, PlanOf(session), skew))
                told.Add(new(entry.Event.Id, ToldIs.Refused, "offLimits", "facts"));
            else
            {
                // What follows on what another device said has a higher number than all of it.
                var heard = !doubled.Contains(session.Id) && entry.Event.Seq > others.GetValueOrDefault(session.Id, -1);
                if (!heard)
                    doubled.Add(session.Id);
                await Write(
                    entry.Event,
                    read.Value,
                    session,
                    at => Right(at + skew, session, byHand),
                    new(request.Device, heard, hash),
                    states,
                    ct
                );
                worked.Add(session);
                there[entry.Event.Id] = hash;
                taken.UnionWith(entry.Facts.Select(f => f.Id));
                sets.UnionWith(read.Value.OfType<FloorSaid.Set>().Select(s => (s.Id, session.Id)));
                told.Add(new(entry.Event.Id, ToldIs.Stored));
            }
        }
        await db.SaveChangesAsync(ct);
        foreach (var session in worked)
            session.Training!.Worked = await KeptWork.Of(db, session.Training, catalogue, ct);
        await db.SaveChangesAsync(ct);
        if (transaction is not null)
            await transaction.CommitAsync(ct);
        return new(told, sessions.Values.ToDictionary(s => s.Id, s => states.EndedFor(s.StudentId)), [.. doubled]);
    }

    private SessionPlan? PlanOf(SessionRow session) =>
        plans.TryGetValue(session.Id, out var known)
            ? known
            : plans[session.Id] = StoredJson.TryRead<SessionPlan>(session.Planned.PlanJson) is { Drills: not null } plan ? plan : null;

    /// <summary>The events that are there already, in whatever studio, with what was sent of each.</summary>
    private async Task<Dictionary<Guid, string>> There(IReadOnlyList<FloorEntry> entries, CancellationToken ct)
    {
        var ids = entries.Select(e => e.Event.Id).ToList();
        return await db
            .Events.IgnoreQueryFilters()
            .Where(e => ids.Contains(e.Id))
            .Select(e => new { e.Id, e.BodyHash })
            .ToDictionaryAsync(e => e.Id, e => e.BodyHash, ct);
    }

    /// <summary>Ids of facts that are taken, in whatever studio.</summary>
    private async Task<HashSet<Guid>> Taken(IReadOnlyList<FloorEntry> entries, CancellationToken ct)
    {
        var taken = new HashSet<Guid>();
        foreach (var kind in entries.SelectMany(e => e.Facts).GroupBy(f => f.Kind, f => f.Id))
            taken.UnionWith(
                await (
                    kind.Key switch
                    {
                        FloorFactKind.Set => Of(db.Sets, [.. kind]),
                        FloorFactKind.Signal => Of(db.Signals, [.. kind]),
                        FloorFactKind.Gate => Of(db.GateAnswers, [.. kind]),
                        FloorFactKind.Confirmed or FloorFactKind.Quality => Of(db.Corrections, [.. kind]),
                        _ => Task.FromResult<List<Guid>>([]),
                    }
                )
            );
        return taken;

        Task<List<Guid>> Of<TRow>(DbSet<TRow> rows, List<Guid> ids)
            where TRow : class, IFact => rows.IgnoreQueryFilters().Where(r => ids.Contains(r.Id)).Select(r => r.Id).ToListAsync(ct);
    }

    /// <summary>The sets that are there of those that these entries confirm or rate.</summary>
    private async Task<HashSet<(Guid Set, Guid Session)>> SetsNamed(IReadOnlyList<FloorEntry> entries, CancellationToken ct)
    {
        var ids = entries.SelectMany(e => e.Facts).Select(f => f.Of).OfType<Guid>().Distinct().ToList();
        if (ids.Count == 0)
            return [];
        var there = await db.Sets.Where(s => ids.Contains(s.Id)).Select(s => new { s.Id, s.SessionId }).ToListAsync(ct);
        return [.. there.Where(s => s.SessionId is not null).Select(s => (s.Id, s.SessionId!.Value))];
    }

    private async Task Write(
        FloorEvent said,
        IReadOnlyList<FloorSaid> told,
        SessionRow session,
        Func<DateTimeOffset, DateTimeOffset> right,
        Telling how,
        FloorStates states,
        CancellationToken ct
    )
    {
        var training = await trainings.Of(session, said.Plan, right(said.At), ct);
        facts.Event(said, session, right(said.At), how);
        foreach (var fact in told)
        {
            var at = right(fact.At);
            if (fact is FloorSaid.Set or FloorSaid.Signal)
                trainings.Started(training, at);
            if (fact is FloorSaid.Finished)
                training.EndedAt ??= at;
            else if (facts.Row(fact, session, at, how) is SignalRow signal)
                states.Say(signal);
        }
    }

    /// <summary>Nothing happened before its session was made, nor after now.</summary>
    private DateTimeOffset Right(DateTimeOffset at, SessionRow session, bool byHand) =>
        at < session.CreatedAt && !byHand ? session.CreatedAt
        : at > clock.Now ? clock.Now
        : at;
}
