using System.Globalization;

namespace MellowRivet.Core.Records;

/// <summary>
/// How far a shop's chain of signed records is: how many there are, which is the number of the last, and that one's hash. Whoever keeps it
/// on paper finds out a chain that was written anew or cut since.
/// </summary>
/// <param name="Number">The last record's number; 0 for an empty chain.</param>
/// <param name="Hash">Its hash, 64 hex digits; of one that was typed off a sheet, what was typed.</param>
public readonly record struct ChainHead(long Number, string Hash)
{
    /// <summary>Fewest digits of a hash that say which it is: 64 bits.</summary>
    public const int FewestDigits = 16;

    /// <summary>Digits that are printed: 128 bits, as many as one still types.</summary>
    public const int Printed = 32;

    public static readonly ChainHead Empty = new(0, SignedRecord.Genesis);

    /// <summary>"12-3fa2 91c0 …", as it is printed and typed.</summary>
    public override string ToString() => $"{Number.ToString(CultureInfo.InvariantCulture)}-{ShopKey.ToCompare(Hash)}";

    /// <summary>Reads one as it is printed: a number, a dash, and at least 16 digits of the hash; blanks don't count.</summary>
    public static ChainHead? Read(string? typed)
    {
        var tight = string.Concat((typed ?? "").Where(letter => !char.IsWhiteSpace(letter))).ToLowerInvariant();
        return tight.Split('-') is [var number, var hash]
            && long.TryParse(number, NumberStyles.None, CultureInfo.InvariantCulture, out var known) && known > 0
            && hash.Length is >= FewestDigits and <= 64 && hash.All(char.IsAsciiHexDigitLower)
                ? new(known, hash)
                : null;
    }

    /// <summary>What is wrong with a chain that somebody kept this head of; null where it still goes through it.</summary>
    /// <param name="hashes">The hashes of the chain's records by their numbers, from 1.</param>
    public string? Fault(IReadOnlyList<string> hashes) => Number > hashes.Count
        ? $"the chain was cut: it has {hashes.Count} records, and somebody kept the head of record {Number}"
        : Number > 0 && !hashes[(int)Number - 1].StartsWith(Hash, StringComparison.Ordinal)
        ? $"the chain was written anew: record {Number} isn't the one whose head somebody kept"
        : null;
}
