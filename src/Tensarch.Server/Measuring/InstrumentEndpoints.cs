using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Microsoft.AspNetCore.Http.HttpResults;
using Tensarch.Core.Measuring;
using Tensarch.Server.Accounts;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Measuring;

public sealed record InstrumentsResponse(DeviceView? Inclinometer);

/// <param name="Scenario">In the demo only: what the simulated device lies on.</param>
public sealed record DeviceView(string Name, InclinometerScenario? Scenario);

/// <summary>One message of the device's stream.</summary>
/// <param name="AngleDeg">None while the device is lost.</param>
/// <param name="StableDeg">The mean of the last second once it stands still.</param>
/// <param name="CaptureDeg">Take this trial: it has just come to a stand.</param>
public sealed record DeviceFrame(double Seconds, double? AngleDeg, double? StableDeg, double? CaptureDeg);

public static class InstrumentEndpoints
{
    public static void MapInstruments(this IEndpointRouteBuilder api)
    {
        var instruments = api.MapGroup("/instruments").WithTags("Measuring");
        instruments.MapGet("/", List);
        instruments.MapGet("/inclinometer/stream", Stream).Produces<DeviceFrame>(200, "text/event-stream");
        instruments.MapPut("/inclinometer/scenario", Place);
    }

    private static Ok<InstrumentsResponse> List(
        IInclinometer device,
        SimulatedInclinometer simulated,
        IConfiguration config,
        StudioScope scope
    ) =>
        TypedResults.Ok(
            new InstrumentsResponse(
                device.IsPresent ? new(device.Name, config.GetValue<bool>("Demo") ? simulated.ScenarioOf(scope.StudioId) : null) : null
            )
        );

    /// <summary>Goes on until the client leaves, the sign-in ends or the server stops.</summary>
    private static IResult Stream(
        IInclinometer device,
        StudioScope scope,
        SignIns signIns,
        HttpContext context,
        IHostApplicationLifetime life,
        CancellationToken ct
    ) =>
        device.IsPresent
            ? TypedResults.ServerSentEvents(Frames(device, scope.StudioId, life.ApplicationStopping, signIns.EndOf(context), ct))
            : Problems.Of(404, "noDevice");

    /// <summary>Angles with what the core says of their stillness; a lost device is said once a second.</summary>
    private static async IAsyncEnumerable<SseItem<DeviceFrame>> Frames(
        IInclinometer device,
        Guid studioId,
        CancellationToken stopping,
        CancellationToken signedOut,
        [EnumeratorCancellation] CancellationToken ct
    )
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, signedOut, ct);
        var stability = new Stability();
        TimeSpan? saidLost = null;
        await foreach (var sample in device.Read(studioId, either.Token))
        {
            if (sample.AngleDeg is not { } angle)
            {
                stability.Reset();
                if (saidLost is { } said && sample.At - said < TimeSpan.FromSeconds(1))
                    continue;
                saidLost = sample.At;
                yield return Frame(new(sample.At.TotalSeconds, null, null, null));
                continue;
            }
            saidLost = null;
            var capture = stability.Add(sample.At, angle);
            yield return Frame(new(sample.At.TotalSeconds, angle, stability.StableDeg, capture));
        }
    }

    private static SseItem<DeviceFrame> Frame(DeviceFrame frame) => new(frame) { ReconnectionInterval = TimeSpan.FromSeconds(1) };

    /// <summary>In the demo only.</summary>
    private static Results<Ok<InclinometerScenario>, ProblemHttpResult> Place(
        InclinometerScenario scenario,
        SimulatedInclinometer simulated,
        IConfiguration config,
        StudioScope scope
    )
    {
        if (!config.GetValue<bool>("Demo"))
            return Problems.Of(404, "demoOnly");
        simulated.Set(scope.StudioId, scenario);
        return TypedResults.Ok(scenario);
    }
}
