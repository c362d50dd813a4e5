using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Tensarch.Core;

namespace Tensarch.Server.Hosting;

/// <summary>Turns what cannot be read (broken JSON, a word where a number belongs) into a problem at its field; hides the rest.</summary>
public sealed class BadRequests(ILogger<BadRequests> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (exception is BadHttpRequestException bad)
        {
            var json = bad.InnerException as JsonException;
            var field = json?.Path?.TrimStart('$', '.') ?? "";
            var code =
                json is null ? "unreadable"
                : field.Length > 0 ? "wrongType"
                : "invalidJson";
            await Problems.Of(bad.StatusCode, code, new Problem(code, field)).ExecuteAsync(httpContext);
            return true;
        }
        if (exception is OperationCanceledException && httpContext.RequestAborted.IsCancellationRequested)
            return true;
        log.LogError(exception, "Unhandled error at {Path}", httpContext.Request.Path);
        await Problems.Of(500, "unexpected").ExecuteAsync(httpContext);
        return true;
    }
}
