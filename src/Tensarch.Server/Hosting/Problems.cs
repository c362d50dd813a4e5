using Microsoft.AspNetCore.Http.HttpResults;
using Tensarch.Core;
using Tensarch.Server.Data;

namespace Tensarch.Server.Hosting;

/// <summary>RFC 9457 problem details with a stable code; the web words them.</summary>
public static class Problems
{
    public static ProblemHttpResult Of(int status, string code, params Problem[] errors) =>
        TypedResults.Problem(
            statusCode: status,
            title: Title(status),
            extensions: new Dictionary<string, object?> { ["code"] = code, ["errors"] = errors }
        );

    /// <summary>What was typed cannot stand: the first problem's code, and all of them with their fields.</summary>
    public static ProblemHttpResult Unprocessable(IReadOnlyList<Problem> problems) => Of(422, problems[0].Code, [.. problems]);

    /// <summary>More than is done at once: 429, with when to try again.</summary>
    public static IResult TooMany(string code) => new Later(Of(429, code));

    private sealed class Later(ProblemHttpResult problem) : IResult
    {
        private const int Seconds = 2;

        public Task ExecuteAsync(HttpContext httpContext)
        {
            httpContext.Response.Headers.RetryAfter = Seconds.ToString(System.Globalization.CultureInfo.InvariantCulture);
            return problem.ExecuteAsync(httpContext);
        }
    }

    public static ProblemHttpResult NotFound() => Of(404, "notFound");

    public static ProblemHttpResult IdTaken() => Of(409, "idTaken");

    /// <summary>The code of an answer that only its status tells about: what routing or the host refused.</summary>
    public static string CodeOf(int status) =>
        status switch
        {
            401 => "signedOut",
            403 => "readsOnly",
            404 => "notFound",
            405 => "wrongMethod",
            408 => "tooSlow",
            413 => "tooLarge",
            415 => "wrongMediaType",
            429 => "tooManyTries",
            431 => "headersTooLarge",
            507 => "storageFull",
            >= 500 => "unexpected",
            _ => "unreadable",
        };

    /// <summary>New → 201, the same again → 200, another body under the id → 409.</summary>
    public static IResult Respond<T>(Appended appended, string location, T body) =>
        appended switch
        {
            Appended.Stored => TypedResults.Created(location, body),
            Appended.SameAgain => TypedResults.Ok(body),
            _ => IdTaken(),
        };

    private static string Title(int status) =>
        status switch
        {
            400 => "The request could not be read.",
            401 => "Sign in first.",
            403 => "This is not yours to do.",
            404 => "Not found.",
            405 => "This is not done here.",
            409 => "The id is taken.",
            413 => "Too large.",
            415 => "Not this kind of body.",
            412 => "Someone else changed it meanwhile.",
            422 => "Something that was sent cannot stand.",
            429 => "Too many tries.",
            503 => "Not now.",
            507 => "There is no room left.",
            _ => "Something went wrong.",
        };
}
