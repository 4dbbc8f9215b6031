using System.Text.Json;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What is usually found, what it means and what to check next. It lives on the shelf as a JSON file.</summary>
/// <param name="Key">Its name on the shelf.</param>
/// <param name="Title">What it is.</param>
/// <param name="Words">What people write when they mean it: one of each group has to be there. A word stands for
/// all that begin with it.</param>
/// <param name="Class">What it usually means for the aircraft.</param>
/// <param name="Ground">Whether the question of grounding it now is put.</param>
/// <param name="Means">What it means, in words.</param>
/// <param name="Next">What to check next.</param>
/// <param name="Source">Where that comes from.</param>
/// <param name="Not">Words that make it something else: crazing in the line of sight is no matter of looks.</param>
public sealed record UsualFinding(
    string Key, string Title, IReadOnlyList<IReadOnlyList<string>> Words, DiscrepancyClass Class, bool Ground, string Means,
    IReadOnlyList<string> Next, RuleSource Source, IReadOnlyList<string>? Not = null)
{
    /// <summary>Reads a shelf file of usual findings.</summary>
    /// <exception cref="FormatException">It isn't JSON, or a field is missing, unknown or empty.</exception>
    public static IReadOnlyList<UsualFinding> Parse(string json)
    {
        try
        {
            var findings = JsonSerializer.Deserialize<List<UsualFinding>>(json, Worksheet.Json)
                ?? throw new FormatException("The list of usual findings is empty.");
            return findings.FirstOrDefault(finding => finding.Words.Count == 0
                || finding.Words.Any(group => group.Count == 0 || group.Any(string.IsNullOrWhiteSpace))) is { } wrong
                ? throw new FormatException($"Usual finding '{wrong.Key}': each group of words has at least one.")
                : findings;
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The list of usual findings can't be read: {problem.Message}", problem);
        }
    }

    /// <summary>Whether the words speak of it. "No crack" doesn't speak of a crack; "no cotter pin" does of a missing one.</summary>
    public bool Suits(IReadOnlyList<string> words) =>
        Discrepancies.Words.Suit(words, Words) && Not?.Any(other => Discrepancies.Words.Say(words, other)) != true;
}

/// <summary>A guess at the class, with why. A person decides; the guess only goes first.</summary>
/// <param name="Class">The class.</param>
/// <param name="Why">Why, in words.</param>
/// <param name="Finding">The usual finding it rests on; null where it rests on none.</param>
/// <param name="Part">The parts whose fault it rests on, where no usual finding says so much.</param>
public sealed record ClassGuess(DiscrepancyClass Class, string Why, UsualFinding? Finding, PartGroup? Part = null)
{
    /// <summary>What the words speak of; null where they say nothing that a class rests on.</summary>
    public string? Speaks => Finding?.Title ?? (Part is null ? null : $"A fault of the {Part.Title}");

    /// <summary>The question of grounding it now is put.</summary>
    public bool Ground => Finding?.Ground ?? Part?.Ground ?? false;

    /// <summary>What it means, in words.</summary>
    public string Means => Finding?.Means ?? Part?.Means
        ?? "Nothing in the words says that it is less: it is an airworthiness item until a person says so.";

    /// <summary>What to check next.</summary>
    public IReadOnlyList<string> Next => Finding?.Next ?? Part?.Next ?? ["Say what part, what is wrong with it and how much"];

    public RuleSource Source => Finding?.Source ?? Part?.Source ?? Caution;

    private static readonly RuleSource Caution = new(Standing.Practice, "the product’s own caution");

    /// <summary>
    /// Guesses from the words, else from the task. Of usual findings the one with the most groups of words goes first, then the
    /// worse class. A part that keeps the aircraft in the air, named with a fault, is never less than an airworthiness item,
    /// unless the words say that it is small and within limits. Where nothing says otherwise it is an airworthiness item until a
    /// person says less: the cautious way round.
    /// </summary>
    /// <param name="what">What was found, in words.</param>
    /// <param name="task">The task it was found at; null in passing.</param>
    /// <param name="usual">What is usually found.</param>
    /// <param name="meaning">What the words mean.</param>
    /// <param name="zone">Where it was found: it says what part, where the words name none.</param>
    public static ClassGuess Of(string? what, InspectionTask? task, IEnumerable<UsualFinding> usual, Meaning meaning, string? zone = null)
    {
        var words = Words.Plain(what ?? "");
        // What was tested and found to be nothing is no fault of its part; a crack that was tested, or something broken, is.
        var grave = meaning.IsGrave(words);
        var suits = usual.Where(finding => finding.Suits(words) && !(grave && finding.Class == DiscrepancyClass.KnownMark))
            .OrderByDescending(finding => finding.Words.Count).ThenBy(finding => finding.Class).FirstOrDefault();
        var part = meaning.Named(words) ?? (suits is null && zone is not null ? meaning.Named(Words.Plain(zone)) : null);
        if (suits is { Class: DiscrepancyClass.KnownMark })
            return new(suits.Class, suits.Title, suits);
        if (meaning.IsSmallWithinLimits(words))
            return suits is { Class: > DiscrepancyClass.Airworthiness }
                ? new(suits.Class, suits.Title, suits)
                : new(DiscrepancyClass.Watch, "small and within limits, by the words", null, part);
        if (suits is not null && (part is null || suits.Class == DiscrepancyClass.Airworthiness))
            return new(suits.Class, suits.Title, suits);
        if (part is not null && (suits is not null || meaning.TellsOfFault(words)))
            return new(DiscrepancyClass.Airworthiness, $"a fault of the {part.Title}", null, part);
        return task is { SecondPerson: true }
            ? new(DiscrepancyClass.Airworthiness, "the task is an airworthiness item", null)
            : new(DiscrepancyClass.Airworthiness, words.Count == 0 ? "until a person says less" : "nothing in the words says less", null);
    }

    /// <summary>
    /// The guess where a value was measured: its class comes from the judgement and never from the words. What is rejected, or
    /// can't be told yet, is an airworthiness item until it is answered.
    /// </summary>
    public ClassGuess Measured(Judgement judgement) => judgement.Verdict switch
    {
        Verdict.Good => this with { Class = DiscrepancyClass.KnownMark, Why = $"measured and good: {judgement.Rule}" },
        Verdict.Watch => this with { Class = DiscrepancyClass.Watch, Why = judgement.Rule },
        _ => this with { Class = DiscrepancyClass.Airworthiness, Why = judgement.Rule },
    };
}
