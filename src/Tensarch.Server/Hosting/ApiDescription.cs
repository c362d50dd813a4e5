using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Tensarch.Server.Hosting.Door;

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
                foreach (var schema in document.Components?.Schemas?.Values.OfType<OpenApiSchema>() ?? [])
                    WithoutNull(schema);
                return Task.CompletedTask;
            }
        );
        options.AddDocumentTransformer<DescribedLimits>();
    }

    /// <summary>An enum that is met as nullable first is described as if null were one of its names; where it may be none, its use says so.</summary>
    private static void WithoutNull(OpenApiSchema schema)
    {
        if (schema.Enum is not { } names)
            return;
        foreach (var none in names.Where(n => n is null || n.IsJsonNullSentinel()).ToList())
            names.Remove(none);
    }
}
