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
