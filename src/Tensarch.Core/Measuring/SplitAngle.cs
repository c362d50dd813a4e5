namespace Tensarch.Core.Measuring;

/// <summary>Front split angle from the gap under the pubic bone and both leg lengths (trochanter to heel), all in cm.</summary>
public static class SplitAngle
{
    /// <returns>
    /// acos(h / L_front) + acos(h / L_back) in degrees, 180 when the gap is 0; or the problems:
    /// <c>gapNegative</c>, <c>legNotPositive</c>, <c>gapBeyondLeg</c>, <c>notANumber</c>.
    /// </returns>
    public static Result<double> FromGap(double gapCm, double frontLegCm, double backLegCm)
    {
        var problems = new List<Problem>();
        if (!double.IsFinite(gapCm))
            problems.Add(Problem.Of("notANumber", "gapCm"));
        else if (gapCm < 0)
            problems.Add(Problem.Of("gapNegative", "gapCm", ("value", gapCm)));
        CheckLeg(frontLegCm, "frontLegCm", gapCm, problems);
        CheckLeg(backLegCm, "backLegCm", gapCm, problems);
        if (problems.Count > 0)
            return problems;

        return (Math.Acos(gapCm / frontLegCm) + Math.Acos(gapCm / backLegCm)) * 180 / Math.PI;
    }

    private static void CheckLeg(double legCm, string field, double gapCm, List<Problem> problems)
    {
        if (!double.IsFinite(legCm))
            problems.Add(Problem.Of("notANumber", field));
        else if (legCm <= 0)
            problems.Add(Problem.Of("legNotPositive", field, ("value", legCm)));
        else if (gapCm > legCm && problems.All(p => p.Field != "gapCm"))
            problems.Add(Problem.Of("gapBeyondLeg", "gapCm", ("gap", gapCm), ("leg", legCm)));
    }
}
