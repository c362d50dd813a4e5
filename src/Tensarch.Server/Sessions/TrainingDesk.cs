using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Sessions;

/// <summary>Begins and ends trainings: which plan one is trained by is settled here, and no command changes it afterwards.</summary>
internal sealed class TrainingDesk(TensarchDb db, StudioClock clock)
{
    /// <summary>
    /// The training of a session, begun where it was not. While nothing was done in it, it is under the plan that was told last; then under the one that it was
    /// begun by, whatever was planned meanwhile. What was thrown away comes back.
    /// </summary>
    /// <param name="plan">The number of the plan that the teller ran; a teller of before names none, and ran what stood then.</param>
    /// <param name="at">When it was begun.</param>
    public async Task<TrainingRow> Of(SessionRow session, int? plan, DateTimeOffset at, CancellationToken ct)
    {
        if (session.Training is { } begun && (begun.StartedAt ?? begun.EndedAt) is not null)
            return begun;
        var trained = await Ran(session, plan, at, ct);
        if (session.Training is { } touched && touched.Plan == trained.Number && session.DeletedAt is null)
            return touched;
        await MakeRoom(session, trained, ct);
        session.Version++;
        session.DeletedAt = null;
        if (session.Plan != trained.Number)
        {
            session.Sequence++;
            (session.Plan, session.Planned) = (trained.Number, trained);
        }
        if (session.Training is null)
            db.Trainings.Add(
                session.Training = new()
                {
                    SessionId = session.Id,
                    StudentId = session.StudentId,
                    Plan = trained.Number,
                    Planned = trained,
                }
            );
        (session.Training.Plan, session.Training.Planned) = (trained.Number, trained);
        return session.Training;
    }

    /// <summary>Something was done, or said of the body.</summary>
    public void Started(TrainingRow training, DateTimeOffset at)
    {
        if (training.StartedAt is null || at < training.StartedAt)
            (training.StartedAt, training.StartedOn) = (at, clock.DayOf(at));
    }

    private async Task<PlanVersionRow> Ran(SessionRow session, int? plan, DateTimeOffset at, CancellationToken ct)
    {
        if (plan == session.Plan)
            return session.Planned;
        var versions = db.PlanVersions.Where(p => p.SessionId == session.Id && p.Number > 0);
        return plan is { } number && await versions.SingleOrDefaultAsync(p => p.Number == number, ct) is { } named ? named
            : plan is null && await versions.Where(p => p.At <= at).OrderByDescending(p => p.Number).FirstOrDefaultAsync(ct) is { } stood
                ? stood
            : session.Planned;
    }

    /// <summary>The other half of the day; none where that is taken too.</summary>
    private async Task<DayHalf?> Free(SessionRow session, DateOnly date, DayHalf half, CancellationToken ct)
    {
        var other = half == DayHalf.Am ? DayHalf.Pm : DayHalf.Am;
        var taken = await db.Sessions.AnyAsync(
            s => s.StudentId == session.StudentId && s.Date == date && s.Half == other && s.DeletedAt == null,
            ct
        );
        return taken ? null : other;
    }

    /// <summary>Its day is its plan's. Where the weeks have put another session there meanwhile, that one goes; where that one is trained too, this one takes the other half of the day.</summary>
    private async Task MakeRoom(SessionRow session, PlanVersionRow trained, CancellationToken ct)
    {
        var date = StoredJson.TryRead<SessionPlan>(trained.PlanJson)?.Date ?? session.Date;
        if (session.Half is { } half)
        {
            var there = await db
                .WholeSessions.Where(s => s.StudentId == session.StudentId && s.Date == date && s.Half == half && s.DeletedAt == null)
                .SingleOrDefaultAsync(s => s.Id != session.Id, ct);
            if (there is { IsOpen: true })
            {
                there.Version++;
                there.DeletedAt = clock.Now;
                await db.SaveChangesAsync(ct);
            }
            else if (there is not null)
                session.Half = await Free(session, date, half, ct);
        }
        session.Date = date;
    }
}
