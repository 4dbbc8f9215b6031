using System.Globalization;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Bulletins;

/// <summary>
/// Bulletins as a table, for lists that come as spreadsheets: one a row, its rule made of models and serial ranges, its deadline
/// of plain columns. What a table can't say is put in on the bulletin's own page.
/// </summary>
public static class BulletinCsv
{
    /// <summary>The columns; issuer, number, kind, subject, effective and at least one that says which it concerns are needed.</summary>
    public static IReadOnlyList<string> Columns { get; } =
    [
        "issuer", "number", "revision", "kind", "subject", "published", "effective", "about", "aircraft model", "aircraft serials",
        "part model", "part serials",
        "before next flight", "within hours", "within months", "next inspection", "not later than", "every hours", "every months", "method",
        "supersedes",
    ];

    /// <summary>Reads a table and checks it whole, before any is taken in.</summary>
    public static (IReadOnlyList<Bulletin> Bulletins, string? Fault) Read(byte[] bytes)
    {
        var (rows, fault) = DelimitedText.Read(bytes, BulletinFile.Most + 1, Columns.Count + 10);
        if (rows is null)
            return ([], fault);
        if (rows.Count < 2)
            return ([], "It has no line below its titles.");
        var titles = rows[0].Cells.Select(title => title.Trim().ToLowerInvariant()).ToList();
        if (titles.Except(Columns).FirstOrDefault(title => title.Length > 0) is { } other)
            return ([], $"The column “{other}” is not known. Columns: {string.Join(", ", Columns)}.");
        if (new[] { "issuer", "number", "kind", "subject", "effective" }.Except(titles).FirstOrDefault() is { } missing)
            return ([], $"The column “{missing}” is missing.");
        List<Bulletin> bulletins = [];
        foreach (var row in rows.Skip(1))
            try
            {
                var bulletin = One(name => titles.IndexOf(name) is >= 0 and var at && at < row.Cells.Length ? row.Cells[at].Trim() : "");
                if (BulletinFile.Fault(bulletin) is { } wrong)
                    throw new FormatException(wrong);
                bulletins.Add(bulletin);
            }
            catch (FormatException wrong)
            {
                return ([], $"Line {row.Line}: {wrong.Message}");
            }
        return bulletins.GroupBy(bulletin => (bulletin.Family, bulletin.Revision)).FirstOrDefault(group => group.Count() > 1) is { } twice
            ? ([], $"{twice.First().Title} stands twice in it.")
            : (bulletins, null);
    }

    private static Bulletin One(Func<string, string> cell)
    {
        ComponentKind? about = cell("about") is { Length: > 0 } part ? Word<ComponentKind>(part, "about") : null;
        List<Rule> rules = [];
        void Models(string column, string fact)
        {
            if (cell(column) is { Length: > 0 } models)
                rules.Add(new Condition(fact,
                    new IsOneOf([.. models.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)])));
        }
        void Serials(string column, string fact)
        {
            if (cell(column) is { Length: > 0 } list)
                rules.Add(new Condition(fact,
                    new IsInSerials(SerialRanges.Read(list) is { Ranges: { } ranges }
                        ? ranges
                        : throw new FormatException($"{column}: {SerialRanges.Read(list).Fault}"))));
        }
        Models("aircraft model", "aircraft.model");
        Serials("aircraft serials", "aircraft.serial");
        var whose = about is { } kind ? char.ToLowerInvariant(kind.ToString()[0]) + kind.ToString()[1..] : null;
        if (whose is null && (cell("part model").Length > 0 || cell("part serials").Length > 0))
            throw new FormatException("a part’s model or serials need the kind of part in the column “about”.");
        Models("part model", $"{whose}.model");
        Serials("part serials", $"{whose}.serial");
        if (rules.Count == 0)
            throw new FormatException("it says nothing of which ones it concerns: a model or serials are wanted.");

        List<Deadline> deadlines = [];
        if (YesIn("before next flight"))
            deadlines.Add(new(DeadlineKind.BeforeNextFlight));
        if (Number("within hours") is { } hours)
            deadlines.Add(new(DeadlineKind.WithinHours, Hours: hours));
        if (Number("within months") is { } months)
            deadlines.Add(new(DeadlineKind.WithinMonths, Months: Whole(months, "within months")));
        if (YesIn("next inspection"))
            deadlines.Add(new(DeadlineKind.NextInspection));
        if (cell("not later than").Length > 0)
            deadlines.Add(new(DeadlineKind.NotLaterThan, Date: Day("not later than")));
        var (everyHours, everyMonths) = (Number("every hours"), Number("every months"));
        var effective = Day("effective");
        return new(BulletinFile.FormatName, BulletinFile.CurrentVersion, cell("issuer"), cell("number"), cell("revision"),
            Word<BulletinKind>(cell("kind"), "kind"), cell("subject"),
            cell("published").Length > 0 ? Day("published") : effective, effective, rules is [var only] ? only : new All(rules),
            new(deadlines, everyHours is null && everyMonths is null
                ? null
                : new(everyHours, everyMonths is { } every ? Whole(every, "every months") : null)),
            cell("method") is { Length: > 0 } method ? method : $"{cell("number")} of {cell("issuer")}", [], about,
            Supersedes: cell("supersedes") is { Length: > 0 } others
                ? [.. others.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                    .Select(number => new BulletinRef(number))]
                : null);

        bool YesIn(string column) => cell(column).ToLowerInvariant() switch
        {
            "" or "no" or "n" or "false" or "0" => false,
            "yes" or "y" or "true" or "1" or "x" => true,
            var typed => throw new FormatException($"{column}: yes or no, not “{typed}”."),
        };
        // A locale's comma is a decimal point where no point stands beside it.
        decimal? Number(string column) => cell(column) is not { Length: > 0 } typed ? null
            : decimal.TryParse(typed.Contains('.', StringComparison.Ordinal)
                ? typed
                : typed.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
                ? number
                : throw new FormatException($"{column}: “{typed}” is no number.");
        DateOnly Day(string column) =>
            DateOnly.TryParseExact(cell(column), "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
                ? day
                : throw new FormatException($"{column}: “{cell(column)}” is no day as 2026-01-31.");
    }

    private static int Whole(decimal number, string column) =>
        number == decimal.Truncate(number) && number is > 0 and < 1000
            ? (int)number
            : throw new FormatException($"{column}: whole months are wanted.");

    // "airworthiness directive" and "airworthinessDirective" are the same word.
    private static T Word<T>(string typed, string column) where T : struct, Enum =>
        Enum.TryParse<T>(typed.Replace(" ", "", StringComparison.Ordinal), ignoreCase: true, out var value) && Enum.IsDefined(value)
            && !char.IsAsciiDigit(typed[0]) ? value
        : throw new FormatException(
            $"{column}: “{typed}” is none of "
            + $"{string.Join(", ", Enum.GetNames<T>().Select(name => char.ToLowerInvariant(name[0]) + name[1..]))}.");
}
