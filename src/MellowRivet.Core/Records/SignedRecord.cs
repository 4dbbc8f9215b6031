using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace MellowRivet.Core.Records;

/// <summary>A signed record: a text that never changes, bound by hash to itself and to the record before it.</summary>
public sealed class SignedRecord
{
    /// <summary>The previous hash of the first record.</summary>
    public static readonly string Genesis = new('0', 64);

    /// <summary>The member of a record's text that holds the hash of what it rests on.</summary>
    public const string EvidenceMember = "evidence";

    private const string Purpose = "record";

    // What pages and prints can't do without; what an older release didn't write is left empty there.
    private static readonly string[] Said = ["title", "date", "item", "statement"];

    private SignedRecord() { }

    private SignedRecord(long number, Guid aircraftId, Guid inspectionId, Book book, string json, string previousHash,
        DateTimeOffset signedAt, ShopKey? key)
    {
        Id = number;
        AircraftId = aircraftId;
        InspectionId = inspectionId;
        Book = book;
        Json = json;
        PreviousHash = previousHash;
        Hash = HashOf(previousHash, json);
        SignedAt = signedAt;
        (KeyFingerprint, Signature) = (key?.Fingerprint, key?.Sign(Purpose, Hash));
    }

    /// <summary>Its place among this shop's records: of its own their number; below zero for what another shop signed.</summary>
    public long Id { get; private set; }

    /// <summary>Its place in the chain of the shop that signed it, from 1 without gaps.</summary>
    public long Number => NumberThere ?? Id;
    public Guid AircraftId { get; private set; }
    public Guid InspectionId { get; private set; }
    public Book Book { get; private set; }

    /// <summary>What was signed, as canonical JSON.</summary>
    public string Json { get; private set; } = "";
    public string PreviousHash { get; private set; } = "";

    /// <summary>SHA-256 over the previous hash, a line feed and the JSON, in lower-case hex.</summary>
    public string Hash { get; private set; } = "";
    public DateTimeOffset SignedAt { get; private set; }

    /// <summary>The shop's key that signed it; null for one from before the shop had a key.</summary>
    public string? KeyFingerprint { get; private set; }

    /// <summary>Made with that key over the hash.</summary>
    public string? Signature { get; private set; }

    /// <summary>For what another shop signed: which chain, its number there, what that shop is called, and when it was taken in.</summary>
    public string? ChainThere { get; private set; }
    public long? NumberThere { get; private set; }
    public string? ShopThere { get; private set; }
    public DateTimeOffset? TakenInAt { get; private set; }

    /// <summary>Another shop signed it.</summary>
    public bool IsElsewhere => ChainThere is not null;

    /// <summary>"record 12", or "record 12 of Hob &amp; Daughters".</summary>
    public string Named => IsElsewhere ? $"record {Number} of {ShopThere}" : $"record {Number}";

    /// <summary>
    /// Adds a record to the end of the chain. What the row says beside the text stands in the text too, so
    /// that neither can be altered alone.
    /// </summary>
    /// <param name="previous">The last record so far; null at the beginning.</param>
    /// <param name="aircraftId">The aircraft it belongs to.</param>
    /// <param name="inspectionId">The inspection it closes.</param>
    /// <param name="book">The book it goes into.</param>
    /// <param name="content">What is signed.</param>
    /// <param name="signedAt">When.</param>
    /// <param name="key">The shop's key; null for a shop without one.</param>
    public static SignedRecord After(SignedRecord? previous, Guid aircraftId, Guid inspectionId, Book book, JsonObject content,
        DateTimeOffset signedAt, ShopKey? key = null)
    {
        var number = (previous?.Id ?? 0) + 1;
        var whole = (JsonObject)content.DeepClone();
        foreach (var (name, value) in Envelope(number, aircraftId, inspectionId, book, signedAt))
            whole[name] = value;
        return new(number, aircraftId, inspectionId, book, CanonicalJson.Of(whole), previous?.Hash ?? Genesis, signedAt, key);
    }

    /// <summary>What is wrong with this record as the follower of <paramref name="previousHash"/>; null where it holds.</summary>
    internal string? Fault(long expectedNumber, string previousHash)
    {
        if (Number != expectedNumber)
            return $"record {expectedNumber} is missing";
        if (PreviousHash != previousHash)
            return $"record {Number} doesn't follow the record before it";
        return OwnFault();
    }

