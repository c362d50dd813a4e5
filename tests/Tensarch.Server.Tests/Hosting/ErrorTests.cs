using System.Net;
using System.Text;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Tests.Hosting;

/// <summary>Every refusal is problem details with a code and carries the security headers, wherever in the pipeline it was made.</summary>
public sealed class ErrorTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;

    public async ValueTask InitializeAsync() => coach = await app.Studio();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    public static async Task<string> Whole(HttpResponseMessage answer, int status)
    {
        Assert.Contains("default-src 'none'", answer.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
        Assert.Equal("nosniff", answer.Headers.GetValues("X-Content-Type-Options").Single());
        Assert.Equal("same-origin", answer.Headers.GetValues("Referrer-Policy").Single());
        return await answer.Problem((HttpStatusCode)status);
    }

    [Theory]
    [InlineData("GET", "/api", 404, "notFound")]
    [InlineData("GET", "/api/v1/nothing", 404, "notFound")]
    [InlineData("POST", "/api/v1/nothing", 404, "notFound")]
    [InlineData("GET", "/api/v1/students/not-an-id", 404, "notFound")]
    [InlineData("GET", "/api/v1/students/00000000-0000-0000-0000-000000000001", 404, "notFound")]
    [InlineData("GET", "/api/v1/ladders/no-such/versions/1", 404, "notFound")]
    [InlineData("GET", "/api/v1/ladders/front-split/versions/one", 404, "notFound")]
    [InlineData("GET", "/_app/immutable/nothing.js", 404, "notFound")]
    [InlineData("DELETE", "/api/v1/students", 405, "wrongMethod")]
    [InlineData("PATCH", "/api/v1/blocks", 405, "wrongMethod")]
    [InlineData("GET", "/api/v1/accounts/sign-in", 405, "wrongMethod")]
    [InlineData("GET", "/api/v1/readings?takenBy=nobody", 400, "unreadable")]
    public async Task What_is_not_there_or_not_done_there_says_so(string method, string path, int status, string code)
    {
        var answer = await coach.Http.SendAsync(new(new(method), path));
        Assert.Equal(code, await Whole(answer, status));
        if (status == 405)
            Assert.NotEmpty(answer.Content.Headers.Allow);
    }

    [Theory]
    [InlineData("/api/v1/students", "text/plain", "{}", 415, "wrongMediaType")]
    [InlineData("/api/v1/students", "application/xml", "<a/>", 415, "wrongMediaType")]
    [InlineData("/api/v1/students", "application/json", "{", 400, "invalidJson")]
    [InlineData("/api/v1/students", "application/json", "", 400, "unreadable")]
    [InlineData("/api/v1/students", "application/json", "null", 400, "unreadable")]
    [InlineData("/api/v1/students", "application/json; charset=utf-16", "{}", 400, "invalidJson")]
    [InlineData("/api/v1/students", "application/json; charset=utf-7", "{}", 415, "wrongMediaType")]
    [InlineData("/api/v1/accounts/sign-in", "application/json; charset=UTF-7", "{}", 415, "wrongMediaType")]
    [InlineData(
        "/api/v1/accounts/sign-in",
        "application/json",
        """{"email":"nobody@studio.example","password":"wrong"}""",
        401,
        "wrongSignIn"
    )]
    public async Task A_body_that_cannot_be_read_says_why(string path, string type, string body, int status, string code)
    {
        var content = new ByteArrayContent(Encoding.UTF8.GetBytes(body));
        content.Headers.TryAddWithoutValidation("Content-Type", type);
        Assert.Equal(code, await Whole(await coach.Http.PostAsync(path, content), status));
    }

    [Fact]
    public async Task Signed_out_and_across_sites_are_whole_too()
    {
        Assert.Equal("signedOut", await Whole(await app.CreateClient().GetAsync("/api/v1/students"), 401));
        var assistant = await app.Studio(Role.Assistant, coach.StudioId);
        Assert.Equal("readsOnly", await Whole(await assistant.Post("/students", new { }), 403));
        using var across = new HttpRequestMessage(HttpMethod.Post, "/api/v1/students") { Headers = { { "Sec-Fetch-Site", "cross-site" } } };
        Assert.Equal("crossSite", await Whole(await coach.Http.SendAsync(across), 403));
    }

    /// <summary>SQLite is told that the file may not grow, which is what a full disk looks like to it.</summary>
    private sealed class FullDisk : DbConnectionInterceptor
    {
        public bool IsFull { get; set; }

        public override void ConnectionOpened(System.Data.Common.DbConnection connection, ConnectionEndEventData eventData)
        {
            using var command = connection.CreateCommand();
            command.CommandText = IsFull ? "PRAGMA max_page_count = 1;" : "PRAGMA max_page_count = 1000000;";
            command.ExecuteScalar();
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

    [Fact]
    public async Task A_full_disk_says_so_keeps_nothing_by_halves_and_is_over_when_there_is_room()
    {
        var disk = new FullDisk();
        await using var small = new StudioApp();
        var host = small.WithWebHostBuilder(builder =>
            builder.ConfigureServices(services => services.ConfigureDbContext<TensarchDb>(options => options.AddInterceptors(disk)))
        );
        var me = await small.Studio();
        var http = host.CreateClient();
        var coach = me with { Http = http };
        await coach.SignIn();
        var student = await coach.Student();

        disk.IsFull = true;
        SqliteConnection.ClearAllPools();
        var long_ = new { id = Guid.NewGuid(), note = new string('x', 500) };
        var codes = new List<string>();
        for (var i = 0; i < 40 && codes.Count == 0; i++)
        {
            var answer = await coach.Post($"/students/{student}/changes", long_ with { id = Guid.NewGuid() });
            if (answer.StatusCode != HttpStatusCode.Created)
                codes.Add(await Whole(answer, 507));
        }
        Assert.Equal(["storageFull"], codes);
        await coach.Get($"/students/{student}");

        disk.IsFull = false;
        SqliteConnection.ClearAllPools();
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/changes", long_)).StatusCode);
    }

    [Theory]
    [InlineData(13, 507, "storageFull")]
    [InlineData(8, 503, "notWritable")]
    [InlineData(5, 429, "busy")]
    [InlineData(1, 500, "unexpected")]
    public void What_SQLite_could_not_keep_has_a_status_of_its_own(int sqlite, int status, string code) =>
        Assert.Equal((status, code), BadRequests.CouldNotKeep(new DbUpdateException("", new SqliteException("", sqlite))));

    [Fact]
    public void A_file_that_finds_no_room_is_the_same() =>
        Assert.Equal((507, "storageFull"), BadRequests.CouldNotKeep(new IOException("No space left on device", 28)));
}
