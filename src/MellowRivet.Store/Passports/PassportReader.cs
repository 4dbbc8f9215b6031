using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.Passports;
using MellowRivet.Core.Records;
using MellowRivet.Store.Files;
using MellowRivet.Store.Proof;

namespace MellowRivet.Store.Passports;

/// <summary>A passport that can't be believed or read: nothing of it is taken in.</summary>
public sealed class BadPassportException(string why) : Exception($"{char.ToUpperInvariant(why[0])}{why[1..]}. Nothing was taken in.");

/// <summary>A passport that was checked whole, with its rows in a database of their own.</summary>
/// <param name="Manifest">What it says of itself.</param>
/// <param name="Text">The very text that was signed.</param>
/// <param name="Signature">The signature over it.</param>
/// <param name="Rows">The folder with the database; it goes when this does.</param>
/// <param name="Found">What verifying its records found: no fault.</param>
public sealed record ReadPassport(PassportManifest Manifest, string Text, string Signature, DataFolder Rows, Verified Found)
    : IAsyncDisposable
{
    public RivetDb OpenRows() => RivetDb.Of(Rows);

    public ValueTask DisposeAsync()
    {
        PassportReader.Sweep(Rows);
        return ValueTask.CompletedTask;
    }
}

/// <summary>
/// Reads a passport and believes nothing of it: names, lengths and hashes before anything is unpacked, the signature, every row by the
/// shop's own types, and every signed record against what it rests on.
/// </summary>
public static class PassportReader
{
    private const int Block = 1 << 16;

    // A zip file's own words for each file are as many again as the manifest's.
    private static readonly Dictionary<string, long> Most = new(StringComparer.Ordinal)
    {
        ["data"] = PassportManifest.MostRowBytes, ["photos"] = PhotoFiles.MostBytes, ["sounds"] = SoundFiles.MostBytes,
        ["videos"] = VideoFiles.MostBytes, ["logs"] = LogFile.MostBytes, ["documents"] = DocumentFiles.MostBytes,
        ["to-read"] = 512L * 1024 * 1024, [""] = 1024 * 1024,
    };

    /// <summary>Checks a passport whole.</summary>
    /// <param name="file">Where it lies.</param>
    /// <param name="folder">Where its rows are unpacked, in a folder of their own.</param>
    /// <param name="clock">The time: no day in it is to come.</param>
    /// <param name="progress">Who is told how far it is.</param>
    /// <param name="stop">Stops it.</param>
    /// <exception cref="BadPassportException">It can't be believed or read; the message says what is wrong.</exception>
    public static async Task<ReadPassport> ReadAsync(string file, string folder, TimeProvider clock, IProgress<PassportProgress>? progress,
        CancellationToken stop)
    {
        DataFolder rows = new(Path.Combine(folder, $"{Guid.NewGuid():N}.reading"));
        try
        {
            using var zip = Open(file);
            var (manifest, text, signature) = await ManifestAsync(zip, stop);
            await FilesHoldAsync(zip, manifest, progress, stop);
            await SignatureHoldsAsync(zip, manifest, text, signature, stop);
            progress?.Report(new("rows and records", 0, 1));
            var found = await PassportRows.UnpackAsync(zip, manifest, text, signature, rows, clock, stop);
            progress?.Report(new("rows and records", 1, 1));
            return new(manifest, text, signature, rows, found);
        }
        catch (Exception problem)
        {
            Sweep(rows);
            if (problem is InvalidDataException or EndOfStreamException or JsonException or FormatException or DecoderFallbackException)
                throw new BadPassportException($"it is damaged, or cut short: {problem.Message.TrimEnd('.')}");
            throw;
        }
    }

    internal static void Sweep(DataFolder rows)
    {
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        if (Directory.Exists(rows.Path))
            Directory.Delete(rows.Path, recursive: true);
    }

    internal static ZipArchive Open(string file)
    {
        try
        {
            return ZipFile.OpenRead(file);
        }
        catch (Exception problem) when (problem is InvalidDataException or ArgumentException)
        {
            throw new BadPassportException("it is no passport, or was cut short: its end is missing");
        }
    }

    /// <summary>A file of rows, line by line.</summary>
    internal static async IAsyncEnumerable<string> LinesAsync(ZipArchive zip, string path,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop)
    {
        await using var content = await zip.GetEntry(path)!.OpenAsync(stop);
        using var reader = new StreamReader(content, new UTF8Encoding(false, throwOnInvalidBytes: true), false, Block);
        var line = new StringBuilder();
        var buffer = new char[Block];
        int read;
        while ((read = await reader.ReadAsync(buffer.AsMemory(), stop)) > 0)
        {
            var rest = buffer.AsMemory(0, read);
            for (int end; (end = rest.Span.IndexOf('\n')) >= 0; rest = rest[(end + 1)..])
            {
                line.Append(rest[..end]);
                yield return line.ToString();
                line.Clear();
            }
            line.Append(rest);
            if (line.Length > RowText.Longest)
                throw new BadPassportException($"a row in “{path}” is longer than any is");
        }
        if (line.Length > 0)
            throw new BadPassportException($"“{path}” ends within a row");
    }