    /// <summary>What is wrong with this record by itself; null where its text gives its hash, and says what its row says.</summary>
    public string? OwnFault()
    {
        if (Hash != HashOf(PreviousHash, Json))
            return $"{Named} was altered: its text doesn't give its hash";
        return Read() is { } text && Envelope(Number, AircraftId, InspectionId, Book, SignedAt)
            .All(field => text[field.Name]?.ToString() == field.Value)
            ? null
            : $"{Named} was altered: its row says other than its text";
    }

    /// <summary>
    /// What is wrong with what a record of another shop says: pages and prints read these members of every one. Null where all are there.
    /// </summary>
    public string? FormFault()
    {
        var text = Read();
        if (text is null || Said.Any(member => text[member] is not JsonValue said || !said.TryGetValue(out string? _))
            || text["work"] is not JsonArray work || work.Any(line => line is not JsonValue words || !words.TryGetValue(out string? _))
            || text["omitted"] is not (null or JsonArray))
            return $"{Named} isn't written as a record is";
        return DateOnly.TryParseExact($"{text["date"]}", "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out _)
            ? null
            : $"{Named} has no day";
    }

    /// <summary>What is wrong with whose it is; null where one of the shop's keys signed it, the one that was in force.</summary>
    /// <param name="keys">The keys of the chain, in their order.</param>
    public string? KeyFault(IReadOnlyList<ShopKeyLine> keys)
    {
        var inForce = keys.LastOrDefault(line => line.AfterRecord < Number);
        if (inForce is null && Signature is null)
            return null;
        // A record from before the first key is signed where it leaves the shop, with the key of that day.
        var by = keys.FirstOrDefault(line => line.Fingerprint == KeyFingerprint);
        return by is not null && (by == inForce || inForce is null) && ShopKey.Holds(by.PublicKey, Purpose, Hash, Signature)
            ? null
            : $"{Named} isn't signed with the shop's key";
    }

    /// <summary>Signs a record that is from before the shop had a key, as it leaves the shop.</summary>
    public static string SignFor(ShopKey key, string hash) => key.Sign(Purpose, hash);

    /// <summary>The record's content.</summary>
    /// <exception cref="InvalidDataException">It was altered to be none.</exception>
    public JsonObject Text() => Read() ?? throw new InvalidDataException($"The text of {Named} can't be read: it was altered.");

    private JsonObject? Read()
    {
        try
        {
            return JsonNode.Parse(Json) as JsonObject;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>The hash of what it rests on; null for one that rests on nothing but its text, or is from before that was kept.</summary>
    public string? EvidenceHash => Read()?[EvidenceMember]?.ToString();

    /// <summary>The number of the record that this one corrects; null for one that corrects none.</summary>
    public long? Corrects => long.TryParse(Read()?["corrects"]?.ToString(), out var number) ? number : null;

    private static IEnumerable<(string Name, string Value)> Envelope(long number, Guid aircraftId, Guid inspectionId, Book book,
        DateTimeOffset signedAt) =>
    [
        ("record", number.ToString()), ("aircraftId", aircraftId.ToString()), ("inspectionId", inspectionId.ToString()),
        ("book", book.ToString()), ("signedAt", signedAt.UtcDateTime.ToString("O")),
    ];

    private static string HashOf(string previousHash, string json) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(previousHash + "\n" + json)));
}

/// <summary>Walks the chain of signed records.</summary>
public static class RecordChain
{
    /// <summary>What is wrong with it, record by record; empty where every one holds.</summary>
    /// <param name="records">All records of the chain, by number.</param>
    /// <param name="everWritten">How many records were ever written, so that one cut off the end is missed too.</param>
    /// <param name="keys">The shop's keys, in their order; none for a chain from before there were any.</param>
    public static IEnumerable<string> Faults(IEnumerable<SignedRecord> records, long everWritten, IReadOnlyList<ShopKeyLine> keys)
    {
        var (number, hash) = (0L, SignedRecord.Genesis);
        foreach (var record in records)
        {
            number++;
            if ((record.Fault(number, hash) ?? record.KeyFault(keys)) is { } fault)
                yield return fault;
            if (keys.FirstOrDefault(line => line.AfterRecord == number) is { } key && key.AfterHash != record.Hash)
                yield return $"record {number} isn't the one after which key {key.Number} of the shop began";
            (number, hash) = (record.Number, record.Hash);
        }
        if (number < everWritten)
            yield return $"record {number + 1} is missing";
    }
}
