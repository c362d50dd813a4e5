namespace Tensarch.Core.Sessions;

/// <summary>One drill that was worked in a session, at a variant and on a side.</summary>
public sealed record WorkedDrill(string Drill, string Variant, Side? Side);

/// <summary>A session that was trained, without its plan and its rounds.</summary>
/// <param name="Skills">What it was for, the first one first.</param>
/// <param name="Day">The day in the studio's time zone.</param>
public sealed record TrainedSession(
    Guid Id,
    IReadOnlyList<string> Skills,
    DateTimeOffset At,
    DateOnly Day,
    Side FirstSide,
    IReadOnlyList<Work> Worked
)
{
    /// <summary>Not all of it was done under a bar.</summary>
    public bool Proves => Worked.Count == 0 || Worked.Any(w => !w.UnderBar);
}
