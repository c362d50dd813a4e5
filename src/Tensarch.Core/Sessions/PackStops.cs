using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>The stop rules, in the words of the pack.</summary>
internal static class PackStops
{
    public static PackStop Of(StopRule rule) =>
        new(
            rule.Signal,
            rule.Name,
            rule.Advice,
            rule.AsksRegion,
            rule.AsksPain,
            rule.Ends,
            rule.Ends == Ends.Tags ? [.. rule.Tags.Select(PackLoads.Name)] : [],
            rule.EasierBy,
            rule.Signal == SignalKind.DullPain ? BodySignal.SharpFrom : null,
            rule.Signal == SignalKind.DullPain ? SignalKind.SharpPain : null,
            rule.ShorterFirst
        );
}
