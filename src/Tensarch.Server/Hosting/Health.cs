using Tensarch.Server.Data;

namespace Tensarch.Server.Hosting;

public static class Health
{
    /// <summary>Ready: every migration is in and the database takes a write lock.</summary>
    public static void MapHealth(this IEndpointRouteBuilder app) =>
        app.MapGet(
                "/health/ready",
                (DatabaseFile file) =>
                    !file.IsWritable() ? Problems.Of(503, "notWritable")
                    : !file.IsMigrated() ? Problems.Of(503, "notMigrated")
                    : Results.Ok(new { status = "ready" })
            )
            .ExcludeFromDescription();
}
