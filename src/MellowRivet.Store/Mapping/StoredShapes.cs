using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Measures;

namespace MellowRivet.Store.Mapping;

/// <summary>
/// How a value is kept as JSON in one column: <c>{"v":1,"is":…}</c>, with the version of its shape. What releases before versions
/// wrote stands there bare and is version 0. A shape that changes so that an older one can't be read as it is gets a step here
/// that turns the older one into the next; tests/MellowRivet.Store.Tests/Carried/shapes.tsv keeps a row of every one there was.
/// </summary>
internal static class StoredShapes
{
    private const string Before = "{\"v\":", Between = ",\"is\":";

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
        { Converters = { new EnumWords(), new HoursNumber() }, IgnoreReadOnlyProperties = true };

    /// <summary>The version of every shape that has no step of its own.</summary>
    public const int FirstVersion = 1;

    /// <summary>Steps from one version of a shape to the next, by the type and the version it starts from.</summary>
    private static readonly Dictionary<(Type Shape, int From), Func<JsonNode, JsonNode>> Steps = new()
    {
        // An estimate was a mechanic's hours and one sum for the parts; version 1 is also what stood there bare.
        [(typeof(Estimate), 1)] = before => JsonSerializer.SerializeToNode(Estimate.Of(before["labourHours"]?.GetValue<decimal>(),
            before["parts"]?.GetValue<decimal>(), before["partsBy"].Deserialize<DateOnly?>(Options)), Options)!,
    };

    private static class Shape<T>
    {
        public static readonly bool HasSteps = Steps.Keys.Any(step => step.Shape == typeof(T));
        public static readonly int Version = Steps.Keys.Where(step => step.Shape == typeof(T)).Select(step => step.From + 1)
            .DefaultIfEmpty(FirstVersion).Max();
    }

    public static string Write<T>(T value) => Wrap(JsonSerializer.Serialize(value, Options), Shape<T>.Version);

    /// <exception cref="FormatException">It was written by a later release, or is no JSON of this shape.</exception>
    public static T Read<T>(string text)
    {
        var (version, at, length) = Unwrap(text);
        if (version > Shape<T>.Version)
            throw new FormatException($"{typeof(T).Name} of version {version} was written by a later release of this program.");
        try
        {
            if (version == Shape<T>.Version || !Shape<T>.HasSteps)
                return JsonSerializer.Deserialize<T>(text.AsSpan(at, length), Options)!;
            var node = JsonNode.Parse(text.Substring(at, length))!;
            for (var from = version; from < Shape<T>.Version; from++)
                if (Steps.TryGetValue((typeof(T), from), out var step))
                    node = step(node);
            return node.Deserialize<T>(Options)!;
        }
        catch (JsonException problem)
        {
            throw new FormatException($"A stored {typeof(T).Name} can't be read: {problem.Message}", problem);
        }
    }

    /// <summary>The JSON Schema of a shape as it is written now.</summary>
    public static JsonNode SchemaOf(Type shape)
    {
        // The exporter knows the framework's own words for an enum, and nothing of our quantities.
        var described = new JsonSerializerOptions(Options) { TypeInfoResolver = new DefaultJsonTypeInfoResolver() };
        described.Converters.Remove(described.Converters.Single(converter => converter is EnumWords));
        described.Converters.Add(new JsonStringEnumConverter());
        return described.GetJsonSchemaAsNode(shape, new()
        {
            TransformSchemaNode = (context, node) => context.TypeInfo.Type == typeof(Hours) ? new JsonObject { ["type"] = "number" }
                : context.TypeInfo.Type == typeof(Hours?) ? new JsonObject { ["type"] = new JsonArray("number", "null") } : node,
        });
    }

    /// <summary>A text that has a format of its own, with a version around it.</summary>
    public static string Wrap(string json, int version = FirstVersion) =>
        $"{Before}{version.ToString(CultureInfo.InvariantCulture)}{Between}{json}}}";

    /// <summary>What stands in a column, without its version.</summary>
    public static string Bare(string text)
    {
        var (_, at, length) = Unwrap(text);
        return text.Substring(at, length);
    }

    private static (int Version, int At, int Length) Unwrap(string text)
    {
        if (!text.StartsWith(Before, StringComparison.Ordinal)
            || text.IndexOf(Between, StringComparison.Ordinal) is not (> 0 and < 20 and var between)
            || !int.TryParse(text.AsSpan(Before.Length, between - Before.Length), NumberStyles.None, CultureInfo.InvariantCulture,
                out var version))
            return (0, 0, text.Length);
        return (version, between + Between.Length, text.Length - between - Between.Length - 1);
    }
}
