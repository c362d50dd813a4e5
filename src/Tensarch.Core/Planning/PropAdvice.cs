namespace Tensarch.Core.Planning;

/// <summary>A block face, by how it stands.</summary>
public enum Face
{
    Low,
    Middle,
    High,
}

/// <summary>The support for a gap.</summary>
/// <param name="Code"><c>floor</c>, <c>blocks</c>, <c>chairs</c> (two chairs or a bench, against a wall) or <c>nearestAbove</c> (nothing owned fits).</param>
/// <param name="HeightCm">Height under each hand.</param>
/// <param name="Faces">Faces stacked under each hand, lowest first.</param>
public sealed record PropAdvice(string Code, double HeightCm, IReadOnlyList<Face> Faces)
{
    /// <summary>Heights of a standard block's faces, cm.</summary>
    public static readonly IReadOnlyDictionary<Face, double> StandardFacesCm = new Dictionary<Face, double>
    {
        [Face.Low] = 7.5,
        [Face.Middle] = 15,
        [Face.High] = 23,
    };

    /// <summary>Above this gap blocks no longer do.</summary>
    public const double ChairsAboveCm = 41;

    private const double BelowGapCm = 3;
    private const double AboveGapCm = 6;
    private const double ChairHeightCm = 45;

    /// <summary>
    /// For a front split: the lowest combination of faces at least gap − 3 and at most gap + 6 cm, wide faces before tall
    /// ones, never two tall faces stacked, at most two blocks a hand. Where nothing owned fits, the nearest above.
    /// </summary>
    /// <param name="gapCm">Pubic bone to floor, 0 or more.</param>
    /// <param name="blocksOwned">Both hands together.</param>
    /// <exception cref="ArgumentOutOfRangeException">The gap is negative or not a number.</exception>
    public static PropAdvice ForFrontSplit(double gapCm, int blocksOwned)
    {
        if (!(gapCm >= 0))
            throw new ArgumentOutOfRangeException(nameof(gapCm), gapCm, "A gap is zero or more.");
        if (gapCm > ChairsAboveCm)
            return Chairs;

        var owned = Stacks(blocksOwned / 2).Where(s => s.HeightCm >= gapCm - BelowGapCm).ToList();
        if (owned.Count == 0)
            return Chairs with { Code = "nearestAbove" };
        var lowest = owned[0];
        return lowest.HeightCm <= gapCm + AboveGapCm ? lowest : lowest with { Code = "nearestAbove" };
    }

    private const double LeastStepCm = 5;

    /// <summary>
    /// So many supports of falling height: this one and the next ones down, a step of 5 cm at least; where the floor comes sooner, it
    /// starts higher up. Fewer where what is owned gives no more.
    /// </summary>
    /// <param name="blocksOwned">Both hands together.</param>
    public IReadOnlyList<PropAdvice> Down(int count, int blocksOwned)
    {
        var owned = Stacks(blocksOwned / 2).Append(Chairs).ToList();
        List<PropAdvice> down = [this];
        while (down.Count < count && owned.LastOrDefault(s => s.HeightCm <= down[^1].HeightCm - LeastStepCm) is { } lower)
            down.Add(owned.First(s => s.HeightCm == lower.HeightCm));
        while (down.Count < count && owned.FirstOrDefault(s => s.HeightCm >= down[0].HeightCm + LeastStepCm) is { } higher)
            down.Insert(0, higher);
        return down;
    }

    private static PropAdvice Chairs => new("chairs", ChairHeightCm, []);

    /// <summary>What can be stacked under one hand, lowest first, and of equal height the widest first.</summary>
    private static IEnumerable<PropAdvice> Stacks(int blocksAHand)
    {
        var one = StandardFacesCm.Keys.Select(f => new[] { f });
        var two =
            from below in StandardFacesCm.Keys
            from above in StandardFacesCm.Keys
            where below <= above && !(below == Face.High && above == Face.High)
            select new[] { below, above };
        var stacks = (blocksAHand >= 1 ? one : []).Concat(blocksAHand >= 2 ? two : []);
        return stacks
            .Select(s => new PropAdvice("blocks", s.Sum(f => StandardFacesCm[f]), s))
            .Prepend(new("floor", 0, []))
            .OrderBy(s => s.HeightCm)
            .ThenBy(s => s.Faces.DefaultIfEmpty().Max());
    }
}
