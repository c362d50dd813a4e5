using System.Net;
using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests.Hosting;

public class HostTests
{
    [Fact]
    public async Task Ready_says_so_on_a_migrated_database()
    {
        await using var app = new StudioApp();
        Assert.Equal(HttpStatusCode.OK, (await app.CreateClient().GetAsync("/health/ready")).StatusCode);
    }

    [Fact]
    public async Task The_model_and_the_migrations_agree()
    {
        await using var app = new StudioApp();
        Assert.False(await app.Rows(db => Task.FromResult(db.Database.HasPendingModelChanges())));
    }

    [Fact]
    public async Task An_unknown_path_of_the_api_is_a_problem_and_not_a_page()
    {
        await using var app = new StudioApp();
        Assert.Equal("notFound", await (await app.CreateClient().GetAsync("/api/v1/nothing")).Problem(HttpStatusCode.NotFound));
    }

    [Fact]
    public async Task Every_answer_carries_the_security_headers()
    {
        await using var app = new StudioApp();
        var answer = await app.CreateClient().GetAsync("/api/v1/accounts/me");
        Assert.Contains("default-src 'none'", answer.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
        Assert.DoesNotContain(
            "unsafe-inline' ",
            answer.Headers.GetValues("Content-Security-Policy").Single().Split("style-src")[0],
            StringComparison.Ordinal
        );
        Assert.Equal("nosniff", answer.Headers.GetValues("X-Content-Type-Options").Single());
        Assert.Equal("no-store", answer.Headers.CacheControl!.ToString());
    }

    [Theory]
    [InlineData("Sec-Fetch-Site", "cross-site")]
    [InlineData("Sec-Fetch-Site", "same-site")]
    [InlineData("Origin", "http://elsewhere.example")]
    [InlineData("Origin", "null")]
    public async Task A_write_from_another_sites_page_is_refused(string header, string value)
    {
        await using var app = new StudioApp();
        var coach = await app.Studio();
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/v1/students")
        {
            Content = JsonContent.Create(new { id = Guid.NewGuid(), student = StudioClient.Body() }),
        };
        request.Headers.Add(header, value);
        Assert.Equal("crossSite", await (await coach.Http.SendAsync(request)).Problem(HttpStatusCode.Forbidden));
    }

    [Fact]
    public async Task What_was_acknowledged_is_there_after_a_restart()
    {
        var folder = Folders.New();
        Guid student;
        string email;
        await using (var app = new StudioApp { DataFolder = folder })
        {
            var coach = await app.Studio();
            (student, email) = (await coach.Student(), coach.Email);
            Assert.Equal(
                "wal",
                await app.Rows(db =>
                    db.Database.SqlQueryRaw<string>("PRAGMA journal_mode")
                        .ToListAsync()
                        .ContinueWith(t => t.Result[0], TaskScheduler.Default)
                )
            );
            Assert.Equal(
                2,
                await app.Rows(db =>
                    db.Database.SqlQueryRaw<int>("PRAGMA synchronous").ToListAsync().ContinueWith(t => t.Result[0], TaskScheduler.Default)
                )
            );
        }
        await using (var app = new StudioApp { DataFolder = folder })
        {
            var coach = new StudioClient(app.CreateClient(), Guid.Empty, Guid.Empty, email);
            await coach.SignIn();
            Assert.Equal(
                "Ada Quill",
                (await coach.Get($"/students/{student}")).GetProperty("student").GetProperty("student").GetProperty("name").GetString()
            );
        }
    }

    [Fact]
    public async Task A_row_of_another_studio_is_not_written()
    {
        await using var app = new StudioApp();
        var (mine, other) = (await app.Studio(), await app.Studio());
        var row = new AnswerRow { StudioId = other.StudioId, Question = "neck" };
        await Assert.ThrowsAsync<InvalidOperationException>(() =>
            app.Rows(async db =>
            {
                db.Answers.Add(row);
                return await db.SaveChangesAsync();
            })
        );
        Assert.NotEqual(mine.StudioId, other.StudioId);
    }
}
