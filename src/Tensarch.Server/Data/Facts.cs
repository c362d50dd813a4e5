using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;

namespace Tensarch.Server.Data;

/// <summary>What became of a fact that was sent.</summary>
public enum Appended
{
    Stored,

    /// <summary>The same id with the same body was stored before: a retry.</summary>
    SameAgain,

    /// <summary>The id was taken by another body.</summary>
    Clash,
}

/// <summary>Appends facts under client-made ids, so that a retry cannot double one.</summary>
public static class Facts
{
    public static string Hash<T>(T body) => Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(body)))[..32];

    /// <summary>Of what was sent and is not a default, so that a field which a later version adds turns no retry into a clash.</summary>
    public static string HashSent<T>(T body) => Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(body, Sent)))[..32];

    private static readonly JsonSerializerOptions Sent = new() { DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingDefault };

    /// <summary>Looks the id up; adds the row, not yet saved, when it is new.</summary>
    public static async Task<Appended> AddFact<TRow, TBody>(this DbSet<TRow> rows, TRow row, TBody body, CancellationToken ct)
        where TRow : class, IFact
    {
        row.BodyHash = Hash(body);
        var stored = await rows.Where(r => r.Id == row.Id).Select(r => r.BodyHash).FirstOrDefaultAsync(ct);
        if (stored is not null)
            return stored == row.BodyHash ? Appended.SameAgain : Appended.Clash;
        rows.Add(row);
        return Appended.Stored;
    }

    /// <summary>Looks all ids up in one query; adds the rows that are new, not yet saved.</summary>
    public static async Task<IReadOnlyList<(Guid Id, Appended Appended)>> AddFacts<TRow>(
        this DbSet<TRow> rows,
        IReadOnlyList<(TRow Row, string Hash)> facts,
        CancellationToken ct
    )
        where TRow : class, IFact
    {
        if (facts.Count == 0)
            return [];
        var ids = facts.Select(f => f.Row.Id).ToList();
        var stored = await rows.Where(r => ids.Contains(r.Id)).ToDictionaryAsync(r => r.Id, r => r.BodyHash, ct);
        var told = new List<(Guid, Appended)>();
        foreach (var (row, hash) in facts)
        {
            row.BodyHash = hash;
            var known = stored.GetValueOrDefault(row.Id);
            if (known is null)
            {
                rows.Add(row);
                stored[row.Id] = hash;
            }
            told.Add(
                (
                    row.Id,
                    known is null ? Appended.Stored
                    : known == hash ? Appended.SameAgain
                    : Appended.Clash
                )
            );
        }
        return told;
    }

    /// <summary>Saves; an id that another studio, or a twin request, has taken is a clash and not an accident.</summary>
    public static async Task<Appended> SaveFact(this TensarchDb db, Appended appended, CancellationToken ct)
    {
        if (appended != Appended.Stored)
            return appended;
        try
        {
            await db.SaveChangesAsync(ct);
            return Appended.Stored;
        }
        catch (DbUpdateException e) when (IsTaken(e))
        {
            return Appended.Clash;
        }
    }

    /// <summary>SQLite's unique and primary key violations.</summary>
    public static bool IsTaken(DbUpdateException e) =>
        e.InnerException is Microsoft.Data.Sqlite.SqliteException { SqliteExtendedErrorCode: 1555 or 2067 };
}
