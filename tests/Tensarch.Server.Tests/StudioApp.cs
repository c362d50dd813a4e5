using System.Data.Common;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Time.Testing;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests;

/// <summary>The real application in memory on a SQLite file of its own, with a clock that stands where the test puts it.</summary>
public sealed class StudioApp : WebApplicationFactory<Program>
{
    public static readonly JsonSerializerOptions Json = CoreJson.Apply(new(JsonSerializerDefaults.Web));
    public const string Password = "a-long-password";
    public const string SetupCode = "TEST-CODE";

    /// <summary>Years ahead, so that the cookies it dates have not run out for the client's own clock.</summary>
    public FakeTimeProvider Time { get; init; } = new(new DateTimeOffset(2035, 3, 3, 10, 0, 0, TimeSpan.Zero));

    /// <summary>A client that keeps its cookie whatever day it is in the application.</summary>
    public HttpClient Client() => CreateDefaultClient(new CookieKeeper());

    private sealed class CookieKeeper : DelegatingHandler
    {
        private string? cookie;

        protected override async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken)
        {
            if (cookie is not null)
                request.Headers.Add("Cookie", cookie);
            var answer = await base.SendAsync(request, cancellationToken);
            if (answer.Headers.TryGetValues("Set-Cookie", out var set))
                cookie = set.Last().Split(';')[0];
            return answer;
        }
    }

    public CommandCounter Commands { get; } = new();

    private string? given;
    private string? own;

    /// <summary>A folder of its own with a database that is migrated already, which is made once and copied; gone with the application. Or one that is given, which stays.</summary>
    public string DataFolder
    {
        get => given ?? (own ??= CopyOfTemplate());
        init => given = value;
    }

    public override async ValueTask DisposeAsync()
    {
        await base.DisposeAsync();
        if (own is { } folder && Directory.Exists(folder))
            Directory.Delete(folder, true);
    }

    public int SignInsPerMinute { get; init; } = 10_000;

    public bool Demo { get; init; }

    /// <summary>Rosters are planned in the background.</summary>
    public bool Rosters { get; init; }

    /// <summary>In the place of the solver.</summary>
    public IWeekSolver? Solver { get; init; }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("Data", DataFolder);
        builder.UseSetting("SetupCode", SetupCode);
        builder.UseSetting("SignInsPerMinute", SignInsPerMinute.ToString(System.Globalization.CultureInfo.InvariantCulture));
        builder.UseSetting("Demo", Demo.ToString());
        builder.UseSetting("KeepBoard", "false");
        builder.UseSetting("PlanRosters", Rosters.ToString());
        builder.UseSetting("SimulatedInclinometer", "true");
        builder.ConfigureLogging(log => log.ClearProviders());
        builder.ConfigureServices(services =>
        {
            services.AddSingleton<TimeProvider>(Demo ? TimeProvider.System : Time);
            if (Solver is not null)
                services.AddSingleton(Solver);
            services.Configure<PasswordHasherOptions>(options => options.IterationCount = 1);
            services.AddHttpContextAccessor();
            services.AddSingleton<FactsWatcher>();
            services.ConfigureDbContext<TensarchDb>(
                (app, options) => options.AddInterceptors(Commands, app.GetRequiredService<FactsWatcher>())
            );
        });
    }

    private static readonly Lazy<string> Template = new(() =>
    {
        var path = Path.Combine(Folders.New(), "tensarch.db");
        var services = new ServiceCollection().AddDatabase(path).AddSingleton(TimeProvider.System).BuildServiceProvider();
        Database.Migrate(services).GetAwaiter().GetResult();
        Database.Close();
        return path;
    });

    private static string CopyOfTemplate()
    {
        var folder = Folders.New();
        File.Copy(Template.Value, Path.Combine(folder, "tensarch.db"));
        return folder;
    }

    /// <summary>A studio with one person in it, and a client that is signed in as them.</summary>
    public async Task<StudioClient> Studio(Role role = Role.Owner, Guid? studio = null)
    {
        await using var scope = Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        var id = studio ?? Guid.NewGuid();
        if (studio is null)
        {
            db.Studios.Add(
                new()
                {
                    Id = id,
                    Name = "Studio",
                    TimeZone = "Europe/Oslo",
                }
            );
            await db.SaveChangesAsync();
        }
        var email = $"{Guid.NewGuid():N}@studio.example";
        var user = new CoachUser
        {
            Id = Guid.NewGuid(),
            StudioId = id,
            DisplayName = "Coach",
            UserName = email,
            Email = email,
            Role = role,
        };
        var made = await scope.ServiceProvider.GetRequiredService<UserManager<CoachUser>>().CreateAsync(user, Password);
        Assert.True(made.Succeeded);
        var client = new StudioClient(CreateClient(), id, user.Id, email);
        Assert.Equal(HttpStatusCode.NoContent, (await client.SignIn()).StatusCode);
        return client;
    }

    public async Task<T> Rows<T>(Func<TensarchDb, Task<T>> ask)
    {
        await using var scope = Services.CreateAsyncScope();
        return await ask(scope.ServiceProvider.GetRequiredService<TensarchDb>());
    }
}

