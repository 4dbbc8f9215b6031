using System.Globalization;
using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;

namespace MellowRivet.Web.Pages.Library;

/// <summary>A bulletin as typed.</summary>
public sealed record BulletinForm
{
    public Guid Post { get; init; } = Guid.CreateVersion7();
    public int Seen { get; init; }
    public string? Issuer { get; init; }
    public string? Number { get; init; }
    public string? Revision { get; init; }
    public BulletinKind Kind { get; init; }
    public string? Subject { get; init; }
    public DateOnly? Published { get; init; }
    public DateOnly? Effective { get; init; }
    public ComponentKind? About { get; init; }
    public string? Rule { get; init; }
    public bool BeforeFlight { get; init; }
    public bool NextInspection { get; init; }
    public string? WithinHours { get; init; }
    public CountedFrom HoursFrom { get; init; }
    public string? WithinMonths { get; init; }
    public CountedFrom MonthsFrom { get; init; }
    public DateOnly? NotLaterThan { get; init; }
    public string? EveryHours { get; init; }
    public string? EveryMonths { get; init; }
    public string? FindingHours { get; init; }
    public string? FindingMonths { get; init; }
    public string? Terminating { get; init; }
    public bool EarlierCounts { get; init; }
    public string? FerryHours { get; init; }
    public string? FerryConditions { get; init; }
    public string? Method { get; init; }
    public string? Steps { get; init; }
    public IReadOnlyList<CertificateKind> By { get; init; } = [];
    public string? Approval { get; init; }
    public string? Supersedes { get; init; }
    public string? Kit { get; init; }
    public string? Tools { get; init; }
    public string? LabourHours { get; init; }
    public string? LabourCredit { get; init; }
    public string? LogWording { get; init; }
    public string? Documents { get; init; }

    public static BulletinForm Of(ShopBulletin held)
    {
        var bulletin = held.Bulletin;
        var limbs = bulletin.Compliance.Deadlines;
        var (hours, months) = (limbs.FirstOrDefault(limb => limb.When == DeadlineKind.WithinHours),
            limbs.FirstOrDefault(limb => limb.When == DeadlineKind.WithinMonths));
        static string? Say(decimal? number) => number?.ToString("0.##", CultureInfo.InvariantCulture);
        return new()
        {
            Seen = held.Changes,
            Issuer = bulletin.Issuer,
            Number = bulletin.Number,
            Revision = bulletin.Revision,
            Kind = bulletin.Kind,
            Subject = bulletin.Subject,
            Published = bulletin.Published,
            Effective = bulletin.Effective,
            About = bulletin.About,
            Rule = RuleText.Write(bulletin.AppliesTo),
            BeforeFlight = limbs.Any(limb => limb.When == DeadlineKind.BeforeNextFlight),
            NextInspection = limbs.Any(limb => limb.When == DeadlineKind.NextInspection),
            WithinHours = Say(hours?.Hours),
            HoursFrom = hours?.From ?? CountedFrom.Effective,
            WithinMonths = months?.Months?.ToString(CultureInfo.InvariantCulture),
            MonthsFrom = months?.From ?? CountedFrom.Effective,
            NotLaterThan = limbs.FirstOrDefault(limb => limb.When == DeadlineKind.NotLaterThan)?.Date,
            EveryHours = Say(bulletin.Compliance.Repeat?.Hours),
            EveryMonths = bulletin.Compliance.Repeat?.Months?.ToString(CultureInfo.InvariantCulture),
            FindingHours = Say(bulletin.Compliance.AfterFinding?.Hours),
            FindingMonths = bulletin.Compliance.AfterFinding?.Months?.ToString(CultureInfo.InvariantCulture),
            Terminating = bulletin.Compliance.Terminating,
            EarlierCounts = bulletin.Compliance.EarlierCounts,
            FerryHours = Say(bulletin.Compliance.Ferry?.Hours),
            FerryConditions = string.Join('\n', bulletin.Compliance.Ferry?.Conditions ?? []),
            Method = bulletin.Method,
            Steps = StepText.Write(bulletin.Steps),
            By = bulletin.By ?? [],
            Approval = bulletin.Approval,
            Supersedes = string.Join("; ", (bulletin.Supersedes ?? []).Select(other => other.Number)),
            Kit = string.Join('\n', (bulletin.Kit ?? []).Select(Line)),
            Tools = string.Join('\n', bulletin.Tools ?? []),
            LabourHours = Say(bulletin.LabourHours),
            LabourCredit = Say(bulletin.LabourCredit),
            LogWording = bulletin.LogWording,
            Documents = string.Join('\n', (bulletin.Documents ?? []).Select(Line)),
        };
    }

