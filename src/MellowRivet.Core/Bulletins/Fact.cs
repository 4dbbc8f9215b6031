using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Bulletins;

/// <summary>What is known of one fact of an aircraft. Where several parts have it, such as two engines, each one's value counts.</summary>
/// <param name="Values">The values that are known.</param>
/// <param name="Whole">No other is missing: with no value at all, that the thing isn't there.</param>
public sealed record Fact(IReadOnlyList<string> Values, bool Whole)
{
    /// <summary>For a model: the list that says which names mean it. Null where words are compared as they stand.</summary>
    public ModelNames? Models { get; init; }

    /// <summary>Nobody has said.</summary>
    public static readonly Fact Unknown = new([], false);

    /// <summary>It isn't there on this aircraft.</summary>
    public static readonly Fact NotThere = new([], true);

    public static Fact Known(string value) => new([value], true);

    /// <summary>All of some facts as one.</summary>
    public static Fact Of(IEnumerable<Fact> facts)
    {
        var all = facts.ToList();
        return new([.. all.SelectMany(fact => fact.Values).Distinct()], all.Count > 0 && all.All(fact => fact.Whole))
            { Models = all.Select(fact => fact.Models).FirstOrDefault() };
    }
}

/// <summary>The names of one kind of type, as a shop knows them.</summary>
public sealed record ModelNames(TypeList List, TypeKind Kind)
{
    public RuleAnswer Match(string onFile, IsOneOf named) => List.Match(Kind, onFile, named.Words);
}

/// <summary>Where a rule gets its facts from.</summary>
public interface IFacts
{
    /// <summary>What is known of a fact by its name: "engine.crankshaft.serial". Never null.</summary>
    Fact Of(string name);
}

/// <summary>Facts that somebody gave by name, as the open interface takes them.</summary>
public sealed class GivenFacts(IReadOnlyDictionary<string, string?> given) : IFacts
{
    public Fact Of(string name) => given.TryGetValue(name, out var value) && value is not null ? Fact.Known(value) : Fact.Unknown;
}

/// <summary>The yes and no of a fact.</summary>
public static class YesNo
{
    public const string Yes = "yes";
    public const string No = "no";
}

/// <summary>
/// The name of a fact, taken apart: whose it is, of which part on it and at which place, and what is asked. "engine.serial",
/// "engine.magneto.left.serial", "aircraft.modification.OC-7".
/// </summary>
/// <param name="Whose">"aircraft", or the kind of part: "engine".</param>
/// <param name="Part">The kind of part that sits on it; null for itself.</param>
/// <param name="Position">Where that sits; null for wherever.</param>
/// <param name="Asks">What is asked: one of <see cref="Fields"/>, or a modification or mark by its name.</param>
public sealed record FactName(string Whose, string? Part, string? Position, string Asks)
{
    public const string Aircraft = "aircraft";
    public const string Modification = "modification.";
    public const string Mark = "mark.";

    /// <summary>What can be asked of an aircraft or a part, besides modifications and marks.</summary>
    public static IReadOnlyList<string> Fields { get; } = ["model", "serial", "made", "hours", "category", "certified", "fitted"];

    /// <summary>Takes a name apart; null where it is none.</summary>
    public static FactName? Read(string? name)
    {
        if (name is null || name.Length > 100)
            return null;
        var words = name.Split('.');
        if (words.Length < 2 || words.Any(word => word.Length == 0 || word != word.Trim()
            || !word.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '-' or '_' or '/')))
            return null;
        // A modification's or a mark's own name is the last word.
        var asks = words is [_, .., "modification" or "mark", _] ? $"{words[^2]}.{words[^1]}" : words[^1];
        if (!Fields.Contains(asks) && !asks.StartsWith(Modification, StringComparison.Ordinal)
            && !asks.StartsWith(Mark, StringComparison.Ordinal))
            return null;
        var before = words[..^(asks.Contains('.', StringComparison.Ordinal) ? 2 : 1)];
        return before switch
        {
            [var whose] => new(whose, null, null, asks),
            [var whose, var part] => new(whose, part, null, asks),
            [var whose, var part, var position] => new(whose, part, position, asks),
            _ => null,
        };
    }

    public bool IsYesNo => Asks is "certified" or "fitted" || Asks.StartsWith(Modification, StringComparison.Ordinal)
        || Asks.StartsWith(Mark, StringComparison.Ordinal);

    public bool IsDate => Asks == "made";

    /// <summary>The kind of type that it names, or that the thing has; null for a part that goes by its part number.</summary>
    public TypeKind? TypeKind =>
        (Part ?? Whose) == FactName.Aircraft
            ? Fleet.TypeKind.Aircraft
            : Enum.TryParse<ComponentKind>(Part ?? Whose, ignoreCase: true, out var kind) ? kind.TypeOf() : Fleet.TypeKind.Appliance;

    /// <summary>The name of the same thing's model.</summary>
    public string Model => string.Join('.', new[] { Whose, Part, Position, "model" }.OfType<string>());

    /// <summary>What to read off, in words: "the crankshaft’s serial number".</summary>
    public string InWords
    {
        get
        {
            var what = Asks switch
            {
                "model" => Part is null && Whose == Aircraft ? "the model" : "the model or part number",
                "serial" => "the serial number",
                "made" => "the day of manufacture",
                "hours" => "the hours",
                "category" => "the category",
                "certified" => "whether it is the certified version",
                "fitted" => "whether one is fitted",
                _ when Asks.StartsWith(Modification, StringComparison.Ordinal) =>
                    $"whether modification {Asks[Modification.Length..]} is embodied",
                _ => $"whether it is marked {Asks[Mark.Length..]}",
            };
            var of = Part is null ? Whose
                : $"{Spoken(Part)}{(Position is null ? "" : $" {Position}")}{(Whose == Aircraft ? "" : $" of the {Spoken(Whose)}")}";
            return $"{Spoken(of)}: {what}";
        }
    }

    // "locatorTransmitter" as people say it.
    private static string Spoken(string kind) =>
        string.Concat(kind.Select((letter, index) => index > 0 && char.IsAsciiLetterUpper(letter)
            && char.IsAsciiLetterLower(kind[index - 1]) ? $" {char.ToLowerInvariant(letter)}" : letter.ToString()));
}
