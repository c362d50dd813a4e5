using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Tensarch.Core.Catalogue;

namespace Tensarch.Server.Tests;

/// <summary>Every page of a studio: each GET endpoint that the application has, for everyone and everything that is in its database.</summary>
public static partial class Pages
{
    /// <summary>The newest so many of what there are hundreds of.</summary>
    private const int Newest = 3;

    /// <returns>Paths below <c>/api/v1</c>; streams are left out, since they never end.</returns>
    public static async Task<IReadOnlyList<string>> Of(StudioApp app, StudioClient coach)
    {
        var content = ContentLoader.Load();
        var studio =
            coach.StudioId != Guid.Empty
                ? coach.StudioId
                : await app.Rows(db =>
                    db.Users.IgnoreQueryFilters().Where(u => u.Email == coach.Email).Select(u => u.StudioId).SingleAsync()
                );
        var students = await Rows(db => db.Students.IgnoreQueryFilters().Where(s => s.StudioId == studio).Select(s => s.Id));
        var skills = await Rows(db => db.Skills.IgnoreQueryFilters().Where(s => s.StudioId == studio));
        var sittings = await Rows(db => db.Sittings.IgnoreQueryFilters().Where(s => s.StudioId == studio));
        var pictures = await Rows(db => db.Pictures.IgnoreQueryFilters().Where(p => p.StudioId == studio));
        var clips = await Rows(db => db.Clips.IgnoreQueryFilters().Where(c => c.StudioId == studio && !c.Gone));
        var ladders = await Rows(db => db.OwnLadders.IgnoreQueryFilters().Where(l => l.StudioId == studio));
        var sessions = await Rows(db =>
            db.Sessions.IgnoreQueryFilters()
                .Where(s => s.StudioId == studio)
                .OrderByDescending(s => s.CreatedAt)
                .Select(s => new
                {
                    s.Id,
                    s.StudentId,
                    EndedAt = s.Training == null ? null : s.Training.EndedAt,
                })
        );
        var plans = await Rows(db =>
            db.Plans.IgnoreQueryFilters().Where(p => p.StudioId == studio).Select(p => new { p.StudentId, p.Number })
        );
        var series = await Rows(db =>
            db.Readings.IgnoreQueryFilters().Where(r => r.StudioId == studio).Select(r => new { r.StudentId, r.Measure }).Distinct()
        );
        var some = sessions.GroupBy(s => (s.StudentId, s.EndedAt is null)).SelectMany(g => g.Take(Newest)).ToList();

        return [.. Patterns().SelectMany(Filled).Distinct()];

        async Task<List<T>> Rows<T>(Func<Server.Data.TensarchDb, IQueryable<T>> ask) => await app.Rows(db => ask(db).ToListAsync());

        IEnumerable<string> Patterns() =>
            app
                .Services.GetRequiredService<EndpointDataSource>()
                .Endpoints.OfType<RouteEndpoint>()
                .Where(e => e.RoutePattern.RawText!.StartsWith("/api/v1", StringComparison.Ordinal))
                .Where(e => e.Metadata.GetMetadata<IHttpMethodMetadata>()!.HttpMethods.Contains("GET"))
                // A door that is closed has no page.
                .Where(e => e.Metadata.GetMetadata<IExcludeFromDescriptionMetadata>() is null)
                .Select(e => Constraint().Replace(e.RoutePattern.RawText!["/api/v1".Length..].TrimEnd('/'), "}"))
                .Where(p => !p.EndsWith("/stream", StringComparison.Ordinal));

        IEnumerable<string> Filled(string pattern) =>
            pattern switch
            {
                // Ended sessions have no pack any more.
                "/sessions/{sessionId}/pack" => [],
                "/readiness" => new[] { "ready", "nearly", "stalled", "blocked", "training", "waiting", "owned" }.Select(g =>
                    $"{pattern}?group={g}"
                ),
                _ when pattern.Contains("{number}", StringComparison.Ordinal) => plans.Select(p =>
                    Put(Put(pattern, "studentId", p.StudentId), "number", p.Number)
                ),
                _ when pattern.Contains("{sessionId}", StringComparison.Ordinal) => some.Select(s => Put(pattern, "sessionId", s.Id)),
                _ when pattern.Contains("{sittingId}", StringComparison.Ordinal) => sittings.Select(s =>
                    Put(Put(pattern, "sittingId", s.Id), "studentId", s.StudentId)
                ),
                _ when pattern.Contains("{clipId}", StringComparison.Ordinal) => clips.Select(c =>
                    Put(Put(pattern, "clipId", c.Id), "drill", c.DrillKey)
                ),
                _ when pattern.Contains("{pictureId}", StringComparison.Ordinal) => pictures.Select(p =>
                    Put(Put(pattern, "pictureId", p.Id), "studentId", p.StudentId)
                ),
                "/students/{studentId}/skills/{skill}" => skills.Select(s => Put(Put(pattern, "studentId", s.StudentId), "skill", s.Skill)),
                "/students/{studentId}/series/{measure}" => series.Select(s =>
                    Put(Put(pattern, "studentId", s.StudentId), "measure", s.Measure)
                ),
                _ when pattern.Contains("{skill}", StringComparison.Ordinal) => students.SelectMany(s =>
                    content.Skills.Take(Newest).Select(k => Put(Put(pattern, "studentId", s), "skill", k.Key))
                ),
                _ when pattern.Contains("{measure}", StringComparison.Ordinal) => content.Measures.Select(m =>
                    Put(pattern, "measure", m.Key)
                ),
                _ when pattern.Contains("{ladder}", StringComparison.Ordinal) => content
                    .Skills.Select(l => (l.Key, l.Version))
                    .Concat(ladders.Select(l => (Key: l.LadderKey, l.Version)))
                    .Select(l => Put(Put(pattern, "ladder", Uri.EscapeDataString(l.Key)), "version", l.Version)),
                _ when pattern.Contains("{studentId}", StringComparison.Ordinal) => students.Select(s => Put(pattern, "studentId", s)),
                _ => [pattern],
            };
    }

    private static string Put(string pattern, string name, object value) =>
        pattern.Replace($"{{{name}}}", value.ToString(), StringComparison.Ordinal);

    [GeneratedRegex(":[a-z]+}")]
    private static partial Regex Constraint();
}
