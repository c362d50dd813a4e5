using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>The real program, killed without warning while the floor tells: what it acknowledged is there, exactly once.</summary>
public sealed class KillTests
{
    private const int Entries = 500;
    private const int InARequest = 10;
    private const int Kills = 2;

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static Process Start(string data, int port)
    {
        var start = new ProcessStartInfo("dotnet", ["exec", typeof(Program).Assembly.Location])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        foreach (
            var (name, value) in new[]
            {
                ("Data", data),
                ("ASPNETCORE_URLS", $"http://127.0.0.1:{port}"),
                ("SetupCode", StudioApp.SetupCode),
                ("KeepBoard", "false"),
                ("Logging__LogLevel__Default", "Error"),
            }
        )
            start.Environment[name] = value;
        var process = Process.Start(start)!;
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        return process;
    }

    private static async Task Ready(HttpClient http)
    {
        var until = Stopwatch.StartNew();
        while (until.Elapsed < TimeSpan.FromSeconds(60))
        {
            try
            {
                if ((await http.GetAsync("/health/ready")).IsSuccessStatusCode)
                    return;
            }
            catch (HttpRequestException) { }
            await Task.Delay(50);
        }
        throw new TimeoutException("The program did not start.");
    }

    [Fact]
    public async Task What_was_acknowledged_before_a_kill_is_there_exactly_once()
    {
        var data = Directory.CreateTempSubdirectory("tensarch-kill-").FullName;
        var port = FreePort();
        using var handler = new HttpClientHandler { CookieContainer = new() };
        using var http = new HttpClient(handler) { BaseAddress = new($"http://127.0.0.1:{port}"), Timeout = TimeSpan.FromSeconds(20) };
        var server = Start(data, port);
        try
        {
            await Ready(http);
            var coach = new StudioClient(http, Guid.Empty, Guid.Empty, "owner@studio.example");
            var owner = new
            {
                studioName = "Studio",
                timeZone = "Europe/Oslo",
                name = "Owner",
                email = coach.Email,
                password = StudioApp.Password,
                setupCode = StudioApp.SetupCode,
            };
            var made = await coach.Post("/accounts/owner", owner);
            Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
            Assert.True((await coach.SignIn()).IsSuccessStatusCode);
            var student = await coach.Student();
            await coach.Place(student, 1, 1);
            var session = await coach.Session(student);
            var waiting = new Queue<(Guid Event, Guid Set, int Seq, DateTimeOffset At)>(
                Enumerable.Range(1, Entries).Select(i => (Guid.NewGuid(), Guid.NewGuid(), i, DateTimeOffset.UtcNow))
            );
            var acknowledged = new HashSet<Guid>();
            var random = new Random(9);
            var killAt = Enumerable
                .Range(0, Kills)
                .Select(i => random.Next(1, Entries / InARequest / Kills) + i * Entries / InARequest / Kills)
                .ToHashSet();
            for (var requests = 1; waiting.Count > 0; requests++)
            {
                var batch = waiting.Take(InARequest).ToList();
                var telling = Tell(coach, session, batch);
                if (killAt.Contains(requests))
                {
                    await Task.Delay(random.Next(0, 25));
                    server.Kill(entireProcessTree: true);
                    await server.WaitForExitAsync();
                }
                try
                {
                    foreach (var told in (await telling).EnumerateArray())
                    {
                        Assert.Contains(told.GetProperty("is").GetString(), new[] { "stored", "same" });
                        acknowledged.Add(told.GetProperty("event").GetGuid());
                    }
                    foreach (var _ in batch)
                        waiting.Dequeue();
                }
                catch (Exception e) when (e is HttpRequestException or TaskCanceledException or IOException)
                {
                    // Not acknowledged: the same is sent again.
                }
                if (server.HasExited)
                {
                    server = Start(data, port);
                    await Ready(http);
                }
            }
            Assert.Equal(Entries, acknowledged.Count);
            server.Kill(entireProcessTree: true);
            await server.WaitForExitAsync();
            Assert.Equal((Entries, Entries, Entries, "ok"), Count(data));
        }
        finally
        {
            if (!server.HasExited)
                server.Kill(entireProcessTree: true);
        }
    }

    private static async Task<JsonElement> Tell(
        StudioClient coach,
        Guid session,
        IReadOnlyList<(Guid Event, Guid Set, int Seq, DateTimeOffset At)> batch
    )
    {
        var answer = await coach.Post(
            "/facts",
            new
            {
                sentAt = DateTimeOffset.UtcNow,
                entries = batch.Select(e => new
                {
                    @event = new
                    {
                        id = e.Event,
                        session,
                        seq = e.Seq,
                        at = e.At,
                        said = """{"is":"passed"}""",
                    },
                    facts = new[]
                    {
                        new
                        {
                            id = e.Set,
                            kind = "set",
                            at = e.At,
                            drill = "joint-circles",
                            variant = "full",
                            cleanReps = 16,
                        },
                    },
                }),
            }
        );
        return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("told");
    }

    private static (long Events, long Sets, long Distinct, string Check) Count(string data)
    {
        using var db = new SqliteConnection($"Data Source={Path.Combine(data, "tensarch.db")};Pooling=False");
        db.Open();
        T Ask<T>(string sql)
        {
            using var command = db.CreateCommand();
            command.CommandText = sql;
            return (T)command.ExecuteScalar()!;
        }
        return (
            Ask<long>("SELECT count(*) FROM Events"),
            Ask<long>("SELECT count(*) FROM Sets"),
            Ask<long>("SELECT count(DISTINCT Id) FROM Sets"),
            Ask<string>("PRAGMA integrity_check")
        );
    }
}
