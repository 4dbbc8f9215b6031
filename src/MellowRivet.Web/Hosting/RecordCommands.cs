using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Store.Following;
using MellowRivet.Store.Proof;

namespace MellowRivet.Web.Hosting;

/// <summary>What the command line does with the chain of signed records and the shop's key.</summary>
internal static class RecordCommands
{
    public static async Task<int> VerifyAsync(string folder, string? expect, CancellationToken stop)
    {
        if (CommandLine.NoShop(folder) is { } none)
            return none;
        DataFolder data = new(folder);
        await using var db = RivetDb.Of(data);
        if (!await db.IsMigratedAsync(stop))
            return CommandLine.Fail("This shop was last opened by an earlier release: serve it once with this one, then verify it.", 2);
        var (heads, wrong) = await HeadsAsync(expect, stop);
        if (wrong is not null)
            return CommandLine.Fail(wrong, 2);
        var found = await ShopDatabase.VerifyAsync(db, data, stop);
        var hashes = await db.ChainAsync(stop);
        List<string> faults = [.. found.Faults, .. heads.Select(head => head.Fault(hashes)).OfType<string>().Distinct()];
        return Say(found with { Faults = faults }, heads.Count);
    }

    /// <summary>Says what was found: faults one line each to standard error, the rest to standard output.</summary>
    public static int Say(Verified found, int heads)
    {
        foreach (var note in found.Notes)
            Console.WriteLine($"Note: {note}.");
        if (found.Faults.Count > 0)
        {
            Console.Error.WriteLine($"rivet: Broken: {string.Join("; ", found.Faults.Take(20))}"
                + $"{(found.Faults.Count > 20 ? $"; and {found.Faults.Count - 20} more" : "")}.");
            return 1;
        }
        Console.WriteLine($"{found.Records} signed records, every one as it was signed, on what it was signed on."
            + $"{(found.Elsewhere > 0 ? $" {found.Elsewhere} more were signed elsewhere, and hold." : "")}"
            + $"{(heads > 0 ? $" The chain goes through {(heads == 1 ? "the head" : $"all {heads} heads")} that somebody kept." : "")}");
        if (found.Head.Number > 0)
            Console.WriteLine($"Head of the chain: {found.Head}");
        return 0;
    }

    /// <summary>The heads somebody kept: one as it is typed, or every line of a file.</summary>
    public static async Task<(IReadOnlyList<ChainHead> Heads, string? Wrong)> HeadsAsync(string? expect, CancellationToken stop)
    {
        if (expect is null)
            return ([], null);
        if (ChainHead.Read(expect) is { } typed)
            return ([typed], null);
        const string How = "--expect takes a head as it is printed, such as 12-3fa2 91c0 7be4 55d0, or a file of them.";
        if (!File.Exists(expect))
            return ([], How);
        List<ChainHead> heads = [];
        foreach (var line in await File.ReadAllLinesAsync(expect, stop))
            // A line of the shop's own is the instant, then the head.
            if (ChainHead.Read(line.Split(' ', 2)[^1]) is { } head)
                heads.Add(head);
            else if (line.Trim().Length > 0)
                return ([], $"A line of {Path.GetFileName(expect)} is no head of a chain. {How}");
        return heads.Count == 0 ? ([], $"{Path.GetFileName(expect)} has no head in it. {How}") : (heads, null);
    }

    /// <summary>Makes a key for a second machine that follows the shop.</summary>
    public static async Task<int> KeyForFollowerAsync(string folder, string file, CancellationToken stop)
    {
        if (CommandLine.NoShop(folder) is { } none)
            return none;
        if (Path.Exists(file))
            return CommandLine.Fail($"{file} is there already, and stays as it is: name another.", 2);
        FollowerKey.Make(new(folder), file);
        await CommandLine.TellAsync(folder, $"a key for a second machine, to {Path.GetFileName(file)}", stop);
        Console.WriteLine($"Bring {file} to the second machine, and follow there: ./rivet follow ADDRESS --key {Path.GetFileName(file)} "
            + "--data DIR. Whoever has it gets the whole shop. A key made before opens nothing any more.");
        return 0;
    }

    public static async Task<int> KeyAsync(string folder, bool change, bool lost, CancellationToken stop)
    {
        if (CommandLine.NoShop(folder) is { } none)
            return none;
        if (change && lost)
            return CommandLine.Fail("--change hands over to another key, --lost begins one without: one of the two.", 2);
        await using var db = RivetDb.Of(new(folder), CommandLine.AtTheCommandLine);
        if (!await db.IsMigratedAsync(stop))
            return CommandLine.Fail("This shop was last opened by an earlier release: serve it once with this one first.", 2);
        if (change || lost)
        {
            var (begun, refusal) = await db.ChangeKeyAsync(lost, TimeProvider.System.GetUtcNow(), stop);
            if (begun is null)
                return CommandLine.Fail(refusal!.Message, 1);
        }
        foreach (var line in await db.OwnAsync(stop))
            Console.WriteLine($"Key {line.Number}, from {line.From.UtcDateTime:yyyy-MM-dd HH:mm} UTC, after record {line.AfterRecord}"
                + $"{(line.IsAnew ? ", begun without the one before it" : line.Number > 1 ? ", handed over by the one before it" : "")}: "
                + ShopKey.ToCompare(line.Fingerprint));
        if (!await db.HasKeyAsync(TimeProvider.System.GetUtcNow(), stop))
            return CommandLine.Fail(ShopKeys.Missing.Message, 1);
        Console.WriteLine($"It lies in {ShopKeys.FileOf(db)}. Keep a copy where only the shop gets at it: without it nothing can be "
            + "signed, and whoever has it signs as the shop.");
        return 0;
    }
}
