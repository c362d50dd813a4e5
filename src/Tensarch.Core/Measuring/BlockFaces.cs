using System.ComponentModel.DataAnnotations;

namespace Tensarch.Core.Measuring;

public enum Face
{
    Low,
    Middle,
    High,
}

/// <summary>A kind of block and the heights of its three faces, in cm.</summary>
public sealed record BlockKind(
    [RegularExpression(Core.Key.Pattern)] string Key,
    [Required, StringLength(60)] string Name,
    [Range(BlockKind.LeastFaceCm, BlockKind.MostFaceCm)] double LowCm,
    [Range(BlockKind.LeastFaceCm, BlockKind.MostFaceCm)] double MiddleCm,
    [Range(BlockKind.LeastFaceCm, BlockKind.MostFaceCm)] double HighCm
)
{
    public static readonly BlockKind Standard = new("standard", "Standard block", 7.5, 15, 23);

    /// <summary>A face of a block is at least 1 and at most 60 cm.</summary>
    public const double LeastFaceCm = 1;
    public const double MostFaceCm = 60;

    public double Height(Face face) =>
        face switch
        {
            Face.Low => LowCm,
            Face.Middle => MiddleCm,
            _ => HighCm,
        };

    /// <returns><c>outOfRange</c>, or <c>facesNotAscending</c> when a face is not higher than the one before.</returns>
    public List<Problem> Check()
    {
        var problems = new List<Problem>();
        foreach (var (face, field) in new[] { (LowCm, "lowCm"), (MiddleCm, "middleCm"), (HighCm, "highCm") })
            if (!(face is >= LeastFaceCm and <= MostFaceCm))
                problems.Add(Problem.Of("outOfRange", field, ("value", face), ("min", LeastFaceCm), ("max", MostFaceCm)));
        if (problems.Count == 0 && !(LowCm < MiddleCm && MiddleCm < HighCm))
            problems.Add(Problem.Of("facesNotAscending", "middleCm"));
        if (string.IsNullOrWhiteSpace(Name))
            problems.Add(Problem.Of("required", "name"));
        return problems;
    }
}

/// <summary>One block of a stack, lying on a face.</summary>
public sealed record StackedBlock([RegularExpression(Key.Pattern)] string Kind, Face Face);

/// <summary>A gap read as a stack of blocks, in cm, with the standard error of its coarseness.</summary>
public readonly record struct StackHeight(double Cm, double ResolutionCm);

/// <summary>Reading without a tape: block faces to centimetres and back.</summary>
public static class BlockFaces
{
    public const int MostBlocks = 6;

    /// <summary>
    /// The height of a stack; its resolution is half the smallest face of the kinds in it, over √3 (a rectangular error). No block at
    /// all is the floor: 0 cm, with the resolution of the first kind.
    /// </summary>
    /// <returns>Or <c>unknownBlock</c>, <c>tooManyBlocks</c> at <c>faces</c>.</returns>
    public static Result<StackHeight> ToCm(IReadOnlyList<StackedBlock> stack, IReadOnlyList<BlockKind> kinds)
    {
        if (stack.Count > MostBlocks)
            return Problem.Of("tooManyBlocks", "faces", ("count", stack.Count), ("most", MostBlocks));
        if (kinds.Count == 0 || stack.Any(b => kinds.All(k => k.Key != b.Kind)))
            return Problem.Of("unknownBlock", "faces");
        var used = stack.Count == 0 ? [kinds[0]] : stack.Select(b => kinds.First(k => k.Key == b.Kind)).Distinct().ToList();
        return new StackHeight(stack.Sum(b => kinds.First(k => k.Key == b.Kind).Height(b.Face)), used.Min(k => k.LowCm) / 2 / Math.Sqrt(3));
    }

    /// <summary>The stack of one kind that comes closest to a height, with the fewest blocks; low faces before tall ones.</summary>
    /// <returns>Or <c>outOfRange</c> when the height is negative or above <see cref="MostBlocks"/> of the tallest faces.</returns>
    public static Result<IReadOnlyList<StackedBlock>> Nearest(double cm, BlockKind kind)
    {
        var most = MostBlocks * kind.HighCm;
        if (!(cm >= 0 && cm <= most))
            return Problem.Of("outOfRange", "cm", ("value", cm), ("min", 0), ("max", most));
        var faces = new[] { Face.Low, Face.Middle, Face.High };
        var stacks = Enumerable
            .Range(0, MostBlocks + 1)
            .SelectMany(low => Enumerable.Range(0, MostBlocks + 1 - low).Select(middle => (Low: low, Middle: middle)))
            .SelectMany(c => Enumerable.Range(0, MostBlocks + 1 - c.Low - c.Middle).Select(high => (c.Low, c.Middle, High: high)));
        var (l, m, h) = stacks
            .OrderBy(s => Math.Round(Math.Abs(s.Low * kind.LowCm + s.Middle * kind.MiddleCm + s.High * kind.HighCm - cm), 9))
            .ThenBy(s => s.Low + s.Middle + s.High)
            .ThenBy(s => s.High)
            .ThenBy(s => s.Middle)
            .First();
        IReadOnlyList<StackedBlock> nearest =
        [
            .. faces.Zip([l, m, h]).SelectMany(f => Enumerable.Repeat(new StackedBlock(kind.Key, f.First), f.Second)),
        ];
        return Result.Of(nearest);
    }
}
