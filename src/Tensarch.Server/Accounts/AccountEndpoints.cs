using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Accounts;

public static class AccountEndpoints
{
    public const string SignInLimit = "sign-in";

    public static void MapAccounts(this IEndpointRouteBuilder api)
    {
        var accounts = api.MapGroup("/accounts").WithTags("Accounts");
        accounts.MapGet("/me", Me).AllowAnonymous();
        accounts.MapPost("/owner", CreateOwner).AllowAnonymous().RequireRateLimiting(SignInLimit);
        accounts.MapPost("/sign-in", SignIn).AllowAnonymous().RequireRateLimiting(SignInLimit);
        accounts.MapPost("/sign-out", SignOut).WithMetadata(new ReadsOnly());
    }

    private static async Task<Ok<MeResponse>> Me(
        TensarchDb db,
        StudioScope scope,
        SetupCode setup,
        IConfiguration config,
        CancellationToken ct
    )
    {
        var demo = config.GetValue<bool>("Demo") && !scope.IsSet ? Demo.DemoStudio.Accounts : [];
        if (!scope.IsSet)
        {
            var nobody = !await db.Users.AnyAsync(ct);
            return TypedResults.Ok(new MeResponse(nobody, nobody && setup.IsAsked, null, null, null, demo));
        }
        var user = await db
            .Users.Where(u => u.Id == scope.UserId)
            .Select(u => new UserView(u.Id, u.DisplayName, u.Email!, u.Role, u.LeftAt))
            .SingleOrDefaultAsync(ct);
        var studio = await db.Studios.Select(s => new { s.Name, s.TimeZone }).SingleOrDefaultAsync(ct);
        return TypedResults.Ok(new MeResponse(false, false, user, studio?.Name, studio?.TimeZone, demo));
    }

    /// <summary>
    /// The first start: without any user, whoever shows the setup code makes the studio and owns it. Asked and made in one transaction, so
    /// that of several who come at once one is the first.
    /// </summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> CreateOwner(
        OwnerRequest request,
        TensarchDb db,
        StudioScope scope,
        UserManager<CoachUser> users,
        SignInManager<CoachUser> signIn,
        SetupCode setup,
        CancellationToken ct
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        if (await db.Users.IgnoreQueryFilters().AnyAsync(ct))
            return Problems.Of(409, "ownerExists");
        var problems = CheckPerson(request.Email);
        if (!setup.Fits(request.SetupCode))
            problems.Insert(0, Problem.Of("wrongSetupCode", "setupCode"));
        if (!TimeZoneInfo.TryFindSystemTimeZoneById(request.TimeZone, out _))
            problems.Add(Problem.Of("unknownTimeZone", "timeZone"));
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);

        var studio = new StudioRow
        {
            Id = Guid.CreateVersion7(),
            Name = request.StudioName.Trim(),
            TimeZone = request.TimeZone,
        };
        db.Studios.Add(studio);
        await db.SaveChangesAsync(ct);
        var user = User(studio.Id, request.Name, request.Email, Role.Owner);
        var created = await users.CreateAsync(user, request.Password);
        if (!created.Succeeded)
            return Problems.Unprocessable(From(created));
        await transaction.CommitAsync(ct);
        scope.Enter(studio.Id, user.Id, studio.TimeZone);
        await signIn.SignInAsync(user, isPersistent: true);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SignIn(SignInRequest request, SignInManager<CoachUser> signIn)
    {
        // Who has left is told what a stranger is told.
        if (await signIn.UserManager.FindByNameAsync(request.Email.Trim()) is { LeftAt: not null })
            return Problems.Of(401, "wrongSignIn");
        var result = await signIn.PasswordSignInAsync(request.Email.Trim(), request.Password, isPersistent: true, lockoutOnFailure: true);
        if (result.Succeeded)
            return TypedResults.NoContent();
        return result.IsLockedOut ? Problems.Of(429, "lockedOut") : Problems.Of(401, "wrongSignIn");
    }

    private static async Task<NoContent> SignOut(SignInManager<CoachUser> signIn)
    {
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }

    internal static CoachUser User(Guid studioId, string name, string email, Role role) =>
        new()
        {
            Id = Guid.CreateVersion7(),
            StudioId = studioId,
            DisplayName = name.Trim(),
            UserName = email.Trim(),
            Email = email.Trim(),
            Role = role,
        };

    internal static List<Problem> CheckPerson(string email) =>
        email.Contains('@', StringComparison.Ordinal) ? [] : [Problem.Of("noEmail", "email")];

    internal static List<Problem> From(IdentityResult result) =>
        [
            .. result
                .Errors.Select(e =>
                    e.Code.StartsWith("Password", StringComparison.Ordinal) ? Problem.Of("passwordTooShort", "password", ("least", 10))
                    : e.Code is "DuplicateUserName" or "DuplicateEmail" ? Problem.Of("emailTaken", "email")
                    : Problem.Of("noEmail", "email")
                )
                .Distinct(),
        ];
}
