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
