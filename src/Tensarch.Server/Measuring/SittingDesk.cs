using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Measuring;

/// <summary>Sittings: what to read and in which order, what has been captured, and how to go on with it elsewhere.</summary>
public sealed class SittingDesk(TensarchDb db, CatalogueContent catalogue, StudioMeasures measures, StudioClock clock, StudioScope scope)
{
    /// <summary>The last readings are looked for so far back, so that a sitting costs the same in its tenth year.</summary>
    private const int LookBackDays = 400;
    private const int LongestDraft = 8000;

    /// <summary>What a scope would read on this student today, barred measures left out.</summary>
    public SittingOffer Offer(Standing standing, string scope, string? name, IEnumerable<SittingItem> wanted)
    {
        var all = wanted.ToList();
        var leftOut = Barred(all.Select(i => i.Measure).Distinct(), standing.Bars);
        var items = SittingOrder.Of(all.Where(i => leftOut.All(h => h.Measure != i.Measure)), catalogue.MeasuresByKey, catalogue.Positions);
        return new(scope, name, items, leftOut, SittingOrder.Changes(items, catalogue.MeasuresByKey));
    }

    /// <summary>What the next gates still need, of every skill; before the student is on a ladder, the baseline of what they want.</summary>
    public IReadOnlyList<SittingItem> Needs(Standing standing)
    {
        var gate = new Gate(catalogue);
        return standing.State.Courses.Count > 0
            ? MeasureNeeds.Of(standing.State.Courses.SelectMany(s => s.Judge(gate)), catalogue)
            : [.. Wanted(standing).SelectMany(l => MeasureNeeds.Baseline(l, catalogue)).Distinct()];
    }

    private List<Ladder> Wanted(Standing standing)
    {
        var goals = (StoredJson.TryRead<List<string>>(standing.Student.GoalsJson) ?? [])
            .Select(catalogue.NewestLadder)
            .OfType<Ladder>()
            .ToList();
        return goals.Count > 0 ? goals : [catalogue.Skills[0]];
    }

    public IReadOnlyList<BarredMeasure> Barred(IEnumerable<string> keys, DayBars bars) =>
        [
            .. from key in keys
            let tag = catalogue.Measure(key).BarredBy(bars)
            where tag is not null
            select new BarredMeasure(key, tag.Value),
        ];

    public IEnumerable<SittingItem> ItemsOf(IEnumerable<string> keys) =>
        keys.Select(k => catalogue.Measure(k)).Select(m => new SittingItem(m.Key, m.Levels.FirstOrDefault()?.Key, Warmth.Warm));

