using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;

namespace Tensarch.Server.Exchange;

/// <summary>A line of a readings file as text, by column. See <c>docs/formats/readings-csv.md</c>.</summary>
public sealed record CsvLine(int Number, IReadOnlyDictionary<string, string> Cells)
{
    public string this[string column] => Cells.GetValueOrDefault(column, "");
}

/// <summary>Readings as CSV (RFC 4180, UTF-8): the columns, and text to and from them.</summary>
public static class ReadingCsv
{
    public const string ContentType = "text/csv; charset=utf-8";

    public static readonly IReadOnlyList<string> Columns =
    [
        "id",
        "student_id",
        "student",
        "measure",
        "side",
        "level",
        "warmth",
        "standard",
        "instrument",
        "trials",
        "successes",
        "attempts",
        "compensations",
        "quality",
        "sensation",
        "pain",
        "taken_at",
        "taken_by",
        "note",
        "void_reason",
    ];

    /// <summary>Without these a file is no readings file.</summary>
    public static readonly IReadOnlyList<string> Needed = ["measure", "warmth", "taken_at"];

    /// <summary>Spreadsheets run a cell that begins so as a formula.</summary>
    private const string Formula = "=+-@\t\r'";

    public static CsvConfiguration Configuration { get; } =
        new(CultureInfo.InvariantCulture)
        {
            DetectDelimiter = false,
            MissingFieldFound = null,
            BadDataFound = null,
            PrepareHeaderForMatch = h => h.Header.Trim().ToLowerInvariant(),
        };

    public static IReadOnlyList<string> Cells(ReadingRow r, string student, string takenBy) =>
        [
            r.Id.ToString(),
            r.StudentId.ToString(),
            Text(student),
            r.Measure,
            Name(r.Side),
            r.Level ?? "",
            Name<Warmth>(r.Warmth),
            r.Standard ?? "",
            Name<Instrument>(r.Instrument),
            string.Join(';', r.Trials.Select(t => t.ToString(CultureInfo.InvariantCulture))),
            Number(r.Successes),
            Number(r.Attempts),
            string.Join(';', r.Compensations),
            Number(r.Quality),
            Number(r.Sensation),
            Number(r.Pain),
            r.TakenAt.UtcDateTime.ToString("O", CultureInfo.InvariantCulture),
            Text(takenBy),
            Text(r.Note ?? ""),
            Text(r.Void?.Reason ?? ""),
        ];

    /// <summary>A text that begins like a formula gets an apostrophe before it; <see cref="Plain"/> takes it away again.</summary>
    private static string Text(string text) => text.Length > 0 && Formula.Contains(text[0], StringComparison.Ordinal) ? "'" + text : text;

    public static string Plain(string cell) =>
        cell is ['\'', var next, ..] && Formula.Contains(next, StringComparison.Ordinal) ? cell[1..] : cell;

    public static string Name<T>(T? value)
        where T : struct, Enum => value is { } v ? char.ToLowerInvariant(v.ToString()[0]) + v.ToString()[1..] : "";

    private static string Number(int? value) => value?.ToString(CultureInfo.InvariantCulture) ?? "";

    /// <summary>The lines of a file; a broken file ends with the line at which it broke.</summary>
    public static (IReadOnlyList<string> Header, IReadOnlyList<CsvLine> Lines, int? BrokenAt) Read(TextReader text, int most)
    {
        using var csv = new CsvReader(text, Configuration);
        var lines = new List<CsvLine>();
        try
        {
            if (!csv.Read() || !csv.ReadHeader())
                return ([], [], null);
            var header = csv.HeaderRecord!.Select(h => h.Trim().ToLowerInvariant()).ToList();
            while (lines.Count <= most && csv.Read())
                lines.Add(
                    new(
                        csv.Parser.RawRow,
                        header.Index().DistinctBy(h => h.Item).ToDictionary(h => h.Item, h => (csv.GetField(h.Index) ?? "").Trim())
                    )
                );
            return (header, lines, null);
        }
        catch (CsvHelperException)
        {
            return ([], lines, csv.Parser.RawRow);
        }
    }

    /// <summary>What makes two readings the same one, whoever wrote the file.</summary>
    public static string Canonical(ReadingRow r) =>
        string.Join(
            '\n',
            r.StudentId,
            r.Measure,
            r.Side,
            r.Level,
            r.Warmth,
            r.Standard,
            r.Instrument,
            string.Join(';', r.Trials.Select(t => t.ToString(CultureInfo.InvariantCulture))),
            r.Successes,
            r.Attempts,
            string.Join(';', r.Compensations),
            r.Quality,
            r.Sensation,
            r.Pain,
            r.TakenAt.UtcTicks,
            r.Note
        );
}
