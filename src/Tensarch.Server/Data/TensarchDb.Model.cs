using Microsoft.EntityFrameworkCore;

namespace Tensarch.Server.Data;

/// <summary>Indexes, keys and the filter by studio.</summary>
public sealed partial class TensarchDb
{
    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<CoachUser>().HasQueryFilter(u => NoStudio || u.StudioId == Studio);
        builder.Entity<CoachUser>().HasIndex(u => u.StudioId);
        builder.Entity<SignInRow>().HasKey(s => s.KeyHash);
        builder.Entity<SignInRow>().HasOne<CoachUser>().WithMany().HasForeignKey(s => s.UserId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<StudioRow>().HasQueryFilter(s => NoStudio || s.Id == Studio);

        Own<StudentRow>(builder);
        builder
            .Entity<StudentRow>()
            .HasIndex(s => new
            {
                s.StudioId,
                s.ArchivedAt,
                s.Name,
                s.Id,
            });
        builder.Entity<StudentRow>().Property(s => s.Name).UseCollation("NOCASE");
        builder.Entity<StudentRow>().Property(s => s.Version).IsConcurrencyToken();

        Own<AnswerRow>(builder);
        Index<AnswerRow>(
            builder,
            a => new
            {
                a.StudioId,
                a.StudentId,
                a.Id,
            }
        );
        Own<ConsentRow>(builder);
        Index<ConsentRow>(builder, c => new { c.StudioId, c.StudentId });
        Own<CheckInRow>(builder);
        Index<CheckInRow>(
            builder,
            c => new
            {
                c.StudioId,
                c.StudentId,
                c.At,
            }
        );
        Own<ClearanceRow>(builder);
        Index<ClearanceRow>(builder, c => new { c.StudioId, c.StudentId });
        builder.Entity<ClearanceRow>().PrimitiveCollection(c => c.Tags).ElementType().HasConversion<string>();
        Own<WithdrawalRow>(builder);
        Index<WithdrawalRow>(builder, w => new { w.StudioId, w.StudentId });
        builder.Entity<WithdrawalRow>().HasIndex(w => w.ClearanceId).IsUnique();
        Own<ScreeningRow>(builder);
        Index<ScreeningRow>(
            builder,
            s => new
            {
                s.StudioId,
                s.StudentId,
                s.At,
            }
        );
        Own<BodyRow>(builder);
        Index<BodyRow>(
            builder,
            b => new
            {
                b.StudioId,
                b.StudentId,
                b.Id,
            }
        );
        Own<ReviewRow>(builder);
        Index<ReviewRow>(builder, r => new { r.StudioId, r.StudentId });

        builder.Entity<StudioRow>().Property(s => s.BlocksVersion).IsConcurrencyToken();
        builder.Entity<StudioRow>().Property(s => s.Version).IsConcurrencyToken();

        Own<ReadingRow>(builder);
        // The studio, by which every query is filtered, leads every index: otherwise SQLite, which knows no numbers of the table, may walk
        // the whole studio's season for one student's.
        Index<ReadingRow>(
            builder,
            r => new
            {
                r.StudioId,
                r.StudentId,
                r.TakenAt,
                r.Id,
            }
        );
        Index<ReadingRow>(
            builder,
            r => new
            {
                r.StudioId,
                r.StudentId,
                r.Measure,
                r.Side,
                r.TakenAt,
                r.Id,
            }
        );
        Index<ReadingRow>(
            builder,
            r => new
            {
                r.StudioId,
                r.TakenAt,
                r.Id,
            }
        );
        Index<ReadingRow>(
            builder,
            r => new
            {
                r.StudioId,
                r.Measure,
                r.TakenAt,
                r.Id,
            }
        );
        Index<ReadingRow>(
            builder,
            r => new
            {
                r.StudioId,
                r.TakenBy,
                r.Measure,
                r.Instrument,
                r.TakenAt,
            }
        );
        Index<ReadingRow>(builder, r => new { r.SittingId });
        builder.Entity<ReadingRow>().HasOne(r => r.Void).WithOne().HasForeignKey<ReadingVoidRow>(v => v.ReadingId);
        Own<ReadingVoidRow>(builder);
        builder.Entity<ReadingVoidRow>().HasKey(v => v.ReadingId);

        Own<SittingRow>(builder);
        Index<SittingRow>(
            builder,
            s => new
            {
                s.StudentId,
                s.EndedAt,
                s.StartedAt,
            }
        );
        Own<DraftRow>(builder);
        builder.Entity<DraftRow>().HasKey(d => new { d.SittingId, d.Slot });
        builder.Entity<DraftRow>().Property(d => d.Version).IsConcurrencyToken();
        builder.Entity<DraftRow>().HasOne<SittingRow>().WithMany().HasForeignKey(d => d.SittingId);
        Own<OwnMeasureRow>(builder);
        builder
            .Entity<OwnMeasureRow>()
            .HasIndex(o => new
            {
                o.StudioId,
                o.Measure,
                o.Version,
            })
            .IsUnique();
        Own<PictureRow>(builder);
        Index<PictureRow>(
            builder,
            p => new
            {
                p.StudentId,
                p.TakenAt,
                p.Id,
            }
        );
        Own<MarkRow>(builder);
        Index<MarkRow>(builder, m => new { m.PictureId, m.At });
        builder.Entity<MarkRow>().HasOne<PictureRow>().WithMany().HasForeignKey(m => m.PictureId);

        Own<SkillRow>(builder);
        builder.Entity<SkillRow>().HasIndex(s => new { s.StudentId, s.Skill }).IsUnique();
        Index<SkillRow>(builder, s => new { s.StudioId, s.StudentId });
        Own<DecisionRow>(builder);
        Index<DecisionRow>(
            builder,
            d => new
            {
                d.StudioId,
                d.Skill,
                d.At,
            }
        );
        builder
            .Entity<DecisionRow>()
            .HasIndex(d => new
            {
                d.StudioId,
                d.StudentId,
                d.At,
                d.Id,
            });
        Own<FormCheckRow>(builder);
        builder
            .Entity<FormCheckRow>()
            .HasIndex(f => new
            {
                f.StudioId,
                f.StudentId,
                f.At,
            });

        Own<ExitCheckRow>(builder);
        Index<ExitCheckRow>(
            builder,
            e => new
            {
                e.StudioId,
                e.StudentId,
                e.At,
            }
        );
        Own<OwnLadderRow>(builder);
        builder
            .Entity<OwnLadderRow>()
            .HasIndex(l => new
            {
                l.StudioId,
                l.LadderKey,
                l.Version,
            })
            .IsUnique();
        Own<OwnDrillRow>(builder);
        builder
            .Entity<OwnDrillRow>()
            .HasIndex(d => new
            {
                d.StudioId,
                d.DrillKey,
                d.Version,
            })
            .IsUnique();
        Own<ClipRow>(builder);
        builder.Entity<ClipRow>().HasIndex(c => new { c.StudioId, c.DrillKey });
        Own<BoardRow>(builder);
        builder.Entity<BoardRow>().Property(b => b.Stamp).IsConcurrencyToken();
        builder.Entity<BoardRow>().HasOne<StudentRow>().WithMany().HasForeignKey(b => b.StudentId);
        Index<BoardRow>(
            builder,
            b => new
            {
                b.StudioId,
                b.Group,
                b.Rank,
                b.Id,
            }
        );
        Index<BoardRow>(
            builder,
            b => new
            {
                b.StudioId,
                b.Skill,
                b.Group,
                b.Rank,
                b.Id,
            }
        );
        Index<BoardRow>(builder, b => new { b.StudioId, b.DueAt });
        Index<BoardRow>(builder, b => new { b.StudioId, b.StudentId });

        Own<RosterRow>(builder);
        builder.Entity<RosterRow>().HasKey(r => r.StudentId);
        builder.Entity<RosterRow>().HasOne<StudentRow>().WithOne().HasForeignKey<RosterRow>(r => r.StudentId);
        builder.Entity<RosterRow>().Property(r => r.Stamp).IsConcurrencyToken();
        Index<RosterRow>(builder, r => new { r.StudioId, r.DueAt });

        Floor(builder);
    }

    private static void Index<TRow>(ModelBuilder builder, System.Linq.Expressions.Expression<Func<TRow, object?>> columns)
        where TRow : class => builder.Entity<TRow>().HasIndex(columns);

    /// <summary>The studio filter, which no query can forget.</summary>
    private void Own<TRow>(ModelBuilder builder)
        where TRow : class, IStudioRow
    {
        builder.Entity<TRow>().HasQueryFilter(row => row.StudioId == Studio);
        builder.Entity<TRow>().HasOne<StudioRow>().WithMany().HasForeignKey(row => row.StudioId);
    }
}
