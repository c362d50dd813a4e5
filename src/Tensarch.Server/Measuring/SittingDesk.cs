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
public sealed class SittingDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    private const int LongestDraft = 8000;
    private const int DraftsKeptDays = 14;

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
            : [.. SittingItem.Once(Wanted(standing).SelectMany(l => MeasureNeeds.Baseline(l, catalogue)))];
    }

    private List<Ladder> Wanted(Standing standing)
    {
        var goals = (StoredJson.TryRead<List<string>>(standing.Student.GoalsJson) ?? [])
            .Select(catalogue.NewestLadder)
            .OfType<Ladder>()
            .ToList();
        return goals.Count > 0 ? goals : [catalogue.Skills[0]];
    }

    public IReadOnlyList<BarredMeasure> Barred(IEnumerable<string> keys, DayBars bars) => Barred(keys, bars, catalogue);

    public static IReadOnlyList<BarredMeasure> Barred(IEnumerable<string> keys, DayBars bars, CatalogueContent catalogue) =>
        [
            .. from key in keys
            let tag = catalogue.Measure(key).BarredBy(bars)
            where tag is not null
            select new BarredMeasure(key, tag.Value),
        ];

    public IEnumerable<SittingItem> ItemsOf(IEnumerable<string> keys, string? level = null) =>
        keys.Select(k => catalogue.Measure(k))
            .Select(m => new SittingItem(
                m.Key,
                (m.Levels.FirstOrDefault(l => l.Key == level) ?? m.Levels.FirstOrDefault())?.Key,
                Warmth.Warm
            ));

    public async Task<Result<(SittingRow Row, Appended Appended)>> Start(Standing standing, SittingRequest request, CancellationToken ct)
    {
        if (request.Measures.Any(k => catalogue.FindMeasure(k) is null))
            return Problem.Of("unknownMeasure", "measures");
        IEnumerable<SittingItem>? wanted = request.Scope switch
        {
            "needs" => Needs(standing),
            "single" => ItemsOf(request.Measures.Distinct(), request.Level),
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

    /// <summary>What a sitting reads; what was stored and cannot be read any more is left out.</summary>
    public static List<SittingItem> ItemsOf(SittingRow row) => StoredJson.TryRead<List<SittingItem>>(row.ItemsJson) ?? [];

    /// <summary>The measure is there, and has the level that the item names.</summary>
    public static bool IsThere(SittingItem item, Measure? measure) =>
        measure is not null && (measure.Levels.Count == 0 ? item.Level is null : measure.Levels.Any(l => l.Key == item.Level));

    public async Task<IReadOnlyList<OpenSitting>> Open(Guid studentId, CancellationToken ct)
    {
        var since = clock.Now.AddDays(-1);
        var kept = clock.Now.AddDays(-DraftsKeptDays);
        var rows = await (
            from sitting in db.Sittings.AsNoTracking()
            where sitting.StudentId == studentId && sitting.EndedAt == null
            // What was captured and not saved is found again, even when nobody came back that day.
            where sitting.StartedAt >= since || sitting.StartedAt >= kept && db.Drafts.Any(d => d.SittingId == sitting.Id)
            join user in db.Users on sitting.By equals user.Id into who
            from user in who.DefaultIfEmpty()
            orderby sitting.StartedAt descending
            select new { sitting, DisplayName = user == null ? "" : user.DisplayName }
        )
            .Take(5)
            .ToListAsync(ct);
        var ids = rows.Select(r => r.sitting.Id).ToList();
        var taken = (
            await db
                .Readings.Where(r => r.Void == null && ids.Contains(r.SittingId!.Value))
                .Select(r => new { r.SittingId, Taken = new TakenIn(r.Measure, r.Side, r.Level, r.Warmth) })
                .ToListAsync(ct)
        ).ToLookup(r => r.SittingId, r => r.Taken);
        return
        [
            .. rows.Select(r =>
            {
                var asked = ItemsOf(r.sitting).Where(i => IsThere(i, catalogue.FindMeasure(i.Measure))).ToList();
                return new OpenSitting(
                    r.sitting.Id,
                    r.sitting.Scope,
                    r.sitting.StartedAt,
                    r.DisplayName,
                    asked.Sum(i => i.ReadBy(taken[r.sitting.Id], asked)),
                    asked.Sum(i => catalogue.Measure(i.Measure).PerSide ? 2 : 1)
                );
            }),
        ];
    }

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
