using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What an owner says to one line of the list.</summary>
public enum OwnerAnswer { Approve = 1, Decline, Ask }

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

    private OwnerLink(Guid id, Guid inspectionId, string tokenHash, string sentTo, Guid by, DateTimeOffset at, DateTimeOffset ends) =>
        (Id, InspectionId, TokenHash, SentTo, By, At, Ends) = (id, inspectionId, tokenHash, sentTo, by, at, ends);

    public Guid Id { get; private set; }
    public Guid InspectionId { get; private set; }
    public string TokenHash { get; private set; } = "";
    public string SentTo { get; private set; } = "";
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
    public static (OwnerLink? Link, string Token, Refusal? Refusal) Make(Guid id, Guid inspectionId, string? sentTo, int days, Guid by,
        DateTimeOffset at)
    {
        if (days is < 1 or > LongestDays)
            return (null, "", new("days", $"A link holds from 1 to {LongestDays} days."));
        if (string.IsNullOrWhiteSpace(sentTo) || sentTo.Trim().Length > 120 || sentTo.Trim().Any(char.IsWhiteSpace)
            || sentTo.Trim().Split('@') is not [{ Length: > 0 }, { Length: > 2 }])
            return (null, "", new("to", "The owner's mail address: name@place."));
        var token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(TokenBytes));
        return (new(id, inspectionId, HashOf(token), sentTo.Trim(), by, at, at.AddDays(days)), token, null);
    }

    /// <summary>What is kept of a token.</summary>
    public static string HashOf(string token) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(token)));

    public bool HoldsAt(DateTimeOffset now) => RevokedAt is null && now < Ends;

    public void Revoke(DateTimeOffset at) => RevokedAt ??= at;

    public void Opened(DateTimeOffset at) => OpenedAt = at;
}

/// <summary>Lines that an owner answers at once.</summary>
public enum OwnerLines { All = 1, Airworthiness, Under }

/// <summary>What the owner sees of an inspection: what was asked, and what is done without asking.</summary>
/// <param name="Lines">The lines, what waits for an answer first.</param>
/// <param name="House">How the shop works: its money.</param>
public sealed record OwnerList(IReadOnlyList<Discrepancy> Lines, HouseRules House)
{
    // No list comes near it, and it is a figure that money can hold.
    private const double MostSum = 1_000_000_000;

    public static OwnerList Of(Inspection inspection) => new(
        [.. FixListRules.WorstFirst(inspection.Discrepancies.Where(IsShown))
            .OrderBy(found => found.Disposition == Disposition.Asked ? 0 : 1)], inspection.House);

    /// <summary>
    /// The owner sees what was asked, what grounds the aircraft, and what is done; not what the shop hasn't decided to ask
    /// yet, and not what was withdrawn.
    /// </summary>
    public static bool IsShown(Discrepancy found) =>
        found.Disposition != Disposition.Withdrawn && (found.Disposition != Disposition.Open || found.Grounded);

    /// <summary>
    /// The owner sees the conversation from their first question on: what the shop noted for itself before stays with it.
    /// </summary>
    public static Func<Note, bool> IsForTheOwner(Discrepancy found)
    {
        var first = found.Notes.Where(note => note.By is null).Select(note => note.At).DefaultIfEmpty(DateTimeOffset.MaxValue).Min();
        return note => note.At >= first;
    }

    public static bool MayAnswer(Discrepancy found) =>
        found.Disposition is Disposition.Asked or Disposition.Approved or Disposition.Declined;

    /// <summary>The sum of what was approved or is done.</summary>
    public decimal Agreed => Sum(found => found.Disposition is not (Disposition.Asked or Disposition.Declined or Disposition.Open));

    /// <summary>The sum of what still waits for an answer.</summary>
    public decimal Waiting => Sum(found => found.Disposition == Disposition.Asked);

    /// <summary>Lines in those sums whose price nobody has said.</summary>
    public int WithoutPrice =>
        Lines.Count(found => found.Disposition is not (Disposition.Declined or Disposition.Open) && found.Estimate?.Total(House) is null);

