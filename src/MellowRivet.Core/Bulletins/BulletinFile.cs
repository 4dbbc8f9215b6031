using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Bulletins;

/// <summary>Bulletins as JSON: one, or a list of them.</summary>
public static class BulletinFile
{
    public const string FormatName = "mellow-rivet-bulletin";
    public const int CurrentVersion = 1;

    /// <summary>Largest file taken in, in bytes.</summary>
    public const int MostBytes = 8 * 1024 * 1024;

    /// <summary>The most bulletins of one file.</summary>
    public const int Most = 5_000;

    private static readonly JsonSerializerOptions Json = FileJson.Options(64, JsonUnmappedMemberHandling.Skip, new RuleJson());

    private const string RuleSchema = """
        { "oneOf": [
          { "type": "object", "required": ["all"], "properties": { "all": { "type": "array", "items": { "$ref": "#/$defs/rule" } } },
          "additionalProperties": false },
          { "type": "object", "required": ["any"], "properties": { "any": { "type": "array", "items": { "$ref": "#/$defs/rule" } } },
          "additionalProperties": false },
          { "type": "object", "required": ["not"], "properties": { "not": { "$ref": "#/$defs/rule" } }, "additionalProperties": false },
          { "type": "object", "required": ["fact"], "properties": {
              "fact": { "type": "string" }, "is": { "oneOf": [ { "type": "string" }, { "type": "boolean" }, { "type": "array",
              "items": { "type": ["string", "boolean"] } } ] },
              "in": { "type": "string" }, "atLeast": { "type": "number" }, "below": { "type": "number" },
              "from": { "type": "string", "format": "date" }, "until": { "type": "string", "format": "date" } },
              "additionalProperties": false } ] }
        """;

    public static string ToJson(Bulletin bulletin) => JsonSerializer.Serialize(bulletin, Json) + "\n";

    public static string ToJson(IEnumerable<Bulletin> bulletins) => JsonSerializer.Serialize(bulletins, Json) + "\n";

    /// <summary>Reads one bulletin, as this program kept it.</summary>
    /// <exception cref="JsonException">It can't be read.</exception>
    public static Bulletin Parse(string json)
    {
        var kept = JsonSerializer.Deserialize<Bulletin>(json, Json) ?? throw new JsonException("It is empty.");
        // A release took in lists with empty places, which no page of it could show.
        return kept with
        {
            Kit = kept.Kit is null ? null : [.. kept.Kit.OfType<KitPart>()],
            Tools = kept.Tools is null ? null : [.. kept.Tools.OfType<string>()],
            Documents = kept.Documents is null ? null : [.. kept.Documents.OfType<BulletinDocument>()],
        };
    }

