using Microsoft.Extensions.FileProviders;

namespace Tensarch.Server.Hosting;

/// <summary>The built front end: hashed files are kept for good, the page itself is asked for anew each time.</summary>
public static class WebFiles
{
    public static void UseWebFiles(this IApplicationBuilder app, IFileProvider webRoot) =>
        app.UseStaticFiles(
            new StaticFileOptions
            {
                FileProvider = webRoot,
                OnPrepareResponse = context =>
                    context.Context.Response.Headers.CacheControl = context.Context.Request.Path.StartsWithSegments("/_app/immutable")
                        ? "public, max-age=31536000, immutable"
                        : "no-cache",
            }
        );

    public static void MapWebFallback(this IEndpointRouteBuilder app, IFileProvider webRoot) =>
        app.MapFallbackToFile(
            "index.html",
            new StaticFileOptions
            {
                FileProvider = webRoot,
                OnPrepareResponse = context => context.Context.Response.Headers.CacheControl = "no-cache",
            }
        );
}
