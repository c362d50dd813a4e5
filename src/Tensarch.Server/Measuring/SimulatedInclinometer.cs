using System.Collections.Concurrent;
using System.ComponentModel.DataAnnotations;
using System.Runtime.CompilerServices;

namespace Tensarch.Server.Measuring;

/// <summary>What the simulated inclinometer lies on.</summary>
/// <param name="TrueDeg">The angle it settles at.</param>
/// <param name="TremorDeg">Standard deviation of the hand that holds it.</param>
/// <param name="DriftDegPerMinute">How fast the zero wanders.</param>
/// <param name="SettleSeconds">How long a change of angle takes.</param>
/// <param name="DroppedOut">The device cannot be reached.</param>
public sealed record InclinometerScenario(
    [Range(-180, 180)] double TrueDeg,
    [Range(0, 10)] double TremorDeg,
    [Range(-10, 10)] double DriftDegPerMinute,
    [Range(0, 20)] double SettleSeconds,
    bool DroppedOut
)
{
    public static readonly InclinometerScenario Start = new(82, 0.2, 0.1, 2, false);
}

/// <summary>A stand-in for a digital inclinometer: 20 angles a second that settle, tremble, drift and drop out, one device a studio.</summary>
public sealed class SimulatedInclinometer(TimeProvider time, bool present) : IInclinometer
{
    private static readonly TimeSpan Interval = TimeSpan.FromMilliseconds(50);

    /// <summary>How much of the tremor carries over to the next sample.</summary>
    private const double Memory = 0.6;

    private readonly ConcurrentDictionary<Guid, Placed> devices = new();

    private sealed record Placed(InclinometerScenario Scenario, double FromDeg, DateTimeOffset Since);

    public string Name => "Simulated inclinometer";

    public bool IsPresent => present;

    public InclinometerScenario ScenarioOf(Guid studioId) => Of(studioId).Scenario;

    /// <summary>Moves the device: from where it is now it settles at the new angle.</summary>
    public void Set(Guid studioId, InclinometerScenario scenario) =>
        devices.AddOrUpdate(
            studioId,
            _ => new(scenario, 0, time.GetUtcNow()),
            (_, before) => new(scenario, Angle(before, time.GetUtcNow()), time.GetUtcNow())
        );

    public async IAsyncEnumerable<DeviceSample> Read(Guid studioId, [EnumeratorCancellation] CancellationToken ct)
    {
        var random = new Random(studioId.GetHashCode());
        var (began, tremor, count) = (time.GetUtcNow(), 0.0, 0);
        while (true)
        {
            var now = time.GetUtcNow();
            var placed = Of(studioId);
            tremor = Memory * tremor + Math.Sqrt(1 - Memory * Memory) * placed.Scenario.TremorDeg * Normal.Next(random);
            yield return new(now - began, placed.Scenario.DroppedOut ? null : Angle(placed, now) + tremor);
            var wait = began + ++count * Interval - time.GetUtcNow();
            if (wait > TimeSpan.Zero)
                await Task.Delay(wait, time, ct);
            else
                ct.ThrowIfCancellationRequested();
        }
    }

    private Placed Of(Guid studioId) => devices.GetOrAdd(studioId, _ => new(InclinometerScenario.Start, 0, time.GetUtcNow()));

    private static double Angle(Placed placed, DateTimeOffset now)
    {
        var (scenario, seconds) = (placed.Scenario, (now - placed.Since).TotalSeconds);
        var left = scenario.SettleSeconds > 0 ? Math.Exp(-4 * seconds / scenario.SettleSeconds) : 0;
        return scenario.TrueDeg + (placed.FromDeg - scenario.TrueDeg) * left + scenario.DriftDegPerMinute * seconds / 60;
    }
}
