using System.ComponentModel.DataAnnotations;

namespace Tensarch.Core.Measuring;

/// <summary>A studio's own version of a measure: its threshold of plausibility, SEM and protocol. The shipped one stays as it is.</summary>
/// <param name="Min">The least plausible value, in the measure's unit.</param>
/// <param name="Max">The greatest plausible value, in the measure's unit.</param>
/// <param name="Sem">Starting SEM for one trial, in the measure's unit.</param>
public sealed record OwnMeasure(
    [Range(-OwnMeasure.MostValue, OwnMeasure.MostValue)] double Min,
    [Range(-OwnMeasure.MostValue, OwnMeasure.MostValue)] double Max,
    [Range(0, OwnMeasure.MostSem)] double Sem,
    [MaxLength(OwnMeasure.MostSteps), StringLength(OwnMeasure.LongestStep)] IReadOnlyList<string> Protocol
)
{
    public const double MostValue = 1000;
    public const double MostSem = 100;
    public const int MostSteps = 12;
    public const int LongestStep = 300;

    /// <returns>Problems at <c>min</c>, <c>max</c>, <c>sem</c> and <c>protocol[i]</c>.</returns>
    public List<Problem> Check(Measure shipped)
    {
        var problems = new List<Problem>();
        foreach (var (value, field) in new[] { (Min, "min"), (Max, "max"), (Sem, "sem") })
            if (!(Math.Abs(value) <= (field == "sem" ? MostSem : MostValue)))
                problems.Add(Problem.Of("outOfRange", field));
        if (problems.Count == 0 && Min >= Max)
            problems.Add(Problem.Of("minNotUnderMax", "max"));
        if (shipped.Kind == MeasureKind.Rate ? Sem != 0 : Sem <= 0)
            problems.Add(Problem.Of("semNotPositive", "sem", ("value", Sem)));
        if (Protocol.Count is < 1 or > MostSteps)
            problems.Add(Problem.Of("stepsCount", "protocol", ("count", Protocol.Count), ("most", MostSteps)));
        for (var i = 0; i < Protocol.Count; i++)
            if (string.IsNullOrWhiteSpace(Protocol[i]))
                problems.Add(Problem.Of("required", $"protocol[{i}]"));
            else if (Protocol[i].Length > LongestStep)
                problems.Add(Problem.Of("tooLong", $"protocol[{i}]", ("most", LongestStep)));
        return problems;
    }

    /// <summary>The measure as this studio reads it. τ keeps its share of the SEM.</summary>
    public Measure Of(Measure shipped) =>
        shipped with
        {
            Min = Min,
            Max = Max,
            Sem = Sem,
            Tau = shipped.Sem > 0 ? shipped.Tau * Sem / shipped.Sem : shipped.Tau,
            Protocol = Protocol,
            Source = "Your studio's own version.",
        };
}
