using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
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

/// <summary>A small value or list as JSON text in one column.</summary>
internal sealed class JsonText<T>() : ValueConverter<T, string>(value => JsonColumn.Write(value), text => JsonColumn.Read<T>(text));

/// <summary>Core replaces such a value whole, so the same object is unchanged and equal text is an equal value.</summary>
internal sealed class JsonSame<T>() : ValueComparer<T>(
    (one, other) => ReferenceEquals(one, other) || JsonColumn.Write(one) == JsonColumn.Write(other),
    value => JsonColumn.Write(value).GetHashCode(StringComparison.Ordinal),
    value => value);

internal static class JsonColumn
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter(), new HoursNumber() }, IgnoreReadOnlyProperties = true };

    /// <summary>Keeps a small value or list as JSON in one column.</summary>
    public static PropertyBuilder<T> AsJson<T>(this PropertyBuilder<T> property) => property.HasConversion<JsonText<T>, JsonSame<T>>();

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    public static T Read<T>(string text) => JsonSerializer.Deserialize<T>(text, Options)!;
}
