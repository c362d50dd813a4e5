using System.Collections;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Tensarch.Core;

namespace Tensarch.Server.Hosting.Door;

/// <summary>Holds everything in a body against its limits, at any depth, and collects what cannot stand with the path of its field.</summary>
/// <param name="now">For instants.</param>
/// <param name="today">For days, in the studio's time zone.</param>
public sealed class BodyCheck(JsonSerializerOptions json, DateTimeOffset now, DateOnly today)
{
    /// <summary>Past so many nobody reads on.</summary>
    private const int MostProblems = 50;

    private readonly List<Problem> problems = [];

    public IReadOnlyList<Problem> Problems => problems;

    public void Look(object? value, Limit limit, string path)
    {
        if (problems.Count >= MostProblems)
            return;
        switch (value)
        {
            case null or bool or Enum:
                return;
            case string text:
                Add(limit.Check(text, path));
                return;
            case Guid id:
                Add(id == Guid.Empty ? Problem.Of("notAnId", path) : null);
                return;
            case DateOnly day:
                Add(limit.Check(day, today, path));
                return;
            case DateTimeOffset at:
                Add(limit.Check(at, now, path));
                return;
            case double or int or long:
                Add(limit.Check(Convert.ToDouble(value, CultureInfo.InvariantCulture), path));
                return;
            case IEnumerable list:
                LookAtEach(list, limit, path);
                return;
            default:
                LookInside(value, path);
                return;
        }
    }

    private void LookAtEach(IEnumerable list, Limit limit, string path)
    {
        var count = 0;
        foreach (var element in list)
        {
            var at = $"{path}[{count++}]";
            if (count > limit.Most)
                continue;
            if (element is null)
                Add(Problem.Of("required", at));
            else
                Look(element, limit, at);
        }
        Add(limit.CheckCount(count, path));
    }

    private void LookInside(object value, string path)
    {
        foreach (var property in json.GetTypeInfo(value.GetType()).Properties.Where(IsRead))
            Look(property.Get!(value), Limit.Of(property), path.Length == 0 ? property.Name : $"{path}.{property.Name}");
    }

    /// <summary>What comes out of a body, and not what is worked out from it.</summary>
    public static bool IsRead(JsonPropertyInfo property) =>
        property.Get is not null && (property.Set is not null || property.AssociatedParameter is not null);

    private void Add(Problem? problem)
    {
        if (problem is not null)
            problems.Add(problem);
    }
}
