using System.Text.Json;
using System.Text.Json.Serialization;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core;

/// <summary>How the core's types are written as JSON, in content files and on the wire alike.</summary>
public static class CoreJson
{
    /// <summary>Numbers are numbers; enums are names: load tags and drill kinds in kebab case, all others in camel case.</summary>
    public static JsonSerializerOptions Apply(JsonSerializerOptions options)
    {
        options.NumberHandling = JsonNumberHandling.Strict;
        options.AllowOutOfOrderMetadataProperties = true;
        options.Converters.Add(new KebabCaseEnumConverter<LoadTag>());
        options.Converters.Add(new KebabCaseEnumConverter<DrillKind>());
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        return options;
    }
}
