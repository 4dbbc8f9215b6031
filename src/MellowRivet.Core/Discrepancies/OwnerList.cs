using System.Globalization;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Discrepancies;

/// <summary>Lines that an owner answers at once.</summary>
public enum OwnerLines { All = 1, Airworthiness, Under }

/// <summary>What the owner sees of an inspection: what was asked, and what is done without asking.</summary>
/// <param name="Lines">The lines, what waits for an answer first.</param>
/// <param name="Inspection">The inspection that they stand on.</param>
public sealed record OwnerList(IReadOnlyList<Discrepancy> Lines, Inspection Inspection)
{
    // No list comes near it, and it is a figure that money can hold.
    private const double MostSum = 1_000_000_000;

    public static OwnerList Of(Inspection inspection) => new(
        [.. FixListRules.WorstFirst(inspection.Discrepancies.Where(IsShown))
            .OrderBy(found => found.Disposition == Disposition.Asked ? 0 : 1)], inspection);

    /// <summary>How the shop works: its money.</summary>
    public HouseRules House => Inspection.House;

    /// <summary>Other work that the owner was asked about: the inspection itself, due items, bulletins.</summary>
    public IReadOnlyList<PricedWork> Work => [.. Inspection.PricedWork.Where(work => work.Disposition != Disposition.Open)];

    /// <summary>Ways side by side that the owner was asked to choose between.</summary>
    public IReadOnlyList<Choice> Choices => [.. Inspection.Choices.Where(choice => choice.Disposition != Disposition.Open)];

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

    /// <summary>What was approved or is done.</summary>
    public PriceSum Agreed => Sum(Decision.Agreed);

    /// <summary>What still waits for an answer.</summary>
    public PriceSum Waiting => Sum(Decision.Asked);

    /// <summary>Lines in those sums of which something has no price.</summary>
    public int WithoutPrice => Agreed.Unpriced + Waiting.Unpriced;

    private PriceSum Sum(Decision decision) => new(
    [
        .. JobEstimate.Of(Inspection).Lines.Where(line => line.FallsAwayWith is null && line.Priced.Decided() == decision),
    ], House);

    /// <summary>Airworthiness items that the owner declined: the aircraft isn't signed as airworthy with them.</summary>
    public IEnumerable<Discrepancy> DeclinedAirworthiness =>
        Lines.Where(found => found is { Disposition: Disposition.Declined, Class: DiscrepancyClass.Airworthiness });

    /// <summary>What a line says as the owner reads it: a yes is one to the class and the price that were read.</summary>
    public string Reads(Discrepancy found) =>
        string.Create(CultureInfo.InvariantCulture, $"{found.Number}:{(int)found.Class}:{found.Price(House)}");

    /// <summary>Records what the owner says to a line.</summary>
    /// <param name="number">Which.</param>
    /// <param name="answer">What.</param>
    /// <param name="words">A question or a remark.</param>
    /// <param name="at">When.</param>
    /// <param name="seen">The line as the owner read it, see <see cref="Reads(Discrepancy)"/>.</param>
    public Refusal? Answer(int number, OwnerAnswer answer, string? words, DateTimeOffset at, string? seen = null)
    {
        if (Lines.FirstOrDefault(line => line.Number == number) is not { } found || !Enum.IsDefined(answer))
            return new("answer", "There is no such line.");
        if (answer == OwnerAnswer.Ask)
            return found.Add(Guid.CreateVersion7(), words, null, at) is { } empty
                ? empty with { Field = "answer", Message = "Write your question first." }
                : null;
        if (!MayAnswer(found))
            return new("answer", $"It is {found.Disposition.InWords()}: speak to the shop.");
        if (seen != Reads(found))
            return new("answer", "The line or its price has changed since you opened the list: nothing was answered. Read it again.");
        var to = answer == OwnerAnswer.Approve ? Disposition.Approved : Disposition.Declined;
        return found.Disposition == to ? null : found.Move(to, words, Inspection.Terms, null, at) is { } refusal
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
            OwnerLines.Under => !found.IsUnpriced(House) && found.Price(House)!.Value.High < under,
            OwnerLines.All => true,
            _ => false,
        })];

    /// <summary>What waits as it stands, class and price: an answer to many lines is one to what was read, and to nothing since.</summary>
    public string AsItStands => string.Join(' ', Waits(OwnerLines.All).OrderBy(found => found.Number).Select(Reads));

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
            if (Answer(found.Number, answer, null, at, Reads(found)) is { } refusal)
                return refusal with { Field = "many" };
        return null;
    }

    /// <summary>Records what the owner says to other work.</summary>
    public Refusal? AnswerWork(string? key, OwnerAnswer answer, string? seen, DateTimeOffset at)
    {
        if (Work.FirstOrDefault(work => work.Key == key) is not { } work || answer is not (OwnerAnswer.Approve or OwnerAnswer.Decline))
            return new("work", "There is no such line.");
        return seen != Reads(work)
            ? new("work", "Its price has changed since you opened the list: nothing was answered. Read it again.")
            : Inspection.Decide(key, answer == OwnerAnswer.Approve ? Disposition.Approved : Disposition.Declined, null, at);
    }

    /// <summary>What other work says as the owner reads it.</summary>
    public string Reads(PricedWork work) => string.Create(CultureInfo.InvariantCulture, $"{work.Key}:{work.Price(House)}");
}
