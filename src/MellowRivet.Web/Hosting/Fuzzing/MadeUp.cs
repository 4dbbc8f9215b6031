using System.Globalization;
using System.Reflection;
using System.Text;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Hosting.Fuzzing;

/// <summary>
/// Makes up what is sent: some of it as a person would type it, some of it as nobody would. The same seed makes up the same.
/// </summary>
/// <param name="seed">Where the row of chances begins.</param>
/// <param name="ids">Ids and hashes that there are in the shop, by what they are of.</param>
internal sealed class MadeUp(int seed, ILookup<string, string> ids)
{
    private static readonly string[] Odd =
    [
        "", " ", "x", "0", "-1", "1", "2", "3", "12.5", "1,5", "NaN", "Infinity", "1e309", "-1e400", "99999999999999999999", "0x1F", "true",
        "false", "on", "null", "undefined", "[]", "{}", "a[", "]", "%", "%00", "\0", "\r\n", "…", "ä", "Flügel", "机翼", "🛩", "‮", "=1+1",
        "@x", "<script>alert(1)</script>", "'; DROP TABLE People;--", "../../etc/passwd", "C:\\nul", "//elsewhere.example", "2026-11-25",
        "2026-02-30", "0001-01-01", "9999-12-31", "2026-11-25T24:00", "76/80", "35 ft-lb", "name@place.example", "engine", "cabin",
            "wing-left",
        "00000000-0000-0000-0000-000000000000", "task/00000000000000000000000000000000", "1;2;3", "0.5,0.5", "[{\"kind\":\"arrow\"}]",
            "{\"v\":1}",
    ];

    private static readonly string[] OddNames = ["a[", "[", "a[0", "a.b[", "form", "form.", ".", "post[", "handler[", "\0", "ü",
        "__proto__", "页"];

    private readonly Random chance = new(seed);

    public int Below(int most) => chance.Next(most);

    public bool Often(int percent) => chance.Next(100) < percent;

    public T OneOf<T>(IReadOnlyList<T> all) => all[chance.Next(all.Count)];

    private readonly List<List<string>> kinds = [.. ids.Select(kind => kind.ToList())];

    /// <summary>An id that there is, of anything, or one that there isn't.</summary>
    public string Id() => Often(85) ? OneOf(OneOf(kinds)) : $"{Made()}";

    /// <summary>An id of something, mostly.</summary>
    public string IdOf(string what) => Often(92) ? OneOf([.. ids[what]]) : Id();

    private Guid Made()
    {
        var bytes = new byte[16];
        chance.NextBytes(bytes);
        return new(bytes);
    }

    // New ones mostly, else the work isn't done; and some that something else has already.
    private string Post() => Below(10) switch { 0 => OneOf(Odd), 1 => Id(), _ => $"{Made()}" };

    /// <summary>Something typed, of a type or not.</summary>
    public string Value(Type type)
    {
        var bare = Nullable.GetUnderlyingType(type) ?? type;
        if (Often(35))
            return Often(4) ? new string('w', Below(70_000)) : OneOf(Odd);
        return bare switch
        {
            { IsEnum: true } => Often(90) ? OneOf(Enum.GetNames(bare)) : $"{Below(99)}",
            _ when bare == typeof(Guid) => Id(),
            _ when bare == typeof(bool) => OneOf(["true", "false"]),
            _ when bare == typeof(int) => $"{Below(40) - 4}",
            _ when bare == typeof(DateOnly) || bare == typeof(DateTime) =>
                new DateTime(2026, 11, 25).AddDays(Below(900) - 600).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            _ when bare == typeof(decimal) || bare == typeof(double) =>
                (chance.NextDouble() * 4_000 - 100).ToString("0.##", CultureInfo.InvariantCulture),
            _ => Often(25) ? Id() : Often(40) ? $"{Below(200)}"
                : OneOf(["cracked at the lug", "manual 5-20", "replaced, torqued, safetied", "DK 4"]),
        };
    }

