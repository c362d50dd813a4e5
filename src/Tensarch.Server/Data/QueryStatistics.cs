using Microsoft.Data.Sqlite;

namespace Tensarch.Server.Data;

/// <summary>
/// Keeps SQLite's statistics fresh, from the start on and four times a day. Without them it takes a studio's readings of a season, all
/// of them, for as selective as one student's: the difference grows with the studio.
/// </summary>
public sealed class QueryStatistics(DatabaseFile file, TimeProvider time, ILogger<QueryStatistics> log) : BackgroundService
{
    private static readonly TimeSpan Interval = TimeSpan.FromHours(6);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                file.Optimize();
            }
            catch (SqliteException e)
            {
                log.LogWarning(e, "The query statistics were not renewed.");
            }
            await Task.Delay(Interval, time, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }
}
