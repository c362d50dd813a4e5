using System.ComponentModel.DataAnnotations;

namespace Tensarch.Core.Measuring;

public enum PictureKind
{
    /// <summary>Wrist, shoulder, hip, ankle of a handstand.</summary>
    Line,

    /// <summary>Shoulder, hip, ankle; the hands are on the back.</summary>
    Shoulderstand,

    /// <summary>Proximal point, joint, distal point.</summary>
    Joint,
}

/// <summary>Which landmarks a side picture asks for, in order, and what they give.</summary>
/// <param name="Complement">The reading is 180° less the joint's angle.</param>
public sealed record PictureProtocol(PictureKind Kind, IReadOnlyList<string> Landmarks, bool Complement = false);

/// <summary>A side picture that gives an angle to look at and no reading.</summary>
public sealed record PictureView(string Key, string Name, PictureProtocol Picture);

/// <summary>A point of a picture, in pixels, x to the right and y down.</summary>
public sealed record PicturePoint([Range(-10_000, 10_000)] double X, [Range(-10_000, 10_000)] double Y);

/// <summary>Which way the belly faces in the picture.</summary>
public enum Facing
{
    Left,
    Right,
}

/// <summary>Landmarks placed on a picture, in the protocol's order.</summary>
/// <param name="Horizon">Two points on a line that is level in the room; none when the picture is taken as level.</param>
public sealed record Placement(
    [MaxLength(8)] IReadOnlyList<PicturePoint> Points,
    [MaxLength(2)] IReadOnlyList<PicturePoint>? Horizon = null,
    Facing Facing = Facing.Left
);

/// <summary>What placed landmarks say, in degrees. The line's parts are none for a joint.</summary>
/// <param name="Value">The reading.</param>
public sealed record PlacementAngles(double Value, double? ShoulderDeg = null, double? HipDeg = null, double? LeanDeg = null);

/// <summary>Reads angles off a picture.</summary>
public static class PictureReading
{
    /// <returns>The angles, or <c>landmarksCount</c>, <c>landmarksCoincide</c>, <c>horizonTooShort</c>, <c>notANumber</c> at <c>points</c> or <c>horizon</c>.</returns>
    public static Result<PlacementAngles> Of(PictureProtocol protocol, Placement placement)
    {
        if (placement.Points.Count != protocol.Landmarks.Count)
            return Problem.Of("landmarksCount", "points", ("count", placement.Points.Count), ("needed", protocol.Landmarks.Count));
        var tilt = 0.0;
        if (placement.Horizon is { } horizon)
        {
            if (horizon.Count != 2)
                return Problem.Of("landmarksCount", "horizon", ("count", horizon.Count), ("needed", 2));
            var found = LineDeviation.Tilt(Up(horizon[0]), Up(horizon[1]));
            if (!found.IsOk)
                return found.Problems.ToList();
            tilt = found.Value;
        }
        var points = placement.Points.Select(Up).ToList();
        switch (protocol.Kind)
        {
            case PictureKind.Line:
            {
                var line = LineDeviation.Handstand(points[0], points[1], points[2], points[3], tilt, placement.Facing);
                return line.IsOk
                    ? new PlacementAngles(line.Value.LineDeg, line.Value.ShoulderDeg, line.Value.HipDeg, line.Value.LeanDeg)
                    : line.Problems.ToList();
            }
            case PictureKind.Shoulderstand:
            {
                var line = LineDeviation.Shoulderstand(points[0], points[1], points[2], tilt, placement.Facing);
                return line.IsOk
                    ? new PlacementAngles(line.Value.LineDeg, null, line.Value.HipDeg, line.Value.LeanDeg)
                    : line.Problems.ToList();
            }
            default:
            {
                var joint = JointAngle.At(points[0], points[1], points[2]);
                return joint.IsOk ? new PlacementAngles(protocol.Complement ? 180 - joint.Value : joint.Value) : joint.Problems.ToList();
            }
        }
    }

    private static PlanePoint Up(PicturePoint point) => new(point.X, -point.Y);
}
