using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Accounts;

/// <summary>Who works here: added, corrected and let go by the owner; one's own name and password by oneself.</summary>
public static class MemberEndpoints
{
    public static void MapMembers(this IEndpointRouteBuilder api)
    {
        var members = api.MapGroup("/accounts/members").WithTags("Accounts");
        members.MapGet("/", Members);
        members.MapPost("/", Add).RequireAuthorization(Writes.OwnerPolicy);
        members.MapPost("/{memberId}/changes", Change).RequireAuthorization(Writes.OwnerPolicy);
        // One's own, whoever may write here otherwise.
        var own = api.MapGroup("/accounts/me").WithTags("Accounts").WithMetadata(new ReadsOnly());
        own.MapPut("/", ChangeOwn).RequireRateLimiting(AccountEndpoints.SignInLimit);
        own.MapPost("/password", ChangePassword).RequireRateLimiting(AccountEndpoints.SignInLimit);
    }

    private static UserView View(CoachUser user) => new(user.Id, user.DisplayName, user.Email!, user.Role, user.LeftAt);

    private static async Task<Ok<List<MemberView>>> Members(TensarchDb db, ClaimsPrincipal user, CancellationToken ct)
    {
        var users = await db.Users.AsNoTracking().OrderBy(u => u.LeftAt != null).ThenBy(u => u.DisplayName).ToListAsync(ct);
        var unsent = user.HasClaim(Writes.RoleClaim, nameof(Role.Owner))
            ? (await db.Unsent.AsNoTracking().ToListAsync(ct)).ToLookup(u => u.UserId)
            : null;
        return TypedResults.Ok(
            users.ConvertAll(u => new MemberView(
                u.Id,
                u.DisplayName,
                u.Email!,
                u.Role,
                u.LeftAt,
                unsent is null ? null : UnsentEndpoints.View(unsent[u.Id])
            ))
        );
    }

    private static async Task<Results<Created<UserView>, ProblemHttpResult>> Add(
        MemberRequest request,
        StudioScope scope,
        UserManager<CoachUser> users
    )
    {
        var problems = AccountEndpoints.CheckPerson(request.Email);
        if (request.Role == Role.Owner)
            problems.Add(Problem.Of("oneOwner", "role"));
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        var user = AccountEndpoints.User(scope.StudioId, request.Name, request.Email, request.Role);
        var kept = await Keep(() => users.CreateAsync(user, request.Password));
        return kept.Count == 0 ? TypedResults.Created("/api/v1/accounts/members", View(user)) : Problems.Unprocessable(kept);
    }

    private static async Task<Results<Ok<UserView>, ProblemHttpResult>> Change(
        Guid memberId,
        MemberChange change,
        StudioScope scope,
        StudioClock clock,
        UserManager<CoachUser> users,
        SignIns signIns
    )
    {
        var user = (await users.FindByIdAsync(memberId.ToString()))!;
        var problems = new List<Problem>();
        if (change.Name is { } name && string.IsNullOrWhiteSpace(name))
            problems.Add(Problem.Of("required", "name"));
        if (change.Email is { } email)
            problems.AddRange(AccountEndpoints.CheckPerson(email));
        // Whoever holds somebody's sign-in could take the account over here: these two are changed where the password is asked.
        if (user.Id == scope.UserId)
        {
            if (change.Email is { } own && own.Trim() != user.Email)
                problems.Add(Problem.Of("askedInSettings", "email"));
            if (change.Password is not null)
                problems.Add(Problem.Of("askedInSettings", "password"));
        }
        if (change.Role is { } role && role != user.Role && (role == Role.Owner || user.Role == Role.Owner))
            problems.Add(Problem.Of("oneOwner", "role"));
        if (change.Left == true && user.Role == Role.Owner)
            problems.Add(Problem.Of("oneOwner", "left"));
        if (change.Password is { } asked)
            foreach (var validator in users.PasswordValidators)
                problems.AddRange(AccountEndpoints.From(await validator.ValidateAsync(users, user, asked)));
        if (problems.Count > 0)
            return Problems.Unprocessable([.. problems.Distinct()]);

        user.DisplayName = change.Name?.Trim() ?? user.DisplayName;
        user.Role = change.Role ?? user.Role;
        if (change.Email is { } address)
            user.UserName = user.Email = address.Trim();
        if (change.Left is { } left)
            user.LeftAt = left ? user.LeftAt ?? clock.Now : null;
        if (change.Password is { } password)
            user.PasswordHash = users.PasswordHasher.HashPassword(user, password);
        var kept = await Keep(() => users.UpdateAsync(user));
        if (kept.Count > 0)
            return Problems.Unprocessable(kept);
        if (change.Password is not null || change.Left == true)
        {
            await users.UpdateSecurityStampAsync(user);
            await signIns.RemoveAll(user.Id);
        }
        return TypedResults.Ok(View(user));
    }

