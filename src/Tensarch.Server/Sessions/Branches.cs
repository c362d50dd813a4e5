using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Sessions;

/// <summary>Two devices that run one session without hearing of each other: who went a way of their own (decision 0033).</summary>
internal static class Branches
{
    /// <summary>The sessions in which this device went a way of its own before.</summary>
    public static Task<HashSet<Guid>> Of(TensarchDb db, List<Guid> sessions, Guid? device, CancellationToken ct) =>
        db.Events.Where(e => sessions.Contains(e.SessionId) && e.Device == device && e.Doubled).Select(e => e.SessionId).ToHashSetAsync(ct);

    /// <summary>By session, the highest number that another device has told, having heard all before it.</summary>
    public static Task<Dictionary<Guid, int>> OthersReached(TensarchDb db, List<Guid> sessions, Guid? device, CancellationToken ct) =>
        db
            .Events.Where(e => sessions.Contains(e.SessionId) && e.Device != device && !e.Doubled)
            .GroupBy(e => e.SessionId)
            .Select(g => new { g.Key, Reached = g.Max(e => e.Seq) })
            .ToDictionaryAsync(g => g.Key, g => g.Reached, ct);
}
