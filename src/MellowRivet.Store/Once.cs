using System.Collections.Concurrent;
using MellowRivet.Core;
using MellowRivet.Store.Files;
using MellowRivet.Store.Proof;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace MellowRivet.Store;

/// <summary>What became of a post: why it was refused, or that it was carried out already.</summary>
/// <param name="Refusal">Why it was refused; null where it was carried out.</param>
/// <param name="Repeated">It was carried out before.</param>
/// <param name="Job">The inspection as it is after it, where one was written.</param>
public sealed record Written(Refusal? Refusal, bool Repeated = false, Job? Job = null)
{
    public bool Done => Refusal is null;
}

/// <summary>Carries out a post in its turn and once.</summary>
public static class Once
{
    /// <summary>The field of a refusal where a write's turn didn't come: no field's own.</summary>
    public const string Busy = "busy";

    /// <summary>The same refusal beside another field; what is no field's own stays above everything.</summary>
    public static Refusal At(this Refusal refusal, string field) => refusal.Field == Busy ? refusal : refusal with { Field = field };

    private const int SqliteBusy = 5, SqliteConstraint = 19;

    private static readonly Refusal NoTurn = new(Busy,
        "Somebody else has been writing all this time, and your turn didn’t come. Nothing was changed, and what you typed "
        + "is still here: send it again.");

    // What is made takes the id of the post that made it: another thing's id makes nothing.
    private static readonly Refusal IdTaken = new("post",
        "That was sent under an id that something else has. Nothing was changed: load the page anew, and send it again.");

    // SQLite's own waiting looks again after a while, longer each time, and holds a thread that pages want: whoever writes in this
    // process queues here, and only what other programs hold is waited for there.
    private static readonly ConcurrentDictionary<string, SemaphoreSlim> Queues = [];

    /// <summary>How long a post is known again: longer than any device keeps one that it couldn't send.</summary>
    public static readonly TimeSpan Kept = TimeSpan.FromDays(90);

    /// <summary>
    /// Takes the write lock, does the work, and saves it together with the post's id; a refusal leaves everything as it was.
    /// </summary>
    /// <param name="db">The shop.</param>
    /// <param name="post">The id the form carried; a second post with it changes nothing.</param>
    /// <param name="clock">The time.</param>
    /// <param name="work">Changes what it loads, or says why not.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<Written> OnceAsync(this RivetDb db, Guid post, TimeProvider clock, Func<Task<Refusal?>> work,
        CancellationToken stop)
    {
        db.Forget();
        var shop = db.Database.GetDbConnection();
        var queue = Queues.GetOrAdd(shop.DataSource, _ => new(1));
        if (!await queue.WaitAsync(TimeSpan.FromSeconds(shop.ConnectionTimeout), stop))
            return new(NoTurn);
        try
        {
            return post == Guid.Empty ? new(IdTaken) : await InTurnAsync(db, post, clock, work, stop);
        }
        catch (DbUpdateException taken) when (taken.InnerException is SqliteException { SqliteErrorCode: SqliteConstraint })
        {
            return new(IdTaken);
        }
        catch (IdTakenException)
        {
            return new(IdTaken);
        }
        catch (NoKeyException)
        {
            return new(ShopKeys.Missing);
        }
        catch (Exception full) when (Disk.IsFull(full))
        {
            // What was to be saved isn't: the page that says so shows what there is.
            db.Forget();
            return new(Disk.NoRoom);
        }
        finally
        {
            queue.Release();
        }
    }

    private static async Task<Written> InTurnAsync(RivetDb db, Guid post, TimeProvider clock, Func<Task<Refusal?>> work,
        CancellationToken stop)
    {
        IDbContextTransaction? turn;
        try
        {
            turn = await db.Database.BeginTransactionAsync(stop);
        }
        catch (SqliteException held) when (held.SqliteErrorCode == SqliteBusy)
        {
            return new(NoTurn);
        }
        await using var transaction = turn;
        if (await db.Postings.AnyAsync(done => done.Id == post, stop))
            return new(null, Repeated: true);
        if (await work() is { } refusal)
            return new(refusal);
        var now = clock.GetUtcNow();
        var past = now - Kept;
        await db.Postings.Where(done => done.At < past).ExecuteDeleteAsync(stop);
        db.Postings.Add(new() { Id = post, At = now });
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return new((Refusal?)null);
    }
}
