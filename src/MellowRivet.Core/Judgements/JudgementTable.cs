using System.Globalization;
using System.Text.RegularExpressions;

namespace MellowRivet.Core.Judgements;

/// <summary>How one number stands to another.</summary>
public enum Than { Below = 1, AtMost, Above, AtLeast }

/// <summary>A condition on two numbers, by their names; where either isn't there it doesn't hold.</summary>
public sealed record JudgementTest(string Left, Than Than, string Right)
{
    internal bool Holds(IReadOnlyDictionary<string, double> numbers) =>
        numbers.TryGetValue(Left, out var left) && numbers.TryGetValue(Right, out var right) && Than switch
        {
            Than.Below => left < right,
            Than.AtMost => left <= right,
            Than.Above => left > right,
            _ => left >= right,
        };
}

/// <summary>
/// How a number is made of others. The first three want all of theirs; the least and the greatest are those of what is there, and
/// else takes the first that is. Along reads a line between points, and gives nothing outside them.
/// </summary>
public enum Making { Sum = 1, Less, Apart, Least, Most, Else, Along }

/// <summary>A number made of others.</summary>
/// <param name="Name">What rows and words call it.</param>
/// <param name="How">How it is made.</param>
/// <param name="Of">Of what, by name.</param>
/// <param name="Digits">Decimals that it is rounded to, the even one where it lies between; null as it comes.</param>
/// <param name="Points">For a line: x and y of each point, rising in x; empty for the others.</param>
public sealed record Made(string Name, Making How, IReadOnlyList<string> Of, int? Digits = null,
    IReadOnlyList<IReadOnlyList<double>>? Points = null)
{
    internal double? From(IReadOnlyDictionary<string, double> numbers)
    {
        var there = Of.Where(numbers.ContainsKey).Select(name => numbers[name]).ToList();
        if (there.Count == 0 || (there.Count < Of.Count && How is not (Making.Least or Making.Most or Making.Else)))
            return null;
        var made = How switch
        {
            Making.Sum => there.Sum(),
            Making.Less => there[0] - there[1],
            Making.Apart => Math.Abs(there[0] - there[1]),
            Making.Least => there.Min(),
            Making.Most => there.Max(),
            Making.Along => Along(there[0]),
            _ => there[0],
        };
        return made is { } full && Digits is { } digits ? Math.Round(full, digits) : made;
    }

    private double? Along(double x)
    {
        for (var point = 1; point < Points!.Count; point++)
        {
            var (from, to) = (Points[point - 1], Points[point]);
            if (x >= from[0] && x <= to[0])
                return from[1] + (to[1] - from[1]) * (x - from[0]) / (to[0] - from[0]);
        }
        return null;
    }
}

/// <summary>
/// A row: where all its conditions hold, this is the judgement. Its words may name a number, with how it is written: "{margin:0.#}".
/// </summary>
/// <param name="When">Its conditions; none holds always.</param>
/// <param name="Verdict">What the values come to.</param>
/// <param name="Rule">The rule in words.</param>
/// <param name="Source">Where the rule comes from.</param>
/// <param name="Margin">The number that is the distance to the limit; null where there is none.</param>
/// <param name="Next">What to do, in words.</param>
public sealed record JudgementRow(IReadOnlyList<JudgementTest> When, Verdict Verdict, string Rule, RuleSource Source, string? Margin,
    string Next);

/// <summary>Something that has to be there before anything is judged.</summary>
/// <param name="Number">The number.</param>
/// <param name="Field">The field that it is missing from.</param>
/// <param name="Words">What is said there.</param>
public sealed record JudgementWant(string Number, string Field, string Words);

/// <summary>
/// What values are judged by, laid out as data: numbers that are given, numbers that are made of what was read, and rows of which
/// the first that fits has the judgement. The shop judges by it, and so does a device that can't reach the shop.
/// </summary>
/// <param name="Given">Limits and other numbers that stand, by name.</param>
/// <param name="Makes">Numbers made of these and of what was read, in the order they are made in.</param>
/// <param name="Rows">The rows, in the order they are tried in; the last one always holds.</param>
public sealed partial record JudgementTable(IReadOnlyDictionary<string, double> Given, IReadOnlyList<Made> Makes,
    IReadOnlyList<JudgementRow> Rows)
{
    /// <summary>What a table of one number calls it.</summary>
    public const string Value = "value";

    /// <summary>What has to be there, in the order it is asked for.</summary>
    public IReadOnlyList<JudgementWant> Wants { get; init; } = [];

    /// <summary>A table that says the same whatever was read.</summary>
    public static JudgementTable Always(Judgement judgement) => new(new Dictionary<string, double>(), [],
        [new([], judgement.Verdict, judgement.Rule, judgement.Source, null, judgement.Next)]);

    /// <summary>Judges one value.</summary>
    public Judgement Of(double value) => Of((Value, value)).Judgement!;

    /// <summary>Judges what was read, by name; or says what has to be there first.</summary>
    public (Judgement? Judgement, Refusal? Wanted) Of(params (string Name, double? Value)[] read)
    {
        var numbers = Numbers(read);
        if (Wants.FirstOrDefault(want => !numbers.ContainsKey(want.Number)) is { } wanted)
            return (null, new(wanted.Field, Filled(wanted.Words, numbers)));
        var row = Rows.First(row => row.When.All(test => test.Holds(numbers)));
        return (new(row.Verdict, Filled(row.Rule, numbers), row.Source with { Text = Filled(row.Source.Text, numbers) },
            row.Margin is { } margin ? numbers[margin] : null, Filled(row.Next, numbers)), null);
    }

    /// <summary>Words with the numbers that they name: given, read, and made of these.</summary>
    public string Filled(string words, params (string Name, double? Value)[] read) => Filled(words, Numbers(read));

    private Dictionary<string, double> Numbers(IEnumerable<(string Name, double? Value)> read)
    {
        var numbers = new Dictionary<string, double>(Given);
        foreach (var (name, value) in read)
            if (value is { } number)
                numbers[name] = number;
        foreach (var made in Makes)
            if (made.From(numbers) is { } number)
                numbers[made.Name] = number;
        return numbers;
    }

    /// <summary>Words with the numbers that they name.</summary>
    internal static string Filled(string words, Dictionary<string, double> numbers) => words.Contains('{')
        ? Named().Replace(words, name => numbers.TryGetValue(name.Groups[1].Value, out var number)
            ? number.ToString(name.Groups[2].Value, CultureInfo.InvariantCulture)
            : name.Value)
        : words;

    [GeneratedRegex(@"\{([a-z]+):([0#.]+)\}", RegexOptions.CultureInvariant)]
    private static partial Regex Named();
}
