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
        await using var app = new StudioApp { Demo = true };
        var http = app.CreateClient();
        var owner = DemoStudio.Accounts[0];
        await http.PostAsJsonAsync("/api/v1/accounts/sign-in", new { email = owner.Email, password = owner.Password });
        var lines = (await http.GetFromJsonAsync<JsonElement>("/api/v1/readiness")).GetProperty("lines").EnumerateArray().ToList();
        (string?, int) State(string name, string side) =>
            lines
                .Where(l => l.GetProperty("name").GetString() == name && l.GetProperty("gate").GetProperty("side").GetString() == side)
                .Select(l =>
                    (l.GetProperty("gate").GetProperty("state").GetString(), l.GetProperty("gate").GetProperty("stage").GetInt32())
                )
                .Single();

        Assert.Equal(("retest", 3), State("Sunniva Dahl", "left"));
        Assert.Equal(("waiting", 4), State("Sunniva Dahl", "right"));
        Assert.Equal("closed", State("Greta Lindqvist-Moss", "left").Item1);
        Assert.Equal(("open", 4), State("Nkechi Strand", "left"));
        Assert.Equal(("open", 4), State("Nkechi Strand", "right"));

        var roster = (await http.GetFromJsonAsync<JsonElement>("/api/v1/students")).GetProperty("students").EnumerateArray().ToList();
        Assert.Equal(31, roster.Single(s => s.GetProperty("name").GetString() == "Anselm Pike").GetProperty("daysSinceLast").GetInt32());
        Assert.Equal(0, roster.Single(s => s.GetProperty("name").GetString() == "Dario Weft").GetProperty("sides").GetArrayLength());
        var first = await app.Rows(db => db.Sessions.IgnoreQueryFilters().MinAsync(s => s.Date));
        Assert.Equal(98, DateOnly.FromDateTime(DateTime.UtcNow).DayNumber - first.DayNumber, 1.0);
    }
}
