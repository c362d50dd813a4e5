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
        context.Features.Get<IAuthenticateResultFeature>()?.AuthenticateResult?.Properties?.Items[Name] is { } hash
            ? streams.GetOrAdd(hash, _ => new()).Token
            : CancellationToken.None;

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
        var bytes = await db
            .SignIns.Where(s => s.KeyHash == hash && s.ExpiresAt > now && db.Users.Any(u => u.Id == s.UserId))
            .Select(s => s.Ticket)
            .FirstOrDefaultAsync();
        var ticket = bytes is null ? null : TicketSerializer.Default.Deserialize(bytes);
        if (ticket is not null)
            ticket.Properties.Items[Name] = hash;
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

    private DateTimeOffset Expiry(AuthenticationTicket ticket) => ticket.Properties.ExpiresUtc ?? time.GetUtcNow().AddDays(1);

    private static string Hash(string key) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(key)));
}
