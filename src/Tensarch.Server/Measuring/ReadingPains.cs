using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>Pain that was said with a reading which counts for nothing by now; the pain does.</summary>
public sealed record VoidedPain(Guid Signal, string Measure, LoadTag Region, int Pain, DateTimeOffset At);

/// <summary>The rows of pain that was said with a reading (<see cref="ReadingPain"/>).</summary>
public static class ReadingPains
{
    public static IEnumerable<SignalRow> Of(ReadingRow reading, Measure measure, DateTimeOffset recordedAt) =>
        ReadingPain
            .Told(reading.Id, measure, reading.Side, reading.Pain, reading.TakenAt)
            .Select(pain => new SignalRow
            {
                Id = pain.Id,
                StudentId = reading.StudentId,
                Kind = pain.Kind,
                Region = pain.Region,
                Side = pain.Side,
                Pain = pain.Pain,
                At = pain.At,
                RecordedAt = recordedAt,
                By = reading.TakenBy,
                BodyHash = reading.BodyHash,
            });

    /// <summary>Of voided readings, what nobody has looked at since: a correction of such a signal, be it that it stands, takes it off this list.</summary>
    public static async Task<IReadOnlyList<VoidedPain>> OfVoided(
        Guid student,
        TensarchDb db,
        CatalogueContent content,
        CancellationToken ct
    )
    {
        var readings = await db
            .Readings.AsNoTracking()
            .Where(r => r.StudentId == student && r.Void != null && r.Pain > BodySignal.PainEventAbove)
            .ToListAsync(ct);
        var pains = readings
            .SelectMany(r =>
                content.FindMeasure(r.Measure) is { } measure ? Of(r, measure, r.TakenAt).Select(s => (r.Measure, Signal: s)) : []
            )
            .ToList();
        if (pains.Count == 0)
            return [];
        var ids = pains.Select(p => p.Signal.Id).ToList();
        var looked = await db.Corrections.Where(c => ids.Contains(c.Of)).Select(c => c.Of).ToListAsync(ct);
        var told = await db.Signals.Where(s => ids.Contains(s.Id)).Select(s => s.Id).ToListAsync(ct);
        return
        [
            .. pains
                .Where(p => told.Contains(p.Signal.Id) && !looked.Contains(p.Signal.Id))
                .Select(p => new VoidedPain(p.Signal.Id, p.Measure, p.Signal.Region!.Value, p.Signal.Pain!.Value, p.Signal.At))
                .OrderByDescending(p => p.At),
        ];
    }

    /// <summary>Once for a database of before: pain that lies in its readings, voided ones too, becomes facts of its own.</summary>
    public static async Task TellOld(IServiceProvider services)
    {
        await using var looking = services.CreateAsyncScope();
        var all = looking.ServiceProvider.GetRequiredService<TensarchDb>();
        if ((await all.Database.SqlQueryRaw<int>("PRAGMA user_version").ToListAsync())[0] >= Told)
            return;
        foreach (var studio in await all.Studios.AsNoTracking().ToListAsync())
        {
            await using var scope = services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<StudioScope>().Enter(studio.Id, Guid.Empty, studio.TimeZone);
            var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
            var content = scope.ServiceProvider.GetRequiredService<CatalogueContent>();
            var pains = (await db.Readings.AsNoTracking().Where(r => r.Pain > BodySignal.PainEventAbove).ToListAsync())
                .SelectMany(r => content.FindMeasure(r.Measure) is { } measure ? Of(r, measure, r.TakenAt) : [])
                .ToList();
            var ids = pains.Select(p => p.Id).ToList();
            var there = await db.Signals.Where(s => ids.Contains(s.Id)).Select(s => s.Id).ToListAsync();
            db.Signals.AddRange(pains.Where(p => !there.Contains(p.Id)));
            await db.SaveChangesAsync();
        }
        await all.Database.ExecuteSqlRawAsync("PRAGMA user_version = 1");
    }

    private const int Told = 1;
}
