using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Exchange;

/// <summary>What a file's readings are judged against: the stored ones, and those of the file before them.</summary>
internal sealed class ImportHistory(TensarchDb db)
{
    private readonly Dictionary<(Guid, string, Instrument), List<Repeat>> repeats = [];
    private readonly Dictionary<string, List<(DateTimeOffset At, Estimate Estimate)>> series = [];

    public async Task<Noise> Noise(Measure measure, ReadingRow row, CancellationToken ct)
    {
        if (measure.Kind != MeasureKind.Range || row.Instrument == Instrument.BlockStack)
            return new(measure.Sem, 0, measure.Tau, 0);
        var key = (row.TakenBy, row.Measure, row.Instrument);
        if (!repeats.TryGetValue(key, out var all))
            repeats[key] = all = await OwnNoises.Repeats(db, row.Measure, row.Instrument, row.TakenBy, DateTimeOffset.MaxValue, ct);
        return OwnNoise.Blend(
            measure.Sem,
            measure.Tau,
            [.. all.Where(r => r.At < row.TakenAt).OrderByDescending(r => r.At).Take(OwnNoises.MostReadings)]
        );
    }

    public async Task<Unlikely?> Unlikely(ReadingRow row, Estimate estimate, CancellationToken ct)
    {
        var name = SeriesOf(row);
        if (!series.TryGetValue(name, out var all))
        {
            var rows = await db
                .Readings.AsNoTracking()
                .Where(r => r.StudentId == row.StudentId && r.Measure == row.Measure && r.Side == row.Side && r.Level == row.Level)
                .Where(r => r.Warmth == row.Warmth && r.Standard == row.Standard && !r.Disqualified && r.Void == null)
                .Sound()
                .OrderByDescending(r => r.TakenAt)
                .Take(OwnNoises.MostReadings)
                .Select(r => new
                {
                    r.TakenAt,
                    r.Value,
                    r.StandardError,
                })
                .ToListAsync(ct);
            series[name] = all = [.. rows.Select(r => (r.TakenAt, new Estimate(r.Value, r.StandardError)))];
        }
        return Core.Measuring.Unlikely.Of(estimate, row.TakenAt, all);
    }

    public void Add(ReadingRow row)
    {
        if (row.Disqualified)
            return;
        if (repeats.TryGetValue((row.TakenBy, row.Measure, row.Instrument), out var own))
            own.Add(new(SeriesOf(row), row.TakenAt, row.Trials, row.Resolution));
        if (series.TryGetValue(SeriesOf(row), out var all))
            all.Add((row.TakenAt, new(row.Value, row.StandardError)));
    }

    private static string SeriesOf(ReadingRow r) => OwnNoises.SeriesOf(r.StudentId, r.Side, r.Level, r.Warmth, r.Standard) + r.Measure;
}