    /// <summary>Reads a file of one bulletin or a list, and checks it whole before any is taken in.</summary>
    public static (IReadOnlyList<Bulletin> Bulletins, string? Fault) Read(string json)
    {
        try
        {
            var read = json.AsSpan().TrimStart() is ['[', ..]
                ? FileJson.Read<List<Bulletin>>(json, Json)
                : [FileJson.Read<Bulletin>(json, Json)!];
            if (read is not { Count: > 0 } || read.Any(bulletin => bulletin is null))
                return ([], "It holds no bulletin.");
            if (read.Count > Most)
                return ([], $"{read.Count} bulletins; {Most} is the most of one file.");
            if (read.GroupBy(bulletin => (bulletin.Family, bulletin.Revision)).FirstOrDefault(group => group.Count() > 1) is { } twice)
                return ([], $"{twice.First().Title} stands twice in it.");
            return read.Select(bulletin => Fault(bulletin) is { } fault ? $"{bulletin.Title}: {fault}" : null)
                .FirstOrDefault(fault => fault is not null) is { } first ? ([], first) : (read, null);
        }
        catch (JsonException problem)
        {
            var where = problem.Path is { Length: > 1 } path ? $" at {path}" : "";
            return ([],
                $"It can’t be read{where}: "
                + $"{(problem.Message.Contains("MaxDepth", StringComparison.OrdinalIgnoreCase)
                    || problem.Message.Contains("depth", StringComparison.OrdinalIgnoreCase)
                        ? $"it is nested too deep; a rule goes {Rule.Deepest} deep"
                        : problem.Message.Split(" Path:")[0].Split(" LineNumber")[0])}");
        }
    }

    /// <summary>What is wrong with a bulletin, in words; null where it holds together.</summary>
    public static string? Fault(Bulletin bulletin)
    {
        if (bulletin.Format != FormatName || bulletin.Version != CurrentVersion)
            return $"its format is {bulletin.Format} {bulletin.Version}; this program reads {FormatName} {CurrentVersion}.";
        if (!Short(bulletin.Issuer, 80) || !Short(bulletin.Number, 60) || bulletin.Revision.Length > 20 || !Short(bulletin.Subject, 200))
            return "it needs an issuer of up to 80 characters, a number of up to 60, a revision of up to 20 and a subject of up to 200.";
        if (!Enum.IsDefined(bulletin.Kind))
            return "its kind isn’t one that is known.";
        if (bulletin.Effective.Year is < 1950 or > 2199 || bulletin.Published.Year is < 1950 or > 2199)
            return "its days lie from 1950 to 2199.";
        if ((bulletin.Supersedes ?? [])
            .Any(other => Same(other.Number, bulletin.Number) && (other.Issuer is null || Same(other.Issuer, bulletin.Issuer))
                && (other.Revision is null || Same(other.Revision, bulletin.Revision))))
            return "it says that it supersedes itself. An earlier revision of its own number is superseded without saying.";
        if (bulletin.AppliesTo.Conditions.Count() > Rule.MostConditions)
            return $"its rule has more than {Rule.MostConditions} conditions.";
        if (!Short(bulletin.Method, 300) || bulletin.Steps.Count > 100 || bulletin.LogWording?.Length > 1_000
            || bulletin.Approval?.Length > 300)
            return "it needs a method of up to 300 characters; it takes up to 100 steps, a wording of up to 1000 characters "
                + "and an approval of up to 300.";
        if (bulletin.LabourHours is < 0 or > 1_000 || bulletin.LabourCredit is < 0 or > 1_000 || bulletin.Kit?.Count > 100
            || bulletin.Tools?.Count > 50 || bulletin.Documents?.Count > 50)
            return "labour is from 0 to 1000 h; a kit has up to 100 parts, and there are up to 50 tools and documents.";
        if (bulletin.Steps.Select(Fault).FirstOrDefault(fault => fault is not null) is { } step)
            return step;
        return Fault(bulletin.Compliance);
    }

    private static string? Fault(BulletinStep step)
    {
        if (!Short(step.Text, 300) || new[] { step.Text, step.Caution, step.Torque }.Any(HasBreak) || step.Caution?.Length > 400
            || step.Torque?.Length > 100)
            return "a step has words of up to 300 characters, a caution of up to 400 and a torque of up to 100, each on one line.";
        return step.Measure is { } measure ? Worksheet.FaultOf(new("step", step.Text, "bulletin", Measure: measure)) : null;
    }

    private static string? Fault(Compliance compliance)
    {
        if (compliance.Deadlines.Count > 10)
            return "it has more than ten deadlines.";
        foreach (var limb in compliance.Deadlines)
            if (!Enum.IsDefined(limb.When) || limb switch
            {
                { When: DeadlineKind.WithinHours } => limb.Hours is not (> 0 and <= 100_000),
                { When: DeadlineKind.WithinMonths } => limb.Months is not (> 0 and <= 600),
                { When: DeadlineKind.NotLaterThan } => limb.Date is not { Year: >= 1950 and <= 2199 },
                _ => false,
            })
                return "a deadline within hours needs hours above 0, one within months whole months above 0, and one not "
                    + "later than a date that date.";
        if (new[] { compliance.Repeat, compliance.AfterFinding }
            .Any(repeat => repeat is not null
                && (repeat is { Hours: null, Months: null } || repeat.Hours is <= 0 or > 100_000 || repeat.Months is <= 0 or > 600)))
            return "what repeats does so every so many hours or months, above 0.";
        if (compliance.AfterFinding is not null && compliance.Repeat is null)
            return "it changes its interval after a finding and has none before.";
        return compliance.Ferry is { } ferry
            && (ferry.Hours is <= 0 or > 100 || ferry.Conditions.Count > 20
                || ferry.Conditions.Any(condition => !Short(condition, 200) || HasBreak(condition)))
            ? "a ferry allowance has hours above 0, up to 100, and conditions of up to 200 characters, each on one line." : null;
    }

    /// <summary>
    /// The JSON Schema of one bulletin, from the types themselves; a rule is described by hand, as it has its own grammar.
    /// </summary>
    public static string Schema() =>
        FileJson.SchemaOf(Json, typeof(Bulletin), $"{FormatName}, version {CurrentVersion}", (typeof(Rule), "rule", RuleSchema));

    private static bool HasBreak(string? text) => text?.AsSpan().IndexOfAny('\n', '\r') >= 0;

    private static bool Short(string text, int longest) => !string.IsNullOrWhiteSpace(text) && text.Length <= longest;

    private static bool Same(string one, string other) => string.Equals(one.Trim(), other.Trim(), StringComparison.OrdinalIgnoreCase);
}
