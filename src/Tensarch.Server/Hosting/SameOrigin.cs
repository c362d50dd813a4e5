namespace Tensarch.Server.Hosting;

/// <summary>
/// Refuses writes that another site's page makes with a coach's cookie: what the browser says of the request's origin must be
/// this server. A client without a browser sends neither header and carries no cookie by accident.
/// </summary>
public static class SameOrigin
{
    public static IApplicationBuilder UseSameOrigin(this IApplicationBuilder app) =>
        app.Use(
            async (context, next) =>
            {
                if (IsWrite(context.Request.Method) && IsForeign(context.Request))
                    await Problems.Of(403, "crossSite").ExecuteAsync(context);
                else
                    await next(context);
            }
        );

    private static bool IsWrite(string method) =>
        !HttpMethods.IsGet(method) && !HttpMethods.IsHead(method) && !HttpMethods.IsOptions(method);

    private static bool IsForeign(HttpRequest request)
    {
        var site = request.Headers["Sec-Fetch-Site"].ToString();
        if (site.Length > 0 && site is not ("same-origin" or "none"))
            return true;
        var origin = request.Headers.Origin.ToString();
        return origin.Length > 0 && !(Uri.TryCreate(origin, UriKind.Absolute, out var uri) && uri.Authority == request.Host.Value);
    }
}
