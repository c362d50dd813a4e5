using System.Text.Json;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>Loads as the pack writes them, so that the runner compares words and weighs nothing.</summary>
public static class PackLoads
{
    private const string Heavy = ":heavy";

    /// <summary>The tag's name as it is written in JSON.</summary>
    public static string Name(LoadTag tag) => JsonNamingPolicy.KebabCaseLower.ConvertName(tag.ToString());

    public static IReadOnlyList<string> Of(IReadOnlyDictionary<LoadTag, LoadLevel> loads) =>
        [
            .. loads
                .Where(l => l.Value != LoadLevel.None)
                .OrderBy(l => l.Key)
                .SelectMany(l => l.Value == LoadLevel.Heavy ? new[] { Name(l.Key), Name(l.Key) + Heavy } : [Name(l.Key)]),
            .. loads.GetValueOrDefault(LoadTag.PassiveEndRange) == LoadLevel.None
                ? []
                : loads
                    .Where(l => l.Value != LoadLevel.None && l.Key.IsRegion())
                    .OrderBy(l => l.Key)
                    .Select(l => Both(LoadTag.PassiveEndRange, l.Key)),
        ];

    /// <summary>One in what loads the other as well.</summary>
    private static string Both(LoadTag tag, LoadTag on) => $"{Name(tag)}+{Name(on)}";

    /// <summary>What bars keep from being done: nothing that carries one of these words goes on.</summary>
    public static IReadOnlyList<string> Ended(DayBars bars) =>
        [
            .. LoadTags.All.Where(t => bars[t] != BarLevel.Free).Select(t => bars[t] == BarLevel.OffLimits ? Name(t) : Name(t) + Heavy),
            .. bars.Together.Select(t => Both(t.Tag, t.On)),
        ];
}
