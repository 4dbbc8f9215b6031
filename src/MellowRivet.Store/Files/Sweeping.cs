using System.Text.RegularExpressions;
using MellowRivet.Store.Proof;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Files;

/// <summary>What was swept away.</summary>
/// <param name="Files">How many files.</param>
/// <param name="Bytes">How large they were.</param>
public sealed record Swept(int Files, long Bytes);

/// <summary>
/// Takes away what lies in a shop's folder and belongs to nobody: files that were on their way in when a server was killed, and kept files
/// that no row of the database names. Whatever names one, in whatever column, keeps it.
/// </summary>
public static partial class Sweeping
{
    /// <summary>
    /// A kept file that nobody names stays that long: a form that was refused names it in a browser, and is sent again days later.
    /// </summary>
    public static readonly TimeSpan Kept = TimeSpan.FromDays(14);

    /// <summary>What is on its way in isn't there for longer.</summary>
    private static readonly TimeSpan OnTheWay = TimeSpan.FromHours(6);

    /// <summary>Sweeps.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="data">Its folder.</param>
    /// <param name="now">The machine's time, by which its files are dated.</param>
    /// <param name="stop">Stops it.</param>
    public static async Task<Swept> SweepAsync(RivetDb db, DataFolder data, DateTimeOffset now, CancellationToken stop)
    {
        List<FileInfo> swept = [.. HalfFiles(data).Where(file => file.LastWriteTimeUtc < now - OnTheWay)];
        var old = ByHash(data).Where(file => file.LastWriteTimeUtc < now - Kept).ToLookup(file => file.Name[..HashLength]);
        if (old.Count > 0)
        {
            // Read before the names: what is named after that was written after that, and so isn't old.
            var named = await NamedAsync(db, stop);
            swept.AddRange(old.Where(files => !named.Contains(files.Key)).SelectMany(files => files)
                .Where(file => { file.Refresh(); return file.Exists && file.LastWriteTimeUtc < now - Kept; }));
        }
        var result = new Swept(swept.Count, swept.Sum(file => file.Length));
        foreach (var file in swept)
            file.Delete();
        return result;
    }

    private const int HashLength = 64;

    private static IEnumerable<DirectoryInfo> Places(DataFolder data) =>
        new[] { data.Photos, data.Sounds, data.Videos, data.Logs, data.Documents }.Select(place => new DirectoryInfo(place));

    private static IEnumerable<FileInfo> ByHash(DataFolder data) => Places(data)
        .SelectMany(place => place.EnumerateFiles("*", SearchOption.AllDirectories))
        .Where(file => file.Name.Length >= HashLength && PhotoFiles.IsSha256(file.Name[..HashLength]) && file.Extension != ".half");

    private static IEnumerable<FileInfo> HalfFiles(DataFolder data) => Places(data)
        .SelectMany(place => place.EnumerateFiles("*", SearchOption.AllDirectories)).Where(file => file.Extension is ".incoming" or ".half")
        .Concat(new DirectoryInfo(data.Path).EnumerateFiles("health-*"));

    /// <summary>Every SHA-256 in every text of every table: a column that is made later keeps what it names without being told
    /// to.</summary>
    internal static async Task<HashSet<string>> NamedAsync(RivetDb db, CancellationToken stop)
    {
        HashSet<string> named = [];
        var tables = await db.Database.SqlQuery<string>(
            $"SELECT name AS Value FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite!_%' ESCAPE '!'").ToListAsync(stop);
        foreach (var table in tables)
        {
            await using var command = await RawRows.CommandAsync(db, $"SELECT * FROM \"{table}\"", [], stop);
            await using var rows = await command.ExecuteReaderAsync(stop);
            while (await rows.ReadAsync(stop))
                for (var column = 0; column < rows.FieldCount; column++)
                    if (rows.GetValue(column) is string { Length: >= HashLength } text)
                        named.UnionWith(Hashes().Matches(text).Select(match => match.Value));
        }
        return named;
    }

    [GeneratedRegex("(?<![0-9a-f])[0-9a-f]{64}(?![0-9a-f])")]
    private static partial Regex Hashes();
}
