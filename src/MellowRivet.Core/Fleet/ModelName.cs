using System.Text;

namespace MellowRivet.Core.Fleet;

/// <summary>How two names of models stand to each other.</summary>
public enum NameMatch { Other = 1, Near, Same }

/// <summary>
/// A model's name, taken apart into words and figures. Case and what stands between words don't tell two models
/// apart; a figure does, and so does a letter that stands alone. What is mistyped by a letter, left out or turned round is near:
/// a question, never an answer.
/// </summary>
public sealed class ModelName
{
    /// <summary>A word of this many letters may be off by one, of twice as many by two.</summary>
    private const int LettersForATypo = 4;

    /// <summary>Longer ones are compared for sameness alone: a name is no essay, and edits are counted letter by letter.</summary>
    private const int LongestNear = 120;

    private static readonly Dictionary<string, string> Spoken = new()
    {
        ["i"] = "1", ["ii"] = "2", ["iii"] = "3", ["iv"] = "4", ["v"] = "5", ["vi"] = "6", ["vii"] = "7", ["viii"] = "8", ["ix"] = "9",
        ["x"] = "10",
        ["one"] = "1", ["two"] = "2", ["three"] = "3", ["four"] = "4", ["five"] = "5", ["six"] = "6", ["seven"] = "7", ["eight"] = "8",
        ["nine"] = "9", ["ten"] = "10",
    };

    private readonly List<string> parts = [];

    public ModelName(string text)
    {
        var part = new StringBuilder();
        void End()
        {
            if (part.Length > 0)
                parts.Add(part.ToString());
            part.Clear();
        }
        foreach (var letter in text)
        {
            if (!char.IsLetterOrDigit(letter))
            {
                End();
                continue;
            }
            if (part.Length > 0 && char.IsDigit(part[^1]) != char.IsDigit(letter))
                End();
            part.Append(char.ToLowerInvariant(letter));
        }
        End();
        Key = Join(parts);
    }

    /// <summary>
    /// The same for every spelling of the same name: "tf4-160" for TF4-160, TF4 160 and tf 4/160. Between two
    /// figures what parts them counts.
    /// </summary>
    public string Key { get; }

    public static NameMatch Compare(string one, string other) => new ModelName(one).Compare(new ModelName(other));

    public NameMatch Compare(ModelName other) =>
        Key == other.Key ? NameMatch.Same : Key.Length is > 0 and <= LongestNear && other.Key.Length is > 0 and <= LongestNear
            && IsNear(other) ? NameMatch.Near : NameMatch.Other;

    private bool IsNear(ModelName other) =>
        // Run together, or an O for a nought.
        Flat(parts) == Flat(other.parts)
        || Join([.. parts.Select(Figure)]) == Join([.. other.parts.Select(Figure)])
        || IsLeftOut(parts, other.parts) || IsLeftOut(other.parts, parts)
        || (parts.Count == other.parts.Count && parts.Zip(other.parts).All(pair => MayBe(pair.First, pair.Second)))
        // Figures of a name that were turned round, doubled or lost on the way: the words have to be the same.
        || (parts.Count == other.parts.Count && parts.Zip(other.parts).Where(pair => pair.First != pair.Second).ToList() is [var only]
            && IsSlipOfFigures(only.First, only.Second))
        || IsTypo(Flat(parts), Flat(other.parts));

    private static string Join(IReadOnlyList<string> parts)
    {
        var key = new StringBuilder();
        foreach (var part in parts)
        {
            if (key.Length > 0 && char.IsDigit(key[^1]) && char.IsDigit(part[0]))
                key.Append('-');
            key.Append(part);
        }
        return key.ToString();
    }

    private static string Flat(IEnumerable<string> parts) => string.Concat(parts).Replace('o', '0').Replace('l', '1').Replace('i', '1');

    private static string Figure(string part) => Spoken.GetValueOrDefault(part, part);

    // One is the other with up to two words or figures left out; what is left has to name something.
    private static bool IsLeftOut(List<string> shorter, List<string> longer)
    {
        if (shorter.Count >= longer.Count || longer.Count - shorter.Count > 2
            || !shorter.Any(part => part.Length > 1 && char.IsLetter(part[0])))
            return false;
        var at = 0;
        foreach (var part in longer)
            if (at < shorter.Count && MayBe(Figure(shorter[at]), Figure(part)))
                at++;
        return at == shorter.Count;
    }

    // A long word with a letter wrong is the same word; figures and short ones are what models are told apart by.
    private static bool MayBe(string one, string other) => one == other
        || (char.IsLetter(one[0]) && char.IsLetter(other[0])
            && Distance(one, other) <= Math.Max(one.Length, other.Length) / LettersForATypo);

    private static bool IsSlipOfFigures(string one, string other) =>
        char.IsDigit(one[0]) && char.IsDigit(other[0]) && one.Length + other.Length > 4
        && (one.Length != other.Length ? Distance(one, other) == 1 : one.Order().SequenceEqual(other.Order()));

    // Words that were parted or drawn together with a letter wrong; the figures are the same.
    private static bool IsTypo(string one, string other) => one.Where(char.IsDigit).SequenceEqual(other.Where(char.IsDigit))
        && Math.Min(one.Count(char.IsLetter), other.Count(char.IsLetter)) >= 2 * LettersForATypo && Distance(one, other) <= 1;

    // Edits between two words: a letter put in, left out, changed, or two beside each other turned round
    // (Damerau, optimal string alignment).
    private static int Distance(string one, string other)
    {
        var edits = new int[one.Length + 1, other.Length + 1];
        for (var row = 0; row <= one.Length; row++)
            for (var column = 0; column <= other.Length; column++)
            {
                if (row == 0 || column == 0)
                {
                    edits[row, column] = row + column;
                    continue;
                }
                var changed = edits[row - 1, column - 1] + (one[row - 1] == other[column - 1] ? 0 : 1);
                edits[row, column] = Math.Min(changed, Math.Min(edits[row - 1, column], edits[row, column - 1]) + 1);
                if (row > 1 && column > 1 && one[row - 1] == other[column - 2] && one[row - 2] == other[column - 1])
                    edits[row, column] = Math.Min(edits[row, column], edits[row - 2, column - 2] + 1);
            }
        return edits[one.Length, other.Length];
    }
}
