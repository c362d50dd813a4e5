namespace Tensarch.Core.Measuring;

/// <summary>A reading as it was written down, before it is judged.</summary>
/// <param name="Successes">Of <paramref name="Attempts"/>, for counts.</param>
/// <param name="Hits">Each attempt in order, held or not, where it is known; then it gives the counts.</param>
public sealed record ReadingInput(
    Side? Side,
    string? Level,
    string? Standard,
    Instrument Instrument,
    IReadOnlyList<double> Trials,
    int? Successes = null,
    int? Attempts = null,
    IReadOnlyList<bool>? Hits = null,
    IReadOnlyList<string>? Compensations = null,
    int? Quality = null,
    int? Sensation = null,
    int? Pain = null,
    string? Note = null
)
{
    public const int LongestNote = 1000;
    public const int MostAttempts = 50;

    /// <summary>Everything about it that cannot stand, each at its field. Empty when it can.</summary>
    public List<Problem> Check(Measure measure)
    {
        var problems = measure.Kind == MeasureKind.Rate ? CheckCounts() : TrialCheck.Check(Trials, measure.Min, measure.Max);
        if (measure.Kind != MeasureKind.Rate && (Successes is not null || Attempts is not null || Hits is { Count: > 0 }))
            problems.Add(Problem.Of("noCounts", "attempts"));
        if (measure.Step is { } step)
            for (var i = 0; i < Trials.Count; i++)
                if (Math.Abs(Trials[i] / step - Math.Round(Trials[i] / step)) > 1e-6)
                    problems.Add(Problem.Of("offStep", $"trials[{i}]", ("step", step)));
        if (measure.PerSide != Side is not null)
            problems.Add(Problem.Of(measure.PerSide ? "sideNeeded" : "noSides", "side"));
        if (measure.Standards.Count == 0 ? Standard is not null : Standard is null || !measure.Standards.Contains(Standard))
            problems.Add(Problem.Of("unknownStandard", "standard"));
        if (measure.Levels.Count == 0 ? Level is not null : measure.Levels.All(l => l.Key != Level))
            problems.Add(Problem.Of("unknownLevel", "level"));
        if (!measure.Instruments.Contains(Instrument))
            problems.Add(Problem.Of("otherInstrument", "instrument"));
        if ((Compensations ?? []).Any(c => measure.Compensations.All(known => known.Key != c)))
            problems.Add(Problem.Of("unknownCompensation", "compensations"));
        Between(Quality, 1, 5, "quality", problems);
        Between(Sensation, 0, 10, "sensation", problems);
        Between(Pain, 0, 10, "pain", problems);
        if (Note?.Length > LongestNote)
            problems.Add(Problem.Of("tooLong", "note", ("most", LongestNote)));
        return problems;
    }

    /// <summary>
    /// The value with its standard error: the mean of the trials; the best attempt of a hold; the share of successes. Holds, counts and
    /// steps have no standard error.
    /// </summary>
    public Estimate Value(Measure measure, Noise noise, double resolution) =>
        measure.Kind switch
        {
            MeasureKind.Hold => new(Trials.Max(), 0),
            MeasureKind.Rate => new((double)Successes!.Value / Attempts!.Value, 0),
            MeasureKind.Step => new(Trials.Average(), 0),
            _ => new(Trials.Average(), ReadingError.StandardError(noise.Sem, noise.Tau, Trials.Count, resolution)),
        };

    private List<Problem> CheckCounts()
    {
        var problems = new List<Problem>();
        if (Trials.Count > 0)
            problems.Add(Problem.Of("countsOnly", "trials"));
        if (Hits is not null && (Hits.Count != Attempts || Hits.Count(h => h) != Successes))
            problems.Add(Problem.Of("hitsDisagree", "hits"));
        if (Attempts is not (>= 1 and <= MostAttempts))
            problems.Add(Problem.Of("outOfRange", "attempts", ("value", Attempts ?? 0), ("min", 1), ("max", MostAttempts)));
        else if (Successes is not >= 0 || Successes > Attempts)
            problems.Add(Problem.Of("successesOutOfRange", "successes", ("value", Successes ?? 0), ("max", Attempts.Value)));
        return problems;
    }

    private static void Between(int? value, int least, int most, string field, List<Problem> problems)
    {
        if (value < least || value > most)
            problems.Add(Problem.Of("outOfRange", field, ("value", value.Value), ("min", least), ("max", most)));
    }
}
