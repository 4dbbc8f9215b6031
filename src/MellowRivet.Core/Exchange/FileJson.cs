using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace MellowRivet.Core.Exchange;

/// <summary>How the files that leave the shop are written and read, and how their schemas are made from the types.</summary>
internal static class FileJson
{
    /// <summary>Strict reading, readable writing: nothing is missing that has no default, no number is text, words are names.</summary>
    /// <param name="deepest">Deepest nesting taken.</param>
    /// <param name="unknown">What becomes of a member that isn't known.</param>
    /// <param name="converters">Types with a grammar of their own.</param>
    public static JsonSerializerOptions Options(int deepest, JsonUnmappedMemberHandling unknown, params JsonConverter[] converters)
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            WriteIndented = true,
            Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
            NumberHandling = JsonNumberHandling.Strict,
            UnmappedMemberHandling = unknown,
            RespectNullableAnnotations = true,
            RespectRequiredConstructorParameters = true,
            MaxDepth = deepest,
            TypeInfoResolver = new DefaultJsonTypeInfoResolver(),
            Converters = { new EnumWords(JsonNamingPolicy.CamelCase) },
        };
        foreach (var converter in converters)
            options.Converters.Add(converter);
        return options;
    }

    /// <summary>Reads a file that came from outside. A list of it has no empty place: no rule of ours asks whether one is null.</summary>
    /// <exception cref="JsonException">It can't be read, or has an empty place in a list.</exception>
    public static T? Read<T>(string json, JsonSerializerOptions options)
    {
        var read = JsonSerializer.Deserialize<T>(json, options);
        var reader = new Utf8JsonReader(Encoding.UTF8.GetBytes(json), new() { MaxDepth = options.MaxDepth });
        // For each level that is open: whether it is a list, what it is called, how far it is.
        Stack<(bool IsList, string Name, int At)> open = new();
        var name = "";
        while (reader.Read())
        {
            if (open.TryPeek(out var list) && list.IsList
                && reader.TokenType is not (JsonTokenType.EndArray or JsonTokenType.EndObject or JsonTokenType.PropertyName))
            {
                if (reader.TokenType == JsonTokenType.Null)
                    throw new JsonException($"The list “{list.Name}” has an empty place, number {list.At + 1}.");
                open.Push(open.Pop() with { At = list.At + 1 });
            }
            if (reader.TokenType == JsonTokenType.PropertyName)
                name = reader.GetString() ?? "";
            else if (reader.TokenType is JsonTokenType.StartArray or JsonTokenType.StartObject)
                open.Push((reader.TokenType == JsonTokenType.StartArray, name, 0));
            else if (reader.TokenType is JsonTokenType.EndArray or JsonTokenType.EndObject)
                open.Pop();
        }
        return read;
    }

    /// <summary>The JSON Schema of a format.</summary>
    /// <param name="options">How it is written.</param>
    /// <param name="type">Its type.</param>
    /// <param name="title">Its name and version.</param>
    /// <param name="own">A type that is described by hand, where the schema refers to it.</param>
    public static string SchemaOf(JsonSerializerOptions options, Type type, string title, (Type Of, string Name, string Schema)? own = null)
    {
        // The exporter knows the framework's own words for an enum; names of earlier releases are read and belong in no schema.
        var described = new JsonSerializerOptions(options);
        described.Converters.Remove(described.Converters.Single(converter => converter is EnumWords));
        described.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        var schema = described.GetJsonSchemaAsNode(type, new()
        {
            TreatNullObliviousAsNonNullable = true,
            TransformSchemaNode = (context, node) => own is { } byHand && context.TypeInfo.Type == byHand.Of
                ? new JsonObject { ["$ref"] = $"#/$defs/{byHand.Name}" }
                : node,
        }).AsObject();
        var whole = new JsonObject { ["$schema"] = "https://json-schema.org/draft/2020-12/schema", ["title"] = title };
        foreach (var (name, value) in schema)
            whole[name] = value?.DeepClone();
        if (own is { } by)
            whole["$defs"] = new JsonObject { [by.Name] = JsonNode.Parse(by.Schema) };
        return whole.ToJsonString(new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }) + "\n";
    }
}
