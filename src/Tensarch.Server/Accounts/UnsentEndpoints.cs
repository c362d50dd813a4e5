using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Accounts;

/// <summary>What lies on devices and is not here yet: the key that seals it, and how much of it there is of whom.</summary>
public static class UnsentEndpoints
{
    private const int KeyBytes = 32;

    public static void MapUnsent(this IEndpointRouteBuilder api)
    {
        var accounts = api.MapGroup("/accounts").WithTags("Accounts");
        accounts.MapGet("/me/device-key", Key);
        // Whoever is signed in on the device says it.
        accounts.MapPost("/unsent", Report).WithMetadata(new ReadsOnly());
        accounts.MapDelete("/members/{memberId}/unsent", Note).RequireAuthorization(Writes.OwnerPolicy);
    }

    internal static UnsentView? View(IEnumerable<UnsentRow> rows)
    {
        var all = rows.ToList();
        var view = new UnsentView(all.Sum(u => u.Waiting), all.Min(u => u.Oldest), all.Sum(u => u.Dropped - u.Noted));
        return view.Waiting > 0 || view.Dropped > 0 ? view : null;
    }

    /// <summary>One's own, always the same: with it somebody reads on a device what they said there, and nobody else does.</summary>
    private static async Task<Ok<DeviceKeyResponse>> Key(TensarchDb db, StudioScope scope, CancellationToken ct)
    {
        var own = db.Users.Where(u => u.Id == scope.UserId);
        if (await own.Select(u => u.DeviceKey).SingleAsync(ct) is not { } key)
        {
            // Of two that ask at once the first one's stands for both.
            var made = RandomNumberGenerator.GetBytes(KeyBytes);
            await own.Where(u => u.DeviceKey == null).ExecuteUpdateAsync(u => u.SetProperty(x => x.DeviceKey, made), ct);
            key = (await own.Select(u => u.DeviceKey).SingleAsync(ct))!;
        }
        return TypedResults.Ok(new DeviceKeyResponse(scope.UserId, Convert.ToBase64String(key)));
    }

    private static async Task<NoContent> Report(UnsentReport report, TensarchDb db, StudioClock clock, CancellationToken ct)
    {
        var said = report.Of.GroupBy(u => u.Author).ToDictionary(u => u.Key, u => u.Last());
        var known = await db.Users.Where(u => said.Keys.Contains(u.Id)).Select(u => u.Id).ToListAsync(ct);
        var rows = await db.Unsent.Where(u => u.Device == report.Device && known.Contains(u.UserId)).ToDictionaryAsync(u => u.UserId, ct);
        foreach (var author in known)
        {
            if (!rows.TryGetValue(author, out var row))
                db.Unsent.Add(row = new() { Device = report.Device, UserId = author });
            // A device counts what it dropped without end: told twice, it is the same.
            (row.Waiting, row.Oldest, row.At) = (said[author].Waiting, Sound(said[author].Oldest, clock.Now), clock.Now);
            row.Dropped = Math.Max(row.Dropped, said[author].Dropped);
        }
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateException e) when (Facts.IsTaken(e))
        {
            // Another tab of the device said the same a moment before.
        }
        return TypedResults.NoContent();
    }

    /// <summary>A device's clock may be anywhere.</summary>
    private static DateTimeOffset? Sound(DateTimeOffset? said, DateTimeOffset now) => said > now ? now : said;

    private static async Task<NoContent> Note(Guid memberId, TensarchDb db, CancellationToken ct)
    {
        await db.Unsent.Where(u => u.UserId == memberId).ExecuteUpdateAsync(u => u.SetProperty(x => x.Noted, x => x.Dropped), ct);
        return TypedResults.NoContent();
    }
}