    /// <summary>Reads it, or says which field can't be read. What it doesn't show of the one before is kept.</summary>
    public (Bulletin? Bulletin, Refusal? Refusal) Read(Bulletin? before)
    {
        Refusal? wrong = null;
        decimal? Number(string field, string? typed)
        {
            if (string.IsNullOrWhiteSpace(typed))
                return null;
            if (MeasureText.Value(typed, Unit.Hour) is { } number and >= 0 and <= 1_000_000)
                return (decimal)number;
            wrong ??= new(field, $"“{typed}” is no number from 0 up.");
            return null;
        }
        int? Whole(string field, string? typed)
        {
            if (Number(field, typed) is not { } number)
                return null;
            if (number == decimal.Truncate(number))
                return (int)number;
            wrong ??= new(field, "Whole months.");
            return null;
        }
        if (string.IsNullOrWhiteSpace(Issuer) || string.IsNullOrWhiteSpace(this.Number))
            return (null, new("number", "A bulletin needs its issuer and its number."));
        if (string.IsNullOrWhiteSpace(Subject))
            return (null, new("subject", "Say what it is about."));
        if (Effective is not { } effective)
            return (null, new("effective", "The day from which it holds is wanted."));
        var (rule, fault) = RuleText.Read(Rule);
        if (rule is null)
            return (null, new("rule", fault!));
        var title = string.IsNullOrWhiteSpace(Revision) ? this.Number.Trim() : $"{this.Number.Trim()} rev {Revision.Trim()}";
        var (steps, stepFault) = StepText.Read(Steps, title, before?.Steps);
        if (stepFault is not null)
            return (null, new("steps", stepFault));

        List<Deadline> deadlines = [];
        Deadline Limb(DeadlineKind when) => before?.Compliance.Deadlines.FirstOrDefault(limb => limb.When == when) ?? new(when);
        if (BeforeFlight)
            deadlines.Add(Limb(DeadlineKind.BeforeNextFlight));
        if (Number("withinHours", WithinHours) is { } hours)
            deadlines.Add(Limb(DeadlineKind.WithinHours) with { Hours = hours, From = HoursFrom });
        if (Whole("withinMonths", WithinMonths) is { } months)
            deadlines.Add(Limb(DeadlineKind.WithinMonths) with { Months = months, From = MonthsFrom });
        if (NextInspection)
            deadlines.Add(Limb(DeadlineKind.NextInspection));
        if (NotLaterThan is { } date)
            deadlines.Add(Limb(DeadlineKind.NotLaterThan) with { Date = date });
        // The form has room for one limb of a kind: a second one stays as it came.
        deadlines.AddRange(MoreLimbs(before));
        Repeat? Again(Repeat? known, string field, string? everyHours, string? everyMonths) =>
            (Number(field, everyHours), Whole(field, everyMonths)) is var (h, m) && h is null && m is null
                ? null
                : (known ?? new()) with { Hours = h, Months = m };
        var compliance = (before?.Compliance ?? new([])) with
        {
            Deadlines = deadlines,
            Repeat = Again(before?.Compliance.Repeat, "everyHours", EveryHours, EveryMonths),
            AfterFinding = Again(before?.Compliance.AfterFinding, "findingHours", FindingHours, FindingMonths),
            Terminating = Words(Terminating),
            EarlierCounts = EarlierCounts,
            Ferry = Number("ferryHours", FerryHours) is { } ferry
                ? (before?.Compliance.Ferry ?? new(ferry, [])) with { Hours = ferry, Conditions = Lines(FerryConditions) }
                : null,
        };
        var kit = Lines(Kit).Select(line => (line, part: before?.Kit?.FirstOrDefault(known => Line(known) == line) ?? Part(line))).ToList();
        if (kit.FirstOrDefault(one => one.part is null) is { line: { } odd })
            return (null, new("kit", $"“{odd}”: how many, what, its number: 2; gasket; GK-1."));
        var bulletin = (before
            ?? new(BulletinFile.FormatName, BulletinFile.CurrentVersion, "", "", "", Kind, "", effective, effective, rule, compliance, "",
                [])) with
        {
            Issuer = Issuer.Trim(),
            Number = this.Number.Trim(),
            Revision = Revision?.Trim() ?? "",
            Kind = Kind,
            Subject = Subject.Trim(),
            Published = Published ?? effective,
            Effective = effective,
            About = About,
            AppliesTo = rule,
            Compliance = compliance,
            Method = Words(Method) ?? $"{title} of {Issuer.Trim()}",
            Steps = steps,
            By = By.Count > 0 ? By : null,
            Approval = Words(Approval),
            Supersedes = (Supersedes ?? "")
                .Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries) is { Length: > 0 } others
                ? [.. others.Select(other => before?.Supersedes?.FirstOrDefault(known => known.Number == other) ?? new BulletinRef(other))]
                : null,
            Kit = kit.Count > 0 ? [.. kit.Select(one => one.part!)] : null,
            Tools = Lines(Tools) is { Count: > 0 } tools ? tools : null,
            LabourHours = Number("labourHours", LabourHours),
            LabourCredit = Number("labourCredit", LabourCredit),
            LogWording = Words(LogWording),
            Documents = Lines(Documents) is { Count: > 0 } documents
                ? [.. documents.Select(line => before?.Documents?.FirstOrDefault(known => Line(known) == line) ?? Document(line))]
                : null,
        };
        if (wrong is not null)
            return (null, wrong);
        return BulletinFile.Fault(bulletin) is { } whole
            ? (null, new("whole", char.ToUpperInvariant(whole[0]) + whole[1..]))
            : (bulletin, null);
    }

    /// <summary>Limbs of a kind that stands twice: the form shows the first of each.</summary>
    public static IEnumerable<Deadline> MoreLimbs(Bulletin? bulletin) =>
        (bulletin?.Compliance.Deadlines ?? []).GroupBy(limb => limb.When).SelectMany(limbs => limbs.Skip(1));

    private static string Line(KitPart part) => $"{part.Quantity:0.##}; {part.What}{(part.Number.Length > 0 ? "; " + part.Number : "")}";

    private static string Line(BulletinDocument document) =>
        $"{document.Title}{(document.Reference.Length > 0 ? "; " + document.Reference : "")}";

    private static KitPart? Part(string line) =>
        line.Split(';', StringSplitOptions.TrimEntries) is { Length: >= 2 } parts && TypedNumber.Parse(parts[0]) is > 0 and { } quantity
        ? new(parts[1], parts.Length > 2 ? parts[2] : "", (decimal)quantity) : null;

    private static BulletinDocument Document(string line) =>
        line.Split(';', 2, StringSplitOptions.TrimEntries) is [var title, var reference] ? new(title, reference) : new(line);

    private static string? Words(string? typed) => string.IsNullOrWhiteSpace(typed) ? null : typed.Trim();

    private static List<string> Lines(string? typed) =>
        [.. (typed ?? "").ReplaceLineEndings("\n").Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)];
}
