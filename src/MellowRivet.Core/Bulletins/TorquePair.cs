using System.Globalization;
using System.Text.RegularExpressions;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Bulletins;

/// <summary>One torque as printed.</summary>
/// <param name="Printed">The figure as printed.</param>
/// <param name="Unit">Its unit.</param>
public sealed record PrintedTorque(string Printed, Unit Unit)
{
    public double Value => double.Parse(Printed, CultureInfo.InvariantCulture);

    /// <summary>One of its last printed figure.</summary>
    public double Step => Printed.IndexOf('.', StringComparison.Ordinal) is >= 0 and var point
        ? Math.Pow(10, point + 1 - Printed.Length)
        : 1;
}

/// <summary>
/// A torque that a bulletin prints in two units: they have to agree. A printed figure stands for what rounds to it or is cut
/// off to it, from half of its last figure below to one above; pairs whose stretches don't meet are probably a misprint.
/// </summary>
public static partial class TorquePair
{
    private static readonly RuleSource Source = new(Standing.Practice,
        "common practice: torque printed in two units has to agree; conversions of NIST SP 811");

    /// <summary>The torques in a line such as "17 N·m (150 in-lb)", in the order printed.</summary>
    public static IReadOnlyList<PrintedTorque> Read(string? text) =>
        [.. Printed().Matches(text ?? "")
            .Select(match => new PrintedTorque(match.Groups["figure"].Value.Replace(',', '.'), UnitOf(match.Groups["unit"].Value)))];

    /// <summary>Judges a line; null where it prints fewer than two torques.</summary>
    public static Judgement? Judge(string? text)
    {
        var torques = Read(text);
        if (torques.Count < 2)
            return null;
        var (first, others) = (torques[0], torques.Skip(1).ToList());
        foreach (var other in others)
        {
            var said = first.Unit.To(other.Unit, first.Value);
            if (Agree(first, other))
                continue;
            return new(Verdict.Watch,
                $"{first.Printed} {first.Unit.Symbol} is {said:0.#} {other.Unit.Symbol}, and {other.Printed} is printed", Source,
                Math.Round(other.Value - said, 2),
                "Probably a misprint: ask the issuer which one holds before anything is torqued.");
        }
        return new(Verdict.Good, $"{string.Join(" and ", torques.Select(torque => $"{torque.Printed} {torque.Unit.Symbol}"))} agree",
            Source, 0, "Nothing to do.");
    }

    private static bool Agree(PrintedTorque one, PrintedTorque other)
    {
        var low = one.Unit.To(other.Unit, one.Value - one.Step / 2);
        var high = one.Unit.To(other.Unit, one.Value + one.Step);
        return low < other.Value + other.Step && other.Value - other.Step / 2 < high;
    }

    private static Unit UnitOf(string unit) => unit.ToLowerInvariant() is var small && small.StartsWith('n') ? Unit.NewtonMetre
        : small.StartsWith('f') || small.Contains("ft", StringComparison.Ordinal) ? Unit.FootPound : Unit.InchPound;

    [GeneratedRegex(@"(?<![\w.,])(?<figure>\d{1,5}(?:[.,]\d{1,3})?)\s*"
        + @"(?<unit>N\s*[·.]?\s*m|in[\s.·-]*lbf?|lbf?[\s.·-]*in|ft[\s.·-]*lbf?|lbf?[\s.·-]*ft)\b", RegexOptions.IgnoreCase)]
    private static partial Regex Printed();
}
