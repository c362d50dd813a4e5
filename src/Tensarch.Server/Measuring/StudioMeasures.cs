using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>The measures and blocks as this studio reads them: the shipped ones, with its own versions in their place.</summary>
public sealed class StudioMeasures(TensarchDb db, CatalogueContent catalogue, StudioScope scope)
{
    private Dictionary<string, OwnMeasureRow>? newest;
    private IReadOnlyList<BlockKind>? blocks;

    public async Task<Measure?> Find(string key, CancellationToken ct) =>
        catalogue.FindMeasure(key) is { } shipped ? Own(shipped, await Newest(ct)) : null;

    public async Task<IReadOnlyList<Measure>> All(CancellationToken ct)
    {
        var own = await Newest(ct);
        return [.. catalogue.Measures.Select(m => Own(m, own))];
    }

    /// <summary>The newest own version of each measure, also where it goes back to the shipped one.</summary>
    public async Task<IReadOnlyDictionary<string, OwnMeasureRow>> Newest(CancellationToken ct) =>
        newest ??= (await db.OwnMeasures.AsNoTracking().OrderBy(o => o.Version).ToListAsync(ct))
            .GroupBy(o => o.Measure)
            .ToDictionary(g => g.Key, g => g.Last());

    public async Task<IReadOnlyList<BlockKind>> Blocks(CancellationToken ct) =>
        blocks ??= BlocksOf(await db.Studios.Where(s => s.Id == scope.StudioId).Select(s => s.BlocksJson).SingleAsync(ct));

    public static IReadOnlyList<BlockKind> BlocksOf(string? json) =>
        StoredJson.TryRead<List<BlockKind>>(json) is { Count: > 0 } kinds && kinds.All(k => k.Check().Count == 0)
            ? kinds
            : [BlockKind.Standard];

    private static Measure Own(Measure shipped, IReadOnlyDictionary<string, OwnMeasureRow> own) =>
        Usable(shipped, own.GetValueOrDefault(shipped.Key))?.Of(shipped) ?? shipped;

    /// <summary>None when there is none, and when what is stored cannot stand: then the shipped measure is read.</summary>
    public static OwnMeasure? Usable(Measure shipped, OwnMeasureRow? row) =>
        StoredJson.TryRead<OwnMeasure>(row?.Json) is { } own && own.Check(shipped).Count == 0 ? own : null;
}
