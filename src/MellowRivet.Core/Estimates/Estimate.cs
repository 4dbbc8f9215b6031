using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Estimates;

/// <summary>Hours of one skill.</summary>
public sealed record Labour(Skill Skill, Spread Hours);

/// <summary>A part, or something by the inch or the litre, that a job takes.</summary>
/// <param name="What">What it is, in words.</param>
/// <param name="Number">Its part number; empty where nobody has said.</param>
/// <param name="Quantity">How many, or how much.</param>
/// <param name="Unit">Of what: "in", "l"; empty for pieces.</param>
/// <param name="Price">What one costs; null where nobody has said.</param>
/// <param name="LeadDays">Days it takes to come; null where nobody has said, or it lies on the shelf.</param>
/// <param name="OnShelf">It lies on the shop's own shelf.</param>
public sealed record PartNeeded(string What, string Number, decimal Quantity, string Unit, Spread? Price, int? LeadDays, bool OnShelf)
{
    public Spread? Cost => Price?.Times(Quantity);

    /// <summary>How many of what: "8 × gasket under a plug, MS-18".</summary>
    public string InWords => $"{Quantity:0.##} {(Unit.Length > 0 ? Unit : "×")} {What}{(Number.Length > 0 ? $", {Number}" : "")}";
}

/// <summary>What somebody outside the shop does for it.</summary>
/// <param name="What">What, and who; may be empty.</param>
/// <param name="Price">What it costs; null where nobody has said.</param>
/// <param name="Days">Days it is away; null where nobody has said.</param>
public sealed record OutsideWork(string What, Spread? Price, int? Days);

