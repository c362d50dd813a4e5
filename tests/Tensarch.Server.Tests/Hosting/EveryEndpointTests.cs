using System.Net;
using System.Net.Http.Json;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests.Hosting;

/// <summary>Asks the application itself which endpoints it has, and calls every one of them as those who must not.</summary>
public sealed class EveryEndpointTests : IAsyncLifetime
{
    private const string Secret = "Zephyrine Secretperson";
    private readonly StudioApp app = new();
    private StudioClient owner = null!;
    private Dictionary<string, string> ids = null!;

    /// <summary>What anyone may call.</summary>
    private static readonly string[] Open = ["GET /accounts/me", "POST /accounts/owner", "POST /accounts/sign-in"];

    /// <summary>What only reads or computes, although it is a POST.</summary>
    private static readonly string[] ReadsOnly =
    [
        "PUT /accounts/me",
        "POST /accounts/me/password",
        "POST /accounts/sign-out",
        "POST /accounts/unsent",
        "POST /compute/asymmetry",
        "POST /compute/blocks",
        "POST /compute/breaths",
        "POST /compute/bars",
        "POST /compute/landmarks",
        "POST /compute/line",
        "POST /compute/policy",
        "POST /compute/practice",
        "POST /compute/rom-test",
        "POST /compute/split-angle",
        "POST /compute/straddle",
        "POST /compute/success-rate",
        "POST /ladders/read",
        "POST /ladders/try",
        "POST /students/{studentId}/programme/edits/try",
        "POST /students/{studentId}/readings/preview",
    ];

