using System.Data.Common;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace MellowRivet.Store.Proof;

/// <summary>A row that a signed record rests on.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Digest">The digest of what counts in it.</param>
/// <param name="Words">What a person knows it by.</param>
public sealed record BoundRow(string Id, string Digest, string Words);

/// <summary>Rows of one table that signed records rest on.</summary>
/// <param name="Name">How the evidence calls them.</param>
/// <param name="One">What one of them is, in words.</param>
/// <param name="Table">The table.</param>
/// <param name="Where">Which rows are an inspection's.</param>
/// <param name="Words">What a person knows one by, in SQL.</param>
/// <param name="Except">Columns that go on changing: counters, what is reckoned from elsewhere, money.</param>
/// <param name="Only">The only columns; empty for all the others.</param>
/// <param name="ById">Whether a row may belong to another inspection later, so that it has to be known by its id.</param>
internal sealed record BoundTable(string Name, string One, string Table, string Where, string Words, string[] Except, string[] Only,
    bool ById = false)
{
    private const string Mine = "\"InspectionId\" = @subject";

    public static readonly BoundTable Readings = new("readings", "reading", "Readings", Mine, "trim(\"Kind\" || ' ' || \"Position\")",
        ["TimeInService", "OwnTime"], []);

    /// <summary>The hours a reading was taken at: a meter that is put right changes them.</summary>
    public static readonly BoundTable ReadingHours = new("readingHours", "reading’s hours", "Readings", Mine,
        "trim(\"Kind\" || ' ' || \"Position\")", [], ["Id", "TimeInService"]);

    /// <summary>What was left open, by whatever doesn't change once it is looked at; how it ended is bound by what ended it.</summary>
    public static readonly BoundTable OpenItems = new("openItems", "open item", "OpenItems", Mine, "\"FirstNumber\"",
        ["Changes", "Estimate", "Agreed", "End"], [], ById: true);

    /// <summary>What a signature ended.</summary>
    public static readonly BoundTable Ended = new("ended", "open item that was ended", "OpenItems",
        "\"AircraftId\" = @aircraft AND instr(\"End\", @reference) > 0", "\"FirstNumber\"", [], ["Id", "AircraftId", "End"], ById: true);

    /// <summary>What an inspection rests on.</summary>
    public static readonly IReadOnlyList<BoundTable> OfInspection =
    [
        new("inspections", "inspection", "Inspections", "\"Id\" = @subject", "\"WorkOrder\"", ["Changes"], []),
        new("tasks", "task", "InspectionTask", Mine, "\"Text\"", ["Changes"], []),
        new("discrepancies", "discrepancy", "Discrepancy", Mine, "\"Number\" || ', ' || \"What\"", ["Changes"], []),
        new("compressionTests", "compression test", "CompressionTest", Mine, "\"StartedAt\"", [], []),
        Readings, ReadingHours, OpenItems, Ended,
    ];

    public static BoundTable? Named(string name) => OfInspection.FirstOrDefault(table => table.Name == name);

    /// <summary>The columns that count, as the table has them.</summary>
    public async Task<IReadOnlyList<string>> ColumnsAsync(RivetDb db, CancellationToken stop) => Only.Length > 0 ? Only
        : [.. (await RawRows.ReadAsync(db, $"SELECT name FROM pragma_table_info('{Table}')", [], stop)).Select(row => (string)row[0]!)
            .Except(Except).Order(StringComparer.Ordinal)];

    /// <summary>The rows as they stand.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="columns">The columns that count.</param>
    /// <param name="of">Whose they are.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<IReadOnlyList<BoundRow>> RowsAsync(RivetDb db, IReadOnlyList<string> columns, BoundTo of, CancellationToken stop)
    {
        var sql = $"SELECT \"Id\", {Words}, {string.Join(", ", columns.Select(column => $"\"{column}\""))} FROM \"{Table}\" WHERE {Where}";
        return [.. (await RawRows.ReadAsync(db, sql, [("@subject", Key(of.InspectionId)), ("@aircraft", Key(of.AircraftId)),
            ("@reference", RawRows.Reference(of.Reference))], stop))
            .Select(row => new BoundRow($"{row[0]}", ById
                ? $"{row[0]} {Evidence.DigestOf(row[2..])}"
                : Evidence.DigestOf(row[2..]), $"{row[1]}"))];
    }

    private static string Key(Guid id) => id.ToString().ToUpperInvariant();
}

