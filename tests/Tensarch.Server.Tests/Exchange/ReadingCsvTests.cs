using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Tensarch.Server.Tests.Exchange;

public sealed class ReadingCsvTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student("Ada \"Quill\", elder");
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static Task<HttpResponseMessage> Send(StudioClient who, string csv, string query = "", Guid? of = null) =>
        who.Http.PostAsync(
            $"/api/v1/{(of is { } id ? $"students/{id}/" : "")}exchange/readings{query}",
            new StringContent(csv, Encoding.UTF8, "text/csv")
        );

    private static async Task<JsonElement> Report(HttpResponseMessage answer)
    {
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static (int New, int Same, int Unlikely, int Problems) Counts(JsonElement report) =>
        (
            report.GetProperty("new").GetInt32(),
            report.GetProperty("same").GetInt32(),
            report.GetProperty("unlikely").GetInt32(),
            report.GetProperty("problems").GetInt32()
        );

    private async Task<int> Stored() => (await coach.Get("/readings")).GetProperty("readings").GetArrayLength();

    private const string Header = "student,measure,side,warmth,standard,trials,taken_at,note";
    private const string Name = "\"Ada \"\"Quill\"\", elder\"";

    [Fact]
    public async Task A_file_is_tried_first_then_taken_whole_and_twice_adds_nothing()
    {
        var csv =
            $"{Header}\r\n{Name},knee-to-wall,left,warm,,9.8;10.2;10.3,2035-03-01,\"two\r\nlines, and a \"\"quote\"\"\"\r\n{Name},front-split-gap,right,warm,square,\"31,5\",2035-03-01T18:30,\r\n";
        var dry = await Report(await Send(coach, csv));
        Assert.Equal((2, 0, 0, 0), Counts(dry));
        Assert.False(dry.GetProperty("applied").GetBoolean());
        Assert.Equal(0, await Stored());
        Assert.Equal((2, 0, 0, 0), Counts(await Report(await Send(coach, csv, "?apply=true"))));
        Assert.Equal(2, await Stored());
        Assert.Equal((0, 2, 0, 0), Counts(await Report(await Send(coach, csv, "?apply=true"))));
        Assert.Equal(2, await Stored());
        var newest = (await coach.Get("/readings")).GetProperty("readings").EnumerateArray().ToList();
        Assert.Contains(
            newest,
            r => r.GetProperty("note").GetString()?.Contains("two\r\nlines, and a \"quote\"", StringComparison.Ordinal) == true
        );
        Assert.Contains(newest, r => r.GetProperty("value").GetDouble() == 31.5);
    }

    [Fact]
    public async Task Each_bad_line_is_named_and_nothing_is_taken()
    {
        var lines = new[]
        {
            $"{Name},knee-to-wall,left,warm,,9.8,2035-03-01,",
            $"{Name},knee-to-wall,left,warm,,abc,2035-03-01,",
            $"{Name},knee-to-wall,left,warm,,-3,2035-03-01,",
            $"{Name},knee-to-wall,left,warm,,1;2;3;4;5;6,2035-03-01,",
            $"{Name},no-such,left,warm,,9,2035-03-01,",
            "Nobody,knee-to-wall,left,warm,,9,2035-03-01,",
            $"{Name},knee-to-wall,,warm,,9,2035-03-01,",
            $"{Name},knee-to-wall,left,tepid,,9,2035-03-01,",
            $"{Name},front-split-gap,left,warm,,9,2035-03-01,",
            $"{Name},knee-to-wall,left,warm,,9,2036-03-01,",
            $"{Name},knee-to-wall,left,warm,,9,yesterday,",
        };
        var csv = $"{Header}\r\n{string.Join("\r\n", lines)}\r\n";
        var report = await Report(await Send(coach, csv));
        Assert.Equal((1, 0, 0, 10), Counts(report));
        var codes = report
            .GetProperty("lines")
            .EnumerateArray()
            .Select(l =>
                l.GetProperty("problem") is { ValueKind: JsonValueKind.Object } p
                    ? $"{p.GetProperty("code").GetString()}@{p.GetProperty("field").GetString()}"
                    : ""
            );
        Assert.Equal(
            [
                "",
                "notANumber@trials",
                "outOfRange@trials[0]",
                "trialsCount@trials",
                "unknownMeasure@measure",
                "unknownStudent@student",
                "sideNeeded@side",
                "unknownWord@warmth",
                "unknownStandard@standard",
                "dateInFuture@taken_at",
                "notADate@taken_at",
            ],
            codes
        );
        Assert.Equal(
            "importHasProblems",
            await (await Send(coach, csv, "?apply=true")).Problem(HttpStatusCode.UnprocessableEntity, "file")
        );
        Assert.Equal(0, await Stored());
    }

    [Fact]
    public async Task What_goes_out_comes_in_again_as_the_same()
    {
        await coach.ReadAll(student);
        var id = Guid.NewGuid();
        await coach.Post($"/students/{student}/readings", StudioClient.Reading("passive-slr", "left", [90], id));
        await coach.Post($"/students/{student}/readings/{id}/void", new { reason = "=wrong leg" });
        var csv = await coach.Http.GetStringAsync("/api/v1/exchange/readings");
        Assert.StartsWith("id,student_id,student,measure,", csv, StringComparison.Ordinal);
        Assert.Contains("\r\n", csv, StringComparison.Ordinal);
        Assert.Contains(",'=wrong leg", csv, StringComparison.Ordinal);
        Assert.Equal((0, 13, 0, 0), Counts(await Report(await Send(coach, csv))));
        Assert.Equal(
            (0, 13, 0, 0),
            Counts(
                await Report(
                    await Send(coach, await coach.Http.GetStringAsync($"/api/v1/students/{student}/exchange/readings"), of: student)
                )
            )
        );

        var other = await app.Studio();
        Assert.Equal((0, 0, 0, 13), Counts(await Report(await Send(other, csv))));
    }

    [Fact]
    public async Task A_changed_line_under_a_known_id_is_a_clash()
    {
        await coach.Post($"/students/{student}/readings", StudioClient.Reading("passive-slr", "left", [90]));
        var csv = await coach.Http.GetStringAsync("/api/v1/exchange/readings");
        var report = await Report(await Send(coach, csv.Replace(",90,", ",91,", StringComparison.Ordinal)));
        Assert.Equal((0, 0, 0, 1), Counts(report));
        Assert.Equal("idTaken", report.GetProperty("lines")[0].GetProperty("problem").GetProperty("code").GetString());
    }

    [Fact]
    public async Task Unlikely_values_are_taken_when_the_coach_says_so()
    {
        var csv = $"{Header}\r\n{Name},passive-slr,left,warm,,80,2035-02-20,\r\n{Name},passive-slr,left,warm,,120,2035-02-25,\r\n";
        Assert.Equal((1, 0, 1, 0), Counts(await Report(await Send(coach, csv))));
        Assert.Equal("importHasProblems", await (await Send(coach, csv, "?apply=true")).Problem(HttpStatusCode.UnprocessableEntity));
        Assert.Equal((2, 0, 0, 0), Counts(await Report(await Send(coach, csv, "?apply=true&acceptUnlikely=true"))));
        Assert.Equal(2, await Stored());
    }

    [Fact]
    public async Task A_students_file_needs_no_name_and_takes_no_one_elses()
    {
        var mine = "measure,side,warmth,trials,taken_at\r\npassive-slr,left,warm,80,2035-02-20\r\n";
        Assert.Equal((1, 0, 0, 0), Counts(await Report(await Send(coach, mine, of: student))));
        var other = await coach.Student("Someone Else");
        var theirs = $"student_id,measure,side,warmth,trials,taken_at\r\n{other},passive-slr,left,warm,80,2035-02-20\r\n";
        var report = await Report(await Send(coach, theirs, of: student));
        Assert.Equal("otherStudent", report.GetProperty("lines")[0].GetProperty("problem").GetProperty("code").GetString());
    }

    [Fact]
    public async Task A_text_that_no_screen_could_send_is_refused_in_a_file_too()
    {
        var nul = $"{Header}\n{Name},passive-slr,left,warm,,80,2035-02-20,a\0b\n";
        var endless = $"{Header}\n{Name},passive-slr,left,warm,,80,2035-02-20,{new string('x', 1001)}\n";
        foreach (var (csv, code) in new[] { (nul, "badText"), (endless, "tooLong") })
        {
            var line = (await Report(await Send(coach, csv))).GetProperty("lines")[0];
            Assert.Equal(
                (code, "note"),
                (line.GetProperty("problem").GetProperty("code").GetString(), line.GetProperty("problem").GetProperty("field").GetString())
            );
        }
    }

    [Theory]
    [InlineData("\r\n")]
    [InlineData("\n")]
    [InlineData("\r")]
    public async Task Lines_end_as_the_program_that_wrote_them_ends_lines(string end)
    {
        string[] lines =
        [
            Header,
            $"{Name},passive-slr,left,warm,,80,2035-02-20,",
            $"{Name},passive-slr,right,warm,,81,2035-02-20,\"a\nb\"",
        ];
        Assert.Equal((2, 0, 0, 0), Counts(await Report(await Send(coach, string.Join(end, lines) + end))));
    }

    [Theory]
    [InlineData("", "missingColumn")]
    [InlineData("measure,warmth\r\nx,y\r\n", "missingColumn")]
    [InlineData("student,measure,warmth,taken_at,shoe_size\r\n", "unknownColumn")]
    public async Task A_file_that_is_no_readings_file_says_why(string csv, string code) =>
        Assert.Equal(code, await (await Send(coach, csv)).Problem(HttpStatusCode.UnprocessableEntity, "file"));

    [Fact]
    public async Task A_file_that_is_not_utf8_says_so()
    {
        var content = new ByteArrayContent([.. Encoding.UTF8.GetBytes(Header + "\r\n"), 0xFF, 0xFE, 0xC3]);
        Assert.Equal(
            "notUtf8",
            await (await coach.Http.PostAsync("/api/v1/exchange/readings", content)).Problem(HttpStatusCode.UnprocessableEntity, "file")
        );
    }
}
