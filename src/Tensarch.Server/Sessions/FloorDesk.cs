using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;
using Tensarch.Server.Students;

namespace Tensarch.Server.Sessions;

/// <summary>Writes down what the floor tells: each entry with its facts, all or nothing, and an answer to each.</summary>
public sealed class FloorDesk(TensarchDb db, CatalogueContent catalogue, Standings standings, StudioClock clock, StudioScope scope)
{
    /// <summary>A clock that is set right by the moment of sending may still be this far ahead.</summary>
    private static readonly TimeSpan Ahead = TimeSpan.FromMinutes(10);

    /// <summary>What happened longer ago than this is not told by a runner any more.</summary>
    private const int OldestDays = 30;

    /// <summary>Of the students of this request, as long as nothing was said about them since.</summary>
    private readonly Dictionary<Guid, StudentState> states = [];

    /// <summary>One commit for all, so that what is acknowledged is on the disk; an entry that cannot stand is undone alone.</summary>
    /// <param name="byHand">A coach says when it was: it may lie before the session was made.</param>
    public async Task<TellResponse> Tell(TellRequest request, CancellationToken ct, bool byHand = false)
    {
        var skew = clock.Now - request.SentAt;
        var ids = request.Entries.Select(e => e.Event.Session).Distinct().ToList();
        var sessions = await Sessions(ids, ct);
        var others = await Branches.OthersReached(db, ids, request.Device, ct);
        var doubled = await Branches.Of(db, ids, request.Device, ct);
        var told = new List<Told>();
        var taken = new HashSet<Guid>();
        var sets = await SetsNamed(request.Entries, ct);
        await using var transaction = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(ct) : null;
        foreach (var entry in request.Entries)
        {
            if (!sessions.TryGetValue(entry.Event.Session, out var session))
                told.Add(new(entry.Event.Id, ToldIs.Gone));
            else if (await Stored(entry, ct) is { } before)
                told.Add(before);
            else if (Refuse(entry, sets, skew) is { } refused)
                told.Add(refused);
            else if (entry.Facts.Any(f => taken.Contains(f.Id)))
                told.Add(new(entry.Event.Id, ToldIs.Clash));
            else if (await IsBarred(entry, session, skew, ct))
                told.Add(new(entry.Event.Id, ToldIs.Refused, "offLimits", "facts"));
            else if (await Write(entry, session, new(skew, request.Device, Heard(entry), byHand), ct))
            {
                if (!Heard(entry))
                    doubled.Add(session.Id);
                taken.UnionWith(entry.Facts.Select(f => f.Id));
                sets.UnionWith(SetsOf(entry));
                told.Add(new(entry.Event.Id, ToldIs.Stored));
            }
            else
            {
                // A twin came first, or one of its ids is another's: nothing of it is kept, and what is there decides.
                db.ChangeTracker.Clear();
                sessions = await Sessions(ids, ct);
                told.Add(await Stored(entry, ct) ?? new(entry.Event.Id, ToldIs.Clash));
            }
        }
        foreach (var session in sessions.Values)
            session.Worked = await KeptWork.Of(db, session, catalogue, ct);
        await db.SaveChangesAsync(ct);
        if (transaction is not null)
            await transaction.CommitAsync(ct);
        var ended = new Dictionary<Guid, IReadOnlyList<string>>();
        foreach (var session in sessions.Values)
            ended[session.Id] = PackLoads.Ended((await StateOf(session.StudentId, ct)).Today);
        return new(told, ended, [.. doubled]);

        // What follows on what another device said has a higher number than all of it.
        bool Heard(FloorEntry entry) =>
            !doubled.Contains(entry.Event.Session) && entry.Event.Seq > others.GetValueOrDefault(entry.Event.Session, -1);
    }

    /// <summary>How an entry is told: by how much its device's clock is off, which device it is, and whether that had heard what others said.</summary>
    private sealed record Telling(TimeSpan Skew, Guid? Device, bool Heard, bool ByHand);

    private Task<Dictionary<Guid, SessionRow>> Sessions(List<Guid> ids, CancellationToken ct) =>
        db.Sessions.Where(s => ids.Contains(s.Id)).ToDictionaryAsync(s => s.Id, ct);

    /// <summary>What became of an entry that is there already; none when it is new.</summary>
    private async Task<Told?> Stored(FloorEntry entry, CancellationToken ct) =>
        await db.Events.Where(e => e.Id == entry.Event.Id).Select(e => e.BodyHash).FirstOrDefaultAsync(ct) is { } hash
            ? new(entry.Event.Id, hash == Facts.HashSent(entry) ? ToldIs.Same : ToldIs.Clash)
            : null;

