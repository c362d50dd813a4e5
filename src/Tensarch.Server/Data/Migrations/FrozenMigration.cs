using System.Reflection;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Tensarch.Server.Data.Migrations;

/// <summary>
/// A migration that databases have been through: the statements that it came to, as they were run, in the file of its name. What a tool wrote to
/// make them is gone; it was half of the server's lines.
/// </summary>
internal abstract class FrozenMigration : Migration
{
    private const string Next = "-- next";
    private const string Outside = ", outside a transaction";

    protected override void Up(MigrationBuilder migrationBuilder)
    {
        foreach (var part in Text().Split(Next, StringSplitOptions.RemoveEmptyEntries))
        {
            var outside = part.StartsWith(Outside, StringComparison.Ordinal);
            migrationBuilder.Sql(outside ? part[Outside.Length..] : part, suppressTransaction: outside);
        }
    }

    private string Text()
    {
        var name = $"migrations/{GetType().GetCustomAttribute<MigrationAttribute>()!.Id}.sql";
        using var reader = new StreamReader(typeof(FrozenMigration).Assembly.GetManifestResourceStream(name)!);
        return reader.ReadToEnd();
    }
}
