using MellowRivet.Core;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Store.Passports;
using MellowRivet.Web.Handover;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Hosting;

/// <summary>What the command line does with an aircraft that goes or comes.</summary>
internal static class PassportCommands
{
    public static async Task<int> ArchiveAsync(string folder, string registration, string file, CancellationToken stop)
    {
        if (CommandLine.NoShop(folder) is { } none)
            return none;
        DataFolder data = new(folder);
        await using var db = RivetDb.Of(data);
        if (await db.Aircraft.FirstOrDefaultAsync(row => row.Registration == registration, stop) is not { } aircraft)
            return CommandLine.Fail($"There is no aircraft {registration} in this shop.", 1);
        if (File.Exists(file))
            return CommandLine.Fail($"{file} is there already, and stays as it is: name another.", 2);
        var manifest = await PassportFiles.WriteAsync(db, data, TimeProvider.System, aircraft.Id, file, new OnOneLine(), stop);
        await CommandLine.TellAsync(folder, $"the passport of {registration} to {Path.GetFileName(file)}", stop);
        Console.WriteLine($"The passport of {registration}: {manifest.Files.Count} files, {manifest.Records.Count} signed records, "
            + $"{manifest.Files.Sum(one => one.Bytes) / 1_000_000.0:0.0} MB, at {file}.");
        Console.WriteLine($"Signed with the shop's key {ShopKey.ToCompare(manifest.Shop.Fingerprint)}.");
        if (manifest.Missing.Count > 0)
            Console.WriteLine($"{manifest.Missing.Count} pictures or recordings that its papers name are gone from this shop.");
        return 0;
    }

    public static async Task<int> VerifyAsync(string file, string? expect, CancellationToken stop)
    {
        if (!File.Exists(file))
            return CommandLine.Fail($"{file} isn't there.", 2);
        var (heads, wrong) = await RecordCommands.HeadsAsync(expect, stop);
        if (wrong is not null)
            return CommandLine.Fail(wrong, 2);
        await using var read = await PassportReader.ReadAsync(file, Path.GetTempPath(), TimeProvider.System, new OnOneLine(), stop);
        var manifest = read.Manifest;
        await using var rows = read.OpenRows();
        var records = await rows.RecordsByAsync(manifest.Shop.Fingerprint, stop);
        var faults = heads.Select(head => Fault(head, records, manifest.Head.Number)).OfType<string>().ToList();
        if (faults.Count > 0)
            return CommandLine.Fail($"Broken: {string.Join("; ", faults)}.", 1);
        foreach (var note in read.Found.Notes)
            Console.WriteLine($"Note: {note}.");
        var aircraft = manifest.Aircraft;
        Console.WriteLine($"The passport of {aircraft.Registration}, {aircraft.Type}, s/n {aircraft.SerialNumber}, "
            + $"made on {manifest.MadeAt.UtcDateTime:yyyy-MM-dd} by {manifest.Shop.Name}.");
        Console.WriteLine($"{manifest.Files.Count} files and {manifest.Records.Count} signed records, every one as it was signed.");
        Console.WriteLine($"Signed with the key {ShopKey.ToCompare(manifest.Shop.Fingerprint)}: compare it with a printed entry of that "
            + "shop.");
        return 0;
    }

    // An aircraft's records are only some of the chain: a head is found out where its record is among them, or beyond the end.
    private static string? Fault(ChainHead head, IReadOnlyList<SignedRecord> records, long last) => head.Number > last
        ? $"the chain was cut: it had {last} records, and somebody kept the head of record {head.Number}"
        : records.FirstOrDefault(record => record.Number == head.Number) is { } record
            ? record.Hash.StartsWith(head.Hash, StringComparison.Ordinal) ? null
            : $"the chain was written anew: record {head.Number} isn't the one whose head somebody kept"
        : $"record {head.Number} is of another aircraft: only the shop itself can hold its chain against that head";

