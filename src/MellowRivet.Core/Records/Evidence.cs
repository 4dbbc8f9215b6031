using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace MellowRivet.Core.Records;

/// <summary>
/// What a signed record rests on, as it stood when it was signed: for each kind of row, which of its columns count, and a digest of every
/// row; and the files. The record carries this text's hash.
/// </summary>
public sealed class Evidence
{
    /// <summary>Bytes of a row's digest: 128 bits. The text they stand in is bound whole by 256.</summary>
    private const int DigestBytes = 16;

    private Evidence() { }

    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="inspectionId">The inspection.</param>
    /// <param name="parts">What it rests on, by name.</param>
    /// <param name="files">The files, by their SHA-256.</param>
    public Evidence(Guid aircraftId, Guid inspectionId, IReadOnlyDictionary<string, EvidencePart> parts, IReadOnlyCollection<string> files)
    {
        (AircraftId, InspectionId) = (aircraftId, inspectionId);
        JsonObject content = new()
        {
            ["aircraft"] = aircraftId.ToString(),
            ["inspection"] = inspectionId.ToString(),
            ["files"] = Words(files.Order(StringComparer.Ordinal)),
            ["rows"] = new JsonObject(parts.Select(part => KeyValuePair.Create(part.Key, (JsonNode?)new JsonObject
            {
                ["columns"] = Words(part.Value.Columns),
                ["digests"] = Words(part.Value.Digests.Order(StringComparer.Ordinal)),
            }))),
        };
        Json = CanonicalJson.Of(content);
        Hash = HashOf(Json);
    }

    /// <summary>SHA-256 over its text, in lower-case hex: what the record carries.</summary>
    public string Hash { get; private set; } = "";
    public Guid AircraftId { get; private set; }
    public Guid InspectionId { get; private set; }

    /// <summary>The text, as canonical JSON.</summary>
    public string Json { get; private set; } = "";

    /// <summary>Whether the text is still the one that gave the hash, and speaks of what the row says it does.</summary>
    public bool IsWhole => Hash == HashOf(Json) && Text() is { } text && text["aircraft"]?.ToString() == AircraftId.ToString()
        && text["inspection"]?.ToString() == InspectionId.ToString();

    /// <summary>What it rests on, by name; empty where the text can't be read.</summary>
    public IReadOnlyDictionary<string, EvidencePart> Parts() => (Text()?["rows"] as JsonObject ?? []).ToDictionary(part => part.Key,
        part => new EvidencePart(Strings(part.Value?["columns"]), Strings(part.Value?["digests"])));

    /// <summary>The files it rests on, by their SHA-256.</summary>
    public IReadOnlyList<string> Files() => Strings(Text()?["files"]);

    /// <summary>The digest of a row: of its values in the order of the columns.</summary>
    /// <param name="values">Text, whole numbers, numbers or nothing, as they are stored.</param>
    public static string DigestOf(IReadOnlyList<object?> values)
    {
        using var buffer = new MemoryStream();
        using (var writer = new Utf8JsonWriter(buffer))
        {
            writer.WriteStartArray();
            foreach (var value in values)
                switch (value)
                {
                    case null: writer.WriteNullValue(); break;
                    case long whole: writer.WriteNumberValue(whole); break;
                    case double number: writer.WriteNumberValue(number); break;
                    default: writer.WriteStringValue(value.ToString()); break;
                }
            writer.WriteEndArray();
        }
        return Convert.ToBase64String(SHA256.HashData(buffer.GetBuffer().AsSpan(0, (int)buffer.Length)).AsSpan(0, DigestBytes));
    }

    private JsonObject? Text()
    {
        try
        {
            return JsonNode.Parse(Json) as JsonObject;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static string HashOf(string text) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)));

    private static JsonArray Words(IEnumerable<string> words) => new([.. words.Select(word => (JsonNode)word)]);

    private static IReadOnlyList<string> Strings(JsonNode? list) =>
        [.. (list as JsonArray ?? []).Select(item => item?.ToString() ?? "")];
}

/// <summary>Rows of one kind that a record rests on.</summary>
/// <param name="Columns">The columns that count.</param>
/// <param name="Digests">A digest for each row; of a row that may lie elsewhere later, its id and a blank before it.</param>
public sealed record EvidencePart(IReadOnlyList<string> Columns, IReadOnlyList<string> Digests);
