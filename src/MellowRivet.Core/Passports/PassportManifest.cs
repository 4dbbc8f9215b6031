using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Passports;

/// <summary>
/// What an aircraft's passport says of itself: whose it is, who made it, and every file in it by length and hash. It is signed with the
/// shop's key, so that whoever has the file needs nobody to believe it.
/// </summary>
/// <param name="Format">The format's name.</param>
/// <param name="Version">Its version.</param>
/// <param name="MadeAt">When it was made.</param>
/// <param name="Aircraft">The aircraft.</param>
/// <param name="Shop">The shop that made it, and the key it signed with.</param>
/// <param name="Head">How far that shop's chain was: number and hash of its last record.</param>
/// <param name="Records">Every signed record in it, by its hash.</param>
/// <param name="SurveysLeftBehind">Surveys that stay with the shop, where something open came from them with a purchase.</param>
/// <param name="Missing">Files that its rows name and that were gone at the shop already, by their SHA-256.</param>
/// <param name="Files">Every file but the manifest and its signature.</param>
public sealed record PassportManifest(string Format, int Version, DateTimeOffset MadeAt, PassportAircraft Aircraft, PassportShop Shop,
    PassportHead Head, IReadOnlyList<string> Records, IReadOnlyList<Guid> SurveysLeftBehind, IReadOnlyList<string> Missing,
    IReadOnlyList<PassportFile> Files)
{
    public const string FormatName = "mellow-rivet-passport";
    public const int CurrentVersion = 1;

    /// <summary>Names within the archive: what is no data is for whoever has no program.</summary>
    public const string Name = "manifest.json", SignatureName = "manifest.sig";

    /// <summary>Largest manifest read, in bytes: 100,000 files take 20 MB.</summary>
    public const int MostBytes = 32 * 1024 * 1024;

    /// <summary>Most files in one.</summary>
    public const int MostFiles = 100_000;

    /// <summary>Largest file of rows, in bytes: a photo has its own, smaller limit.</summary>
    public const long MostRowBytes = 512L * 1024 * 1024;

    private const string Purpose = "passport";

    private static readonly JsonSerializerOptions Json = FileJson.Options(8, JsonUnmappedMemberHandling.Disallow);

    /// <summary>The JSON Schema of the manifest, from the types themselves.</summary>
    public static string Schema() => FileJson.SchemaOf(Json, typeof(PassportManifest), $"{FormatName}, version {CurrentVersion}");

    /// <summary>Its pictures, sounds and other files as they came to the shop: neither sized copies, nor what is only to be read.</summary>
    [JsonIgnore]
    public IEnumerable<PassportFile> Kept => Files.Where(file => file.Path.Split('/') is [not ("data" or "to-read"), var name]
        && name.Count(letter => letter == '.') < 2);

    public string ToJson() => JsonSerializer.Serialize(this, Json) + "\n";

    /// <summary>Signs a manifest's text.</summary>
    public static string Sign(ShopKey key, string text) => key.Sign(Purpose, text);

    /// <summary>Whether a manifest was signed with this key as it stands.</summary>
    public static bool Holds(string publicKey, string text, string signature) => ShopKey.Holds(publicKey, Purpose, text, signature);

    /// <summary>Reads a manifest, and checks it by itself.</summary>
    public static (PassportManifest? Manifest, string? Fault) Read(string text)
    {
        PassportManifest? read;
        try
        {
            // Another version may have other members: which one it is comes first.
            using var whole = JsonDocument.Parse(text, new() { MaxDepth = 8 });
            if (whole.RootElement.ValueKind != JsonValueKind.Object || !whole.RootElement.TryGetProperty("format", out var format)
                || format.ValueKind != JsonValueKind.String || format.GetString() != FormatName)
                return (null, "it is no aircraft’s passport");
            if (!whole.RootElement.TryGetProperty("version", out var version) || version.ValueKind != JsonValueKind.Number
                || !version.TryGetInt32(out var number) || number != CurrentVersion)
                return (null, $"it is of version {version}, and this program reads version {CurrentVersion}: a newer one made it");
            read = FileJson.Read<PassportManifest>(text, Json);
        }
        catch (JsonException problem)
        {
            return (null, $"its manifest can’t be read: {problem.Message.Split(" LineNumber")[0]}");
        }
        return read is null ? (null, "its manifest is empty") : read.Check() is { } fault ? (null, fault) : (read, null);
    }

    private string? Check()
    {
        if (Files.Count > MostFiles)
            return $"it holds more than {MostFiles} files";
        if (Files.FirstOrDefault(file => !PassportFile.IsPath(file.Path)) is { } odd)
            return $"“{Shown(odd.Path)}” is no path that a passport has";
        if (Files.GroupBy(file => file.Path, StringComparer.OrdinalIgnoreCase).FirstOrDefault(group => group.Count() > 1) is { } twice)
            return $"“{twice.Key}” is in it twice";
        if (Files.Any(file => file.Bytes < 0 || !IsHash(file.Sha256)) || Records.Concat(Missing).Any(hash => !IsHash(hash))
            || !IsHash(Shop.Fingerprint) || !IsHash(Head.Hash) || Head.Number < 0)
            return "a length or a hash in its manifest is none";
        return Shop.Name.Length is 0 or > 80 || Aircraft.Registration.Trim().Length is 0 or > 12
            ? "its manifest names no aircraft, or no shop"
            : null;
    }

    /// <summary>A name from outside as it is shown.</summary>
    public static string Shown(string path) =>
        new([.. path.Take(80).Select(letter => char.IsControl(letter) ? '�' : letter)]);

    private static bool IsHash(string text) => text.Length == 64 && text.All(char.IsAsciiHexDigitLower);
}

/// <summary>Which aircraft.</summary>
public sealed record PassportAircraft(Guid Id, string Registration, string Type, string SerialNumber);

/// <summary>Which shop, and the key it signed with.</summary>
public sealed record PassportShop(string Name, string Fingerprint);

/// <summary>How far a chain was.</summary>
public sealed record PassportHead(long Number, string Hash);

/// <summary>A file in it.</summary>
/// <param name="Path">Where, with forward slashes.</param>
/// <param name="Bytes">How long it is.</param>
/// <param name="Sha256">Its SHA-256 in lower-case hex.</param>
public sealed record PassportFile(string Path, long Bytes, string Sha256)
{
    /// <summary>Folders a passport has, each without one within it.</summary>
    public static readonly IReadOnlyList<string> Folders = ["data", "photos", "sounds", "videos", "logs", "documents", "to-read"];

    /// <summary>Whether a passport has such a path: a plain name, at its top or in one of its folders.</summary>
    public static bool IsPath(string path)
    {
        var parts = path.Split('/');
        return parts.Length is 1 or 2 && (parts.Length == 1 || Folders.Contains(parts[0])) && parts[^1] is { Length: > 0 and <= 100 } name
            && name[0] != '.' && name.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '.' or '-' or '_' or ' ');
    }
}
