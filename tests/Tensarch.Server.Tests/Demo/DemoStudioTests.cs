using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Demo;

namespace Tensarch.Server.Tests.Demo;

public class DemoStudioTests
{
    [Fact]
    public async Task The_demo_shows_its_cases_from_fourteen_weeks_of_history()
    {
        await using var app = new StudioApp { Demo = true, DataFolder = DemoData.Copy() };
        var http = app.CreateClient();
        var owner = DemoStudio.Accounts[0];
        await http.PostAsJsonAsync("/api/v1/accounts/sign-in", new { email = owner.Email, password = owner.Password });
        var groups = new[] { "ready", "nearly", "stalled", "blocked", "training", "waiting" };
        var lines = new List<JsonElement>();
        foreach (var group in groups)
            lines.AddRange(
                (await http.GetFromJsonAsync<JsonElement>($"/api/v1/readiness?group={group}")).GetProperty("lines").EnumerateArray()
            );
        (string?, int) State(string name, string skill, string? side = null)
        {
            var gate = lines
                .Where(l => l.GetProperty("name").GetString() == name && l.GetProperty("line").GetProperty("skill").GetString() == skill)
                .Select(l => l.GetProperty("line").GetProperty("gate"))
                .Single(g => g.GetProperty("side").GetString() == side);
            return (gate.GetProperty("state").GetString(), gate.GetProperty("stage").GetInt32());
        }
        string? Group(string name) =>
            lines.First(l => l.GetProperty("name").GetString() == name).GetProperty("line").GetProperty("group").GetString();

        Assert.Equal(("retest", 3), State("Sunniva Dahl", "front-split", "left"));
        Assert.Equal(("waiting", 4), State("Sunniva Dahl", "front-split", "right"));
        Assert.Equal("stalled", Group("Greta Lindqvist-Moss"));
        Assert.Equal(("open", 4), State("Nkechi Strand", "front-split", "left"));
        Assert.Equal(("open", 4), State("Nkechi Strand", "front-split", "right"));
        Assert.Equal("open", State("Nkechi Strand", "deep-squat").Item1);
        Assert.Equal(("retest", 4), State("Kofi Marchetti", "handstand"));
        Assert.Equal("blocked", State("Rosalind Achterberg", "shoulderstand").Item1);
        Assert.Equal(("blocked", 4), State("Marisol Okonjo", "crow"));
        Assert.Equal(("closed", 2), State("Bram Tellier", "deep-squat"));
        Assert.Equal("retest", State("Anselm Pike", "front-split", "left").Item1);

        var roster = (await http.GetFromJsonAsync<JsonElement>("/api/v1/students")).GetProperty("students").EnumerateArray().ToList();
        Assert.Equal(31, roster.Single(s => s.GetProperty("name").GetString() == "Anselm Pike").GetProperty("daysSinceLast").GetInt32());
        Assert.Equal(0, roster.Single(s => s.GetProperty("name").GetString() == "Dario Weft").GetProperty("skills").GetArrayLength());
        // The lapse, and what is planned for her in its place.
        var rosalind = roster.Single(s => s.GetProperty("name").GetString() == "Rosalind Achterberg").GetProperty("id").GetString();
        var page = await http.GetFromJsonAsync<JsonElement>($"/api/v1/students/{rosalind}");
        var neck = page.GetProperty("bars").GetProperty("tags").EnumerateArray().Single();
        Assert.Equal("neck", neck.GetProperty("tag").GetString());
        var lapsed = neck.GetProperty("reasons")[0].GetProperty("lapsedOn").GetDateTime();
        Assert.Equal(3, (DateTime.UtcNow.Date - lapsed).Days, 1.0);
        var next = page.GetProperty("nextSession").GetProperty("id").GetString();
        var sheet = await http.GetFromJsonAsync<JsonElement>($"/api/v1/sessions/{next}");
        var drills = sheet
            .GetProperty("plan")
            .GetProperty("drills")
            .EnumerateArray()
            .Select(d => d.GetProperty("drill").GetString())
            .ToList();
        Assert.Contains("legs-up-support", drills);
        Assert.DoesNotContain("shoulderstand", drills);

        var first = await app.Rows(db => db.Sessions.IgnoreQueryFilters().MinAsync(s => s.Date));
        Assert.Equal(98, DateOnly.FromDateTime(DateTime.UtcNow).DayNumber - first.DayNumber, 1.0);
    }

    private static async Task<StudioClient> Owner(StudioApp app)
    {
        var owner = DemoStudio.Accounts[0];
        var coach = new StudioClient(app.CreateClient(), Guid.Empty, Guid.Empty, owner.Email);
        await coach.SignIn(owner.Password);
        return coach;
    }

    [Fact]
    public async Task Every_page_of_the_demo_answers()
    {
        await using var app = new StudioApp { Demo = true, DataFolder = DemoData.Copy() };
        var coach = await Owner(app);
        var pages = await Pages.Of(app, coach);
        Assert.True(pages.Count > 300, pages.Count.ToString(System.Globalization.CultureInfo.InvariantCulture));
        foreach (var page in pages)
        {
            var answer = await coach.Http.GetAsync("/api/v1" + page);
            Assert.True(answer.StatusCode == HttpStatusCode.OK, $"{(int)answer.StatusCode} {page}");
        }
    }

    [Fact]
    public async Task A_day_of_a_plan_names_each_thing_of_its_main_work_once()
    {
        await using var app = new StudioApp { Demo = true, DataFolder = DemoData.Copy() };
        var coach = await Owner(app);
        var days = 0;
        foreach (var student in await app.Rows(db => db.Plans.IgnoreQueryFilters().Select(p => p.StudentId).Distinct().ToListAsync()))
        {
            var page = await coach.Http.GetFromJsonAsync<JsonElement>($"/api/v1/students/{student}/programme");
            foreach (var week in page.GetProperty("plan").GetProperty("weeks").EnumerateArray())
            foreach (var day in week.GetProperty("days").EnumerateArray())
            {
                var drills = day.GetProperty("drills").EnumerateArray().Select(d => d.GetString()).ToList();
                Assert.Equal(drills.Distinct(), drills);
                days += drills.Count > 0 ? 1 : 0;
            }
        }
        Assert.True(days > 100, $"{days}");
    }
}