    /// <summary>Airworthiness items that the owner declined: the aircraft isn't signed as airworthy with them.</summary>
    public IEnumerable<Discrepancy> DeclinedAirworthiness =>
        Lines.Where(found => found is { Disposition: Disposition.Declined, Class: DiscrepancyClass.Airworthiness });

    /// <summary>Records what the owner says to a line.</summary>
    public Refusal? Answer(int number, OwnerAnswer answer, string? words, DateTimeOffset at)
    {
        if (Lines.FirstOrDefault(line => line.Number == number) is not { } found || !Enum.IsDefined(answer))
            return new("answer", "There is no such line.");
        if (answer == OwnerAnswer.Ask)
            return found.Add(Guid.CreateVersion7(), words, null, at) is { } empty
                ? empty with { Field = "answer", Message = "Write your question first." }
                : null;
        if (!MayAnswer(found))
            return new("answer", $"It is {found.Disposition.InWords()}: speak to the shop.");
        var to = answer == OwnerAnswer.Approve ? Disposition.Approved : Disposition.Declined;
        return found.Disposition == to ? null : found.Move(to, words, House, null, at) is { } refusal
            ? refusal with { Field = "answer" }
            : null;
    }

    /// <summary>The lines one answer would take: those that wait, and are airworthiness items, or priced under a sum, or all.</summary>
    /// <param name="which">Which.</param>
    /// <param name="under">For those under a sum: the sum.</param>
    public IReadOnlyList<Discrepancy> Waits(OwnerLines which, decimal? under = null) => [.. Lines.Where(found =>
        found.Disposition == Disposition.Asked && which switch
        {
            OwnerLines.Airworthiness => found.Class == DiscrepancyClass.Airworthiness,
            OwnerLines.Under => found.Estimate?.Total(House) is { } price && price < under,
            OwnerLines.All => true,
            _ => false,
        })];

    /// <summary>What waits as it stands, class and price: an answer to many lines is one to what was read, and to nothing since.</summary>
    public string AsItStands => string.Join(' ', Waits(OwnerLines.All).OrderBy(found => found.Number).Select(found =>
        string.Create(CultureInfo.InvariantCulture, $"{found.Number}:{(int)found.Class}:{found.Estimate?.Total(House)}")));

    /// <summary>Records one answer to many lines. What has no price yet is under no sum.</summary>
    /// <param name="which">Which lines.</param>
    /// <param name="under">For those under a sum: the sum, as typed.</param>
    /// <param name="answer">Approve or decline.</param>
    /// <param name="seen">What waited as the owner read it, see <see cref="AsItStands"/>.</param>
    /// <param name="at">When.</param>
    public Refusal? AnswerMany(OwnerLines which, string? under, OwnerAnswer answer, string? seen, DateTimeOffset at)
    {
        if (!Enum.IsDefined(which) || answer is not (OwnerAnswer.Approve or OwnerAnswer.Decline))
            return new("many", "Choose which lines, and whether they are approved.");
        var sum = Measures.TypedNumber.Parse(under);
        if (which == OwnerLines.Under && sum is not (> 0 and <= MostSum))
            return new("many", "Type the sum, as a figure above 0.");
        if (seen != AsItStands)
            return new("many", "A line or a price has changed since you opened the list: nothing was answered. Read it again.");
        if (Waits(which, which == OwnerLines.Under ? (decimal?)sum : null) is not { Count: > 0 } lines)
            return new("many", which == OwnerLines.Under ? $"No line that waits has a price under {under}."
                : "No such line waits for you.");
        foreach (var found in lines)
            if (Answer(found.Number, answer, null, at) is { } refusal)
                return refusal with { Field = "many" };
        return null;
    }

    private decimal Sum(Func<Discrepancy, bool> which) => Lines.Where(which).Sum(found => found.Estimate?.Total(House) ?? 0);
}
