using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Estimates;

/// <summary>Something that has a price, or will: a discrepancy, a due item, a bulletin, the inspection itself, a choice.</summary>
public interface IPriced
{
    /// <summary>What it is expected to take; null where nobody has said.</summary>
    Estimate? Estimate { get; }

    /// <summary>The price that was agreed last; null while none was.</summary>
    AgreedPrice? Agreed { get; }

    Disposition Disposition { get; }
}

/// <summary>What the owner has said to a price.</summary>
public enum Decision { Open = 1, Asked, Agreed, Declined }

public static class Priced
{
    /// <summary>It goes on, or went on, at the price that was agreed: nothing changes it but a new answer.</summary>
    public static bool IsAgreed(this IPriced line) => line.Agreed is not null && line.Decided() == Decision.Agreed;

    public static Decision Decided(this IPriced line) => line.Disposition switch
    {
        Disposition.Open or Disposition.Withdrawn => Decision.Open,
        Disposition.Asked => Decision.Asked,
        Disposition.Declined => Decision.Declined,
        _ => Decision.Agreed,
    };

    /// <summary>What it costs without tax: as agreed, else as expected by today's rates. Null where nobody has said.</summary>
    public static Spread? Price(this IPriced line, HouseRules house) =>
        line.IsAgreed() ? line.Agreed!.Price : line.Estimate?.Price(house.HourlyRates());

    /// <summary>The independent spreads of its price.</summary>
    public static IEnumerable<Spread> Ranges(this IPriced line, HouseRules house) => line.IsAgreed()
        ? line.Agreed!.Estimate?.Ranges(line.Agreed.Rates) ?? []
        : line.Estimate?.Ranges(house.HourlyRates()) ?? [];

    /// <summary>The tax on it, in per cent: that of the day it was agreed.</summary>
    public static decimal Tax(this IPriced line, HouseRules house) => line.IsAgreed() ? line.Agreed!.Tax : house.Tax;

    /// <summary>What of it has no price; all of it where nobody has said anything.</summary>
    public static bool IsUnpriced(this IPriced line, HouseRules house) => line.Price(house) is null || line.Estimate is { Unpriced: > 0 };

    /// <summary>Drawn from what the shop may spend unasked.</summary>
    public static decimal DrawsDown(this IPriced line) => line.IsAgreed() ? line.Agreed!.DrawsDown : 0;

    public static string InWords(this Decision decision) => decision switch
    {
        Decision.Open => "not asked yet",
        Decision.Asked => "waiting for the owner",
        Decision.Agreed => "agreed or done",
        _ => "declined",
    };
}

/// <summary>What an inspection's work is, for its price.</summary>
public enum WorkKind { Found = 1, Inspection, Due, Bulletin, Choice }

/// <summary>A due item as work that may have a price.</summary>
/// <param name="Id">The item.</param>
/// <param name="Title">What is due.</param>
/// <param name="Hours">Hours it is expected to take; null where its file doesn't say.</param>
public sealed record DueWork(Guid Id, string Title, decimal? Hours);

/// <summary>Work of an inspection that is no discrepancy and has a price.</summary>
/// <param name="Key">Its name in this inspection: "inspection", "due-…", "bulletin-…".</param>
/// <param name="Title">What it is, in words.</param>
/// <param name="Kind">What kind of work.</param>
/// <param name="Estimate">What it is expected to take; null where nobody has said.</param>
/// <param name="Disposition">Open, asked, approved or declined.</param>
/// <param name="Agreed">The price that was agreed last.</param>
/// <param name="AnsweredAt">When the owner answered; null until then.</param>
public sealed record PricedWork(string Key, string Title, WorkKind Kind, Estimate? Estimate, Disposition Disposition = Disposition.Open,
    AgreedPrice? Agreed = null, DateTimeOffset? AnsweredAt = null) : IPriced
{
    /// <summary>The same with another estimate: where the owner agreed to another price, it is asked again.</summary>
    public PricedWork Expect(Estimate? estimate)
    {
        var kept = estimate is { SaysNothing: true } ? null : estimate;
        return this with
        {
            Estimate = kept,
            Disposition = this.IsAgreed() && !Agreed!.Covers(kept) ? Disposition.Asked : Disposition,
        };
    }

    /// <summary>The same a step on. An approval freezes the price.</summary>
    public PricedWork Take(Disposition to, HouseRules house, Guid? by, DateTimeOffset at) => this with
    {
        Disposition = to,
        Agreed = to == Disposition.Approved
            ? AgreedPrice.Of(Estimate, house, by is null ? AgreedHow.Owner : AgreedHow.OwnersWord, by, at)
            : Agreed,
        AnsweredAt = to is Disposition.Approved or Disposition.Declined ? at : AnsweredAt,
    };
}
