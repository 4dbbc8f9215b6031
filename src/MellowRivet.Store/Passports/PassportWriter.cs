using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using MellowRivet.Core.Passports;
using MellowRivet.Core.Records;
using MellowRivet.Store.Files;
using MellowRivet.Store.Proof;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Passports;

/// <summary>How far the making, checking or taking in of a passport is.</summary>
/// <param name="Doing">What is being done: "checking", "pictures and sounds".</param>
/// <param name="Done">Bytes that are through.</param>
/// <param name="Total">Bytes in all.</param>
public sealed record PassportProgress(string Doing, long Done, long Total)
{
    public int Percent => Total == 0 ? 100 : (int)(Done * 100 / Total);
}

/// <summary>A paper in a passport that is read without any program.</summary>
/// <param name="Name">Its name, in the folder for that.</param>
/// <param name="Write">Writes it.</param>
public sealed record PassportPaper(string Name, Func<Stream, Task> Write);

/// <summary>Why no passport was made.</summary>
public sealed class NoPassportException(string why) : Exception(why);

/// <summary>
/// Writes an aircraft's passport: one zip file with everything of it, read at one moment, and a signed manifest at its end. Files stream
/// through; what is held in memory is a row.
/// </summary>
/// <param name="db">The shop.</param>
/// <param name="data">Its folder.</param>
/// <param name="clock">The time.</param>
public sealed partial class PassportWriter(RivetDb db, DataFolder data, TimeProvider clock)
{
    private readonly List<PassportFile> written = [];
    private readonly HashSet<string> people = [], files = [];

