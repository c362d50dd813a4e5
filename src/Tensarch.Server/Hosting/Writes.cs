using Microsoft.AspNetCore.Authorization;
using Tensarch.Server.Data;

namespace Tensarch.Server.Hosting;

/// <summary>Marks an endpoint that only computes or reads although it is called with POST: an assistant may call it.</summary>
public sealed class ReadsOnly;

/// <summary>Decides from the method who may call an endpoint, so that a new one is guarded without anyone remembering.</summary>
public static class Writes
{
    public const string Policy = "writes";
    public const string OwnerPolicy = "owner";
    public const string RoleClaim = "tensarch:role";

    /// <summary>Every endpoint of the group needs a sign-in; every unsafe one that is not marked needs a coach.</summary>
    public static void GuardWrites(this RouteGroupBuilder group)
    {
        group.RequireAuthorization();
        ((IEndpointConventionBuilder)group).Finally(endpoint =>
        {
            var methods = endpoint.Metadata.OfType<IHttpMethodMetadata>().SelectMany(m => m.HttpMethods);
            var open = endpoint.Metadata.Any(m => m is IAllowAnonymous or ReadsOnly);
            if (!open && methods.Any(m => !HttpMethods.IsGet(m) && !HttpMethods.IsHead(m)))
                endpoint.Metadata.Add(new AuthorizeAttribute(Policy));
        });
    }

    public static void AddWritePolicies(this IServiceCollection services) =>
        services
            .AddAuthorizationBuilder()
            .AddPolicy(Policy, p => p.RequireClaim(RoleClaim, nameof(Role.Coach), nameof(Role.Owner)))
            .AddPolicy(OwnerPolicy, p => p.RequireClaim(RoleClaim, nameof(Role.Owner)));
}
