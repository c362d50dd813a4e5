using System.Net.Sockets;
using System.Text;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Extensions.DependencyInjection;

namespace Tensarch.Server.Tests.Fuzz;

/// <summary>
/// Aimed requests over a real socket, byte by byte as they are sent: what only the server itself meets, before any code of ours. Each is
/// answered, with no 5xx, and the server is there afterwards.
/// </summary>
public sealed partial class KestrelTests(KestrelTests.Served served) : IClassFixture<KestrelTests.Served>
{
    /// <summary>The application on Kestrel, at a port of its own on the loopback.</summary>
    public sealed class Served : IAsyncLifetime
    {
        public StudioApp App { get; } = new();

        public int Port { get; private set; }

        public string Cookie { get; private set; } = "";

        public Guid Student { get; private set; }

        public async ValueTask InitializeAsync()
        {
            App.UseKestrel(0);
            App.StartServer();
            var address = App.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();
            Port = new Uri(address).Port;
            var coach = await App.Studio();
            Student = await coach.Student();
            Cookie = (await coach.SignIn()).Headers.GetValues("Set-Cookie").Single().Split(';')[0];
        }

        public ValueTask DisposeAsync() => App.DisposeAsync();
    }

    private static readonly string Json = "Content-Type: application/json\r\n";

    private static string Post(string path, string body, string headers = "", string? length = null, string? type = null) =>
        $"POST /api/v1{path} HTTP/1.1\r\nHost: h\r\n{type ?? Json}{headers}Content-Length: {length ?? Encoding.UTF8.GetByteCount(body).ToString(System.Globalization.CultureInfo.InvariantCulture)}\r\n\r\n{body}";

    private static string Get(string path, string headers = "") => $"GET {path} HTTP/1.1\r\nHost: h\r\n{headers}\r\n";

    private const string Reading =
        """{"id":"{id}","measure":"passive-slr","side":"left","warmth":"warm","standard":null,"instrument":"goniometer","trials":[80],"compensations":[],"quality":null,"sensation":null,"pain":null,"note":null,"takenAt":null}""";

    private static string Read(string sound, string sent) =>
        Post(
            "/students/{student}/readings",
            Reading.Replace("{id}", Guid.NewGuid().ToString(), StringComparison.Ordinal).Replace(sound, sent, StringComparison.Ordinal)
        );