    /// <summary>A form of what a handler takes, and a little that it doesn't.</summary>
    public List<(string Name, string Value)> Form(IEnumerable<(string Name, Type Type)> takes)
    {
        List<(string, string)> fields = [];
        foreach (var (name, type) in takes.Where(_ => Often(85)))
            foreach (var each in Enumerable.Range(0, Often(6) ? 3 : 1))
                fields.Add((name, name.EndsWith("post", StringComparison.OrdinalIgnoreCase) ? Post() : Value(type)));
        if (Often(12))
            fields.Add((OneOf(OddNames), OneOf(Odd)));
        return fields;
    }

    /// <summary>A body of JSON, or nearly.</summary>
    public string Json(int deep = 0) => Below(deep > 3 ? 6 : 10) switch
    {
        0 => "null",
        1 => $"{Below(4_000) - 400}",
        2 => OneOf(["true", "1e400", "-0", "\"\"", "\"2026-11-25\"", "\"sixtyOfEighty\"", "\"magneto\"", "NaN", ""]),
        3 => "\"" + new StringBuilder(OneOf(Odd)).Replace("\\", "").Replace("\"", "").Replace("\0", "").Replace("\r\n", "") + "\"",
        4 or 5 => $"{chance.NextDouble() * 100:0.###}",
        6 or 7 => $"[{string.Join(',', Enumerable.Range(0, Below(4)).Select(_ => Json(deep + 1)))}]",
        _ => "{" + string.Join(',', Enumerable.Range(0, Below(5)).Select(_ => $"\"{OneOf(JsonNames)}\":{Json(deep + 1)}")) + "}",
    };

    private static readonly string[] JsonNames =
    [
        "points", "hours", "value", "readings", "cylinder", "psi", "limitSet", "items", "id", "everyHours", "today", "pairs", "grams",
            "rule",
        "all", "any", "not", "fact", "in", "facts", "words", "measured", "wanted", "unit", "before", "after", "ohms", "events", "steps",
        "deadlines", "kit", "title", "zones", "tasks", "format", "version", "printed", "table", "cylinders", "firingOrder", "pattern",
    ];

    private readonly Dictionary<string, IReadOnlyList<(string Name, Type Type)>> fieldsOf = [];

    /// <summary>The fields of what an address takes, by name and type, as a form sends them.</summary>
    public IReadOnlyList<(string Name, Type Type)> FieldsOf(Address address)
    {
        if (!fieldsOf.TryGetValue(address.Name, out var fields))
            fieldsOf[address.Name] = fields = [.. FieldsOf(address.Takes?.Parameters.Select(one => (one.Name, one.ParameterType)) ?? [])];
        return fields;
    }

    private static IEnumerable<(string Name, Type Type)> FieldsOf(IEnumerable<(string Name, Type Type)> parameters) =>
        parameters.SelectMany(
        one => one.Type == typeof(CancellationToken) || typeof(IFormFile).IsAssignableFrom(one.Type)
            || typeof(IEnumerable<IFormFile>).IsAssignableFrom(one.Type) ? []
            : one.Type.Assembly == typeof(MadeUp).Assembly && one.Type.IsClass
            ? one.Type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                .Where(property => property.GetIndexParameters().Length == 0)
                .SelectMany(property => FieldsOf([(property.Name, property.PropertyType)])
                    .Concat(FieldsOf([($"{one.Name}.{property.Name}", property.PropertyType)])))
            : new[] { (one.Name, one.Type.IsGenericType && one.Type != typeof(string) && Nullable.GetUnderlyingType(one.Type) is null
                ? one.Type.GetGenericArguments()[0]
                : one.Type) });

    /// <summary>A file, of whatever is in it.</summary>
    public (string Name, byte[] Bytes) File()
    {
        var bytes = new byte[Below(400)];
        chance.NextBytes(bytes);
        return (OneOf(["a.jpg", "", "..\\..\\x", "ü.csv", "x.json", "t.pdf"]), Below(4) switch
        {
            0 => [],
            1 => Encoding.UTF8.GetBytes(Json()),
            2 => Encoding.UTF8.GetBytes("date,tach\n2026-11-01,12.5\nx,y\n"),
            _ => bytes,
        });
    }
}
