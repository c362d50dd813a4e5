using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Demo;

namespace Tensarch.Server.Tests.Fuzz;

/// <summary>A request that is ready to be sent.</summary>
public sealed record Prepared(string Path, JsonNode Body, string? IfMatch = null);

/// <summary>A studio in which every operation has something to work on, and one body for each that stands.</summary>
public sealed class Bodies
{
    private readonly StudioApp app;
    private readonly CatalogueContent content = ContentLoader.Load();
    private readonly Dictionary<string, Func<Task<Prepared>>> known;

    private Guid trained;
    private Guid scrap;
    private Guid hurt;

    /// <summary>Nobody says anything about this student's body: whatever else is sent, sessions can be made.</summary>
    private Guid changed;
    private Guid session;
    private Guid picture;
    private string ownDrill = "";
    private readonly Guid clip = Id();
    private string ownLadder = "";
    private readonly Queue<(Guid Student, string Skill)> free = new();

    private Bodies(StudioApp app, StudioClient coach)
    {
        (this.app, Coach) = (app, coach);
        known = Make();
    }

    public StudioClient Coach { get; }

    public static async Task<Bodies> Prepare(StudioApp app)
    {
        var bodies = new Bodies(app, await app.Studio());
        await bodies.Prepare();
        return bodies;
    }

    public bool Knows(Operation operation) => known.ContainsKey(operation.Name);

    public IEnumerable<string> Names => known.Keys;

    public Task<Prepared> For(Operation operation) => known[operation.Name]();

    private DateTimeOffset Now => app.Time.GetUtcNow();

    private static JsonNode Json(object body) => JsonSerializer.SerializeToNode(body, StudioApp.Json)!;

    private static Guid Id() => Guid.NewGuid();

    /// <summary>Whatever an earlier body made of it.</summary>
    private async Task PasswordAsItWas()
    {
        var hash = new PasswordHasher<CoachUser>().HashPassword(null!, StudioApp.Password);
        await app.Rows(db =>
            db.Users.IgnoreQueryFilters()
                .Where(u => u.Id == Coach.UserId)
                .ExecuteUpdateAsync(set => set.SetProperty(u => u.PasswordHash, hash))
        );
    }

    private Task<Prepared> PlanOf(Guid student, int basedOn) =>
        Plain(
            $"/students/{student}/programme",
            new
            {
                id = Id(),
                basedOn,
                sketch = Sketch(DateOnly.FromDateTime(Now.UtcDateTime)),
            }
        );

    private async Task<int> Newest() =>
        await app.Rows(db => db.Plans.IgnoreQueryFilters().Where(p => p.StudentId == trained).MaxAsync(p => (int?)p.Number)) ?? 0;

    /// <summary>Of the last session of the newest plan.</summary>
    private async Task<object> Pin()
    {
        if (await Newest() == 0)
        {
            var plan = await PlanOf(trained, 0);
            await Coach.Post(plan.Path, plan.Body);
        }
        var last = await app.Rows(db =>
            db.Sessions.IgnoreQueryFilters()
                .Where(s => s.StudentId == trained && s.Half != null && s.DeletedAt == null)
                .OrderByDescending(s => s.Date)
                .Select(s => (DateOnly?)s.Date)
                .FirstOrDefaultAsync()
        );
        return new
        {
            kind = "pin",
            day = last,
            half = "pm",
            to = (DateOnly?)null,
            toHalf = (string?)null,
        };
    }

    /// <summary>Four weeks of one goal on one day a week.</summary>
    public static object Sketch(DateOnly start) =>
        new
        {
            start,
            weeks = 4,
            goals = new[]
            {
                new
                {
                    skill = "front-split",
                    priority = 1,
                    target = (DateOnly?)start.AddDays(60),
                },
            },
            days = new[]
            {
                new
                {
                    weekday = (string?)start.AddDays(1).DayOfWeek.ToString().ToLowerInvariant(),
                    date = (DateOnly?)null,
                    minutes = 30,
                    half = "pm",
                },
            },
            themes = new[]
            {
                new
                {
                    weekday = (string?)null,
                    date = (DateOnly?)start.AddDays(8),
                    theme = (string?)"hamstrings",
                    light = true,
                },
            },
            off = new[] { start.AddDays(3) },
        };

