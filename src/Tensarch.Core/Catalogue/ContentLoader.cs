using System.Text.Json;
using System.Text.Json.Serialization;
using NJsonSchema;
using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Catalogue;

/// <summary>Reads the content files embedded in the core. Bad content stops the start, with file, path and reason.</summary>
public static class ContentLoader
{
    private static readonly JsonSerializerOptions Json = CoreJson.Apply(
        new(JsonSerializerDefaults.Web) { UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow, RespectNullableAnnotations = true }
    );

    /// <summary>Read and checked once: the content does not change while the program runs.</summary>
    private static readonly Lazy<CatalogueContent> Once = new(() => Load(Shipped()));

    /// <summary>The embedded files by their path below <c>Content</c>, such as <c>ladders/front-split.v1.json</c>.</summary>
    public static IReadOnlyDictionary<string, string> Shipped() => Resources("content/");

    /// <exception cref="ContentException">A file breaks its schema, or names something that does not exist.</exception>
    public static CatalogueContent Load() => Once.Value;

    /// <inheritdoc cref="Load()"/>
    public static CatalogueContent Load(IReadOnlyDictionary<string, string> files)
    {
        var schemas = Resources("schema/");
        // Each file on its own thread: checking against a schema is most of the work of a start.
        var measures = Task.Run(() => Newest<MeasureFile>(files, schemas, "measures"));
        var drills = Task.Run(() => Newest<DrillFile>(files, schemas, "drills"));
        var ladders = files
            .Where(f => f.Key.StartsWith("ladders/", StringComparison.Ordinal))
            .Select(f => Task.Run(() => Read<Ladder>(f.Key, f.Value, schemas, "ladder")))
            .ToList();
        var questions = Task.Run(() => Newest<IntakeFile>(files, schemas, "intake"));
        var rules = Task.Run(() => Newest<StopRuleFile>(files, schemas, "stop-rules"));
        var approaches = Task.Run(() => Newest<ApproachFile>(files, schemas, "approaches"));
        var dayGates = Task.Run(() => Newest<DayGateFile>(files, schemas, "day-gates"));
        var shape = Task.Run(() => Newest<SessionShape>(files, schemas, "session-shape"));
        var programme = Task.Run(() => Newest<ProgrammeRules>(files, schemas, "programme"));
        var skills = Newest<SkillFile>(files, schemas, "skills").Skills;
        var shown = measures.GetAwaiter().GetResult();
        var content = new CatalogueContent(
            shown.Measures,
            shown.Positions,
            shown.Batteries,
            shown.Views,
            [.. ladders.Select(l => l.GetAwaiter().GetResult()).OrderBy(l => Place(skills, l.Key)).ThenBy(l => l.Version)],
            drills.GetAwaiter().GetResult().Drills,
            questions.GetAwaiter().GetResult().Questions,
            rules.GetAwaiter().GetResult().Rules,
            approaches.GetAwaiter().GetResult().Approaches,
            dayGates.GetAwaiter().GetResult().DayGates,
            shape.GetAwaiter().GetResult(),
            programme.GetAwaiter().GetResult()
        );
        ContentCheck.Check(content);
        return content;
    }

    private static int Place(IReadOnlyList<string> skills, string ladder) =>
        skills.Index().Where(s => s.Item == ladder).Select(s => s.Index).DefaultIfEmpty(skills.Count).First();

    private static T Newest<T>(IReadOnlyDictionary<string, string> files, IReadOnlyDictionary<string, string> schemas, string name)
    {
        var newest = files
            .Where(f => f.Key.StartsWith(name + ".v", StringComparison.Ordinal))
            .OrderBy(f => int.Parse(f.Key[(name.Length + 2)..^5], System.Globalization.CultureInfo.InvariantCulture))
            .LastOrDefault();
        return newest.Key is null
            ? throw new ContentException(name, "", "The file is missing.")
            : Read<T>(newest.Key, newest.Value, schemas, name);
    }

    /// <summary>The JSON Schema (draft 07) of one ladder, as it is published in docs/formats.</summary>
    public static string LadderSchema() => Resources("schema/")["ladder.schema.json"];

    /// <summary>Reads one ladder as JSON, such as a coach sends: against its schema first, then for what a schema cannot say.</summary>
    /// <returns>The ladder; or the problems, the path of each as its field.</returns>
    public static Result<Ladder> ReadLadder(string text, CatalogueContent content)
    {
        try
        {
            var ladder = Read<Ladder>("ladder", text, Resources("schema/"), "ladder");
            var problems = LadderCheck.Check(ladder, content);
            return problems.Count > 0 ? problems.ToList() : ladder;
        }
        catch (ContentException e)
        {
            return Problem.Of("notALadder", e.Path.TrimStart('#', '/'));
        }
    }

    private static T Read<T>(string file, string text, IReadOnlyDictionary<string, string> schemas, string schema)
    {
        try
        {
            var error = JsonSchema.FromJsonAsync(schemas[schema + ".schema.json"]).GetAwaiter().GetResult().Validate(text).FirstOrDefault();
            if (error is not null)
                throw new ContentException(file, error.Path ?? "", error.Kind.ToString());
            return JsonSerializer.Deserialize<T>(text, Json)!;
        }
        catch (Exception e) when (e is JsonException or Newtonsoft.Json.JsonException)
        {
            throw new ContentException(file, (e as JsonException)?.Path ?? "", e.Message);
        }
    }

    private static Dictionary<string, string> Resources(string prefix)
    {
        var assembly = typeof(ContentLoader).Assembly;
        return assembly
            .GetManifestResourceNames()
            .Select(name => (Name: name, Key: name.Replace('\\', '/')))
            .Where(n => n.Key.StartsWith(prefix, StringComparison.Ordinal))
            .ToDictionary(
                n => n.Key[prefix.Length..],
                n =>
                {
                    using var reader = new StreamReader(assembly.GetManifestResourceStream(n.Name)!);
                    return reader.ReadToEnd();
                }
            );
    }

    private sealed record MeasureFile(
        int Version,
        IReadOnlyList<BenchPosition> Positions,
        IReadOnlyList<Battery> Batteries,
        IReadOnlyList<PictureView> Views,
        IReadOnlyList<Measure> Measures
    );

    private sealed record SkillFile(int Version, IReadOnlyList<string> Skills);

    private sealed record DrillFile(int Version, IReadOnlyList<Drill> Drills);

    private sealed record IntakeFile(int Version, IReadOnlyList<IntakeQuestion> Questions);

    private sealed record StopRuleFile(int Version, IReadOnlyList<StopRule> Rules);

    private sealed record ApproachFile(int Version, IReadOnlyList<Approach> Approaches);

    private sealed record DayGateFile(int Version, IReadOnlyList<DayGate> DayGates);
}
