using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Sessions;

/// <summary>How an entry is told: which device it is, whether that had heard what others said, and under which hash it is kept.</summary>
internal sealed record Telling(Guid? Device, bool Heard, string Hash);

/// <summary>Makes the rows of an entry and of its facts.</summary>
internal sealed class FloorFacts(TensarchDb db, StudioClock clock, StudioScope scope)
{
    public void Event(FloorEvent said, SessionRow session, DateTimeOffset at, Telling how) =>
        db.Events.Add(
            new()
            {
                Id = said.Id,
                StudentId = session.StudentId,
                SessionId = session.Id,
                Seq = said.Seq,
                Device = how.Device,
                Doubled = !how.Heard,
                At = at,
                SaidJson = said.Said,
                By = scope.UserId,
                BodyHash = how.Hash,
            }
        );

    /// <returns>The row of a fact, added; none where it is kept with its training.</returns>
    public IFact? Row(FloorSaid said, SessionRow session, DateTimeOffset at, Telling how)
    {
        IFact? row = said switch
        {
            FloorSaid.Set set => Set(set, session, at, how),
            FloorSaid.Signal signal => Signal(signal, session, at, how),
            FloorSaid.Gate gate => Gate(gate, session, at, how),
            // Of a run that another device had not heard of, a coach says what stands.
            FloorSaid.Done done => Correct(
                done.Of,
                CorrectionRow.Confirmed,
                new(Confirmed: how.Heard ? true : null, Seconds: done.Seconds, CleanReps: done.CleanReps),
                said.Id,
                session,
                at,
                how
            ),
            FloorSaid.Rated rated => Correct(rated.Of, CorrectionRow.Quality, new(Quality: rated.Quality), said.Id, session, at, how),
            _ => null,
        };
        if (row is not null)
            db.Add(row);
        return row;
    }

    private SetRow Set(FloorSaid.Set said, SessionRow session, DateTimeOffset at, Telling how) =>
        new()
        {
            Id = said.Id,
            StudentId = session.StudentId,
            SessionId = session.Id,
            Drill = said.Drill.Key,
            Variant = said.Variant.Key,
            Side = said.Side,
            Round = said.Round,
            Seconds = said.Seconds,
            CleanReps = said.CleanReps,
            Quality = said.Quality,
            Confirmed = said.Confirmed,
            Doubled = !how.Heard,
            At = at,
            Day = clock.DayOf(at),
            By = scope.UserId,
            BodyHash = how.Hash,
        };

    private SignalRow Signal(FloorSaid.Signal said, SessionRow session, DateTimeOffset at, Telling how) =>
        new()
        {
            Id = said.Id,
            StudentId = session.StudentId,
            SessionId = session.Id,
            Drill = said.Drill,
            Kind = said.Kind,
            Region = said.Region,
            Place = said.Place,
            Side = said.Side,
            Pain = said.Pain,
            At = at,
            RecordedAt = clock.Now,
            By = scope.UserId,
            BodyHash = how.Hash,
        };

    private GateAnswerRow Gate(FloorSaid.Gate said, SessionRow session, DateTimeOffset at, Telling how) =>
        new()
        {
            Id = said.Id,
            StudentId = session.StudentId,
            SessionId = session.Id,
            Gate = said.Key,
            Side = said.Side,
            AnswersJson = StoredJson.Write(said.Answers),
            At = at,
            By = scope.UserId,
            BodyHash = how.Hash,
        };

    /// <summary>What the floor says of a set of its own.</summary>
    private CorrectionRow Correct(Guid set, string reason, Instead instead, Guid id, SessionRow session, DateTimeOffset at, Telling how) =>
        new()
        {
            Id = id,
            StudentId = session.StudentId,
            What = Corrected.Set,
            Of = set,
            InsteadJson = StoredJson.Write(instead),
            Reason = reason,
            At = at,
            By = scope.UserId,
            BodyHash = how.Hash,
        };
}
