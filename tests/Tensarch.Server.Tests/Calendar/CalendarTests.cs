using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Students;
using Tensarch.Server.Calendar;

namespace Tensarch.Server.Tests.Calendar;

/// <summary>Calendars that are subscribed to by a link, and what stands in them.</summary>
public sealed partial class CalendarTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;
    private DateOnly today;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student("Greta");
        await coach.Place(student, 4, 4);
        today = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime);
        await Plan(0, 45);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task Plan(int basedOn, int minutes)
    {
        var answer = await coach.Plan(student, StudioClient.Sketch(today, minutes, 4, (0, "am"), (3, "pm")), basedOn);
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
    }

    private async Task<(string Path, Guid Id)> Feed(Guid? of)
    {
        var id = Guid.NewGuid();
        var answer = await coach.Post(
            "/calendar/feeds",
            new
            {
                id,
                studentId = of,
                morning = "08:30:00",
                afternoon = "17:15:00",
            }
        );
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
        return ((await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("path").GetString()!, id);
    }

    private async Task<string> Read(string path)
    {
        var answer = await app.CreateClient().GetAsync(path);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Equal("text/calendar", answer.Content.Headers.ContentType!.MediaType);
        return await answer.Content.ReadAsStringAsync();
    }

    [GeneratedRegex("^UID:(.+?)\r?$", RegexOptions.Multiline)]
    private static partial Regex Uid();

    [GeneratedRegex("^SEQUENCE:(\\d+)\r?$", RegexOptions.Multiline)]
    private static partial Regex Sequence();

    [Fact]
    public async Task A_students_link_shows_their_sessions_to_whoever_has_it_until_it_is_revoked()
    {
        var (path, id) = await Feed(student);
        var text = await Read(path);
        Assert.Equal(8, Uid().Count(text));
        Assert.Contains("SUMMARY:Front split", text, StringComparison.Ordinal);
        Assert.DoesNotContain("SUMMARY:Greta", text, StringComparison.Ordinal);
        Assert.Contains("DTSTART;TZID=Europe/Oslo:", text, StringComparison.Ordinal);
        Assert.Contains("T083000", text, StringComparison.Ordinal);
        Assert.Contains("T171500", text, StringComparison.Ordinal);

        Assert.Equal(HttpStatusCode.NoContent, (await coach.Http.DeleteAsync($"/api/v1/calendar/feeds/{id}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await app.CreateClient().GetAsync(path)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await app.CreateClient().GetAsync("/calendar/guessed.ics")).StatusCode);
    }

    [Fact]
    public async Task A_coachs_link_shows_all_of_their_studio_and_nothing_of_another()
    {
        var other = await app.Studio();
        var theirs = await other.Student("Kofi");
        await other.Place(theirs, 4, 4);
        await other.Session(theirs);
        var text = await Read((await Feed(null)).Path);
        Assert.Contains("SUMMARY:Greta: Front split", text, StringComparison.Ordinal);
        Assert.DoesNotContain("Kofi", text, StringComparison.Ordinal);
        var stranger = await other.Get("/calendar/feeds");
        Assert.Equal(0, stranger.GetArrayLength());
    }

    [Fact]
    public async Task Of_more_than_a_calendar_holds_what_is_to_come_stays()
    {
        var before = Uid().Matches(await Read((await Feed(null)).Path)).Select(m => m.Value).ToList();
        Assert.NotEmpty(before);
        // A large studio's month: as many sessions as a calendar holds, all of them over.
        await app.Rows(async db =>
            await db.Database.ExecuteSqlAsync(
                $"""
                WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < {CalendarDesk.MostSessions})
                INSERT INTO PlanVersions (SessionId, Number, StudioId, PlanJson, Skill, Beside, TotalSeconds, FirstSide, Why, At, By)
                SELECT printf('%08X-0000-4000-8000-000000000000', i), 1, StudioId, '', Skill, '[]', 600, FirstSide, 'made', At, By
                FROM (SELECT * FROM PlanVersions WHERE SessionId IN (SELECT Id FROM Sessions WHERE StudentId = {student}) LIMIT 1) CROSS JOIN n;
                WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < {CalendarDesk.MostSessions})
                INSERT INTO Sessions (Id, StudioId, StudentId, Date, Version, Plan, Sequence, CreatedAt, By, BodyHash)
                SELECT printf('%08X-0000-4000-8000-000000000000', i), StudioId, StudentId, date({today}, '-' || (1 + i % 20) || ' days'),
                    1, 1, 0, CreatedAt, By, ''
                FROM (SELECT * FROM Sessions WHERE StudentId = {student} LIMIT 1) CROSS JOIN n
                """
            )
        );
        var text = await Read((await Feed(null)).Path);
        var after = Uid().Matches(text).Select(m => m.Value).ToHashSet();
        Assert.Equal(CalendarDesk.MostSessions, after.Count);
        Assert.Subset(after, before.ToHashSet());
    }

    [Fact]
    public async Task An_event_keeps_its_name_and_counts_up_when_its_session_changes()
    {
        var (path, id) = await Feed(student);
        var before = await Read(path);
        Assert.Equal(before, await Read(path));
        await Plan(1, 60);
        var after = await Read(path);
        Assert.Equal(Uid().Matches(before).Select(m => m.Value), Uid().Matches(after).Select(m => m.Value));
        Assert.True(
            Sequence().Matches(after).Sum(m => int.Parse(m.Groups[1].Value, null))
                > Sequence().Matches(before).Sum(m => int.Parse(m.Groups[1].Value, null))
        );
        // Another time of day is a change of every event.
        var low = Sequence().Matches(after).Min(m => int.Parse(m.Groups[1].Value, null));
        var moved = await coach.Http.PutAsJsonAsync($"/api/v1/calendar/feeds/{id}", new { morning = "07:00:00", afternoon = "19:00:00" });
        Assert.Equal(HttpStatusCode.OK, moved.StatusCode);
        var later = await Read(path);
        Assert.Contains("T190000", later, StringComparison.Ordinal);
        Assert.Equal(low + 1, Sequence().Matches(later).Min(m => int.Parse(m.Groups[1].Value, null)));
    }

    [Fact]
    public async Task It_can_be_downloaded_as_well()
    {
        foreach (var path in new[] { "/api/v1/calendar", $"/api/v1/students/{student}/calendar" })
        {
            var answer = await coach.Http.GetAsync(path);
            Assert.Equal("text/calendar", answer.Content.Headers.ContentType!.MediaType);
            Assert.Equal(8, Uid().Count(await answer.Content.ReadAsStringAsync()));
        }
    }

    [Fact]
    public async Task What_a_student_who_left_would_train_is_read_by_nobody()
    {
        var (path, _) = await Feed(student);
        await app.Rows(async db =>
        {
            await db
                .Students.IgnoreQueryFilters()
                .Where(s => s.Id == student)
                .ExecuteUpdateAsync(s => s.SetProperty(x => x.ArchivedAt, app.Time.GetUtcNow()));
            return 0;
        });
        Assert.Equal(HttpStatusCode.NotFound, (await app.CreateClient().GetAsync(path)).StatusCode);
    }

    /// <summary>At five in the afternoon by the clock on the wall, whatever the clocks were set to in between.</summary>
    [Theory]
    [InlineData("2026-10-24", "15:00")]
    [InlineData("2026-10-25", "16:00")]
    [InlineData("2026-10-26", "16:00")]
    [InlineData("2027-03-27", "16:00")]
    [InlineData("2027-03-28", "15:00")]
    [InlineData("2027-03-29", "15:00")]
    [InlineData("2041-07-01", "15:00")]
    public void Days_on_which_the_clocks_change_are_right(string day, string utc)
    {
        var session = new CalendarSession(Guid.NewGuid(), DateOnly.Parse(day, null), DayHalf.Pm, 2700, 3, "A; title, with\nall", "");
        var text = CalendarWriter.Write("Studio", [session], "Europe/Oslo", new(9, 0), new(17, 0), DateTimeOffset.UnixEpoch);
        var read = Ical.Net.Calendar.Load(text)!.Events.Single();
        Assert.Equal(TimeOnly.Parse(utc, null), TimeOnly.FromDateTime(read.DtStart!.AsUtc));
        Assert.Equal(TimeSpan.FromMinutes(45), read.EffectiveDuration.ToTimeSpanUnspecified());
        Assert.Equal((session.Title, 3), (read.Summary, read.Sequence));
        Assert.Contains("BEGIN:VTIMEZONE", text, StringComparison.Ordinal);
    }
}
