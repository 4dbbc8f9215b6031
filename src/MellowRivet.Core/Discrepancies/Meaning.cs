using System.Text.Json;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Discrepancies;

/// <summary>Parts that keep an aircraft in one piece, in the air or in hand: named with a fault they are an airworthiness item.</summary>
/// <param name="Key">Its name on the shelf.</param>
/// <param name="Title">What they are.</param>
/// <param name="Ground">Whether the question of grounding it now is put.</param>
/// <param name="Words">What such parts are called: whole words, "*" for whatever begins so.</param>
/// <param name="Means">What a fault there means, in words.</param>
/// <param name="Next">What to check next.</param>
/// <param name="Source">Where that comes from.</param>
public sealed record PartGroup(string Key, string Title, bool Ground, IReadOnlyList<string> Words, string Means, IReadOnlyList<string> Next,
    RuleSource Source);

/// <summary>
/// What the words of a finding mean: which part, what fault, how much. It lives on the shelf as a JSON file. Phrases are read
/// from left to right, the longest first, so that a wheel fairing is no wheel and a pushrod tube no pushrod.
/// </summary>
/// <param name="Groups">Parts that a fault makes an airworthiness item.</param>
/// <param name="Aside">Phrases that hold the name of such a part and are something else.</param>
/// <param name="Faults">What is wrong with a part.</param>
/// <param name="Small">Words for little.</param>
/// <param name="Within">Words for within limits.</param>
/// <param name="Grave">Faults, and words, that no limit makes small.</param>
public sealed record Meaning(
    IReadOnlyList<PartGroup> Groups, IReadOnlyList<string> Aside, IReadOnlyList<string> Faults, IReadOnlyList<string> Small,
    IReadOnlyList<string> Within, IReadOnlyList<string> Grave)
{
    public static readonly Meaning None = new([], [], [], [], [], []);

    // By the first letter, the longest first; taken apart once, since a finding is read with every letter that is typed.
    private readonly ILookup<char, (string[] Words, PartGroup? Group)> parts =
        Groups.SelectMany(group => group.Words.Select(words => (Words: words.Split(' '), Group: (PartGroup?)group)))
        .Concat(Aside.Select(words => (Words: words.Split(' '), Group: (PartGroup?)null))).OrderByDescending(part => part.Words.Length)
        .ToLookup(part => part.Words[0][0]);

    private readonly string[][] faults = Apart(Faults), small = Apart(Small), within = Apart(Within), grave = Apart(Grave);

    /// <summary>Reads a shelf file of parts.</summary>
    /// <exception cref="FormatException">It isn't JSON, or a field is missing, unknown or empty.</exception>
    public static Meaning Parse(string json)
    {
        try
        {
            var meaning = JsonSerializer.Deserialize<Meaning>(json, Worksheet.Json)
                ?? throw new FormatException("The list of parts is empty.");
            return meaning.Groups.FirstOrDefault(group => group.Words.Count == 0 || group.Words.Any(string.IsNullOrWhiteSpace)) is { } wrong
                ? throw new FormatException($"Parts '{wrong.Key}': they are called something.") : meaning;
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The list of parts can't be read: {problem.Message}", problem);
        }
    }

    /// <summary>The group of the first such part that the words name; null where they name none.</summary>
    public PartGroup? Named(IReadOnlyList<string> words)
    {
        for (var at = 0; at < words.Count;)
        {
            var (phrase, group) = parts[words[at][0]].FirstOrDefault(part => Begins(words, at, part.Words));
            if (group is not null)
                return group;
            at += phrase?.Length ?? 1;
        }
        return null;
    }

    /// <summary>Whether the words say that something is wrong.</summary>
    public bool TellsOfFault(IReadOnlyList<string> words) => Where(words, faults).Any();

    /// <summary>Whether the words say something that no limit and no test makes small.</summary>
    public bool IsGrave(IReadOnlyList<string> words) => Where(words, grave).Any();

    /// <summary>
    /// Whether the words say of a fault that it is small, that it is within limits, and nothing that no limit makes small.
    /// </summary>
    public bool IsSmallWithinLimits(IReadOnlyList<string> words) => Where(words, within).Any() && !IsGrave(words)
        // "Light play" is little of it; a "map light" is a lamp, and one beside a bellcrank that chafes says nothing of how much.
        && Where(words, small).Any(little => Where(words, faults)
            .Any(fault => fault - little is 1 or 2 && (fault - little == 1 || Named([words[little + 1]]) is null)));

    private static string[][] Apart(IEnumerable<string> phrases) => [.. phrases.Select(phrase => phrase.Split(' '))];

    private static IEnumerable<int> Where(IReadOnlyList<string> words, string[][] phrases) =>
        phrases.SelectMany(sought => Enumerable.Range(0, words.Count)
            .Where(at => Begins(words, at, sought) && !Words.IsNegated(words, at)));

    private static bool Begins(IReadOnlyList<string> words, int at, string[] phrase)
    {
        if (at + phrase.Length > words.Count)
            return false;
        for (var part = 0; part < phrase.Length; part++)
            if (!Is(words[at + part], phrase[part]))
                return false;
        return true;
    }

    // "rib" is rib and ribs and no ribbon; "hinge*" is whatever begins so.
    private static bool Is(string word, string sought) =>
        sought[^1] == '*' ? word.StartsWith(sought.AsSpan(0, sought.Length - 1), StringComparison.Ordinal)
        : word == sought
        || (word.Length - sought.Length is 1 or 2 && word.StartsWith(sought, StringComparison.Ordinal)
            && word[sought.Length..] is "s" or "es");
}
