using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Surveys;

/// <summary>What the money of a survey comes to.</summary>
public enum SurveyVerdict { Fair = 1, Negotiate, WalkAway }

/// <summary>Something found, as far as it is money.</summary>
/// <param name="Id">Its number.</param>
/// <param name="What">What it is.</param>
/// <param name="Cost">What putting it right costs.</param>
/// <param name="IsAirworthiness">It has to be put right before the aircraft flies.</param>
/// <param name="SellerPays">The seller is to pay it: it is none of the buyer's money.</param>
/// <param name="Stops">It ends the deal at any price.</param>
public sealed record SurveyFinding(string Id, string What, Spread Cost, bool IsAirworthiness = false, bool SellerPays = false,
    bool Stops = false);

/// <summary>Something that falls due soon, with its cost.</summary>
public sealed record DueCost(string What, Spread Cost);

/// <summary>Something that wasn't looked at, with what is held in reserve for it.</summary>
public sealed record Reserve(string What, decimal Sum);

/// <summary>How much of an engine's or a propeller's overhaul is used up.</summary>
/// <param name="What">Which.</param>
/// <param name="Used">The share of its interval that is used up, from 0; past 1 it is past its interval.</param>
/// <param name="Supposed">The share that the price in order supposes, from 0 to 1.</param>
/// <param name="Overhaul">What its overhaul costs.</param>
public sealed record PowerUse(string What, decimal Used, decimal Supposed, Spread Overhaul)
{
    /// <summary>By hours alone.</summary>
    /// <param name="what">Which.</param>
    /// <param name="hours">Hours since its overhaul.</param>
    /// <param name="interval">Hours from one overhaul to the next, above 0.</param>
    /// <param name="overhaul">What an overhaul costs.</param>
    /// <param name="supposed">Hours since overhaul that the price in order supposes; null for what the rules say.</param>
    /// <param name="rules">The rules.</param>
    public static PowerUse Of(string what, decimal hours, decimal interval, Spread overhaul, decimal? supposed, SurveyRules rules) =>
        new(what, hours / interval, supposed is { } said ? said / interval : rules.Supposed, overhaul);

    // What is past its interval has used up its overhaul, and no more than that: a buyer who has it done owes nothing on top.
    private decimal Spent => Math.Clamp(Used, 0, 1);

    /// <summary>What of its overhaul is used up, in money: 1,500 of 2,000 h of an overhaul at 30,000 is 22,500.</summary>
    public decimal UsedUp => Math.Round(Spent * Overhaul.Likely, 2);

    /// <summary>What comes off the price in order for it; below 0 where it has run less than that price supposes.</summary>
    public Spread ComesOff
    {
        get
        {
            var share = Spent - Math.Clamp(Supposed, 0, 1);
            var off = Overhaul.Times(share);
            return share >= 0 ? off : new(off.High, off.Likely, off.Low);
        }
    }
}

/// <summary>What a survey's money is asked about.</summary>
/// <param name="Asking">The asking price, above 0.</param>
/// <param name="InOrder">What such an aircraft fetches in order; null where nobody said: then nothing is fair or not.</param>
/// <param name="Findings">What was found and is open.</param>
/// <param name="Due">What falls due within the year.</param>
/// <param name="Power">Engines and propellers.</param>
/// <param name="Reserves">What is held in reserve.</param>
/// <param name="Limit">The buyer's limit for the work; null for none.</param>
/// <param name="Rules">What it is weighed by.</param>
public sealed record SurveyQuestion(decimal Asking, decimal? InOrder, IReadOnlyList<SurveyFinding> Findings, IReadOnlyList<DueCost> Due,
    IReadOnlyList<PowerUse> Power, IReadOnlyList<Reserve> Reserves, decimal? Limit, SurveyRules Rules)
{
    /// <summary>Largest sum that is taken.</summary>
    public const decimal MostMoney = Estimate.MostPrice;
}

/// <summary>
/// A survey's money: fair = price in order − what is used up of engines and propellers beyond what that price supposes − what the buyer
/// pays of the work − what falls due − reserve. Money that is spent already is in none of it. Low, likely and high are each added up.
/// </summary>
public sealed class SurveyMoney
{
    public SurveyMoney(SurveyQuestion question)
    {
        Question = question;
        Work = Sum(question.Findings.Where(found => !found.SellerPays).Select(found => found.Cost));
        SellersPart = Sum(question.Findings.Where(found => found.SellerPays).Select(found => found.Cost));
        Due = Sum(question.Due.Select(due => due.Cost));
        Power = Sum(question.Power.Select(power => power.ComesOff));
        Reserve = question.Reserves.Sum(reserve => reserve.Sum);
        var off = Power + Work + Due + Spread.Of(Reserve);
        Fair = question.InOrder is { } price ? new(price - off.High, price - off.Likely, price - off.Low) : null;
        Stops = [.. question.Findings.Where(found => found.Stops)];
        Verdict = Stops.Count > 0 || PassesLimit ? SurveyVerdict.WalkAway
            : Over is not { } over ? null
            : over > question.Rules.WalkAwayAbove * question.Asking ? SurveyVerdict.WalkAway
            : over > question.Rules.NegotiateAbove * question.Asking ? SurveyVerdict.Negotiate
            : SurveyVerdict.Fair;
    }

    public SurveyQuestion Question { get; }

    /// <summary>What the buyer pays of the work.</summary>
    public Spread Work { get; }

    /// <summary>What the seller pays of it.</summary>
    public Spread SellersPart { get; }

    /// <summary>What falls due within the year.</summary>
    public Spread Due { get; }

    /// <summary>What comes off for engines and propellers; below 0 where they have run less than the price supposes.</summary>
    public Spread Power { get; }

    /// <summary>What is held in reserve.</summary>
    public decimal Reserve { get; }

    /// <summary>What is used up of the overhauls, in money; null where nothing was said of any.</summary>
    public decimal? UsedUp => Question.Power.Count == 0 ? null : Question.Power.Sum(power => power.UsedUp);

    /// <summary>The fair price; null without a price in order.</summary>
    public Spread? Fair { get; }

    /// <summary>The asking price above the fair one, below 0 where it is less; null without a price in order.</summary>
    public decimal? Over => Fair is { } fair ? Question.Asking - fair.Likely : null;

    /// <summary>What stops the deal.</summary>
    public IReadOnlyList<SurveyFinding> Stops { get; }

    /// <summary>The buyer's part of the likely work is above the buyer's limit.</summary>
    public bool PassesLimit => Question.Limit is { } limit && Work.Likely > limit;

    /// <summary>Fair, negotiate or walk away; null where nothing can be said without a price in order.</summary>
    public SurveyVerdict? Verdict { get; }

    /// <summary>By how much to negotiate: 0 where the price is fair as it is, null where nobody can tell.</summary>
    public decimal? By => Verdict == SurveyVerdict.Fair ? 0 : Over is { } over ? Math.Max(0, over) : null;

    private static Spread Sum(IEnumerable<Spread> costs) => costs.Aggregate(Spread.Of(0), (one, other) => one + other);
}

public static class SurveyWords
{
    /// <summary>What a survey is not: it stands on every page and print of one.</summary>
    public const string NoInspection = "A pre-purchase survey. It is no inspection and no airworthiness statement.";

    public static string InWords(this SurveyVerdict verdict) => verdict switch
    {
        SurveyVerdict.Fair => "fair",
        SurveyVerdict.Negotiate => "negotiate",
        _ => "walk away",
    };
}
