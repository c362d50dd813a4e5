using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Accounts;

/// <summary>
/// What the first owner shows to be the one who runs the server: a code that stands in its log until there is an owner. The demo asks for
/// none; a setting may name one, for a server that is set up without anyone reading.
/// </summary>
public sealed partial class SetupCode(IConfiguration config)
{
    /// <summary>Without those that are mistaken for each other.</summary>
    private const string Letters = "ABCDEFGHJKMNPQRSTUVWXYZ23456789";

    public string Value { get; } =
        config["SetupCode"] ?? $"{RandomNumberGenerator.GetString(Letters, 4)}-{RandomNumberGenerator.GetString(Letters, 4)}";

    public bool IsAsked { get; } = !config.GetValue<bool>("Demo");

    public bool Fits(string? given) =>
        !IsAsked || CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(Plain(given)), Encoding.UTF8.GetBytes(Plain(Value)));

    private static string Plain(string? code) => string.Concat((code ?? "").Where(char.IsLetterOrDigit)).ToUpperInvariant();

    /// <summary>Says the code when nobody owns this server yet.</summary>
    public async Task Announce(IServiceProvider services, ILogger log)
    {
        await using var scope = services.CreateAsyncScope();
        if (IsAsked && !await scope.ServiceProvider.GetRequiredService<TensarchDb>().Users.AnyAsync())
            Say(log, Value);
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Nobody owns this server yet. Open it in a browser; its setup code is {Code}")]
    private static partial void Say(ILogger log, string code);
}
