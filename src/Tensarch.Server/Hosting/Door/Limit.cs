using System.Collections.Concurrent;
using System.ComponentModel.DataAnnotations;
using System.Reflection;
using System.Text.Json.Serialization.Metadata;
using System.Text.RegularExpressions;
using Tensarch.Core;

namespace Tensarch.Server.Hosting.Door;

/// <summary>
/// What one field of a body may be: what its attributes say, and for the rest what any field of its type may be. Ranges, lengths and
/// patterns of a list are those of its elements; <see cref="MaxLengthAttribute"/> is how many there may be.
/// </summary>
public sealed partial class Limit
{
    /// <summary>What holds where no attribute says anything else.</summary>
    public const int LongestText = 200;
    public const int LongestKey = 60;
    public const int MostElements = 100;
    public const double MostNumber = 100_000;
    public static readonly DateOnly FirstDay = new(1900, 1, 1);
    public const int YearsAhead = 5;

    private static readonly ConcurrentDictionary<(Type, string), Limit> Known = new();
    private static readonly Limit Days = new([]);
    private readonly RegularExpressionAttribute? pattern;
    private readonly Regex? matches;
    private readonly bool needed;
    private readonly bool past;

    private Limit(IReadOnlyList<object> attributes)
    {
        if (attributes.OfType<RangeAttribute>().FirstOrDefault() is { } range)
            (Min, Max) = (Convert.ToDouble(range.Minimum, null), Convert.ToDouble(range.Maximum, null));
        if (attributes.OfType<StringLengthAttribute>().FirstOrDefault() is { } length)
            (Shortest, Longest) = (length.MinimumLength, length.MaximumLength);
        if (attributes.OfType<MaxLengthAttribute>().FirstOrDefault() is { } most)
            Most = most.Length;
        pattern = attributes.OfType<RegularExpressionAttribute>().FirstOrDefault();
        if (pattern is not null)
            Longest = LongestKey;
        matches = pattern is null ? null : new Regex(pattern.Pattern, RegexOptions.CultureInvariant, TimeSpan.FromSeconds(1));
        needed = attributes.OfType<RequiredAttribute>().Any();
        past = attributes.OfType<NotFutureAttribute>().Any();
    }

    public double Min { get; } = -MostNumber;

    public double Max { get; } = MostNumber;

    /// <summary>Characters without the space around them.</summary>
    public int Shortest { get; }

    public int Longest { get; } = LongestText;

    public int Most { get; } = MostElements;

    public string? Pattern => pattern?.Pattern;

    /// <summary>Dates and instants that lie ahead are refused.</summary>
    public bool Past => past;

    /// <summary>A text of nothing but space is refused.</summary>
    public bool Needed => needed || Shortest > 0;

    /// <summary>For a text that comes by another way than in a body.</summary>
    public static Limit Text(int longest) => new([new StringLengthAttribute(longest)]);

    public static Limit Of(JsonPropertyInfo property) =>
        Known.GetOrAdd(
            (property.DeclaringType, property.Name),
            _ =>
                new([
                    .. property.AttributeProvider?.GetCustomAttributes(true) ?? [],
                    .. property.AssociatedParameter?.AttributeProvider?.GetCustomAttributes(true) ?? [],
                ])
        );

    public static Limit Of(ParameterInfo parameter) => new(parameter.GetCustomAttributes(true));

    /// <returns>
    /// <c>required</c>, <c>reasonTooShort</c>, <c>tooLong</c>, <c>badText</c> (a character that no text has) or <c>badKey</c>.
    /// </returns>
    public Problem? Check(string text, string field)
    {
        if (NoText().IsMatch(text))
            return Problem.Of("badText", field);
        var trimmed = text.AsSpan().Trim().Length;
        if (Needed && trimmed == 0)
            return Problem.Of("required", field);
        if (trimmed < Shortest)
            return Problem.Of("reasonTooShort", field, ("least", Shortest));
        if (matches is not null)
            return matches.Match(text).Length == text.Length && text.Length > 0 ? null : Problem.Of("badKey", field);
        return text.Length > Longest ? Problem.Of("tooLong", field, ("most", Longest)) : null;
    }

    /// <returns><c>notANumber</c> for what is not finite, or <c>outOfRange</c>.</returns>
    public Problem? Check(double number, string field) =>
        !double.IsFinite(number) ? Problem.Of("notANumber", field)
        : number < Min || number > Max ? Problem.Of("outOfRange", field, ("value", number), ("min", Min), ("max", Max))
        : null;

    /// <returns><c>dateTooEarly</c>, <c>dateTooLate</c>, or <c>dateInFuture</c> for a fact.</returns>
    public Problem? Check(DateOnly day, DateOnly today, string field) =>
        day < FirstDay ? Problem.Of("dateTooEarly", field)
        : past && day > today ? Problem.Of("dateInFuture", field)
        : day > today.AddYears(YearsAhead) ? Problem.Of("dateTooLate", field, ("years", YearsAhead))
        : null;

    /// <inheritdoc cref="Check(DateOnly, DateOnly, string)"/>
    public Problem? Check(DateTimeOffset at, DateTimeOffset now, string field) =>
        past && at > now
            ? Problem.Of("dateInFuture", field)
            : Days.Check(DateOnly.FromDateTime(at.UtcDateTime), DateOnly.FromDateTime(now.UtcDateTime), field);

    /// <returns><c>tooMany</c>.</returns>
    public Problem? CheckCount(int count, string field) => count > Most ? Problem.Of("tooMany", field, ("most", Most)) : null;

    /// <summary>Control characters but tab and line breaks, halves of a surrogate pair, and what Unicode has set aside.</summary>
    [GeneratedRegex(
        @"[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]"
    )]
    private static partial Regex NoText();
}
