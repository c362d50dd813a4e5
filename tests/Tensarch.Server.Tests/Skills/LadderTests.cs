using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using NJsonSchema;

namespace Tensarch.Server.Tests.Skills;

public sealed class LadderTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;

    public async ValueTask InitializeAsync() => coach = await app.Studio();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static JsonNode Test(JsonObject ladder, int stage, int test) => ladder["stages"]![stage - 1]!["tests"]![test]!;

    private Task<HttpResponseMessage> Keep(JsonObject ladder, Guid? id = null) =>
        coach.Post("/ladders", new { id = id ?? Guid.NewGuid(), ladder });

    private async Task<JsonElement> Try(JsonObject ladder)
    {
        var answer = await coach.Post("/ladders/try", ladder);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    [Fact]
    public async Task A_version_is_kept_once_and_the_next_one_follows_it()
    {
        var ladder = await coach.Ladder("front-split");
        (ladder["key"], ladder["name"]) = ("own-gentle", "Gentle split");
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await Keep(ladder, id)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Keep(ladder, id)).StatusCode);
        Assert.Equal("changedMeanwhile", await (await Keep(ladder)).Problem(HttpStatusCode.PreconditionFailed));
        ladder["version"] = 2;
        Assert.Equal(HttpStatusCode.Created, (await Keep(ladder)).StatusCode);
        var line = (await coach.Get("/ladders")).EnumerateArray().Single(l => l.GetProperty("key").GetString() == "own-gentle");
        Assert.Equal((2, false), (line.GetProperty("version").GetInt32(), line.GetProperty("shipped").GetBoolean()));
    }

    [Fact]
    public async Task What_is_wrong_is_named_by_its_path_and_nothing_is_kept()
    {
        var ladder = await coach.Ladder("front-split");
        ladder["key"] = "own-broken";
        Test(ladder, 3, 0)["threshold"] = 900;
        Assert.Equal("outOfRange", await (await Keep(ladder)).Problem(HttpStatusCode.UnprocessableEntity, "stages[2].tests[0].threshold"));
        var trial = await Try(ladder);
        Assert.Equal("stages[2].tests[0].threshold", trial.GetProperty("problems")[0].GetProperty("field").GetString());
        Assert.Equal("keyIsShipped", await (await Keep(await coach.Ladder("front-split"))).Problem(HttpStatusCode.UnprocessableEntity));
    }

    [Fact]
    public async Task Trying_a_draft_says_whose_verdict_would_change_and_changes_nobody()
    {
        var student = await coach.Student("Ines Trial");
        await coach.ReadAll(student);
        await coach.Place(student, 3, 3);
        var ladder = await coach.Ladder("front-split");
        ladder["key"] = "own-strict";
        Assert.Equal(0, (await Try(ladder)).GetProperty("changes").GetArrayLength());
        Test(ladder, 3, 0)["threshold"] = 25;
        var trial = await Try(ladder);
        Assert.Equal(2, trial.GetProperty("tried").GetInt32());
        var changes = trial.GetProperty("changes").EnumerateArray().ToList();
        Assert.Equal(["left", "right"], changes.Select(c => c.GetProperty("side").GetString()));
        Assert.All(changes, c => Assert.Equal(1, c.GetProperty("met").GetInt32() - c.GetProperty("newMet").GetInt32()));
        Assert.Equal("met", (await coach.Test(student, "left", "rom")).GetProperty("outcome").GetString());
    }

    [Fact]
    public async Task A_draft_that_differs_elsewhere_reads_nobodys_facts()
    {
        await coach.Place(await coach.Student("Jan Elsewhere"), 2, 2);
        async Task<(int Tried, int Changes, int Commands)> Tried(JsonObject ladder)
        {
            var before = app.Commands.Count;
            var trial = await Try(ladder);
            return (trial.GetProperty("tried").GetInt32(), trial.GetProperty("changes").GetArrayLength(), app.Commands.Count - before);
        }
        var ladder = await coach.Ladder("front-split");
        ladder["key"] = "own-elsewhere";
        Test(ladder, 5, 0)["threshold"] = 8;
        Assert.Equal((2, 0, 3), await Tried(ladder));
        Test(ladder, 2, 0)["threshold"] = 95;
        Assert.True((await Tried(ladder)).Commands > 10);
        ladder = await coach.Ladder("front-split");
        (ladder["key"], ladder["leadLimit"]) = ("own-elsewhere", 2);
        Assert.True((await Tried(ladder)).Commands > 10);
    }

    [Fact]
    public async Task A_new_version_of_a_shipped_ladder_moves_nobody_and_is_followed_at_the_same_stage()
    {
        var student = await coach.Student("Ada Follower");
        object Course(int stage) =>
            new
            {
                decisionId = Guid.NewGuid(),
                side = (string?)null,
                stage,
            };
        var start = new
        {
            id = Guid.NewGuid(),
            skill = "deep-squat",
            approach = "long-and-ramped",
            courses = new[] { Course(3) },
            ladderKey = "deep-squat",
            ladderVersion = 1,
        };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/skills", start)).StatusCode);
        var page = await coach.Get($"/students/{student}/skills/deep-squat");
        var newest = page.GetProperty("newestVersion").GetInt32();
        Assert.Equal((1, 2), (page.GetProperty("ladder").GetProperty("version").GetInt32(), newest));
        var line = (await coach.Get("/ladders")).EnumerateArray().Single(l => l.GetProperty("key").GetString() == "deep-squat");
        Assert.Equal((newest, 1), (line.GetProperty("version").GetInt32(), line.GetProperty("behind").GetInt32()));
        var follower = (await coach.Get("/ladders/deep-squat/followers")).EnumerateArray().Single();
        Assert.Equal(3, follower.GetProperty("courses")[0].GetProperty("newStage").GetInt32());

        Task<HttpResponseMessage> Move(int stage) =>
            coach.Post(
                $"/students/{student}/skills/deep-squat/move",
                new
                {
                    ladderKey = "deep-squat",
                    ladderVersion = newest,
                    courses = new[] { Course(stage) },
                    reason = "the newer gates",
                }
            );
        // What it would change is said before.
        var to = JsonNode.Parse((await coach.Get($"/ladders/deep-squat/versions/{newest}")).GetRawText())!.AsObject();
        var change = (await Try(to)).GetProperty("changes").EnumerateArray().Single();
        Assert.Equal(("Ada Follower", 3), (change.GetProperty("name").GetString(), change.GetProperty("newStage").GetInt32()));
        Assert.Equal("moveRaises", await (await Move(4)).Problem(HttpStatusCode.UnprocessableEntity, "courses[0].stage"));
        app.Time.Advance(TimeSpan.FromMinutes(1));
        Assert.Equal(HttpStatusCode.Created, (await Move(3)).StatusCode);
        var gate = (await coach.Get($"/students/{student}/skills/deep-squat")).GetProperty("sides")[0];
        Assert.Equal(3, gate.GetProperty("stage").GetInt32());
        Assert.Contains(
            gate.GetProperty("tests").EnumerateArray(),
            t => t.GetProperty("test").TryGetProperty("variant", out var variant) && variant.GetString() == "wedge-2-5"
        );
    }

    [Fact]
    public async Task What_is_seen_while_a_student_is_placed_counts_for_where_they_start()
    {
        var student = await coach.Student("Very Mobile");
        async Task<int> Highest() =>
            (await coach.Get($"/students/{student}/skills/middle-split/placement"))
                .GetProperty("courses")[0]
                .GetProperty("highest")
                .GetInt32();
        Assert.Equal(1, await Highest());
        var ticks = new
        {
            id = Guid.NewGuid(),
            stage = 1,
            side = (string?)null,
            ticked = new[] { "straddle-sit" },
        };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/skills/middle-split/form-checks", ticks)).StatusCode);
        Assert.Equal(5, await Highest());
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await coach.Post($"/students/{student}/skills/no-such/form-checks", ticks with { id = Guid.NewGuid() })).StatusCode
        );
        // The way out of a handstand, either of the two.
        async Task<HttpResponseMessage> Shown(string side, string drill) =>
            await coach.Post(
                $"/students/{student}/skills/handstand/exit-checks",
                new
                {
                    id = Guid.NewGuid(),
                    stage = 3,
                    side,
                    safe = 5,
                    of = 5,
                    drill,
                    variant = (string?)null,
                }
            );
        Assert.Equal(HttpStatusCode.Created, (await Shown("left", "exit-wheel")).StatusCode);
        Assert.Equal(HttpStatusCode.Created, (await Shown("right", "exit-step")).StatusCode);
        Assert.Equal("noExitHere", await (await Shown("right", "roll-out")).Problem(HttpStatusCode.UnprocessableEntity, "stage"));
        var handstand = await coach.Get($"/students/{student}/skills/handstand/placement");
        Assert.Equal(8, handstand.GetProperty("courses")[0].GetProperty("highest").GetInt32());
    }

    [Fact]
    public async Task Whoever_follows_a_version_keeps_it_until_moved_and_a_move_is_no_way_up()
    {
        var key = await coach.OwnLadder("Ours", l => Test(l, 3, 0)["threshold"] = 40);
        var student = await coach.Student("Jon Mover");
        await coach.ReadAll(student);
        var start = new
        {
            id = Guid.NewGuid(),
            skill = "front-split",
            approach = "long-and-ramped",
            courses = Courses(3, 3),
            ladderKey = key,
            ladderVersion = 1,
        };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/skills", start)).StatusCode);
        Assert.Equal(40, Threshold(await coach.Test(student, "left", "rom")));

        var next = await coach.Ladder("front-split");
        (next["key"], next["name"], next["version"]) = (key, "Ours", 2);
        Test(next, 3, 0)["threshold"] = 20;
        Assert.Equal(HttpStatusCode.Created, (await Keep(next)).StatusCode);
        Assert.Equal(40, Threshold(await coach.Test(student, "left", "rom")));
        Assert.Equal(2, (await coach.Get($"/students/{student}/skills/front-split")).GetProperty("newestVersion").GetInt32());
        var follower = (await coach.Get($"/ladders/{key}/followers")).EnumerateArray().Single();
        Assert.Equal(("Jon Mover", 1), (follower.GetProperty("name").GetString(), follower.GetProperty("version").GetInt32()));
        Assert.Equal(
            ["left 3 3", "right 3 3"],
            follower
                .GetProperty("courses")
                .EnumerateArray()
                .Select(c =>
                    $"{c.GetProperty("side").GetString()} {c.GetProperty("stage").GetInt32()} {c.GetProperty("newStage").GetInt32()}"
                )
        );

        Task<HttpResponseMessage> Move(object courses) =>
            coach.Post(
                $"/students/{student}/skills/front-split/move",
                new
                {
                    ladderKey = key,
                    ladderVersion = 2,
                    courses,
                    reason = "the stricter line",
                }
            );
        Assert.Equal("moveRaises", await (await Move(Courses(4, 3))).Problem(HttpStatusCode.UnprocessableEntity, "courses[0].stage"));
        Assert.Equal(40, Threshold(await coach.Test(student, "left", "rom")));
        app.Time.Advance(TimeSpan.FromMinutes(1));
        var courses = Courses(3, 2);
        Assert.Equal(HttpStatusCode.Created, (await Move(courses)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Move(courses)).StatusCode);
        Assert.Equal(20, Threshold(await coach.Test(student, "left", "rom")));
        Assert.Equal(2, (await coach.Gate(student, "right")).GetProperty("stage").GetInt32());
        var moved = (await coach.Get($"/students/{student}/decisions")).GetProperty("decisions")[0];
        Assert.Equal(("move", "the stricter line"), (moved.GetProperty("kind").GetString(), moved.GetProperty("reason").GetString()));
        Assert.Equal(1, moved.GetProperty("evidence").GetProperty("ladderVersion").GetInt32());

        static double Threshold(JsonElement test) => test.GetProperty("threshold").GetDouble();
        static object Courses(int left, int right) =>
            new object[]
            {
                new
                {
                    decisionId = Guid.NewGuid(),
                    side = "left",
                    stage = left,
                },
                new
                {
                    decisionId = Guid.NewGuid(),
                    side = "right",
                    stage = right,
                },
            };
    }

    [Theory]
    [InlineData("front-split", 2)]
    [InlineData("middle-split", 2)]
    [InlineData("deep-squat", 1)]
    [InlineData("deep-squat", 2)]
    [InlineData("crow", 2)]
    [InlineData("side-plank", 2)]
    [InlineData("handstand", 2)]
    [InlineData("shoulderstand", 2)]
    public async Task An_exported_file_fits_the_published_schema_and_comes_back_the_same(string key, int version)
    {
        var text = await coach.Http.GetStringAsync($"/api/v1/ladders/{key}/versions/{version}/file");
        var published = await File.ReadAllTextAsync(Path.Combine(Root(), "docs", "formats", "ladder.schema.json"));
        Assert.Equal(published, await coach.Http.GetStringAsync("/api/v1/ladders/schema"));
        Assert.Empty((await JsonSchema.FromJsonAsync(published)).Validate(text));
        var read = await coach.Post("/ladders/read", new { text });
        Assert.Equal(HttpStatusCode.OK, read.StatusCode);
        var again = JsonNode.Parse(await read.Content.ReadAsStringAsync());
        Assert.True(JsonNode.DeepEquals(again, JsonNode.Parse((await coach.Get($"/ladders/{key}/versions/{version}")).GetRawText())));
    }

    [Theory]
    [InlineData("{}")]
    [InlineData("not json at all")]
    public async Task A_file_that_is_no_ladder_is_refused(string text) =>
        Assert.Equal("notALadder", await (await coach.Post("/ladders/read", new { text })).Problem(HttpStatusCode.UnprocessableEntity));

    [Fact]
    public async Task Another_studio_neither_sees_nor_follows_an_own_ladder()
    {
        var key = await coach.OwnLadder("Ours alone");
        var stranger = await app.Studio();
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.Http.GetAsync($"/api/v1/ladders/{key}/versions/1")).StatusCode);
        var student = await stranger.Student();
        var start = new
        {
            id = Guid.NewGuid(),
            skill = "front-split",
            approach = "long-and-ramped",
            courses = Array.Empty<object>(),
            ladderKey = key,
            ladderVersion = 1,
        };
        Assert.Equal(
            "unknownLadder",
            await (await stranger.Post($"/students/{student}/skills", start)).Problem(HttpStatusCode.UnprocessableEntity, "ladderKey")
        );
    }

    [Fact]
    public async Task The_policy_bench_answers_with_three_policies_and_refuses_nonsense()
    {
        object Request(double z, int students) =>
            new
            {
                own = new
                {
                    z,
                    confirmingTests = 2,
                    confirmingHours = 40,
                },
                trial = new
                {
                    trialsPerTest = 3,
                    tauOfSem = 0.5,
                    testDays = 4,
                    students,
                    seed = 7,
                },
            };
        var answer = await coach.Post("/compute/policy", Request(1.2815515655446004, 300));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var result = await answer.Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal(25, result.GetProperty("naive").GetArrayLength());
        // The coach's variant at the shipped numbers is the shipped policy, on the same students.
        Assert.Equal(result.GetProperty("shipped").GetRawText(), result.GetProperty("own").GetRawText());
        Assert.Equal(
            "outOfRange",
            await (await coach.Post("/compute/policy", Request(9, 300))).Problem(HttpStatusCode.UnprocessableEntity, "own.z")
        );
        Assert.Equal(
            "outOfRange",
            await (await coach.Post("/compute/policy", Request(1, 1_000_000))).Problem(HttpStatusCode.UnprocessableEntity, "trial.students")
        );
    }

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Tensarch.slnx")))
            folder = folder.Parent!;
        return folder.FullName;
    }
}
