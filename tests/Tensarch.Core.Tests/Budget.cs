using System.Globalization;

namespace Tensarch.Core.Tests;

/// <summary>
/// How long one of the large property tests looks for a counterexample: a second in the suite, which everybody waits for; half a minute with
/// <c>./dev bench properties</c>; more by <c>PROPERTY_SECONDS</c>, for a night's search.
/// </summary>
internal static class Budget
{
    public static int Seconds { get; } =
        int.TryParse(Environment.GetEnvironmentVariable("PROPERTY_SECONDS"), CultureInfo.InvariantCulture, out var seconds) ? seconds : 1;

    /// <summary>There is time for all of what the suite takes a part of.</summary>
    public static bool IsLong => Seconds >= 10;
}
