using System.Data.Common;
using System.Globalization;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests;

/// <summary>
/// Whatever a request writes of a student that verdicts rest on raises their facts version in the same transaction, or the request fails: in every test of the
/// suite, so that a bulk update which forgets it cannot stay unseen.
/// </summary>
public sealed partial class FactsWatcher(IHttpContextAccessor requests) : DbCommandInterceptor, IDbTransactionInterceptor
{
    private readonly Lock looking = new();
    private readonly Dictionary<DbContextId, (string? Written, bool Raised)> open = [];
    private HashSet<string>? judged;

    /// <summary>What a calendar counts up is no fact about anybody.</summary>
    [GeneratedRegex("^UPDATE \"Sessions\" AS \"s\"\\s+SET \"Sequence\" = \"s\".\"Sequence\" \\+ 1\\s")]
    private static partial Regex CountsUp();

    [GeneratedRegex("(?:INSERT INTO|UPDATE|DELETE FROM) \"(\\w+)\"")]
    private static partial Regex Write();

    public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
        DbCommand command,
        CommandEventData eventData,
        InterceptionResult<DbDataReader> result,
        CancellationToken cancellationToken = default
    )
    {
        Look(command, eventData.Context);
        return new(result);
    }

    public override ValueTask<InterceptionResult<int>> NonQueryExecutingAsync(
        DbCommand command,
        CommandEventData eventData,
        InterceptionResult<int> result,
        CancellationToken cancellationToken = default
    )
    {
        Look(command, eventData.Context);
        return new(result);
    }

    public ValueTask<InterceptionResult> TransactionCommittingAsync(
        DbTransaction transaction,
        TransactionEventData eventData,
        InterceptionResult result,
        CancellationToken cancellationToken = default
    )
    {
        var (written, raised) = Take(eventData.Context!);
        if (written is not null && !raised)
            throw new InvalidOperationException($"\"{written}\" was written, and the facts version was not raised.");
        return new(result);
    }

    public Task TransactionRolledBackAsync(
        DbTransaction transaction,
        TransactionEndEventData eventData,
        CancellationToken cancellationToken = default
    )
    {
        Take(eventData.Context!);
        return Task.CompletedTask;
    }

    private (string? Written, bool Raised) Take(DbContext context)
    {
        lock (looking)
            return open.Remove(context.ContextId, out var found) ? found : default;
    }

    private void Look(DbCommand command, DbContext? context)
    {
        if (context is not TensarchDb || requests.HttpContext is null || CountsUp().IsMatch(command.CommandText))
            return;
        foreach (var table in Write().Matches(command.CommandText).Select(m => m.Groups[1].Value))
        {
            var raises =
                table == "Pulses"
                && command.Parameters.Count > 2
                && Convert.ToInt64(command.Parameters[2].Value, CultureInfo.InvariantCulture) > 0;
            if (!raises && !Judged(context).Contains(table))
                continue;
            if (context.Database.CurrentTransaction is null)
                throw new InvalidOperationException($"\"{table}\" is written outside of a transaction that raises the facts version.");
            lock (looking)
            {
                var (written, raised) = open.GetValueOrDefault(context.ContextId);
                open[context.ContextId] = (raises ? written : table, raised || raises);
            }
        }
    }

    private HashSet<string> Judged(DbContext context) =>
        judged ??= [.. context.Model.GetEntityTypes().Where(e => e.ClrType.IsAssignableTo(typeof(IJudged))).Select(e => e.GetTableName()!)];
}
