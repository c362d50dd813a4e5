using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Programmes;
using Tensarch.Server.Accounts;
using Tensarch.Server.Data;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Demo;

/// <summary>The made-up studio of the demo, with fourteen weeks of history up to the day on which it is made.</summary>
public static partial class DemoStudio
{
    private const string Name = "Saltlamp Yard";
    private const string TimeZone = "Europe/Oslo";

    public static readonly IReadOnlyList<DemoAccount> Accounts =
    [
        new("Imre Solheim", Role.Owner, "imre@saltlamp.example", "lamp-works-owner"),
        new("Tamsin Quaye", Role.Coach, "tamsin@saltlamp.example", "lamp-works-coach"),
        new("Odile Brandt", Role.Assistant, "odile@saltlamp.example", "lamp-works-reads"),
    ];

    /// <summary>Makes the studio when nobody is in the database yet: all of it, or nothing.</summary>
    public static async Task EnsureMade(IServiceProvider services, ILogger log, CancellationToken ct = default)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        if (await db.Users.AnyAsync(ct))
            return;

        Making(log);
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var studio = new StudioRow
        {
            Id = Guid.CreateVersion7(),
            Name = Name,
            TimeZone = TimeZone,
        };
        db.Studios.Add(studio);
        await db.SaveChangesAsync(ct);
        var users = scope.ServiceProvider.GetRequiredService<UserManager<CoachUser>>();
        foreach (var account in Accounts)
            await users.CreateAsync(AccountEndpoints.User(studio.Id, account.Name, account.Email, account.Role), account.Password);

        var owner = await db.Users.SingleAsync(u => u.Email == Accounts[0].Email, ct);
        var mine = scope.ServiceProvider.GetRequiredService<StudioScope>();
        mine.Enter(studio.Id, owner.Id, TimeZone);
        var catalogue = scope.ServiceProvider.GetRequiredService<CatalogueContent>();
        var files = scope.ServiceProvider.GetRequiredService<PictureFiles>();
        var solver = scope.ServiceProvider.GetRequiredService<IWeekSolver>();
        var today = scope.ServiceProvider.GetRequiredService<StudioClock>().Today;
        foreach (var who in DemoCases.All)
            await new Simulator(db, catalogue, files, solver, mine, today, who, Seed(who.Name)).Live(ct);
        await transaction.CommitAsync(ct);
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Making the demo studio with fourteen weeks of history: once, about half a minute.")]
    private static partial void Making(ILogger log);

    private static int Seed(string name) => BitConverter.ToInt32(SHA256.HashData(Encoding.UTF8.GetBytes(name)));
}
