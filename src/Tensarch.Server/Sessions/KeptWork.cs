using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Programmes;

namespace Tensarch.Server.Sessions;

/// <summary>The work of a session, kept beside it so that a season is judged without reading every round of it.</summary>
internal static class KeptWork
{
    /// <summary>What was worked: all that loaded the body, and not what counts for nothing by now. What of it proves is the state's to say.</summary>
    public static async Task<List<string>> Of(TensarchDb db, TrainingRow of, CatalogueContent catalogue, CancellationToken ct)
    {
        var id = of.SessionId;
        var corrected =
            from correction in db.Corrections
            where correction.StudentId == of.StudentId && correction.What == Corrected.Set
            where db.Sets.Any(s => s.Id == correction.Of && s.SessionId == id)
            select correction;
        var corrections = new Corrections((await corrected.AsNoTracking().ToListAsync(ct)).Select(c => c.ToCore()));
        var sets = await db
            .Sets.Where(s => s.SessionId == id)
            .Select(s => new
            {
                s.Id,
                s.Drill,
                s.Variant,
                s.Side,
                s.Seconds,
                s.CleanReps,
                s.Quality,
                s.At,
            })
            .ToListAsync(ct);
        var rounds =
            from set in sets
            where !corrections.IsGone(set.Id)
            let instead = corrections.Of(set.Id)
            select new DoneRound(
                new(set.Drill, instead.Variant ?? set.Variant, instead.Side ?? set.Side),
                instead.Seconds ?? set.Seconds,
                instead.CleanReps ?? set.CleanReps,
                instead.Quality ?? set.Quality,
                set.At
            );
        return
        [
            .. Work.Of(rounds, StoredJson.TryRead<SessionPlan>(of.Planned.PlanJson), catalogue)
                .Select(w => w.ToString())
                .Order(StringComparer.Ordinal),
        ];
    }

    /// <summary>Once for a database of before: work that was kept without its instants, or left out what was done under a bar, is drawn again from the rounds.</summary>
    public static async Task Rebuild(IServiceProvider services, CancellationToken ct = default)
    {
        await using var looking = services.CreateAsyncScope();
        var all = looking.ServiceProvider.GetRequiredService<TensarchDb>();
        if ((await all.Database.SqlQueryRaw<int>("PRAGMA user_version").ToListAsync(ct))[0] >= Rebuilt)
            return;
        foreach (var studio in await all.Studios.AsNoTracking().ToListAsync(ct))
        {
            await using var scope = services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<StudioScope>().Enter(studio.Id, Guid.Empty, studio.TimeZone);
            var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
            var content = scope.ServiceProvider.GetRequiredService<CatalogueContent>();
            var ids = await db
                .Trainings.FromSqlRaw("""SELECT * FROM "Trainings" WHERE "StartedAt" IS NOT NULL AND "Worked" NOT LIKE '%/@%'""")
                .Select(s => s.SessionId)
                .ToListAsync(ct);
            await KeptWeeks.Rebuild(db, ct);
            foreach (var batch in ids.Chunk(100))
            {
                foreach (var training in await db.Trainings.Include(t => t.Planned).Where(t => batch.Contains(t.SessionId)).ToListAsync(ct))
                    training.Worked = await Of(db, training, content, ct);
                await db.SaveChangesAsync(ct);
                db.ChangeTracker.Clear();
            }
        }
        await all.Database.ExecuteSqlRawAsync("PRAGMA user_version = 3", ct);
    }

    private const int Rebuilt = 3;
}
