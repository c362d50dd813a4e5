using System.Collections.Concurrent;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Tests.Skills;

/// <summary>The targets of the gate policy, on twenty thousand simulated students at each distance; three trials a test.</summary>
public class PolicyBenchTests
{
    private static readonly ConcurrentDictionary<(GatePolicy, double, double, int), Lazy<PolicyPoint>> Runs = new();

    /// <summary>Each point is simulated once, whichever test asks for it first; fewer students where only a large difference is asked for.</summary>
    private static PolicyPoint At(GatePolicy policy, double distanceSem, double tauOfSem, int students = 20_000) =>
        Runs.GetOrAdd(
            (policy, distanceSem, tauOfSem, students),
            _ => new(() => PolicyBench.Run(policy, new(TauOfSem: tauOfSem, Students: students), [distanceSem])[0])
        ).Value;

    [Fact]
    public void One_SEM_short_hardly_ever_passes_and_a_naive_reading_lets_a_fifth_through()
    {
        var shipped = At(GatePolicy.Shipped, -1, 0);
        Assert.InRange(shipped.PassFirstDay, 0, 0.005);
        Assert.InRange(shipped.PassAll, 0, 0.02);
        var naive = At(GatePolicy.Naive, -1, 0);
        Assert.InRange(naive.PassFirstDay, 0.035, 0.048);
        Assert.InRange(naive.PassAll, 0.20, 0.245);
    }

    [Fact]
    public void One_SEM_past_passes_within_two_days() => Assert.InRange(At(GatePolicy.Shipped, 1, 0).PassWithin[1], 0.95, 1);

    [Fact]
    public void With_day_to_day_noise_one_and_a_half_SEM_tell()
    {
        Assert.InRange(At(GatePolicy.Shipped, -1.5, 0.5).PassAll, 0, 0.01);
        Assert.InRange(At(GatePolicy.Shipped, 1.5, 0.5).PassWithin[1], 0.97, 1);
    }

    [Fact]
    public void The_same_seed_gives_the_same_curves_and_another_seed_others()
    {
        PolicyTrial trial = new(Students: 500);
        var first = PolicyBench.Run(GatePolicy.Shipped, trial);
        Assert.Equal(first.Select(p => p.PassFirstDay), PolicyBench.Run(GatePolicy.Shipped, trial).Select(p => p.PassFirstDay));
        Assert.NotEqual(
            first.Select(p => p.PassFirstDay),
            PolicyBench.Run(GatePolicy.Shipped, trial with { Seed = 1 }).Select(p => p.PassFirstDay)
        );
        Assert.Equal(PolicyBench.Distances, first.Select(p => p.DistanceSem));
    }

    [Fact]
    public void A_stricter_policy_lets_fewer_through_and_a_confirming_day_helps_the_ready()
    {
        var strict = new GatePolicy(2, 0, 0);
        double PassOf(GatePolicy policy, double distanceSem) => At(policy, distanceSem, 0.5, 4000).PassAll;
        GatePolicy Confirmed(int tests) => strict with { ConfirmingTests = tests, ConfirmingHours = 40 };
        Assert.True(PassOf(strict, -0.5) < PassOf(GatePolicy.Naive, -0.5));
        Assert.True(PassOf(Confirmed(2), 0.75) > PassOf(strict, 0.75));
        Assert.True(PassOf(Confirmed(3), 0) < PassOf(Confirmed(2), 0));
    }
}
