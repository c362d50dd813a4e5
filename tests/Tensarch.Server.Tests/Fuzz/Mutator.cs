using System.Globalization;
using System.Text.Json.Nodes;

namespace Tensarch.Server.Tests.Fuzz;

/// <summary>Changes one or two values of a body: to the limits that the description names and past them, and to what no body should hold.</summary>
public sealed class Mutator(ApiDocument api, Random random, IReadOnlyList<Guid> foreign)
{
    /// <summary>What JSON nodes cannot hold stands in the body as a marked text, and is put in its place when it is written.</summary>
    private static readonly Dictionary<string, string> Raw = new()
    {
        ["@huge@"] = "1e400",
        ["@minushuge@"] = "-1e400",
        ["@surrogate@"] = "\"\\ud800\"",
        ["@nul@"] = "\"a\\u0000b\"",
        ["@deep@"] = new string('[', 70) + new string(']', 70),
        ["@negativezero@"] = "-0.0",
        ["@big@"] = "99999999999999999999999999",
    };

    public static string Write(JsonNode body) =>
        Raw.Aggregate(body.ToJsonString(), (text, raw) => text.Replace($"\"{raw.Key}\"", raw.Value, StringComparison.Ordinal));

    public void Mutate(JsonNode body, JsonObject schema)
    {
        for (var times = random.Next(1, 3); times > 0; times--)
        {
            var leaves = api.Leaves(body, schema).ToList();
            if (leaves.Count > 0)
                Change(leaves[random.Next(leaves.Count)]);
        }
    }

    private void Change(Leaf leaf)
    {
        var gentle = random.Next(100) < 65;
        leaf.Value = gentle && Gentle(leaf) is { } value ? value : Hostile(leaf);
    }

    private JsonNode? Pick(params JsonNode?[] values) => values[random.Next(values.Length)];

    /// <summary>At the limit, just inside it and just outside.</summary>
    private JsonNode? Gentle(Leaf leaf)
    {
        var schema = leaf.Schema;
        if (Number(schema, "minimum") is { } least && Number(schema, "maximum") is { } most)
        {
            var step = schema["type"]?.ToJsonString().Contains("integer", StringComparison.Ordinal) == true ? 1 : 0.5;
            return Pick(least, most, least - 1, most + 1, least + step, most - step, Math.Round((least + most) / 2));
        }
        if (schema["enum"] is JsonArray names)
            return names[random.Next(names.Count)]!.DeepClone();
        if (Number(schema, "maxLength") is { } longest && schema["pattern"] is null && longest <= 2000)
            return Pick(
                new string('x', (int)longest),
                new string('y', (int)longest + 1),
                "Ein Satz über Ångström, 日本, 🙂.",
                "  padded  ",
                ""
            );
        if (schema["pattern"] is not null)
            return Pick("front-split", "left", "no-such-key", new string('k', 60), new string('k', 61), "Large", "");
        if (schema["format"]?.GetValue<string>() == "uuid")
            return Pick(Guid.NewGuid().ToString(), foreign[random.Next(foreign.Count)].ToString(), Guid.Empty.ToString());
        if (schema["format"]?.GetValue<string>() is "date" or "date-time")
        {
            var day = Pick("1900-01-01", "1899-12-31", "2035-03-03", "2035-03-02", "2036-01-01", "2040-03-03", "2040-03-04")!
                .GetValue<string>();
            return schema["format"]!.GetValue<string>() == "date" ? day : day + "T09:00:00Z";
        }
        if (leaf.Value is JsonArray list && list.Count > 0)
            return Repeated(list, random.Next(2) == 0 ? 2 : (int)(Number(schema, "maxItems") ?? 100) + random.Next(2));
        return leaf.Value is JsonValue flag && flag.TryGetValue<bool>(out var yes) ? !yes : null;
    }

    private static JsonArray Repeated(JsonArray list, int times) => [.. Enumerable.Range(0, times).Select(_ => list[0]?.DeepClone())];

    private JsonNode? Hostile(Leaf leaf) =>
        random.Next(18) switch
        {
            0 => "@huge@",
            1 => "@minushuge@",
            2 => null,
            3 => new JsonArray(null, null),
            4 => "@nul@",
            5 => "@surrogate@",
            6 => "@deep@",
            7 => foreign[random.Next(foreign.Count)].ToString(),
            8 => IsTime(leaf) ? "0001-01-01T00:00:00Z" : "0001-01-01",
            9 => IsTime(leaf) ? "9999-12-31T23:59:59Z" : "9999-12-31",
            10 => "@big@",
            11 => "@negativezero@",
            12 => 1e308,
            13 => new JsonObject(),
            14 => new JsonArray(),
            15 => Guid.Empty.ToString(),
            16 => Pick("..", "größe", "a/b", "%00", "'; DROP TABLE Students; --", "<script>", new string('k', 61)),
            _ => int.MinValue,
        };

    private static bool IsTime(Leaf leaf) => leaf.Schema["format"]?.ToString() == "date-time";

    private static double? Number(JsonObject schema, string name) =>
        schema[name] is { } limit ? double.Parse(limit.ToString(), CultureInfo.InvariantCulture) : null;
}
