using System.Net;
using Microsoft.EntityFrameworkCore;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>What a device tells under a drill's old key, from a pack of before, is of the drill as it is called now.</summary>
public sealed class RenamedDrillTests(StudioApp app) : IClassFixture<StudioApp>
{
    [Fact]
    public async Task A_set_that_is_told_under_an_old_key_is_kept_under_the_new_one()
    {
        var coach = await app.Studio();
        var student = await coach.Student();
        await coach.Place(student, "crow", 2);
        var session = await coach.Session(student);
        var now = app.Time.GetUtcNow();
        var logged = await coach.Log(session, now, [StudioClient.Set("crow-shelf", "floor", null!, now)]);
        Assert.Equal(HttpStatusCode.OK, logged.StatusCode);
        Assert.Equal(
            "crow-perch",
            await app.Rows(db => db.Sets.IgnoreQueryFilters().Where(s => s.StudentId == student).Select(s => s.Drill).SingleAsync())
        );
    }
}
