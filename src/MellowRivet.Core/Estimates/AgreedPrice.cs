using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Estimates;

/// <summary>By whose leave a price holds.</summary>
public enum AgreedHow { Owner = 1, OwnersWord, Unasked, AirworthinessUnasked }

/// <summary>A price that was agreed, as it stood then: line, rate and sum stay, whatever the rates become.</summary>
/// <param name="Estimate">What was expected; null where it was agreed without a price.</param>
/// <param name="Price">The sum, without tax; null where it was agreed without one.</param>
/// <param name="Rates">What an hour cost.</param>
/// <param name="Tax">The tax, in per cent.</param>
/// <param name="How">By whose leave.</param>
/// <param name="By">Who noted it; null for the owner, on the owner's page.</param>
/// <param name="At">When.</param>
public sealed record AgreedPrice(Estimate? Estimate, Spread? Price, Rates Rates, decimal Tax, AgreedHow How, Guid? By, DateTimeOffset At)
{
    public static AgreedPrice Of(Estimate? estimate, HouseRules house, AgreedHow how, Guid? by, DateTimeOffset at) =>
        new(estimate, estimate?.Price(house.HourlyRates()), house.HourlyRates(), house.Tax, how, by, at);

    /// <summary>Drawn from what the shop may spend unasked: the most it may come to.</summary>
    public decimal DrawsDown => How == AgreedHow.Unasked ? Price?.High ?? 0 : 0;

    /// <summary>The owner's yes, which a changed price asks for again.</summary>
    public bool IsOwners => How is AgreedHow.Owner or AgreedHow.OwnersWord;

    /// <summary>Another estimate costs the same, by the rates that were agreed.</summary>
    public bool Covers(Estimate? estimate) => estimate?.Price(Rates) == Price && (estimate?.Unpriced ?? 0) <= (Estimate?.Unpriced ?? 0);
}

/// <summary>On what terms work begins: how the shop works, and what it may still spend unasked at this inspection.</summary>
/// <param name="House">How the shop works.</param>
/// <param name="LeftUnasked">What is left of the pre-authorised amount.</param>
/// <param name="IsSurvey">Nothing is put right here: what is found is priced.</param>
public sealed record Terms(HouseRules House, decimal LeftUnasked, bool IsSurvey = false)
{
    /// <summary>Why a step isn't taken at a survey; null where it is.</summary>
    public Refusal? Surveys(Discrepancies.Disposition to) =>
        IsSurvey && to is not (Discrepancies.Disposition.Withdrawn or Discrepancies.Disposition.Open)
            ? new("state", "A survey finds and prices; nothing is put right at it, and the owner isn’t asked.")
            : null;

    /// <summary>Why work on a discrepancy can't begin before the owner was asked; null where it can.</summary>
    public Refusal? AsksFirst(Discrepancies.Discrepancy found) => !House.AskFirst || IsFreeFor(found) ? null : Fits(found.Estimate);

    /// <summary>An airworthiness item in a shop that puts those right without asking.</summary>
    public bool IsFreeFor(Discrepancies.Discrepancy found) =>
        House.AirworthinessUnasked && found.Class == Discrepancies.DiscrepancyClass.Airworthiness;

    /// <summary>Why a price is more than may be spent unasked; null where it fits.</summary>
    public Refusal? Fits(Estimate? estimate)
    {
        var left = LeftUnasked == House.PreAuthorised
            ? $"the {House.Sum(House.PreAuthorised)} this shop may spend unasked"
            : $"the {House.Sum(LeftUnasked)} left of {House.Sum(House.PreAuthorised)} this shop may spend unasked";
        if (estimate?.Price(House.HourlyRates()) is not { } price)
            return new("state",
                "This shop asks the owner first. Ask, or say what it is expected to cost: "
                + $"up to {House.Sum(LeftUnasked)} needs no asking.");
        return estimate.Unpriced > 0 ? new("state", $"Not all of it has a price: ask the owner first, or say what the rest costs.")
            : price.High > LeftUnasked
            ? new("state", $"{House.Sum(price.High)} is more than {left}: ask the owner first.")
            : null;
    }
}

public static class AgreedWords
{
    public static string InWords(this AgreedHow how) => how switch
    {
        AgreedHow.Owner => "approved by the owner",
        AgreedHow.OwnersWord => "approved on the owner’s word",
        AgreedHow.Unasked => "begun on the pre-authorised amount",
        _ => "airworthiness, begun without asking as the shop does",
    };
}