    private static async Task<(PassportManifest Manifest, string Text, string Signature)> ManifestAsync(ZipArchive zip,
        CancellationToken stop)
    {
        if (zip.Entries.Count > PassportManifest.MostFiles + 2)
            throw new BadPassportException($"it holds more than {PassportManifest.MostFiles} files");
        // Before anything is opened: a path that leads out of it is a trap and no mistake.
        foreach (var entry in zip.Entries)
            if (!PassportFile.IsPath(entry.FullName))
                throw new BadPassportException($"“{PassportManifest.Shown(entry.FullName)}” is no path that a passport has");
        if (zip.Entries.GroupBy(entry => entry.FullName, StringComparer.OrdinalIgnoreCase).FirstOrDefault(same => same.Count() > 1)
            is { } twice)
            throw new BadPassportException($"“{twice.Key}” is in it twice");
        var text = await TextAsync(zip, PassportManifest.Name, PassportManifest.MostBytes, stop);
        var (manifest, fault) = PassportManifest.Read(text);
        return manifest is null
            ? throw new BadPassportException(fault!)
            : (manifest, text, (await TextAsync(zip, PassportManifest.SignatureName, 1_000, stop)).Trim());
    }

    private static async Task<string> TextAsync(ZipArchive zip, string path, int most, CancellationToken stop)
    {
        if (zip.GetEntry(path) is not { } entry)
            throw new BadPassportException($"it has no {path}: it is no aircraft’s passport");
        await using var content = await entry.OpenAsync(stop);
        var buffer = new byte[Block];
        using var whole = new MemoryStream();
        for (int read; (read = await content.ReadAsync(buffer, stop)) > 0;)
        {
            whole.Write(buffer, 0, read);
            if (whole.Length > most)
                throw new BadPassportException($"its {path} is larger than any is");
        }
        return new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(whole.GetBuffer(), 0, (int)whole.Length);
    }

    private static async Task FilesHoldAsync(ZipArchive zip, PassportManifest manifest, IProgress<PassportProgress>? progress,
        CancellationToken stop)
    {
        var named = manifest.Files.ToDictionary(file => file.Path, StringComparer.Ordinal);
        foreach (var entry in zip.Entries.Where(entry => entry.FullName is not (PassportManifest.Name or PassportManifest.SignatureName)))
            if (!named.ContainsKey(entry.FullName))
                throw new BadPassportException($"“{entry.FullName}” was added: its manifest doesn’t name it");
        var (done, total) = (0L, manifest.Files.Sum(file => file.Bytes));
        foreach (var file in manifest.Files)
        {
            progress?.Report(new("checking what is in it", done, total));
            if (zip.GetEntry(file.Path) is not { } entry)
                throw new BadPassportException($"“{file.Path}” is missing");
            if (file.Bytes > Most[file.Path.Contains('/') ? file.Path.Split('/')[0] : ""])
                throw new BadPassportException($"“{file.Path}” is larger than such a file is");
            await HoldsAsync(entry, file, stop);
            done += file.Bytes;
        }
        progress?.Report(new("checking what is in it", total, total));
    }

    // No more is unpacked than its manifest speaks of, whatever the zip file says.
    private static async Task HoldsAsync(ZipArchiveEntry entry, PassportFile file, CancellationToken stop)
    {
        await using var content = await entry.OpenAsync(stop);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var buffer = new byte[Block];
        var bytes = 0L;
        for (int read; bytes <= file.Bytes && (read = await content.ReadAsync(buffer, stop)) > 0; bytes += read)
            hash.AppendData(buffer, 0, read);
        if (bytes != file.Bytes || Convert.ToHexStringLower(hash.GetCurrentHash()) != file.Sha256)
            throw new BadPassportException($"“{file.Path}” was changed: it isn’t what its manifest says");
    }

    private static async Task SignatureHoldsAsync(ZipArchive zip, PassportManifest manifest, string text, string signature,
        CancellationToken stop)
    {
        if (zip.GetEntry(PassportTables.Keys.Path) is not null)
            await foreach (var line in LinesAsync(zip, PassportTables.Keys.Path, stop))
                if (RowText.Read(line).FirstOrDefault(member => member.Column == "PublicKey").Value is string key
                    && ShopKey.FingerprintOf(key) == manifest.Shop.Fingerprint)
                {
                    if (PassportManifest.Holds(key, text, signature))
                        return;
                    break;
                }
        throw new BadPassportException("its manifest isn’t signed with the key it names: somebody else wrote it");
    }
}
