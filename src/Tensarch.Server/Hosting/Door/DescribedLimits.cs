using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization.Metadata;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.Extensions.Options;
using Microsoft.OpenApi;

namespace Tensarch.Server.Hosting.Door;

/// <summary>
/// Writes the limits that the door holds into the description, on everything that a body may bring. What JSON Schema has no word for is an
/// extension: <c>x-earliest</c>, <c>x-years-ahead</c>, <c>x-not-future</c>.
/// </summary>
public sealed class DescribedLimits(IOptions<JsonOptions> options) : IOpenApiDocumentTransformer
{
    private readonly JsonSerializerOptions json = options.Value.SerializerOptions;
    private readonly HashSet<Type> seen = [];

    public Task TransformAsync(OpenApiDocument document, OpenApiDocumentTransformerContext context, CancellationToken cancellationToken)
    {
        var bodies =
            from groups in context.DescriptionGroups
            from endpoint in groups.Items
            from parameter in endpoint.ParameterDescriptions
            where parameter.Source.Id == "Body" && parameter.Type is not null
            select parameter.Type;
        foreach (var body in bodies.Distinct())
            Look(body, document);
        return Task.CompletedTask;
    }

    private void Look(Type type, OpenApiDocument document)
    {
        type = Nullable.GetUnderlyingType(type) ?? type;
        if (!seen.Add(type))
            return;
        var info = json.GetTypeInfo(type);
        if (info.Kind == JsonTypeInfoKind.Enumerable)
            Look(info.ElementType!, document);
        foreach (var derived in info.PolymorphismOptions?.DerivedTypes ?? [])
            LookInside(json.GetTypeInfo(derived.DerivedType), $"{NameOf(info)}{derived.DerivedType.Name}", document);
        if (info.Kind == JsonTypeInfoKind.Object)
            LookInside(info, NameOf(info), document);
    }

    private static string NameOf(JsonTypeInfo info) => OpenApiOptions.CreateDefaultSchemaReferenceId(info) ?? "";

    private void LookInside(JsonTypeInfo info, string name, OpenApiDocument document)
    {
        if (
            document.Components?.Schemas is not { } schemas
            || !schemas.TryGetValue(name, out var found)
            || found is not OpenApiSchema schema
        )
            return;
        foreach (var property in info.Properties.Where(BodyCheck.IsRead))
        {
            if (schema.Properties?.TryGetValue(property.Name, out var read) == true && read is OpenApiSchema field)
                Describe(field, property.PropertyType, Limit.Of(property));
            Look(property.PropertyType, document);
        }
    }

    private void Describe(OpenApiSchema schema, Type type, Limit limit)
    {
        type = Nullable.GetUnderlyingType(type) ?? type;
        if (type == typeof(string))
        {
            schema.MaxLength = limit.Longest;
            schema.MinLength = limit.Needed ? Math.Max(1, limit.Shortest) : null;
            schema.Pattern = limit.Pattern;
        }
        else if (type == typeof(double) || type == typeof(int))
        {
            schema.Minimum = limit.Min.ToString(CultureInfo.InvariantCulture);
            schema.Maximum = limit.Max.ToString(CultureInfo.InvariantCulture);
        }
        else if (type == typeof(DateOnly) || type == typeof(DateTimeOffset))
        {
            schema.Extensions ??= new Dictionary<string, IOpenApiExtension>();
            schema.Extensions["x-earliest"] = new JsonNodeExtension(Limit.FirstDay.ToString("O", CultureInfo.InvariantCulture));
            schema.Extensions[limit.Past ? "x-not-future" : "x-years-ahead"] = new JsonNodeExtension(
                limit.Past ? JsonValue.Create(true) : JsonValue.Create(Limit.YearsAhead)
            );
        }
        else if (json.GetTypeInfo(type) is { Kind: JsonTypeInfoKind.Enumerable, ElementType: { } element })
        {
            schema.MaxItems = limit.Most;
            if (schema.Items is OpenApiSchema items)
                Describe(items, element, limit);
        }
    }
}
