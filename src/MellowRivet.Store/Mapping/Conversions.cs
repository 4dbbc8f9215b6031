using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Measures;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace MellowRivet.Store.Mapping;

/// <summary>Hours as decimal text: exact, never rounded through a double.</summary>
internal sealed class HoursText() : ValueConverter<Hours, string>(
    hours => hours.Value.ToString(CultureInfo.InvariantCulture), text => new Hours(decimal.Parse(text, CultureInfo.InvariantCulture)));

/// <summary>Instants as ISO 8601 text in UTC, so that they sort as text.</summary>
internal sealed class UtcText() : ValueConverter<DateTimeOffset, string>(
    instant => instant.UtcDateTime.ToString("O", CultureInfo.InvariantCulture),
    text => DateTimeOffset.Parse(text, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal));

/// <summary>Hours inside a JSON column, as a number.</summary>
internal sealed class HoursNumber : JsonConverter<Hours>
{
    public override Hours Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => new(reader.GetDecimal());

    public override void Write(Utf8JsonWriter writer, Hours value, JsonSerializerOptions options) => writer.WriteNumberValue(value.Value);
}

/// <summary>
/// A word of a list by its name, or by one it had in an earlier release. "0" is what the model takes for a word
/// not set yet, and no row has it.
/// </summary>
internal sealed class EnumText<T>()
    : ValueConverter<T, string>(member => member.ToString(), text => text == "0" ? default : EnumNames.Read<T>(text))
    where T : struct, Enum;

/// <summary>A small value or list as JSON text in one column.</summary>
internal sealed class JsonText<T>() : ValueConverter<T, string>(value => StoredShapes.Write(value), text => StoredShapes.Read<T>(text));

/// <summary>Core replaces such a value whole, so the same object is unchanged and equal text is an equal value.</summary>
internal sealed class JsonSame<T>() : ValueComparer<T>(
    (one, other) => ReferenceEquals(one, other) || StoredShapes.Write(one) == StoredShapes.Write(other),
    value => StoredShapes.Write(value).GetHashCode(StringComparison.Ordinal),
    value => value);

internal static class JsonColumn
{
    /// <summary>Keeps a small value or list as JSON in one column.</summary>
    public static PropertyBuilder<T> AsJson<T>(this PropertyBuilder<T> property) => property.HasConversion<JsonText<T>, JsonSame<T>>();
}
