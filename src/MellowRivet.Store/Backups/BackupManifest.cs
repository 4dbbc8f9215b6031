using System.Text.Json;

namespace MellowRivet.Store.Backups;

/// <summary>A file of a backup.</summary>
/// <param name="Path">Its path in the shop's folder.</param>
/// <param name="Bytes">How large it is.</param>
/// <param name="Sha256">Its SHA-256, in small letters.</param>
public sealed record BackupFile(string Path, long Bytes, string Sha256);

/// <summary>What a shop holds, counted.</summary>
public sealed record ShopHolds(int Aircraft, int Inspections, int Discrepancies, int Readings, int Records, int People);

/// <summary>What a backup says of itself: its last file, by which all the others are checked.</summary>
/// <param name="Format">That it is a backup of this program's.</param>
/// <param name="Version">Its version: a later one is read by a later program.</param>
/// <param name="MadeAt">The moment that it holds.</param>
/// <param name="Shop">What the shop is called; empty where it has no name.</param>
/// <param name="Head">The head of the chain of what was signed, as it is printed on an entry; null where nothing is.</param>
/// <param name="Holds">What is in it; null where an earlier release left it, and this one can't count it yet.</param>
/// <param name="Files">Every file of it.</param>
public sealed record BackupManifest(string Format, int Version, DateTimeOffset MadeAt, string Shop, string? Head, ShopHolds? Holds,
    IReadOnlyList<BackupFile> Files)
{
    public const string FormatName = "mellow-rivet-backup";
    public const int CurrentVersion = 1;
    public const string Name = "backup.json";

    /// <summary>Most bytes of it that are read: a shop of a million files has less.</summary>
    public const long MostBytes = 256L * 1024 * 1024;

    private static readonly JsonSerializerOptions Written = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    public long Bytes => Files.Sum(file => file.Bytes);

    /// <summary>Files that are called by what is in them, and aren't that: the shop's disk spoilt them.</summary>
    public IEnumerable<string> Damaged() =>
        Files.Where(file => ShopFiles.HashOf(file.Path) is { } hash && hash != file.Sha256).Select(file => file.Path);

    public byte[] ToJson() => JsonSerializer.SerializeToUtf8Bytes(this, Written);

    /// <summary>Reads one.</summary>
    /// <exception cref="InvalidDataException">It is none, or of a later version; the message says so.</exception>
    public static BackupManifest Read(byte[] json)
    {
        try
        {
            var read = JsonSerializer.Deserialize<BackupManifest>(json, Written);
            if (read is not { Format: FormatName, Files: not null })
                throw new InvalidDataException("It is no backup of a shop.");
            return read.Version <= CurrentVersion ? read
                : throw new InvalidDataException("It was made by a later release of this program: restore it with that one.");
        }
        catch (JsonException problem)
        {
            throw new InvalidDataException("It is no backup of a shop: what it says of itself can't be read.", problem);
        }
    }
}
