using System.Text.Json;
using Tensarch.Core;
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
    /// <returns>Its facts; or why it is refused, at its field.</returns>
    public Result<IReadOnlyList<FloorSaid>> Read(FloorEntry entry, HashSet<(Guid Set, Guid Session)> sets)
    {
        if (entry.Facts.DistinctBy(f => f.Id).Count() < entry.Facts.Count)
            return Problem.Of("sameIdTwice", "facts");
        if (!IsSaid(entry.Event.Said))
            return Problem.Of("notReadable", "said");
        foreach (var at in entry.Facts.Select(f => f.At).Append(entry.Event.At))
            if (at + skew > now + Ahead)
                return Problem.Of("tooFarAhead", "at");
            else if (at + skew < now.AddDays(-OldestDays))
                return Problem.Of("tooOld", "at");
        var facts = new List<FloorSaid>();
        foreach (var fact in entry.Facts)
        {
            var said = FloorSaid.Read(fact, catalogue);
            if (!said.IsOk)
                return said.Problems.ToList();
            facts.Add(said.Value);
        }
        var own = facts.OfType<FloorSaid.Set>().Select(s => s.Id).ToHashSet();
        foreach (var of in facts.Select(SetOf).OfType<Guid>())
            if (!own.Contains(of) && !sets.Contains((of, entry.Event.Session)))
                return Problem.Of("noSuchFact", "of");
        return facts;
    }

    private static Guid? SetOf(FloorSaid said) =>
        said switch
        {
            FloorSaid.Done confirmed => confirmed.Of,
            FloorSaid.Rated rated => rated.Of,
            _ => null,
        };

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
