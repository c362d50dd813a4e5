using System.Text.Json;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>Works out, per signal, which parts of this session end.</summary>
internal static class PackStops
{
    public static PackStop Of(StopRule rule, IReadOnlyList<PackPart> parts, CatalogueContent catalogue)
    {
        IReadOnlyDictionary<string, IReadOnlyList<string>> removes = rule.Ends switch
        {
            Ends.Region => LoadTags.Regions.ToDictionary(Name, r => With([r], parts, catalogue)),
            Ends.Tags => Everywhere(With(rule.Tags, parts, catalogue)),
            Ends.Session => Everywhere([.. parts.Select(p => p.Id)]),
            _ => Everywhere([]),
        };
        return new(rule.Signal, rule.Name, rule.Advice, rule.AsksRegion, rule.AsksPain, rule.Ends, rule.EasierBy, removes);
    }

    private static Dictionary<string, IReadOnlyList<string>> Everywhere(IReadOnlyList<string> parts) => new() { [""] = parts };

    /// <summary>Parts that load one of the tags in any of their versions.</summary>
    private static IReadOnlyList<string> With(IReadOnlyList<LoadTag> tags, IReadOnlyList<PackPart> parts, CatalogueContent catalogue) =>
        [.. parts.Where(p => catalogue.Drill(p.Drill).Loads.Keys.Any(tags.Contains)).Select(p => p.Id)];

    /// <summary>The region's name as it is written in JSON.</summary>
    private static string Name(LoadTag tag) => JsonNamingPolicy.KebabCaseLower.ConvertName(tag.ToString());
}
