using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Server.Data;

namespace Tensarch.Server.Sessions;

/// <summary>Writes down what was done in a session. The demo's simulator goes through here as the runner does.</summary>
public sealed class SessionDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    /// <summary>
    /// Appends the facts that are new, all in one transaction. A runner whose clock is wrong is set right by the moment of
    /// sending, and nothing happened before its session was made, nor after it was sent.
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
            return moved < session.CreatedAt ? session.CreatedAt
                : moved > clock.Now ? clock.Now
                : moved;
        }

        void Started(DateTimeOffset at)
        {
            if (session.StartedAt is null || at < session.StartedAt)
                (session.StartedAt, session.StartedOn) = (at, clock.DayOf(at));
            session.DeletedAt = null;
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
        session.Worked = await KeptWork.Of(db, session, catalogue, ct);
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

    private SetRow Row(SessionRow session, SetFact set, DateTimeOffset at) =>
        new()
        {
            Id = set.Id,
            StudentId = session.StudentId,
            SessionId = session.Id,
            Drill = catalogue.Drill(set.Drill).Key,
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
            Drill = catalogue.FindDrill(signal.Drill ?? "")?.Key ?? signal.Drill,
            Kind = signal.Kind,
            Region = signal.Region,
            Side = signal.Side,
            Pain = signal.Pain,
            Note = signal.Note,
            At = at,
            RecordedAt = clock.Now,
            By = scope.UserId,
        };

    private List<Problem> Check(FactsRequest request)
    {
        var problems = new List<Problem>();
        foreach (var (i, set) in request.Sets.Index())
            if (catalogue.FindDrill(set.Drill)?.Variants.Any(v => v.Key == set.Variant) != true)
                problems.Add(Problem.Of("unknownDrill", $"sets[{i}].drill"));
        foreach (var (i, signal) in request.Signals.Index())
            if (signal.Region is null && catalogue.StopRules.Single(r => r.Signal == signal.Kind).AsksRegion)
                problems.Add(Problem.Of("required", $"signals[{i}].region"));
        return problems;
    }
}
