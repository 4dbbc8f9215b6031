using System.IO.Compression;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Passports;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Store;
using MellowRivet.Store.Passports;
using MellowRivet.Store.Proof;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

/// <summary>Makes passports of a shop's aircraft, reads them, takes them in, and makes them say other things.</summary>
public sealed class PassportDesk(DemoServer server) : IAsyncDisposable
{
    public string Folder { get; } = Directory.CreateTempSubdirectory("rivet-passports-").FullName;

    public ValueTask DisposeAsync()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(Folder, recursive: true);
        return ValueTask.CompletedTask;
    }

    public async Task<string> MakeAsync(RivetDb db, DataFolder data, string registration)
    {
        var file = Path.Combine(Folder, $"{registration}-{Guid.NewGuid():N}.zip");
        await using var to = File.Create(file);
        var aircraft = await db.Aircraft.AsNoTracking().SingleAsync(row => row.Registration == registration);
        await new PassportWriter(db, data, server.Clock).WriteAsync(aircraft.Id, to, [], null, default);
        return file;
    }

    public async Task<string> MakeAsync(string registration)
    {
        await using var db = RivetDb.Of(server.Data);
        return await MakeAsync(db, server.Data, registration);
    }

    public async Task<(DataFolder Data, RivetDb Db)> OtherShopAsync()
    {
        DataFolder data = new(Path.Combine(Folder, $"shop-{Guid.NewGuid():N}"));
        var db = RivetDb.Of(data);
        await ShopDatabase.BringUpToDateAsync(db, data, server.Clock, default);
        return (data, db);
    }

    public Task<ReadPassport> ReadAsync(string file) => PassportReader.ReadAsync(file, Folder, server.Clock, null, default);

    public async Task<Written> TakeInAsync(DataFolder data, RivetDb db, string file)
    {
        await using var read = await ReadAsync(file);
        return await new PassportTaking(db, data, server.Clock).TakeInAsync(read, file, Guid.NewGuid(), Guid.Empty, null, default);
    }

    public static Dictionary<string, string> Hashes(string file)
    {
        using var zip = ZipFile.OpenRead(file);
        return zip.Entries.ToDictionary(entry => entry.FullName, entry =>
        {
            using var content = entry.Open();
            return Convert.ToHexStringLower(SHA256.HashData(content));
        });
    }

    // A passport with something else in it, its manifest made anew and signed: with the shop's key, as nobody but the shop could.
    public string Rewritten(string file, Action<Dictionary<string, byte[]>> change, Func<string, string>? manifest = null)
    {
        Dictionary<string, byte[]> entries = [];
        using (var zip = ZipFile.OpenRead(file))
            foreach (var entry in zip.Entries)
            {
                using MemoryStream whole = new();
                using var content = entry.Open();
                content.CopyTo(whole);
                entries[entry.FullName] = whole.ToArray();
            }
        var said = PassportManifest.Read(Encoding.UTF8.GetString(entries["manifest.json"])).Manifest!;
        entries.Remove("manifest.json");
        entries.Remove("manifest.sig");
        change(entries);
        var text = (said with { Files = [.. entries.Select(entry => new PassportFile(entry.Key, entry.Value.Length,
            Convert.ToHexStringLower(SHA256.HashData(entry.Value))))] }).ToJson();
        text = manifest?.Invoke(text) ?? text;
        using var key = ShopKey.Read(File.ReadAllText(Path.Combine(server.Data.Keys, "shop-key.pem")));
        entries["manifest.json"] = Encoding.UTF8.GetBytes(text);
        entries["manifest.sig"] = Encoding.UTF8.GetBytes(PassportManifest.Sign(key, text));
        var made = Path.Combine(Folder, $"{Guid.NewGuid():N}.zip");
        using (var zip = ZipFile.Open(made, ZipArchiveMode.Create))
            foreach (var (path, bytes) in entries)
            {
                using var content = zip.CreateEntry(path).Open();
                content.Write(bytes);
            }
        return made;
    }

    // The same file with its entries as they are, but for what is done to the archive itself.
    public string Altered(string file, Action<ZipArchive> change)
    {
        var made = Path.Combine(Folder, $"{Guid.NewGuid():N}.zip");
        File.Copy(file, made);
        using var zip = ZipFile.Open(made, ZipArchiveMode.Update);
        change(zip);
        return made;
    }

    public static void Replace(Dictionary<string, byte[]> entries, string path, string was, string becomes)
    {
        var text = Encoding.UTF8.GetString(entries[path]);
        text.ShouldContain(was);
        entries[path] = Encoding.UTF8.GetBytes(text.Replace(was, becomes, StringComparison.Ordinal));
    }

    public async Task RefusedAsync(string file, string says)
    {
        (await Should.ThrowAsync<BadPassportException>(() => ReadAsync(file))).Message
            .ShouldSatisfyAllConditions(message => message.ShouldContain(says), message => message.ShouldEndWith("Nothing was taken in."));
        Directory.EnumerateDirectories(Folder, "*.reading").ShouldBeEmpty("what was unpacked is gone again");
    }
}