    private static object OwnDrill() =>
        new
        {
            name = "Split on two chairs",
            cues = new[] { "Grow tall" },
            checks = new[] { "Hips square" },
            stopSigns = new[] { "A pinch" },
            props = new[] { "chair" },
            variants = new[]
            {
                new
                {
                    key = "high-only",
                    name = "Both chairs",
                    dose = new { rounds = 2, seconds = 30 },
                },
            },
            loads = new[] { new { tag = "hamstring", level = "heavy" } },
        };

    /// <summary>The first bytes of a clip, which is all that is looked at.</summary>
    internal static byte[] Webm() => [0x1A, 0x45, 0xDF, 0xA3, 0x9F, 0x42, 0x82, 0x84, .. "webm"u8, .. new byte[5000]];

    /// <summary>A change by hand of a session that has not begun.</summary>
    private async Task<Prepared> Edit(string path, params (string Name, object Value)[] more)
    {
        var id = Id();
        var made = await Coach.Post(
            $"/students/{changed}/sessions",
            new
            {
                id,
                date = (string?)null,
                minutes = 30,
                second = true,
            }
        );
        Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
        var body = Json(
            new
            {
                of = (await Coach.Get($"/sessions/{id}")).GetProperty("version").GetString(),
                changes = new object[]
                {
                    new
                    {
                        kind = "dose",
                        id = "lie-still",
                        side = (string?)null,
                        dose = new
                        {
                            rounds = 1,
                            seconds = 75,
                            restSeconds = 0,
                        },
                    },
                    new
                    {
                        kind = "note",
                        id = "lie-still",
                        text = "Cover the feet.",
                    },
                    new { kind = "shorten", to = 20 },
                },
            }
        );
        foreach (var (name, value) in more)
            body[name] = JsonSerializer.SerializeToNode(value, StudioApp.Json);
        return new($"/sessions/{id}/edits{path}", body);
    }

    private async Task Prepare()
    {
        trained = await Coach.Student("Trained");
        scrap = await Coach.Student("Scrap", "hamstring");
        hurt = await Coach.Student("Hurt");
        await Coach.ReadAll(trained);
        await Coach.Place(trained, 3, 3);
        await Coach.Place(trained, "handstand", 1);
        await Coach.Place(hurt, 1, 1);
        changed = await Coach.Student("Changed");
        await Coach.Place(changed, 2, 2);
        ownLadder = await Coach.OwnLadder("Own");
        session = await Coach.Session(await Floor());
        ownDrill = await Coach.OwnDrill(OwnDrill());
        await Coach.Http.PostAsync($"/api/v1/drills/{ownDrill}/clips?id={clip}&variant=high-only", new ByteArrayContent(Webm()));
        picture = Id();
        await Coach.Http.PostAsync(
            $"/api/v1/students/{trained}/pictures?id={picture}&view=handstand-line",
            new ByteArrayContent(SamplePicture.Handstand(5, 5, 1).Draw())
        );
        for (var i = 0; i < 4; i++)
        {
            var student = await Coach.Student($"Free {i}");
            foreach (var skill in content.Skills.Where(s => !s.PerSide))
                free.Enqueue((student, skill.Key));
        }
        await Hold();
    }

    private async Task<Guid> Floor()
    {
        var floor = await Coach.Student("Floor");
        await Coach.Place(floor, 1, 1);
        return floor;
    }

    /// <summary>Two pain events hold a region, and two free sessions let a coach review it.</summary>
    private async Task Hold()
    {
        var first = await Coach.Session(hurt);
        app.Time.Advance(TimeSpan.FromMinutes(10));
        await Coach.Log(
            first,
            Now,
            [Set()],
            [
                StudioClient.Signal("dullPain", Now.AddMinutes(-3), "hamstring", 5),
                StudioClient.Signal("dullPain", Now.AddMinutes(-2), "hamstring", 5),
            ]
        );
        for (var i = 0; i < 2; i++)
        {
            app.Time.Advance(TimeSpan.FromDays(2));
            var freeOfPain = await Coach.Session(hurt);
            app.Time.Advance(TimeSpan.FromMinutes(10));
            await Coach.Log(freeOfPain, Now, [Set()]);
        }
    }

    private object Set() => StudioClient.Set("low-lunge", content.Drill("low-lunge").Variants[0].Key, "left", Now.AddMinutes(-1));

