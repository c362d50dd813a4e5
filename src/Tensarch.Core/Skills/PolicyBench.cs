using System.ComponentModel.DataAnnotations;
using Tensarch.Core.Measuring;

namespace Tensarch.Core.Skills;

/// <summary>What a policy is tried on.</summary>
/// <param name="TauOfSem">Day-to-day standard deviation as a share of the SEM.</param>
/// <param name="TestDays">How many test days, two days apart.</param>
/// <param name="Students">How many simulated students at each distance.</param>
public sealed record PolicyTrial(
    [Range(1, 5)] int TrialsPerTest = 3,
    [Range(0, 2)] double TauOfSem = 0.5,
    [Range(1, 10)] int TestDays = 6,
    [Range(100, PolicyTrial.MostStudents)] int Students = 2000,
    [Range(0, int.MaxValue)] int Seed = 20260303
)
{
    /// <summary>Of one answer: a trial of three policies takes a second of a machine's time.</summary>
    public const int MostStudents = 2000;
}

/// <summary>One point of both curves: students whose true value sits so far from the threshold.</summary>
/// <param name="DistanceSem">In SEMs: negative short of the threshold, positive past it.</param>
/// <param name="PassFirstDay">Share that passes on the first test day.</param>
/// <param name="PassWithin">Share that has passed within so many test days, the first at index 0.</param>
/// <param name="MeanDelayDays">Mean days from the first test day to the pass, of those who pass; none when nobody does.</param>
public sealed record PolicyPoint(double DistanceSem, double PassFirstDay, IReadOnlyList<double> PassWithin, double? MeanDelayDays)
{
    /// <summary>Share that has passed by the last test day: for the unready, the false passes.</summary>
    public double PassAll => PassWithin[^1];
}

/// <summary>
/// Simulates a gate policy on students whose true value is known: each test is read with the catalogue's noise model (day to day τ,
/// trial to trial SEM) and judged by the very rule that the gates use. Seeded: the same numbers each time.
/// </summary>
public static class PolicyBench
{
    /// <summary>Test days lie so far apart: the earliest re-test a borderline gate asks for.</summary>
    public const int DaysBetween = 2;

    private const int MinTrials = 3;
    private const int ShelfDays = 21;
    private static readonly DateTimeOffset Start = new(2026, 1, 5, 9, 0, 0, TimeSpan.Zero);
    private static readonly Series Read = new("simulated", null, Mode.Passive, null, Warmth.Warm, null);

    /// <summary>Distances of the curves, from three SEMs short to three past.</summary>
    public static readonly IReadOnlyList<double> Distances = [.. Enumerable.Range(-12, 25).Select(i => i / 4.0)];

    /// <param name="distances">In SEMs; those of the curves when none are given.</param>
    public static IReadOnlyList<PolicyPoint> Run(GatePolicy policy, PolicyTrial trial, IReadOnlyList<double>? distances = null) =>
        Together.Each(distances ?? Distances, d => Point(policy, trial, d));

    private static PolicyPoint Point(GatePolicy policy, PolicyTrial trial, double distance)
    {
        // A stream of its own for each distance: the same students meet every policy.
        var random = new Random(unchecked(trial.Seed * 397 + (int)Math.Round(distance * 1000)));
        var rule = new RomTest(Comparison.AtLeast, 0, ShelfDays, Math.Min(MinTrials, trial.TrialsPerTest), policy);
        var passedBy = new int[trial.TestDays];
        for (var student = 0; student < trial.Students; student++)
            if (FirstPass(rule, trial, distance, random) is { } day)
                passedBy[day]++;
        var passed = passedBy.Sum();
        var within = passedBy.Select((_, i) => (double)passedBy.Take(i + 1).Sum() / trial.Students).ToList();
        return new(
            distance,
            within[0],
            within,
            passed == 0 ? null : passedBy.Select((n, day) => (double)n * day * DaysBetween).Sum() / passed
        );
    }

    /// <summary>The test day on which a student first passes; none when they do not. All readings are drawn, whatever the policy.</summary>
    private static int? FirstPass(RomTest rule, PolicyTrial trial, double distance, Random random)
    {
        var readings = new List<Reading>(trial.TestDays);
        int? passed = null;
        for (var day = 0; day < trial.TestDays; day++)
        {
            var truth = distance + trial.TauOfSem * Gaussian(random);
            var trials = new double[trial.TrialsPerTest];
            for (var i = 0; i < trials.Length; i++)
                trials[i] = truth + Gaussian(random);
            var at = Start.AddDays(day * DaysBetween);
            readings.Add(new(Guid.Empty, Read, at, trials, 1, trial.TauOfSem, 0, Guid.Empty));
            if (passed is null && rule.Judge(readings, at).Outcome == Outcome.Met)
                passed = day;
        }
        return passed;
    }

    /// <summary>A standard normal deviate (Box and Muller 1958).</summary>
    private static double Gaussian(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
}
