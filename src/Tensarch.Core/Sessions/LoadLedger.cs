using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>A load on a side; without a side, on both at once.</summary>
public readonly record struct LoadKey(LoadTag Tag, Side? Limb);

/// <summary>
/// What work adds up to, per tag and side: seconds of work at level heavy; for the wrist hundredths of a bodyweight-second. Whole numbers, so that
/// the order of adding never matters. Source: planning rule 6.
/// </summary>
public sealed class LoadLedger
{
    public static readonly LoadLedger Empty = new([]);

    private readonly Dictionary<LoadKey, int> loads;

    /// <summary>Where nobody said how long it was.</summary>
    private const double UsualBreath = 5;

    private LoadLedger(Dictionary<LoadKey, int> loads) => this.loads = loads;

    /// <summary>What a side carries: its own, and what both carry together. Without a side, everything on either.</summary>
    public int this[LoadKey key]
    {
        get
        {
            var sum = 0;
            foreach (var (at, load) in loads)
                if (at.Tag == key.Tag && (key.Limb is null || at.Limb is null || at.Limb == key.Limb))
                    sum += load;
            return sum;
        }
    }

    public bool IsEmpty => loads.Count == 0;

    public int this[LoadTag tag] => this[new LoadKey(tag, null)];

    /// <summary>Tags that were loaded heavily.</summary>
    public IEnumerable<LoadTag> Heavy => loads.Where(l => l.Key.Tag != LoadTag.Wrist || heavyWrists).Select(l => l.Key.Tag).Distinct();

    /// <summary>The wrist counts light work too; whether any of it was heavy is kept beside.</summary>
    private bool heavyWrists;

    public LoadLedger Plus(LoadLedger other)
    {
        var sum = new Dictionary<LoadKey, int>(loads);
        foreach (var (key, load) in other.loads)
            sum[key] = sum.GetValueOrDefault(key) + load;
        return new(sum) { heavyWrists = heavyWrists || other.heavyWrists };
    }

    /// <summary>Counts loads from work under the newest content; what it no longer has counts for nothing.</summary>
    public static LoadLedger Of(IEnumerable<Work> work, CatalogueContent newest)
    {
        var ledger = new LoadLedger([]);
        foreach (var done in work)
            if (newest.FindDrill(done.Drill) is { } drill && drill.Variants.FirstOrDefault(v => v.Key == done.Variant) is { } variant)
                ledger.Add(done, drill, variant);
        return ledger;
    }

    private void Add(Work done, Drill drill, Variant variant)
    {
        var dose = drill.DoseOf(variant);
        var seconds = done.Seconds ?? (int)LightWork.WorkSeconds(dose, UsualBreath);
        var levels = done.Seconds is null ? drill.LoadsOf(variant, dose) : drill.LoadsOf(variant, done.LongestHold, done.TopPercent);
        foreach (var (tag, level) in levels)
        {
            var limb = drill.OtherSide?.Contains(tag) == true ? done.Side?.Other() : done.Side;
            if (tag == LoadTag.Wrist)
            {
                heavyWrists |= level == LoadLevel.Heavy && seconds > 0;
                Add(new(tag, limb), (int)Math.Round(100 * drill.HandShareOf(variant) * seconds));
            }
            // The way into the work and out of it is no load of a week.
            else if (level == LoadLevel.Heavy && SessionOrder.IsMain(drill.Phase))
                Add(new(tag, limb), seconds);
        }
    }

    private void Add(LoadKey key, int load)
    {
        if (load > 0)
            loads[key] = loads.GetValueOrDefault(key) + load;
    }
}
