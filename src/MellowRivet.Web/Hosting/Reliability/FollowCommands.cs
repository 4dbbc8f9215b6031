using System.Diagnostics;
using System.Globalization;
using MellowRivet.Core;
using MellowRivet.Store;
using MellowRivet.Store.Backups;
using MellowRivet.Store.Files;
using MellowRivet.Store.Following;
using Microsoft.Data.Sqlite;

namespace MellowRivet.Web.Hosting.Reliability;

/// <summary>Keeps a warm copy of a shop, and lets it take the shop's place.</summary>
public static class FollowCommands
{
    /// <summary>Seconds between rounds: what was promised is a minute, and a round takes its time.</summary>
    public const int Usual = 15;

    // A shop of half a gigabyte makes its image in seconds: a third of its time goes to that at most, as long as the minute holds.
    private const int Share = 3, LongestPause = 40;

    /// <param name="From">The shop's folder, or its address.</param>
    /// <param name="Into">The folder of the copy; null where none is named.</param>
    /// <param name="KeyFile">The file with the key that the shop made for it.</param>
    /// <param name="Every">Seconds between rounds.</param>
    /// <param name="Once">One round, and no more.</param>
    public sealed record Asked(string From, string? Into, string? KeyFile, int Every, bool Once);

    public static async Task<int> FollowAsync(Asked asked, CancellationToken stop)
    {
        if (asked.Into is not { } into)
            return CommandLine.Fail("Name the folder that the copy goes to, with --data.", 2);
        if (CopyState.In(into) is null && Directory.Exists(into) && Directory.EnumerateFileSystemEntries(into).Any())
            return CommandLine.Fail($"{into} is in use, and follows nothing: it stays as it is. Name a new folder.", 2);
        var (shop, wrong) = await ShopAsync(asked, into, stop);
        if (shop is null)
            return CommandLine.Fail(wrong!, 2);
        using (shop)
        {
            DataFolder copy = new(into);
            using var mine = CopyState.Lock(into);
            var state = CopyState.In(into) ?? new CopyState(asked.From, null);
            state.Keep(into);
            return await RoundsAsync(asked, new(shop, copy), state, into, stop);
        }
    }

    private static async Task<int> RoundsAsync(Asked asked, Follower follower, CopyState state, string into, CancellationToken stop)
    {
        Console.WriteLine($"Following {asked.From} into {into}, every {asked.Every} s; a large shop less often.");
        IReadOnlyList<string> damaged = [];
        long from;
        do
        {
            from = Stopwatch.GetTimestamp();
            try
            {
                var round = await follower.RoundAsync(stop);
                state = new(asked.From, round.AsOf);
                state.Keep(into);
                if (round.Bytes > 0 || asked.Once)
                    Say($"as of {Here(round.AsOf)}: {round.Blocks} blocks of the database and {round.Files} files came, "
                        + $"{(round.Bytes / 1_000_000.0).ToString("0.0", CultureInfo.InvariantCulture)} MB");
                if (!round.Damaged.SequenceEqual(damaged))
                    Say(round.Damaged is [var first, ..]
                        ? $"the shop’s disk spoilt {round.Damaged.Count} of its files, as {first}: the copy doesn’t take that"
                        : "every file of the shop’s is what its name says");
                damaged = round.Damaged;
            }
            catch (Exception problem) when (problem is IOException or InvalidDataException or SqliteException
                or UnauthorizedAccessException)
            {
                var why = Disk.IsFull(problem) ? "there is no room on this disk" : problem.Message.TrimEnd('.');
                var holds = state.AsOf is { } asOf ? $"the copy is as of {Here(asOf)}" : "there is no copy yet";
                if (asked.Once)
                    return CommandLine.Fail($"{why}; {holds}.", 1);
                Say($"not now: {why}; {holds}");
            }
        }
        while (!asked.Once && await NextAsync(Pause(Stopwatch.GetElapsedTime(from), asked.Every), stop));
        return 0;
    }

