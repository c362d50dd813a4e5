using System.Net;
using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;

namespace Tensarch.Server.Tests.Students;

public sealed class StudentTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;

    public async ValueTask InitializeAsync() => coach = await app.Studio();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task The_same_create_again_is_the_same_student_and_another_body_is_a_clash()
    {
        var id = Guid.NewGuid();
        var body = new { id, student = StudioClient.Body() };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post("/students", body)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await coach.Post("/students", body)).StatusCode);
        Assert.Equal(
            "idTaken",
            await (await coach.Post("/students", new { id, student = StudioClient.Body("Else") })).Problem(HttpStatusCode.Conflict)
        );
        Assert.Equal(1, (await coach.Get("/students")).GetProperty("students").GetArrayLength());
    }

    [Fact]
    public async Task An_id_that_another_studio_has_taken_is_a_clash_and_tells_nothing()
    {
        var other = await app.Studio();
        var id = await other.Student("Hidden Name");
        var answer = await coach.Post("/students", new { id, student = StudioClient.Body() });
        Assert.Equal("idTaken", await answer.Problem(HttpStatusCode.Conflict));
        Assert.DoesNotContain("Hidden", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(0.0, "1990-01-01", "outOfRange", "leftLegCm")]
    [InlineData(86.0, "2099-03-04", "dateInFuture", "birthDate")]
    public async Task Impossible_body_data_is_named_at_the_field(double leg, string born, string code, string field) =>
        Assert.Equal(
            code,
            await (
                await coach.Post("/students", new { id = Guid.NewGuid(), student = StudioClient.Body(leg: leg, birthDate: born) })
            ).Problem(HttpStatusCode.UnprocessableEntity, field)
        );

    [Fact]
    public async Task A_word_where_a_number_belongs_and_a_missing_field_are_named_too()
    {
        var word = await coach.Http.PostAsync(
            "/api/v1/students",
            new StringContent("""{"id":"00000000-0000-0000-0000-000000000001","student":{"leftLegCm":"abc"}}""", null, "application/json")
        );
        Assert.Equal("wrongType", await word.Problem(HttpStatusCode.BadRequest, "student.leftLegCm"));
        Assert.Equal(
            "required",
            await (await coach.Post("/students", new { id = Guid.NewGuid() })).Problem(HttpStatusCode.BadRequest, "student")
        );
    }

    [Fact]
    public async Task A_change_needs_the_version_that_was_seen()
    {
        var id = await coach.Student();
        Task<HttpResponseMessage> Put(string? version, string name)
        {
            var request = new HttpRequestMessage(HttpMethod.Put, $"/api/v1/students/{id}")
            {
                Content = JsonContent.Create(StudioClient.Body(name)),
            };
            if (version is not null)
                request.Headers.Add("If-Match", $"\"{version}\"");
            return coach.Http.SendAsync(request);
        }
        Assert.Equal("versionNeeded", await (await Put(null, "A B")).Problem((HttpStatusCode)428));
        Assert.Equal(HttpStatusCode.OK, (await Put("1", "First Name")).StatusCode);
        var late = await Put("1", "Second Name");
        Assert.Equal("changedMeanwhile", await late.Problem(HttpStatusCode.PreconditionFailed));
        Assert.Contains("First Name", await late.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await Put("2", "Second Name")).StatusCode);
    }

    [Fact]
    public async Task An_archived_student_leaves_the_roster_and_comes_back()
    {
        var id = await coach.Student();
        async Task Archive(int version, bool archived)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/v1/students/{id}/archive")
            {
                Content = JsonContent.Create(new { archived }),
            };
            request.Headers.Add("If-Match", $"\"{version}\"");
            Assert.Equal(HttpStatusCode.OK, (await coach.Http.SendAsync(request)).StatusCode);
        }
        await Archive(1, true);
        Assert.Equal(0, (await coach.Get("/students")).GetProperty("students").GetArrayLength());
        Assert.Equal(1, (await coach.Get("/students?archived=true")).GetProperty("students").GetArrayLength());
        await Archive(2, false);
        Assert.Equal(1, (await coach.Get("/students")).GetProperty("students").GetArrayLength());
    }

    [Fact]
    public async Task The_roster_pages_by_key_and_finds_by_name()
    {
        for (var i = 0; i < 45; i++)
            await coach.Post("/students", new { id = Guid.NewGuid(), student = StudioClient.Body($"Student {i:00}") });
        var first = await coach.Get("/students");
        Assert.Equal(40, first.GetProperty("students").GetArrayLength());
        var rest = await coach.Get("/students?after=" + Uri.EscapeDataString(first.GetProperty("next").GetString()!));
        Assert.Equal(5, rest.GetProperty("students").GetArrayLength());
        Assert.Equal("Student 40", rest.GetProperty("students")[0].GetProperty("name").GetString());
        Assert.Equal(1, (await coach.Get("/students?find=t%2007")).GetProperty("students").GetArrayLength());
    }

    [Fact]
    public async Task The_roster_is_one_query_for_one_student_and_for_many()
    {
        await coach.Place(await coach.Student("One"), 1, 1);
        for (var i = 0; i < 2; i++)
        {
            await coach.Get("/students");
            var before = app.Commands.Count;
            await coach.Get("/students");
            Assert.Equal(1, app.Commands.Count - before);
            for (var more = 0; more < 12; more++)
                await coach.Place(await coach.Student($"More {more}"), 1, 1);
        }
    }

    [Fact]
    public async Task What_is_kept_of_the_roster_is_what_the_facts_say()
    {
        var id = await coach.Student("Kept Line");
        var said = new List<string>();
        async Task<string> Line() => (await coach.Get("/students")).GetProperty("students")[0].GetRawText();
        async Task Look()
        {
            var kept = await Line();
            await app.Rows(db =>
                db.Roster.IgnoreQueryFilters().ExecuteUpdateAsync(r => r.SetProperty(l => l.DueAt, DateTimeOffset.UnixEpoch))
            );
            Assert.Equal(await Line(), kept);
            Assert.DoesNotContain(kept, said);
            said.Add(kept);
        }

        await Look();
        await coach.Place(id, 2, 2);
        await Look();
        await coach.Answer(id, "hip-replacement");
        await Look();
        await coach.Answer(id);
        await coach.ReadAll(id);
        await Look();
        var session = await coach.Session(id);
        var now = app.Time.GetUtcNow();
        Assert.Equal(HttpStatusCode.OK, (await coach.Log(session, now, [StudioClient.Set("low-lunge", "deep", "left", now)])).StatusCode);
        await Look();
        Assert.Equal(
            HttpStatusCode.OK,
            (await coach.Log(session, now, [], [StudioClient.Signal("numbness", now, "hamstring")])).StatusCode
        );
        await Look();
        await coach.Place(id, "handstand", 1);
        await Look();
        app.Time.Advance(TimeSpan.FromDays(1));
        await coach.SignIn();
        await Look();
    }

    [Fact]
    public async Task An_answer_holds_and_a_clearance_lifts_until_it_lapses()
    {
        var id = await coach.Student("Kept", "hip-replacement");
        async Task<string?> Level() =>
            (await coach.Get($"/students/{id}"))
                .GetProperty("bars")
                .GetProperty("tags")
                .EnumerateArray()
                .Where(t => t.GetProperty("tag").GetString() == "hip-front")
                .Select(t => t.GetProperty("level").GetString())
                .SingleOrDefault();
        Assert.Equal("offLimits", await Level());
        var clearance = new
        {
            id = Guid.NewGuid(),
            role = "orthopaedic surgeon",
            tags = new[] { "hip-front" },
            from = "2035-03-01",
            until = "2035-03-10",
        };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{id}/clearances", clearance)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await coach.Post($"/students/{id}/clearances", clearance)).StatusCode);
        Assert.Null(await Level());
        app.Time.Advance(TimeSpan.FromDays(8));
        Assert.Equal("offLimits", await Level());
    }

    [Fact]
    public async Task Nothing_is_planned_before_the_screen_is_answered()
    {
        var id = Guid.NewGuid();
        await coach.Post("/students", new { id, student = StudioClient.Body() });
        await coach.Place(id, 1, 1);
        var plan = new
        {
            id = Guid.NewGuid(),
            date = (string?)null,
            minutes = 45,
        };
        Assert.Equal(
            "everythingOffLimits",
            await (await coach.Post($"/students/{id}/sessions", plan)).Problem(HttpStatusCode.UnprocessableEntity)
        );
        await coach.Answer(id);
        // Nor before they have said that they want to train.
        Assert.Equal(
            "everythingOffLimits",
            await (await coach.Post($"/students/{id}/sessions", plan)).Problem(HttpStatusCode.UnprocessableEntity)
        );
        await coach.Consent(id, "training", true);
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{id}/sessions", plan)).StatusCode);
    }
}
