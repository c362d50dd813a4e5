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

    /// <summary>
    /// What no endpoint answers, and is no file and not of the API, is a page: the front end says itself which ones there are. No endpoint of its
    /// own, so that a method that an endpoint does not know stays a 405.
    /// </summary>
    public static void UseWebPages(this IApplicationBuilder app, IFileProvider webRoot)
    {
        app.Use(
            (context, next) =>
            {
                if (context.GetEndpoint() is null && IsPage(context.Request))
                    context.Request.Path = "/index.html";
                return next(context);
            }
        );
        app.UseStaticFiles(
            new StaticFileOptions
            {
                FileProvider = webRoot,
                OnPrepareResponse = context => context.Context.Response.Headers.CacheControl = "no-cache",
            }
        );
    }

    private static bool IsPage(HttpRequest request) =>
        (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method))
        && !request.Path.StartsWithSegments("/api")
        && !Path.HasExtension(request.Path);
}
