using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.Estimates;

namespace MellowRivet.Web.Api;

/// <summary>What work comes to, with its spread, and ways side by side: the arithmetic alone.</summary>
internal static class EstimateApi
{
    private const int MostLines = 500, MostParts = 100, MostAlternatives = 50;
    private const double MostRate = 10_000;

    public static void MapEstimate(this RouteGroupBuilder bench) =>
        bench.MapPost("/estimate", (HttpRequest request) => BenchBody.AnswerAsync<EstimateCall>(request, Reckon))
            .Accepts<EstimateCall>("application/json").Produces<EstimateAnswer>().ProducesValidationProblem()
            .WithName("Estimate")
            .WithSummary("Sums hours, parts and outside work with their spread: triangular and independent, mean and variance exact, "
                + "p10 and p90 exact up to two ranges and by the normal law from three on. What was declined is in no total.");

    public static EstimateAnswer? Reckon(EstimateCall call, Problems problems)
    {
        var rates = (call.Rates ?? []).ToDictionary(rate => rate.Key,
            rate => (decimal)problems.Number($"rates.{rate.Key}", rate.Value, 0, MostRate, "an hour", 0));
        if (call.Lines is not { Count: > 0 and <= MostLines })
            problems.Add("lines", $"From 1 to {MostLines} lines are wanted.");
        var lines = (call.Lines ?? []).Take(MostLines).Select((line, index) => Line(line, index, rates, problems)).ToList();
        if (lines.GroupBy(line => line.Id).FirstOrDefault(same => same.Count() > 1) is { } twice)
            problems.Add("lines", $"“{twice.Key}” stands there twice.");
        if (call.Alternatives?.Count > MostAlternatives)
            problems.Add("alternatives", $"Up to {MostAlternatives}.");
        foreach (var (way, index) in (call.Alternatives ?? []).Take(MostAlternatives).Select((way, index) => (way, index)))
        {
            var at = $"alternatives[{index}]";
            if (string.IsNullOrWhiteSpace(way?.Name))
                problems.Add($"{at}.name", "A name is wanted.");
            if ((way?.Lines ?? []).FirstOrDefault(id => lines.All(line => line.Id != id)) is { } unknown)
                problems.Add($"{at}.lines", $"There is no line “{unknown}”.");
            if (way?.BuysHours is { } hours)
                problems.Number($"{at}.buysHours", hours, 0, 100_000, "h", 0);
            if (way?.DownDays is { } days)
                problems.Number($"{at}.downDays", days, 0, Estimate.LongestWait, "days", 0);
        }
        if (problems.Any)
            return null;
        SumAnswer Of(IEnumerable<EstimateLine> which) => SumAnswer.Of(SumOfSpreads.Of(which.SelectMany(line => line.Ranges)));
        return new(
            [.. lines.Select(line => line.Ranges.Aggregate(Spread.Of(0), (sum, range) => sum + range) is var sum
                ? new EstimateLineAnswer(line.Id, sum.Low, sum.Likely, sum.High) : null!)],
            Of(lines.Where(line => line.Decision != EstimateDecision.Declined)),
            Of(lines.Where(line => line.Decision == EstimateDecision.Approved)),
            Of(lines.Where(line => line.Decision == EstimateDecision.Open)),
            [.. (call.Alternatives ?? []).Select(way =>
            {
                var sum = Of(lines.Where(line => way!.Lines?.Contains(line.Id) == true));
                return new AlternativeAnswer(way!.Name!, sum.Low, sum.Likely, sum.High, sum.Mean, sum.P10, sum.P90, way.BuysHours,
                    way.BuysHours is > 0 and var hours ? Math.Round(sum.Likely / (decimal)hours, 2) : null, way.DownDays);
            })]);
    }