    /// <summary>What is sent, and the statuses that are an answer to it.</summary>
    public static TheoryData<string, string, int[]> Aimed()
    {
        var deep = new string('[', 70) + new string(']', 70);
        var large = new string('x', 1_100_000);
        var (readings, long_) = ("/students/{student}/readings", new string('a', 9000));
        var data = new TheoryData<string, string, int[]>();
        void Add(string name, string request, params int[] statuses) => data.Add(name, request, statuses);

        Add("a reading that stands", Read("[80]", "[80]"), 201);
        Add("1e400", Read("[80]", "[1e400]"), 422);
        Add("-1e400", Read("[80]", "[-1e400]"), 422);
        Add("five of 1e308", Read("[80]", "[1e308,1e308,1e308,1e308,1e308]"), 422);
        Add("NaN", Read("[80]", "[NaN]"), 400);
        Add("Infinity as text", Read("[80]", "[\"Infinity\"]"), 400);
        Add("a hundred thousand digits", Read("[80]", $"[{new string('9', 100_000)}]"), 400, 422);
        Add("[null] of numbers", Read("[80]", "[null]"), 400);
        Add("[null] of texts", Read("\"compensations\":[]", "\"compensations\":[null]"), 422);
        Add("null for a list", Read("\"compensations\":[]", "\"compensations\":null"), 400);
        Add("a NUL in a text", Read("\"note\":null", "\"note\":\"a\\u0000b\""), 422);
        Add("half a surrogate pair", Read("\"note\":null", "\"note\":\"\\ud800\""), 400);
        Add("seventy levels", Read("\"note\":null", $"\"note\":{deep}"), 400);
        Add("the year 1", Read("\"takenAt\":null", "\"takenAt\":\"0001-01-01T00:00:00Z\""), 422);
        Add("the year 1, before it in UTC", Read("\"takenAt\":null", "\"takenAt\":\"0001-01-01T00:00:00+14:00\""), 400);
        Add("the year 9999", Read("\"takenAt\":null", "\"takenAt\":\"9999-12-31T23:59:59-14:00\""), 400, 422);
        Add("the thirtieth of February", Read("\"takenAt\":null", "\"takenAt\":\"2035-02-30T00:00:00Z\""), 400);
        Add("a kind of test without a name", Post("/ladders/try", """{"key":"a","stages":[{"tests":[{}]}],"everyGate":[{}]}"""), 400);
        Add("an empty body", Post(readings, ""), 400);
        Add("no JSON", Post(readings, "<xml/>"), 400);
        Add("JSON that breaks off", Post(readings, "{\"id\":"), 400);
        Add("bytes that are no UTF-8", Post(readings, "{\"note\":\"\u00ff\"}", length: "12"), 400);
        Add("a list for an object", Post(readings, "[]"), 400);
        Add("null for an object", Post(readings, "null"), 400);
        Add("a body of a megabyte and more", Post("/ladders/read", $"{{\"text\":\"{large}\"}}"), 413);
        Add("a length of ten gigabytes", Post(readings, "{}", length: "10000000000"), 413, 400);
        Add("a length below zero", Post(readings, "{}", length: "-1"), 400);
        Add("a length that is no number", Post(readings, "{}", length: "many"), 400);
        Add("two lengths", Post(readings, "{}", "Content-Length: 3\r\n"), 400);
        Add(
            "a chunk that is none",
            $"POST /api/v1{readings} HTTP/1.1\r\nHost: h\r\n{Json}Transfer-Encoding: chunked\r\n\r\nzz\r\n{{}}\r\n",
            400
        );
        Add("text/plain", Post(readings, "{}", type: "Content-Type: text/plain\r\n"), 415);
        Add("no type", Post(readings, "{}", type: ""), 415);
        Add("a type that is none", Post(readings, "{}", type: "Content-Type: ;;;\r\n"), 415);
        Add("a charset that is none", Post(readings, "{}", type: "Content-Type: application/json; charset=klingon\r\n"), 400, 415);
        Add("DELETE", "DELETE /api/v1/students HTTP/1.1\r\nHost: h\r\n\r\n", 405);
        Add("a method that nobody knows", "BREW /api/v1/students HTTP/1.1\r\nHost: h\r\n\r\n", 405);
        Add("TRACE", "TRACE /api/v1/students HTTP/1.1\r\nHost: h\r\n\r\n", 405);
        Add("a path that is not there", Get("/api/v1/nothing"), 404);
        // Kestrel takes the dots away: what is left is a page of the front end, where there is one.
        Add("a path upwards", Get("/api/v1/../../etc/passwd"), 404, 200);
        Add("a path upwards, escaped", Get("/api/v1/students/%2e%2e%2f%2e%2e%2fetc%2fpasswd"), 404);
        Add("a NUL in the path", Get("/api/v1/students/%00"), 400, 404);
        Add("a broken escape in the path", Get("/api/v1/students/%zz"), 400, 404);
        Add("half a surrogate pair in the path", Get("/api/v1/ladders/%ED%A0%80/versions/1"), 400, 404);
        Add("a version past every number", Get("/api/v1/ladders/crow/versions/99999999999999999999"), 404);
        Add("a cursor that is none", Get("/api/v1/readiness?after=NaN_00000000-0000-0000-0000-000000000001"), 200);
        Add("a query of nine thousand letters", Get($"/api/v1/students?find={long_}"), 414, 422, 400);
        Add("a query that is given twice", Get("/api/v1/students?find=a&find=b"), 200, 400);
        Add("a header of forty thousand letters", Get("/api/v1/students", $"X-Long: {new string('a', 40_000)}\r\n"), 431, 400);
        Add("a cookie that is none", Get("/api/v1/students", "Cookie: tensarch=nonsense\r\n"), 200, 401);
        Add("no host", "GET /api/v1/students HTTP/1.1\r\n\r\n", 400);
        Add(
            "an If-Match that is none",
            Post("/students/{student}/archive", """{"archived":false}""", "If-Match: \"\u0001\"\r\n"),
            400,
            412,
            422
        );
        Add("a sign-in of nulls", Post("/accounts/sign-in", """{"email":null,"password":null}"""), 400);
        return data;
    }

    [Fact]
    public void There_are_fifty_of_them() => Assert.True(Aimed().Count >= 50, $"{Aimed().Count}");

    [Theory]
    [MemberData(nameof(Aimed))]
    public async Task An_aimed_request_is_answered(string name, string request, int[] statuses)
    {
        var text = request.Replace("{student}", served.Student.ToString(), StringComparison.Ordinal);
        var cookie = text.Contains("Cookie:", StringComparison.Ordinal) ? "" : $"Cookie: {served.Cookie}\r\n";
        var first = text.IndexOf("\r\n", StringComparison.Ordinal) + 2;
        var answer = await Exchange(text.Insert(first, $"Connection: close\r\n{cookie}"));
        var status = int.Parse(Status().Match(answer).Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture);
        Assert.True(statuses.Contains(status), $"{name}: {answer[..Math.Min(600, answer.Length)]}");
        // What Kestrel itself refuses has neither headers of ours nor a body; all else is whole.
        if (status >= 400 && answer.Contains("Content-Type", StringComparison.OrdinalIgnoreCase))
        {
            Assert.Contains("application/problem+json", answer, StringComparison.Ordinal);
            Assert.Contains("Content-Security-Policy: default-src 'none'", answer, StringComparison.Ordinal);
            Assert.Matches("\"code\":\"[a-zA-Z]+\"", answer);
        }
        Assert.Contains("200 OK", await Exchange(Get("/health/ready", "Connection: close\r\n")), StringComparison.Ordinal);
    }

    private async Task<string> Exchange(string request)
    {
        using var client = new TcpClient();
        await client.ConnectAsync("127.0.0.1", served.Port);
        await using var stream = client.GetStream();
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        try
        {
            await stream.WriteAsync(Encoding.Latin1.GetBytes(request), patience.Token);
        }
        catch (IOException) { } // The server may have answered and closed before it had read all of it.
        using var answer = new MemoryStream();
        try
        {
            await stream.CopyToAsync(answer, patience.Token);
        }
        catch (IOException) when (answer.Length > 0) { }
        return Encoding.UTF8.GetString(answer.ToArray());
    }

    [GeneratedRegex(@"\AHTTP/1\.1 (\d{3})")]
    private static partial Regex Status();
}