/// <summary>Counts the commands that reach the database; the look at the sign-in, which every request takes, on its own.</summary>
public sealed class CommandCounter : DbCommandInterceptor
{
    private int count;
    private int signIns;

    public int Count => count;

    public int SignIns => signIns;

    public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
        DbCommand command,
        CommandEventData eventData,
        InterceptionResult<DbDataReader> result,
        CancellationToken cancellationToken = default
    )
    {
        if (command.CommandText.Contains("\"SignIns\"", StringComparison.Ordinal))
            Interlocked.Increment(ref signIns);
        else
            Interlocked.Increment(ref count);
        return new(result);
    }
}

/// <summary>A signed-in coach at the API, with the few calls that most tests start with.</summary>
public sealed record StudioClient(HttpClient Http, Guid StudioId, Guid UserId, string Email)
{
    internal static readonly IReadOnlyList<IntakeQuestion> Questions = ContentLoader.Load().Questions;

    public Task<HttpResponseMessage> SignIn(string password = StudioApp.Password) =>
        Http.PostAsJsonAsync("/api/v1/accounts/sign-in", new { email = Email, password });

    public Task<HttpResponseMessage> Post(string path, object body) => Http.PostAsJsonAsync("/api/v1" + path, body, StudioApp.Json);

    public Task<HttpResponseMessage> Put(string path, object body) => Http.PutAsJsonAsync("/api/v1" + path, body, StudioApp.Json);

