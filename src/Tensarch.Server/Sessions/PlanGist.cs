using Tensarch.Server.Data;

namespace Tensarch.Server.Sessions;

/// <summary>What a list says of a stored session's plan: many are read at once, and the whole of each is not needed for it.</summary>
internal sealed record PlanGist(int Minutes, IReadOnlyList<DrillGist?>? Drills)
{
    /// <summary>Something is tested in it.</summary>
    public bool Tests => Drills?.Any(d => d?.Reason?.Code is "gateAsksHold" or "gateAsksReps") == true;

    /// <summary>Of what is done in it, in order.</summary>
    public IEnumerable<string> Keys => Drills?.Select(d => d?.Drill).OfType<string>() ?? [];

    /// <returns>None where nothing is planned, or what is stored cannot be read.</returns>
    public static PlanGist? Of(string planJson) => StoredJson.TryRead<PlanGist>(planJson);
}

internal sealed record DrillGist(string? Drill, ReasonGist? Reason);

internal sealed record ReasonGist(string? Code);
