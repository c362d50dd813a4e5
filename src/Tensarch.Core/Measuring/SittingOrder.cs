namespace Tensarch.Core.Measuring;

/// <summary>One thing to read in a sitting, both sides of it where it has sides.</summary>
/// <param name="Asks">How many trials the gate that asks for it counts.</param>
public sealed record SittingItem(string Measure, string? Level, Warmth Warmth, int Asks = 3);

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
        var wanted = items.Distinct().ToList();
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
