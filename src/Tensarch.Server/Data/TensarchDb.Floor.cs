using Microsoft.EntityFrameworkCore;

namespace Tensarch.Server.Data;

/// <summary>Indexes and keys of sessions and of what is told of them.</summary>
public sealed partial class TensarchDb
{
    private void Floor(ModelBuilder builder)
    {
        Own<SessionRow>(builder);
        Index<SessionRow>(
            builder,
            s => new
            {
                s.StudioId,
                s.StudentId,
                s.CreatedAt,
            }
        );
        Index<SessionRow>(
            builder,
            s => new
            {
                s.StudioId,
                s.StudentId,
                s.StartedAt,
            }
        );
        // On which days somebody trained, without reading through what was planned of them.
        Index<SessionRow>(
            builder,
            s => new
            {
                s.StudioId,
                s.StudentId,
                s.StartedOn,
            }
        );
        // A student's calendar: without it the whole studio's months are read through.
        Index<SessionRow>(
            builder,
            s => new
            {
                s.StudioId,
                s.StudentId,
                s.Date,
            }
        );
        // Today's, of the whole studio: asked for whenever a device starts.
        Index<SessionRow>(builder, s => new { s.StudioId, s.Date });
        Own<SetRow>(builder);
        Index<SetRow>(
            builder,
            s => new
            {
                s.StudioId,
                s.StudentId,
                s.At,
            }
        );
        builder.Entity<SetRow>().HasIndex(s => s.SessionId);
        builder.Entity<SetRow>().Property(s => s.Confirmed).HasDefaultValue(true).HasSentinel(true);
        Own<EventRow>(builder);
        builder.Entity<EventRow>().HasIndex(e => e.SessionId);
        Own<GateAnswerRow>(builder);
        builder.Entity<GateAnswerRow>().HasIndex(g => g.SessionId);
        Own<NoteRow>(builder);
        Index<NoteRow>(
            builder,
            n => new
            {
                n.StudioId,
                n.StudentId,
                n.At,
            }
        );
        Own<PlanRow>(builder);
        builder
            .Entity<PlanRow>()
            .HasIndex(p => new
            {
                p.StudioId,
                p.StudentId,
                p.Number,
            })
            .IsUnique();
        // When somebody was planned last, without reading through the plans themselves.
        Index<PlanRow>(
            builder,
            p => new
            {
                p.StudioId,
                p.StudentId,
                p.At,
            }
        );
        Own<RosterRunRow>(builder);
        Own<FeedRow>(builder);
        builder.Entity<FeedRow>().HasIndex(f => f.Token).IsUnique();
        Own<PulseRow>(builder);
        builder.Entity<PulseRow>().HasKey(p => p.StudentId);
        builder.Entity<PulseRow>().HasOne<StudentRow>().WithOne().HasForeignKey<PulseRow>(p => p.StudentId);
        Own<PresetRow>(builder);
        Index<PresetRow>(builder, p => new { p.StudioId, p.Name });
        Own<CorrectionRow>(builder);
        Index<CorrectionRow>(builder, c => new { c.StudioId, c.StudentId });
        Own<SignalRow>(builder);
        Index<SignalRow>(builder, s => new { s.StudioId, s.At });
        Index<SignalRow>(
            builder,
            s => new
            {
                s.StudioId,
                s.StudentId,
                s.At,
            }
        );
    }
}