    private static readonly object Practice = new
    {
        breaths = 5,
        breathSeconds = 4.5,
        ramp = new
        {
            fromPercent = 20,
            toPercent = 70,
            plateauSeconds = 5,
        },
        settleSeconds = 10,
        sides = "leftFirst",
        sideBySide = false,
        rounds = 2,
        restSeconds = 30,
        switchSeconds = 5,
        countInSeconds = 5,
    };

    private static Task<Prepared> Plain(string path, object body) => Task.FromResult(new Prepared(path, Json(body)));

    private Task<T> Row<T>(Func<TensarchDb, IQueryable<T>> ask) => app.Rows(db => ask(db).FirstAsync());

    private async Task<Prepared> Versioned(string path, Guid student, object body)
    {
        var version = await Row(db => db.Students.IgnoreQueryFilters().Where(s => s.Id == student).Select(s => s.Version));
        return new(path, Json(body), $"\"{version}\"");
    }

    private Dictionary<string, Func<Task<Prepared>>> Make() =>
        new()
        {
            ["POST /accounts/owner"] = () =>
                Plain(
                    "/accounts/owner",
                    new
                    {
                        studioName = "Second",
                        timeZone = "Europe/Oslo",
                        name = "Ines",
                        email = "second@studio.example",
                        password = StudioApp.Password,
                        setupCode = StudioApp.SetupCode,
                    }
                ),
            // Somebody else each time: wrong passwords lock the account.
            ["POST /accounts/sign-in"] = async () =>
                new(
                    "/accounts/sign-in",
                    Json(new { email = (await app.Studio(Role.Owner, Coach.StudioId)).Email, password = StudioApp.Password })
                ),
            ["POST /accounts/members"] = () =>
                Plain(
                    "/accounts/members",
                    new
                    {
                        name = "Tam",
                        email = $"{Id():N}@studio.example",
                        password = StudioApp.Password,
                        role = "assistant",
                    }
                ),
            ["POST /accounts/unsent"] = () =>
                Plain(
                    "/accounts/unsent",
                    new
                    {
                        device = Id(),
                        of = new[]
                        {
                            new
                            {
                                author = Coach.UserId,
                                waiting = 3,
                                oldest = Now,
                                dropped = 1,
                            },
                        },
                    }
                ),
            ["POST /accounts/members/{memberId}/changes"] = async () =>
                new(
                    $"/accounts/members/{(await app.Studio(Role.Coach, Coach.StudioId)).UserId}/changes",
                    Json(
                        new
                        {
                            name = "Tova",
                            email = $"{Id():N}@studio.example",
                            role = "assistant",
                            password = StudioApp.Password,
                            left = false,
                        }
                    )
                ),
            ["PUT /accounts/me"] = async () =>
            {
                await PasswordAsItWas();
                return new(
                    "/accounts/me",
                    Json(
                        new
                        {
                            name = "Coach",
                            email = Coach.Email,
                            current = StudioApp.Password,
                        }
                    )
                );
            },
            ["POST /accounts/me/password"] = async () =>
            {
                await PasswordAsItWas();
                return new("/accounts/me/password", Json(new { current = StudioApp.Password, password = StudioApp.Password }));
            },
            ["PUT /studio"] = async () =>
            {
                var version = await Row(db => db.Studios.IgnoreQueryFilters().Where(s => s.Id == Coach.StudioId).Select(s => s.Version));
                return new(
                    "/studio",
                    Json(
                        new
                        {
                            version,
                            name = "Quay",
                            timeZone = "Europe/Oslo",
                            opening = new[]
                            {
                                new
                                {
                                    weekday = "monday",
                                    from = "08:00:00",
                                    until = "20:30:00",
                                },
                            },
                            standIns = new[] { new { prop = "strap", what = "a scarf" } },
                        }
                    )
                );
            },
            ["POST /compute/practice"] = () => Plain("/compute/practice", Practice),
            ["POST /practice-presets"] = () =>
                Plain(
                    "/practice-presets",
                    new
                    {
                        id = Id(),
                        name = $"Wall {Id():N}",
                        practice = Practice,
                    }
                ),
            ["POST /practice-presets/{presetId}/changes"] = async () =>
            {
                var preset = Id();
                await Coach.Post(
                    "/practice-presets",
                    new
                    {
                        id = preset,
                        name = $"Wall {preset:N}",
                        practice = Practice,
                    }
                );
                return new(
                    $"/practice-presets/{preset}/changes",
                    Json(
                        new
                        {
                            name = $"Hang {preset:N}",
                            practice = Practice,
                            gone = true,
                        }
                    )
                );
            },
            ["POST /compute/bars"] = () =>
                Plain(
                    "/compute/bars",
                    new
                    {
                        yes = new[] { "neck" },
                        birthDate = "1990-05-06",
                        guardianConsent = false,
                        sensationCeiling = 7,
                    }
                ),
            ["PUT /blocks"] = async () =>
            {
                var version = await Row(db =>
                    db.Studios.IgnoreQueryFilters().Where(s => s.Id == Coach.StudioId).Select(s => s.BlocksVersion)
                );
                object kind = new
                {
                    key = "standard",
                    name = "Standard block",
                    lowCm = 7.5,
                    middleCm = 15,
                    highCm = 23,
                };
                return new("/blocks", Json(new { version, kinds = new[] { kind } }));
            },
            ["POST /compute/policy"] = () =>
                Plain(
                    "/compute/policy",
                    new
                    {
                        own = new
                        {
                            z = 1.5,
                            confirmingTests = 2,
                            confirmingHours = 40,
                        },
                        trial = new
                        {
                            trialsPerTest = 1,
                            tauOfSem = 0.5,
                            testDays = 1,
                            students = 100,
                            seed = 7,
                        },
                    }
                ),
            ["POST /students"] = () =>
                Plain(
                    "/students",
                    new
                    {
                        id = Id(),
                        student = Person(),
                        consents = new[]
                        {
                            new
                            {
                                kind = "training",
                                given = true,
                                saidBy = (string?)null,
                            },
                        },
                    }
                ),
            ["PUT /students/{studentId}"] = () => Versioned($"/students/{scrap}", scrap, Person()),
            ["POST /students/{studentId}/archive"] = () => Versioned($"/students/{scrap}/archive", scrap, new { archived = false }),
            ["POST /students/{studentId}/answers"] = () =>
                Plain(
                    $"/students/{scrap}/answers",
                    new { id = Id(), answers = content.Questions.Select(q => new { question = q.Key, yes = false }) }
                ),
            ["POST /students/{studentId}/changes"] = () => Plain($"/students/{scrap}/changes", new { id = Id(), note = "A sore wrist." }),
            ["POST /students/{studentId}/clearances"] = () => Plain($"/students/{scrap}/clearances", Clearance()),
            ["POST /students/{studentId}/clearances/{clearanceId}/withdrawal"] = async () =>
            {
                var clearance = Clearance();
                await Coach.Post($"/students/{scrap}/clearances", clearance);
                return new(
                    $"/students/{scrap}/clearances/{Json(clearance)["id"]}/withdrawal",
                    Json(new { id = Id(), reason = "Recorded for the wrong person." })
                );
            },
            ["POST /students/{studentId}/consents"] = () =>
                Plain(
                    $"/students/{scrap}/consents",
                    new
                    {
                        id = Id(),
                        kind = "guardian",
                        given = true,
                        saidBy = "Mother",
                    }
                ),
            ["POST /students/{studentId}/check-ins"] = () =>
                Plain(
                    $"/students/{scrap}/check-ins",
                    new
                    {
                        id = Id(),
                        sleptBadly = true,
                        ill = false,
                        trainedHard = false,
                        felt = new[]
                        {
                            new
                            {
                                kind = "sore",
                                place = "wrist",
                                side = "left",
                                level = 5,
                            },
                        },
                    }
                ),
            ["POST /students/{studentId}/reviews"] = () =>
                Plain(
                    $"/students/{hurt}/reviews",
                    new
                    {
                        id = Id(),
                        tag = "hamstring",
                        note = "Walks and folds without it.",
                    }
                ),
            ["POST /students/{studentId}/sittings"] = () =>
                Plain(
                    $"/students/{trained}/sittings",
                    new
                    {
                        id = Id(),
                        scope = "single",
                        measures = new[] { "passive-slr" },
                        cold = false,
                    }
                ),
            ["PUT /students/{studentId}/sittings/{sittingId}/drafts/{slot}"] = async () =>
            {
                var sitting = Id();
                await Coach.Post(
                    $"/students/{trained}/sittings",
                    new
                    {
                        id = sitting,
                        scope = "single",
                        measures = new[] { "passive-slr" },
                        cold = false,
                    }
                );
                return new(
                    $"/students/{trained}/sittings/{sitting}/drafts/passive-slr.left.none.warm",
                    Json(new { version = 0, draft = Draft() })
                );
            },
            ["POST /measures/{measure}/versions"] = async () =>
            {
                var version = await app.Rows(db =>
                    db.OwnMeasures.IgnoreQueryFilters()
                        .Where(m => m.StudioId == Coach.StudioId && m.Measure == "knee-to-wall")
                        .MaxAsync(m => (int?)m.Version)
                );
                var own = new
                {
                    min = -10,
                    max = 30,
                    sem = 0.8,
                    protocol = new[] { "Heel down.", "Knee to the wall." },
                };
                return new(
                    "/measures/knee-to-wall/versions",
                    Json(
                        new
                        {
                            id = Id(),
                            basedOn = version ?? 0,
                            own,
                        }
                    )
                );
            },
            ["POST /students/{studentId}/pictures/{pictureId}/marks"] = () =>
                Plain($"/students/{trained}/pictures/{picture}/marks", new { id = Id(), placement = Placement() }),
            ["PUT /instruments/inclinometer/scenario"] = () =>
                Plain(
                    "/instruments/inclinometer/scenario",
                    new
                    {
                        trueDeg = 70,
                        tremorDeg = 0.1,
                        driftDegPerMinute = 0,
                        settleSeconds = 1,
                        droppedOut = false,
                    }
                ),
            ["POST /students/{studentId}/readings"] = () => Plain($"/students/{trained}/readings", Reading()),
            ["POST /students/{studentId}/readings/preview"] = () => Plain($"/students/{trained}/readings/preview", Reading()),
            ["POST /students/{studentId}/readings/{readingId}/void"] = async () =>
            {
                var reading = Id();
                await Coach.Post(
                    $"/students/{trained}/readings",
                    StudioClient.Reading("passive-slr", "left", [110], reading, confirmed: true)
                );
                return new($"/students/{trained}/readings/{reading}/void", Json(new { reason = "wrong side" }));
            },
            ["POST /compute/split-angle"] = () =>
                Plain(
                    "/compute/split-angle",
                    new
                    {
                        gapCm = 22,
                        frontLegCm = 86,
                        backLegCm = 86,
                    }
                ),
            ["POST /compute/rom-test"] = () =>
                Plain(
                    "/compute/rom-test",
                    new
                    {
                        comparison = "atMost",
                        threshold = 22,
                        sem = 1,
                        readings = new[] { new { at = Now.AddDays(-1), trials = new[] { 20.0, 21, 20 } } },
                        now = Now,
                        shelfDays = 21,
                        betweenDays = 0.5,
                        minTrials = 3,
                        resolution = 0,
                    }
                ),
            ["POST /compute/line"] = () =>
                Plain(
                    "/compute/line",
                    new
                    {
                        wrist = new[] { 0.0, 0 },
                        shoulder = new[] { 1.0, 50 },
                        hip = new[] { 2.0, 100 },
                        ankle = new[] { 3.0, 180 },
                        horizon = new[] { new[] { 0.0, 0 }, [100.0, 1] },
                        facing = "left",
                    }
                ),
            ["POST /compute/straddle"] = () =>
                Plain(
                    "/compute/straddle",
                    new
                    {
                        leftLegCm = 86,
                        rightLegCm = 86,
                        heelDistanceCm = 120,
                        hipWidthCm = 17,
                    }
                ),
            ["POST /compute/asymmetry"] = () =>
                Plain(
                    "/compute/asymmetry",
                    new
                    {
                        left = new { value = 88, standardError = 1.8 },
                        right = new { value = 95, standardError = 1.8 },
                        better = "up",
                    }
                ),
            ["POST /compute/success-rate"] = () => Plain("/compute/success-rate", new { successes = 7, attempts = 10 }),
            ["POST /compute/landmarks"] = () => Plain("/compute/landmarks", new { view = "handstand-line", placement = Placement() }),
            ["POST /compute/breaths"] = () => Plain("/compute/breaths", new { breathSeconds = 4.5, breaths = 5 }),
            ["POST /compute/blocks"] = () => Plain("/compute/blocks", new { stack = new[] { new { kind = "standard", face = "low" } } }),
            ["POST /students/{studentId}/skills"] = () =>
            {
                var (student, skill) = free.Dequeue();
                free.Enqueue((student, skill));
                return Plain(
                    $"/students/{student}/skills",
                    new
                    {
                        id = Id(),
                        skill,
                        approach = "long-and-ramped",
                        courses = new[]
                        {
                            new
                            {
                                decisionId = Id(),
                                side = (string?)null,
                                stage = 1,
                            },
                        },
                        ladderKey = skill,
                        ladderVersion = 1,
                    }
                );
            },
            ["POST /students/{studentId}/skills/{skill}/decisions"] = async () =>
                new(
                    $"/students/{trained}/skills/front-split/decisions",
                    Json(
                        new
                        {
                            id = Id(),
                            side = "left",
                            kind = "stay",
                            fromStage = await StageOf(Side.Left),
                            reason = "Not yet sure of it.",
                        }
                    )
                ),
            ["POST /students/{studentId}/skills/{skill}/move"] = async () =>
            {
                var follows = await Row(db =>
                    db.Skills.IgnoreQueryFilters().Where(s => s.StudentId == trained && s.Skill == "front-split").Select(s => s.LadderKey)
                );
                var courses = new[]
                {
                    new
                    {
                        decisionId = Id(),
                        side = "left",
                        stage = await StageOf(Side.Left),
                    },
                    new
                    {
                        decisionId = Id(),
                        side = "right",
                        stage = await StageOf(Side.Right),
                    },
                };
                return new(
                    $"/students/{trained}/skills/front-split/move",
                    Json(
                        new
                        {
                            ladderKey = follows == ownLadder ? "front-split" : ownLadder,
                            ladderVersion = 1,
                            courses,
                            reason = (string?)null,
                        }
                    )
                );
            },
            ["POST /students/{studentId}/skills/{skill}/form-checks"] = () =>
            {
                var stage = content.NewestLadder("front-split")!.Stages.First(s => s.Tests.OfType<FormCriterion>().Any());
                return Plain(
                    $"/students/{trained}/skills/front-split/form-checks",
                    new
                    {
                        id = Id(),
                        stage = stage.Number,
                        side = "left",
                        ticked = stage.Tests.OfType<FormCriterion>().First().Items.Select(i => i.Key),
                    }
                );
            },
            ["POST /students/{studentId}/skills/{skill}/exit-checks"] = () =>
                Plain(
                    $"/students/{trained}/skills/handstand/exit-checks",
                    new
                    {
                        id = Id(),
                        stage = content.NewestLadder("handstand")!.Stages.First(s => s.Tests.OfType<ExitCriterion>().Any()).Number,
                        side = "left",
                        safe = 4,
                        of = 5,
                    }
                ),
            ["POST /students/{studentId}/skills/{skill}/bench-sets"] = () =>
            {
                var drill = content.Drill("low-lunge");
                return Plain(
                    $"/students/{trained}/skills/front-split/bench-sets",
                    new
                    {
                        id = Id(),
                        drill = drill.Key,
                        variant = drill.Variants[0].Key,
                        side = "left",
                        seconds = 30.5,
                        cleanReps = (int?)null,
                        quality = 4,
                        at = Now.AddDays(-1),
                    }
                );
            },
            ["POST /ladders"] = async () =>
            {
                var ladder = await Coach.Ladder("crow");
                ladder["key"] = $"own-{Id():N}"[..20];
                return new("/ladders", Json(new { id = Id(), ladder }));
            },
            ["POST /ladders/read"] = async () => new("/ladders/read", Json(new { text = (await Coach.Ladder("crow")).ToJsonString() })),
            ["POST /ladders/try"] = async () => new("/ladders/try", await Coach.Ladder("crow")),
            ["POST /students/{studentId}/sessions"] = () =>
                Plain(
                    $"/students/{trained}/sessions",
                    new
                    {
                        id = Id(),
                        date = (string?)null,
                        minutes = 30,
                        second = true,
                        skill = "front-split",
                    }
                ),
            ["POST /students/{studentId}/corrections"] = async () =>
                new(
                    $"/students/{trained}/corrections",
                    Json(
                        new
                        {
                            id = Id(),
                            what = "decision",
                            of = await Row(db => db.Decisions.IgnoreQueryFilters().Where(d => d.StudentId == trained).Select(d => d.Id)),
                            reason = "Written down by mistake.",
                            instead = new { seconds = 31, quality = 3 },
                        }
                    )
                ),
            ["POST /facts"] = () =>
                Plain(
                    "/facts",
                    new
                    {
                        sentAt = Now,
                        entries = new[]
                        {
                            new
                            {
                                @event = new
                                {
                                    id = Id(),
                                    session,
                                    seq = 7,
                                    at = Now.AddMinutes(-2),
                                    said = """{"is":"passed"}""",
                                },
                                facts = new object[]
                                {
                                    new
                                    {
                                        id = Id(),
                                        kind = "set",
                                        at = Now.AddMinutes(-3),
                                        drill = "joint-circles",
                                        variant = "full",
                                        round = 1,
                                        cleanReps = 16,
                                    },
                                    new
                                    {
                                        id = Id(),
                                        kind = "gate",
                                        at = Now.AddMinutes(-2),
                                        gate = "end-position",
                                        side = "left",
                                        answers = new[] { new { check = "warm", answer = 1 } },
                                    },
                                },
                            },
                        },
                    }
                ),
            ["POST /students/{studentId}/notes"] = () =>
                Plain(
                    $"/students/{trained}/notes",
                    new
                    {
                        id = Id(),
                        text = "Works nights.",
                        pinned = false,
                        carryOver = true,
                    }
                ),
            ["POST /students/{studentId}/notes/{noteId}/changes"] = async () =>
            {
                var note = Id();
                await Coach.Post($"/students/{trained}/notes", new { id = note, text = "Left." });
                return new(
                    $"/students/{trained}/notes/{note}/changes",
                    Json(
                        new
                        {
                            pinned = true,
                            done = false,
                            text = "Right.",
                            gone = false,
                        }
                    )
                );
            },
            ["POST /sessions/{sessionId}/log"] = async () =>
            {
                var id = Id();
                await Coach.Post(
                    $"/students/{trained}/sessions",
                    new
                    {
                        id,
                        date = (string?)null,
                        minutes = 30,
                        second = true,
                        skill = "front-split",
                    }
                );
                return new(
                    $"/sessions/{id}/log",
                    Json(
                        new
                        {
                            id = Id(),
                            endedAt = (string?)null,
                            parts = new[]
                            {
                                new
                                {
                                    part = "pulse-raiser",
                                    done = true,
                                    rounds = 1,
                                    seconds = 30.5,
                                    cleanReps = 8,
                                },
                            },
                            signals = new[]
                            {
                                new
                                {
                                    signal = "dullPain",
                                    region = "hamstring",
                                    pain = 2,
                                    side = "left",
                                },
                            },
                            carryOver = "Breathe out.",
                        }
                    )
                );
            },
            ["POST /drills"] = () =>
                Plain(
                    "/drills",
                    new
                    {
                        id = Id(),
                        drill = (string?)null,
                        source = "split-support",
                        basedOn = 0,
                        own = OwnDrill(),
                        gone = false,
                    }
                ),
            ["POST /drills/{drill}/clips/{clipId}/changes"] = () => Plain($"/drills/{ownDrill}/clips/{clip}/changes", new { gone = false }),
            ["POST /students/{studentId}/programme"] = async () => await PlanOf(trained, await Newest()),
            ["POST /students/{studentId}/programme/try"] = () =>
                Plain($"/students/{trained}/programme/try", Sketch(DateOnly.FromDateTime(Now.UtcDateTime))),
            ["POST /roster-runs"] = () => Plain("/roster-runs", new { id = Id(), alsoNew = true }),
            ["POST /calendar/feeds"] = () =>
                Plain(
                    "/calendar/feeds",
                    new
                    {
                        id = Id(),
                        studentId = (Guid?)trained,
                        morning = "08:30:00",
                        afternoon = "17:00:00",
                    }
                ),
            ["PUT /calendar/feeds/{feedId}"] = async () =>
            {
                var feed = Id();
                await Coach.Post(
                    "/calendar/feeds",
                    new
                    {
                        id = feed,
                        studentId = (Guid?)null,
                        morning = "08:30:00",
                        afternoon = "17:00:00",
                    }
                );
                return new($"/calendar/feeds/{feed}", Json(new { morning = "09:00:00", afternoon = "18:00:00" }));
            },
            ["POST /students/{studentId}/programme/room"] = () =>
                Plain($"/students/{trained}/programme/room", Sketch(DateOnly.FromDateTime(Now.UtcDateTime))),
            ["POST /students/{studentId}/programme/edits"] = async () =>
                await Plain(
                    $"/students/{trained}/programme/edits",
                    new
                    {
                        id = Id(),
                        basedOn = await Newest(),
                        edit = await Pin(),
                    }
                ),
            ["POST /students/{studentId}/programme/edits/try"] = async () =>
                await Plain($"/students/{trained}/programme/edits/try", new { edit = await Pin() }),
            ["POST /sessions/{sessionId}/edits"] = async () => await Edit("", ("id", Id())),
            ["POST /sessions/{sessionId}/edits/try"] = async () => await Edit("/try"),
            ["POST /sessions/{sessionId}/edits/options"] = async () => await Edit("/options", ("instead", "lie-still")),
            ["POST /sessions/{sessionId}/changes"] = () =>
                Plain(
                    $"/sessions/{session}/changes",
                    new
                    {
                        kind = "restore",
                        date = (string?)null,
                        id = Id(),
                        seen = (int?)null,
                    }
                ),
        };

