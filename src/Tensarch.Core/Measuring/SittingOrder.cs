using System.Text.Json.Serialization;

namespace Tensarch.Core.Measuring;

/// <summary>One thing to read in a sitting, both sides of it where it has sides.</summary>
/// <param name="Asks">How many trials the gate that asks for it counts.</param>
public sealed record SittingItem(string Measure, string? Level, Warmth Warmth, int Asks = 3)
{
    /// <summary>What is read: a measure at a level and a warmth stands in a sitting once.</summary>
    [JsonIgnore]
    public (string Measure, string? Level, Warmth Warmth) Series => (Measure, Level, Warmth);

    /// <summary>On how many sides it is read by what was taken: at its own level, or at another one that nothing else in the sitting asks for.</summary>
    public int ReadBy(IEnumerable<TakenIn> taken, IReadOnlyList<SittingItem> all) =>
        taken
            .Where(t => t.Measure == Measure && t.Warmth == Warmth)
            .Where(t => t.Level == Level || all.All(o => o.Series != (t.Measure, t.Level, t.Warmth)))
            .Select(t => t.Side)
            .Distinct()
            .Count();

    /// <summary>Each series once, with as many trials as the one that asks for most.</summary>
    public static IEnumerable<SittingItem> Once(IEnumerable<SittingItem> items) =>
        items.GroupBy(i => i.Series).Select(g => g.MaxBy(i => i.Asks)!);
}

/// <summary>A reading that was taken in a sitting.</summary>
public sealed record TakenIn(string Measure, Side? Side, string? Level, Warmth Warmth);

/// <summary>
/// The order of a sitting: what is read cold comes first, for warming up cannot be undone; then the body changes position as little
/// as possible; within a position the readings come before the holds that tire.
/// </summary>
public static class SittingOrder
{
    public static IReadOnlyList<SittingItem> Of(
        IEnumerable<SittingItem> items,
        IReadOnlyDictionary<string, Measure> measures,
        IReadOnlyList<BenchPosition> positions
    )
    {
        var place = measures.Keys.Index().ToDictionary(k => k.Item, k => k.Index);
        var wanted = SittingItem.Once(items).ToList();
        var cold = Arrange(wanted.Where(i => i.Warmth == Warmth.Cold), null);
        var stays = cold.Count == 0 ? null : measures[cold[^1].Measure].Position;
        if (stays is not null && wanted.All(i => i.Warmth == Warmth.Cold || measures[i.Measure].Position != stays))
            (cold, stays) = EndWhereWarmBegins(cold);
        return [.. cold, .. Arrange(wanted.Where(i => i.Warmth == Warmth.Warm), stays)];

        // Ends the cold part in a position that the warm part has too, where there is one: one change less.
        (List<SittingItem>, string?) EndWhereWarmBegins(List<SittingItem> part)
        {
            var shared = part.Select(i => measures[i.Measure].Position)
                .FirstOrDefault(p => wanted.Any(i => i.Warmth == Warmth.Warm && measures[i.Measure].Position == p));
            return shared is null
                ? (part, null)
                : (
                    [
                        .. part.Where(i => measures[i.Measure].Position != shared),
                        .. part.Where(i => measures[i.Measure].Position == shared),
                    ],
                    shared
                );
        }

        List<SittingItem> Arrange(IEnumerable<SittingItem> part, string? first) =>
            [
                .. part.OrderByDescending(i => measures[i.Measure].Position == first)
                    .ThenBy(i => Rank(measures[i.Measure].Position))
                    .ThenBy(i => measures[i.Measure].Kind is MeasureKind.Hold or MeasureKind.Rate)
                    .ThenBy(i => place[i.Measure])
                    .ThenBy(i => LevelRank(i)),
            ];

        int Rank(string position) => positions.Index().First(p => p.Item.Key == position).Index;

        int LevelRank(SittingItem item) =>
            measures[item.Measure].Levels.Index().Where(l => l.Item.Key == item.Level).Select(l => l.Index).FirstOrDefault();
    }

    /// <summary>How often the body changes position on the way through.</summary>
    public static int Changes(IReadOnlyList<SittingItem> order, IReadOnlyDictionary<string, Measure> measures) =>
        order.Zip(order.Skip(1)).Count(pair => measures[pair.First.Measure].Position != measures[pair.Second.Measure].Position);
}
