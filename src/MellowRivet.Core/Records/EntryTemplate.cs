using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Records;

/// <summary>How one kind of fact is told.</summary>
/// <param name="Says">The kind of fact.</param>
/// <param name="Full">
/// Its sentence, with places in braces: {kind}, or {Kind} for one that begins with a capital. What stands in brackets falls away
/// where a place in it has no value.
/// </param>
/// <param name="Short">The same in fewer words; null for the same words, empty where the short entry does without it.</param>
public sealed record SentenceRule(FactKind Says, string Full, string? Short = null);

/// <summary>How long the entries are.</summary>
public enum EntryLength { Full = 1, Short }

/// <summary>
/// Order and wording of a logbook entry, as data on the Shelf. A rule pack names the one its entries are written by.
/// </summary>
/// <param name="Key">Its name.</param>
/// <param name="Title">What the interface calls it.</param>
/// <param name="Note">Where the wording comes from.</param>
/// <param name="Sentences">The sentences, in the order of the entry.</param>
public sealed partial record EntryTemplate(string Key, string Title, string Note, IReadOnlyList<SentenceRule> Sentences)
{
    /// <summary>The template of packs that name none.</summary>
    public const string Usual = "usual";

    /// <summary>Said where a place outside brackets has no value: an entry has no gap.</summary>
    public const string NotOnFile = "not on file";

    /// <summary>Reads a template.</summary>
    /// <exception cref="FormatException">
    /// It isn't JSON, names a fact or a place that there isn't, or leaves out what a rule wants in the entry.
    /// </exception>
    public static EntryTemplate Parse(string json)
    {
        try
        {
            var template = JsonSerializer.Deserialize<EntryTemplate>(json, Worksheet.Json)
                ?? throw new FormatException("The template is empty.");
            return template.Fault() is { } fault ? throw new FormatException($"Entry template '{template.Key}': {fault}") : template;
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The entry template can't be read: {problem.Message}", problem);
        }
    }

    /// <summary>
    /// The same, with the sentences it has none for from another, each after the one that stands before it there: what a later release
    /// can tell is told in a shop's own template too.
    /// </summary>
    public EntryTemplate FilledFrom(EntryTemplate other)
    {
        var all = Sentences.ToList();
        foreach (var (index, rule) in other.Sentences.Index().Where(one => all.All(own => own.Says != one.Item.Says)).ToList())
            all.Insert(index == 0 ? 0 : all.FindIndex(own => own.Says == other.Sentences[index - 1].Says) + 1, rule);
        return this with { Sentences = all };
    }

    /// <summary>What a fact says in an entry of one length; empty where that length does without it.</summary>
    public string Tell(EntryFact fact, EntryLength length)
    {
        var rule = Sentences.Single(rule => rule.Says == fact.Kind);
        return Fill(length == EntryLength.Short ? rule.Short ?? rule.Full : rule.Full, fact.Values);
    }

    /// <summary>Where the sentences of a kind stand in the entry.</summary>
    public int PlaceOf(FactKind kind) => Sentences.Index().First(rule => rule.Item.Says == kind).Index;

    private string? Fault()
    {
        if (Sentences.GroupBy(rule => rule.Says).FirstOrDefault(group => group.Count() > 1) is { } twice)
            return $"'{twice.Key}' is told twice.";
        foreach (var rule in Sentences)
        {
            var about = Facts.All[rule.Says];
            if (rule.Full.Length == 0 || (rule.Short is "" && about.Wanted is not null))
                return $"'{rule.Says}' can't be left out: {about.Wanted?.Text ?? "a full entry has every sentence"}.";
            foreach (var words in new[] { rule.Full, rule.Short ?? "" })
            {
                if (Places().Replace(Bracketed().Replace(words, match => match.Value[1..^1]), "").IndexOfAny(['[', ']', '{', '}']) >= 0)
                    return $"'{rule.Says}': brackets and braces come in pairs, and brackets not in one another.";
                if (Places().Matches(words).Select(match => match.Groups[1].Value)
                    .FirstOrDefault(place => !about.Places.Contains(Small(place))) is { } unknown)
                    return $"'{rule.Says}' has no place '{unknown}'; it has {string.Join(", ", about.Places)}.";
            }
        }
        return null;
    }

    // Values are put in once and not read again: what a person typed with a bracket stays as typed.
    private static string Fill(string words, IReadOnlyDictionary<string, string> values)
    {
        var told = new StringBuilder();
        foreach (Match part in Parts().Matches(words))
            if (!part.Value.StartsWith('['))
                Put(told, part.Value, values);
            else if (Places().Matches(part.Value).All(place => values.ContainsKey(Small(place.Groups[1].Value))))
                foreach (Match inner in Parts().Matches(part.Value[1..^1]))
                    Put(told, inner.Value, values);
        return told.ToString().Trim();
    }

    private static void Put(StringBuilder told, string part, IReadOnlyDictionary<string, string> values)
    {
        if (Places().Match(part) is { Success: true } place)
        {
            var name = place.Groups[1].Value;
            var value = values.GetValueOrDefault(Small(name)) ?? NotOnFile;
            told.Append(char.IsUpper(name[0]) ? char.ToUpperInvariant(value[0]) + value[1..] : value);
            return;
        }
        var last = told.Length > 0 ? told[^1] : '\0';
        // What was typed may bring its own full stop; what begins a list has no comma before it.
        if (part[0] == '.' && last is '.' or '!' or '?')
            part = part[1..];
        else if (part[0] is ',' or ';' && last is ':' or '\0')
            part = part[1..];
        told.Append(part);
    }

    private static string Small(string name) => char.ToLowerInvariant(name[0]) + name[1..];

    [GeneratedRegex(@"\{([A-Za-z-]+)\}")]
    private static partial Regex Places();

    [GeneratedRegex(@"\[[^\[\]]*\]")]
    private static partial Regex Bracketed();

    [GeneratedRegex(@"\[[^\[\]]*\]|\{[^{}]*\}|[^\[\]{}]+")]
    private static partial Regex Parts();
}
