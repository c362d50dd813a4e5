using System.ComponentModel.DataAnnotations;
using Tensarch.Server.Data;

namespace Tensarch.Server.Accounts;

/// <param name="NeedsOwner">Nobody is here yet: the first to come owns the studio.</param>
/// <param name="TimeZone">The studio's: days and times are shown in it, wherever the device is.</param>
/// <param name="AsksSetupCode">The first to come shows the code that stands in the server's log.</param>
public sealed record MeResponse(
    bool NeedsOwner,
    bool AsksSetupCode,
    UserView? User,
    string? StudioName,
    string? TimeZone,
    IReadOnlyList<DemoAccount> DemoAccounts
);

/// <param name="LeftAt">They work here no longer.</param>
public sealed record UserView(Guid Id, string Name, string Email, Role Role, DateTimeOffset? LeftAt);

/// <summary>Somebody who works here, as the team sees them.</summary>
/// <param name="Unsent">What they said on some device and that is not here; for the owner alone.</param>
public sealed record MemberView(Guid Id, string Name, string Email, Role Role, DateTimeOffset? LeftAt, UnsentView? Unsent = null);

/// <param name="Waiting">Entries that wait on a device until they sign in there.</param>
/// <param name="Oldest">When the oldest of those was said.</param>
/// <param name="Dropped">Entries that waited for thirty days and were dropped there, which the owner has not noted yet.</param>
public sealed record UnsentView(int Waiting, DateTimeOffset? Oldest, int Dropped);

/// <summary>What a device holds of people who are not signed in on it.</summary>
public sealed record UnsentReport(Guid Device, [MaxLength(50)] IReadOnlyList<UnsentOf> Of);

/// <param name="Dropped">In all, since the device began to count.</param>
public sealed record UnsentOf(Guid Author, [Range(0, 100_000)] int Waiting, DateTimeOffset? Oldest, [Range(0, 100_000)] int Dropped);

/// <summary>Seals what its author says on a device until it is here.</summary>
/// <param name="Of">Whose it is: a page that somebody else has left open must not take it for theirs.</param>
/// <param name="Key">32 bytes, base 64.</param>
public sealed record DeviceKeyResponse(Guid Of, string Key);

/// <summary>A sign-in of the demo studio, shown on its start page and only there.</summary>
public sealed record DemoAccount(string Name, Role Role, string Email, string Password);

/// <param name="SetupCode">As the server's log says it; the demo asks for none.</param>
public sealed record OwnerRequest(
    [Required, StringLength(120)] string StudioName,
    [StringLength(60)] string TimeZone,
    [Required, StringLength(120)] string Name,
    [StringLength(200)] string Email,
    [StringLength(200)] string Password,
    [StringLength(40)] string? SetupCode = null
);

public sealed record SignInRequest([StringLength(200)] string Email, [StringLength(200)] string Password);

public sealed record MemberRequest(
    [Required, StringLength(120)] string Name,
    [StringLength(200)] string Email,
    [StringLength(200)] string Password,
    Role Role
);