    private static EstimateLine Line(EstimateLineCall? line, int index, Dictionary<string, decimal> rates, Problems problems)
    {
        var at = $"lines[{index}]";
        if (string.IsNullOrWhiteSpace(line?.Id))
            problems.Add($"{at}.id", "An id is wanted.");
        List<Spread> ranges = [];
        if (line?.Hours is { } hours)
        {
            // Where there is one rate nobody has to say whose.
            var skill = line.Skill ?? (rates.Count == 1 ? rates.Keys.First() : "mechanic");
            if (!rates.TryGetValue(skill, out var rate))
                problems.Add($"{at}.skill", rates.Count == 0 ? "Rates are wanted for hours."
                    : $"One of {string.Join(", ", rates.Keys)} is wanted.");
            ranges.Add(hours.Checked($"{at}.hours", (double)Estimate.MostHours, problems).Times(rate));
        }
        if (line?.Parts?.Count > MostParts)
            problems.Add($"{at}.parts", $"Up to {MostParts}.");
        foreach (var (part, row) in (line?.Parts ?? []).Take(MostParts).Select((part, row) => (part, row)))
        {
            var quantity = problems.Number($"{at}.parts[{row}].quantity", part?.Quantity, 0, (double)Estimate.MostQuantity, "", 1);
            if (part?.Price is null)
                problems.Add($"{at}.parts[{row}].price", "A price, or low, likely and high, is wanted.");
            else
                ranges.Add(part.Price.Checked($"{at}.parts[{row}].price", (double)Estimate.MostPrice, problems).Times((decimal)quantity));
        }
        if (line?.Outside is { } outside)
            ranges.Add(outside.Checked($"{at}.outside", (double)Estimate.MostPrice, problems));
        return new(line?.Id ?? $"{index}", ranges, line?.Decision ?? EstimateDecision.Open);
    }

    private sealed record EstimateLine(string Id, IReadOnlyList<Spread> Ranges, EstimateDecision Decision);
}

internal enum EstimateDecision { Open = 1, Approved, Declined }

internal sealed record EstimateCall(Dictionary<string, double?>? Rates, IReadOnlyList<EstimateLineCall?>? Lines,
    IReadOnlyList<AlternativeCall?>? Alternatives);

internal sealed record EstimateLineCall(string? Id, string? Skill, RangeCall? Hours, IReadOnlyList<EstimatePartCall?>? Parts,
    RangeCall? Outside, EstimateDecision? Decision);

internal sealed record EstimatePartCall(double? Quantity, RangeCall? Price);

internal sealed record AlternativeCall(string? Name, IReadOnlyList<string>? Lines, double? BuysHours, double? DownDays);

/// <summary>A number, or low, likely and high.</summary>
[JsonConverter(typeof(RangeJson))]
internal sealed record RangeCall(double? Low, double? Likely, double? High)
{
    /// <summary>The range where it rises and stays in bounds; else names the field.</summary>
    public Spread Checked(string field, double most, Problems problems)
    {
        var read = new[] { ("low", Low), ("likely", Likely), ("high", High) }
            .Select(one => (decimal)problems.Number($"{field}.{one.Item1}", one.Item2, 0, most, "", 0)).ToList();
        if (!problems.Any && (read[0] > read[1] || read[1] > read[2]))
            problems.Add(field, "Low, likely and high rise from one to the next.");
        return new(read[0], read[1], read[2]);
    }
}

/// <summary>Reads a range from a number or from an object with its three.</summary>
internal sealed class RangeJson : JsonConverter<RangeCall>
{
    public override RangeCall Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        if (reader.TokenType == JsonTokenType.Number)
        {
            var only = reader.GetDouble();
            return new(only, only, only);
        }
        if (reader.TokenType != JsonTokenType.StartObject)
            throw new JsonException("A number, or low, likely and high, is wanted.");
        double? low = null, likely = null, high = null;
        while (reader.Read() && reader.TokenType == JsonTokenType.PropertyName)
        {
            var name = reader.GetString();
            if (!reader.Read() || reader.TokenType != JsonTokenType.Number)
                throw new JsonException($"“{name}”: a number is wanted.");
            switch (name)
            {
                case "low": low = reader.GetDouble(); break;
                case "likely": likely = reader.GetDouble(); break;
                case "high": high = reader.GetDouble(); break;
                default: throw new JsonException($"“{name}” is none of low, likely and high.");
            }
        }
        return new(low, likely, high);
    }

    public override void Write(Utf8JsonWriter writer, RangeCall value, JsonSerializerOptions options) =>
        throw new NotSupportedException("A range is only read.");
}

internal sealed record EstimateAnswer(IReadOnlyList<EstimateLineAnswer> Lines, SumAnswer Total, SumAnswer Approved, SumAnswer Open,
    IReadOnlyList<AlternativeAnswer> Alternatives);

internal sealed record EstimateLineAnswer(string Id, decimal Low, decimal Likely, decimal High);

/// <summary>A sum with its spread.</summary>
internal sealed record SumAnswer(decimal Low, decimal Likely, decimal High, double Mean, double P10, double P90)
{
    public static SumAnswer Of(SumOfSpreads sum) => new(sum.Sum.Low, sum.Sum.Likely, sum.Sum.High, sum.Mean, sum.P10, sum.P90);
}

internal sealed record AlternativeAnswer(string Name, decimal Low, decimal Likely, decimal High, double Mean, double P10, double P90,
    double? BuysHours, decimal? PricePerHour, double? DownDays);
