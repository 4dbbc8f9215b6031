using System.Security.Cryptography;
using System.Text;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What an owner says to one line of the list.</summary>
public enum OwnerAnswer { Approve = 1, Decline, Ask }

/// <summary>Whom a link is for: the owner of an inspection's list, or one of the two sides of a survey.</summary>
public enum LinkFor { Owner = 1, Buyer, Seller }

/// <summary>
/// A link that lets an owner read one inspection's list and answer it, without signing in. Whoever has it can do that, so it is
/// long, random, ends by itself and can be ended at once; the shop keeps only its SHA-256.
/// </summary>
public sealed class OwnerLink
{
    /// <summary>Random bytes in a token.</summary>
    public const int TokenBytes = 32;

    /// <summary>Longest a link may hold, in days.</summary>
    public const int LongestDays = 90;

    private OwnerLink() { }

    private OwnerLink(Guid id, Guid inspectionId, string tokenHash, string sentTo, Guid by, DateTimeOffset at, DateTimeOffset ends,
        LinkFor reader) =>
        (Id, InspectionId, TokenHash, SentTo, By, At, Ends, For) = (id, inspectionId, tokenHash, sentTo, by, at, ends, reader);

    public Guid Id { get; private set; }
    public Guid InspectionId { get; private set; }
    public string TokenHash { get; private set; } = "";
    public string SentTo { get; private set; } = "";
    public LinkFor For { get; private set; } = LinkFor.Owner;
    public Guid By { get; private set; }
    public DateTimeOffset At { get; private set; }
    public DateTimeOffset Ends { get; private set; }
    public DateTimeOffset? RevokedAt { get; private set; }

    /// <summary>When the owner last opened it; null until they have.</summary>
    public DateTimeOffset? OpenedAt { get; private set; }

    /// <summary>Makes a link and its token, which is told once and kept nowhere.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="inspectionId">The inspection it opens.</param>
    /// <param name="sentTo">The owner's address.</param>
    /// <param name="days">Days it holds.</param>
    /// <param name="by">Who makes it.</param>
    /// <param name="at">When.</param>
    /// <param name="reader">Whom it is for.</param>
    public static (OwnerLink? Link, string Token, Refusal? Refusal) Make(Guid id, Guid inspectionId, string? sentTo, int days, Guid by,
        DateTimeOffset at, LinkFor reader = LinkFor.Owner)
    {
        if (days is < 1 or > LongestDays)
            return (null, "", new("days", $"A link holds from 1 to {LongestDays} days."));
        if (string.IsNullOrWhiteSpace(sentTo) || sentTo.Trim().Length > 120 || sentTo.Trim().Any(char.IsWhiteSpace)
            || sentTo.Trim().Split('@') is not [{ Length: > 0 }, { Length: > 2 }])
            return (null, "", new("to", $"The {InWords(reader)}'s mail address: name@place."));
        var token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(TokenBytes));
        return (new(id, inspectionId, HashOf(token), sentTo.Trim(), by, at, at.AddDays(days), reader), token,
            null);
    }

    public static string InWords(LinkFor reader) => reader.ToString().ToLowerInvariant();

    /// <summary>What is kept of a token.</summary>
    public static string HashOf(string token) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(token)));

    public bool HoldsAt(DateTimeOffset now) => RevokedAt is null && now < Ends;

    public void Revoke(DateTimeOffset at) => RevokedAt ??= at;

    public void Opened(DateTimeOffset at) => OpenedAt = at;
}
