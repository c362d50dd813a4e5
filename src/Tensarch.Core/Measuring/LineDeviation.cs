namespace Tensarch.Core.Measuring;

/// <summary>How far a body upside down departs from the straight line, in degrees.</summary>
/// <param name="ShoulderDeg">Positive: closed; negative: over-open. None in a shoulderstand.</param>
/// <param name="HipDeg">Positive: arch; negative: pike.</param>
/// <param name="LeanDeg">Of the whole line from the vertical. Positive: towards the back; negative: towards the belly.</param>
public sealed record Line(double? ShoulderDeg, double HipDeg, double LeanDeg)
{
    /// <summary>The reading: the largest departure, without its sign.</summary>
    public double LineDeg => new[] { Math.Abs(ShoulderDeg ?? 0), Math.Abs(HipDeg), Math.Abs(LeanDeg) }.Max();
}

/// <summary>
/// Line deviation from side-view landmarks (x right, y up). A bend is 180° less the chain's angle at the joint; its sign is taken as
/// seen by the student, so the mirrored picture of someone facing the other way says the same.
/// </summary>
public static class LineDeviation
{
    /// <param name="tiltDeg">By how much the picture's level line rises to the right; see <see cref="Tilt"/>.</param>
    /// <returns>The line, or <c>landmarksCoincide</c>, <c>notANumber</c> at the landmark.</returns>
    public static Result<Line> Handstand(
        PlanePoint wrist,
        PlanePoint shoulder,
        PlanePoint hip,
        PlanePoint ankle,
        double tiltDeg = 0,
        Facing facing = Facing.Left
    )
    {
        var problems = PlanePoint.Check(("wrist", wrist), ("shoulder", shoulder), ("hip", hip), ("ankle", ankle));
        problems.AddRange(Ends("ankle", wrist, ankle, problems));
        if (problems.Count > 0)
            return problems;
        var sign = Sign(facing);
        return new Line(
            sign * (shoulder - wrist).TurnTo(hip - shoulder),
            -sign * (hip - shoulder).TurnTo(ankle - hip),
            sign * Lean(wrist, ankle, tiltDeg)
        );
    }

    /// <summary>The hands are on the back: the bend at the hip and the lean from shoulder to ankle.</summary>
    public static Result<Line> Shoulderstand(
        PlanePoint shoulder,
        PlanePoint hip,
        PlanePoint ankle,
        double tiltDeg = 0,
        Facing facing = Facing.Left
    )
    {
        var problems = PlanePoint.Check(("shoulder", shoulder), ("hip", hip), ("ankle", ankle));
        problems.AddRange(Ends("ankle", shoulder, ankle, problems));
        if (problems.Count > 0)
            return problems;
        var sign = Sign(facing);
        return new Line(null, -sign * (hip - shoulder).TurnTo(ankle - hip), sign * Lean(shoulder, ankle, tiltDeg));
    }

    /// <returns>How far a line that is level in the room is turned in the picture, −90 to 90 degrees; <c>horizonTooShort</c>.</returns>
    public static Result<double> Tilt(PlanePoint from, PlanePoint to)
    {
        var problems = PlanePoint.Check(("horizon", from), ("horizon", to));
        if (problems.Count > 0)
            return Problem.Of(problems[0].Code == "notANumber" ? "notANumber" : "horizonTooShort", "horizon");
        var (left, right) = from.X <= to.X ? (from, to) : (to, from);
        return new PlanePoint(1, 0).TurnTo(right - left);
    }

    /// <summary>From the vertical, positive to the right.</summary>
    private static double Lean(PlanePoint low, PlanePoint high, double tiltDeg)
    {
        var lean = -new PlanePoint(0, 1).TurnTo(high - low) + tiltDeg;
        return lean > 180 ? lean - 360
            : lean < -180 ? lean + 360
            : lean;
    }

    private static int Sign(Facing facing) => facing == Facing.Left ? 1 : -1;

    private static IEnumerable<Problem> Ends(string field, PlanePoint low, PlanePoint high, List<Problem> before) =>
        before.Count == 0 && (high - low).Length <= 1e-9 ? [Problem.Of("landmarksCoincide", field)] : [];
}
