using MellowRivet.Core.Estimates;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Surveys;

/// <summary>What a survey is agreed on, as it is typed.</summary>
public sealed record TypedTerms(string? Buyer, string? Wants, string? Asking, string? Limit, string? Hours, string? MayOpen,
    string? InOrder, string? Source, string? Spent)
{
    /// <summary>Longest words of it, in characters, and the most hours that are agreed for looking.</summary>
    public const int LongestWords = 200, MostHours = 200;

    /// <summary>The fields as they stand.</summary>
    public static TypedTerms Of(SurveyTerms terms) => new(terms.Buyer, terms.Wants, Money(terms.Asking), Money(terms.Limit),
        Money(terms.Hours), terms.MayOpen, Money(terms.InOrder?.Price), terms.InOrder?.Source, Money(terms.Spent));

    /// <summary>The terms, or everything that is wrong with them beside its field.</summary>
    public (SurveyTerms? Terms, IReadOnlyList<Refusal> Refusals) Read()
    {
        List<Refusal> wrong = [];
        string Said(string field, string? words, string asked)
        {
            var said = words?.Trim() ?? "";
            if (said.Length > LongestWords || (said.Length == 0 && asked.Length > 0))
                wrong.Add(new(field, asked.Length > 0 ? $"{asked}, in up to {LongestWords} characters."
                    : $"Up to {LongestWords} characters."));
            return said;
        }
        decimal? Sum(string field, string? typed, decimal above, decimal most, string says)
        {
            if (string.IsNullOrWhiteSpace(typed))
                return null;
            if (TypedNumber.Parse(typed) is { } sum && sum > (double)above && sum < (double)most)
                return Math.Round((decimal)sum, 2);
            wrong.Add(new(field, says));
            return null;
        }
        var (buyer, wants) = (Said("Buyer", Buyer, "Who wants to buy it"), Said("Wants", Wants, "What the buyer wants it for"));
        var asking = Sum("Asking", Asking, 0, SurveyQuestion.MostMoney,
            "The asking price, above 0: what costs nothing is no purchase. As a number, without thousands apart.");
        if (asking is null && string.IsNullOrWhiteSpace(Asking))
            wrong.Add(new("Asking", "The asking price: everything is weighed against it."));
        var limit = Sum("Limit", Limit, -1, SurveyQuestion.MostMoney, "The buyer’s limit for the work, from 0 up; empty for none.");
        var hours = Sum("Hours", Hours, 0, MostHours, $"Hours agreed for looking, above 0 and below {MostHours}; empty where none are.");
        var inOrder = Sum("InOrder", InOrder, 0, SurveyQuestion.MostMoney,
            "What such an aircraft fetches in order, above 0; leave it empty where nobody knows: then nothing is said to be fair.");
        var source = Said("Source", Source, inOrder is null ? "" : "Where that figure comes from: adverts of this month, a sale, a dealer");
        if (inOrder is null && string.IsNullOrWhiteSpace(InOrder) && source.Length > 0)
            wrong.Add(new("InOrder", "The price itself; or leave its source empty, too."));
        var spent = Sum("Spent", Spent, -1, SurveyQuestion.MostMoney, "What is spent already, from 0 up.");
        var opens = Said("MayOpen", MayOpen, "");
        return wrong.Count > 0 ? (null, wrong)
            : (new(buyer, wants, asking!.Value, limit, hours, opens, inOrder is { } price ? new(price, source) : null, spent), []);
    }

    internal static string? Money(decimal? sum) => sum?.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture);
}

/// <summary>What is said of an engine or a propeller, as it is typed.</summary>
public sealed record TypedPower(string? Hours, string? Interval, string? Overhaul, string? Supposed, Guid? Choice = null)
{
    private const double Most = 100_000;

    public static TypedPower Of(PowerSaid? said) => new(TypedTerms.Money(said?.Hours), TypedTerms.Money(said?.Interval),
        said?.Overhaul?.AsTyped, TypedTerms.Money(said?.Supposed), said?.Choice);

    /// <summary>It, or what is wrong with it.</summary>
    public (PowerSaid? Said, Refusal? Refusal) Read(Guid componentId)
    {
        var (cost, problem) = Estimate.ReadPrice(Overhaul, "The overhaul");
        if (problem is not null)
            return (null, new("power", problem));
        List<decimal?> read = [];
        foreach (var (typed, what, least) in new[]
        {
            (Hours, "Hours since overhaul from 0 up", 0.0), (Interval, "Hours from one overhaul to the next, above 0", 0.1),
            (Supposed, "Hours that the price supposes, from 0 up", 0.0),
        })
        {
            var value = MeasureText.Value(typed, Unit.Hour);
            if (TypedNumber.IsNone(typed, value) || value < least || value > Most)
                return (null, new("power", $"{what}; empty where nobody knows."));
            read.Add((decimal?)value);
        }
        return (new(componentId, read[0], read[1], cost, read[2], Choice), null);
    }
}
