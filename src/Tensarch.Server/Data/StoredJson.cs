using System.Text.Json;
using Tensarch.Core;

namespace Tensarch.Server.Data;

/// <summary>How the core's records are written into a column.</summary>
public static class StoredJson
{
    public static readonly JsonSerializerOptions Options = CoreJson.Apply(new(JsonSerializerDefaults.Web));

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    public static T Read<T>(string json) => JsonSerializer.Deserialize<T>(json, Options)!;
}
