using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Tensarch.Server.Data;

/// <summary>SQLite with a write-ahead log, full synchronisation and foreign keys: what was acknowledged is on the disk.</summary>
public static class Database
{
    public static IServiceCollection AddDatabase(this IServiceCollection services, string path)
    {
        var connection = new SqliteConnectionStringBuilder
        {
            DataSource = path,
            ForeignKeys = true,
            DefaultTimeout = 10,
        }.ToString();
        services.AddScoped<StudioScope>();
        services.AddScoped<StudioClock>();
        services.AddSingleton(new DatabaseFile(connection));
        return services.AddDbContext<TensarchDb>(options => options.UseSqlite(connection).AddInterceptors(new FullSync()));
    }

    /// <summary>Brings the file to the newest migration; leaves one that is there already alone, which starts a second sooner.</summary>
    public static async Task Migrate(IServiceProvider services)
    {
        var file = services.GetRequiredService<DatabaseFile>();
        if (file.IsMigrated())
            return;
        file.CopyBeforeMigration();
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        await db.Database.MigrateAsync();
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode = WAL;");
    }

    /// <summary>Lets go of the file: what is in the write-ahead log goes into it, so that it can be copied.</summary>
    public static void Close() => SqliteConnection.ClearAllPools();

    private sealed class FullSync : DbConnectionInterceptor
    {
        public override void ConnectionOpened(System.Data.Common.DbConnection connection, ConnectionEndEventData eventData)
        {
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA synchronous = FULL;";
            command.ExecuteNonQuery();
        }

        public override Task ConnectionOpenedAsync(
            System.Data.Common.DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            ConnectionOpened(connection, eventData);
            return Task.CompletedTask;
        }
    }
}
