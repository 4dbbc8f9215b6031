using System.Buffers;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;

namespace MellowRivet.Store.Passports;

/// <summary>
/// A row as one line of JSON: a member for each column, by its name. What a column keeps as JSON stands in it as JSON, letter by letter, so
/// that what was signed of it still holds where it is taken in.
/// </summary>
internal static class RowText
{
    /// <summary>Longest line read, in characters: a row with everything an inspection has is a tenth of it.</summary>
    public const int Longest = 16 * 1024 * 1024;

    private const string Kept = "{\"v\":";

    private static readonly JsonWriterOptions Plain = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <exception cref="InvalidDataException">A column holds bytes.</exception>
    public static string Write(IReadOnlyList<string> columns, IReadOnlyList<object?> values)
    {
        var buffer = new ArrayBufferWriter<byte>();
        using (var writer = new Utf8JsonWriter(buffer, Plain))
        {
            writer.WriteStartObject();
            foreach (var (index, column) in columns.Index())
            {
                writer.WritePropertyName(column);
                switch (values[index])
                {
                    case null: writer.WriteNullValue(); break;
                    case long whole: writer.WriteNumberValue(whole); break;
                    // "R" with a point, so that a whole number that is measured isn't taken for a count.
                    case double number: writer.WriteRawValue(Measured(number)); break;
                    case string text when IsKeptJson(text): writer.WriteRawValue(text); break;
                    case string text: writer.WriteStringValue(text); break;
                    case { } other: throw new InvalidDataException($"{column} holds {other.GetType().Name}.");
                }
            }
            writer.WriteEndObject();
        }
        return Encoding.UTF8.GetString(buffer.WrittenSpan);
    }

    /// <summary>The columns and values of a line.</summary>
    /// <exception cref="JsonException">It is no such line.</exception>
    public static List<(string Column, object? Value)> Read(string line)
    {
        using var row = JsonDocument.Parse(line, new() { MaxDepth = 64 });
        if (row.RootElement.ValueKind != JsonValueKind.Object)
            throw new JsonException("A row is an object.");
        return [.. row.RootElement.EnumerateObject().Select(member => (member.Name, member.Value.ValueKind switch
        {
            JsonValueKind.Null => (object?)null,
            JsonValueKind.String => member.Value.GetString(),
            JsonValueKind.Number when member.Value.TryGetInt64(out var whole) => whole,
            JsonValueKind.Number => member.Value.GetDouble(),
            JsonValueKind.Object => member.Value.GetRawText(),
            _ => throw new JsonException($"{member.Name} is neither text nor number."),
        }))];
    }

    private static string Measured(double number)
    {
        var text = number.ToString("R", System.Globalization.CultureInfo.InvariantCulture);
        return text.AsSpan().ContainsAny('.', 'E') ? text : text + ".0";
    }

    // A person's words that look so are JSON all the same, or stand as text.
    private static bool IsKeptJson(string text)
    {
        if (!text.StartsWith(Kept, StringComparison.Ordinal) || text.AsSpan().ContainsAny('\n', '\r'))
            return false;
        try
        {
            using var whole = JsonDocument.Parse(text, new() { MaxDepth = 60 });
            return whole.RootElement.ValueKind == JsonValueKind.Object && whole.RootElement.GetRawText() == text;
        }
        catch (JsonException)
        {
            return false;
        }
    }
}
