using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>A coach's own noise with a measure and an instrument, from what they took before.</summary>
public sealed class OwnNoises(TensarchDb db)
{
    /// <summary>So many of the newest readings: by then the catalogue's ten degrees of freedom weigh little, and the cost stays flat.</summary>
    public const int MostReadings = 500;

    public async Task<Noise> Of(Measure measure, Instrument instrument, Guid takenBy, DateTimeOffset before, CancellationToken ct) =>
        measure.Kind != MeasureKind.Range || instrument == Instrument.BlockStack
            ? new(measure.Sem, 0, measure.Tau, 0)
            : OwnNoise.Blend(measure.Sem, measure.Tau, await Repeats(db, measure.Key, instrument, takenBy, before, ct));

    internal static async Task<List<Repeat>> Repeats(
        TensarchDb db,
        string measure,
        Instrument instrument,
        Guid takenBy,
        DateTimeOffset before,
        CancellationToken ct
    )
    {
        var earlier = await db
            .Readings.AsNoTracking()
            .Where(r => r.TakenBy == takenBy && r.Measure == measure && r.Instrument == instrument && r.TakenAt < before)
            .Where(r => r.Void == null && !r.Disqualified)
            .Sound()
            .OrderByDescending(r => r.TakenAt)
            .Take(MostReadings)
            .Select(r => new
            {
                r.StudentId,
                r.Side,
                r.Level,
                r.Warmth,
                r.Standard,
                r.TakenAt,
                r.Trials,
                r.Resolution,
            })
            .ToListAsync(ct);
        return
        [
            .. earlier.Select(r => new Repeat(
                SeriesOf(r.StudentId, r.Side, r.Level, r.Warmth, r.Standard),
                r.TakenAt,
                r.Trials,
                r.Resolution
            )),
        ];
    }

    internal static string SeriesOf(Guid student, Side? side, string? level, Warmth warmth, string? standard) =>
        $"{student}|{side}|{level}|{warmth}|{standard}";
}
