using System.Text.Json;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What is usually found, what it means and what to check next. It lives on the shelf as a JSON file.</summary>
/// <param name="Key">Its name on the shelf.</param>
/// <param name="Title">What it is.</param>
/// <param name="Words">What people write when they mean it: one of each group has to be there. A word stands for all that begin with it.</param>
/// <param name="Class">What it usually means for the aircraft.</param>
/// <param name="Ground">Whether the question of grounding it now is put.</param>
/// <param name="Means">What it means, in words.</param>
/// <param name="Next">What to check next.</param>
/// <param name="Source">Where that comes from.</param>
public sealed record UsualFinding(
    string Key, string Title, IReadOnlyList<IReadOnlyList<string>> Words, DiscrepancyClass Class, bool Ground, string Means, IReadOnlyList<string> Next, RuleSource Source)
{
    /// <summary>Reads a shelf file of usual findings.</summary>
    /// <exception cref="FormatException">It isn't JSON, or a field is missing, unknown or empty.</exception>
    public static IReadOnlyList<UsualFinding> Parse(string json)
    {
        try
        {
            var findings = JsonSerializer.Deserialize<List<UsualFinding>>(json, Worksheet.Json) ?? throw new FormatException("The list of usual findings is empty.");
            return findings.FirstOrDefault(finding => finding.Words.Count == 0 || finding.Words.Any(group => group.Count == 0 || group.Any(string.IsNullOrWhiteSpace))) is { } wrong
                ? throw new FormatException($"Usual finding '{wrong.Key}': each group of words has at least one.")
                : findings;
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The list of usual findings can't be read: {problem.Message}", problem);
        }
    }

    /// <summary>Whether the words speak of it. "No crack" doesn't speak of a crack; "no cotter pin" does of a missing one.</summary>
    public bool Suits(IReadOnlyList<string> words) => Discrepancies.Words.Suit(words, Words);
}

/// <summary>A guess at the class, with why. A person decides; the guess only goes first.</summary>
/// <param name="Class">The class.</param>
/// <param name="Why">Why, in words.</param>
/// <param name="Finding">The usual finding it rests on; null where it rests on none.</param>
public sealed record ClassGuess(DiscrepancyClass Class, string Why, UsualFinding? Finding)
{
    /// <summary>
    /// Guesses from the words, else from the task. The finding with the most groups of words goes first, then the worse class.
    /// Where nothing says otherwise it is an airworthiness item until a person says less: the cautious way round.
    /// </summary>
    public static ClassGuess Of(string? what, InspectionTask? task, IEnumerable<UsualFinding> usual)
    {
        var words = Words.Plain(what ?? "");
        if (usual.Where(finding => finding.Suits(words)).OrderByDescending(finding => finding.Words.Count).ThenBy(finding => finding.Class).FirstOrDefault() is { } suits)
            return new(suits.Class, suits.Title, suits);
        return task is { SecondPerson: true }
            ? new(DiscrepancyClass.Airworthiness, "the task is an airworthiness item", null)
            : new(DiscrepancyClass.Airworthiness, words.Count == 0 ? "until a person says less" : "nothing in the words says less", null);
    }
}
