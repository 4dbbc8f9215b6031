using System.Globalization;
using System.Text;
using System.Text.Json;

namespace MellowRivet.Core.Bulletins;

/// <summary>
/// A rule as lines that a person reads and types. A line is a condition ("engine.serial in E-1 to E-9", "aircraft.model is
/// Corrin 6; Corrin 8", "engine.hours at least 500", "aircraft.made until 2004-12-31") or opens a group: "all of:", "any of:",
/// "none of:", with its parts on the lines below, further in. The lines at the left edge hold all together.
/// </summary>
public static class RuleText
{
    /// <summary>The most lines taken.</summary>
    public const int MostLines = 600;

    private static readonly string[] Words = [" is ", " in ", " at least ", " below ", " from ", " until "];

    /// <summary>Writes a rule as text.</summary>
    public static string Write(Rule rule)
    {
        var text = new StringBuilder();
        if (rule is All { Parts.Count: not 1 } all)
            foreach (var part in all.Parts)
                Write(text, part, 0);
        else
            Write(text, rule, 0);
        return text.ToString();
    }

    /// <summary>Reads a rule, or says which line can't be read and why. No line at all is a rule that holds for every one.</summary>
    public static (Rule? Rule, string? Fault) Read(string? text)
    {
        var lines = (text ?? "").ReplaceLineEndings("\n").Split('\n')
            .Select((line, index) => new Line(index + 1, line.Replace("\t", "  ").TakeWhile(letter => letter == ' ').Count(), line.Trim()))
            .Where(line => line.Text.Length > 0).ToList();
        if (lines.Count > MostLines)
            return (null, $"{lines.Count} lines; {MostLines} is the most.");
        try
        {
            var at = 0;
            var parts = Block(lines, ref at, lines.Count == 0 ? 0 : lines[0].Indent, 1);
            if (at < lines.Count)
                throw new FormatException($"Line {lines[at].Number} stands further out than the first one.");
            return (parts is [var only] ? only : new All(parts), null);
        }
        catch (FormatException fault)
        {
            return (null, fault.Message);
        }
    }

    private sealed record Line(int Number, int Indent, string Text);

    private static List<Rule> Block(List<Line> lines, ref int at, int indent, int depth)
    {
        List<Rule> parts = [];
        while (at < lines.Count && lines[at].Indent >= indent)
        {
            var line = lines[at];
            if (line.Indent > indent)
                throw new FormatException($"Line {line.Number} is further in than the line before, which opens no group.");
            at++;
            var head = line.Text.TrimEnd(':').ToLowerInvariant();
            if (head is not ("all of" or "any of" or "none of"))
            {
                parts.Add(Condition(line));
                continue;
            }
            if (depth >= Rule.Deepest)
                throw new FormatException($"Line {line.Number}: nested deeper than {Rule.Deepest}.");
            if (at >= lines.Count || lines[at].Indent <= indent)
                throw new FormatException(
                    $"Line {line.Number} opens a group with nothing in it: put its lines below, two spaces further in.");
            var inner = Block(lines, ref at, lines[at].Indent, depth + 1);
            if (at < lines.Count && lines[at].Indent > indent)
                throw new FormatException($"Line {lines[at].Number} lines up with no line above it.");
            Rule Group(bool any) => inner is [var only] ? only : any ? new Any(inner) : new All(inner);
            parts.Add(head switch { "all of" => Group(any: false), "any of" => Group(any: true), _ => new Not(Group(any: true)) });
        }
        return parts;
    }

    private static Condition Condition(Line line)
    {
        var text = $"{line.Text} ";
        var first = Words.Select(word => (word, at: text.IndexOf(word, StringComparison.OrdinalIgnoreCase))).Where(found => found.at > 0)
            .OrderBy(found => found.at).FirstOrDefault();
        if (first.word is null)
            throw new FormatException(
                $"Line {line.Number}, “{line.Text}”: a fact, then is, in, at least, below, from or until, then what is asked.");
        var (fact, asked) = (text[..first.at].Trim(), text[(first.at + first.word.Length)..].Trim());
        if (FactName.Read(fact) is null)
            throw new FormatException(
                $"Line {line.Number}: “{fact}” is no fact. Facts are named like aircraft.model, engine.serial, "
                + $"engine.crankshaft.serial or aircraft.modification.M-1.");
        try
        {
            return new(fact, first.word.Trim().ToLowerInvariant() switch
            {
                "is" => Is(asked),
                "in" => SerialRanges.Read(asked) is { Ranges: { } ranges }
                    ? new IsInSerials(ranges)
                    : throw new FormatException(SerialRanges.Read(asked).Fault),
                "at least" => Halves(asked, "below", "and below") is var (least, below)
                    ? RuleJson.Between(Number(least), below is null ? null : Number(below), "Here")
                    : throw new FormatException(),
                "below" => RuleJson.Between(null, Number(asked), "Here"),
                "from" => Halves(asked, "until", "and until") is var (from, until)
                    ? RuleJson.Dated(Day(from), until is null ? null : Day(until), "Here")
                    : throw new FormatException(),
                _ => RuleJson.Dated(null, Day(asked), "Here"),
            });
        }
        catch (Exception fault) when (fault is FormatException or JsonException)
        {
            throw new FormatException($"Line {line.Number}: {fault.Message}");
        }
    }

    private static IsOneOf Is(string asked)
    {
        var words = asked.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        return words.Length is > 0 and <= 200 && words.All(word => word.Length <= 80)
            ? new(words)
            : throw new FormatException("words are wanted behind is, parted by semicolons, of up to 80 characters each.");
    }

    private static (string First, string? Second) Halves(string asked, params string[] words)
    {
        foreach (var word in words.OrderByDescending(word => word.Length))
            if (asked.IndexOf($" {word} ", StringComparison.OrdinalIgnoreCase) is >= 0 and var at)
                return (asked[..at].Trim(), asked[(at + word.Length + 2)..].Trim());
        return (asked, null);
    }

    private static decimal Number(string text) =>
        decimal.TryParse(text, NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
        ? number : throw new FormatException($"“{text}” is no number.");

    private static DateOnly Day(string text) =>
        DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
        ? day : throw new FormatException($"“{text}” is no day as 2026-01-31.");

    private static void Write(StringBuilder text, Rule rule, int indent)
    {
        var (head, parts) = rule switch
        {
            All all => ("all of:", all.Parts),
            Any any => ("any of:", any.Parts),
            Not { Part: Any inner } => ("none of:", inner.Parts),
            Not not => ("none of:", [not.Part]),
            _ => ((string?)null, (IReadOnlyList<Rule>)[]),
        };
        text.Append(' ', indent * 2);
        if (head is null)
        {
            var condition = (Condition)rule;
            text.Append(condition.Fact).Append(' ')
                .AppendLine(condition.Test is IsOneOf { Words: var words } ? $"is {string.Join("; ", words)}" : condition.Test.InWords);
            return;
        }
        text.AppendLine(head);
        foreach (var part in parts)
            Write(text, part, indent + 1);
    }
}
