using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using Microsoft.Extensions.FileProviders;

namespace Tensarch.Server.Hosting;

/// <summary>A strict Content-Security-Policy and its companions. The built page's start script is allowed by its hash.</summary>
public static partial class SecurityHeaders
{
    public static IApplicationBuilder UseSecurityHeaders(this IApplicationBuilder app, IFileProvider webRoot)
    {
        var policy = Policy(webRoot.GetFileInfo("index.html"));
        return app.Use(
            (context, next) =>
            {
                // At the last moment: an answer to an error begins with its headers cleared.
                context.Response.OnStarting(() =>
                {
                    Set(context);
                    return Task.CompletedTask;
                });
                return next(context);
            }
        );

        void Set(HttpContext context)
        {
            var headers = context.Response.Headers;
            headers.ContentSecurityPolicy = policy;
            headers.XContentTypeOptions = "nosniff";
            headers["Referrer-Policy"] = "same-origin";
            headers["Cross-Origin-Opener-Policy"] = "same-origin";
            headers["Cross-Origin-Resource-Policy"] = "same-origin";
            headers["Permissions-Policy"] = "camera=(), microphone=(), geolocation=()";
            if (context.Request.Path.StartsWithSegments("/api"))
                headers.CacheControl = "no-store";
        }
    }

    private static string Policy(IFileInfo index)
    {
        var scripts = index.Exists ? string.Concat(Inline(Read(index)).Select(hash => $" 'sha256-{hash}'")) : "";
        return $"default-src 'none'; script-src 'self'{scripts}; style-src 'self'; style-src-attr 'unsafe-inline'; img-src 'self' data:; media-src 'self'; "
            + "font-src 'self'; connect-src 'self'; manifest-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";
    }

    private static string Read(IFileInfo file)
    {
        using var reader = new StreamReader(file.CreateReadStream());
        return reader.ReadToEnd();
    }

    private static IEnumerable<string> Inline(string html) =>
        InlineScript().Matches(html).Select(m => Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(m.Groups[1].Value))));

    [GeneratedRegex("<script>(.*?)</script>", RegexOptions.Singleline)]
    private static partial Regex InlineScript();
}
