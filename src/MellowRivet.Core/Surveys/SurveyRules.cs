using System.Text.Json;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Surveys;

/// <summary>What a survey is weighed by. It lives on the shelf as a JSON file, and a survey keeps what it began with.</summary>
/// <param name="NegotiateAbove">The asking price is negotiated where it is above the fair one by more than this share of itself.</param>
/// <param name="WalkAwayAbove">Above it by more than this share of itself, one walks away.</param>
/// <param name="Supposed">
/// The share of its interval that an engine is taken to have run in a price of which nobody said what it supposes.
/// </param>
/// <param name="DueWithinMonths">What falls due within so many months counts.</param>
/// <param name="DamageWords">Words by which an entry of a book tells of damage or a repair.</param>
/// <param name="InspectionWords">Words by which an entry tells of a yearly inspection.</param>
/// <param name="Source">Where they come from.</param>
public sealed record SurveyRules(decimal NegotiateAbove, decimal WalkAwayAbove, decimal Supposed, int DueWithinMonths,
    IReadOnlyList<string> DamageWords, IReadOnlyList<string> InspectionWords, RuleSource Source)
{
    /// <summary>What the product came with: the thresholds of common practice.</summary>
    public static readonly SurveyRules Usual = new(0.03m, 0.40m, 0.5m, 12, [], [], new(Standing.Practice, "common practice"));

    /// <exception cref="FormatException">It can't be read, or doesn't hold together.</exception>
    public static SurveyRules Parse(string json)
    {
        try
        {
            var rules = JsonSerializer.Deserialize<SurveyRules>(json, Worksheet.Json)
                ?? throw new FormatException("The rules of a survey are empty.");
            return rules.NegotiateAbove is < 0 or > 1 || rules.WalkAwayAbove < rules.NegotiateAbove || rules.WalkAwayAbove > 10
                || rules.Supposed is < 0 or > 1 || rules.DueWithinMonths is < 1 or > 60
                ? throw new FormatException("The rules of a survey: to negotiate from 0 to 1 and not above to walk away, what a price "
                    + "supposes from 0 to 1, and from 1 to 60 months.")
                : rules;
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The rules of a survey can't be read: {problem.Message}", problem);
        }
    }
}
