using System.Text.RegularExpressions;

namespace MellowRivet.Core.People;

/// <summary>
/// What a password may not be. After NIST SP 800-63B, 5.1.1.2 (from memory): long enough, and not among those that are tried first:
/// common ones, a row or a repetition, the words of the place. Which kinds of letters it has is nobody's business.
/// </summary>
public static partial class PasswordRule
{
    /// <summary>How long it is, in characters.</summary>
    public const int Shortest = 10, Longest = 128;

    /// <summary>How much of it has to be something other than words of the place, in letters and digits.</summary>
    public const int LeastOwn = 6;

    /// <summary>What is wrong with a password; null where it will do.</summary>
    /// <param name="password">As it is typed.</param>
    /// <param name="common">The passwords that are tried first, in lower case.</param>
    /// <param name="ofThePlace">Words that anybody would guess here: the shop's, its people's, its aircraft's.</param>
    public static string? Check(string? password, IReadOnlySet<string> common, IEnumerable<string> ofThePlace)
    {
        if (password is not { Length: >= Shortest and <= Longest })
            return $"From {Shortest} to {Longest} characters: a few words that don’t belong together will do.";
        var typed = password.ToLowerInvariant();
        // "dragon12345" is "dragon" with a tail.
        if (common.Contains(typed) || common.Contains(Tail().Replace(typed, "")))
            return "That one is on every list of passwords that are tried first.";
        if (typed.Distinct().Count() < 4 || IsARow(typed))
            return "The same over and over, or a row of the keyboard: that is tried first.";
        var own = ofThePlace.SelectMany(words => Word().Matches(words.ToLowerInvariant()).Select(word => word.Value))
            .Where(word => word.Length >= 3).Distinct().OrderByDescending(word => word.Length)
            .Aggregate(typed, (left, word) => left.Replace(word, " "));
        return own.Count(char.IsLetterOrDigit) < LeastOwn
            ? "That is made of words of this place: its people, its aircraft, what it is called. Anybody here would try it."
            : null;
    }

    // Each next to the one before it, or the same: 1234567890, abcdefghij, and back.
    private static bool IsARow(string typed)
    {
        for (var step = -1; step <= 1; step++)
            if (typed.Zip(typed.Skip(1)).Count(pair => pair.Second - pair.First == step) >= typed.Length - 2)
                return true;
        return false;
    }

    [GeneratedRegex(@"[^\p{L}]+$")]
    private static partial Regex Tail();

    [GeneratedRegex(@"[\p{L}\p{Nd}]+")]
    private static partial Regex Word();
}
