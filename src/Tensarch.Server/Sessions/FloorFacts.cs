using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Sessions;

/// <summary>How an entry is told: which device it is, whether that had heard what others said, and under which hash it is kept.</summary>
internal sealed record Telling(Guid? Device, bool Heard, string Hash);

/// <summary>Makes the rows of an entry and of its facts.</summary>
internal sealed class FloorFacts(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
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

    public void Set(FloorFact fact, SessionRow session, DateTimeOffset at, Telling how) =>
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
                Quality = fact.Quality,
                Confirmed = fact.Confirmed ?? true,
                Doubled = !how.Heard,
                At = at,
                Day = clock.DayOf(at),
                By = scope.UserId,
                BodyHash = how.Hash,
            }
        );

    public SignalRow Signal(FloorFact fact, SessionRow session, DateTimeOffset at, Telling how)
    {
        var row = new SignalRow
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
            BodyHash = how.Hash,
        };
        db.Signals.Add(row);
        return row;
    }

    public void Gate(FloorFact fact, SessionRow session, DateTimeOffset at, Telling how) =>
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
                BodyHash = how.Hash,
            }
        );

    /// <summary>What the floor says of a set of its own: that it was done, with its number, or how good it was.</summary>
    public void Correct(FloorFact fact, SessionRow session, DateTimeOffset at, Telling how)
    {
        var (reason, instead) =
            fact.Kind == FloorFactKind.Quality
                ? (CorrectionRow.Quality, new Instead(Quality: fact.Quality))
                // Of a run that another device had not heard of, a coach says what stands.
                : (
                    CorrectionRow.Confirmed,
                    new Instead(Confirmed: how.Heard ? true : null, Seconds: fact.Seconds, CleanReps: fact.CleanReps)
                );
        db.Corrections.Add(
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
                BodyHash = how.Hash,
            }
        );
    }
}
