using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace MellowRivet.Core.Bulletins;

/// <summary>
/// A rule as JSON: { "all": [ … ] }, { "any": [ … ] }, { "not": … }, or a condition { "fact": "engine.serial", "in": "E-1 to
/// E-9" }, with "is" (a word, a list of words, true or false), "in", "atLeast" and "below", or "from" and "until".
/// </summary>
public sealed class RuleJson : JsonConverter<Rule>
{
    /// <summary>Reads a rule from JSON that is already parsed.</summary>
    /// <exception cref="JsonException">It is no rule; the message says where and why.</exception>
    public static Rule Read(JsonElement json)
    {
        var left = Rule.MostConditions;
        return Read(json, "rule", 1, ref left);
    }

    public override Rule Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        using var json = JsonDocument.ParseValue(ref reader);
        return Read(json.RootElement);
    }

    public override void Write(Utf8JsonWriter writer, Rule value, JsonSerializerOptions options)
    {
        writer.WriteStartObject();
        switch (value)
        {
            case All all:
                WriteParts(writer, "all", all.Parts, options);
                break;
            case Any any:
                WriteParts(writer, "any", any.Parts, options);
                break;
            case Not not:
                writer.WritePropertyName("not");
                Write(writer, not.Part, options);
                break;
            case Condition condition:
                writer.WriteString("fact", condition.Fact);
                Write(writer, condition.Test);
                break;
        }
        writer.WriteEndObject();
    }

    private void WriteParts(Utf8JsonWriter writer, string name, IReadOnlyList<Rule> parts, JsonSerializerOptions options)
    {
        writer.WriteStartArray(name);
        foreach (var part in parts)
            Write(writer, part, options);
        writer.WriteEndArray();
    }

    private static void Write(Utf8JsonWriter writer, FactTest test)
    {
        switch (test)
        {
            case IsOneOf { Words: [var only] }:
                writer.WriteString("is", only);
                break;
            case IsOneOf words:
                writer.WriteStartArray("is");
                foreach (var word in words.Words)
                    writer.WriteStringValue(word);
                writer.WriteEndArray();
                break;
            case IsInSerials serials:
                writer.WriteString("in", serials.Ranges.InWords);
                break;
            case IsBetween between:
                if (between.AtLeast is { } least)
                    writer.WriteNumber("atLeast", least);
                if (between.Below is { } below)
                    writer.WriteNumber("below", below);
                break;
            case IsDated dated:
                if (dated.From is { } from)
                    writer.WriteString("from", from.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
                if (dated.Until is { } until)
                    writer.WriteString("until", until.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
                break;
        }
    }

    private static Rule Read(JsonElement json, string at, int depth, ref int left)
    {
        if (depth > Rule.Deepest)
            throw new JsonException($"{at}: nested deeper than {Rule.Deepest}.");
        if (json.ValueKind != JsonValueKind.Object)
            throw new JsonException($"{at}: an object is wanted.");
        var members = json.EnumerateObject().ToList();
        if (members.GroupBy(member => member.Name).Any(group => group.Count() > 1))
            throw new JsonException($"{at}: a member stands twice.");
        if (members is [{ Name: "all" or "any" } group1])
        {
            if (group1.Value.ValueKind != JsonValueKind.Array)
                throw new JsonException($"{at}.{group1.Name}: a list is wanted.");
            List<Rule> parts = [];
            foreach (var part in group1.Value.EnumerateArray())
                parts.Add(Read(part, $"{at}.{group1.Name}[{parts.Count}]", depth + 1, ref left));
            // A group of one says no more than the one.
            return parts is [var only] ? only : group1.Name == "all" ? new All(parts) : new Any(parts);
        }
        if (members is [{ Name: "not" } not])
            return new Not(Read(not.Value, $"{at}.not", depth + 1, ref left));
        if (--left < 0)
            throw new JsonException($"{at}: more than {Rule.MostConditions} conditions.");
        return ReadCondition(json, members, at);
    }

    private static Condition ReadCondition(JsonElement json, List<JsonProperty> members, string at)
    {
        if (members.FirstOrDefault(member => member.Name is not ("fact" or "is" or "in" or "atLeast" or "below" or "from" or "until"))
            is { Value.ValueKind: not JsonValueKind.Undefined } other)
            throw new JsonException(
                $"{at}: “{other.Name}” is not known in a rule. It takes all, any, not, or a fact with is, in, "
                + $"atLeast, below, from or until.");
        var name = Text(json, "fact", at) ?? throw new JsonException($"{at}: all, any, not or fact is wanted.");
        if (FactName.Read(name) is null)
            throw new JsonException(
                $"{at}.fact: “{name}” is no fact. Facts are named like aircraft.model, engine.serial, engine.crankshaft.serial or "
                + $"aircraft.modification.M-1.");
        List<FactTest> tests = [];
        if (json.TryGetProperty("is", out var words))
            tests.Add(Words(words, at));
        if (Text(json, "in", at) is { } list)
            tests.Add(SerialRanges.Read(list) is { Ranges: { } ranges } read
                ? new IsInSerials(ranges)
                : throw new JsonException($"{at}.in: {SerialRanges.Read(list).Fault}"));
        if (json.TryGetProperty("atLeast", out _) || json.TryGetProperty("below", out _))
            tests.Add(Between(Number(json, "atLeast", at), Number(json, "below", at), at));
        if (json.TryGetProperty("from", out _) || json.TryGetProperty("until", out _))
            tests.Add(Dated(Day(json, "from", at), Day(json, "until", at), at));
        return tests is [var test]
            ? new(name, test)
            : throw new JsonException($"{at}: one test is wanted beside the fact: is, in, atLeast and below, or from and until.");
    }

    private static IsOneOf Words(JsonElement json, string at)
    {
        var words = (json.ValueKind == JsonValueKind.Array ? [.. json.EnumerateArray()] : new[] { json })
            .Select(word => word.ValueKind switch
        {
            JsonValueKind.True => YesNo.Yes,
            JsonValueKind.False => YesNo.No,
            JsonValueKind.String => word.GetString()!.Trim(),
            _ => "",
        }).ToList();
        return words.Count is > 0 and <= 200
            && words.All(word => word.Length is > 0 and <= 80 && !word.Any(letter => letter == ';' || char.IsControl(letter)))
            ? new(words)
            : throw new JsonException($"{at}.is: a word, true or false, or a list of up to 200 words, without semicolons.");
    }

    internal static IsBetween Between(decimal? least, decimal? below, string at) => least < below || least is null || below is null
        ? new(least, below)
        : throw new JsonException($"{at}: at least {least} and below {below} leave nothing.");

    internal static IsDated Dated(DateOnly? from, DateOnly? until, string at) => from > until
        ? throw new JsonException($"{at}: from {from:yyyy-MM-dd} until {until:yyyy-MM-dd} runs backwards.")
        : new(from, until);

    private static string? Text(JsonElement json, string name, string at) => !json.TryGetProperty(name, out var value) ? null
        : value.ValueKind == JsonValueKind.String ? value.GetString()!.Trim() : throw new JsonException($"{at}.{name}: words are wanted.");

    private static decimal? Number(JsonElement json, string name, string at) => !json.TryGetProperty(name, out var value) ? null
        : value.ValueKind == JsonValueKind.Number && value.TryGetDecimal(out var number)
        ? number
        : throw new JsonException($"{at}.{name}: a number is wanted.");

    private static DateOnly? Day(JsonElement json, string name, string at) => Text(json, name, at) is not { } text ? null
        : DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
        ? day
        : throw new JsonException($"{at}.{name}: a day as 2026-01-31 is wanted.");
}
