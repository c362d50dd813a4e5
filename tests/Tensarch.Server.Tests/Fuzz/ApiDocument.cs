using System.Text.Json.Nodes;

namespace Tensarch.Server.Tests.Fuzz;

/// <summary>An operation that takes a JSON body, as the OpenAPI description has it.</summary>
public sealed record Operation(string Method, string Path, JsonObject Schema)
{
    /// <summary>Such as <c>POST /students/{studentId}/readings</c>.</summary>
    public string Name => $"{Method} {Path}";
}

/// <summary>One value in a body that can be changed.</summary>
/// <param name="Schema">What the description says of it; empty where it says nothing.</param>
public sealed record Leaf(JsonNode Parent, string? Key, int Index, JsonObject Schema)
{
    public JsonNode? Value
    {
        get => Key is null ? Parent[Index] : Parent[Key];
        set
        {
            if (Key is null)
                Parent[Index] = value;
            else
                Parent[Key] = value;
        }
    }
}

/// <summary>The OpenAPI description, as far as the bodies of requests go.</summary>
public sealed class ApiDocument
{
    private readonly JsonObject document;

    private ApiDocument(JsonObject document) => this.document = document;

    public static ApiDocument Read() =>
        new(JsonNode.Parse(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "api.json")))!.AsObject());

    public IReadOnlyList<Operation> Operations() =>
        [
            .. from path in document["paths"]!.AsObject()
            from operation in path.Value!.AsObject()
            let schema = operation.Value!["requestBody"]?["content"]?["application/json"]?["schema"]
            where schema is not null
            select new Operation(operation.Key.ToUpperInvariant(), path.Key["/api/v1".Length..], Resolve(schema.AsObject(), null)),
        ];

    /// <summary>Every value at any depth, the containers too, each with its schema.</summary>
    public IEnumerable<Leaf> Leaves(JsonNode body, JsonObject schema)
    {
        if (body is JsonObject fields)
            foreach (var (key, value) in fields.ToList())
            {
                var own = Resolve(schema["properties"]?[key]?.AsObject() ?? [], value);
                yield return new(body, key, 0, own);
                if (value is JsonObject or JsonArray)
                    foreach (var leaf in Leaves(value, own))
                        yield return leaf;
            }
        else if (body is JsonArray list)
            for (var i = 0; i < list.Count; i++)
            {
                var own = Resolve(schema["items"]?.AsObject() ?? [], list[i]);
                yield return new(body, null, i, own);
                if (list[i] is JsonObject or JsonArray)
                    foreach (var leaf in Leaves(list[i]!, own))
                        yield return leaf;
            }
    }

    /// <summary>Follows references, leaves "or null" aside, and takes the kind of test that a value says it is.</summary>
    private JsonObject Resolve(JsonObject schema, JsonNode? value)
    {
        if (schema["$ref"] is { } reference)
            return Resolve(document["components"]!["schemas"]![reference.GetValue<string>().Split('/')[^1]]!.AsObject(), value);
        if (schema["oneOf"] is JsonArray choices)
            return Resolve(choices.OfType<JsonObject>().First(c => c["type"]?.ToString() != "null"), value);
        if (schema["discriminator"]?["mapping"] is JsonObject kinds && kinds[(value as JsonObject)?["kind"]?.ToString() ?? ""] is { } kind)
            return Resolve(new() { ["$ref"] = kind.GetValue<string>() }, null);
        return schema;
    }
}
