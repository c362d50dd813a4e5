using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Server.Data;

namespace Tensarch.Server.Sessions;

/// <summary>Writes down what was done in a session. The demo's simulator goes through here as the runner does.</summary>
public sealed class SessionDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    private const int MostFacts = 500;

    /// <summary>
    /// Appends the facts that are new, all in one transaction. A runner whose clock is wrong is set right by the moment of
    /// sending, and nothing happened before its session was made.
    /// </summary>
    public async Task<Result<FactsResponse>> Log(Guid sessionId, FactsRequest request, CancellationToken ct)
    {
        var problems = Check(request);
        if (problems.Count > 0)
            return problems;
        try
        {
            return await Append(sessionId, request, ct);
        }
        catch (DbUpdateException e) when (Facts.IsTaken(e))
        {
            // A twin of this request came first: read again what it stored.
            db.ChangeTracker.Clear();
            return await Append(sessionId, request, ct);
        }
    }

    private async Task<FactsResponse> Append(Guid sessionId, FactsRequest request, CancellationToken ct)
    {
        var session = await db.Sessions.SingleAsync(s => s.Id == sessionId, ct);
        var skew = clock.Now - request.SentAt;
        DateTimeOffset Right(DateTimeOffset at)
        {
            var moved = at + skew;
            return moved < session.CreatedAt ? session.CreatedAt : moved;
        }

        void Started(DateTimeOffset at)
        {
            if (session.StartedAt is null || at < session.StartedAt)
                (session.StartedAt, session.StartedOn) = (at, clock.DayOf(at));
        }

        var (stored, again) = (0, 0);
        var clashes = new List<Guid>();
        void Count(Appended appended, Guid id)
        {
            if (appended == Appended.Stored)
                stored++;
            else if (appended == Appended.SameAgain)
                again++;
            else
                clashes.Add(id);
        }

        await Add(db.Sets, request.Sets.Select(set => (Row(session, set, Right(set.At)), Facts.Hash(new { sessionId, set }))));
        await Add(
            db.Signals,
            request.Signals.Select(signal => (Row(session, signal, Right(signal.At)), Facts.Hash(new { sessionId, signal })))
        );
        foreach (var at in request.Sets.Select(s => s.At).Concat(request.Signals.Select(s => s.At)))
            Started(Right(at));
        if (request.FinishedAt is { } finished)
            session.EndedAt ??= Right(finished);
        await using var transaction = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(ct) : null;
        await db.SaveChangesAsync(ct);
        session.Worked = await WorkedIn(sessionId, ct);
        await db.SaveChangesAsync(ct);
        if (transaction is not null)
            await transaction.CommitAsync(ct);
        return new FactsResponse(stored, again, clashes, []);

        async Task Add<TRow>(DbSet<TRow> rows, IEnumerable<(TRow Row, string Hash)> facts)
            where TRow : class, IFact
        {
            var sent = facts.ToList();
            foreach (var (id, appended) in await rows.AddFacts(sent, ct))
                Count(appended, id);
        }
    }

    private async Task<List<string>> WorkedIn(Guid sessionId, CancellationToken ct) =>
        [
            .. (
                await db
                    .Sets.Where(s => s.SessionId == sessionId)
                    .Select(s => new WorkedDrill(s.Drill, s.Variant, s.Side))
                    .Distinct()
                    .ToListAsync(ct)
            )
                .Select(w => w.ToString())
                .Order(StringComparer.Ordinal),
        ];

    private SetRow Row(SessionRow session, SetFact set, DateTimeOffset at) =>
        new()
        {
            Id = set.Id,
            StudentId = session.StudentId,
            SessionId = session.Id,
            Drill = set.Drill,
            Variant = set.Variant,
            Side = set.Side,
            Round = set.Round,
            Seconds = set.Seconds,
            CleanReps = set.CleanReps,
            Quality = set.Quality,
            Sensation = set.Sensation,
            At = at,
            Day = clock.DayOf(at),
            By = scope.UserId,
        };

    private SignalRow Row(SessionRow session, SignalFact signal, DateTimeOffset at) =>
        new()
        {
            Id = signal.Id,
            StudentId = session.StudentId,
            SessionId = session.Id,
            Drill = signal.Drill,
            Kind = signal.Kind,
            Region = signal.Region,
            Side = signal.Side,
            Pain = signal.Pain,
            Note = signal.Note,
            At = at,
            By = scope.UserId,
        };

    private List<Problem> Check(FactsRequest request)
    {
        var problems = new List<Problem>();
        if (request.Sets.Count + request.Signals.Count > MostFacts)
            problems.Add(Problem.Of("tooMany", "sets", ("most", MostFacts)));
        for (var i = 0; i < request.Sets.Count; i++)
        {
            var set = request.Sets[i];
            if (catalogue.FindDrill(set.Drill)?.Variants.Any(v => v.Key == set.Variant) != true)
                problems.Add(Problem.Of("unknownDrill", $"sets[{i}].drill"));
            if (set.Seconds is { } s && !(s >= 0 && s <= 3600))
                problems.Add(Problem.Of("outOfRange", $"sets[{i}].seconds", ("value", s), ("min", 0), ("max", 3600)));
            if (set.CleanReps is < 0 or > 500)
                problems.Add(Problem.Of("outOfRange", $"sets[{i}].cleanReps", ("min", 0), ("max", 500)));
            if (set.Quality is < 1 or > 5)
                problems.Add(Problem.Of("outOfRange", $"sets[{i}].quality", ("min", 1), ("max", 5)));
            if (set.Sensation is < 0 or > 10)
                problems.Add(Problem.Of("outOfRange", $"sets[{i}].sensation", ("min", 0), ("max", 10)));
        }
        for (var i = 0; i < request.Signals.Count; i++)
        {
            var signal = request.Signals[i];
            var rule = catalogue.StopRules.Single(r => r.Signal == signal.Kind);
            if (rule.AsksRegion && signal.Region is null)
                problems.Add(Problem.Of("required", $"signals[{i}].region"));
            if (signal.Pain is < 0 or > 10)
                problems.Add(Problem.Of("outOfRange", $"signals[{i}].pain", ("min", 0), ("max", 10)));
            if (signal.Note?.Length > 1000)
                problems.Add(Problem.Of("tooLong", $"signals[{i}].note", ("most", 1000)));
        }
        return problems;
    }
}
