using System.Globalization;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Estimates;

/// <summary>One way to go about something.</summary>
public enum AlternativeKind { Repair = 1, Exchange, Replace, Overhaul, Leave }

/// <summary>One of the ways side by side.</summary>
/// <param name="Name">What it is, in words.</param>
/// <param name="Kind">Which way.</param>
/// <param name="Estimate">What it takes.</param>
/// <param name="BuysHours">Hours it buys until it comes up again; null where nobody has said.</param>
/// <param name="DownDays">Days the aircraft is out of use for it; null where nobody has said.</param>
/// <param name="FallsAway">Numbers of the lines of the list that fall away with it.</param>
public sealed record Alternative(string Name, AlternativeKind Kind, Estimate Estimate, decimal? BuysHours, int? DownDays,
    IReadOnlyList<int> FallsAway)
{
    /// <summary>What an hour of what it buys costs; null where one of the two isn't known.</summary>
    public decimal? PriceOfHour(HouseRules house) =>
        BuysHours is > 0 and var hours && Estimate.Price(house.HourlyRates()) is { } price ? Math.Round(price.Likely / hours, 2) : null;
}

/// <summary>An alternative as it is typed.</summary>
public sealed record TypedAlternative(string? Name, AlternativeKind Kind, string? Hours, string? Parts, string? Outside, string? BuysHours,
    string? DownDays, string? FallsAway)
{
    /// <summary>Nobody typed anything that says what it is: the row is left out.</summary>
    public bool IsEmpty => new[] { Name, Hours, Parts, Outside, BuysHours, DownDays, FallsAway }.All(string.IsNullOrWhiteSpace);

    /// <summary>The alternative, or what is wrong with it.</summary>
    /// <param name="numbers">The numbers that stand on the list.</param>
    public (Alternative? Alternative, Refusal? Refusal) Read(IReadOnlyCollection<int> numbers)
    {
        Refusal Wrong(string message) => new("alternatives", string.IsNullOrWhiteSpace(Name) ? message : $"{Name.Trim()}: {message}");
        if (string.IsNullOrWhiteSpace(Name) || Name.Trim().Length > Choice.LongestTitle)
            return (null, Wrong($"Say what each way is, in up to {Choice.LongestTitle} characters."));
        if (!Enum.IsDefined(Kind))
            return (null, Wrong("choose which way it is."));
        var (estimate, refusal) = Estimate.Read(Hours, Parts, Outside, null);
        if (estimate is null || (refusal ??= estimate.Check()) is not null)
            return (null, Wrong(refusal!.Message));
        var buys = MeasureText.Value(BuysHours, Unit.Hour);
        if (TypedNumber.IsNone(BuysHours, buys) || buys is < 0 or > 100_000)
            return (null, Wrong("hours it buys as a number from 0 to 100,000."));
        var days = TypedNumber.Parse(DownDays);
        if (TypedNumber.IsNone(DownDays, days) || days is < 0 or > Estimate.LongestWait || days % 1 > 0)
            return (null, Wrong($"days out as a whole number from 0 to {Estimate.LongestWait:#,0}."));
        List<int> away = [];
        foreach (var word in (FallsAway ?? "").Split([' ', ',', ';'], StringSplitOptions.RemoveEmptyEntries))
        {
            if (!int.TryParse(word, NumberStyles.None, CultureInfo.InvariantCulture, out var number) || !numbers.Contains(number))
                return (null, Wrong($"“{word}” is no number of this list."));
            away.Add(number);
        }
        return (new(Name.Trim(), Kind, estimate, (decimal?)buys, (int?)days, [.. away.Distinct().Order()]), null);
    }
}

/// <summary>Which way was taken.</summary>
/// <param name="Index">Which of the alternatives, from 0.</param>
/// <param name="By">Who noted it; null for the owner, on the owner's page.</param>
/// <param name="At">When.</param>
public sealed record Chosen(int Index, Guid? By, DateTimeOffset At);

/// <summary>Ways to go about one thing, side by side, of which the owner chooses one.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Title">What is to be decided.</param>
/// <param name="Number">The line of the list that it is about; null for none, or for more than a line.</param>
/// <param name="Alternatives">Two ways or more.</param>
/// <param name="Asked">The owner is asked.</param>
/// <param name="Chosen">Which was taken; null until then.</param>
/// <param name="Agreed">Its price as it was agreed.</param>
public sealed record Choice(Guid Id, string Title, int? Number, IReadOnlyList<Alternative> Alternatives, bool Asked = false,
    Chosen? Chosen = null, AgreedPrice? Agreed = null) : IPriced
{
    public const int LongestTitle = 80, Most = 4;

    public string Key => $"choice-{Id:N}";
    public Alternative? Chose => Chosen is { } chosen ? Alternatives[chosen.Index] : null;
    public Estimate? Estimate => Chose?.Estimate;
    public Disposition Disposition => Chosen is not null ? Disposition.Approved : Asked ? Disposition.Asked : Disposition.Open;

    /// <summary>What the owner reads, so that a choice is one of what was read.</summary>
    public string AsItStands(HouseRules house) => string.Join('|', Alternatives.Select(one => string.Create(CultureInfo.InvariantCulture,
        $"{one.Name}:{one.Estimate.Price(house.HourlyRates())}:{one.BuysHours}:{one.DownDays}:{string.Join(',', one.FallsAway)}")));

    /// <summary>What is wrong with it; null where it can be kept.</summary>
    public Refusal? Check() => string.IsNullOrWhiteSpace(Title) || Title.Length > LongestTitle
            ? new("title", $"Say what is to be decided, in up to {LongestTitle} characters.")
        : Alternatives.Count is < 2 or > Most ? new("alternatives", $"From 2 to {Most} ways, side by side.")
        : Alternatives.Select(one => one.Name).Distinct(StringComparer.OrdinalIgnoreCase).Count() < Alternatives.Count
            ? new("alternatives", "Two ways have the same name.")
        : Number is { } here && Alternatives.Any(one => one.FallsAway.Contains(here))
            ? new("alternatives", $"{here:00} is what is to be decided: it can't fall away with itself.")
        : null;
}

public static class AlternativeWords
{
    public static string InWords(this AlternativeKind kind) => kind switch
    {
        AlternativeKind.Leave => "leave it",
        _ => kind.ToString().ToLowerInvariant(),
    };
}
