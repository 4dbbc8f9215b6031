using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.Exchange;

namespace MellowRivet.Core.Compression;

/// <summary>Every place where air was heard to leave a cylinder at one try: none, one, or several at once, as on a dead cylinder.</summary>
[JsonConverter(typeof(LeaksJson))]
public readonly record struct Leaks
{
    private readonly int heard;

    /// <param name="paths">The places; <see cref="LeakPath.None"/> adds nothing.</param>
    public Leaks(IEnumerable<LeakPath> paths) =>
        heard = paths.Where(path => path != LeakPath.None).Aggregate(0, (all, path) => all | 1 << (int)path);

    public static readonly Leaks None;

    public static implicit operator Leaks(LeakPath path) => new([path]);

    public bool Any => heard != 0;

    public bool Has(LeakPath path) => (heard & 1 << (int)path) != 0;

    /// <summary>A valve is among them: it gets worse faster than rings.</summary>
    public bool AtValve => Has(LeakPath.ExhaustValve) || Has(LeakPath.IntakeValve);

    /// <summary>The places, in the order in which they are listened at.</summary>
    public IReadOnlyList<LeakPath> Paths
    {
        get
        {
            var leaks = this;
            return [.. Enum.GetValues<LeakPath>().Where(leaks.Has)];
        }
    }

    /// <summary>The short names: "exhaust valve, rings".</summary>
    public string Short => Any ? string.Join(", ", Paths.Select(path => path.Short())) : LeakPath.None.Short();

    /// <summary>Where to listen, and what it means, for each.</summary>
    public string Heard => Any ? string.Join("; ", Paths.Select(path => path.Heard())) : LeakPath.None.Heard();
}

/// <summary>One name, or a list of them; "none" stands alone.</summary>
internal sealed class LeaksJson : JsonConverter<Leaks>
{
    public override Leaks Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        if (reader.TokenType == JsonTokenType.String)
            return One(reader.GetString());
        if (reader.TokenType != JsonTokenType.StartArray)
            throw Wrong();
        List<LeakPath> paths = [];
        while (reader.Read() && reader.TokenType != JsonTokenType.EndArray)
            paths.Add(reader.TokenType == JsonTokenType.String ? One(reader.GetString()) : throw Wrong());
        return paths.Contains(LeakPath.None) && paths.Count > 1 ? throw Wrong() : new(paths);
    }

    public override void Write(Utf8JsonWriter writer, Leaks value, JsonSerializerOptions options)
    {
        var paths = value.Paths;
        if (paths.Count < 2)
        {
            writer.WriteStringValue(Name(paths.Count == 0 ? LeakPath.None : paths[0]));
            return;
        }
        writer.WriteStartArray();
        foreach (var path in paths)
            writer.WriteStringValue(Name(path));
        writer.WriteEndArray();
    }

    private static LeakPath One(string? word) =>
        word?.Length > 0 && char.IsLetter(word[0]) && EnumNames.TryRead<LeakPath>(word, out var path) ? path : throw Wrong();

    private static string Name(LeakPath path) => JsonNamingPolicy.CamelCase.ConvertName(path.ToString());

    private static JsonException Wrong() =>
        new($"A leak is one of {string.Join(", ", Enum.GetValues<LeakPath>().Select(Name))}, or a list of them; none stands alone.");
}
