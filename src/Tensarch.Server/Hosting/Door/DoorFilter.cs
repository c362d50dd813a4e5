using System.Reflection;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;
using Tensarch.Server.Data;

namespace Tensarch.Server.Hosting.Door;

/// <summary>
/// The one door: whatever a request brings, in its body, its path and its query, is held against its limits before the endpoint sees it.
/// A new endpoint is behind it without anyone remembering.
/// </summary>
public static class DoorFilter
{
    public static void CheckAtTheDoor(this RouteGroupBuilder group) =>
        group.AddEndpointFilterFactory(
            (factory, next) =>
            {
                var services = factory.ApplicationServices.GetRequiredService<IServiceProviderIsService>();
                var json = factory.ApplicationServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
                var brought = factory.MethodInfo.GetParameters().Index().Where(p => IsBrought(p.Item, services)).ToList();
                if (brought.Count == 0)
                    return next;
                var limits = brought.Select(p => (p.Index, Name: NameOf(p.Item), Limit: Limit.Of(p.Item))).ToList();
                return context =>
                {
                    var clock = context.HttpContext.RequestServices.GetRequiredService<StudioClock>();
                    var check = new BodyCheck(json, clock.Now, clock.Today);
                    foreach (var (index, name, limit) in limits)
                        check.Look(context.Arguments[index], limit, name);
                    return check.Problems.Count > 0 ? new(Problems.Unprocessable(check.Problems)) : next(context);
                };
            }
        );

    /// <summary>A body, or a value of the path, the query or a header; no service and nothing that the host hands out.</summary>
    private static bool IsBrought(ParameterInfo parameter, IServiceProviderIsService services)
    {
        var type = Nullable.GetUnderlyingType(parameter.ParameterType) ?? parameter.ParameterType;
        return type == typeof(string)
            || type == typeof(Guid)
            || type == typeof(DateTimeOffset)
            || IsBody(type) && !services.IsService(type);
    }

    private static bool IsBody(Type type) => type.IsClass && type.Namespace?.StartsWith("Tensarch.", StringComparison.Ordinal) == true;

    /// <summary>Fields of a body stand on their own; what stands in the path or the query has its own name.</summary>
    private static string NameOf(ParameterInfo parameter) => IsBody(parameter.ParameterType) ? "" : parameter.Name!;
}
