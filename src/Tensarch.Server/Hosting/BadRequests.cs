using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Diagnostics;
using Tensarch.Core;

namespace Tensarch.Server.Hosting;

/// <summary>Turns what cannot be read (broken JSON, a word where a number belongs) into a problem at its field; hides the rest.</summary>
public sealed partial class BadRequests(ILogger<BadRequests> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (exception is BadHttpRequestException bad)
        {
            var problem = Read(bad);
            await Problems.Of(bad.StatusCode, problem.Code, problem).ExecuteAsync(httpContext);
            return true;
        }
        if (exception is OperationCanceledException && httpContext.RequestAborted.IsCancellationRequested)
            return true;
        log.LogError(exception, "Unhandled error at {Path}", httpContext.Request.Path);
        await Problems.Of(500, "unexpected").ExecuteAsync(httpContext);
        return true;
    }

    private static Problem Read(BadHttpRequestException bad)
    {
        if (bad.InnerException is not JsonException json)
            return new("unreadable", "");
        var at = json.Path?.TrimStart('$', '.') ?? "";
        if (json.Message.Contains("missing required", StringComparison.Ordinal))
        {
            var missing = Quoted().Matches(json.Message).Select(m => m.Groups[1].Value).Skip(1).FirstOrDefault() ?? "";
            return new("required", at.Length > 0 ? $"{at}.{missing}" : missing);
        }
        return new(at.Length > 0 ? "wrongType" : "invalidJson", at);
    }

    [GeneratedRegex("'([^']+)'")]
    private static partial Regex Quoted();
}