    public async Task<JsonElement> Get(string path)
    {
        var answer = await Http.GetAsync("/api/v1" + path);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    public static object Body(string name = "Ada Quill", double? leg = 86, string? birthDate = "1990-05-06") =>
        new
        {
            name,
            about = (string?)null,
            birthDate,
            leftLegCm = leg,
            rightLegCm = leg,
            bodyweightKg = (double?)null,
            breathSeconds = 4.5,
            sensationCeiling = 7,
            splitStandard = "square",
            blocksOwned = 4,
            sessionMinutes = 60,
        };

    /// <summary>What is said yes to by who is asked at once.</summary>
    public static readonly object[] Consents =
    [
        new { kind = "training", given = true },
        new { kind = "pictures", given = true },
        new { kind = "touch", given = true },
    ];

    /// <summary>A screened student who wants to train; yes to the questions named.</summary>
    public async Task<Guid> Student(string name = "Ada Quill", params string[] yes)
    {
        var id = Guid.NewGuid();
        Assert.Equal(
            HttpStatusCode.Created,
            (
                await Post(
                    "/students",
                    new
                    {
                        id,
                        student = Body(name),
                        consents = Consents,
                    }
                )
            ).StatusCode
        );
        await Answer(id, yes);
        return id;
    }

    public async Task Consent(Guid student, string kind, bool given, string? saidBy = null) =>
        Assert.Equal(
            HttpStatusCode.Created,
            (
                await Post(
                    $"/students/{student}/consents",
                    new
                    {
                        id = Guid.NewGuid(),
                        kind,
                        given,
                        saidBy,
                    }
                )
            ).StatusCode
        );

    public async Task Answer(Guid student, params string[] yes)
    {
        var answers = Questions.Select(q => new { question = q.Key, yes = yes.Contains(q.Key) });
        Assert.Equal(HttpStatusCode.NoContent, (await Post($"/students/{student}/answers", new { answers })).StatusCode);
    }

    public static object Reading(
        string measure,
        string? side,
        double[] trials,
        Guid? id = null,
        string[]? compensations = null,
        int? pain = null,
        DateTimeOffset? takenAt = null,
        bool confirmed = false
    ) =>
        new
        {
            id = id ?? Guid.NewGuid(),
            measure,
            side,
            warmth = "warm",
            standard = measure == "front-split-gap" ? "square" : null,
            instrument = measure == "breath-length" ? "stopwatch"
            : measure.EndsWith("-gap", StringComparison.Ordinal) || measure == "knee-to-wall" ? "tape"
            : "goniometer",
            trials,
            compensations = compensations ?? [],
            quality = (int?)null,
            sensation = (int?)null,
            pain,
            note = (string?)null,
            takenAt,
            confirmed,
        };

    /// <summary>Readings on both sides that meet every range test up to a gap of 30 cm.</summary>
    public async Task ReadAll(Guid student)
    {
        foreach (var side in new[] { "left", "right" })
        foreach (
            var (measure, value) in new[]
            {
                ("passive-slr", 112.0),
                ("active-slr", 88),
                ("hip-extension", 20),
                ("lunge-chest-gap", 4),
                ("pyramid-nose-gap", 10),
                ("front-split-gap", 30),
            }
        )
            Assert.Equal(
                HttpStatusCode.Created,
                (await Post($"/students/{student}/readings", Reading(measure, side, [value, value, value]))).StatusCode
            );
    }

    public async Task Place(Guid student, int left, int right) =>
        Assert.Equal(HttpStatusCode.Created, (await Start(student, "front-split", ("left", left), ("right", right))).StatusCode);

    public async Task Place(Guid student, string skill, int stage) =>
        Assert.Equal(HttpStatusCode.Created, (await Start(student, skill, (null, stage))).StatusCode);

    /// <summary>A shipped ladder as JSON, to be changed and sent back.</summary>
    public async Task<JsonObject> Ladder(string key)
    {
        var shipped = (await Get("/ladders")).EnumerateArray().Single(l => l.GetProperty("key").GetString() == key).GetProperty("version");
        var ladder = JsonNode.Parse((await Get($"/ladders/{key}/versions/{shipped}")).GetRawText())!.AsObject();
        ladder["version"] = 1;
        return ladder;
    }

    /// <summary>A copy of the front split, stored as version 1.</summary>
    /// <returns>Its key.</returns>
    public async Task<string> OwnLadder(string name, Action<JsonObject>? change = null, string of = "front-split")
    {
        var ladder = await Ladder(of);
        ladder["key"] = $"own-{Guid.NewGuid():N}"[..16];
        ladder["name"] = name;
        change?.Invoke(ladder);
        Assert.Equal(HttpStatusCode.Created, (await Post("/ladders", new { id = Guid.NewGuid(), ladder })).StatusCode);
        return ladder["key"]!.GetValue<string>();
    }

    /// <summary>An own drill, made of the supported split when no other is named.</summary>
    public async Task<string> OwnDrill(object own, string source = "split-support")
    {
        var made = await Post(
            "/drills",
            new
            {
                id = Guid.NewGuid(),
                drill = (string?)null,
                source,
                basedOn = 0,
                own,
            }
        );
        Assert.Equal(HttpStatusCode.Created, made.StatusCode);
        return (await made.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("key").GetString()!;
    }

    public Task<HttpResponseMessage> Start(Guid student, string skill, params (string? Side, int Stage)[] courses) =>
        Post(
            $"/students/{student}/skills",
            new
            {
                id = Guid.NewGuid(),
                skill,
                approach = "long-and-ramped",
                courses = courses.Select(c => new
                {
                    decisionId = Guid.NewGuid(),
                    side = c.Side,
                    stage = c.Stage,
                }),
            }
        );

    public Task<HttpResponseMessage> Decide(
        Guid student,
        string? side,
        string kind,
        int fromStage,
        string? reason = null,
        Guid? id = null,
        string skill = "front-split"
    ) =>
        Post(
            $"/students/{student}/skills/{skill}/decisions",
            new
            {
                id = id ?? Guid.NewGuid(),
                side,
                kind,
                fromStage,
                reason,
            }
        );

    /// <summary>What a coach sets for a student on the front split: weeks from a day on, with sessions on the weekdays so many days after it.</summary>
    public static object Sketch(DateOnly start, int minutes, int weeks, params (int After, string Half)[] days) =>
        new
        {
            start,
            weeks,
            goals = new[] { new { skill = "front-split", priority = 1 } },
            days = days.Select(d => new
            {
                weekday = start.AddDays(d.After).DayOfWeek.ToString().ToLowerInvariant(),
                date = (DateOnly?)null,
                minutes,
                half = d.Half,
            }),
        };

    public Task<HttpResponseMessage> Plan(Guid student, object sketch, int basedOn = 0, Guid? id = null, bool ended = false) =>
        Post(
            $"/students/{student}/programme",
            new
            {
                id = id ?? Guid.NewGuid(),
                basedOn,
                sketch,
                ended,
            }
        );

    public async Task<Guid> Session(Guid student, int minutes = 45)
    {
        var id = Guid.NewGuid();
        var made = await Post(
            $"/students/{student}/sessions",
            new
            {
                id,
                date = (string?)null,
                minutes,
                second = true,
            }
        );
        Assert.Equal(HttpStatusCode.Created, made.StatusCode);
        return id;
    }

    public static object Set(string drill, string variant, string side, DateTimeOffset at, double seconds = 60, Guid? id = null) =>
        new
        {
            id = id ?? Guid.NewGuid(),
            kind = "set",
            drill,
            variant,
            side,
            round = 1,
            seconds,
            at,
        };

    public static object Signal(string kind, DateTimeOffset at, string? region = null, int? pain = null) =>
        new
        {
            id = Guid.NewGuid(),
            kind = "signal",
            signal = kind,
            drill = "low-lunge",
            region,
            side = "left",
            pain,
            at,
        };

    private static int told;

    /// <summary>As the floor tells it: what was done first, then what was felt.</summary>
    public Task<HttpResponseMessage> Log(Guid session, DateTimeOffset sentAt, object[]? sets = null, object[]? signals = null) =>
        Post(
            "/facts",
            new
            {
                sentAt,
                entries = new[] { sets, signals }
                    .SelectMany(facts => (facts ?? []).Chunk(20))
                    .Select(facts => Sessions.FloorEntries.EntryOf(session, Guid.NewGuid(), Interlocked.Increment(ref told), sentAt, facts))
                    .ToArray(),
            }
        );

    /// <summary>The gate of one side, as the student's page shows it.</summary>
    public async Task<JsonElement> Gate(Guid student, string? side, string skill = "front-split") =>
        (await Get($"/students/{student}/skills/{skill}"))
            .GetProperty("sides")
            .EnumerateArray()
            .Single(s => s.GetProperty("side").GetString() == side);

    public async Task<JsonElement> Test(Guid student, string side, string kind) =>
        (await Gate(student, side))
            .GetProperty("tests")
            .EnumerateArray()
            .First(t => t.GetProperty("test").GetProperty("kind").GetString() == kind);
}

public static class Answers
{
    /// <summary>The stable code of a problem, after checking its status and its type; the field as the screens look for it, wherever in the body.</summary>
    public static async Task<string> Problem(this HttpResponseMessage answer, HttpStatusCode status, string? field = null)
    {
        Assert.Equal(status, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
        var body = await answer.Content.ReadFromJsonAsync<JsonElement>();
        if (field is not null)
            Assert.Contains(
                body.GetProperty("errors").EnumerateArray(),
                e => $".{e.GetProperty("field").GetString()}".EndsWith($".{field}", StringComparison.Ordinal)
            );
        return body.GetProperty("code").GetString()!;
    }
}