/// <summary>Whose rows are bound.</summary>
/// <param name="AircraftId">The aircraft.</param>
/// <param name="InspectionId">The inspection.</param>
/// <param name="Reference">How what it ended refers to it: its work order, or "record 12".</param>
internal sealed record BoundTo(Guid AircraftId, Guid InspectionId, string Reference);

/// <summary>
/// What a signature noted as done on the due line and at bulletins: entries of lists that go on growing, each known by its item.
/// </summary>
internal sealed record BoundEntries(string Name, string One, string Table, string Words, string Before, string[] Members)
{
    public static readonly IReadOnlyList<BoundEntries> All =
    [
        new("dueDone", "time that a due item was done", "DueItems", "\"What\"", "", ["on", "hours", "reference"]),
        new("bulletinDone", "time that a bulletin was complied with", "BulletinCases", "\"Family\"", BulletinFollowUp.SignedReference(""),
            ["on", "hours", "method", "terminating", "finding", "reference"]),
    ];

    /// <summary>The entries that refer to a work order; to every one, where none is named.</summary>
    public async Task<ILookup<string, BoundRow>> RowsAsync(RivetDb db, string? workOrder, CancellationToken stop)
    {
        var rows = await RawRows.ReadAsync(db, $"SELECT \"Id\", {Words}, \"Done\" FROM \"{Table}\" WHERE instr(\"Done\", @reference) > 0",
            [("@reference", workOrder is null ? "\"reference\":" : RawRows.Reference(Before + workOrder))], stop);
        return rows.SelectMany(row => Entries((string)row[2]!).Select(entry => (Of: $"{entry["reference"]}",
            Row: new BoundRow($"{row[0]}",
                $"{row[0]} {Evidence.DigestOf([.. Members.Select(member => (object?)entry[member]?.ToJsonString())])}", $"{row[1]}"))))
            .Where(entry => entry.Of.StartsWith(Before, StringComparison.Ordinal))
            .ToLookup(entry => entry.Of[Before.Length..], entry => entry.Row);
    }

    private static IEnumerable<JsonObject> Entries(string done)
    {
        try
        {
            var list = JsonNode.Parse(done);
            return ((list is JsonObject whole ? whole["is"] : list) as JsonArray ?? []).OfType<JsonObject>();
        }
        catch (JsonException)
        {
            return [];
        }
    }
}

/// <summary>Rows as the database has them, without the model between.</summary>
internal static partial class RawRows
{
    public static async Task<List<object?[]>> ReadAsync(RivetDb db, string sql, IEnumerable<(string Name, object Value)> given,
        CancellationToken stop)
    {
        await using var command = await CommandAsync(db, sql, given, stop);
        await using var reader = await command.ExecuteReaderAsync(stop);
        List<object?[]> rows = [];
        while (await reader.ReadAsync(stop))
            rows.Add(Values(reader));
        return rows;
    }

    public static async Task<DbCommand> CommandAsync(RivetDb db, string sql, IEnumerable<(string Name, object Value)> given,
        CancellationToken stop)
    {
        await db.Database.OpenConnectionAsync(stop);
        var command = db.Database.GetDbConnection().CreateCommand();
#pragma warning disable CA2100 // Tables and columns are named by this program; what comes from outside is a parameter.
        command.CommandText = sql;
#pragma warning restore CA2100
        command.Transaction = db.Database.CurrentTransaction?.GetDbTransaction();
        foreach (var (name, value) in given)
        {
            var parameter = command.CreateParameter();
            (parameter.ParameterName, parameter.Value) = (name, value);
            command.Parameters.Add(parameter);
        }
        return command;
    }

    /// <summary>The values of a row: text, whole numbers, numbers, or null.</summary>
    public static object?[] Values(DbDataReader reader)
    {
        var row = new object?[reader.FieldCount];
        for (var at = 0; at < row.Length; at++)
            row[at] = reader.IsDBNull(at) ? null : reader.GetValue(at);
        return row;
    }

    /// <summary>How a reference stands in a column that is kept as JSON.</summary>
    public static string Reference(string to) => $"\"reference\":{JsonSerializer.Serialize(to)}";

    /// <summary>The files that a text of a row names by their SHA-256.</summary>
    public static IEnumerable<string> FilesIn(string text) => Sha256().Matches(text).Select(match => match.Groups[1].Value);

    [GeneratedRegex("\"sha256\":\"([0-9a-f]{64})\"", RegexOptions.IgnoreCase)]
    private static partial Regex Sha256();
}
