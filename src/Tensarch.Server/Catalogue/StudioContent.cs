using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Server.Data;

namespace Tensarch.Server.Catalogue;

/// <summary>The shipped content with each studio's own drills added: read once a studio, and anew when one of them changed.</summary>
public sealed class StudioContent(Task<CatalogueContent> loading)
{
    private readonly ConcurrentDictionary<Guid, CatalogueContent> studios = new();
    private readonly ConcurrentDictionary<Guid, int> changes = new();

    public CatalogueContent Shipped => loading.GetAwaiter().GetResult();

    /// <summary>Of the studio of a request; the shipped one alone where nobody is signed in.</summary>
    public CatalogueContent Of(StudioScope scope, TensarchDb db)
    {
        if (!scope.IsSet)
            return Shipped;
        if (studios.TryGetValue(scope.StudioId, out var known))
            return known;
        var before = changes.GetValueOrDefault(scope.StudioId);
        var read = Read(db);
        studios[scope.StudioId] = read;
        // What was read while one of them changed serves this request, and is read anew by the next.
        if (changes.GetValueOrDefault(scope.StudioId) != before)
            studios.TryRemove(scope.StudioId, out _);
        return read;
    }

    public void Forget(Guid studio)
    {
        changes.AddOrUpdate(studio, 1, (_, n) => n + 1);
        studios.TryRemove(studio, out _);
    }

    private CatalogueContent Read(TensarchDb db)
    {
        var shipped = Shipped;
        // A row that slipped in spoils its own drill, not the others.
        var own =
            from row in db.OwnDrills.AsNoTracking().OrderBy(d => d.Version).ToList()
            group row by row.DrillKey into versions
            let newest = versions.Last()
            let source = shipped.FindDrill(newest.Source)
            where source is not null && shipped.FindDrill(newest.DrillKey) is null
            let drill = StoredJson.TryRead<OwnDrill>(newest.Json)
            where
                drill
                    is {
                        Name: not null,
                        Cues: not null,
                        Checks: not null,
                        StopSigns: not null,
                        Props: not null,
                        Variants: not null,
                        Loads: not null
                    }
            where drill.Stands(source)
            select drill.Of(source, newest.DrillKey, newest.Gone);
        var all = own.ToList();
        return all.Count == 0 ? shipped : shipped.With(all);
    }
}
