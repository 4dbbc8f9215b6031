using System.Globalization;
using System.Text.RegularExpressions;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Bulletins;

/// <summary>
/// The steps of a bulletin as lines that a person types: the words, then behind bars what goes with them: a torque as printed,
/// "caution …", or "measure end-play thou 4 to 14" with either limit left out as "up to 14" or "from 4".
/// </summary>
public static partial class StepText
{
    /// <summary>Two steps as they are typed.</summary>
    public const string Example = """
        Torque the four bolts | 17 N·m (150 in-lb)
        Measure the end play | measure end-play thou 4 to 14 | caution magnetos off
        """;

    public static string Write(IEnumerable<BulletinStep> steps) => string.Join('\n', steps.Select(step => string.Join(" | ", new[]
    {
        step.Text, step.Torque, step.Measure is { } measure
            ? $"measure {measure.Kind} {measure.Unit} {Limits(measure)}"
            : null, step.Caution is { } caution ? $"caution {caution}" : null,
    }.OfType<string>())));

    /// <summary>Reads the lines, or says which can't be read.</summary>
    /// <param name="text">The lines.</param>
    /// <param name="title">The bulletin, which limits come from.</param>
    /// <param name="known">Steps as they were: a line that wasn't touched stays its step, with all that a line can't say.</param>
    public static (IReadOnlyList<BulletinStep> Steps, string? Fault) Read(string? text, string title,
        IReadOnlyList<BulletinStep>? known = null)
    {
        List<BulletinStep> steps = [];
        foreach (var line in (text ?? "").ReplaceLineEndings("\n")
            .Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            if (known?.FirstOrDefault(step => Write([step]) == line) is { } untouched)
            {
                steps.Add(untouched);
                continue;
            }
            var parts = line.Split('|', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            if (parts.Length == 0)
                continue;
            var step = new BulletinStep(parts[0]);
            foreach (var part in parts[1..])
                if (part.StartsWith("caution ", StringComparison.OrdinalIgnoreCase))
                    step = step with { Caution = part[8..].Trim() };
                else if (Measured().Match(part) is { Success: true } measured)
                    step = step with { Measure = Measure(measured, title) };
                else if (TorquePair.Read(part).Count > 0)
                    step = step with { Torque = part };
                else
                    return ([],
                        $"“{part}” is no torque, caution or measure: 17 N·m (150 in-lb), caution mind the edge, or "
                        + $"measure end-play thou 4 to 14.");
            if (step.Measure is { } measure && Unit.Find(measure.Unit) is null)
                return ([], $"“{measure.Unit}” is no unit known here.");
            steps.Add(step);
        }
        return (steps, null);
    }

    private static WorksheetMeasure Measure(Match measured, string title)
    {
        double? Number(string group) =>
            measured.Groups[group] is { Success: true } found ? double.Parse(found.Value, CultureInfo.InvariantCulture) : null;
        return new(measured.Groups["kind"].Value, Unit.Find(measured.Groups["unit"].Value)?.Symbol
            ?? measured.Groups["unit"].Value, Number("low") ?? Number("from"), Number("high") ?? Number("to"), Standing.Manual, title);
    }

    private static string Limits(WorksheetMeasure measure)
    {
        static string Say(double? value) => value!.Value.ToString(CultureInfo.InvariantCulture);
        return (measure.Low, measure.High) switch
        {
            (null, _) => $"up to {Say(measure.High)}",
            (_, null) => $"from {Say(measure.Low)}",
            _ => $"{Say(measure.Low)} to {Say(measure.High)}",
        };
    }

    [GeneratedRegex(@"^measure\s+(?<kind>[a-z0-9-]+)\s+(?<unit>\S+)\s+"
        + @"(?:(?<low>-?\d+(?:\.\d+)?)\s+to\s+(?<high>-?\d+(?:\.\d+)?)"
        + @"|up to\s+(?<to>-?\d+(?:\.\d+)?)|from\s+(?<from>-?\d+(?:\.\d+)?))$", RegexOptions.IgnoreCase)]
    private static partial Regex Measured();
}