    public static async Task<int> ExportAsync(string folder, string registration, string file, CancellationToken stop)
    {
        if (CommandLine.NoShop(folder) is { } none)
            return none;
        await using var db = RivetDb.Of(new(folder));
        if (await db.Aircraft.FirstOrDefaultAsync(row => row.Registration == registration, stop) is not { } aircraft)
            return CommandLine.Fail($"There is no aircraft {registration} in this shop.", 1);
        await File.WriteAllTextAsync(file, (await db.FileOfAsync(aircraft.Id, TimeProvider.System, stop))!.ToJson(), stop);
        await CommandLine.TellAsync(folder, $"{registration} to {Path.GetFileName(file)}", stop);
        Console.WriteLine($"{registration} saved to {file}.");
        return 0;
    }

    /// <summary>Takes in an aircraft: from its passport, or from the JSON of its file.</summary>
    public static async Task<int> ImportAsync(string folder, string file, CancellationToken stop)
    {
        if (CommandLine.NoShop(folder) is { } none)
            return none;
        if (!File.Exists(file))
            return CommandLine.Fail($"{file} isn't there.", 2);
        DataFolder data = new(folder);
        await using var db = RivetDb.Of(data, CommandLine.AtTheCommandLine);
        if (await IsPassportAsync(file, stop))
            return await TakeInAsync(db, data, file, stop);
        if (new FileInfo(file).Length > AircraftFile.MostBytes)
            return CommandLine.Fail($"{file} is larger than {AircraftFile.MostBytes / 1024 / 1024} MB.", 2);
        var (read, refusal) = AircraftFile.Read(await File.ReadAllTextAsync(file, stop), TimeProvider.System.Today());
        if (read is null)
            return CommandLine.Fail(refusal!.Message, 1);
        var written = await db.OnceAsync(Guid.CreateVersion7(), TimeProvider.System,
            () => db.TakeInAsync(read, Guid.Empty, TimeProvider.System, stop), stop);
        if (!written.Done)
            return CommandLine.Fail(written.Refusal!.Message, 1);
        Console.WriteLine($"{read.Registration} taken in.");
        return 0;
    }

    private static async Task<bool> IsPassportAsync(string file, CancellationToken stop)
    {
        await using var content = File.OpenRead(file);
        return await PassportFiles.LooksLikeOneAsync(content, stop);
    }

    private static async Task<int> TakeInAsync(RivetDb db, DataFolder data, string file, CancellationToken stop)
    {
        if (!await db.IsMigratedAsync(stop))
            return CommandLine.Fail("This shop was last opened by an earlier release: serve it once with this one first.", 2);
        OnOneLine line = new();
        await using var read = await PassportReader.ReadAsync(file, data.Passports, TimeProvider.System, line, stop);
        var written = await new PassportTaking(db, data, TimeProvider.System).TakeInAsync(read, file, Guid.CreateVersion7(), Guid.Empty,
            line, stop);
        if (!written.Done)
            return CommandLine.Fail(written.Refusal!.Message, 1);
        Console.WriteLine($"{read.Manifest.Aircraft.Registration} taken in, with {read.Manifest.Records.Count} records signed elsewhere, "
            + $"verified by the key {ShopKey.ToCompare(read.Manifest.Shop.Fingerprint)} of {read.Manifest.Shop.Name}.");
        Console.WriteLine("Compare that key with a printed entry of that shop.");
        return 0;
    }

    /// <summary>How far it is, on one line of a terminal; a file gets nothing.</summary>
    private sealed class OnOneLine : IProgress<PassportProgress>
    {
        private string said = "";

        public void Report(PassportProgress value)
        {
            var line = $"{value.Doing}: {value.Percent} % of {value.Total / 1_000_000.0:0.0} MB";
            if (Console.IsErrorRedirected || line == said)
                return;
            said = line;
            Console.Error.Write($"\r{line}   {(value.Done == value.Total ? "\n" : "")}");
        }
    }
}
