using Tensarch.Server.Accounts;
using Tensarch.Server.Data;

namespace Tensarch.Server.Demo;

/// <summary>The made-up studio of the demo.</summary>
public static class DemoStudio
{
    public static readonly IReadOnlyList<DemoAccount> Accounts =
    [
        new("Imre Solheim", Role.Owner, "imre@saltlamp.example", "lamp-works-owner"),
        new("Tamsin Quaye", Role.Coach, "tamsin@saltlamp.example", "lamp-works-coach"),
        new("Odile Brandt", Role.Assistant, "odile@saltlamp.example", "lamp-works-reads"),
    ];

    public static Task EnsureMade(IServiceProvider services) => Task.CompletedTask;
}
