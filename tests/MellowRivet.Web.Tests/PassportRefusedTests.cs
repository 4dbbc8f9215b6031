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

/// <summary>Passports that are not believed.</summary>
public sealed class PassportRefusedTests(DemoServer server) : IClassFixture<DemoServer>, IAsyncDisposable
{
    private readonly PassportDesk desk = new(server);

    public ValueTask DisposeAsync() => desk.DisposeAsync();

    [Fact]
    public async Task One_that_was_cut_short_is_refused()
    {
        var whole = await File.ReadAllBytesAsync(await desk.MakeAsync("N0LTS"));
        foreach (var share in new[] { 0.0, 0.3, 0.9, 0.999 })
        {
            var file = Path.Combine(desk.Folder, $"{Guid.NewGuid():N}.zip");
            await File.WriteAllBytesAsync(file, whole[..(int)(whole.Length * share)]);
            await desk.RefusedAsync(file, "cut short");
        }
    }

    [Fact]
    public async Task What_was_done_to_the_archive_is_refused_with_what_it_is()
    {
        var file = await desk.MakeAsync("N0TWQ");
        await desk.RefusedAsync(desk.Altered(file, zip =>
        {
            var photo = zip.Entries.First(entry => entry.FullName.StartsWith("photos/", StringComparison.Ordinal));
            using var content = photo.Open();
            content.WriteByte(0);
        }), "was changed: it isn’t what its manifest says");
        await desk.RefusedAsync(desk.Altered(file, zip => zip.CreateEntry("data/more.jsonl")), "was added: its manifest doesn’t name it");
        await desk.RefusedAsync(desk.Altered(file, zip => zip.GetEntry("data/records.jsonl")!.Delete()), "“data/records.jsonl” is missing");
        await desk.RefusedAsync(desk.Altered(file, zip => zip.CreateEntry("photos/../../../etc/x")), "is no path that a passport has");
        await desk.RefusedAsync(desk.Altered(file, zip => zip.CreateEntry("/etc/passwd")), "is no path that a passport has");
        await desk.RefusedAsync(desk.Altered(file, zip => zip.CreateEntry("DATA/Records.jsonl")), "is no path that a passport has");
        await desk.RefusedAsync(desk.Altered(file, zip => zip.CreateEntry("readme.TXT")), "is in it twice");
        await desk.RefusedAsync(desk.Altered(file, zip => zip.GetEntry("manifest.json")!.Delete()), "no manifest.json");
        await desk.RefusedAsync(desk.Altered(file, zip =>
        {
            var signature = zip.GetEntry("manifest.sig")!;
            signature.Delete();
            using var content = new StreamWriter(zip.CreateEntry("manifest.sig").Open());
            content.Write(Convert.ToBase64String(new byte[64]));
        }), "isn’t signed with the key it names");
        // A bomb: a gigabyte of nothing behind a line of the manifest that speaks of a page.
        await desk.RefusedAsync(desk.Altered(file, zip =>
        {
            zip.GetEntry("README.txt")!.Delete();
            using var content = zip.CreateEntry("README.txt", CompressionLevel.Optimal).Open();
            var block = new byte[1 << 20];
            for (var at = 0; at < 256; at++)
                content.Write(block);
        }), "“README.txt” was changed");
    }

