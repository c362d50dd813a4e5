using System.Reflection;
using Tensarch.Core.Students;

namespace Tensarch.Server.Tests;

/// <summary>Bars come from <see cref="StudentState.From"/> and from nowhere else: the server has no other way to make or to lift one.</summary>
public class OneStateTests
{
    private static readonly Type[] Guarded = [typeof(StudentState), typeof(Bars), typeof(DayBars), typeof(PastBars)];

    [Fact]
    public void Nothing_outside_the_core_can_make_a_state_or_bars() =>
        Assert.All(Guarded, type => Assert.Empty(type.GetConstructors(BindingFlags.Public | BindingFlags.Instance)));

    [Fact]
    public void The_core_offers_one_way_to_a_state_and_one_from_there_to_bars()
    {
        var ways =
            from type in typeof(StudentState).Assembly.GetExportedTypes()
            from method in type.GetMethods(BindingFlags.Public | BindingFlags.Instance | BindingFlags.Static | BindingFlags.DeclaredOnly)
            where Guarded.Contains(method.ReturnType) && !method.Name.StartsWith("get_", StringComparison.Ordinal)
            select $"{type.Name}.{method.Name}";
        Assert.Equal(["Bars.On", "PastBars.At", "StudentState.From"], ways.Order());
        var settable =
            from type in typeof(StudentState).Assembly.GetExportedTypes()
            from property in type.GetProperties()
            where Guarded.Contains(property.DeclaringType) && property.SetMethod?.IsPublic == true
            select $"{type.Name}.{property.Name}";
        Assert.Empty(settable);
    }

    [Fact]
    public void The_core_lets_its_own_tests_alone_look_inside() =>
        Assert.Equal(
            ["Tensarch.Core.Tests"],
            typeof(StudentState)
                .Assembly.GetCustomAttributes<System.Runtime.CompilerServices.InternalsVisibleToAttribute>()
                .Select(a => a.AssemblyName)
        );
}
