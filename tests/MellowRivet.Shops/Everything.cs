using MellowRivet.Store;
using Microsoft.Data.Sqlite;

namespace MellowRivet.Shops;

/// <summary>All that a shop has of an inspection, as it lies in the database.</summary>
public static class Everything
{
    private const string Naming =
        "SELECT m.name FROM sqlite_master m JOIN pragma_table_info(m.name) c ON c.name = 'InspectionId' WHERE m.type = 'table'";

    /// <summary>The rows of every table that name the inspection, by table, and their columns; and the posts that the shop took.</summary>
    public static async Task<Dictionary<string, List<Dictionary<string, string?>>>> OfAsync(DataFolder data, Guid inspection)
    {
        await using var connection = new SqliteConnection(data.ConnectionString);
        await connection.OpenAsync();
        var all = new Dictionary<string, List<Dictionary<string, string?>>>
        {
            ["Inspections"] = await ReadAsync(connection, "SELECT * FROM Inspections WHERE Id = $id", inspection),
            ["Postings"] = await ReadAsync(connection, "SELECT Id FROM Postings", inspection),
        };
        foreach (var table in await ReadAsync(connection, Naming, inspection))
            all[table["name"]!] = await ReadAsync(connection, $"SELECT * FROM \"{table["name"]}\" WHERE InspectionId = $id", inspection);
        return all;
    }

    private static async Task<List<Dictionary<string, string?>>> ReadAsync(SqliteConnection connection, string sql, Guid inspection)
    {
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.Parameters.AddWithValue("$id", $"{inspection}".ToUpperInvariant());
        await using var rows = await command.ExecuteReaderAsync();
        var found = new List<Dictionary<string, string?>>();
        while (await rows.ReadAsync())
            found.Add(Enumerable.Range(0, rows.FieldCount).ToDictionary(rows.GetName,
                column => rows.IsDBNull(column) ? null : $"{rows.GetValue(column)}"));
        return found;
    }
}