    public async Task<Result<(SittingRow Row, Appended Appended)>> Start(Standing standing, SittingRequest request, CancellationToken ct)
    {
        if (request.Measures.Any(k => catalogue.FindMeasure(k) is null))
            return Problem.Of("unknownMeasure", "measures");
        IEnumerable<SittingItem>? wanted = request.Scope switch
        {
            "needs" => Needs(standing),
            "single" => ItemsOf(request.Measures.Distinct()),
            _ => catalogue.Batteries.FirstOrDefault(b => b.Key == request.Scope) is { } battery ? ItemsOf(battery.Measures) : null,
        };
        if (wanted is null)
            return Problem.Of("unknownBattery", "scope");
        var warm = wanted.ToList();
        var cold = request.Cold
            ? warm.Where(i => catalogue.Measure(i.Measure).Kind == MeasureKind.Range).Select(i => i with { Warmth = Warmth.Cold })
            : [];
        var offer = Offer(standing, request.Scope, null, warm.Concat(cold));
        if (offer.Items.Count == 0)
            return Problem.Of(offer.LeftOut.Count > 0 ? "offLimits" : "nothingToRead", "measures");
        var row = new SittingRow
        {
            Id = request.Id,
            StudentId = standing.Student.Id,
            Scope = request.Scope,
            ItemsJson = StoredJson.Write(offer.Items),
            StartedAt = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.Sittings.AddFact(row, new { standing.Student.Id, request }, ct);
        if (appended == Appended.SameAgain)
            row = await db.Sittings.AsNoTracking().SingleAsync(s => s.Id == request.Id, ct);
        return (row, await db.SaveFact(appended, ct));
    }

    /// <summary>Measures that are no longer there are left out.</summary>
    private List<SittingItem> ItemsOf(SittingRow row) =>
        [.. (StoredJson.TryRead<List<SittingItem>>(row.ItemsJson) ?? []).Where(i => catalogue.FindMeasure(i.Measure) is not null)];

    public async Task<IReadOnlyList<OpenSitting>> Open(Guid studentId, CancellationToken ct)
    {
        var since = clock.Now.AddDays(-1);
        var rows = await (
            from sitting in db.Sittings.AsNoTracking()
            where sitting.StudentId == studentId && sitting.EndedAt == null && sitting.StartedAt >= since
            join user in db.Users on sitting.By equals user.Id into who
            from user in who.DefaultIfEmpty()
            orderby sitting.StartedAt descending
            select new
            {
                sitting,
                DisplayName = user == null ? "" : user.DisplayName,
                Taken = db
                    .Readings.Where(r => r.SittingId == sitting.Id && r.Void == null)
                    .Select(r => new
                    {
                        r.Measure,
                        r.Side,
                        r.Warmth,
                    })
                    .Distinct()
                    .Count(),
            }
        )
            .Take(5)
            .ToListAsync(ct);
        return
        [
            .. rows.Select(r => new OpenSitting(
                r.sitting.Id,
                r.sitting.Scope,
                r.sitting.StartedAt,
                r.DisplayName,
                r.Taken,
                ItemsOf(r.sitting).Sum(i => catalogue.Measure(i.Measure).PerSide ? 2 : 1)
            )),
        ];
    }

    public async Task<SittingView> View(SittingRow sitting, Standing standing, CancellationToken ct)
    {
        var items = ItemsOf(sitting);
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
        var barred = Barred(keys, standing.Bars);
        var (student, blocks) = (standing.Student, await measures.Blocks(ct));
        var parts = new List<SittingPart>();
        foreach (var item in items.Where(i => barred.All(h => h.Measure != i.Measure)))
        {
            var measure = (await measures.Find(item.Measure, ct))!;
            parts.Add(new(item.Measure, item.Level, item.Warmth, item.Asks, [.. Sides(measure, item)]));
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
            barred
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

    /// <summary>Keeps what was captured. The version that was seen must be the one that stands.</summary>
    /// <returns>The new version; <c>changedMeanwhile</c> with the standing version when another device was faster.</returns>
    public async Task<Result<int>> Keep(Guid sittingId, string slot, DraftRequest request, CancellationToken ct)
    {
        var json = StoredJson.Write(request.Draft);
        if (json.Length > LongestDraft || slot.Length > 120)
            return Problem.Of("tooLong", "draft", ("most", LongestDraft));
        var row = await db.Drafts.SingleOrDefaultAsync(d => d.SittingId == sittingId && d.Slot == slot, ct);
        if (row?.Json == json)
            return row.Version;
        if ((row?.Version ?? 0) != request.Version)
            return Problem.Of("changedMeanwhile", "version", ("version", row?.Version ?? 0));
        if (row is null)
        {
            row = new()
            {
                SittingId = sittingId,
                Slot = slot,
                Json = json,
            };
            db.Drafts.Add(row);
        }
        (row.Json, row.Version, row.At) = (json, row.Version + 1, clock.Now);
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateException e) when (e is DbUpdateConcurrencyException || Facts.IsTaken(e))
        {
            return Problem.Of("changedMeanwhile", "version", ("version", request.Version + 1));
        }
        return row.Version;
    }

    public async Task End(Guid sittingId, CancellationToken ct)
    {
        var row = await db.Sittings.SingleAsync(s => s.Id == sittingId, ct);
        row.EndedAt ??= clock.Now;
        await db.SaveChangesAsync(ct);
    }
}