    /// <summary>With another address, the sign-in at hand goes on, and every other one of the same person ends.</summary>
    private static async Task<Results<Ok<UserView>, ProblemHttpResult>> ChangeOwn(
        OwnRequest request,
        HttpContext context,
        TensarchDb db,
        StudioScope scope,
        UserManager<CoachUser> users,
        SignInManager<CoachUser> signIn,
        SignIns signIns,
        CancellationToken ct
    )
    {
        if (request.Name is { } typed && string.IsNullOrWhiteSpace(typed))
            return Problems.Unprocessable([Problem.Of("required", "name")]);
        if (request.Email is { } email)
        {
            var user = (await users.FindByIdAsync(scope.UserId.ToString()))!;
            var problems = AccountEndpoints.CheckPerson(email);
            if (request.Current is not { Length: > 0 } current)
                problems.Add(Problem.Of("required", "current"));
            else if (!await users.CheckPasswordAsync(user, current))
                problems.Add(Problem.Of("wrongPassword", "current"));
            if (problems.Count > 0)
                return Problems.Unprocessable(problems);
            user.UserName = user.Email = email.Trim();
            var kept = await Keep(() => users.UpdateAsync(user));
            if (kept.Count > 0)
                return Problems.Unprocessable(kept);
            await users.UpdateSecurityStampAsync(user);
            await signIns.RemoveAll(user.Id, SignIns.Of(context));
            await signIn.RefreshSignInAsync(user);
        }
        // In one statement: two that change the same person at once both stand.
        if (request.Name?.Trim() is { } name)
            await db.Users.Where(u => u.Id == scope.UserId).ExecuteUpdateAsync(u => u.SetProperty(x => x.DisplayName, name), ct);
        return TypedResults.Ok(View(await db.Users.AsNoTracking().SingleAsync(u => u.Id == scope.UserId, ct)));
    }

    /// <summary>The sign-in at hand goes on; every other one of the same person ends.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> ChangePassword(
        PasswordRequest request,
        HttpContext context,
        StudioScope scope,
        UserManager<CoachUser> users,
        SignInManager<CoachUser> signIn,
        SignIns signIns
    )
    {
        var user = (await users.FindByIdAsync(scope.UserId.ToString()))!;
        var changed = await users.ChangePasswordAsync(user, request.Current, request.Password);
        if (!changed.Succeeded)
            return Problems.Unprocessable(
                changed.Errors.Any(e => e.Code == "PasswordMismatch")
                    ? [Problem.Of("wrongPassword", "current")]
                    : AccountEndpoints.From(changed)
            );
        await signIns.RemoveAll(user.Id, SignIns.Of(context));
        await signIn.RefreshSignInAsync(user);
        return TypedResults.NoContent();
    }

    private static async Task<IReadOnlyList<Problem>> Keep(Func<Task<IdentityResult>> keep)
    {
        try
        {
            var kept = await keep();
            return kept.Succeeded ? [] : AccountEndpoints.From(kept);
        }
        catch (DbUpdateException e) when (Facts.IsTaken(e))
        {
            // A twin of this request came first.
            return [Problem.Of("emailTaken", "email")];
        }
    }
}
