using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Tensarch.Server.Data;

/// <summary>The one database. Every studio's rows live in it; every query sees one studio's only.</summary>
public sealed partial class TensarchDb(DbContextOptions<TensarchDb> options, StudioScope scope, TimeProvider time)
    : IdentityUserContext<CoachUser, Guid>(options)
{
    private Guid Studio => scope.StudioId;

    private bool NoStudio => !scope.IsSet;

    public DbSet<SignInRow> SignIns => Set<SignInRow>();

    public DbSet<StudioRow> Studios => Set<StudioRow>();

    public DbSet<StudentRow> Students => Set<StudentRow>();

    public DbSet<AnswerRow> Answers => Set<AnswerRow>();

    public DbSet<ConsentRow> Consents => Set<ConsentRow>();

    public DbSet<CheckInRow> CheckIns => Set<CheckInRow>();

    public DbSet<ClearanceRow> Clearances => Set<ClearanceRow>();

    public DbSet<WithdrawalRow> Withdrawals => Set<WithdrawalRow>();

    public DbSet<ScreeningRow> Screenings => Set<ScreeningRow>();

    public DbSet<BodyRow> Bodies => Set<BodyRow>();

    public DbSet<ReviewRow> Reviews => Set<ReviewRow>();

    public DbSet<ReadingRow> Readings => Set<ReadingRow>();

    public DbSet<ReadingVoidRow> ReadingVoids => Set<ReadingVoidRow>();

    public DbSet<SittingRow> Sittings => Set<SittingRow>();

    public DbSet<DraftRow> Drafts => Set<DraftRow>();

    public DbSet<OwnMeasureRow> OwnMeasures => Set<OwnMeasureRow>();

    public DbSet<PictureRow> Pictures => Set<PictureRow>();

    public DbSet<MarkRow> Marks => Set<MarkRow>();

    public DbSet<SkillRow> Skills => Set<SkillRow>();

    public DbSet<DecisionRow> Decisions => Set<DecisionRow>();

    public DbSet<FormCheckRow> FormChecks => Set<FormCheckRow>();

    public DbSet<ExitCheckRow> ExitChecks => Set<ExitCheckRow>();

    public DbSet<OwnLadderRow> OwnLadders => Set<OwnLadderRow>();

    public DbSet<OwnDrillRow> OwnDrills => Set<OwnDrillRow>();

    public DbSet<ClipRow> Clips => Set<ClipRow>();

    public DbSet<BoardRow> Board => Set<BoardRow>();

    public DbSet<RosterRow> Roster => Set<RosterRow>();

    public DbSet<SessionRow> Sessions => Set<SessionRow>();

    /// <summary>With the plan that stands, and what was trained by it.</summary>
    public IQueryable<SessionRow> WholeSessions => Sessions.Include(s => s.Planned).Include(s => s.Training);

    public DbSet<PlanVersionRow> PlanVersions => Set<PlanVersionRow>();

    public DbSet<TrainingRow> Trainings => Set<TrainingRow>();

    public DbSet<UnsentRow> Unsent => Set<UnsentRow>();

    public DbSet<CommandRow> Commands => Set<CommandRow>();

    public DbSet<PlanRow> Plans => Set<PlanRow>();

    public DbSet<RosterRunRow> RosterRuns => Set<RosterRunRow>();

    public DbSet<FeedRow> Feeds => Set<FeedRow>();

    public DbSet<SetRow> Sets => Set<SetRow>();

    public DbSet<SignalRow> Signals => Set<SignalRow>();

    public DbSet<EventRow> Events => Set<EventRow>();

    public DbSet<GateAnswerRow> GateAnswers => Set<GateAnswerRow>();

    public DbSet<NoteRow> Notes => Set<NoteRow>();

    public DbSet<PulseRow> Pulses => Set<PulseRow>();

    public DbSet<PresetRow> Presets => Set<PresetRow>();

    public DbSet<CorrectionRow> Corrections => Set<CorrectionRow>();

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<UtcTicks>();
        configurationBuilder.Properties<Enum>().HaveConversion<string>();
    }

    /// <summary>Stamps new rows with the studio, and makes the kept lines due of every student about whom there is a new fact.</summary>
    public override async Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        foreach (var entry in ChangeTracker.Entries<IStudioRow>().Where(e => e.State is EntityState.Added or EntityState.Modified))
        {
            if (entry.State == EntityState.Added && entry.Entity.StudioId == Guid.Empty)
                entry.Entity.StudioId = Studio;
            if (entry.Entity.StudioId != Studio)
                throw new InvalidOperationException("A row of another studio is not written.");
        }
        foreach (var entry in ChangeTracker.Entries<ITold>().Where(e => e.State == EntityState.Added && e.Entity.RecordedAt == default))
            entry.Entity.RecordedAt = time.GetUtcNow();
        foreach (var entry in ChangeTracker.Entries<SessionRow>().Where(e => e.State == EntityState.Modified))
            if (!entry.Property(s => s.Version).IsModified)
                throw new InvalidOperationException("A session is changed without its version.");
        var judged = ChangeTracker
            .Entries<IJudged>()
            .Where(e => e.State is EntityState.Added or EntityState.Modified)
            .Select(e => e.Entity.StudentId)
            .ToHashSet();
        var students = ChangeTracker.Entries<StudentRow>().Where(e => e.State == EntityState.Modified).Select(e => e.Entity.Id).ToHashSet();
        var touched = ChangeTracker
            .Entries<IOfStudent>()
            .Where(e => e.State is EntityState.Added or EntityState.Modified)
            .Select(e => e.Entity.StudentId)
            .Concat(students)
            .ToHashSet();
        if (touched.Count == 0)
            return await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        await using var transaction = Database.CurrentTransaction is null ? await Database.BeginTransactionAsync(cancellationToken) : null;
        var saved = await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        if (judged.Count > 0)
            await MakeDue(judged, cancellationToken);
        foreach (var student in touched)
            await Beat(student, judged.Contains(student) || students.Contains(student) ? 1 : 0, cancellationToken);
        if (transaction is not null)
            await transaction.CommitAsync(cancellationToken);
        return saved;
    }

    /// <summary>What is written of a student past the change tracker, and that verdicts rest on, is counted here.</summary>
    public async Task Changed(IReadOnlyCollection<Guid> students, CancellationToken ct)
    {
        await MakeDue(students, ct);
        foreach (var student in students)
            await Beat(student, 1, ct);
    }

    /// <summary>How many writes there were about a student on which verdicts rest.</summary>
    public Task<long> FactsVersion(Guid student, CancellationToken ct) =>
        Pulses.Where(p => p.StudentId == student).Select(p => p.Facts).FirstOrDefaultAsync(ct);

    private Task<int> Beat(Guid student, int facts, CancellationToken ct)
    {
        var (studio, by, at) = (Studio, scope.UserId, time.GetUtcNow().UtcTicks);
        scope.Beats[student] = scope.Beats.GetValueOrDefault(student) + 1;
        return Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "Pulses" ("StudentId", "StudioId", "Beat", "Facts", "By", "At") VALUES ({student}, {studio}, 1, {facts}, {by}, {at})
            ON CONFLICT ("StudentId") DO UPDATE SET "Beat" = "Beat" + 1, "Facts" = "Facts" + {facts}, "By" = excluded."By", "At" = excluded."At"
            """,
            ct
        );
    }

    /// <summary>What is kept of these students is derived again before it is shown.</summary>
    public async Task MakeDue(IReadOnlyCollection<Guid> students, CancellationToken ct)
    {
        await MakeDue(Board, students, ct);
        await MakeDue(Roster, students, ct);
    }

    private static Task<int> MakeDue<TRow>(DbSet<TRow> kept, IReadOnlyCollection<Guid> students, CancellationToken ct)
        where TRow : class, IKeptLine =>
        kept.Where(row => students.Contains(row.StudentId))
            .ExecuteUpdateAsync(
                set => set.SetProperty(row => row.DueAt, DateTimeOffset.UnixEpoch).SetProperty(row => row.Stamp, row => row.Stamp + 1),
                ct
            );

    /// <summary>SQLite cannot order by an instant with an offset: it is kept as UTC ticks.</summary>
    private sealed class UtcTicks()
        : ValueConverter<DateTimeOffset, long>(at => at.UtcTicks, ticks => new DateTimeOffset(ticks, TimeSpan.Zero));
}
