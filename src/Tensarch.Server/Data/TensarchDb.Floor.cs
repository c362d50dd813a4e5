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
        builder.Entity<SessionRow>().Property(s => s.Version).IsConcurrencyToken();
        builder.Entity<SessionRow>().Ignore(s => s.IsOpen).Ignore(s => s.IsTrained);
        // Of the weeks, a part of a day has one session.
        builder
            .Entity<SessionRow>()
            .HasIndex(s => new
            {
                s.StudentId,
                s.Date,
                s.Half,
            })
            .HasFilter("\"Half\" IS NOT NULL AND \"DeletedAt\" IS NULL")
            .IsUnique();
        builder
            .Entity<SessionRow>()
            .HasOne(s => s.Planned)
            .WithMany()
            .HasForeignKey(s => new { s.Id, s.Plan })
            .OnDelete(DeleteBehavior.Restrict);
        builder.Entity<SessionRow>().HasOne(s => s.Training).WithOne().HasForeignKey<TrainingRow>(t => t.SessionId);
        Own<PlanVersionRow>(builder);
        builder.Entity<PlanVersionRow>().HasKey(p => new { p.SessionId, p.Number });
        Own<TrainingRow>(builder);
        builder.Entity<TrainingRow>().HasKey(t => t.SessionId);
        builder
            .Entity<TrainingRow>()
            .HasOne(t => t.Planned)
            .WithMany()
            .HasForeignKey(t => new { t.SessionId, t.Plan })
            .OnDelete(DeleteBehavior.Restrict);
        Index<TrainingRow>(
            builder,
            t => new
            {
                t.StudioId,
                t.StudentId,
                t.StartedAt,
            }
        );
        // On which days somebody trained, without reading through what was planned of them.
        Index<TrainingRow>(
            builder,
            t => new
            {
                t.StudioId,
                t.StudentId,
                t.StartedOn,
            }
        );
        Own<CommandRow>(builder);
        Own<UnsentRow>(builder);
        builder.Entity<UnsentRow>().HasKey(u => new { u.Device, u.UserId });
        builder.Entity<UnsentRow>().HasIndex(u => u.UserId);
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
