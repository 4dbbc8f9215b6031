using System.Collections.Concurrent;
using System.Collections.Frozen;
using System.Reflection;
using System.Runtime.CompilerServices;
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

    public static bool TryRead<T>(string? name, out T member) where T : struct, Enum
    {
        var known = Known.GetOrAdd(typeof(T), NamesOf).TryGetValue(name ?? "", out var found);
        member = known ? (T)found! : default;
        return known;
    }

    // One kind of dictionary for all enums: the runtime compiles what is generic for each of them anew, and that was most of a start.
    private static readonly ConcurrentDictionary<Type, FrozenDictionary<string, object>> Known = [];

    private static FrozenDictionary<string, object> NamesOf(Type words)
    {
        Dictionary<string, object> names = new(StringComparer.OrdinalIgnoreCase);
        foreach (var field in words.GetFields(BindingFlags.Public | BindingFlags.Static))
            foreach (var name in field.GetCustomAttributes<FormerlyAttribute>().Select(former => former.Name).Prepend(field.Name))
                names.Add(name, field.GetValue(null)!);
        return names.ToFrozenDictionary(StringComparer.OrdinalIgnoreCase);
    }
}

/// <summary>Writes the members of enums as words and reads them back, by the names of earlier releases too.</summary>
/// <param name="naming">How words are written; null for the members' own names.</param>
public sealed class EnumWords(JsonNamingPolicy? naming = null) : JsonConverterFactory
{
    public override bool CanConvert(Type typeToConvert) => typeToConvert.IsEnum;

    public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
        (JsonConverter)Activator.CreateInstance(typeof(Words<>).MakeGenericType(typeToConvert), naming)!;

    // As above: by the number that every one of our enums is.
    private static FrozenDictionary<int, string> WordsOf(Type words, JsonNamingPolicy? naming)
    {
        Dictionary<int, string> said = [];
        foreach (int member in Enum.GetValuesAsUnderlyingType(words))
            if (Enum.GetName(words, member) is { } name)
                said.TryAdd(member, naming?.ConvertName(name) ?? name);
        return said.ToFrozenDictionary();
    }

    private sealed class Words<T>(JsonNamingPolicy? naming) : JsonConverter<T> where T : struct, Enum
    {
        private readonly FrozenDictionary<int, string> words = WordsOf(typeof(T), naming);

        public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String && EnumNames.TryRead<T>(reader.GetString(), out var member) ? member
            // Without words of its own, the exception says where it was.
            : throw new JsonException();

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
            writer.WriteStringValue(words.TryGetValue(Unsafe.As<T, int>(ref value), out var word)
                ? word
                : throw new JsonException($"{value} is no {typeof(T).Name}."));
    }
}
