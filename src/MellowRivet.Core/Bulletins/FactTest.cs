using System.Globalization;
using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Bulletins;

/// <summary>What is asked of a fact's value.</summary>
public abstract record FactTest
{
    /// <summary>Whether a value meets it; can't tell where the value is no such thing as the test asks for.</summary>
    public abstract RuleAnswer On(string value);

    /// <summary>The test in words, behind the fact's name: "is A or B".</summary>
    public abstract string InWords { get; }

    /// <summary>What is said of a value that meets it.</summary>
    public abstract string Met { get; }

    /// <summary>What is said of a value that doesn't.</summary>
    public abstract string Unmet { get; }

    /// <summary>What is said of a value that leaves it open.</summary>
    public virtual string Doubt => "can’t be read as what the rule asks for: read it again";

    protected static RuleAnswer Of(bool met) => met ? RuleAnswer.Applies : RuleAnswer.DoesNotApply;
}

/// <summary>One of some words, however they are cased and spaced. Which names mean one model, a shop's type list says.</summary>
public sealed record IsOneOf(IReadOnlyList<string> Words) : FactTest
{
    private readonly string[] keys = [.. Words.Select(word => new ModelName(word).Key)];

    public override RuleAnswer On(string value)
    {
        if (Words.Contains(value, StringComparer.OrdinalIgnoreCase))
            return RuleAnswer.Applies;
        // Most are single words, yes or no, that have no second spelling: a shop asks this more often than anything.
        if (value.All(char.IsAsciiLetter) && Words.All(word => word.All(char.IsAsciiLetter)))
            return RuleAnswer.DoesNotApply;
        var asked = new ModelName(value).Key;
        return Of(asked.Length > 0 && Array.Exists(keys, key => key == asked));
    }

    public override string InWords => $"is {string.Join(" or ", Words)}";
    public override string Met => "is on the list";
    public override string Unmet => $"is not {string.Join(" or ", Words)}";
    public override string Doubt => $"can’t be told from {string.Join(" or ", Words)}: one of the names is on no type list";

    public bool Equals(IsOneOf? other) => other is not null && Words.SequenceEqual(other.Words);

    public override int GetHashCode() => Words.Aggregate(3, HashCode.Combine);
}

/// <summary>A serial number on a list.</summary>
public sealed record IsInSerials(SerialRanges Ranges) : FactTest
{
    public override RuleAnswer On(string value) => SerialNumber.Read(value) is not { } serial
        ? RuleAnswer.CannotTell
        : Ranges.Match(serial) switch
    {
        SerialMatch.In => RuleAnswer.Applies,
        SerialMatch.Doubtful => RuleAnswer.CannotTell,
        _ => RuleAnswer.DoesNotApply,
    };

    public override string InWords => $"in {Ranges.InWords}";
    public override string Met => $"lies in {Ranges.InWords}";
    public override string Unmet => $"lies outside {Ranges.InWords}";
    public override string Doubt => $"may be on the list {Ranges.InWords}, if one of the two leaves a prefix out: read the plate again";

    public bool Equals(IsInSerials? other) => other is not null && Ranges.InWords == other.Ranges.InWords;

    public override int GetHashCode() => Ranges.InWords.GetHashCode(StringComparison.Ordinal);
}

/// <summary>A number within bounds: at least the one, below the other.</summary>
public sealed record IsBetween(decimal? AtLeast, decimal? Below) : FactTest
{
    public override RuleAnswer On(string value) =>
        decimal.TryParse(value, NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture,
            out var number)
        ? Of(!(number < AtLeast) && !(number >= Below))
        : RuleAnswer.CannotTell;

    public override string InWords =>
        string.Join(" and ", new[]
            { AtLeast is { } least ? $"at least {Say(least)}" : null, Below is { } below ? $"below {Say(below)}" : null }.OfType<string>());
    public override string Met => $"is {InWords}";
    public override string Unmet => $"is not {InWords}";

    private static string Say(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}

/// <summary>A day between two, both counted in.</summary>
public sealed record IsDated(DateOnly? From, DateOnly? Until) : FactTest
{
    public override RuleAnswer On(string value) =>
        DateOnly.TryParseExact(value, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
        ? Of(!(day < From) && !(day > Until))
        : RuleAnswer.CannotTell;

    public override string InWords =>
        string.Join(" ", new[] { From is { } from ? $"from {from:yyyy-MM-dd}" : null, Until is { } until
            ? $"until {until:yyyy-MM-dd}"
            : null }.OfType<string>());
    public override string Met => $"is {InWords}";
    public override string Unmet => $"is not {InWords}";
}
