using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Surveys;

/// <summary>What such an aircraft fetches in order, as the buyer says.</summary>
/// <param name="Price">The price, above 0.</param>
/// <param name="Source">Where the figure comes from: adverts, a dealer, a sale.</param>
public sealed record PriceInOrder(decimal Price, string Source);

/// <summary>What a survey is agreed on.</summary>
/// <param name="Buyer">Who buys, and wants to know.</param>
/// <param name="Wants">What the buyer wants it for.</param>
/// <param name="Asking">The asking price, above 0.</param>
/// <param name="Limit">The most the buyer would spend on putting it right; null for none. The seller never reads it.</param>
/// <param name="Hours">Hours agreed for looking; null where nobody said.</param>
/// <param name="MayOpen">What may be opened; empty for nothing but what opens by hand.</param>
/// <param name="InOrder">What such an aircraft fetches in order; null while nobody said.</param>
/// <param name="Spent">What the buyer has spent on it already, such as a deposit: said, and in no sum.</param>
public sealed record SurveyTerms(string Buyer, string Wants, decimal Asking, decimal? Limit, decimal? Hours, string MayOpen,
    PriceInOrder? InOrder = null, decimal? Spent = null);

/// <summary>What a survey says of something found, beside its class and its price.</summary>
/// <param name="Number">Its number on the list.</param>
/// <param name="SellerPays">The seller is to pay it.</param>
/// <param name="Hidden">It was hidden by something that isn't opened in daily use.</param>
/// <param name="Stops">It ends the deal at any price.</param>
public sealed record SurveyMark(int Number, bool SellerPays, bool Hidden, bool Stops);

/// <summary>What is said of an engine or a propeller for its money, where its file doesn't say it.</summary>
/// <param name="ComponentId">Which.</param>
/// <param name="Hours">Hours since overhaul as taken, where nobody knows them; null for what the file says.</param>
/// <param name="Interval">Hours from one overhaul to the next, where the due line doesn't say; null for what it says.</param>
/// <param name="Overhaul">What an overhaul, or another one in its place, costs; null where nobody said.</param>
/// <param name="Supposed">Hours since overhaul that the price in order supposes; null for what the rules say.</param>
/// <param name="Choice">The ways side by side that are about it: once one of them begins it anew, nothing of it is used up.</param>
public sealed record PowerSaid(Guid ComponentId, decimal? Hours, decimal? Interval, Spread? Overhaul, decimal? Supposed,
    Guid? Choice = null);

/// <summary>What doing a due item costs.</summary>
public sealed record PricedDue(Guid Item, Spread Cost);

/// <summary>What is held in reserve for something that isn't looked at.</summary>
/// <param name="Key">The task, or a name of its own.</param>
/// <param name="What">What it is; empty for a task's own words.</param>
/// <param name="Sum">The sum, from 0.</param>
public sealed record ReserveSaid(string Key, string What, decimal Sum);

/// <summary>Whether what a book tells of is to be seen on the aircraft.</summary>
public enum SeenThere { Seen = 1, NotThere, CannotSee }

/// <summary>Damage or a repair in the books, looked for on the aircraft.</summary>
/// <param name="Key">The entry, or the form.</param>
/// <param name="Says">What was seen.</param>
/// <param name="By">Who looked.</param>
/// <param name="At">When.</param>
public sealed record DamageLooked(string Key, SeenThere Says, Guid By, DateTimeOffset At);

/// <summary>The buyer was told to stop, and went on.</summary>
/// <param name="Stops">Numbers of what stopped the deal then.</param>
/// <param name="Work">What the work likely came to then.</param>
/// <param name="By">Who noted it.</param>
/// <param name="At">When.</param>
public sealed record WentOn(IReadOnlyList<int> Stops, decimal Work, Guid By, DateTimeOffset At);

/// <summary>How the looking came to its end.</summary>
/// <param name="Early">Something was not looked at.</param>
/// <param name="Why">Why it ended early; empty where it didn't.</param>
/// <param name="By">Who ended it.</param>
/// <param name="At">When.</param>
public sealed record SurveyEnd(bool Early, string Why, Guid By, DateTimeOffset At);

/// <summary>What came of it.</summary>
/// <param name="IsBought">The buyer bought it.</param>
/// <param name="By">Who noted it.</param>
/// <param name="At">When.</param>
public sealed record SurveyOutcome(bool IsBought, Guid By, DateTimeOffset At);

/// <summary>A pre-purchase survey, beside the walk it is made on.</summary>
/// <param name="Terms">What it is agreed on.</param>
/// <param name="Rules">What it is weighed by.</param>
public sealed record Survey(SurveyTerms Terms, SurveyRules Rules)
{
    public IReadOnlyList<SurveyMark> Marks { get; init; } = [];
    public IReadOnlyList<PowerSaid> Power { get; init; } = [];
    public IReadOnlyList<PricedDue> Due { get; init; } = [];
    public IReadOnlyList<ReserveSaid> Reserves { get; init; } = [];
    public IReadOnlyList<DamageLooked> Damage { get; init; } = [];

    /// <summary>The buyer was told to stop, and went on; null while that wasn't so.</summary>
    public WentOn? WentOn { get; init; }

    /// <summary>How the looking ended; null while it goes on.</summary>
    public SurveyEnd? End { get; init; }

    /// <summary>What came of it; null until somebody said.</summary>
    public SurveyOutcome? Outcome { get; init; }

    /// <summary>What is said of something found; nothing where nobody said anything.</summary>
    public SurveyMark MarkOf(int number) => Marks.FirstOrDefault(mark => mark.Number == number) ?? new(number, false, false, false);
}

public static class SeenThereWords
{
    /// <summary>What one presses to say so.</summary>
    public static string Verb(this SeenThere says) => says switch
    {
        SeenThere.Seen => "Seen",
        SeenThere.NotThere => "Not there",
        _ => "Can’t be seen",
    };

    public static string InWords(this SeenThere says) => says switch
    {
        SeenThere.Seen => "seen on the aircraft",
        SeenThere.NotThere => "not to be found on it",
        _ => "can’t be seen without opening",
    };
}
