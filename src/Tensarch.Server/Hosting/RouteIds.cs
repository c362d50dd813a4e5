using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Hosting;

/// <summary>
/// Every id in a route is looked up under the studio filter before its endpoint runs: another studio's student, session or
/// reading is not found, whatever the endpoint does. An id of a kind that is not listed here stops the start.
/// </summary>
public static class RouteIds
{
    private static readonly Dictionary<string, Func<TensarchDb, Guid, RouteValueDictionary, CancellationToken, Task<bool>>> Known = new()
    {
        ["studentId"] = (db, id, _, ct) => db.Students.AnyAsync(s => s.Id == id, ct),
        ["sessionId"] = (db, id, _, ct) => db.Sessions.AnyAsync(s => s.Id == id, ct),
        ["readingId"] = (db, id, route, ct) => db.Readings.AnyAsync(r => r.Id == id && r.StudentId == Student(route), ct),
        ["sittingId"] = (db, id, route, ct) => db.Sittings.AnyAsync(s => s.Id == id && s.StudentId == Student(route), ct),
        ["pictureId"] = (db, id, route, ct) => db.Pictures.AnyAsync(p => p.Id == id && p.StudentId == Student(route), ct),
        ["clearanceId"] = (db, id, route, ct) => db.Clearances.AnyAsync(c => c.Id == id && c.StudentId == Student(route), ct),
        ["noteId"] = (db, id, route, ct) => db.Notes.AnyAsync(n => n.Id == id && n.StudentId == Student(route), ct),
        ["presetId"] = (db, id, _, ct) => db.Presets.AnyAsync(p => p.Id == id, ct),
        ["clipId"] = (db, id, _, ct) => db.Clips.AnyAsync(c => c.Id == id, ct),
        ["runId"] = (db, id, _, ct) => db.RosterRuns.AnyAsync(r => r.Id == id, ct),
        ["feedId"] = (db, id, _, ct) => db.Feeds.AnyAsync(f => f.Id == id, ct),
        ["memberId"] = (db, id, _, ct) => db.Users.AnyAsync(u => u.Id == id, ct),
        ["decisionId"] = (db, id, route, ct) => db.Decisions.AnyAsync(d => d.Id == id && d.StudentId == Student(route), ct),
    };

    public static IApplicationBuilder UseRouteIds(this IApplicationBuilder app) =>
        app.Use(
            async (context, next) =>
            {
                var route = context.Request.RouteValues;
                foreach (var (name, value) in route.Where(v => v.Key.EndsWith("Id", StringComparison.Ordinal)).ToList())
                {
                    var db = context.RequestServices.GetRequiredService<TensarchDb>();
                    if (!Guid.TryParse(value as string, out var id) || !await Known[name](db, id, route, context.RequestAborted))
                    {
                        await Problems.NotFound().ExecuteAsync(context);
                        return;
                    }
                }
                await next(context);
            }
        );

    /// <exception cref="InvalidOperationException">A route has an id that nothing looks up.</exception>
    public static void Check(IEnumerable<Endpoint> endpoints)
    {
        foreach (var endpoint in endpoints.OfType<RouteEndpoint>())
        foreach (var parameter in endpoint.RoutePattern.Parameters)
            if (parameter.Name.EndsWith("Id", StringComparison.Ordinal) && !Known.ContainsKey(parameter.Name))
                throw new InvalidOperationException($"{endpoint.RoutePattern.RawText}: nothing looks up {parameter.Name}.");
    }

    private static Guid Student(RouteValueDictionary route) => Guid.TryParse(route["studentId"] as string, out var id) ? id : Guid.Empty;
}