    private async Task<int> StageOf(Side side) =>
        await Row(db =>
            db.Decisions.IgnoreQueryFilters()
                .Where(d => d.StudentId == trained && d.Skill == "front-split" && d.Side == side)
                .OrderByDescending(d => d.At)
                .Select(d => d.ToStage)
        );

    private static object Person() =>
        new
        {
            name = "Ada Quill",
            about = "bell founder",
            birthDate = "1990-05-06",
            leftLegCm = 86.5,
            rightLegCm = 86,
            bodyweightKg = 61.5,
            breathSeconds = 4.5,
            sensationCeiling = 7,
            splitStandard = "square",
            blocksOwned = 4,
            sessionMinutes = 60,
            hipWidthCm = 17,
            goals = new[] { "front-split" },
            equipment = new[] { "strap" },
            days = new[]
            {
                new
                {
                    weekday = "monday",
                    date = (string?)null,
                    minutes = 45,
                    half = "pm",
                },
            },
        };

    private static object Clearance() =>
        new
        {
            id = Id(),
            role = "physiotherapist",
            tags = new[] { "hamstring" },
            from = "2035-03-01",
            until = "2036-03-01",
        };

    private static object Placement() =>
        new
        {
            points = new[]
            {
                new { x = 450.0, y = 1072.0 },
                new { x = 532.0, y = 793.0 },
                new { x = 496.0, y = 526.0 },
                new { x = 551.0, y = 109.0 },
            },
            horizon = new[] { new { x = 0.0, y = 1100.0 }, new { x = 800.0, y = 1101.0 } },
            facing = "left",
        };

    private static object Draft() =>
        new
        {
            id = Id(),
            instrument = "goniometer",
            trials = new[] { 71.5 },
            hits = Array.Empty<bool>(),
            stacks = Array.Empty<object>(),
            marks = Array.Empty<Guid>(),
            compensations = Array.Empty<string>(),
            quality = "4",
            sensation = "",
            pain = "",
            note = "half typed",
        };

    private object Reading() =>
        new
        {
            id = Id(),
            measure = "passive-slr",
            side = "left",
            warmth = "warm",
            standard = (string?)null,
            instrument = "goniometer",
            trials = new[] { 110.0, 112, 111 },
            compensations = Array.Empty<string>(),
            quality = 4,
            sensation = 3,
            pain = 0,
            note = "steady",
            takenAt = Now.AddHours(-3),
            level = (string?)null,
            successes = (int?)null,
            attempts = (int?)null,
            confirmed = true,
            trialsAt = new[] { Now.AddHours(-3), Now.AddHours(-3), Now.AddHours(-3) },
        };
}