    [Fact]
    public async Task What_a_shop_itself_could_have_signed_and_can_not_be_is_refused()
    {
        var file = await desk.MakeAsync("N0TWQ");
        Task RefusedAsync(string path, string was, string becomes, string says) =>
            desk.RefusedAsync(desk.Rewritten(file, entries => PassportDesk.Replace(entries, path, was, becomes)), says);
        var id = server.With(db => db.Aircraft.Single(row => row.Registration == "N0TWQ").Id).ToString().ToUpperInvariant();
        await desk.RefusedAsync(desk.Rewritten(file, _ => { }, text => text.Replace("\"version\": 1", "\"version\": 2")),
            "a newer one made it");
        await desk.RefusedAsync(desk.Rewritten(file, entries => entries["data/ghosts.jsonl"] = []), "which this program doesn’t know");
        await desk.RefusedAsync(desk.Rewritten(file, entries => entries.Remove("data/tasks.jsonl")), "“data/tasks.jsonl” is missing");
        await RefusedAsync("data/readings.jsonl", "{\"Id\":", "{\"Ghost\":1,\"Id\":", "has a column that this program doesn’t know: Ghost");
        await desk.RefusedAsync(desk.Rewritten(file, entries => entries["data/aircraft.jsonl"] = [.. entries["data/aircraft.jsonl"],
            .. entries["data/aircraft.jsonl"]]), "can’t be kept");
        await desk.RefusedAsync(desk.Rewritten(file, entries => entries["data/aircraft.jsonl"] = []), "it holds no aircraft");
        await RefusedAsync("data/open-items.jsonl", id, Guid.NewGuid().ToString(), "belongs to another aircraft");
        await RefusedAsync("data/aircraft.jsonl", "\"N0TWQ\"", "\"N0TWX\"", "says another registration");
        await RefusedAsync("data/parts.jsonl", "\"Engine\"", "\"Balloon\"", "can’t be read");
        await RefusedAsync("data/readings.jsonl", "\"psi\"", "\"psi", "damaged");
        await RefusedAsync("data/readings.jsonl", "\"compression\"", "\"compressions\"", "isn't as it was signed");
        await RefusedAsync("data/inspections.jsonl", "SignedUnairworthy", "SignedAirworthy", "inspection 26-111 isn't as it was signed");
        await RefusedAsync("data/records.jsonl", "Orla Hob", "Orla Hub", "was altered");
        await RefusedAsync("data/records.jsonl", "\\\"work\\\":[", "\\\"werk\\\":[", "isn't written as a record is");
        await desk.RefusedAsync(desk.Rewritten(file, entries =>
        {
            var lines = Encoding.UTF8.GetString(entries["data/records.jsonl"]).Split('\n', StringSplitOptions.RemoveEmptyEntries);
            entries["data/records.jsonl"] = Encoding.UTF8.GetBytes(string.Concat(lines.Skip(1).Select(line => line + "\n")));
        }), "of the records that the passport of N0TWQ brought is gone");
        await desk.RefusedAsync(desk.Rewritten(file, entries => entries.Remove(
            entries.Keys.First(path => path.StartsWith("photos/", StringComparison.Ordinal) && path.Split('.').Length == 2))),
            "that its rows name isn’t in it");
        await desk.RefusedAsync(desk.Rewritten(file, entries => entries["data/evidence.jsonl"] = []), "rests on is gone");
    }

    [Fact]
    public async Task A_stranger_signs_as_a_stranger_and_brings_no_key_of_ours()
    {
        var file = await desk.MakeAsync("N0LTS");
        using var strange = ShopKey.Make();
        await using var db = RivetDb.Of(server.Data);
        var chain = (await db.OwnAsync(default))[0];
        var line = ShopKeyLine.Begin(strange, new(0, SignedRecord.Genesis), chain.From.AddDays(1), chain);
        var pretends = desk.Rewritten(file, entries => entries["data/keys.jsonl"] = [.. entries["data/keys.jsonl"],
            .. Encoding.UTF8.GetBytes($$"""
                {"Fingerprint":"{{line.Fingerprint}}","AfterHash":"{{line.AfterHash}}","AfterRecord":0,"Chain":"{{line.Chain}}",
                """.Trim() + $$"""
                "From":"{{line.From.UtcDateTime:O}}","HandOver":null,"Number":2,"PublicKey":"{{line.PublicKey}}",
                """.Trim() + $$"""
                "ShopThere":"x","Signature":"{{line.Signature}}"}
                """.Trim() + "\n")]);
        var (data, other) = await desk.OtherShopAsync();
        await using (other)
        {
            // To a shop that knows the first key already, it doesn't go with it: its record 1 was signed by the first.
            await desk.RefusedAsync(pretends, "isn't signed with the shop's key");
            (await other.SignedRecords.CountAsync()).ShouldBe(0);
        }
    }

    [Fact]
    public async Task A_byte_changed_anywhere_is_refused_in_words_or_changes_nothing()
    {
        var whole = await File.ReadAllBytesAsync(await desk.MakeAsync("N0FLD"));
        Random chance = new(20261130);
        var refused = 0;
        for (var round = 0; round < 60; round++)
        {
            var bytes = whole.ToArray();
            for (var flips = round % 3; flips >= 0; flips--)
                bytes[chance.Next(bytes.Length)] ^= (byte)(1 << chance.Next(8));
            var file = Path.Combine(desk.Folder, "fuzzed.zip");
            await File.WriteAllBytesAsync(file, bytes);
            try
            {
                await using var read = await desk.ReadAsync(file);
                read.Manifest.Aircraft.Registration.ShouldBe("N0FLD");
            }
            catch (BadPassportException)
            {
                refused++;
            }
        }
        refused.ShouldBeGreaterThan(40);
    }
}
