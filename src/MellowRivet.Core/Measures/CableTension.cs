using System.Text.Json.Serialization;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Measures;

/// <summary>A row of the manual's table: at this temperature the cable is rigged to this tension.</summary>
/// <param name="Celsius">Temperature at the cable, °C.</param>
/// <param name="Pounds">Tension, lb.</param>
public sealed record CableRow(double Celsius, double Pounds);

/// <summary>
/// An aircraft's own table of cable tension by temperature. Steel shrinks less than an aluminium structure, so the same cable
/// reads slacker on a cold morning: a tension means nothing without its temperature.
/// </summary>
/// <param name="Measures">The kinds of measurement it is for: "aileron-cable-left".</param>
/// <param name="Rows">Its rows, rising in temperature; at least two.</param>
/// <param name="TolerancePounds">How far either side is still good, lb.</param>
/// <param name="Reference">Where the manual has it.</param>
/// <param name="Set">Who put it on file; null for what was there before that was kept, or came with a file.</param>
public sealed record CableTable(IReadOnlyList<string> Measures, IReadOnlyList<CableRow> Rows, double TolerancePounds, string Reference,
    WhoSet? Set = null)
{
    /// <summary>"-10 °C 28 lb, 15 °C 38 lb, ±3 lb, manual 27-1".</summary>
    [JsonIgnore]
    public string InWords => $"{string.Join(", ", Rows.Select(row => $"{row.Celsius:0.#} °C {row.Pounds:0.#} lb"))}, "
        + $"±{TolerancePounds:0.#} lb, {Reference}";

    /// <summary>
    /// The tension for a temperature, lb: linear between the two rows it lies between. Null outside the table, which says
    /// nothing there.
    /// </summary>
    public double? Target(double celsius)
    {
        for (var row = 1; row < Rows.Count; row++)
        {
            var (from, to) = (Rows[row - 1], Rows[row]);
            if (celsius >= from.Celsius && celsius <= to.Celsius)
                return from.Pounds + (to.Pounds - from.Pounds) * (celsius - from.Celsius) / (to.Celsius - from.Celsius);
        }
        return null;
    }

    /// <summary>The limits at a temperature; null outside the table.</summary>
    public ToleranceBand? At(double celsius) => Target(celsius) is { } target
        ? new(Unit.Pound, Math.Round(target - TolerancePounds, 2), Math.Round(target + TolerancePounds, 2),
            new(Standing.Manual, $"{Reference}, at {celsius:0.#} °C"))
        : null;

    /// <summary>What a tension is judged by, lb, with the temperature it was read at, °C.</summary>
    public JudgementTable Table() => new(
        new Dictionary<string, double> { ["tolerance"] = TolerancePounds },
        [
            new("target", Making.Along, [Temperature], Points: [.. Rows.Select(row => new[] { row.Celsius, row.Pounds })]),
            new("low", Making.Less, ["target", "tolerance"], 2), new("high", Making.Sum, ["target", "tolerance"], 2),
            .. ToleranceBand.Distances,
        ],
        ToleranceBand.Rows("{low:0.###}–{high:0.###} lb", Unit.Pound,
            new(Standing.Manual, $"{Reference}, at {{{Temperature}:0.#}} °C")))
    {
        Wants =
        [
            new(Temperature, Temperature, $"Type the temperature at the cable: the table of {Reference} goes by it."),
            new("target", Temperature, $"The table of {Reference} runs {Reach} and says nothing at {{{Temperature}:0.#}} °C. Measure "
                + "when the aircraft has another temperature."),
        ],
    };

    /// <summary>What the table of a cable calls the temperature.</summary>
    public const string Temperature = "temperature";

    /// <summary>No cable is hotter than this, nor colder by as much, °C.</summary>
    public const double Hottest = 80;

    /// <summary>What is said of another.</summary>
    public const string NoTemperature = "“{typed}” is no temperature a cable has. Type it in °C or °F.";

    /// <summary>"from −10 to 40 °C".</summary>
    [JsonIgnore]
    public string Reach => $"from {Rows[0].Celsius:0.#} to {Rows[^1].Celsius:0.#} °C";

    /// <summary>Reads a table as it is typed, a row to a line: "15 38" or "15 °C: 38 lb".</summary>
    public static (CableTable? Table, Refusal? Refusal) Read(IReadOnlyList<string> measures, string? rows, double? tolerance,
        string? reference)
    {
        List<CableRow> read = [];
        foreach (var line in (rows ?? "").Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var numbers = line.Replace("°C", " ").Replace("lb", " ")
                .Split([' ', '\t', ';', ':', '='], StringSplitOptions.RemoveEmptyEntries)
                .Select(TypedNumber.Parse).ToList();
            if (numbers is not [{ } celsius, { } pounds] || celsius is < -80 or > 80 || pounds is <= 0 or > 2_000)
                return (null, new("rows", $"“{line}”: a row is the temperature in °C and the tension in lb, such as 15 38."));
            read.Add(new(celsius, pounds));
        }
        var table = new CableTable(measures, read, tolerance ?? 0, reference?.Trim() ?? "");
        return table.Fault() is { } fault ? (null, fault) : (table, null);
    }

    /// <summary>What is wrong with it; null for a table that can be judged by.</summary>
    public Refusal? Fault()
    {
        if (Rows.Count < 2)
            return new("rows", "A table has at least two rows, each on its own line.");
        if (Rows.Count > 60 || Rows.Any(row => row.Celsius is < -80 or > 80 || row.Pounds is <= 0 or > 2_000)
            || Rows.Zip(Rows.Skip(1)).Any(pair => pair.Second.Celsius <= pair.First.Celsius))
            return new("rows", "The rows rise in temperature, each once, up to 60 of them, between -80 and 80 °C.");
        if (TolerancePounds is not (> 0 and <= 200))
            return new("tolerance", "How many lb either side are still good?");
        return Reference.Length is 0 or > 80
            ? new("reference", "The manual's reference: chapter, page, revision, up to 80 characters.")
            : null;
    }
}
