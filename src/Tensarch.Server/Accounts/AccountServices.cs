using System.Security.Claims;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Students;

namespace Tensarch.Server.Accounts;

public static class AccountServices
{
    private const string StudioClaim = "tensarch:studio";
    private const string TimeZoneClaim = "tensarch:zone";

    public static void AddAccounts(this IServiceCollection services, IConfiguration config, string dataDirectory)
    {
        services.AddDataProtection().SetApplicationName("Tensarch").PersistKeysToFileSystem(new(Path.Combine(dataDirectory, "keys")));
        services
            .AddIdentityCore<CoachUser>(options =>
            {
                options.Password = new()
                {
                    RequiredLength = 10,
                    RequireDigit = false,
                    RequireLowercase = false,
                    RequireUppercase = false,
                    RequireNonAlphanumeric = false,
                };
                options.User.RequireUniqueEmail = true;
                options.Lockout.MaxFailedAccessAttempts = 5;
                options.Lockout.DefaultLockoutTimeSpan = TimeSpan.FromMinutes(5);
            })
            .AddEntityFrameworkStores<TensarchDb>()
            .AddSignInManager()
            .AddClaimsPrincipalFactory<StudioClaims>();
        services
            .AddAuthentication(IdentityConstants.ApplicationScheme)
            .AddCookie(
                IdentityConstants.ApplicationScheme,
                options =>
                {
                    options.Cookie.Name = "tensarch";
                    options.Cookie.HttpOnly = true;
                    options.Cookie.SameSite = SameSiteMode.Strict;
                    options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                    options.ExpireTimeSpan = TimeSpan.FromDays(14);
                    options.Events.OnRedirectToLogin = context => Problems.Of(401, "signedOut").ExecuteAsync(context.HttpContext);
                    options.Events.OnRedirectToAccessDenied = context => Problems.Of(403, "readsOnly").ExecuteAsync(context.HttpContext);
                    options.Events.OnValidatePrincipal = SecurityStampValidator.ValidatePrincipalAsync;
                }
            );
        services.AddSingleton<SignIns>();
        services.AddSingleton<SetupCode>();
        services
            .AddOptions<CookieAuthenticationOptions>(IdentityConstants.ApplicationScheme)
            .Configure<SignIns>((options, signIns) => options.SessionStore = signIns);
        services.AddWritePolicies();
        services.AddRateLimiter(options =>
        {
            options.OnRejected = async (context, _) => await Problems.Of(429, "tooManyTries").ExecuteAsync(context.HttpContext);
            options.AddPolicy(
                AccountEndpoints.SignInLimit,
                context =>
                    RateLimitPartition.GetFixedWindowLimiter(
                        context.Connection.RemoteIpAddress?.ToString() ?? "",
                        _ => new() { PermitLimit = config.GetValue("SignInsPerMinute", 20), Window = TimeSpan.FromMinutes(1) }
                    )
            );
        });
    }

    /// <summary>Enters the signed-in coach's studio for the rest of the request.</summary>
    public static IApplicationBuilder UseStudioScope(this IApplicationBuilder app) =>
        app.Use(
            (context, next) =>
            {
                var user = context.User;
                if (
                    Guid.TryParse(user.FindFirstValue(StudioClaim), out var studio)
                    && Guid.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), out var id)
                )
                {
                    var scope = context.RequestServices.GetRequiredService<StudioScope>();
                    scope.Enter(studio, id, user.FindFirstValue(TimeZoneClaim) ?? "UTC");
                    context.Response.OnStarting(() => Pulse.Tell(context.Response, scope));
                }
                return next(context);
            }
        );

    /// <summary>What a sign-in says of a coach: the studio, its time zone and the role.</summary>
    private sealed class StudioClaims(UserManager<CoachUser> users, IOptions<IdentityOptions> options, TensarchDb db)
        : UserClaimsPrincipalFactory<CoachUser>(users, options)
    {
        protected override async Task<ClaimsIdentity> GenerateClaimsAsync(CoachUser user)
        {
            var zone = await db.Studios.IgnoreQueryFilters().Where(s => s.Id == user.StudioId).Select(s => s.TimeZone).SingleAsync();
            var identity = await base.GenerateClaimsAsync(user);
            identity.AddClaim(new(StudioClaim, user.StudioId.ToString()));
            SetClaims(identity, zone, user.Role);
            return identity;
        }
    }

    /// <summary>The studio's time zone and the role, which may change under a sign-in.</summary>
    public static void SetClaims(ClaimsIdentity identity, string timeZone, Role role)
    {
        foreach (var old in identity.FindAll(c => c.Type is TimeZoneClaim or Writes.RoleClaim).ToList())
            identity.RemoveClaim(old);
        identity.AddClaims([new(TimeZoneClaim, timeZone), new(Writes.RoleClaim, role.ToString())]);
    }
}
