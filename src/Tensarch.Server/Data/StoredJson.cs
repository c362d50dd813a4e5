using System.Text.Json;
using System.Text.Json.Serialization;
using Tensarch.Core;

namespace Tensarch.Server.Data;

/// <summary>How the core's records are written into a column.</summary>
public static class StoredJson
{
    public static readonly JsonSerializerOptions Options = CoreJson.Apply(new(JsonSerializerDefaults.Web));

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>For files that people read.</summary>
    public static string WriteIndented<T>(T value) => JsonSerializer.Serialize(value, Indented);

    private static readonly JsonSerializerOptions Indented = new(Options)
    {
        WriteIndented = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    /// <summary>None where there is none, or where what is stored cannot be read: a page survives the one line.</summary>
    public static T? TryRead<T>(string? json)
        where T : class
    {
        try
        {
            return string.IsNullOrEmpty(json) ? null : JsonSerializer.Deserialize<T>(json, Options);
        }
        catch (Exception e) when (e is JsonException or NotSupportedException or ArgumentException)
        {
            return null;
        }
    }

    public static T Read<T>(string json) => JsonSerializer.Deserialize<T>(json, Options)!;
}