    /// <returns>Not when an id of it is taken: then nothing of it is there.</returns>
    private async Task<bool> Write(FloorEntry entry, SessionRow session, Telling how, CancellationToken ct)
    {
        var hash = Facts.HashSent(entry);
        db.Events.Add(Event(entry.Event, session, how, hash));
        foreach (var fact in entry.Facts)
            Add(fact, session, Right(fact.At, session, how), !how.Heard, hash);
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateException e) when (Facts.IsTaken(e))
        {
            return false;
        }
        if (entry.Facts.Any(f => f.Kind == FloorFactKind.Signal))
            states.Remove(session.StudentId);
        return true;
    }

    private async Task<StudentState> StateOf(Guid student, CancellationToken ct) =>
        states.TryGetValue(student, out var known) ? known : states[student] = (await standings.Of(student, ct))!.State;

    /// <summary>The sets that are there of those that these entries confirm or rate.</summary>
    private async Task<HashSet<(Guid Set, Guid Session)>> SetsNamed(IReadOnlyList<FloorEntry> entries, CancellationToken ct)
    {
        var ids = entries.SelectMany(e => e.Facts).Select(f => f.Of).OfType<Guid>().Distinct().ToList();
        var there = await db.Sets.Where(s => ids.Contains(s.Id)).Select(s => new { s.Id, s.SessionId }).ToListAsync(ct);
        return [.. there.Where(s => s.SessionId is not null).Select(s => (s.Id, s.SessionId!.Value))];
    }

    private static IEnumerable<(Guid Set, Guid Session)> SetsOf(FloorEntry entry) =>
        entry.Facts.Where(f => f.Kind == FloorFactKind.Set).Select(f => (f.Id, entry.Event.Session));

    /// <summary>Another device reads what was said: it is an object that names what it is.</summary>
    private static bool IsSaid(string said)
    {
        try
        {
            using var read = JsonDocument.Parse(said);
            return read.RootElement.ValueKind == JsonValueKind.Object
                && read.RootElement.TryGetProperty("is", out var what)
                && what.ValueKind == JsonValueKind.String;
        }
        catch (JsonException)
        {
            return false;
        }
    }

    private Told? Refuse(FloorEntry entry, HashSet<(Guid Set, Guid Session)> sets, TimeSpan skew)
    {
        Told No(string code, string field) => new(entry.Event.Id, ToldIs.Refused, code, field);
        if (entry.Facts.DistinctBy(f => f.Id).Count() < entry.Facts.Count)
            return No("sameIdTwice", "facts");
        if (!IsSaid(entry.Event.Said))
            return No("notReadable", "said");
        var own = SetsOf(entry).ToHashSet();
        foreach (var at in entry.Facts.Select(f => f.At).Append(entry.Event.At))
            if (at + skew > clock.Now + Ahead)
                return No("tooFarAhead", "at");
            else if (at + skew < clock.Now.AddDays(-OldestDays))
                return No("tooOld", "at");
        foreach (var fact in entry.Facts)
            switch (fact.Kind)
            {
                case FloorFactKind.Set when catalogue.FindDrill(fact.Drill ?? "")?.Variants.Any(v => v.Key == fact.Variant) != true:
                    return No("unknownDrill", "drill");
                case FloorFactKind.Signal when fact.Signal is null:
                    return No("required", "signal");
                case FloorFactKind.Signal when fact.Region is null && catalogue.StopRules.Single(r => r.Signal == fact.Signal).AsksRegion:
                    return No("required", "region");
                case FloorFactKind.Gate when fact.Gate is null || catalogue.FindDayGate(fact.Gate) is null:
                    return No("unknownGate", "gate");
                case FloorFactKind.Confirmed or FloorFactKind.Quality when fact.Of is null:
                    return No("required", "of");
                case FloorFactKind.Quality when fact.Quality is null:
                    return No("required", "quality");
                case FloorFactKind.Confirmed
                or FloorFactKind.Quality when (fact.Of!.Value, entry.Event.Session) is var of && !sets.Contains(of) && !own.Contains(of):
                    return No("noSuchFact", "of");
            }
        return null;
    }

    /// <summary>Something of it is being done now under a bar that stood when it was begun.</summary>
    private async Task<bool> IsBarred(FloorEntry entry, SessionRow session, TimeSpan skew, CancellationToken ct)
    {
        var sets = entry.Facts.Where(f => f.Kind == FloorFactKind.Set).ToList();
        if (sets.Count == 0)
            return false;
        var state = await StateOf(session.StudentId, ct);
        var withSignal = entry.Facts.Any(f => f.Kind == FloorFactKind.Signal);
        return sets.Exists(set =>
            new Admission(clock.IsLive(set.At + skew), withSignal).Refuses(
                catalogue.Drill(set.Drill!),
                set.Variant!,
                state.Past.At(set.At + skew),
                state.Today,
                state.Facts.Person.Body.BreathSeconds
            )
        );
    }

    /// <summary>Nothing happened before its session was made, nor after now.</summary>
    private DateTimeOffset Right(DateTimeOffset at, SessionRow session, Telling how)
    {
        var moved = at + how.Skew;
        return moved < session.CreatedAt && !how.ByHand ? session.CreatedAt
            : moved > clock.Now ? clock.Now
            : moved;
    }

    private EventRow Event(FloorEvent said, SessionRow session, Telling how, string hash) =>
        new()
        {
            Id = said.Id,
            StudentId = session.StudentId,
            SessionId = session.Id,
            Seq = said.Seq,
            Device = how.Device,
            Doubled = !how.Heard,
            At = Right(said.At, session, how),
            SaidJson = said.Said,
            By = scope.UserId,
            BodyHash = hash,
        };

    private void Add(FloorFact fact, SessionRow session, DateTimeOffset at, bool doubled, string hash)
    {
        switch (fact.Kind)
        {
            case FloorFactKind.Set:
                Begun(session, at);
                db.Sets.Add(
                    new()
                    {
                        Id = fact.Id,
                        StudentId = session.StudentId,
                        SessionId = session.Id,
                        Drill = catalogue.Drill(fact.Drill!).Key,
                        Variant = fact.Variant!,
                        Side = fact.Side,
                        Round = fact.Round ?? 0,
                        Seconds = fact.Seconds,
                        CleanReps = fact.CleanReps,
                        Confirmed = fact.Confirmed ?? true,
                        Doubled = doubled,
                        At = at,
                        Day = clock.DayOf(at),
                        By = scope.UserId,
                        BodyHash = hash,
                    }
                );
                break;
            case FloorFactKind.Signal:
                Begun(session, at);
                db.Signals.Add(
                    new()
                    {
                        Id = fact.Id,
                        StudentId = session.StudentId,
                        SessionId = session.Id,
                        Drill = catalogue.FindDrill(fact.Drill ?? "")?.Key ?? fact.Drill,
                        Kind = fact.Signal!.Value,
                        Region = fact.Region,
                        Side = fact.Side,
                        Pain = fact.Pain,
                        At = at,
                        RecordedAt = clock.Now,
                        By = scope.UserId,
                        BodyHash = hash,
                    }
                );
                break;
            case FloorFactKind.Gate:
                db.GateAnswers.Add(
                    new()
                    {
                        Id = fact.Id,
                        StudentId = session.StudentId,
                        SessionId = session.Id,
                        Gate = fact.Gate!,
                        Side = fact.Side,
                        AnswersJson = StoredJson.Write(fact.Answers ?? []),
                        At = at,
                        By = scope.UserId,
                        BodyHash = hash,
                    }
                );
                break;
            case FloorFactKind.Confirmed:
                db.Corrections.Add(
                    // Of a run that another device had not heard of, a coach says what stands.
                    Correct(
                        fact,
                        session,
                        at,
                        hash,
                        CorrectionRow.Confirmed,
                        new(Confirmed: doubled ? null : true, Seconds: fact.Seconds, CleanReps: fact.CleanReps)
                    )
                );
                break;
            case FloorFactKind.Quality:
                db.Corrections.Add(Correct(fact, session, at, hash, CorrectionRow.Quality, new(Quality: fact.Quality)));
                break;
            case FloorFactKind.Finished:
                session.EndedAt ??= at;
                break;
        }
    }

    private CorrectionRow Correct(FloorFact fact, SessionRow session, DateTimeOffset at, string hash, string reason, Instead instead) =>
        new()
        {
            Id = fact.Id,
            StudentId = session.StudentId,
            What = Corrected.Set,
            Of = fact.Of!.Value,
            InsteadJson = StoredJson.Write(instead),
            Reason = reason,
            At = at,
            By = scope.UserId,
            BodyHash = hash,
        };

    private void Begun(SessionRow session, DateTimeOffset at)
    {
        if (session.StartedAt is null || at < session.StartedAt)
            (session.StartedAt, session.StartedOn) = (at, clock.DayOf(at));
        session.DeletedAt = null;
    }
}
