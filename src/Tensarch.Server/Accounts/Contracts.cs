using Tensarch.Server.Data;

namespace Tensarch.Server.Accounts;

public sealed record MeResponse(bool NeedsOwner, UserView? User, string? StudioName, IReadOnlyList<DemoAccount> DemoAccounts);

public sealed record UserView(Guid Id, string Name, string Email, Role Role);

/// <summary>A sign-in of the demo studio, shown on its start page and only there.</summary>
public sealed record DemoAccount(string Name, Role Role, string Email, string Password);

public sealed record OwnerRequest(string StudioName, string TimeZone, string Name, string Email, string Password);

public sealed record SignInRequest(string Email, string Password);

public sealed record MemberRequest(string Name, string Email, string Password, Role Role);
