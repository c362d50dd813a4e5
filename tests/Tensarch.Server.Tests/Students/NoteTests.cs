using System.Net;
using System.Text.Json;

namespace Tensarch.Server.Tests.Students;

/// <summary>A coach's own words: dated, found again, pinned, corrected, and one of them carried over to the next session.</summary>
public sealed class NoteTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 3, 3);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<Guid> Write(string text, bool pinned = false, bool carryOver = false)
    {
        var id = Guid.NewGuid();
        app.Time.Advance(TimeSpan.FromMinutes(1));
        var answer = await coach.Post(
            $"/students/{student}/notes",
            new
            {
                id,
                text,
                pinned,
                carryOver,
            }
        );
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
        return id;
    }

    private async Task<List<string>> Found(string query = "") =>
        [
            .. (await coach.Get($"/students/{student}/notes{query}"))
                .GetProperty("notes")
                .EnumerateArray()
                .Select(n => n.GetProperty("text").GetString()!),
        ];

    private Task<HttpResponseMessage> Change(Guid note, object change) => coach.Post($"/students/{student}/notes/{note}/changes", change);

    [Fact]
    public async Task Notes_are_dated_found_and_the_pinned_ones_come_first()
    {
        await Write("Works nights.", pinned: true);
        await Write("100 % better_now on the left.");
        await Write("Asked about the left hip.");
        Assert.Equal(["Works nights.", "Asked about the left hip.", "100 % better_now on the left."], await Found());
        Assert.Equal(["Asked about the left hip.", "100 % better_now on the left."], await Found("?find=LEFT"));
        Assert.Equal(["100 % better_now on the left."], await Found("?find=100%20%25"));
        Assert.Empty(await Found("?find=better%25now"));
        var line = (await coach.Get($"/students/{student}/notes")).GetProperty("notes")[0];
        Assert.Equal("Coach", line.GetProperty("by").GetString());
        Assert.Single((await coach.Get($"/students/{student}")).GetProperty("notes").EnumerateArray());
    }

    [Fact]
    public async Task A_note_is_said_anew_struck_out_and_brought_back_and_what_was_said_first_stays()
    {
        var note = await Write("Left hip.");
        Assert.Equal(HttpStatusCode.OK, (await Change(note, new { text = "Right hip." })).StatusCode);
        var line = (await coach.Get($"/students/{student}/notes")).GetProperty("notes")[0];
        Assert.Equal(("Right hip.", "Left hip."), (line.GetProperty("text").GetString(), line.GetProperty("said").GetString()));
        Assert.Equal("required", await (await Change(note, new { text = "  " })).Problem(HttpStatusCode.UnprocessableEntity, "text"));
        await Change(note, new { gone = true });
        Assert.True((await coach.Get($"/students/{student}/notes")).GetProperty("notes")[0].GetProperty("gone").GetBoolean());
        await Change(note, new { gone = false });
        Assert.False((await coach.Get($"/students/{student}/notes")).GetProperty("notes")[0].GetProperty("gone").GetBoolean());
        var stranger = await app.Studio();
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await stranger.Post($"/students/{student}/notes/{note}/changes", new { pinned = true })).StatusCode
        );
    }

    [Fact]
    public async Task The_newest_note_is_carried_over_until_it_is_ticked_off()
    {
        var session = await coach.Session(student);
        async Task<string?> Carried()
        {
            var sheet = (await coach.Get($"/sessions/{session}")).GetProperty("carryOver");
            var pack = (await coach.Get($"/sessions/{session}/pack")).GetProperty("carryOver");
            Assert.Equal(sheet.ToString(), pack.ToString());
            return sheet.ValueKind == JsonValueKind.Null ? null : sheet.GetProperty("text").GetString();
        }
        Assert.Null(await Carried());
        await Write("Breathe out into the press.", carryOver: true);
        var newest = await Write("Left foot forward first.", carryOver: true);
        Assert.Equal("Left foot forward first.", await Carried());
        await Change(newest, new { done = true });
        Assert.Null(await Carried());
        await Change(newest, new { done = false });
        Assert.Equal("Left foot forward first.", await Carried());
    }
}
