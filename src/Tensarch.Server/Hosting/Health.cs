using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Hosting;

public static class Health
{
    /// <summary>Ready: every migration is in and the database takes a write lock.</summary>
    public static void MapHealth(this IEndpointRouteBuilder app) =>
        app.MapGet(
                "/health/ready",
                async (TensarchDb db, CancellationToken ct) =>
                {
                    try
                    {
                        if ((await db.Database.GetPendingMigrationsAsync(ct)).Any())
                            return Problems.Of(503, "notMigrated");
                        await db.Database.OpenConnectionAsync(ct);
                        await db.Database.ExecuteSqlRawAsync("BEGIN IMMEDIATE; ROLLBACK;", ct);
                        return Results.Ok(new { status = "ready" });
                    }
                    catch (Microsoft.Data.Sqlite.SqliteException)
                    {
                        return Problems.Of(503, "notWritable");
                    }
                }
            )
            .ExcludeFromDescription();
}
