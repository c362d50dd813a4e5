namespace Tensarch.Core.Measuring;

/// <summary>Refuses impossible readings with a code at the field, before anything is computed from them.</summary>
public static class TrialCheck
{
    public const int MostTrials = 5;

    /// <returns>
    /// Codes <c>trialsCount</c> (one to five), <c>notANumber</c>, <c>outOfRange</c> (numbers: value, min, max);
    /// the field is <c>trials</c> or <c>trials[i]</c>.
    /// </returns>
    public static List<Problem> Check(IReadOnlyList<double> trials, double min, double max)
    {
        var problems = new List<Problem>();
        if (trials.Count is < 1 or > MostTrials)
            problems.Add(Problem.Of("trialsCount", "trials", ("count", trials.Count), ("most", MostTrials)));
        for (var i = 0; i < trials.Count; i++)
        {
            if (!double.IsFinite(trials[i]))
                problems.Add(Problem.Of("notANumber", $"trials[{i}]"));
            else if (trials[i] < min || trials[i] > max)
                problems.Add(Problem.Of("outOfRange", $"trials[{i}]", ("value", trials[i]), ("min", min), ("max", max)));
        }
        return problems;
    }
}
