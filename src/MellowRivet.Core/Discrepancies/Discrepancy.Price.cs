using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Discrepancies;

// What it is expected to cost, and what was agreed.
public sealed partial class Discrepancy
{
    /// <summary>What is expected to come of it in hours and money; null where nobody has said.</summary>
    public Estimate? Estimate { get; private set; }

    /// <summary>The kind of job it is, as somebody named it; null where its words say.</summary>
    public string? JobKind { get; private set; }

    /// <summary>The price that was agreed last; null while none was. It holds until a changed one was asked for.</summary>
    public AgreedPrice? Agreed { get; private set; }

    /// <summary>
    /// Says what it is expected to take. Where the owner agreed to another price it is asked again; what was begun unasked has to fit
    /// what is left of the pre-authorised amount, or is asked.
    /// </summary>
    public Refusal? Expect(Estimate? estimate, Terms terms, Guid by, DateTimeOffset at)
    {
        if (!IsOpen)
            return new("estimate", $"It is {Disposition.InWords()}: its price stays as it is.");
        if (estimate?.Check() is { } refusal)
            return refusal;
        var was = AgreedAt(terms.House);
        Estimate = estimate is { SaysNothing: true } ? null : estimate;
        Changes++;
        if (!this.IsAgreed() || Agreed!.Covers(Estimate))
            return null;
        if (!Agreed.IsOwners && Begins(terms with { LeftUnasked = terms.LeftUnasked + Agreed.DrawsDown }) is { } how)
            Agreed = AgreedPrice.Of(Estimate, terms.House, how, by, at);
        else
        {
            var now = Estimate?.Price(terms.House.HourlyRates()) is { } price ? terms.House.Sum(price.Likely) : "without one";
            Go(Disposition.Asked, by, at, $"was agreed {(was.Length > 0 ? was : "without a price")}, now {now}: asked again");
        }
        return null;
    }

    /// <summary>Names the kind of job it is, so that the next one of its kind knows what it took; empty for what its words say.</summary>
    public Refusal? Call(string? kind)
    {
        if (kind?.Trim().Length > JobKinds.Longest)
            return new("kind", $"The kind of job in up to {JobKinds.Longest} characters.");
        JobKind = string.IsNullOrWhiteSpace(kind) ? null : kind.Trim();
        Changes++;
        return null;
    }

    // By whose leave work begins on it unasked; null where it can't.
    private AgreedHow? Begins(Terms terms) => terms.IsFreeFor(this) ? AgreedHow.AirworthinessUnasked
        : terms.Fits(Estimate) is null ? AgreedHow.Unasked
        : null;

    // The owner's yes and work begun unasked freeze the price.
    private void Agree(Disposition to, Terms terms, Guid? by, DateTimeOffset at)
    {
        if (to == Disposition.Approved)
            Agreed = AgreedPrice.Of(Estimate, terms.House, by is null ? AgreedHow.Owner : AgreedHow.OwnersWord, by, at);
        else if (Disposition == Disposition.Open && to.IsWork() && terms.House.AskFirst && Begins(terms) is { } how)
            Agreed = AgreedPrice.Of(Estimate, terms.House, how, by, at);
    }

    /// <summary>Keeps the price of what the owner approved before agreed prices were kept.</summary>
    internal void KeepAgreed(HouseRules house)
    {
        if (Agreed is null && Estimate is not null && IsOpen && this.Decided() == Decision.Agreed
            && steps.FindLast(step => step.To == Disposition.Approved) is { } yes)
            Agreed = AgreedPrice.Of(Estimate, house, yes.By is null ? AgreedHow.Owner : AgreedHow.OwnersWord, yes.By, yes.At);
    }

    private string AgreedAt(HouseRules house) => Agreed?.Price is { } price ? $"at {house.Sum(price.Likely)}" : "";
}
