using System.Collections.Concurrent;
using System.Security.Claims;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Accounts;

/// <summary>
/// The sign-ins that stand, kept beside the users. A cookie carries a key and no more: with its row it ends at once, wherever it was copied
/// to, and so it does with the account.
/// </summary>
public sealed class SignIns(IServiceScopeFactory scopes, TimeProvider time) : ITicketStore
{
    private const string Name = "sign-in";
    private readonly ConcurrentDictionary<string, CancellationTokenSource> streams = new();

    /// <summary>Cancelled when the sign-in of this request ends: for answers that go on.</summary>
    public CancellationToken EndOf(HttpContext context) =>
        Of(context) is { } hash ? streams.GetOrAdd(hash, _ => new()).Token : CancellationToken.None;

    /// <summary>The sign-in of this request, as <see cref="SignInRow.KeyHash"/>.</summary>
    public static string? Of(HttpContext context) =>
        context.Features.Get<IAuthenticateResultFeature>()?.AuthenticateResult?.Properties?.Items[Name];

    public async Task<string> StoreAsync(AuthenticationTicket ticket)
    {
        var key = Convert.ToHexString(RandomNumberGenerator.GetBytes(32));
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        var now = time.GetUtcNow();
        await db.SignIns.Where(s => s.ExpiresAt < now).ExecuteDeleteAsync();
        db.SignIns.Add(
            new()
            {
                KeyHash = Hash(key),
                UserId = Guid.Parse(ticket.Principal.FindFirstValue(ClaimTypes.NameIdentifier)!),
                Ticket = TicketSerializer.Default.Serialize(ticket),
                ExpiresAt = Expiry(ticket),
            }
        );
        await db.SaveChangesAsync();
        return key;
    }

    public async Task<AuthenticationTicket?> RetrieveAsync(string key)
    {
        var (hash, now) = (Hash(key), time.GetUtcNow());
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        var found = await (
            from s in db.SignIns
            where s.KeyHash == hash && s.ExpiresAt > now
            from user in db.Users
            where user.Id == s.UserId && user.LeftAt == null
            from studio in db.Studios
            where studio.Id == user.StudioId
            select new
            {
                s.Ticket,
                studio.TimeZone,
                user.Role,
            }
        ).FirstOrDefaultAsync();
        if (found is null || TicketSerializer.Default.Deserialize(found.Ticket) is not { } ticket)
            return null;
        ticket.Properties.Items[Name] = hash;
        // What may have changed since they signed in: as it is now.
        AccountServices.SetClaims((ClaimsIdentity)ticket.Principal.Identity!, found.TimeZone, found.Role);
        return ticket;
    }

    public async Task RenewAsync(string key, AuthenticationTicket ticket)
    {
        var (hash, bytes, expiry) = (Hash(key), TicketSerializer.Default.Serialize(ticket), Expiry(ticket));
        await using var scope = scopes.CreateAsyncScope();
        await scope
            .ServiceProvider.GetRequiredService<TensarchDb>()
            .SignIns.Where(s => s.KeyHash == hash)
            .ExecuteUpdateAsync(set => set.SetProperty(s => s.Ticket, bytes).SetProperty(s => s.ExpiresAt, expiry));
    }

    public async Task RemoveAsync(string key)
    {
        var hash = Hash(key);
        await using var scope = scopes.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<TensarchDb>().SignIns.Where(s => s.KeyHash == hash).ExecuteDeleteAsync();
        if (streams.TryRemove(hash, out var stream))
            await stream.CancelAsync();
    }

    /// <summary>Ends every sign-in of someone: their password is another one, or they have left.</summary>
    /// <param name="but">The one that goes on.</param>
    public async Task RemoveAll(Guid user, string? but = null)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        var hashes = await db.SignIns.Where(s => s.UserId == user && s.KeyHash != but).Select(s => s.KeyHash).ToListAsync();
        await db.SignIns.Where(s => hashes.Contains(s.KeyHash)).ExecuteDeleteAsync();
        foreach (var hash in hashes)
            if (streams.TryRemove(hash, out var stream))
                await stream.CancelAsync();
    }

    private DateTimeOffset Expiry(AuthenticationTicket ticket) => ticket.Properties.ExpiresUtc ?? time.GetUtcNow().AddDays(1);

    private static string Hash(string key) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(key)));
}