    /// <summary>How long after a round the next one begins.</summary>
    /// <param name="took">How long it took.</param>
    /// <param name="every">Seconds from the beginning of one to the beginning of the next, where rounds are short.</param>
    public static TimeSpan Pause(TimeSpan took, int every)
    {
        var apart = TimeSpan.FromSeconds(Math.Max(every, Math.Min(Share * took.TotalSeconds, LongestPause)));
        return apart > took ? apart - took : TimeSpan.Zero;
    }

    private static async Task<bool> NextAsync(TimeSpan pause, CancellationToken stop)
    {
        try
        {
            await Task.Delay(pause, stop);
            return true;
        }
        catch (OperationCanceledException)
        {
            return false;
        }
    }

    private static async Task<(IFollowed? Shop, string? Wrong)> ShopAsync(Asked asked, string into, CancellationToken stop)
    {
        if (Directory.Exists(asked.From))
            return File.Exists(Path.Combine(asked.From, ShopFiles.Database))
                ? Path.GetFullPath(asked.From) == Path.GetFullPath(into)
                    ? (null, "A shop doesn't follow itself.")
                    : (new FollowedFolder(new(asked.From), new DataFolder(into).Following, TimeProvider.System), null)
                : (null, $"There is no shop at {asked.From}.");
        if (!Uri.TryCreate(asked.From, UriKind.Absolute, out var address) || address.PathAndQuery != "/")
            return (null, $"{asked.From} is no folder, and no address such as https://rivet.example.");
        if (FollowedAddress.WhyNot(address) is { } not)
            return (null, not);
        return asked.KeyFile is { } file && File.Exists(file)
            ? (new FollowedAddress(address, (await File.ReadAllTextAsync(file, stop)).Trim()), null)
            : (null, "Name the file with the key, with --key: the shop makes one with ./rivet key --for-follower FILE.");
    }

    /// <summary>Why a folder that follows a shop isn't served as it is; null where it isn't one.</summary>
    public static string? IsCopy(string folder) => CopyState.In(folder) is { } copy
        ? $"{folder} is a copy of {copy.Of}, {(copy.AsOf is { } asOf ? $"as of {Here(asOf)}" : "and not whole yet")}. Where that machine "
        + "is gone for good, ./rivet serve --take-over makes it the shop; two of them at once would sign two chains."
        : null;

    /// <summary>Makes a copy the shop.</summary>
    public static async Task<int?> TakeOverAsync(string folder, CancellationToken stop)
    {
        if (CopyState.In(folder) is not { } copy)
            return CommandLine.Fail($"{folder} follows nothing: serve it without --take-over.", 2);
        if (copy.AsOf is not { } asOf)
            return CommandLine.Fail($"{folder} has no whole copy of {copy.Of} yet.", 1);
        CopyState.TakeOver(folder);
        DataFolder data = new(folder);
        await using (var db = RivetDb.Of(data))
            await ShopDatabase.BringUpToDateAsync(db, data, TimeProvider.System, stop);
        await CommandLine.TellAsync(folder, $"the whole shop, as the copy of {copy.Of} as of {asOf.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC",
            stop, Core.People.Deed.TakenIn);
        Console.WriteLine($"This is the shop now, as of {Here(asOf)}. What was kept on the other machine after that isn't here: look at "
            + "paper and phones of those minutes. Don't let the other machine be a shop again.");
        await using var after = RivetDb.Of(data);
        RecordCommands.Say(await ShopDatabase.VerifyAsync(after, data, stop), 0);
        return null;
    }

    private static string Here(DateTimeOffset at) => $"{TimeProvider.System.Here(at):yyyy-MM-dd HH:mm:ss}";

    private static void Say(string what) =>
        Console.WriteLine($"{TimeProvider.System.Here(TimeProvider.System.GetUtcNow()):HH:mm:ss} {what}.");
}
