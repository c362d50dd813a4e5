namespace Tensarch.Core.Sessions;

/// <summary>One drill that was worked in a session, at a variant and on a side.</summary>
public sealed record WorkedDrill(string Drill, string Variant, Side? Side)
{
    public override string ToString() => $"{Drill}/{Variant}/{Side}";

    /// <returns>None for a text that names no drill.</returns>
    public static WorkedDrill? Parse(string text) =>
        text.Split('/') is [var drill, var variant, var side]
            ? new(drill, variant, Enum.TryParse<Side>(side, out var named) ? named : null)
            : null;
}

/// <summary>A session that was trained, without its plan and its rounds.</summary>
/// <param name="Day">The day in the studio's time zone.</param>
public sealed record TrainedSession(
    Guid Id,
    string Skill,
    DateTimeOffset At,
    DateOnly Day,
    Side FirstSide,
    IReadOnlyList<WorkedDrill> Worked
);
