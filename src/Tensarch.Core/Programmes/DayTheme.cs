using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>What a day of a series is for.</summary>
public enum DayTheme
{
    Hips,
    Hamstrings,

    /// <summary>Wrists and shoulders, lightly.</summary>
    Care,
    Test,
}

/// <summary>A day, every week or once, that is for something of its own.</summary>
/// <param name="Theme">None: only lightly.</param>
/// <param name="Light">Nothing at this week's step.</param>
public sealed record ThemedDay(DayOfWeek? Weekday, DateOnly? Date, DayTheme? Theme = null, bool Light = false);

/// <summary>What of a day's menu its theme leaves.</summary>
internal static class Themes
{
    private static readonly IReadOnlySet<LoadTag> Hips = new HashSet<LoadTag>
    {
        LoadTag.HipFront,
        LoadTag.HipDeepFlexion,
        LoadTag.Adductor,
    };

    private static readonly IReadOnlySet<LoadTag> Hamstrings = new HashSet<LoadTag> { LoadTag.Hamstring };

    private static readonly IReadOnlySet<LoadTag> Hands = new HashSet<LoadTag> { LoadTag.Wrist, LoadTag.Shoulder };

    /// <summary>A theme that finds nothing to do leaves the day as any other.</summary>
    public static IReadOnlyList<DayOffer> Of(TrainingSlot slot, IReadOnlyList<DayOffer> menu, CatalogueContent content)
    {
        bool For(DayOffer offer, IReadOnlySet<LoadTag> regions) =>
            offer.Ask.Blocks.All(b => content.NewestLadder(b.Skill)?.Regions.Any(regions.Contains) == true);
        static bool IsLight(DayOffer offer) => offer.Ask.Blocks.All(b => b.Kind == BlockAim.Light);
        var themed = slot.Theme switch
        {
            DayTheme.Hips => Where(menu, o => For(o, Hips)),
            DayTheme.Hamstrings => Where(menu, o => For(o, Hamstrings)),
            DayTheme.Care => Where(Where(menu, IsLight), o => For(o, Hands)),
            DayTheme.Test => Where(menu, o => o.Ask.Of(BlockAim.Test).Any()),
            _ => menu,
        };
        return slot.Light ? Where(themed, o => IsLight(o) || o.Ask.Level <= Planning.DayOrder.Least) : themed;
    }

    private static IReadOnlyList<DayOffer> Where(IReadOnlyList<DayOffer> menu, Func<DayOffer, bool> which) =>
        menu.Where(which).ToList() is { Count: > 0 } left ? left : menu;
}
