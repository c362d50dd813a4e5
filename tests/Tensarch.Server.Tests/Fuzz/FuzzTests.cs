using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;

namespace Tensarch.Server.Tests.Fuzz;

/// <summary>What takes the whole machine for itself.</summary>
[CollectionDefinition(DisableParallelization = true)]
public sealed class Alone;

/// <summary>
/// Every operation of the description, three thousand times with one or two values changed. Nothing that anybody sends is answered with an
/// error of the server's, nothing absurd is kept, and afterwards every page of the studio answers.
/// </summary>
[Collection(nameof(Alone))]
public sealed class FuzzTests(FuzzTests.Studio studio, ITestOutputHelper output) : IClassFixture<FuzzTests.Studio>
{
    /// <summary>The application with the studio that is sent to, prepared once, and what it says to each body as it stands.</summary>
    public sealed class Studio : IAsyncLifetime
    {
        public StudioApp App { get; } = new();

        public ApiDocument Api { get; } = ApiDocument.Read();

        public Bodies Bodies { get; private set; } = null!;

        public List<Answer> Sound { get; } = [];

        public async ValueTask InitializeAsync()
        {
            Bodies = await Bodies.Prepare(App);
            foreach (var operation in Api.Operations().Where(Bodies.Knows))
            {
                var call = await Bodies.For(operation);
                Sound.Add(await Send(Bodies.Coach.Http, operation, call, Mutator.Write(call.Body)));
            }
        }

        public ValueTask DisposeAsync() => App.DisposeAsync();
    }

    /// <summary>In the suite; more by <c>FUZZ_REQUESTS</c>, as <c>./dev bench properties</c> asks.</summary>
    private static readonly int Requests = int.TryParse(
        Environment.GetEnvironmentVariable("FUZZ_REQUESTS"),
        CultureInfo.InvariantCulture,
        out var asked
    )
        ? asked
        : 1000;
    private const int Seed = 20261125;
    private const int Workers = 3;

    /// <summary>Bodies that stand and are refused all the same: the studio has its owner, and only the demo moves the device.</summary>
    private static readonly Dictionary<string, HttpStatusCode> Refused = new()
    {
        ["POST /accounts/owner"] = HttpStatusCode.Conflict,
        ["PUT /instruments/inclinometer/scenario"] = HttpStatusCode.NotFound,
    };

    public sealed record Answer(string Operation, int Status, string Body, string Text);

    [Fact]
    public void Every_operation_has_a_body_that_is_accepted()
    {
        Assert.Equal(studio.Api.Operations().Select(o => o.Name).Order(), studio.Bodies.Names.Order());
        Assert.Equal(studio.Bodies.Names.Order(), studio.Sound.Select(a => a.Operation).Order());
        foreach (var answer in studio.Sound)
            Assert.True(
                Refused.TryGetValue(answer.Operation, out var status) ? answer.Status == (int)status : answer.Status is 200 or 201 or 204,
                $"{answer.Operation}: {answer.Status} {answer.Text}"
            );
    }

    [Fact]
    public async Task No_body_brings_the_server_down_or_leaves_anything_absurd_behind()
    {
        var (api, app, bodies) = (studio.Api, studio.App, studio.Bodies);
        var stranger = await app.Studio();
        var foreign = new List<Guid> { stranger.StudioId, stranger.UserId, await stranger.Student("Foreign") };
        var operations = api.Operations();
        var answers = new ConcurrentBag<Answer>();
        var began = TimeProvider.System.GetTimestamp();
        var gate = new SemaphoreSlim(1);
        await Task.WhenAll(Enumerable.Range(0, Workers).Select(Work));
        var took = TimeProvider.System.GetElapsedTime(began);

        var all = answers.ToList();
        Assert.Equal(Requests, all.Count);
        var past = all.Count(a => a.Status != 400);
        var accepted = all.Count(a => a.Status is >= 200 and < 300);
        output.WriteLine(
            $"{Requests} requests in {took.TotalSeconds:0.0} s; {100.0 * past / Requests:0} % past binding, {100.0 * accepted / Requests:0} % accepted"
        );
        var failed = all.Where(a => a.Status >= 500).ToList();
        Assert.True(
            failed.Count == 0,
            $"{failed.Count} failed: {string.Join("\n", failed.DistinctBy(f => f.Operation).Take(20).Select(f => $"{f.Operation} {f.Status} {f.Body}"))}"
        );
        Assert.True(past >= 0.40 * Requests, $"only {past} past binding");
        Assert.True(accepted >= 0.15 * Requests, $"only {accepted} accepted");
        Assert.Equal(operations.Count, all.Select(a => a.Operation).Distinct().Count());

        var pages = await Pages.Of(app, bodies.Coach);
        foreach (var page in pages)
        {
            var answer = await bodies.Coach.Http.GetAsync("/api/v1" + page);
            Assert.True(answer.StatusCode == HttpStatusCode.OK, $"{page}: {answer.StatusCode} {await answer.Content.ReadAsStringAsync()}");
        }
        output.WriteLine($"{pages.Count} pages answered; {TimeProvider.System.GetElapsedTime(began).TotalSeconds:0.0} s by then");
        Assert.Empty(await Absurdities.In(app));

        async Task Work(int worker)
        {
            var random = new Random(Seed + worker);
            var mutator = new Mutator(api, random, foreign);
            for (var i = worker; i < Requests; i += Workers)
            {
                var operation = operations[i % operations.Count];
                await gate.WaitAsync();
                Prepared call;
                try
                {
                    call = await bodies.For(operation);
                }
                finally
                {
                    gate.Release();
                }
                mutator.Mutate(call.Body, operation.Schema);
                answers.Add(await Send(bodies.Coach.Http, operation, call, Mutator.Write(call.Body)));
            }
        }
    }

    private static async Task<Answer> Send(HttpClient http, Operation operation, Prepared call, string body)
    {
        using var request = new HttpRequestMessage(new(operation.Method), "/api/v1" + call.Path)
        {
            Content = new StringContent(body, Encoding.UTF8, "application/json"),
        };
        if (call.IfMatch is { } version)
            request.Headers.TryAddWithoutValidation("If-Match", version);
        using var answer = await http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        if ((int)answer.StatusCode >= 400 && JsonNode.Parse(text)?["code"]?.GetValue<string>() is not { Length: > 0 })
            Assert.Fail($"{operation.Name}: {answer.StatusCode} without a code: {text}");
        return new(operation.Name, (int)answer.StatusCode, body, text);
    }
}
