using MellowRivet.Core;
using MellowRivet.Store;
using MellowRivet.Store.Backups;

namespace MellowRivet.Web.Hosting.Reliability;

/// <summary>What the command line does with a shop as a whole.</summary>
internal static class BackupCommands
{
    private const int MostTold = 20;

    /// <summary>Writes a shop into one file.</summary>
    public static async Task<int> BackupAsync(string folder, string file, CancellationToken stop)
    {
        if (CommandLine.NoShop(folder) is { } none)
            return none;
        if (Path.Exists(file))
            return CommandLine.Fail($"{file} is there already, and stays as it is: name another.", 2);
        DataFolder data = new(folder);
        var manifest = await ShopBackup.WriteAsync(data, file, TimeProvider.System, stop);
        IReadOnlyList<LostFile> lost;
        await using (var db = RivetDb.Of(data))
            lost = (await LastBackup.KeepAsync(data, db, manifest, file, [], stop)).Lost!;
        await CommandLine.TellAsync(folder, $"the whole shop to {Path.GetFileName(file)}", stop);
        Console.WriteLine($"Backed up to {file}, and read again: {InWords(manifest.Holds)}, {manifest.Files.Count} files, "
            + $"{new FileInfo(file).Length / 1_000_000.0:0.0} MB.");
        Console.WriteLine("Whoever has it has the shop, its passwords’ hashes and its signing key: keep it where nobody else reads it.");
        if (lost.Count == 0)
            return 0;
        return CommandLine.Fail($"The shop’s own disk lost {lost.Count} of its files, or changed them: the backup has what there is. "
            + string.Join("; ", lost.Take(MostTold).Select(one => $"{one.Path}, {(one.In is { } has ? $"which {has} has as it was"
                : "which no backup has that is known of")}")) + $"{(lost.Count > MostTold ? "; and more" : "")}.", 1);
    }

    /// <summary>Makes a shop of a backup.</summary>
    public static async Task<int> RestoreAsync(string file, string? folder, CancellationToken stop)
    {
        if (folder is null)
            return CommandLine.Fail("Name the folder that the shop goes to, with --data.", 2);
        if (!File.Exists(file))
            return CommandLine.Fail($"{file} isn't there.", 2);
        if (Directory.Exists(folder) && Directory.EnumerateFileSystemEntries(folder).Any())
            return CommandLine.Fail($"{folder} is in use: a shop is restored where there is nothing. It stays as it is.", 2);
        var restored = await Restoring.RestoreAsync(file, folder, TimeProvider.System, stop);
        var manifest = restored.Manifest;
        await CommandLine.TellAsync(folder,
            $"the whole shop from {Path.GetFileName(file)}, as of {manifest.MadeAt.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC", stop,
            Core.People.Deed.TakenIn);
        Console.WriteLine($"{(manifest.Shop.Length > 0 ? manifest.Shop : "The shop")} as of "
            + $"{TimeProvider.System.Here(manifest.MadeAt):yyyy-MM-dd HH:mm:ss}, at {Path.GetFullPath(folder)}: "
            + $"{InWords(restored.Holds)}, {manifest.Files.Count} files.");
        if (!restored.HasKey)
            Console.WriteLine("Note: the shop’s key isn’t there, and nothing is signed without it (./rivet key --lost begins another).");
        Console.WriteLine("Where the shop that it came from goes on, don’t sign in this one: each would sign a chain of its own.");
        return RecordCommands.Say(restored.Found, 0);
    }

    private static string InWords(ShopHolds? holds) => holds is null
        ? "a shop as an earlier release left it, which is counted once this one has opened it"
        : $"{holds.Aircraft:#,0} aircraft, {holds.Inspections:#,0} inspections, "
        + $"{holds.Discrepancies:#,0} discrepancies, {holds.Readings:#,0} readings, {holds.Records:#,0} signed records, "
        + $"{holds.People:#,0} people";
}
