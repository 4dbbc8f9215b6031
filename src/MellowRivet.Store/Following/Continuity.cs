using System.Globalization;
using Microsoft.Data.Sqlite;

namespace MellowRivet.Store.Following;

/// <summary>
/// Whether a shop's database goes on from a copy of it. A machine that broke comes back empty, as a demo, or as last night's backup: a
/// copy that went on following would throw away the last there is of the hours between.
/// </summary>
internal static class Continuity
{
    // A post is forgotten after its time; a line of the log never is. A day more is for the clocks of two machines.
    private static readonly TimeSpan Known = Once.Kept - TimeSpan.FromDays(1);

    private const string Lacking = """
        SELECT (SELECT COUNT(*) FROM (SELECT Number, At, About FROM main.Log ORDER BY Number DESC LIMIT 1) AS last
                WHERE NOT EXISTS (SELECT 1 FROM later.Log AS line
                                  WHERE line.Number = last.Number AND line.At = last.At AND line.About = last.About))
             + (SELECT COUNT(*) FROM (SELECT Id, At FROM main.Postings ORDER BY At DESC, rowid DESC LIMIT 1) AS last
                WHERE last.At > $known AND NOT EXISTS (SELECT 1 FROM later.Postings AS post WHERE post.Id = last.Id))
        """;

    private static string TablesOf(string schema) =>
        $"SELECT COUNT(*) FROM {schema}.sqlite_master WHERE type = 'table' AND name IN ('Log', 'Postings')";

    /// <summary>Whether what was told and what was posted last in the one is in the other.</summary>
    /// <param name="copy">The database that is there.</param>
    /// <param name="next">The one that would take its place.</param>
    /// <param name="at">As of when that one is.</param>
    /// <param name="stop">Stops it.</param>
    public static async Task<bool> HoldsAsync(string copy, string next, DateTimeOffset at, CancellationToken stop)
    {
        await using var connection = new SqliteConnection(new SqliteConnectionStringBuilder
            { DataSource = Untouched(copy), Mode = SqliteOpenMode.ReadOnly, Pooling = false }.ToString());
        try
        {
            await connection.OpenAsync(stop);
            await using var ask = connection.CreateCommand();
            ask.CommandText = "ATTACH $next AS later";
            ask.Parameters.AddWithValue("$next", Untouched(next));
            ask.Parameters.AddWithValue("$known", (at - Known).UtcDateTime.ToString("O", CultureInfo.InvariantCulture));
            await ask.ExecuteNonQueryAsync(stop);
            async Task<long> CountAsync(string sql)
            {
                ask.CommandText = sql;
                return (long)(await ask.ExecuteScalarAsync(stop))!;
            }
            // What an earlier release left tells nothing yet.
            if (await CountAsync(TablesOf("main")) < 2)
                return true;
            return await CountAsync(TablesOf("later")) == 2 && await CountAsync(Lacking) == 0;
        }
        catch (SqliteException)
        {
            // It is no database, or no shop's.
            return false;
        }
    }

    // Neither is opened in a way that could change it, or leave a log beside it.
    private static string Untouched(string file) => $"{new Uri(file).AbsoluteUri}?immutable=1";
}
