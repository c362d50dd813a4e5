using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Measuring;

/// <summary>A sitting as the bench shows it: what was read before, what the gates ask, and what has been captured.</summary>
public sealed class SittingViews(TensarchDb db, CatalogueContent catalogue, StudioMeasures measures, StudioClock clock, StudioScope scope)
{
    /// <summary>The last readings are looked for so far back, so that a sitting costs the same in its tenth year.</summary>
    private const int LookBackDays = 400;

    public async Task<SittingView> View(SittingRow sitting, Standing standing, CancellationToken ct)
    {
        var stored = SittingDesk.ItemsOf(sitting);
        var items = stored.Where(i => SittingDesk.IsThere(i, catalogue.FindMeasure(i.Measure))).ToList();
        var keys = items.Select(i => i.Measure).Distinct().ToList();
        var since = sitting.StartedAt.AddDays(-LookBackDays);
        // Deliberately wider than the sitting: a coach may change warmth or level on the way.
        var series = await db
            .Readings.Where(r => r.StudentId == sitting.StudentId && keys.Contains(r.Measure) && r.TakenAt >= since)
            .Where(r => r.Void == null && !r.Disqualified && r.SittingId != sitting.Id)
            .Sound()
            .OrderByDescending(r => r.TakenAt)
            .Select(r => new
            {
                r.Id,
                Series = new
                {
                    r.Measure,
                    r.Side,
                    r.Level,
                    r.Warmth,
                    r.Standard,
                },
            })
            .ToListAsync(ct);
        var lastIds = series.GroupBy(r => r.Series).Select(g => g.First().Id).ToList();
        var last = await db.Readings.AsNoTracking().Where(r => lastIds.Contains(r.Id)).ToListAsync(ct);
        var taken = await db
            .Readings.AsNoTracking()
            .Where(r => r.SittingId == sitting.Id && r.Void == null)
            .OrderBy(r => r.TakenAt)
            .ToListAsync(ct);
        var drafts = await db.Drafts.AsNoTracking().Where(d => d.SittingId == sitting.Id).ToDictionaryAsync(d => d.Slot, ct);
        var needs = Needed(standing);
        var barred = SittingDesk.Barred(keys, standing.Bars, catalogue);
        var (student, blocks) = (standing.Student, await measures.Blocks(ct));
        var parts = new List<SittingPart>();
        foreach (var item in items.Where(i => barred.All(h => h.Measure != i.Measure)))
        {
            var measure = (await measures.Find(item.Measure, ct))!;
            parts.Add(
                new(
                    item.Measure,
                    item.Level,
                    item.Warmth,
                    item.Asks,
                    item.ReadBy(taken.Select(t => new TakenIn(t.Measure, t.Side, t.Level, t.Warmth)), items),
                    measure.PerSide ? 2 : 1,
                    measure.ProtocolUnder(standing.Bars.SensationCeiling),
                    [.. Sides(measure, item)]
                )
            );
        }
        return new(
            sitting.Id,
            sitting.Scope,
            sitting.StartedAt,
            sitting.EndedAt,
            student.SplitStandard,
            student.LeftLegCm,
            student.RightLegCm,
            student.HipWidthCm,
            student.BreathSeconds,
            blocks,
            parts,
            parts.Sum(p => p.Read),
            parts.Sum(p => p.Places),
            barred,
            [.. stored.Except(items).Select(i => catalogue.FindMeasure(i.Measure)?.Name ?? i.Measure).Distinct()]
        );

        IEnumerable<SittingSide> Sides(Measure measure, SittingItem item) =>
            from warmth in measure.Kind == MeasureKind.Range ? new[] { Warmth.Warm, Warmth.Cold } : [item.Warmth]
            from level in measure.Levels.Count == 0 ? [null] : measure.Levels.Select(l => (string?)l.Key)
            from side in measure.PerSide ? SideExtensions.Both.Select(s => (Side?)s) : [null]
            select SideOf(measure, item with { Warmth = warmth }, level, side);

        SittingSide SideOf(Measure measure, SittingItem item, string? level, Side? side)
        {
            var standard = measure.Standards.Count > 0 ? student.SplitStandard : null;
            bool Same(ReadingRow r) =>
                r.Measure == measure.Key && r.Side == side && r.Level == level && r.Warmth == item.Warmth && r.Standard == standard;
            var previous = last.FirstOrDefault(Same);
            var slot = Slot(measure.Key, side, level, item.Warmth);
            return new(
                slot,
                side,
                level,
                item.Warmth,
                taken.LastOrDefault(Same) is { } now ? ReadingViews.ToView(now) : null,
                previous is null ? null : ReadingViews.ToView(previous),
                previous is null ? null : Band(measure, previous, item.Asks),
                [
                    .. (standing.State.Evidence with { Standard = student.SplitStandard })
                        .Of(measure, side, item.Warmth, level)
                        .Where(r => !r.Disqualified && clock.Now - r.At <= TimeSpan.FromDays(measure.ShelfDays))
                        .OrderByDescending(r => r.At)
                        .Select(r => new RecentReading(r.At, r.Trials)),
                ],
                [
                    .. needs
                        .Where(n => n.Measure == measure.Key && n.ReadOn == side && n.Level == level && n.Warmth == item.Warmth)
                        .Select(n => n.Need),
                ],
                drafts.GetValueOrDefault(slot) is { } draft && StoredJson.TryRead<Draft>(draft.Json) is { } captured
                    ? new(draft.Version, captured)
                    : null
            );
        }
    }

    /// <summary>Where a new value of as many trials is no detectable change, at the noise that the previous reading froze.</summary>
    private MdcBand? Band(Measure measure, ReadingRow previous, int trials)
    {
        if (measure.Kind != MeasureKind.Range)
            return null;
        var expected = ReadingError.StandardError(previous.Sem, previous.Tau, trials, previous.Resolution);
        var mdc = Mdc.Between(previous.StandardError, expected, previous.TakenBy == scope.UserId);
        return new(previous.Value - mdc, previous.Value + mdc, mdc);
    }

    private List<(string Measure, Side? ReadOn, string? Level, Warmth Warmth, BenchNeed Need)> Needed(Standing standing)
    {
        var gate = new Gate(catalogue);
        return
        [
            .. from followed in standing.State.Courses
            from verdict in followed.Judge(gate)
            from test in verdict.Tests
            where test is { Test: RomCriterion, Threshold: not null }
            let rom = (RomCriterion)test.Test
            select (
                rom.Measure,
                test.ReadOn,
                rom.Level,
                rom.Warmth,
                new BenchNeed(
                    followed.Skill,
                    verdict.Side,
                    verdict.Stage,
                    rom.Comparison,
                    test.Threshold!.Value,
                    rom.MinTrials,
                    test.Outcome
                )
            ),
        ];
    }

    public static string Slot(string measure, Side? side, string? level, Warmth warmth) =>
        string.Join('.', measure, side?.ToString().ToLowerInvariant() ?? "none", level ?? "none", warmth.ToString().ToLowerInvariant());
}
