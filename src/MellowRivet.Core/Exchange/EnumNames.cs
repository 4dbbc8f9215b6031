using System.Collections.Frozen;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace MellowRivet.Core.Exchange;

/// <summary>A name that a member of an enum bore in an earlier release: what was written under it is still read.</summary>
[AttributeUsage(AttributeTargets.Field, AllowMultiple = true)]
public sealed class FormerlyAttribute(string name) : Attribute
{
    public string Name => name;
}

/// <summary>The names by which an enum's members are stored, those of earlier releases too.</summary>
public static class EnumNames
{
    /// <exception cref="FormatException">No member is or was called so.</exception>
    public static T Read<T>(string name) where T : struct, Enum =>
        TryRead<T>(name, out var member) ? member : throw new FormatException($"“{name}” is and was no {typeof(T).Name}.");

    public static bool TryRead<T>(string? name, out T member) where T : struct, Enum => Of<T>.Known.TryGetValue(name ?? "", out member);

    private static class Of<T> where T : struct, Enum
    {
        public static readonly FrozenDictionary<string, T> Known = typeof(T).GetFields(BindingFlags.Public | BindingFlags.Static)
            .SelectMany(field => field.GetCustomAttributes<FormerlyAttribute>().Select(former => former.Name).Prepend(field.Name)
                .Select(name => (name, (T)field.GetValue(null)!)))
            .ToFrozenDictionary(pair => pair.name, pair => pair.Item2, StringComparer.OrdinalIgnoreCase);
    }
}

/// <summary>Writes the members of enums as words and reads them back, by the names of earlier releases too.</summary>
/// <param name="naming">How words are written; null for the members' own names.</param>
public sealed class EnumWords(JsonNamingPolicy? naming = null) : JsonConverterFactory
{
    public override bool CanConvert(Type typeToConvert) => typeToConvert.IsEnum;

    public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
        (JsonConverter)Activator.CreateInstance(typeof(Words<>).MakeGenericType(typeToConvert), naming)!;

    private sealed class Words<T>(JsonNamingPolicy? naming) : JsonConverter<T> where T : struct, Enum
    {
        private readonly FrozenDictionary<T, string> words = Enum.GetValues<T>().Distinct()
            .ToFrozenDictionary(member => member, member => naming?.ConvertName($"{member}") ?? $"{member}");

        public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String && EnumNames.TryRead<T>(reader.GetString(), out var member) ? member
            // Without words of its own, the exception says where it was.
            : throw new JsonException();

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
            writer.WriteStringValue(words.TryGetValue(value, out var word)
                ? word
                : throw new JsonException($"{value} is no {typeof(T).Name}."));
    }
}
