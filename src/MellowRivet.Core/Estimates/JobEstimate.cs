using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Estimates;

/// <summary>A line of what an inspection costs.</summary>
/// <param name="Key">Its name in this inspection: a discrepancy's number, or its work's key.</param>
/// <param name="Title">What it is.</param>
/// <param name="Kind">What kind of work.</param>
/// <param name="Class">What it means for the aircraft; null for what is no discrepancy.</param>
/// <param name="Priced">Its price.</param>
/// <param name="FallsAwayWith">What it falls away with, by the owner's choice: it is in no sum. Null where it stays.</param>
public sealed record PricedLine(string Key, string Title, WorkKind Kind, DiscrepancyClass? Class, IPriced Priced,
    string? FallsAwayWith = null)
{
    public static PricedLine Of(Discrepancy found, string? fallsAwayWith) =>
        new($"{found.Number:00}", found.What, WorkKind.Found, found.Class, found, fallsAwayWith);

    public static PricedLine Of(PricedWork work) => new(work.Key, work.Title, work.Kind, null, work);

    /// <summary>What it counts as in the sum by class: its class, or its kind of work.</summary>
    public string Group => Class?.InWords() ?? Kind.InWords();
}

/// <summary>A sum of lines.</summary>
/// <param name="Lines">The lines in it.</param>
/// <param name="House">How the shop works: its money, rates and tax.</param>
public sealed record PriceSum(IReadOnlyList<PricedLine> Lines, HouseRules House)
{
    // A line that makes up this share of the variance decides the sum; two lines that do together are both named. The product's own.
    private const double Decides = 0.5;

    /// <summary>Without tax.</summary>
    public SumOfSpreads Net { get; } = SumOfSpreads.Of(Lines.SelectMany(line => line.Priced.Ranges(House)));

    /// <summary>Lines of which something has no price: in no sum. What is only watched takes no work until somebody prices it.</summary>
    public int Unpriced => Lines.Count(line => line.Priced.IsUnpriced(House)
        && (line.Priced.Estimate is not null || line.Class is not (DiscrepancyClass.Watch or DiscrepancyClass.KnownMark)));

    /// <summary>The likely tax: each line's by what held when it was agreed.</summary>
    public decimal Tax => Lines.Sum(line => Math.Round((line.Priced.Price(House)?.Likely ?? 0) * line.Priced.Tax(House) / 100, 2));

    /// <summary>The likely sum, with tax.</summary>
    public decimal Gross => Net.Sum.Likely + Tax;

    /// <summary>The one or two lines whose spread decides how far off the sum may be; empty for none, or for many.</summary>
    public IReadOnlyList<PricedLine> Deciding
    {
        get
        {
            var spreads = Lines.Select(line => (line, Variance: line.Priced.Ranges(House).Sum(range => range.Variance)))
                .OrderByDescending(one => one.Variance).Take(2).ToList();
            return Net.Variance == 0 ? []
                : spreads[0].Variance >= Decides * Net.Variance ? [spreads[0].line]
                : spreads.Sum(one => one.Variance) >= Decides * Net.Variance ? [.. spreads.Select(one => one.line)]
                : [];
        }
    }

    /// <summary>"likely $4,300, nine times in ten under $5,100; Engine mount bushing decides".</summary>
    public string InWords => Net.Variance == 0 ? House.Sum(Net.Sum.Likely) : $"likely {House.Sum(Net.Sum.Likely)}, {SpreadInWords}";

    /// <summary>How far off it may be, and what decides that; empty where every price is one figure.</summary>
    public string SpreadInWords => Net.Variance == 0 ? ""
        : $"nine times in ten under {House.Sum(RoundedUp(Net.P90))}{Deciding switch
        {
            [var only] => $"; {Short(only)} decides",
            [var one, var other] => $"; {Short(one)} and {Short(other)} decide",
            _ => "",
        }}";

    // A figure that is a guess isn't told to the cent.
    private static decimal RoundedUp(double sum)
    {
        var step = sum >= 1_000 ? 10 : 1;
        return (decimal)(Math.Ceiling(Math.Round(sum / step, 6)) * step);
    }

    // Up to the first comma or colon: what it is, without what is wrong with it.
    private static string Short(PricedLine line)
    {
        if (line.Kind == WorkKind.Inspection)
            return line.Kind.InWords();
        var name = line.Title.Split([',', ':', ';', '.'], 2)[0];
        return name.Length <= 40 ? name : $"{name[..40].TrimEnd()}…";
    }
}

/// <summary>What an inspection costs: its lines, and their sums by class and by decision.</summary>
/// <param name="Lines">What is on it, but for what was withdrawn.</param>
/// <param name="House">How the shop works.</param>
public sealed record JobEstimate(IReadOnlyList<PricedLine> Lines, HouseRules House)
{
    /// <summary>What there is to pay if everything that wasn't declined is done.</summary>
    public PriceSum Total => Of(line => line.Priced.Decided() != Decision.Declined);

    /// <summary>Declined lines, and what falls away with a choice, are in no total; they have sums of their own.</summary>
    public IEnumerable<(string Class, PriceSum Sum)> ByClass => Counted.Where(line => line.Priced.Decided() != Decision.Declined)
        .GroupBy(line => line.Group).Select(group => (group.Key, new PriceSum([.. group], House)));

    public IEnumerable<(Decision Decision, PriceSum Sum)> ByDecision => Counted.GroupBy(line => line.Priced.Decided())
        .OrderBy(group => group.Key).Select(group => (group.Key, new PriceSum([.. group], House)));

    private IEnumerable<PricedLine> Counted => Lines.Where(line => line.FallsAwayWith is null);

    public PriceSum Of(Func<PricedLine, bool> which) => new([.. Counted.Where(which)], House);

    /// <summary>The estimate of an inspection as it stands: what was found, other work that has a price, and what was chosen.</summary>
    public static JobEstimate Of(Inspection inspection)
    {
        var away = inspection.FallenAway;
        return new(
        [
            .. inspection.PricedWork.Where(work => work.Kind == WorkKind.Inspection).Select(PricedLine.Of),
            .. FixListRules.WorstFirst(inspection.Discrepancies.Where(found => found.Disposition != Disposition.Withdrawn))
                // What is done was done: it falls away with nothing.
                .Select(found => PricedLine.Of(found, found.IsOpen ? away.GetValueOrDefault(found.Number) : null)),
            .. inspection.PricedWork.Where(work => work.Kind != WorkKind.Inspection).Select(PricedLine.Of),
            .. inspection.Choices.Where(choice => choice is { Number: null, Chosen: not null }).Select(choice =>
                new PricedLine(choice.Key, $"{choice.Title}: {choice.Chose!.Name}", WorkKind.Choice, null, choice)),
        ], inspection.House);
    }
}

public static class WorkWords
{
    public static string InWords(this WorkKind kind) => kind switch
    {
        WorkKind.Inspection => "the inspection itself",
        WorkKind.Due => "due items",
        WorkKind.Bulletin => "bulletins",
        WorkKind.Choice => "what was chosen",
        _ => "found",
    };
}
