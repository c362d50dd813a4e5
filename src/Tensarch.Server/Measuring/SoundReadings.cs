using System.Linq.Expressions;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>
/// Stored readings that can be reckoned with. What slipped in before the door was there counts for nothing; lists say so at its line, where it
/// can be voided.
/// </summary>
public static class SoundReadings
{
    /// <summary>Past every unit in which anything is read.</summary>
    private const double Most = 100_000;

    private static readonly Expression<Func<ReadingRow, bool>> Numbers = r =>
        r.Value >= -Most
        && r.Value <= Most
        && r.StandardError >= 0
        && r.StandardError <= Most
        && r.Sem >= 0
        && r.Sem <= Most
        && r.Tau >= 0
        && r.Tau <= Most
        && r.Resolution >= 0
        && r.Resolution <= Most
        && (r.Attempts == null || (r.Attempts >= 1 && r.Successes >= 0 && r.Successes <= r.Attempts));

    private static readonly Func<ReadingRow, bool> HasNumbers = Numbers.Compile();

    public static IQueryable<ReadingRow> Sound(this IQueryable<ReadingRow> rows) => rows.Where(Numbers);

    public static bool IsSound(ReadingRow row) =>
        HasNumbers(row) && row.Trials.All(t => Math.Abs(t) <= Most) && (row.Trials.Count > 0 || row.Attempts is not null);
}