    /// <summary>Writes it.</summary>
    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="to">Where it goes.</param>
    /// <param name="papers">What is to be read without any program.</param>
    /// <param name="progress">Who is told how far it is.</param>
    /// <param name="stop">Stops it; what was written is none.</param>
    /// <exception cref="NoPassportException">The aircraft isn't this shop's, or the shop's key is gone.</exception>
    public async Task<PassportManifest> WriteAsync(Guid aircraftId, Stream to, IReadOnlyList<PassportPaper> papers,
        IProgress<PassportProgress>? progress, CancellationToken stop)
    {
        using var key = await db.KeyAsync(clock.GetUtcNow(), stop) ?? throw new NoPassportException(ShopKeys.Missing.Message);
        // One moment for all rows: nobody's write comes between two tables. It waits for nobody, and nobody for it.
        await db.Database.OpenConnectionAsync(stop);
        await using var moment = ((SqliteConnection)db.Database.GetDbConnection()).BeginTransaction(deferred: true);
        await db.Database.UseTransactionAsync(moment, stop);
        if (await db.Aircraft.AsNoTracking().FirstOrDefaultAsync(row => row.Id == aircraftId, stop) is not { OnlySurveyed: false } aircraft)
            throw new NoPassportException("There is no such aircraft in this shop, or it was only surveyed here and has no file.");
        var shop = (await db.HouseRulesAsync(stop)).Name is { Length: > 0 } name ? name : "a shop without a name";
        var people = (await db.People.Select(person => person.Id).ToListAsync(stop)).Select(id => id.ToString()).ToHashSet();

        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var table in PassportTables.All.Where(table => table != PassportTables.People))
                await RowsAsync(zip, table, Query(table), new(aircraftId, shop, key, await ChainAsync(stop)), people, stop);
            await RowsAsync(zip, PassportTables.People, PeopleQuery(), new(aircraftId, shop, key, ""), people, stop);
            // Only those that what is open came from: that an aircraft was surveyed at all is the buyer's business.
            var surveys = await db.Inspections.AsNoTracking().Where(row => row.AircraftId == aircraftId
                && row.Kind == Core.Inspections.InspectionKind.Survey && db.OpenItems.Any(item => item.InspectionId == row.Id))
                .Select(row => row.Id).ToListAsync(stop);
            var head = await db.HeadAsync(stop);
            var records = await db.SignedRecords.Where(record => record.AircraftId == aircraftId).OrderBy(record => record.Id)
                .Select(record => record.Hash).ToListAsync(stop);
            await db.Database.UseTransactionAsync(null, stop);
            await moment.CommitAsync(stop);
            var missing = await FilesAsync(zip, progress, stop);
            foreach (var paper in papers)
                await EntryAsync(zip, $"to-read/{paper.Name}", CompressionLevel.NoCompression, paper.Write);
            var manifest = new PassportManifest(PassportManifest.FormatName, PassportManifest.CurrentVersion, clock.GetUtcNow(),
                new(aircraft.Id, aircraft.Registration, aircraft.Type, aircraft.SerialNumber), new(shop, key.Fingerprint),
                new(head.Number, head.Hash), records, surveys, missing, []);
            await EntryAsync(zip, "README.txt", CompressionLevel.Optimal,
                async entry => await entry.WriteAsync(Encoding.UTF8.GetBytes(PassportReadme.Of(manifest, clock)), stop));
            manifest = manifest with { Files = [.. written] };
            var text = manifest.ToJson();
            await WriteTextAsync(zip, PassportManifest.Name, text, stop);
            await WriteTextAsync(zip, PassportManifest.SignatureName, PassportManifest.Sign(key, text) + "\n", stop);
            return manifest;
        }
    }

    private sealed record Of(Guid Aircraft, string Shop, ShopKey Key, string Chain);

    private async Task<string> ChainAsync(CancellationToken stop) => (await db.OwnAsync(stop))[0].Chain;

    private static string Query(PassportTable table, string by = "rowid") =>
        $"SELECT * FROM \"{table.Table}\" WHERE {table.Where} ORDER BY {by}";

    private string PeopleQuery() => Query(PassportTables.People, by: "\"Id\"").Replace("{0}",
        string.Join(", ", people.Order(StringComparer.Ordinal).Select(id => $"'{id.ToUpperInvariant()}'")), StringComparison.Ordinal);

    private async Task RowsAsync(ZipArchive zip, PassportTable table, string sql, Of of, HashSet<string> known, CancellationToken stop)
    {
        await EntryAsync(zip, table.Path, CompressionLevel.Fastest, async entry =>
        {
            await using var command = await RawRows.CommandAsync(db, sql,
                [("@aircraft", of.Aircraft.ToString().ToUpperInvariant())], stop);
            await using var reader = await command.ExecuteReaderAsync(stop);
            var columns = Enumerable.Range(0, reader.FieldCount).Select(reader.GetName).ToList();
            var travel = columns.Index().Where(column => !table.Left.Contains(column.Item)).Select(column => column.Index).ToArray();
            while (await reader.ReadAsync(stop))
            {
                var row = RawRows.Values(reader);
                AsElsewhere(table, columns, row, of);
                foreach (var text in travel.Select(at => row[at]).OfType<string>())
                    Refers(text, known);
                if (columns.IndexOf("Sha256") is >= 0 and var sha && row[sha] is string log)
                    files.Add(log);
                await entry.WriteAsync(Encoding.UTF8.GetBytes(
                    RowText.Write([.. travel.Select(at => columns[at])], [.. travel.Select(at => row[at])]) + "\n"), stop);
            }
        });
    }

    // Whatever is this shop's own says in the passport whose it is.
    private static void AsElsewhere(PassportTable table, List<string> columns, object?[] row, Of of)
    {
        object? Column(string name) => row[columns.IndexOf(name)];
        void Set(string name, object? value) => row[columns.IndexOf(name)] = value;
        if (table == PassportTables.Keys)
            Set("ShopThere", Column("ShopThere") ?? of.Shop);
        else if (table == PassportTables.People)
            Set("Elsewhere", Column("Elsewhere") ?? of.Shop);
        else if (table == PassportTables.Records && Column("ChainThere") is null)
        {
            Set("ChainThere", of.Chain);
            Set("NumberThere", Column("Number"));
            Set("ShopThere", of.Shop);
            if (Column("Signature") is null)
            {
                // From before the shop had a key: it signs it now, as it vouches for it.
                Set("KeyFingerprint", of.Key.Fingerprint);
                Set("Signature", SignedRecord.SignFor(of.Key, (string)Column("Hash")!));
            }
        }
    }

    private void Refers(string text, HashSet<string> known)
    {
        files.UnionWith(RawRows.FilesIn(text));
        foreach (Match id in Guids().Matches(text))
            if (id.Value.ToLowerInvariant() is var person && known.Contains(person))
                people.Add(person);
    }

    private async Task<IReadOnlyList<string>> FilesAsync(ZipArchive zip, IProgress<PassportProgress>? progress, CancellationToken stop)
    {
        List<string> missing = [];
        List<(string Path, FileInfo File)> all = [];
        foreach (var sha in files.Order(StringComparer.Ordinal))
        {
            var found = KeptFiles.Of(data, sha).ToList();
            if (found.Count == 0)
                missing.Add(sha);
            all.AddRange(found);
        }
        var (done, total) = (0L, all.Sum(file => file.File.Length));
        foreach (var (path, file) in all)
        {
            progress?.Report(new("pictures and sounds", done, total));
            await EntryAsync(zip, path, CompressionLevel.NoCompression, async entry =>
            {
                await using var content = file.OpenRead();
                await content.CopyToAsync(entry, stop);
            });
            done += file.Length;
        }
        progress?.Report(new("pictures and sounds", total, total));
        return missing;
    }

    private async Task EntryAsync(ZipArchive zip, string path, CompressionLevel level, Func<Stream, Task> write)
    {
        await using var entry = await zip.CreateEntry(path, level).OpenAsync();
        await using var hashing = new HashingStream(entry);
        await write(hashing);
        written.Add(new(path, hashing.Bytes, hashing.Sha256()));
    }

    private static async Task WriteTextAsync(ZipArchive zip, string path, string text, CancellationToken stop)
    {
        await using var entry = await zip.CreateEntry(path, CompressionLevel.Fastest).OpenAsync(stop);
        await entry.WriteAsync(Encoding.UTF8.GetBytes(text), stop);
    }

    [GeneratedRegex("[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}", RegexOptions.IgnoreCase)]
    private static partial Regex Guids();
}

/// <summary>Counts and hashes what is written through it.</summary>
internal sealed class HashingStream(Stream to) : Stream
{
    private readonly IncrementalHash hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);

    public long Bytes { get; private set; }

    public string Sha256() => Convert.ToHexStringLower(hash.GetCurrentHash());

    public override void Write(ReadOnlySpan<byte> buffer)
    {
        hash.AppendData(buffer);
        Bytes += buffer.Length;
        to.Write(buffer);
    }

    public override void Write(byte[] buffer, int offset, int count) => Write(buffer.AsSpan(offset, count));

    public override async ValueTask WriteAsync(ReadOnlyMemory<byte> buffer, CancellationToken cancellationToken = default)
    {
        hash.AppendData(buffer.Span);
        Bytes += buffer.Length;
        await to.WriteAsync(buffer, cancellationToken);
    }

    public override Task WriteAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        WriteAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    public override bool CanRead => false;
    public override bool CanSeek => false;
    public override bool CanWrite => true;
    public override long Length => Bytes;
    public override long Position { get => Bytes; set => throw new NotSupportedException(); }
    public override void Flush() => to.Flush();
    public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();
    public override void SetLength(long value) => throw new NotSupportedException();

    protected override void Dispose(bool disposing)
    {
        hash.Dispose();
        base.Dispose(disposing);
    }
}
