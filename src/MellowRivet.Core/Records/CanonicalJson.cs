using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace MellowRivet.Core.Records;

/// <summary>
/// One text for one content: members sorted by name (ordinal), no white space, UTF-8, in the spirit of RFC 8785.
/// Numbers are refused, since a number has many spellings: records carry them as text.
/// </summary>
public static class CanonicalJson
{
    private static readonly JsonWriterOptions Plain = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <exception cref="ArgumentException">The content holds a number.</exception>
    public static string Of(JsonObject content)
    {
        using var buffer = new MemoryStream();
        using (var writer = new Utf8JsonWriter(buffer, Plain))
            Write(writer, content);
        return Encoding.UTF8.GetString(buffer.ToArray());
    }

    private static void Write(Utf8JsonWriter writer, JsonNode? node)
    {
        switch (node)
        {
            case JsonObject members:
                writer.WriteStartObject();
                foreach (var (name, value) in members.OrderBy(member => member.Key, StringComparer.Ordinal))
                {
                    writer.WritePropertyName(name);
                    Write(writer, value);
                }
                writer.WriteEndObject();
                break;
            case JsonArray items:
                writer.WriteStartArray();
                foreach (var item in items)
                    Write(writer, item);
                writer.WriteEndArray();
                break;
            case JsonValue value when value.GetValueKind() == JsonValueKind.Number:
                throw new ArgumentException($"A signed record carries numbers as text: {value}.", nameof(node));
            case JsonValue value:
                value.WriteTo(writer);
                break;
            default:
                writer.WriteNullValue();
                break;
        }
    }
}
