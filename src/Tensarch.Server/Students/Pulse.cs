using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Students;

/// <summary>What was saved last about a student.</summary>
/// <param name="Beat">Counts up with everything that is saved; 0 before anything was.</param>
/// <param name="Mine">Whoever asks saved it.</param>
public sealed record PulseView(long Beat, string? By, bool Mine, DateTimeOffset? At);

/// <summary>Asked every few seconds by a screen on which a student is open: 304 while nobody has saved anything.</summary>
public static class Pulse
{
    public static void MapPulse(this IEndpointRouteBuilder api) =>
        api.MapGet("/students/{studentId}/pulse", Read).WithTags("Students").Produces(304);

    /// <summary>Says in a header how often this request has saved something about whom: `Beats: id=n, id=n`.</summary>
    public static Task Tell(HttpResponse response, StudioScope scope)
    {
        if (scope.Beats.Count > 0)
            response.Headers["Beats"] = string.Join(", ", scope.Beats.Select(b => $"{b.Key}={b.Value}"));
        return Task.CompletedTask;
    }

    private static async Task<Results<Ok<PulseView>, StatusCodeHttpResult>> Read(
        Guid studentId,
        HttpContext context,
        TensarchDb db,
        StudioScope scope,
        CancellationToken ct
    )
    {
        var row = await db.Pulses.AsNoTracking().SingleOrDefaultAsync(p => p.StudentId == studentId, ct);
        var tag = $"\"{row?.Beat ?? 0}\"";
        context.Response.Headers.ETag = tag;
        if (context.Request.Headers.IfNoneMatch == tag)
            return TypedResults.StatusCode(StatusCodes.Status304NotModified);
        var by = row is null ? null : await db.Users.Where(u => u.Id == row.By).Select(u => u.DisplayName).SingleOrDefaultAsync(ct);
        return TypedResults.Ok(new PulseView(row?.Beat ?? 0, by, row?.By == scope.UserId, row?.At));
    }
}
