using MellowRivet.Core.Inspections;

namespace MellowRivet.Store.Passports;

/// <summary>One kind of row that goes with an aircraft.</summary>
/// <param name="File">Its file in the passport, without folder and ending.</param>
/// <param name="Table">The table.</param>
/// <param name="Where">Which rows go, with the aircraft as <c>@aircraft</c>.</param>
/// <param name="What">What the rows are, for whoever reads the format.</param>
/// <param name="Left">Columns that mean nothing elsewhere.</param>
internal sealed record PassportTable(string File, string Table, string Where, string What, params string[] Left)
{
    public string Path => $"data/{File}.jsonl";
}

/// <summary>
/// What goes with an aircraft, in the order in which it can be taken in. A table that is added to the shop is named here or in
/// <see cref="Staying"/>: a test holds that.
/// </summary>
internal static class PassportTables
{
    // A survey before a purchase is the buyer's, and stays with the shop: what came of it is open on the aircraft.
    private const string Inspections =
        $"SELECT \"Id\" FROM \"Inspections\" WHERE \"AircraftId\" = @aircraft AND \"Kind\" <> '{nameof(InspectionKind.Survey)}'";

    private const string OfInspections = $"\"InspectionId\" IN ({Inspections})";
    private const string OfAircraft = "\"AircraftId\" = @aircraft";
    private const string EverOn = "SELECT \"ComponentId\" FROM \"Installations\" WHERE \"AircraftId\" = @aircraft";

    // A part that is on another aircraft now took with it what hangs on it.
    private const string StillHere =
        $"\"ComponentId\" IN ({EverOn} EXCEPT SELECT \"ComponentId\" FROM \"Installations\" WHERE \"AircraftId\" <> @aircraft "
        + "AND \"RemovedAt\" IS NULL)";

    private const string OfAircraftOrPart = $"({OfAircraft} OR ({StillHere}))";
    private const string NoSurveys = $"(\"InspectionId\" IS NULL OR {OfInspections})";

    public static readonly PassportTable Aircraft = new("aircraft", "Aircraft", "\"Id\" = @aircraft", "the data plate, one row",
        "OnlySurveyed");

    public static readonly PassportTable Keys = new("keys", "ShopKeys",
        "\"ShopThere\" IS NULL OR \"Chain\" IN (SELECT \"ChainThere\" FROM \"SignedRecords\" WHERE \"AircraftId\" = @aircraft) "
        + "OR \"Fingerprint\" IN (SELECT \"Fingerprint\" FROM \"Passports\" WHERE \"AircraftId\" = @aircraft)",
        "the keys of every shop that signed something in it, each with its hand-over");

    public static readonly PassportTable Records = new("records", "SignedRecords", OfAircraft,
        "signed records: `Json` is the very text, `Hash` is SHA-256 over `PreviousHash`, a line feed and it, `Signature` the shop’s over "
        + "the hash", "Number", "TakenInAt");

    public static readonly PassportTable People = new("people", "People", "\"Id\" IN ({0})",
        "who measured, found, signed: name, initials and certificates; no account", "CalendarKeyHash", "Roles", "LeftAt", "Owns", "Week");

    public static readonly PassportTable Bulletins = new("bulletins", "Bulletins",
        "\"Family\" IN (SELECT \"Family\" FROM \"BulletinCases\" WHERE " + OfAircraftOrPart + ") OR EXISTS (SELECT 1 FROM \"Inspections\" "
        + "AS i WHERE i.\"AircraftId\" = @aircraft AND i.\"Kind\" <> 'Survey' AND instr(i.\"Bulletins\", lower(\"Bulletins\".\"Id\")) > 0)",
        "bulletins that something was decided or done about, or that an inspection looked up");

    public static readonly PassportTable InspectionRows = new("inspections", "Inspections",
        $"\"Id\" IN ({Inspections})", "inspections and jobs, with looks, sheets, judgements and how each was answered, prices, choices");

    public static readonly PassportTable Evidence = new("evidence", "Evidence", OfAircraft,
        "what signed records rest on: digests of rows, and files; a record’s text has the hash of its `Json`");

    public static readonly PassportTable Passports = new("passports", "Passports", OfAircraft,
        "passports that it came with before, each with its manifest");

    public static readonly IReadOnlyList<PassportTable> All =
    [
        Keys, People, Aircraft,
        new("parts", "Component", $"\"Id\" IN ({EverOn})", "parts that are or were on it"),
        new("stays", "Installations", OfAircraft, "where each part sat, from when to when"),
        new("meter-readings", "MeterReadings", OfAircraft, "what its meters showed"),
        new("due-items", "DueItems", OfAircraftOrPart, "what falls due, and every time it was done"),
        new("books", "LogBooks", OfAircraft, "its books"),
        new("book-entries", "BookEntries", OfAircraft, "their entries"),
        Bulletins,
        new("bulletin-cases", "BulletinCases", OfAircraftOrPart, "what was decided and done about each bulletin"),
        new("stated-facts", "StatedFacts", OfAircraftOrPart, "facts that were read off it"),
        InspectionRows,
        new("tasks", "InspectionTask", OfInspections, "the tasks of each walk, with verdicts"),
        new("compression-tests", "CompressionTest", OfInspections, "compression tests"),
        new("discrepancies", "Discrepancy", OfInspections, "what was found, with photos, steps, answers, prices"),
        new("readings", "Readings", $"{OfAircraft} AND {NoSurveys}", "everything measured"),
        new("open-items", "OpenItems", OfAircraft, "what inspections left open, and how it ended"),
        new("engine-logs", "EngineLogs", OfAircraft, "engine-monitor logs"),
        new("booked-times", "BookedTimes", OfInspections, "hours that were booked"),
        new("ordered-parts", "OrderedParts", $"({OfAircraft} OR {OfInspections}) AND {NoSurveys}", "parts that were ordered, with traces"),
        new("amendments", "Amendments", $"{OfAircraft} AND \"Subject\" NOT IN (SELECT \"Id\" FROM \"Readings\" WHERE NOT {NoSurveys})",
            "what stood in its file wrong and was put right in the open"),
        Evidence, Records,
        Passports,
    ];

    /// <summary>Tables that stay with a shop, whatever aircraft goes.</summary>
    public static readonly IReadOnlyList<string> Staying =
    [
        "AspNetUsers", "AspNetUserClaims", "AspNetUserLogins", "AspNetUserTokens", "Editions", "Feeds", "Log", "Marks", "OwnerLinks",
        "Plans", "Postings", "Sessions", "Shop", "Tools", "Types", "Whereabouts",
    ];
}

/// <summary>Which tables a passport has, for whoever asks about the format.</summary>
public static class PassportFormat
{
    /// <summary>The tables whose rows go with an aircraft.</summary>
    public static IReadOnlyList<string> Goes { get; } = [.. PassportTables.All.Select(table => table.Table)];

    /// <summary>The tables that stay with the shop.</summary>
    public static IReadOnlyList<string> Stays => PassportTables.Staying;
}
