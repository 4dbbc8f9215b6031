using System.Text.Json;
using System.Text.Json.Serialization;

namespace MellowRivet.Core.Plugs;

/// <summary>The two rows of plugs: one above, one below in each cylinder. Bottom plugs foul, top ones mostly don't.</summary>
public enum PlugRow { Top = 1, Bottom }

/// <summary>A plug's hole by cylinder and row, written "2B".</summary>
/// <param name="Cylinder">The cylinder's number on its engine, from 1.</param>
/// <param name="Row">Above or below.</param>
[JsonConverter(typeof(PlugHoleJson))]
public readonly record struct PlugHole(int Cylinder, PlugRow Row)
{
    /// <summary>The hole of the same cylinder in the other row.</summary>
    public PlugHole Across => this with { Row = Row == PlugRow.Top ? PlugRow.Bottom : PlugRow.Top };

    /// <summary>"2B" as a hole; null for anything else.</summary>
    public static PlugHole? Parse(string? text) => text?.Trim() is [.. { Length: 1 or 2 } number, var row]
        && int.TryParse(number, System.Globalization.NumberStyles.None, null, out var cylinder) && cylinder is >= 1 and <= 24
        ? row switch { 'T' or 't' => new(cylinder, PlugRow.Top), 'B' or 'b' => new(cylinder, PlugRow.Bottom), _ => null }
        : null;

    public override string ToString() => $"{Cylinder}{(Row == PlugRow.Top ? 'T' : 'B')}";
}

/// <summary>Keeps a hole as the text people write.</summary>
internal sealed class PlugHoleJson : JsonConverter<PlugHole>
{
    public override PlugHole Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        PlugHole.Parse(reader.GetString()) ?? throw new JsonException("A plug's hole is a cylinder and T or B.");

    public override void Write(Utf8JsonWriter writer, PlugHole value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.ToString());
}
