using Microsoft.AspNetCore.OpenApi;

namespace Tensarch.Server.Hosting;

/// <summary>The OpenAPI document from which the web's client types are generated.</summary>
public static class ApiDescription
{
    public static void Configure(OpenApiOptions options)
    {
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info.Title = "Tensarch";
                document.Info.Version = "v1";
                document.Servers?.Clear();
                return Task.CompletedTask;
            }
        );
    }
}
