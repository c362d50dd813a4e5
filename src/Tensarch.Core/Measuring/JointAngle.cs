namespace Tensarch.Core.Measuring;

/// <summary>The angle at a joint from three landmarks.</summary>
public static class JointAngle
{
    /// <returns>The angle proximal–joint–distal, 0 to 180 degrees, or <c>landmarksCoincide</c>, <c>notANumber</c>.</returns>
    public static Result<double> At(PlanePoint proximal, PlanePoint joint, PlanePoint distal)
    {
        var problems = PlanePoint.Check(("proximal", proximal), ("joint", joint), ("distal", distal));
        return problems.Count > 0 ? problems : Math.Abs((proximal - joint).TurnTo(distal - joint));
    }
}
