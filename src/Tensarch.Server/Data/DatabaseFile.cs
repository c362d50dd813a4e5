using System.Reflection;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Tensarch.Server.Data;

/// <summary>The database as a file: asked directly, without the model, so that starting and being ready cost little.</summary>
public sealed class DatabaseFile(string connectionString)
{
    /// <summary>The newest migration that this program carries.</summary>
    private static readonly string Newest = typeof(DatabaseFile)
        .Assembly.GetTypes()
        .Select(t => t.GetCustomAttribute<MigrationAttribute>()?.Id)
        .OfType<string>()
        .Max(StringComparer.Ordinal)!;

    /// <summary>Whether the newest migration is in.</summary>
    public bool IsMigrated()
    {
        using var connection = Open();
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT COUNT(*) FROM sqlite_master WHERE name = '__EFMigrationsHistory'";
        if ((long)command.ExecuteScalar()! == 0)
            return false;
        command.CommandText = "SELECT COUNT(*) FROM __EFMigrationsHistory WHERE MigrationId = $id";
        command.Parameters.AddWithValue("$id", Newest);
        return (long)command.ExecuteScalar()! > 0;
    }

    /// <summary>
    /// A copy of a database that holds something, beside it, before a newer program changes it: <c>tensarch.before-…db</c>. A database that
    /// cannot be copied is not migrated.
    /// </summary>
    /// <exception cref="SqliteException">There is no room for it.</exception>
    public void CopyBeforeMigration()
    {
        using var connection = Open();
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT COUNT(*) FROM sqlite_master WHERE name = 'Studios'";
        var copy = Path.ChangeExtension(connection.DataSource, $".before-{Newest}.db");
        if ((long)command.ExecuteScalar()! == 0 || File.Exists(copy))
            return;
        var draft = copy + ".part";
        File.Delete(draft);
        command.CommandText = "VACUUM INTO $copy";
        command.Parameters.AddWithValue("$copy", draft);
        command.ExecuteNonQuery();
        File.Move(draft, copy);
    }

    /// <summary>Whether a write lock can be had.</summary>
    public bool IsWritable()
    {
        try
        {
            using var connection = Open();
            using var command = connection.CreateCommand();
            command.CommandText = "BEGIN IMMEDIATE; ROLLBACK;";
            command.ExecuteNonQuery();
            return true;
        }
        catch (SqliteException)
        {
            return false;
        }
    }

    private SqliteConnection Open()
    {
        var connection = new SqliteConnection(connectionString);
        connection.Open();
        return connection;
    }
}
