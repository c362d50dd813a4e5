namespace Tensarch.Core.Measuring;

/// <summary>
/// A line figure: the start position, the end position and, of a measure, where to measure. Coordinates in a box of 160 × 120,
/// x to the right, y down, the floor at y = 112.
/// </summary>
/// <param name="Ground">Whether the floor is drawn.</param>
/// <param name="WallX">Where a wall stands; none without one.</param>
/// <param name="View">Said where two measures would look alike.</param>
/// <param name="Props">Blocks, wedges and tables as x, y, width, height.</param>
public sealed record LineFigure(
    bool Ground,
    FigurePose Start,
    FigurePose End,
    FigureMark? Mark = null,
    double? WallX = null,
    IReadOnlyList<IReadOnlyList<double>>? Props = null,
    FigureView? View = null
);

/// <summary>From where a figure is seen.</summary>
public enum FigureView
{
    Side,
    Front,
}

/// <param name="Lines">Limbs as open lines of points.</param>
/// <param name="Head">Centre and radius; none where the head is not in the picture.</param>
public sealed record FigurePose(IReadOnlyList<IReadOnlyList<IReadOnlyList<double>>> Lines, IReadOnlyList<double>? Head = null);

public enum MarkKind
{
    /// <summary>A distance between two points.</summary>
    Gap,

    /// <summary>An angle at the middle one of three points.</summary>
    Angle,

    /// <summary>Landmarks of a side picture.</summary>
    Landmarks,
    Clock,
    Count,
}

public sealed record FigureMark(MarkKind Kind, IReadOnlyList<IReadOnlyList<double>> Points);
