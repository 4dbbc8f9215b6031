using System.Collections.Concurrent;
namespace MellowRivet.Core.Discrepancies;

/// <summary>A pin on the drawing from above, 0 to 300 from the left wing tip to the right and from nose to tail.</summary>
public sealed record Pin(double X, double Y)
{
    /// <summary>A pin where somebody touched the drawing; null off it.</summary>
    public static Pin? At(double? x, double? y) =>
        x is >= 0 and <= 300 && y is >= 0 and <= 300 ? new(Math.Round(x.Value, 1), Math.Round(y.Value, 1)) : null;
}

/// <summary>How near two places are.</summary>
public enum Nearness { Elsewhere = 1, SameZone, Same }

/// <summary>Where something was found, so that it is found again: zone, part, task, pin and words.</summary>
/// <param name="ZoneKey">The zone.</param>
/// <param name="Where">Where in it, in words; may be empty.</param>
/// <param name="TaskKey">The task it was found at, as "worksheet/task"; null in passing.</param>
/// <param name="ComponentId">The part it is on; null for none that the file follows.</param>
/// <param name="Pin">The pin on the drawing; null where nobody set one.</param>
public sealed record Place(string ZoneKey, string Where, string? TaskKey, Guid? ComponentId, Pin? Pin)
{
    /// <summary>
    /// Two pins no further apart than this mean one place, in units of the drawing; the product's own choice, a finger's width.
    /// </summary>
    public const double FingerWidth = 12;

    /// <summary>
    /// How near another place is, perhaps of another inspection. Two pins decide; else words that agree do, or a task in common
    /// where one of them has no words. A part that moved takes its places along.
    /// </summary>
    public Nearness To(Place other) => To(other, Words.Stems(Where), Words.Stems(other.Where));

    /// <summary>Whether another place may be the same: it is in the same zone, or on the same part wherever that is now.</summary>
    public bool MayBe(Place other) => ZoneKey == other.ZoneKey || (ComponentId is not null && ComponentId == other.ComponentId);

    // With the words of both places already taken apart: a long list compares each with each.
    internal Nearness To(Place other, IReadOnlySet<string> mine, IReadOnlySet<string> theirs)
    {
        if (!MayBe(other))
            return Nearness.Elsewhere;
        if (ZoneKey == other.ZoneKey && Pin is { } pin && other.Pin is { } there)
            return new Spot(pin.X, pin.Y).To(new(there.X, there.Y)) <= FingerWidth ? Nearness.Same : Nearness.SameZone;
        var agree = Words.Overlap(mine, theirs);
        if (agree >= 0.5)
            return Nearness.Same;
        var oneTask = TaskKey is not null && TaskKey == other.TaskKey;
        return oneTask && (Where.Length == 0 || other.Where.Length == 0) ? Nearness.Same : Nearness.SameZone;
    }
}

/// <summary>Words as people type them in a hurry, compared.</summary>
internal static class Words
{
    // The shelf's words, taken apart once: a finding is held against all of them with every letter that is typed.
    private static readonly ConcurrentDictionary<string, IReadOnlyList<string>> Sought = new();

    private static readonly HashSet<string> Negations = ["no", "not", "without", "never", "nothing", "none", "nor", "neither"];

    private static readonly HashSet<string> Empty = ["the", "a", "an", "of", "at", "on", "in", "and", "or", "to", "by", "is", "it", "its",
        "with", "for", "from"];

    /// <summary>The words that carry meaning, in lower case and cut to five letters, so that an ending doesn't tell two apart.</summary>
    public static IReadOnlySet<string> Stems(string text) =>
        Plain(text).Where(word => !Empty.Contains(word)).Select(word => word.Length > 5 ? word[..5] : word).ToHashSet();

    /// <summary>All words in lower case.</summary>
    public static IReadOnlyList<string> Plain(string text) =>
        string.Create(text.Length, text, (plain, typed) =>
        {
            for (var at = 0; at < plain.Length; at++)
                plain[at] = char.IsLetterOrDigit(typed[at]) ? char.ToLowerInvariant(typed[at]) : ' ';
        }).Split(' ', StringSplitOptions.RemoveEmptyEntries);

    /// <summary>
    /// Whether the words say one of each group. "No crack" doesn't speak of a crack; "no cotter pin" does of a missing one.
    /// </summary>
    public static bool Suit(IReadOnlyList<string> words, IReadOnlyList<IReadOnlyList<string>> groups) =>
        groups.All(group => group.Any(wanted => Say(words, wanted)));

    /// <summary>Whether the words say something, by its beginnings.</summary>
    public static bool Say(IReadOnlyList<string> words, string wanted)
    {
        var sought = Sought.GetOrAdd(wanted, Plain);
        for (var at = 0; at + sought.Count <= words.Count; at++)
            if (StandsAt(words, at, sought)
                && (Negations.Contains(sought[0]) || !IsNegated(words, at)))
                return true;
        return false;
    }

    private static bool StandsAt(IReadOnlyList<string> words, int at, IReadOnlyList<string> sought)
    {
        for (var part = 0; part < sought.Count; part++)
            if (!words[at + part].StartsWith(sought[part], StringComparison.Ordinal))
                return false;
        return true;
    }

    /// <summary>Whether what stands at a place is denied: one of the two words before it says so.</summary>
    public static bool IsNegated(IReadOnlyList<string> words, int at) => words.Take(at).TakeLast(2).Any(Negations.Contains);

    /// <summary>The share of the shorter text's words that the other has as well, 0 to 1; 0 where one has none.</summary>
    public static double Overlap(IReadOnlySet<string> one, IReadOnlySet<string> other)
    {
        var least = Math.Min(one.Count, other.Count);
        return least == 0 ? 0 : (double)one.Count(other.Contains) / least;
    }
}
