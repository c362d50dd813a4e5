using System.Globalization;
using Tensarch.Core;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting.Door;

namespace Tensarch.Server.Exchange;

/// <summary>Reads the cells of one line; keeps the first problem, at its column.</summary>
internal sealed class CellReader(CsvLine line, StudioClock clock)
{
    public Problem? Problem { get; private set; }

    public void Fail(string code, string column) => Problem ??= Problem.Of(code, column);

    public void Add(IReadOnlyList<Problem> problems) => Problem ??= problems.Count > 0 ? problems[0] : null;

    /// <summary>A text as it would be taken at the door.</summary>
    public void Check(string column, int longest) => Problem ??= Limit.Text(longest).Check(ReadingCsv.Plain(line[column]), column);

    /// <summary>None given: the line's contents will name it.</summary>
    public Guid Id()
    {
        if (line["id"].Length == 0)
            return Guid.Empty;
        if (Guid.TryParse(line["id"], CultureInfo.InvariantCulture, out var id) && id != Guid.Empty)
            return id;
        Fail("notAnId", "id");
        return Guid.Empty;
    }

    public T? Optional<T>(string column)
        where T : struct, Enum
    {
        if (line[column].Length == 0)
            return null;
        if (Enum.TryParse<T>(line[column], ignoreCase: true, out var value) && Enum.IsDefined(value) && !char.IsDigit(line[column][0]))
            return value;
        Fail("unknownWord", column);
        return null;
    }

    public T Needed<T>(string column)
        where T : struct, Enum
    {
        if (line[column].Length == 0)
            Fail("required", column);
        return Optional<T>(column) ?? default;
    }

    public List<double> Trials() => [.. line["trials"].Split(';', StringSplitOptions.RemoveEmptyEntries).Select(t => Number(t, "trials"))];

    public int? Whole(string column)
    {
        if (line[column].Length == 0)
            return null;
        if (int.TryParse(line[column], NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var whole))
            return whole;
        Fail("notANumber", column);
        return null;
    }

    private double Number(string text, string column)
    {
        var plain = text.Trim().Replace(',', '.').Replace('−', '-');
        if (
            double.TryParse(
                plain,
                NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var value
            )
        )
            return value;
        Fail("notANumber", column);
        return 0;
    }

    /// <summary>An instant with its offset; or a day, or a day and time, of the studio's time zone. A day alone is its noon.</summary>
    public DateTimeOffset TakenAt()
    {
        var text = line["taken_at"];
        if (text.Length == 0)
            Fail("required", "taken_at");
        else if (Instant(text) is not { } at)
            Fail("notADate", "taken_at");
        else if (at > clock.Now)
            Fail("dateInFuture", "taken_at");
        else if (at < clock.Now.AddYears(-100))
            Fail("dateTooEarly", "taken_at");
        else
            return at;
        return DateTimeOffset.MinValue;
    }

    private DateTimeOffset? Instant(string text)
    {
        if (DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day))
            return clock.At(day.ToDateTime(new(12, 0)));
        string[] local = ["yyyy-MM-ddTHH:mm", "yyyy-MM-dd HH:mm", "yyyy-MM-ddTHH:mm:ss", "yyyy-MM-dd HH:mm:ss"];
        if (DateTime.TryParseExact(text, local, CultureInfo.InvariantCulture, DateTimeStyles.None, out var time))
            return clock.At(time);
        return DateTimeOffset.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var at)
            ? at.ToUniversalTime()
            : null;
    }
}
