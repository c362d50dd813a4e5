using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.Data.Sqlite;
using Microsoft.Net.Http.Headers;
using Tensarch.Core;
using Tensarch.Server.Programmes;

namespace Tensarch.Server.Hosting;

/// <summary>Turns what cannot be read (broken JSON, a word where a number belongs) and what cannot be kept (a full disk) into problem details; hides the rest.</summary>
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
        // A kind of thing that has no name: the reader of JSON says so in its own way.
        if (exception is NotSupportedException { Source: "System.Text.Json" })
        {
            await Problems
                .Of(400, "wrongType", new Problem("wrongType", At().Match(exception.Message).Groups[1].Value))
                .ExecuteAsync(httpContext);
            return true;
        }
        if (exception is InvalidOperationException && HasUnknownCharset(httpContext.Request))
        {
            await Problems.Of(415, Problems.CodeOf(415)).ExecuteAsync(httpContext);
            return true;
        }
        if (exception is OperationCanceledException && httpContext.RequestAborted.IsCancellationRequested)
            return true;
        if (exception is TooManyPlansException)
        {
            await Problems.TooMany("busy").ExecuteAsync(httpContext);
            return true;
        }
        var (status, code) = CouldNotKeep(exception);
        if (status == StatusCodes.Status500InternalServerError)
            Unexpected(exception, httpContext.Request.Path);
        else
            NotKept(code, httpContext.Request.Path, Innermost(exception).Message);
        await (status == StatusCodes.Status429TooManyRequests ? Problems.TooMany(code) : Problems.Of(status, code)).ExecuteAsync(
            httpContext
        );
        return true;
    }

    /// <summary>No room on the disk is 507, a database that nobody may write to 503; one that is busy for too long is 429, for it can be had later. Nothing of the request was kept.</summary>
    public static (int Status, string Code) CouldNotKeep(Exception exception) =>
        Innermost(exception) switch
        {
            SqliteException { SqliteErrorCode: SQLitePCL.raw.SQLITE_FULL } => (StatusCodes.Status507InsufficientStorage, "storageFull"),
            IOException { HResult: NoSpaceOnLinux or NoSpaceOnWindows } => (StatusCodes.Status507InsufficientStorage, "storageFull"),
            SqliteException
            {
                SqliteErrorCode: SQLitePCL.raw.SQLITE_READONLY or SQLitePCL.raw.SQLITE_CANTOPEN or SQLitePCL.raw.SQLITE_IOERR
            } => (StatusCodes.Status503ServiceUnavailable, "notWritable"),
            SqliteException { SqliteErrorCode: SQLitePCL.raw.SQLITE_BUSY or SQLitePCL.raw.SQLITE_LOCKED } => (
                StatusCodes.Status429TooManyRequests,
                "busy"
            ),
            _ => (StatusCodes.Status500InternalServerError, "unexpected"),
        };

    private const int NoSpaceOnLinux = 28;
    private const int NoSpaceOnWindows = unchecked((int)0x80070070);

    private static Exception Innermost(Exception exception)
    {
        while (exception.InnerException is { } inner)
            exception = inner;
        return exception;
    }

    private static bool HasUnknownCharset(HttpRequest request)
    {
        if (!MediaTypeHeaderValue.TryParse(request.ContentType, out var type) || !type.Charset.HasValue)
            return false;
        try
        {
            return Encoding.GetEncoding(type.Charset.Value) is null;
        }
        // One that nobody knows, or one that .NET no longer reads, such as UTF-7.
        catch (Exception e) when (e is ArgumentException or NotSupportedException)
        {
            return true;
        }
    }

    private static Problem Read(BadHttpRequestException bad)
    {
        if (bad.StatusCode != StatusCodes.Status400BadRequest)
            return new(Problems.CodeOf(bad.StatusCode), "");
        if (bad.InnerException is not JsonException json)
            return new("unreadable", "");
        var at = json.Path?.TrimStart('$', '.') ?? "";
        if (json.Message.Contains("missing required", StringComparison.Ordinal))
        {
            var missing = Quoted().Matches(json.Message).Select(m => m.Groups[1].Value).Skip(1).FirstOrDefault() ?? "";
            return new("required", at.Length > 0 ? $"{at}.{missing}" : missing);
        }
        return new(json.InnerException is JsonException || at.Length == 0 ? "invalidJson" : "wrongType", at);
    }

    [GeneratedRegex(@"Path: \$\.?(\S*)")]
    private static partial Regex At();

    [GeneratedRegex("'([^']+)'")]
    private static partial Regex Quoted();

    [LoggerMessage(Level = LogLevel.Error, Message = "Unhandled error at {Path}")]
    private partial void Unexpected(Exception e, PathString path);

    [LoggerMessage(Level = LogLevel.Error, Message = "Nothing was kept at {Path}, {Code}: {Reason}")]
    private partial void NotKept(string code, PathString path, string reason);
}
