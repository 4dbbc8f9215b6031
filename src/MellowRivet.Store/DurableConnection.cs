using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace MellowRivet.Store;

/// <summary>
/// Makes every connection wait for the disk: an acknowledged record survives a killed process and a pulled plug. What is sorted on the way
/// is sorted in memory: a full disk keeps nobody from reading. It stays open as long as its context, since opening one sets it up anew,
/// for each query.
/// </summary>
internal sealed class DurableConnection : DbConnectionInterceptor
{
    public static readonly DurableConnection Instance = new();

    private static string Settings(DbConnection connection) =>
        $"PRAGMA synchronous=FULL; PRAGMA temp_store=MEMORY; PRAGMA busy_timeout={connection.ConnectionTimeout * 1_000};";

    public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
    {
        using var command = connection.CreateCommand();
        command.CommandText = Settings(connection);
        command.ExecuteNonQuery();
    }

    public override async Task ConnectionOpenedAsync(DbConnection connection, ConnectionEndEventData eventData,
        CancellationToken cancellationToken = default)
    {
        await using var command = connection.CreateCommand();
        command.CommandText = Settings(connection);
        await command.ExecuteNonQueryAsync(cancellationToken);
    }

    public override InterceptionResult ConnectionClosing(DbConnection connection, ConnectionEventData eventData,
        InterceptionResult result) => InterceptionResult.Suppress();

    public override ValueTask<InterceptionResult> ConnectionClosingAsync(DbConnection connection, ConnectionEventData eventData,
        InterceptionResult result) => new(InterceptionResult.Suppress());
}
