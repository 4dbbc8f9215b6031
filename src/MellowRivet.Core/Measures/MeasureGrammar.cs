using System.Globalization;

namespace MellowRivet.Core.Measures;

/// <summary>A unit with all that hands write for it.</summary>
public sealed record WrittenUnit(string Symbol, Dimension Dimension, double Factor, double Offset, IReadOnlyList<string> Names);

/// <summary>
/// What a measure is read by as it is typed, laid out as data: the shapes of what is written, the units and their names, and what is
/// said where it can't be read. <see cref="MeasureText"/> reads by it, and so does a device that can't reach the shop.
/// </summary>
/// <param name="Shapes">Regular expressions by name, as both .NET and browsers understand them.</param>
/// <param name="Marks">What is read as something else, in this order: a minus sign as a hyphen, ½ as 1/2.</param>
/// <param name="Words">What is said of a text that can't be read, with names in braces for what it is about.</param>
/// <param name="Dimensions">What a dimension is called in a sentence.</param>
/// <param name="Units">Every unit that is read.</param>
/// <param name="OpenCircuit">What a circuit that is open stands in the records as, Ω.</param>
/// <param name="Most">More than this is no measure here.</param>
public sealed record MeasureGrammar(IReadOnlyDictionary<string, string> Shapes, IReadOnlyList<KeyValuePair<string, string>> Marks,
    IReadOnlyDictionary<string, string> Words, IReadOnlyDictionary<Dimension, string> Dimensions, IReadOnlyList<WrittenUnit> Units,
    double OpenCircuit, double Most)
{
    internal const string Mixed =
        @"^((?<minus>-)|\+)?\s*((?<whole>[0-9]{1,6})(\s+|\s*-\s*))?(?<over>[0-9]{1,4})\s*/\s*(?<under>[0-9]{1,4})(?![0-9.,/])";

    internal const string Lettered = @"^((?<minus>-)|\+)?(?<whole>[0-9]{1,4})(?<letter>[kKM])(?<tenths>[0-9]{1,3})(?![0-9.,])";

    internal const string Grouped =
        @"^((?<minus>-)|\+)?\s*(?<number>[0-9]{1,3}(( [0-9]{3})+([.,][0-9]+)?|(,[0-9]{3})+\.[0-9]+|(,[0-9]{3}){2,}"
        + @"|(\.[0-9]{3})+,[0-9]+|(\.[0-9]{3}){2,}))(?![0-9.,])";

    internal const string Decimal = @"^((?<minus>-)|\+)?\s*(?<number>[0-9]+([.,][0-9]*)?|[.,][0-9]+)(?![0-9.,])";

    // Fourteen thousand and five hundred, or fourteen and a half: nobody is to find out at the signature.
    internal const string TwoMeanings = "^[1-9][0-9]{0,2},[0-9]{3}$";

    internal const string Open =
        @"^([oO][pP][eE][nN]( [cC][iI][rR][cC][uU][iI][tT])?|[oO]\.?[lL]\.?|[iI][nN][fF]([iI][nN][iI][tT][eEyY])?|∞)$";
    internal const string Clock = "^([0-9]{1,6}):([0-5][0-9])$";
    internal const string Fraction = @"^[0-9.,]+\s*/\s*[0-9]";
    internal const string Plain = @"^[-+]?([0-9]+(\.[0-9]*)?|\.[0-9]+)$";

    internal static IReadOnlyList<KeyValuePair<string, string>> Signs { get; } =
    [
        new("−", "-"), new("–", "-"), new("\u00a0", " "), new("\u202f", " "), new("⁄", "/"), new("½", " 1/2"), new("¼", " 1/4"),
        new("¾", " 3/4"), new("⅛", " 1/8"), new("⅜", " 3/8"), new("⅝", " 5/8"), new("⅞", " 7/8"),
    ];

    internal const string NoNumber = "“{typed}” is no number. Type one in “{unit}”.";
    internal const string OnePressure = "“{typed}”: one pressure is wanted here, in {unit}.";
    internal const string MegaOrMilli = "“{typed}”: {number} MΩ or {number} mΩ? Type {number}M or {number} mΩ.";
    internal const string OtherDimension = "“{typed}” is {other}: here {wanted} is wanted, in {unit}.";
    internal const string Unreadable = "“{typed}” can’t be read. Type a number in “{unit}”.";
    internal const string TooMuch = "“{typed}” is more than anything here measures.";
    internal const string Two = "“{written}”: {joined} or {pointed}? Type it without a comma, or with a point.";

    /// <summary>The one there is.</summary>
    public static MeasureGrammar Current { get; } = new(
        new Dictionary<string, string>
        {
            ["mixed"] = Mixed, ["lettered"] = Lettered, ["grouped"] = Grouped, ["decimal"] = Decimal, ["twoMeanings"] = TwoMeanings,
            ["open"] = Open, ["clock"] = Clock, ["fraction"] = Fraction, ["plain"] = Plain,
        },
        Signs,
        new Dictionary<string, string>
        {
            ["noNumber"] = NoNumber, ["onePressure"] = OnePressure, ["megaOrMilli"] = MegaOrMilli, ["otherDimension"] = OtherDimension,
            ["unreadable"] = Unreadable, ["tooMuch"] = TooMuch, ["two"] = Two,
        },
        Enum.GetValues<Dimension>().ToDictionary(dimension => dimension, InWords), UnitNames.All, MeasureText.OpenCircuit,
        MeasureText.Most);

    internal static string InWords(Dimension dimension) => dimension switch
    {
        Dimension.Area or Dimension.Angle => $"an {dimension.ToString().ToLowerInvariant()}",
        Dimension.RotationalSpeed => "a speed of rotation",
        Dimension.Time => "a time",
        _ => $"a {dimension.ToString().ToLowerInvariant()}",
    };

    /// <summary>Words with what they are about in the place of its name.</summary>
    internal static string Say(string words, params (string Name, object? About)[] about) => about.Aggregate(words,
        (said, one) => said.Replace($"{{{one.Name}}}", Convert.ToString(one.About, CultureInfo.InvariantCulture),
            StringComparison.Ordinal));
}
