using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace MellowRivet.Core.Worksheets;

/// <summary>
/// One column of a worksheet: at which interval a task is due. Hours or calendar months, one of the two; written as hands
/// write it: "25 h", "annual", "2 years", "6 months", "first 25 h".
/// </summary>
/// <param name="Hours">Hours in service, above zero; null for a calendar interval.</param>
/// <param name="Months">Calendar months, above zero; null for an hours interval.</param>
/// <param name="Once">Only the first time, since new or overhaul.</param>
[JsonConverter(typeof(TaskIntervalJson))]
public readonly record struct TaskInterval(decimal? Hours, int? Months, bool Once = false)
{
    /// <summary>The column as it is written.</summary>
    public override string ToString() => (Hours, Months) switch
    {
        ({ } hours, _) => string.Create(CultureInfo.InvariantCulture, $"{(Once ? "first " : "")}{hours:0.##} h"),
        (_, 12) => "annual",
        (_, { } months) when months % 12 == 0 => $"{months / 12} years",
        (_, { } months) => $"{months} months",
        _ => "",
    };

    /// <summary>Reads a column as it is written; null where it is none.</summary>
    public static TaskInterval? Parse(string? text)
    {
        var words = (text ?? "").Trim().ToLowerInvariant().Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var once = words is ["first", ..];
        return (once ? words[1..] : words) switch
        {
            ["annual"] when !once => new(null, 12),
            [var number, "h"] when decimal.TryParse(number, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var hours)
                && hours is > 0 and <= 20_000 => new(hours, null, once),
            [var number, "year" or "years"] when !once
                && int.TryParse(number, NumberStyles.None, CultureInfo.InvariantCulture, out var years)
                && years is > 0 and <= 50 => new(null, years * 12),
            [var number, "month" or "months"] when !once
                && int.TryParse(number, NumberStyles.None, CultureInfo.InvariantCulture, out var months)
                && months is > 0 and <= 600 => new(null, months),
            _ => null,
        };
    }

    /// <summary>First-time columns, then hours, then calendar, each from short to long.</summary>
    public (int, decimal) Rank => Once ? (0, Hours ?? 0) : Hours is { } hours ? (1, hours) : (2, Months ?? 0);
}

internal sealed class TaskIntervalJson : JsonConverter<TaskInterval>
{
    public override TaskInterval Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        var text = reader.TokenType == JsonTokenType.String ? reader.GetString() : null;
        return TaskInterval.Parse(text)
            ?? throw new JsonException(
                $"'{text}' is no interval; write \"25 h\", \"annual\", \"2 years\", \"6 months\" or \"first 25 h\".");
    }

    public override void Write(Utf8JsonWriter writer, TaskInterval value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.ToString());
}
