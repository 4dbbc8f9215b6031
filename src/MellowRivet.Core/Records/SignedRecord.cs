using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;

namespace MellowRivet.Core.Records;

/// <summary>A signed record: a text that never changes, bound by hash to itself and to the record before it.</summary>
public sealed class SignedRecord
{
    /// <summary>The previous hash of the first record.</summary>
    public static readonly string Genesis = new('0', 64);

    private SignedRecord() { }

    private SignedRecord(long number, Guid aircraftId, Guid inspectionId, Book book, string json, string previousHash,
        DateTimeOffset signedAt)
    {
        Number = number;
        AircraftId = aircraftId;
        InspectionId = inspectionId;
        Book = book;
        Json = json;
        PreviousHash = previousHash;
        Hash = HashOf(previousHash, json);
        SignedAt = signedAt;
    }

    /// <summary>Its place in the shop's chain, from 1 without gaps.</summary>
    public long Number { get; private set; }
    public Guid AircraftId { get; private set; }
    public Guid InspectionId { get; private set; }
    public Book Book { get; private set; }

    /// <summary>What was signed, as canonical JSON.</summary>
    public string Json { get; private set; } = "";
    public string PreviousHash { get; private set; } = "";

    /// <summary>SHA-256 over the previous hash, a line feed and the JSON, in lower-case hex.</summary>
    public string Hash { get; private set; } = "";
    public DateTimeOffset SignedAt { get; private set; }

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
    public static SignedRecord After(SignedRecord? previous, Guid aircraftId, Guid inspectionId, Book book, JsonObject content,
        DateTimeOffset signedAt)
    {
        var number = (previous?.Number ?? 0) + 1;
        var whole = (JsonObject)content.DeepClone();
        foreach (var (name, value) in Envelope(number, aircraftId, inspectionId, book, signedAt))
            whole[name] = value;
        return new(number, aircraftId, inspectionId, book, CanonicalJson.Of(whole), previous?.Hash ?? Genesis, signedAt);
    }

    /// <summary>What is wrong with this record as the follower of <paramref name="previousHash"/>; null where it holds.</summary>
    internal string? Fault(long expectedNumber, string previousHash)
    {
        if (Number != expectedNumber)
            return $"record {expectedNumber} is missing";
        if (PreviousHash != previousHash)
            return $"record {Number} doesn't follow the record before it";
        if (Hash != HashOf(PreviousHash, Json))
            return $"record {Number} was altered: its text doesn't give its hash";
        return Envelope(Number, AircraftId, InspectionId, Book, SignedAt).All(field => Text()[field.Name]?.ToString() == field.Value)
            ? null
            : $"record {Number} was altered: its row says other than its text";
    }

    /// <summary>The record's content.</summary>
    public JsonObject Text() => JsonNode.Parse(Json)!.AsObject();

    /// <summary>The number of the record that this one corrects; null for one that corrects none.</summary>
    public long? Corrects => Text()["corrects"] is { } number ? long.Parse(number.ToString()) : null;

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
    /// <summary>The first fault, or null where every record holds.</summary>
    /// <param name="records">All records, by number.</param>
    /// <param name="everWritten">How many records were ever written, so that one cut off the end is missed too.</param>
    public static string? FirstFault(IEnumerable<SignedRecord> records, long everWritten)
    {
        var (number, hash) = (0L, SignedRecord.Genesis);
        foreach (var record in records)
        {
            if (record.Fault(++number, hash) is { } fault)
                return fault;
            hash = record.Hash;
        }
        return number < everWritten ? $"record {number + 1} is missing" : null;
    }
}
