using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests.Fuzz;

/// <summary>Looks at every value of every column for what nobody can have meant.</summary>
public static partial class Absurdities
{
    private const double MostNumber = 1_000_000;
    private static readonly DateOnly First = new(1900, 1, 1);

    /// <summary>Columns that hold what paths are made of.</summary>
    private static readonly string[] Keys = ["LadderKey", "Skill", "Measure", "Drill", "Variant", "Level", "Standard", "Question", "View"];

    /// <summary>What is counted without end, and what is derived and not said.</summary>
    private static readonly string[] Free = ["Stamp", "DueAt", "Rank", "AccessFailedCount", "LockoutEnd", "ExpiresAt"];

    /// <returns>Table, column and value of each.</returns>
    public static Task<List<string>> In(StudioApp app) =>
        app.Rows(async db =>
        {
            var last = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime).AddYears(5);
            var found = new List<string>();
            await db.Database.OpenConnectionAsync();
            foreach (var entity in db.Model.GetEntityTypes())
            foreach (var property in entity.GetProperties().Where(p => !Free.Contains(p.Name)))
                found.AddRange(await Column(db, entity, property, last));
            return found;
        });

    private static async Task<List<string>> Column(TensarchDb db, IEntityType entity, IProperty property, DateOnly last)
    {
        var found = new List<string>();
        var (table, column) = (entity.GetTableName()!, property.GetColumnName());
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = $"SELECT DISTINCT \"{column}\" FROM \"{table}\" WHERE \"{column}\" IS NOT NULL";
        await using var rows = await command.ExecuteReaderAsync();
        while (await rows.ReadAsync())
            if (Absurd(rows.GetValue(0), property, last) is { } why)
                found.Add($"{table}.{column}: {why}: {rows.GetValue(0).ToString()?[..Math.Min(80, rows.GetValue(0).ToString()!.Length)]}");
        return found;
    }

    private static string? Absurd(object value, IProperty property, DateOnly last)
    {
        var type = Nullable.GetUnderlyingType(property.ClrType) ?? property.ClrType;
        return value switch
        {
            long ticks when type == typeof(DateTimeOffset) => Day(DateOnly.FromDateTime(new DateTime(ticks)), last),
            string day when type == typeof(DateOnly) => Day(DateOnly.Parse(day, CultureInfo.InvariantCulture), last),
            double number => Number(number),
            long number when type == typeof(int) => Number(number),
            string text when Keys.Contains(property.Name) && !KeyOnly().IsMatch(text) => "no key",
            string text when text.Length > 0 && text[0] is '{' or '[' => Inside(text),
            string text => Text(text),
            _ => null,
        };
    }

    private static string? Number(double number) => double.IsFinite(number) && Math.Abs(number) <= MostNumber ? null : "absurd number";

    private static string? Day(DateOnly day, DateOnly last) => day < First || day > last ? "absurd date" : null;

    private static string? Text(string text) =>
        text.Any(c => char.IsControl(c) && c is not ('\n' or '\r' or '\t')) ? "control character"
        : text.Length > 600_000 ? "far too long"
        : null;

    /// <summary>Numbers and texts in a stored document.</summary>
    private static string? Inside(string json)
    {
        try
        {
            using var document = JsonDocument.Parse(json);
            return Look(document.RootElement);
        }
        catch (JsonException)
        {
            return Text(json);
        }

        static string? Look(JsonElement element) =>
            element.ValueKind switch
            {
                // Instants lie in lists as ticks.
                JsonValueKind.Number => element.GetDouble() is > 5.9e17 and < 6.6e17 ? null : Number(element.GetDouble()),
                JsonValueKind.String => Text(element.GetString()!),
                JsonValueKind.Array => element.EnumerateArray().Select(Look).FirstOrDefault(w => w is not null),
                JsonValueKind.Object => element.EnumerateObject().Select(p => Look(p.Value)).FirstOrDefault(w => w is not null),
                _ => null,
            };
    }

    [GeneratedRegex(@"\A[a-z0-9-]{1,60}\z")]
    private static partial Regex KeyOnly();
}
