using System.Text.Json;
using Tensarch.Core.Catalogue;

namespace Tensarch.Server.Sessions;

/// <summary>Says of an entry whether it can be kept at all, whatever the body may do today.</summary>
/// <param name="now">The server's clock.</param>
/// <param name="skew">So much the device's clock is behind it.</param>
internal sealed class FloorCheck(CatalogueContent catalogue, DateTimeOffset now, TimeSpan skew)
{
    /// <summary>A clock that is set right by the moment of sending may still be this far ahead.</summary>
    private static readonly TimeSpan Ahead = TimeSpan.FromMinutes(10);

    /// <summary>What happened longer ago than this is not told by a runner any more.</summary>
    private const int OldestDays = 30;

    /// <param name="sets">Those that are there, with their session: only of one that is there something more is said.</param>
    public Told? Refuse(FloorEntry entry, HashSet<(Guid Set, Guid Session)> sets)
    {
        Told No(string code, string field) => new(entry.Event.Id, ToldIs.Refused, code, field);
        if (entry.Facts.DistinctBy(f => f.Id).Count() < entry.Facts.Count)
            return No("sameIdTwice", "facts");
        if (!IsSaid(entry.Event.Said))
            return No("notReadable", "said");
        var own = SetsOf(entry).ToHashSet();
        foreach (var at in entry.Facts.Select(f => f.At).Append(entry.Event.At))
            if (at + skew > now + Ahead)
                return No("tooFarAhead", "at");
            else if (at + skew < now.AddDays(-OldestDays))
                return No("tooOld", "at");
        foreach (var fact in entry.Facts)
            switch (fact.Kind)
            {
                case FloorFactKind.Set when catalogue.FindDrill(fact.Drill ?? "")?.Variants.Any(v => v.Key == fact.Variant) != true:
                    return No("unknownDrill", "drill");
                case FloorFactKind.Signal when fact.Signal is null:
                    return No("required", "signal");
                case FloorFactKind.Signal when fact.Region is null && catalogue.StopRules.Single(r => r.Signal == fact.Signal).AsksRegion:
                    return No("required", "region");
                case FloorFactKind.Gate when fact.Gate is null || catalogue.FindDayGate(fact.Gate) is null:
                    return No("unknownGate", "gate");
                case FloorFactKind.Confirmed or FloorFactKind.Quality when fact.Of is null:
                    return No("required", "of");
                case FloorFactKind.Quality when fact.Quality is null:
                    return No("required", "quality");
                case FloorFactKind.Confirmed
                or FloorFactKind.Quality when (fact.Of!.Value, entry.Event.Session) is var of && !sets.Contains(of) && !own.Contains(of):
                    return No("noSuchFact", "of");
            }
        return null;
    }

    public static IEnumerable<(Guid Set, Guid Session)> SetsOf(FloorEntry entry) =>
        entry.Facts.Where(f => f.Kind == FloorFactKind.Set).Select(f => (f.Id, entry.Event.Session));

    /// <summary>Another device reads what was said: it is an object that names what it is.</summary>
    private static bool IsSaid(string said)
    {
        try
        {
            using var read = JsonDocument.Parse(said);
            return read.RootElement.ValueKind == JsonValueKind.Object
                && read.RootElement.TryGetProperty("is", out var what)
                && what.ValueKind == JsonValueKind.String;
        }
        catch (JsonException)
        {
            return false;
        }
    }
}
