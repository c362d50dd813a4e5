using System.Net;
using System.Net.Http.Json;
using Microsoft.Extensions.Time.Testing;
using Tensarch.Core.Measuring;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Tests.Measuring;

public sealed class InclinometerTests
{
    private readonly FakeTimeProvider time = new(new DateTimeOffset(2035, 3, 3, 10, 0, 0, TimeSpan.Zero));
    private readonly Guid studio = Guid.Parse("11111111-1111-1111-1111-111111111111");

    /// <summary>So many samples of the device, the clock moving as it waits.</summary>
    private async Task<List<DeviceSample>> Listen(SimulatedInclinometer device, int samples)
    {
        var heard = new List<DeviceSample>();
        await using var stream = device
            .Read(studio, TestContext.Current.CancellationToken)
            .GetAsyncEnumerator(TestContext.Current.CancellationToken);
        while (heard.Count < samples)
        {
            var next = stream.MoveNextAsync();
            while (!next.IsCompleted)
                time.Advance(TimeSpan.FromMilliseconds(10));
            Assert.True(await next);
            heard.Add(stream.Current);
        }
        return heard;
    }

    [Fact]
    public async Task It_streams_twenty_angles_a_second_that_settle_where_the_device_lies()
    {
        var device = new SimulatedInclinometer(time, present: true);
        device.Set(studio, new(64, 0.2, 0, 2, false));
        var heard = await Listen(device, 100);
        Assert.InRange((heard[^1].At - heard[0].At).TotalSeconds, 4.8, 5.2);
        Assert.True(heard[0].AngleDeg < 20);
        Assert.InRange(heard.TakeLast(20).Average(s => s.AngleDeg!.Value), 63.7, 64.3);
        var stability = new Stability();
        var captured = heard.Select(s => stability.Add(s.At, s.AngleDeg!.Value)).OfType<double>().ToList();
        Assert.InRange(Assert.Single(captured), 63, 65);
    }

    [Fact]
    public async Task A_device_that_dropped_out_says_so_and_comes_back_elsewhere()
    {
        var device = new SimulatedInclinometer(time, present: true);
        device.Set(studio, new(64, 0, 0, 0, true));
        Assert.All(await Listen(device, 5), s => Assert.Null(s.AngleDeg));
        device.Set(studio, new(80, 0, 0, 0, false));
        Assert.All(await Listen(device, 5), s => Assert.Equal(80, s.AngleDeg!.Value, 6));
    }

    [Fact]
    public async Task Tremor_and_drift_are_as_large_as_they_are_set()
    {
        var device = new SimulatedInclinometer(time, present: true);
        device.Set(studio, new(50, 0.4, 6, 0, false));
        var heard = (await Listen(device, 1200)).Select(s => s.AngleDeg!.Value).ToList();
        Assert.InRange(heard.TakeLast(200).Average() - heard.Take(200).Average(), 4.5, 5.5);
        var noise = heard.Select((a, i) => a - 50 - 6 * i * 0.05 / 60).ToList();
        Assert.InRange(Math.Sqrt(noise.Average(n => n * n)), 0.3, 0.5);
    }

    [Fact]
    public async Task Only_the_demo_moves_the_device()
    {
        await using var app = new StudioApp();
        var coach = await app.Studio();
        var scenario = new InclinometerScenario(70, 0.1, 0, 1, false);
        var answer = await coach.Http.PutAsJsonAsync("/api/v1/instruments/inclinometer/scenario", scenario);
        Assert.Equal("demoOnly", await answer.Problem(HttpStatusCode.NotFound));
        Assert.Equal(
            "Simulated inclinometer",
            (await coach.Get("/instruments")).GetProperty("inclinometer").GetProperty("name").GetString()
        );
        Assert.Equal(
            "outOfRange",
            await (await coach.Http.PutAsJsonAsync("/api/v1/instruments/inclinometer/scenario", scenario with { TrueDeg = 400 })).Problem(
                HttpStatusCode.UnprocessableEntity,
                "trueDeg"
            )
        );
    }
}
