using System.Data.Common;
using System.Globalization;
using System.Text;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace MellowRivet.Store.Proof;

/// <summary>
/// Writes the head of the chain to a file outside the shop's folder, a line at each signature, once it is kept. A chain that is written
/// anew or cut later doesn't go through that file's lines any more.
/// </summary>
/// <param name="file">The file; it is only ever added to.</param>
public sealed class HeadKeeper(string file) : DbTransactionInterceptor
{
    private static readonly Lock OneAtATime = new();

    public override Task TransactionCommittedAsync(DbTransaction transaction, TransactionEndEventData eventData,
        CancellationToken cancellationToken = default)
    {
        Keep(eventData.Context as RivetDb);
        return Task.CompletedTask;
    }

    public override void TransactionCommitted(DbTransaction transaction, TransactionEndEventData eventData) =>
        Keep(eventData.Context as RivetDb);

    private void Keep(RivetDb? db)
    {
        var signed = db?.ChangeTracker.Entries<SignedRecord>().Where(entry => entry.State == EntityState.Unchanged)
            .Select(entry => entry.Entity).MaxBy(record => record.Id);
        if (signed is null or { Id: <= 0 })
            return;
        var line = string.Create(CultureInfo.InvariantCulture, $"{signed.SignedAt.UtcDateTime:O} {signed.Id}-{signed.Hash}\n");
        try
        {
            lock (OneAtATime)
            {
                if (File.Exists(file) && File.ReadLines(file).LastOrDefault() == line.TrimEnd())
                    return;
                using var to = new FileStream(file, FileMode.Append, FileAccess.Write, FileShare.Read);
                to.Write(Encoding.UTF8.GetBytes(line));
                to.Flush(flushToDisk: true);
            }
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException)
        {
            // The signature is kept, and the next line has this one in it: a disk that is away keeps nobody from signing.
            Console.Error.WriteLine($"rivet: the head of the chain couldn't be written to {file} ({problem.Message}).");
        }
    }
}
