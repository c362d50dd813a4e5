namespace Tensarch.Core.Measuring;

/// <summary>A point seen from the side, x to the right and y up, in any one unit of length.</summary>
public readonly record struct PlanePoint(double X, double Y)
{
    public bool IsFinite => double.IsFinite(X) && double.IsFinite(Y);

    public static PlanePoint operator -(PlanePoint to, PlanePoint from) => new(to.X - from.X, to.Y - from.Y);

    public double Length => Math.Sqrt(X * X + Y * Y);

    /// <summary>The angle by which one turns from this direction into another, in degrees, counter-clockwise positive, −180 to 180.</summary>
    public double TurnTo(PlanePoint next) => Math.Atan2(X * next.Y - Y * next.X, X * next.X + Y * next.Y) * 180 / Math.PI;

    /// <summary>Problems of points that cannot be told apart or are no numbers, at their fields.</summary>
    internal static List<Problem> Check(params (string Field, PlanePoint Point)[] points)
    {
        var problems = points.Where(p => !p.Point.IsFinite).Select(p => Problem.Of("notANumber", p.Field)).ToList();
        if (problems.Count == 0)
            foreach (var (a, b) in points.Zip(points.Skip(1)))
                if ((b.Point - a.Point).Length is not (> 1e-9 and < double.PositiveInfinity))
                    problems.Add(Problem.Of("landmarksCoincide", b.Field));
        return problems;
    }
}
