using System.Security.Cryptography;
using System.Text;
using Tensarch.Core.Students;

namespace Tensarch.Core.Measuring;

/// <summary>
/// What pain that is said with a reading means: it counts in each of the measure's regions, like pain in a session. A pain event is a fact of its own, which
/// no void takes back and no look back cuts; less pain is read off the reading, and goes with it.
/// </summary>
public static class ReadingPain
{
    /// <summary>The facts of a pain event; none of less pain.</summary>
    public static IEnumerable<BodySignal> Told(Guid reading, Measure measure, Side? side, int? pain, DateTimeOffset at) =>
        pain > BodySignal.PainEventAbove ? In(measure, side, pain, at, region => IdOf(reading, region)) : [];

    /// <summary>What a reading that stands says of less pain; none of a pain event.</summary>
    public static IEnumerable<BodySignal> Felt(Guid reading, Measure measure, Side? side, int? pain, DateTimeOffset at) =>
        pain is > 0 and <= BodySignal.PainEventAbove ? In(measure, side, pain, at, _ => reading) : [];

    private static IEnumerable<BodySignal> In(Measure measure, Side? side, int? pain, DateTimeOffset at, Func<LoadTag, Guid> id) =>
        measure.Regions().Select(region => new BodySignal(id(region), at, SignalKind.DullPain, region, side, pain));

    /// <summary>The same at every try, so that a pain is told once.</summary>
    private static Guid IdOf(Guid reading, LoadTag region) =>
        new(SHA256.HashData(Encoding.UTF8.GetBytes($"{reading:N}/{region}")).AsSpan(0, 16));
}
