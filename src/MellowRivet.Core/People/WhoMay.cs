using System.Text.Json;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.People;

/// <summary>Who may do a job, from the least to the most qualified.</summary>
public enum MayDo { Owner = 1, Supervised, Mechanic, RepairStation, Inspector }

/// <summary>One item of preventive maintenance.</summary>
/// <param name="Paragraph">Its paragraph in 43 Appendix A(c).</param>
/// <param name="Words">Our own short wording.</param>
/// <param name="Asks">Groups of word stems; a job that has one of each group is this item.</param>
/// <param name="Not">Word stems that make it something else.</param>
/// <param name="Note">What else goes with it; null for most.</param>
public sealed record PreventiveItem(int Paragraph, string Words, IReadOnlyList<IReadOnlyList<string>> Asks, IReadOnlyList<string> Not,
    string? Note = null);

/// <summary>A job that is known to be beyond preventive maintenance.</summary>
/// <param name="Words">The job.</param>
/// <param name="Who">Who it takes.</param>
/// <param name="Asks">As for an item.</param>
/// <param name="Source">The rule.</param>
/// <param name="Why">What else to know; may be empty.</param>
/// <param name="Not">Word stems that make it something else; null for none.</param>
public sealed record BeyondItem(string Words, MayDo Who, IReadOnlyList<IReadOnlyList<string>> Asks, RuleSource Source, string Why,
    IReadOnlyList<string>? Not = null);

/// <summary>Who may do a job, and why.</summary>
/// <param name="Who">The least that it takes.</param>
/// <param name="Listed">Items of the list that the job is.</param>
/// <param name="Beyond">Jobs beyond the list that it is.</param>
/// <param name="Near">Items of the list about the same thing.</param>
/// <param name="Before">What the category of aircraft changes; null where the general rule holds.</param>
/// <param name="Words">The answer.</param>
public sealed record WhoMayAnswer(MayDo Who, IReadOnlyList<PreventiveItem> Listed, IReadOnlyList<BeyondItem> Beyond,
    IReadOnlyList<PreventiveItem> Near, string? Before, string Words);

/// <summary>One authority's answer to "who may do this?", as data on the shelf.</summary>
/// <param name="Key">Its name on the shelf.</param>
/// <param name="Title">What is shown.</param>
/// <param name="Note">What the list is and from where.</param>
/// <param name="Unlisted">What holds for a job that isn't on it.</param>
/// <param name="Experimental">What an experimental changes.</param>
/// <param name="LightSport">What a special light-sport changes.</param>
/// <param name="Permit">What another authority's scheme changes.</param>
/// <param name="Items">The list.</param>
/// <param name="Beyond">Jobs that are often asked for and aren't on it.</param>
public sealed record WhoMay(
    string Key, string Title, string Note, string Unlisted, string Experimental, string LightSport, string Permit,
    IReadOnlyList<PreventiveItem> Items, IReadOnlyList<BeyondItem> Beyond)
{
    /// <summary>Longest job taken, in characters.</summary>
    public const int LongestJob = 300;

    // What English puts behind a stem. "spar" is in "spars", and not in "spark".
    private static readonly HashSet<string> Endings =
    [
        "", "e", "es", "s", "ed", "d", "ing", "ings", "er", "ers", "or", "ors", "y", "ies", "al", "ion", "ions", "ation",
        "ations", "ication", "ative", "ive", "ish", "ishing", "ic", "ics", "ical", "ment", "tor", "tors", "ling", "ted", "ting",
        "tings", "ned", "ning", "ped", "ping", "ged", "ging", "bed", "ator", "ators", "ate", "ated", "ating", "ant",
        "ly", "age",
    ];

    // A word as people bend it: wire, wires, wired, wiring.
    private static bool IsFormOf(string word, string stem) =>
        word.StartsWith(stem, StringComparison.Ordinal) && Endings.Contains(word[stem.Length..]);

    /// <exception cref="FormatException">It isn't JSON, or a field is missing, unknown or of the wrong kind.</exception>
    public static WhoMay Parse(string json)
    {
        try
        {
            return JsonSerializer.Deserialize<WhoMay>(json, Worksheet.Json)
                ?? throw new FormatException("The list of who may do what is empty.");
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The list of who may do what can't be read: {problem.Message}", problem);
        }
    }

    /// <summary>Looks a job up by its words.</summary>
    /// <param name="job">The job as a person would say it.</param>
    /// <param name="category">The category of the aircraft; null where it doesn't matter.</param>
    public WhoMayAnswer Ask(string job, Category? category)
    {
        var words = job.ToLowerInvariant()
            .Split([' ', ',', ';', ':', '.', '(', ')', '/', '-', '“', '”'], StringSplitOptions.RemoveEmptyEntries);
        bool Has(string stem) => words.Any(word => IsFormOf(word, stem));
        int Met(IReadOnlyList<IReadOnlyList<string>> asks) => asks.Count(group => group.Any(Has));

        var beyond = Beyond.Where(item => Met(item.Asks) == item.Asks.Count && item.Not?.Any(Has) != true)
            .OrderByDescending(item => item.Asks.Count).ToList();
        var listed = Items.Where(item => Met(item.Asks) == item.Asks.Count && !item.Not.Any(Has)).OrderByDescending(item => item.Asks.Count)
            .ToList();
        var near = Items.Where(item => !listed.Contains(item) && item.Asks[0].Any(Has))
            .OrderByDescending(item => (double)Met(item.Asks) / item.Asks.Count).ThenBy(item => item.Paragraph).Take(5).ToList();
        var before = category switch
        {
            Category.ExperimentalAmateurBuilt or Category.ExperimentalLightSport => Experimental,
            Category.SpecialLightSport => LightSport,
            Category.Permit or Category.Other => Permit,
            _ => null,
        };
        // What is known to be beyond the list is never taken for listed: the cautious way round.
        if (beyond.Count > 0)
        {
            var worst = beyond.MaxBy(item => item.Who)!;
            return new(worst.Who, listed, beyond, near, before,
                $"{worst.Words}: {worst.Who.InWords()}.{(worst.Why.Length > 0 ? " " + worst.Why : "")}"
                + $"{(worst.Who == MayDo.Mechanic ? " The owner may do it under the mechanic’s supervision." : "")}");
        }
        return listed.Count > 0
            ? new(MayDo.Owner, listed, beyond, near, before,
                $"The owner may, as preventive maintenance: "
                + $"{string.Join("; ",
                    listed.Select(item => $"(c)({item.Paragraph}) {item.Words.ToLowerInvariant()}{(item.Note is { } note
                        ? $", {note}"
                        : "")}"))}.")
            : new(MayDo.Supervised, listed, beyond, near, before, Unlisted);
    }
}

public static class WhoMayWords
{
    public static string InWords(this MayDo who) => who switch
    {
        MayDo.Owner => "the owner may, as preventive maintenance",
        MayDo.Supervised => "the owner under supervision of a mechanic",
        MayDo.Mechanic => "a mechanic",
        MayDo.RepairStation => "a repair station, or who is rated for it",
        _ => "a mechanic with inspection authorization",
    };
}