/// <summary>What a piece of work is expected to take. What nobody said is null or empty, and never nothing.</summary>
/// <param name="Labour">Hours, a line for each skill.</param>
/// <param name="Parts">The parts.</param>
/// <param name="Outside">What is done outside; null for nothing.</param>
/// <param name="WaitsFor">What it waits for, in words: a cure, a look by somebody, another line; may be empty.</param>
/// <param name="PartsBy">The day the parts are expected; null where nobody has said.</param>
/// <param name="CureHours">Hours after the work in which it cures or dries and nothing goes on; null for none.</param>
/// <param name="Place">The place it takes, of which the shop has only so many: "stand", "hoist"; empty for none.</param>
/// <param name="After">Keys of other lines that have to be done before; null for none.</param>
public sealed record Estimate(IReadOnlyList<Labour> Labour, IReadOnlyList<PartNeeded> Parts, OutsideWork? Outside = null,
    string WaitsFor = "", DateOnly? PartsBy = null, decimal? CureHours = null, string Place = "", IReadOnlyList<string>? After = null)
{
    /// <summary>More hours, or a dearer part, than any line of a shop's has.</summary>
    public const decimal MostHours = 1_000, MostPrice = 10_000_000, MostQuantity = 10_000;

    /// <summary>Most parts of one line, the longest words, the longest a part is waited for, in days, and so on.</summary>
    public const int MostParts = 40, LongestWords = 120, LongestWait = 1_500, LongestPlace = 30, MostAfter = 20;

    /// <summary>What a price of parts typed as one sum is called.</summary>
    public const string PartsAtOnce = "parts";

    public static readonly Estimate Nothing = new([], []);

    /// <summary>A mechanic's hours and a sum for the parts.</summary>
    public static Estimate Of(decimal? hours, decimal? parts, DateOnly? partsBy = null) => new(
        hours is { } labour ? [new(Skill.Mechanic, Spread.Of(labour))] : [],
        parts is { } price ? [AtOnce(Spread.Of(price))] : [], null, "", partsBy);

    private static PartNeeded AtOnce(Spread price) => new(PartsAtOnce, "", 1, "", price, null, false);

    /// <summary>Nobody has said anything.</summary>
    public bool SaysNothing => Labour.Count == 0 && Parts.Count == 0 && Outside is null && WaitsFor.Length == 0 && PartsBy is null
        && CureHours is null && Place.Length == 0 && After is not { Count: > 0 };

    /// <summary>All its hours; null where nobody has said.</summary>
    public Spread? Hours => Labour.Count == 0 ? null : Labour.Aggregate(Spread.Of(0), (sum, labour) => sum + labour.Hours);

    /// <summary>All its parts; null where none has a price.</summary>
    public Spread? PartsCost => Sum(Parts.Select(part => part.Cost));

    /// <summary>The hours can be typed as one field: a mechanic's, or none so far.</summary>
    public bool HasPlainHours => Labour is [] or [{ Skill: Skill.Mechanic }];

    /// <summary>The parts can be typed as one sum: nobody has listed them.</summary>
    public bool HasPlainParts => Parts is [] or [{ What: PartsAtOnce, Number.Length: 0, Quantity: 1 }];

    /// <summary>Parts and outside work that have no price yet: they are in no sum.</summary>
    public int Unpriced => Parts.Count(part => part.Price is null) + (Outside is { Price: null } ? 1 : 0);

    /// <summary>Each independent spread of money in it: every skill's hours, every part, the outside work.</summary>
    public IEnumerable<Spread> Ranges(Rates rates) =>
    [
        .. Labour.Select(labour => labour.Hours.Times(rates.Of(labour.Skill))), .. Parts.Select(part => part.Cost).OfType<Spread>(),
        .. Outside?.Price is { } outside ? new[] { outside } : [],
    ];

    /// <summary>What it costs by these rates, without tax; null where nobody has said anything that costs.</summary>
    public Spread? Price(Rates rates) => Sum(Ranges(rates).Select(range => (Spread?)range));

    /// <summary>
    /// Days until it can go on: the slowest part that isn't on the shelf, or the outside work. Null where nobody has said.
    /// </summary>
    public int? Waits => Parts.Where(part => !part.OnShelf).Select(part => part.LeadDays).Append(Outside?.Days).Max();

    /// <summary>The slowest part: what to order today.</summary>
    public PartNeeded? Slowest => Parts.Where(part => !part.OnShelf && part.LeadDays > 0).MaxBy(part => part.LeadDays);

    /// <summary>What hours, parts and outside work are typed as in one line of a list.</summary>
    /// <param name="hours">A mechanic's hours.</param>
    /// <param name="parts">The parts as one sum.</param>
    /// <param name="outside">Outside work.</param>
    /// <param name="was">What stood there: what a list of parts says in more detail stays, since its field can't be typed in.</param>
    public static (Estimate? Estimate, Refusal? Refusal) Read(string? hours, string? parts, string? outside, Estimate? was)
    {
        was ??= Nothing;
        var (labour, wrongHours) = ReadHours(hours);
        var (price, wrongParts) = ReadPrice(parts, "Parts");
        var (away, wrongOutside) = ReadPrice(outside, "Outside work");
        if ((wrongHours ?? wrongParts ?? wrongOutside) is { } wrong)
            return (null, new("estimate", wrong));
        return (was with
        {
            Labour = !was.HasPlainHours ? was.Labour : labour is { } taken ? [new(Skill.Mechanic, taken)] : [],
            Parts = !was.HasPlainParts ? was.Parts
                : price is { } sum ? [(was.Parts is [var only] ? only : AtOnce(sum)) with { Price = sum }] : [],
            Outside = away is { } paid ? (was.Outside ?? new("", null, null)) with { Price = paid }
                : was.Outside is { What.Length: > 0 } or { Days: not null } ? was.Outside with { Price = null } : null,
        }, null);
    }

    /// <summary>Hours as typed.</summary>
    public static (Spread? Spread, string? Problem) ReadHours(string? typed) =>
        Spread.Read(typed, one => MeasureText.Value(one, Unit.Hour), MostHours, "Hours");

    /// <summary>Money as typed.</summary>
    public static (Spread? Spread, string? Problem) ReadPrice(string? typed, string what) =>
        Spread.Read(typed, TypedNumber.Parse, MostPrice, what);

    /// <summary>What is wrong with it; null where it can be kept.</summary>
    public Refusal? Check() =>
        Labour.Any(labour => labour.Hours is { Low: < 0 } or { High: >= MostHours } || Falls(labour.Hours))
            ? new("estimate", $"Hours from 0 to {MostHours:#,0}, low first.")
        : Labour.Select(labour => labour.Skill).Distinct().Count() < Labour.Count || Labour.Any(labour => !Enum.IsDefined(labour.Skill))
            ? new("estimate", "A skill stands there once.")
        : Parts.Count > MostParts ? new("estimate", $"Up to {MostParts} parts to a line.")
        : Parts.FirstOrDefault(part => part.What.Length is 0 or > LongestWords || part.Number.Length > LongestWords
            || part.Unit.Length > 10) is { } unnamed
            ? new("estimate", $"Say what part it is, in up to {LongestWords} characters{(unnamed.Number.Length > 0
                ? $": {unnamed.Number}" : "")}.")
        : Parts.FirstOrDefault(part => part.Quantity is <= 0 or > MostQuantity) is { } none
            ? new("estimate", $"{none.What}: how many, above 0 and up to {MostQuantity:#,0}.")
        : Parts.FirstOrDefault(part => part.Price is { Low: < 0 } or { High: >= MostPrice } || (part.Price is { } price && Falls(price)))
            is { } dear
            ? new("estimate", $"{dear.What}: a price from 0 up, below {MostPrice:#,0}, low first.")
        : Parts.FirstOrDefault(part => part.LeadDays is < 0 or > LongestWait) is { } late
            ? new("estimate", $"{late.What}: days until it comes, from 0 to {LongestWait:#,0}.")
        : Outside is { Days: < 0 or > LongestWait } or { What.Length: > LongestWords }
            || (Outside?.Price is { } away && (away.Low < 0 || away.High >= MostPrice || Falls(away)))
            ? new("estimate",
                $"Outside work: who and what in up to {LongestWords} characters, a price from 0 up, days up to {LongestWait:#,0}.")
        : WaitsFor.Length > LongestWords ? new("estimate", $"What it waits for, in up to {LongestWords} characters.")
        : CureHours is < 0 or > (decimal)Inspections.Cure.MostHours
            ? new("cure", $"Hours to cure from 0 to {Inspections.Cure.MostHours:0}: the can or the tube says.")
        : Place.Length > LongestPlace ? new("place", $"The place it takes, in up to {LongestPlace} characters.")
        : After?.Count > MostAfter ? new("after", $"Up to {MostAfter} lines before it.")
        : null;

    private static bool Falls(Spread spread) => spread.Low > spread.Likely || spread.Likely > spread.High;

    private static Spread? Sum(IEnumerable<Spread?> parts)
    {
        var said = parts.OfType<Spread>().ToList();
        return said.Count == 0 ? null : said.Aggregate((one, other) => one + other);
    }
}
