using System.Text.Json;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What is never deferred, because it is no instrument or equipment. It lives on the shelf as a JSON file.</summary>
/// <param name="Key">Its name on the shelf.</param>
/// <param name="Title">What it is.</param>
/// <param name="Words">As for a usual finding: one of each group has to be there.</param>
/// <param name="Means">Why it isn't deferred.</param>
/// <param name="Source">The rule.</param>
/// <param name="Not">Words that make it something else: a gauge of the engine is no engine.</param>
public sealed record NeverDeferred(string Key, string Title, IReadOnlyList<IReadOnlyList<string>> Words, string Means, RuleSource Source,
    IReadOnlyList<string>? Not = null)
{
    /// <summary>Reads the shelf's list.</summary>
    /// <exception cref="FormatException">It isn't JSON, or a field is missing, unknown or empty.</exception>
    public static IReadOnlyList<NeverDeferred> Parse(string json)
    {
        try
        {
            var list = JsonSerializer.Deserialize<List<NeverDeferred>>(json, Worksheet.Json)
                ?? throw new FormatException("The list of what is never deferred is empty.");
            return list.FirstOrDefault(never => never.Words.Count == 0
                || never.Words.Any(group => group.Count == 0 || group.Any(string.IsNullOrWhiteSpace))) is { } wrong
                ? throw new FormatException($"Never deferred '{wrong.Key}': each group of words has at least one.")
                : list;
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The list of what is never deferred can't be read: {problem.Message}", problem);
        }
    }

    public bool Suits(IReadOnlyList<string> words) =>
        Discrepancies.Words.Suit(words, Words) && Not?.Any(other => Discrepancies.Words.Say(words, other)) != true;

    public string InWords => $"{Title}: {Means} ({Source.Text})";
}

/// <summary>A class as somebody sets it, and by what right.</summary>
/// <param name="Class">The class.</param>
/// <param name="Grounded">Safety of flight now.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
/// <param name="Why">Why it is less than the judgement or the words say; null where it isn't.</param>
/// <param name="Reference">By which data.</param>
/// <param name="Signs">The certificate by which they may sign this inspection; null where they may not.</param>
public sealed record Classing(DiscrepancyClass Class, bool Grounded, Guid By, DateTimeOffset At, string? Why = null,
    string? Reference = null, Certificate? Signs = null);

/// <summary>What a class may be set to, and what may be deferred. The one place where that is decided.</summary>
/// <param name="Usual">What is usually found and what it means.</param>
/// <param name="Never">What is never deferred.</param>
/// <param name="Meaning">What the words of a finding mean.</param>
public sealed record ClassRules(IReadOnlyList<UsualFinding> Usual, IReadOnlyList<NeverDeferred> Never, Meaning Meaning)
{
    /// <summary>Guesses at the class. What is never deferred isn't guessed to be deferrable.</summary>
    public ClassGuess Guess(string? what, InspectionTask? task, string? zone = null)
    {
        var guess = ClassGuess.Of(what, task, Usual, Meaning, zone);
        return guess.Class == DiscrepancyClass.Deferrable && MayDefer(what ?? "") is { } never
            ? new(DiscrepancyClass.Airworthiness, never.Message, null)
            : guess;
    }

    /// <summary>Why something of these words isn't deferred; null where it may be.</summary>
    public Refusal? MayDefer(string what)
    {
        var words = Words.Plain(what);
        // The one that says most goes first: an exhaust that leaks is more than a leak.
        return Never.Where(never => never.Suits(words)).MaxBy(never => never.Words.Count) is { } never
            ? new("class", $"Not deferrable. {never.InWords}")
            : null;
    }

    /// <summary>Decides on a class.</summary>
    /// <param name="what">What was found.</param>
    /// <param name="task">The task it was found at; null in passing.</param>
    /// <param name="origin">The judgement it was born from; null for none.</param>
    /// <param name="now">The class it has; null where it is just found.</param>
    /// <param name="to">What it is set to.</param>
    /// <returns>What has to be kept of it, or why it can't be; both null where it simply is.</returns>
    public (Lowered? Lowered, Refusal? Refusal) Decide(string what, InspectionTask? task, Origin? origin, DiscrepancyClass? now,
        Classing to)
    {
        if (!Enum.IsDefined(to.Class))
            return (null, new("class", "Choose what it means for the aircraft."));
        if (to.Class == DiscrepancyClass.Deferrable && MayDefer(what) is { } never)
            return (null, never);
        if (to.Class == now || to.Class == DiscrepancyClass.Airworthiness)
            return (null, null);
        if (origin is not null)
            return Below(origin, to);
        // What somebody called an airworthiness item isn't made less without a word either.
        var stood = now == DiscrepancyClass.Airworthiness;
        var guess = Guess(what, task);
        if (!stood && (guess.Speaks is null || to.Class <= guess.Class))
            return (null, null);
        var suggests = guess.Speaks is { } speaks && guess.Class < to.Class
            ? $"The words speak of “{speaks}”, usually {guess.Class.InWords()}"
            : "It stands as an airworthiness item";
        return TooShort(to.Why)
            ? (null, new("why", $"{suggests}: say why it is only {to.Class.InWords()}, in up to {Discrepancy.LongestWhere} characters."))
            : (new(stood ? DiscrepancyClass.Airworthiness : guess.Class, to.Class, to.Why!.Trim(), to.Reference?.Trim()
                ?? "", "", to.By, to.At), null);
    }

    private static (Lowered?, Refusal?) Below(Origin origin, Classing to)
    {
        if (origin.IsFixed)
            return (null, new("class",
                $"{origin.InWords}. That is by {origin.Source.StandingInWords} ({origin.Source.Text}): an airworthiness item, and "
                + $"nobody makes it less. Put it right, and read it again."));
        if (to.Signs is null)
            return (null, new("class",
                $"{origin.InWords}. Only somebody who may sign this inspection sets that lower than airworthiness."));
        if (TooShort(to.Why) || TooShort(to.Reference) || to.Reference!.Trim().Length > Correction.LongestReference)
            return (null, new("why",
                $"{origin.InWords}. To set it lower takes the reason, in up to {Discrepancy.LongestWhere} characters, and the "
                + $"reference: manual, chapter, revision."));
        return (new(DiscrepancyClass.Airworthiness, to.Class, to.Why!.Trim(), to.Reference.Trim(),
            $"{to.Signs.Kind.InWords()}, {to.Signs.Number}", to.By, to.At), null);
    }

    private static bool TooShort(string? words) => string.IsNullOrWhiteSpace(words) || words.Trim().Length > Discrepancy.LongestWhere;
}
