using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>Pain that was said with a reading which counts for nothing by now; the pain does.</summary>
public sealed record VoidedPain(Guid Signal, string Measure, LoadTag Region, int Pain, DateTimeOffset At);

/// <summary>
/// Pain that was said with a reading is a fact of its own, in each of the measure's regions: voiding the reading does not take it back, and no
/// look back cuts it.
/// </summary>
public static class ReadingPains
{
    /// <summary>Pain events alone: less pain is read off the reading, and goes with it.</summary>
    public static IEnumerable<SignalRow> Of(ReadingRow reading, Measure measure, DateTimeOffset recordedAt) =>
        reading.Pain > BodySignal.PainEventAbove
            ? measure
                .Regions()
                .Select(region => new SignalRow
                {
                    Id = IdOf(reading.Id, region),
                    StudentId = reading.StudentId,
                    Kind = SignalKind.DullPain,
                    Region = region,
                    Side = reading.Side,
                    Pain = reading.Pain,
                    At = reading.TakenAt,
                    RecordedAt = recordedAt,
                    By = reading.TakenBy,
                    BodyHash = reading.BodyHash,
                })
            : [];

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

    /// <summary>The same at every try, so that a pain is told once.</summary>
    private static Guid IdOf(Guid reading, LoadTag region) =>
        new(SHA256.HashData(Encoding.UTF8.GetBytes($"{reading:N}/{region}")).AsSpan(0, 16));

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
