using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Skills;

/// <summary>Derives due lines of every studio's board each minute, so that nobody waits for them in the morning.</summary>
internal sealed partial class BoardKeeper(IServiceProvider services, ILogger<BoardKeeper> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        while (await timer.WaitForNextTickAsync(stoppingToken))
            try
            {
                await DeriveAll(stoppingToken);
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                CouldNot(log, e);
            }
    }

    private async Task DeriveAll(CancellationToken ct)
    {
        await using var looking = services.CreateAsyncScope();
        var db = looking.ServiceProvider.GetRequiredService<TensarchDb>();
        foreach (var studio in await db.Studios.AsNoTracking().ToListAsync(ct))
        {
            await using var scope = services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<StudioScope>().Enter(studio.Id, Guid.Empty, studio.TimeZone);
            await scope.ServiceProvider.GetRequiredService<BoardDesk>().DeriveDue(ct);
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "The readiness board could not be derived; it is tried again in a minute.")]
    private static partial void CouldNot(ILogger log, Exception e);
}
