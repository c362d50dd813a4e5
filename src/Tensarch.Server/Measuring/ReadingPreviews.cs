using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Measuring;

/// <summary>What a reading would say, while it is still being taken.</summary>
public sealed class ReadingPreviews(
    ReadingDesk desk,
    TensarchDb db,
    StudioMeasures measures,
    Standings standings,
    CatalogueContent catalogue,
    StudioClock clock,
    StudioScope scope
)
{
    /// <summary>Against the series' and the other side's last counting readings, of the same warmth, level and standard.</summary>
    public async Task<Result<PreviewResponse>> Preview(Guid studentId, ReadingRequest request, CancellationToken ct)
    {
        var found = await desk.Prepare(studentId, request, clock.Now, ct);
        if (!found.IsOk)
            return found.Problems.ToList();
        var (measure, input, noise, resolution, estimate, unlikely, odd) = found.Value;
        var same = await Last(studentId, request, request.Side, ct);
        var other = request.Side is { } side ? await Last(studentId, request, side.Other(), ct) : null;
        var asymmetry =
            other is null ? null
            : request.Side == Side.Left
                ? Asymmetry.Between(estimate, ReadingDesk.EstimateOf(other), measure.Better, other.TakenBy == scope.UserId)
            : Asymmetry.Between(ReadingDesk.EstimateOf(other), estimate, measure.Better, other.TakenBy == scope.UserId);
        return new PreviewResponse(
            input.Trials,
            estimate.Value,
            estimate.StandardError,
            noise.Sem,
            noise.SemDof,
            noise.Tau,
            noise.TauPairs,
            resolution,
            measure.Kind == MeasureKind.Rate ? SuccessRate.Of(input.Successes!.Value, input.Attempts!.Value).Value : null,
            measure.IsDisqualified(request.Compensations, request.Standard),
            same is null ? null : Compared(same, Change.Between(ReadingDesk.EstimateOf(same), estimate, same.TakenBy == scope.UserId)),
            other is null ? null : Compared(other, asymmetry!.Change),
            asymmetry?.Weaker,
            unlikely,
            await StraddleOf(studentId, request, estimate, ct),
            odd,
            measure.Kind == MeasureKind.Range ? await PooledWith(studentId, request, found.Value, ct) : null,
            request.Pain > 0 ? await PainEffect(studentId, request, measure, ct) : null
        );
    }

    /// <summary>What the core would pool this reading with.</summary>
    private async Task<PooledWith?> PooledWith(Guid studentId, ReadingRequest request, PreparedReading prepared, CancellationToken ct)
    {
        var row = ReadingDesk.Row(studentId, request, prepared, clock.Now, scope.UserId);
        var since = clock.Now - PooledTest.Window;
        var before = await desk.SeriesOf(studentId, request, request.Side).Where(r => r.TakenAt >= since && r.Id != row.Id).ToListAsync(ct);
        var test = PooledTest.From(before.Append(row).Select(r => ReadingViews.ToCore(r, clock.DayOf(r.TakenAt)))).LastOrDefault();
        return test is { Readings.Count: > 1 } ? new(test.First, test.Readings.Count, test.Trials, test.Estimate.Value) : null;
    }

    /// <summary>What would be barred, were this pain told now.</summary>
    private async Task<PainEffect> PainEffect(Guid studentId, ReadingRequest request, Measure measure, CancellationToken ct)
    {
        var state = (await standings.Of(studentId, ct))!.State;
        var felt = measure
            .Regions()
            .Select(region => new BodySignal(Guid.NewGuid(), clock.Now, SignalKind.DullPain, region, request.Side, request.Pain));
        var after = StudentState.From(state.Facts with { Signals = [.. state.Facts.Signals, .. felt] }, state.Now, catalogue).Today;
        var more = after.Levels.Where(l => l.Value > state.Today.Levels[l.Key]).Select(l => new TagLevel(l.Key, l.Value));
        return new(request.Pain > BodySignal.PainEventAbove, [.. more]);
    }

    private Task<ReadingRow?> Last(Guid studentId, ReadingRequest request, Side? side, CancellationToken ct) =>
        desk.SeriesOf(studentId, request, side).OrderByDescending(r => r.TakenAt).FirstOrDefaultAsync(ct);

    /// <summary>The other reading of the middle split, of the same test, held against this one.</summary>
    private async Task<StraddleCheck?> StraddleOf(Guid studentId, ReadingRequest request, Estimate estimate, CancellationToken ct)
    {
        var role = (await measures.Find(request.Measure, ct))?.Role;
        if (role is not (MeasureRole.StraddleGap or MeasureRole.StraddleHeels))
            return null;
        var since = clock.Now - PooledTest.Window;
        var wanted = role == MeasureRole.StraddleGap ? MeasureRole.StraddleHeels : MeasureRole.StraddleGap;
        if ((await measures.All(ct)).FirstOrDefault(m => m.Role == wanted) is not { } facing)
            return null;
        var partner = request with { Measure = facing.Key };
        var other = await desk.SeriesOf(studentId, partner, null)
            .Where(r => r.TakenAt >= since)
            .OrderByDescending(r => r.TakenAt)
            .FirstOrDefaultAsync(ct);
        var body = await db
            .Students.Where(s => s.Id == studentId)
            .Select(s => new
            {
                s.LeftLegCm,
                s.RightLegCm,
                s.HipWidthCm,
            })
            .SingleAsync(ct);
        if (other is null || body is not { LeftLegCm: { } left, RightLegCm: { } right })
            return null;
        var (heels, gap) =
            role == MeasureRole.StraddleHeels ? (estimate, ReadingDesk.EstimateOf(other)) : (ReadingDesk.EstimateOf(other), estimate);
        var check = Straddle.CrossCheck(left, right, heels, gap, body.HipWidthCm);
        return check.IsOk ? check.Value : null;
    }

    private static ComparedReading Compared(ReadingRow row, Change change) =>
        new(row.Value, row.TakenAt, change.Difference, change.Mdc95, change.Detectable);
}
