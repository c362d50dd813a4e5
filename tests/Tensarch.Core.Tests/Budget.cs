using System.Globalization;

namespace Tensarch.Core.Tests;

/// <summary>How long one of the large property tests looks for a counterexample; more by <c>PROPERTY_SECONDS</c>, for a night's search.</summary>
internal static class Budget
{
    public static int Seconds { get; } =
        int.TryParse(Environment.GetEnvironmentVariable("PROPERTY_SECONDS"), CultureInfo.InvariantCulture, out var seconds) ? seconds : 2;
}