    public async ValueTask InitializeAsync()
    {
        owner = await app.Studio();
        var student = await owner.Student(Secret);
        var reading = Guid.NewGuid();
        await owner.Post($"/students/{student}/readings", StudioClient.Reading("passive-slr", "left", [80, 81, 82], reading));
        await owner.Place(student, 3, 3);
        var session = await owner.Session(student);
        var decision = await app.Rows(db =>
            db.Decisions.IgnoreQueryFilters().Where(d => d.StudentId == student).Select(d => d.Id).FirstAsync()
        );
        var sitting = Guid.NewGuid();
        await owner.Post(
            $"/students/{student}/sittings",
            new
            {
                id = sitting,
                scope = "needs",
                measures = Array.Empty<string>(),
                cold = false,
            }
        );
        var picture = Guid.NewGuid();
        var sent = await owner.Http.PostAsync(
            $"/api/v1/students/{student}/pictures?id={picture}&view=handstand-line",
            new ByteArrayContent(Server.Demo.SamplePicture.Handstand(5, 5, 1).Draw())
        );
        Assert.Equal(HttpStatusCode.Created, sent.StatusCode);
        var clearance = Guid.NewGuid();
        await owner.Post(
            $"/students/{student}/clearances",
            new
            {
                id = clearance,
                role = Secret,
                tags = new[] { "neck" },
                from = "2035-03-01",
                until = "2035-05-01",
            }
        );
        var note = Guid.NewGuid();
        await owner.Post($"/students/{student}/notes", new { id = note, text = Secret });
        var preset = Guid.NewGuid();
        await owner.Post(
            "/practice-presets",
            new
            {
                id = preset,
                name = Secret,
                practice = new { seconds = 30 },
            }
        );
        var ladder = await owner.OwnLadder(Secret);
        var drill = await owner.OwnDrill(
            new
            {
                name = Secret,
                cues = new[] { Secret },
                checks = Array.Empty<string>(),
                stopSigns = Array.Empty<string>(),
                props = Array.Empty<string>(),
                variants = Array.Empty<object>(),
                loads = Array.Empty<object>(),
            }
        );
        var clip = Guid.NewGuid();
        await owner.Http.PostAsync($"/api/v1/drills/{drill}/clips?id={clip}&variant=high-only", new ByteArrayContent(Fuzz.Bodies.Webm()));
        await owner.Post(
            $"/students/{student}/programme",
            new
            {
                id = Guid.NewGuid(),
                basedOn = 0,
                sketch = Fuzz.Bodies.Sketch(DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime)),
            }
        );
        var feed = Guid.NewGuid();
        await owner.Post(
            "/calendar/feeds",
            new
            {
                id = feed,
                studentId = (Guid?)null,
                morning = "09:00:00",
                afternoon = "17:00:00",
            }
        );
        var run = Guid.NewGuid();
        await owner.Post("/roster-runs", new { id = run, alsoNew = false });
        ids = new()
        {
            ["feedId"] = feed.ToString(),
            ["runId"] = run.ToString(),
            ["drill"] = drill,
            ["clipId"] = clip.ToString(),
            ["memberId"] = owner.UserId.ToString(),
            ["presetId"] = preset.ToString(),
            ["noteId"] = note.ToString(),
            ["clearanceId"] = clearance.ToString(),
            ["skill"] = "front-split",
            ["version"] = "1",
            ["number"] = "1",
            ["sittingId"] = sitting.ToString(),
            ["pictureId"] = picture.ToString(),
            ["measure"] = "passive-slr",
            ["slot"] = "passive-slr.left.none.warm",
            ["studentId"] = student.ToString(),
            ["sessionId"] = session.ToString(),
            ["readingId"] = reading.ToString(),
            ["decisionId"] = decision.ToString(),
            ["ladder"] = ladder,
        };
    }

    public ValueTask DisposeAsync() => app.DisposeAsync();

    private sealed record Door(string Method, RouteEndpoint Endpoint)
    {
        public string Pattern => "/" + Endpoint.RoutePattern.RawText!.Replace("/api/v1/", "", StringComparison.Ordinal).TrimEnd('/');

        public string Name => $"{Method} {Pattern}";

        public bool HasIds => Endpoint.RoutePattern.Parameters.Any(p => p.Name.EndsWith("Id", StringComparison.Ordinal));

        /// <summary>For those who still come to it from before.</summary>
        public bool IsClosed => !IsWrite && Endpoint.Metadata.GetMetadata<IExcludeFromDescriptionMetadata>() is not null;

        public bool IsWrite => Method is not ("GET" or "HEAD");
    }

    private List<Door> Doors() =>
        [
            .. app
                .Services.GetRequiredService<EndpointDataSource>()
                .Endpoints.OfType<RouteEndpoint>()
                .Where(e => e.RoutePattern.RawText!.StartsWith("/api/v1", StringComparison.Ordinal))
                .SelectMany(e => e.Metadata.GetMetadata<IHttpMethodMetadata>()!.HttpMethods.Select(m => new Door(m, e))),
        ];

    private async Task<HttpResponseMessage> Call(HttpClient http, Door door)
    {
        var path = "/api/v1" + door.Pattern;
        foreach (var parameter in door.Endpoint.RoutePattern.Parameters)
        {
            Assert.True(ids.ContainsKey(parameter.Name), $"{door.Name}: the test knows no {parameter.Name}.");
            path = path.Replace($"{{{parameter.Name}}}", ids[parameter.Name], StringComparison.Ordinal)
                .Replace($"{{{parameter.Name}:int}}", ids[parameter.Name], StringComparison.Ordinal);
        }
        using var request = new HttpRequestMessage(new(door.Method), path);
        if (door.IsWrite)
            request.Content = JsonContent.Create(new { });
        // A stream of events never ends: its headers say enough.
        return await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
    }

    [Fact]
    public async Task Signed_out_every_endpoint_but_the_open_ones_asks_for_a_sign_in()
    {
        var http = app.CreateClient();
        var doors = Doors();
        Assert.True(doors.Count > 25);
        foreach (var door in doors.Where(d => !Open.Contains(d.Name)))
            Assert.True((await Call(http, door)).StatusCode == HttpStatusCode.Unauthorized, door.Name);
        Assert.Equal(
            Open.Order(),
            doors.Where(d => d.Endpoint.Metadata.GetMetadata<IAllowAnonymous>() is not null).Select(d => d.Name).Order()
        );
    }

    [Fact]
    public async Task Another_studio_finds_nothing_and_changes_nothing()
    {
        var before = await app.Rows(Mine);
        var stranger = await app.Studio();
        foreach (var door in Doors().Where(d => d.Name is not ("POST /accounts/sign-out" or "POST /accounts/sign-in")))
        {
            var answer = await Call(stranger.Http, door);
            if (door.HasIds)
                Assert.True(answer.StatusCode == HttpStatusCode.NotFound, $"{door.Name}: {answer.StatusCode}");
            else
            {
                if (answer.Content.Headers.ContentType?.MediaType == "text/event-stream")
                    continue;
                var text = await answer.Content.ReadAsStringAsync();
                Assert.DoesNotContain(Secret, text, StringComparison.Ordinal);
                foreach (var id in ids.Values.Where(v => Guid.TryParse(v, out _)).Append(owner.Email))
                    Assert.DoesNotContain(id, text, StringComparison.OrdinalIgnoreCase);
            }
        }
        Assert.Equal(before, await app.Rows(Mine));
    }

    [Fact]
    public async Task An_assistant_reads_and_writes_nothing()
    {
        var before = await app.Rows(Mine);
        var assistant = await app.Studio(Role.Assistant, owner.StudioId);
        foreach (var door in Doors().Where(d => d.IsWrite && !Open.Contains(d.Name) && !ReadsOnly.Contains(d.Name)))
            Assert.True((await Call(assistant.Http, door)).StatusCode == HttpStatusCode.Forbidden, door.Name);
        foreach (var door in Doors().Where(d => !d.IsWrite))
            Assert.True(
                (await Call(assistant.Http, door)).StatusCode == (door.IsClosed ? HttpStatusCode.Gone : HttpStatusCode.OK),
                door.Name
            );
        Assert.Equal(before, await app.Rows(Mine));
        Assert.Equal(
            ReadsOnly.Order(),
            Doors().Where(d => d.Endpoint.Metadata.GetMetadata<Server.Hosting.ReadsOnly>() is not null).Select(d => d.Name).Order()
        );
    }

    /// <summary>Every row of the owner's studio, counted by table.</summary>
    private async Task<string> Mine(TensarchDb db)
    {
        var studio = owner.StudioId;
        var counts = new[]
        {
            await db.Students.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Answers.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Readings.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.ReadingVoids.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Sittings.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Drafts.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.OwnMeasures.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Pictures.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Marks.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Decisions.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Sessions.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Plans.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Feeds.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio && r.RevokedAt == null),
            await db.RosterRuns.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio && r.CancelledAt == null),
            await db.Sets.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Signals.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Clearances.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Withdrawals.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Screenings.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.OwnLadders.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.ExitChecks.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.Presets.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
            await db.FormChecks.IgnoreQueryFilters().CountAsync(r => r.StudioId == studio),
        };
        return string.Join(",", counts);
    }
}
