using System.Text.Json;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>What the floor tells, as it travels; and what the server answers.</summary>
internal static class FloorEntries
{
    public static object EntryOf(Guid session, Guid id, int seq, DateTimeOffset at, params object[] facts) =>
        new
        {
            @event = new
            {
                id,
                session,
                seq,
                at,
                said = """{"is":"passed"}""",
            },
            facts,
        };

    public static object Set(
        DateTimeOffset at,
        string drill = "low-lunge",
        string variant = "padded-knee",
        double? seconds = 60,
        bool confirmed = true,
        Guid? id = null,
        string? side = "left"
    ) =>
        new
        {
            id = id ?? Guid.NewGuid(),
            kind = "set",
            at,
            drill,
            variant,
            side,
            round = 1,
            seconds,
            confirmed,
        };

    public static object Signal(DateTimeOffset at, string signal, string? region = null, int? pain = null) =>
        new
        {
            id = Guid.NewGuid(),
            kind = "signal",
            at,
            signal,
            region,
            pain,
        };

    public static (string Is, string? Code)[] Told(JsonElement answer) =>
        [.. answer.GetProperty("told").EnumerateArray().Select(t => (t.GetProperty("is").GetString()!, t.GetProperty("code").GetString()))];
}
