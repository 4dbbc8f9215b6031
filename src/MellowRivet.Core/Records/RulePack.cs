using System.Text.Json;
using System.Text.RegularExpressions;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Records;

/// <summary>Who may sign one kind of inspection on one category of aircraft.</summary>
/// <param name="Inspections">The kinds it covers.</param>
/// <param name="Categories">The categories it covers.</param>
/// <param name="Certificate">What the signer holds.</param>
/// <param name="OwnSerialOnly">True where the certificate holds for one airframe serial.</param>
/// <param name="Source">The rule.</param>
public sealed record SigningRule(
    IReadOnlyList<InspectionKind> Inspections, IReadOnlyList<Category> Categories, CertificateKind Certificate, bool OwnSerialOnly,
    RuleSource Source);

/// <summary>
/// The statement an inspection is signed with, both ways. {subject}, {kind} ("annual"), {type} ("an annual"), {date} and {checklist}
/// are filled in; {whole} is "the aircraft " in the book of an engine or propeller, and nothing in the airframe's.
/// </summary>
public sealed record StatementRule(
    IReadOnlyList<InspectionKind> Inspections, IReadOnlyList<Category> Categories, string Airworthy, string Unairworthy, RuleSource Source);

/// <summary>
/// How work without an inspection is entered (14 CFR 43.9). Who signs it is whoever may clear an open item; a pilot signs preventive
/// maintenance on an aircraft that they own or operate.
/// </summary>
/// <param name="Categories">The categories it covers.</param>
/// <param name="Done">The statement; {subject} and {date} are filled in.</param>
/// <param name="NotDone">The same with an open airworthiness item.</param>
/// <param name="Source">The rule.</param>
/// <param name="Preventive">The statement of preventive maintenance; null where the scheme has none.</param>
/// <param name="PreventiveOn">The categories on which a pilot may do it.</param>
/// <param name="PreventiveSource">The rule of it.</param>
public sealed record JobRules(IReadOnlyList<Category> Categories, string Done, string NotDone, RuleSource Source, string? Preventive,
    IReadOnlyList<Category> PreventiveOn, RuleSource? PreventiveSource);

/// <summary>Whether a person may sign, by which certificate or why not.</summary>
public sealed record SigningAnswer(Certificate? By, string Reason, RuleSource? Source)
{
    public bool Allowed => By is not null;
}

/// <summary>
/// One authority's rules as data, with the day from which they hold. It lives on the shelf as a JSON file. Its logbook entries are
/// worded by the template it names.
/// </summary>
public sealed partial record RulePack(
    string Key, string Title, DateOnly Effective, string Note, IReadOnlyList<SigningRule> Signing, IReadOnlyList<StatementRule> Statements,
    IReadOnlyList<BindingRule>? Bulletins = null, IReadOnlyList<ScopeRule>? Scopes = null, IReadOnlyList<AskRule>? Asks = null,
    IReadOnlyList<LookRule>? Looks = null, IReadOnlyList<ClearingRule>? Clearing = null, string? Entries = null,
    JobRules? Jobs = null)
{
    /// <summary>Reads a rule pack.</summary>
    /// <exception cref="FormatException">It isn't JSON, or a field is missing, unknown or of the wrong kind.</exception>
    public static RulePack Parse(string json)
    {
        try
        {
            return JsonSerializer.Deserialize<RulePack>(json, Worksheet.Json) ?? throw new FormatException("The rule pack is empty.");
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The rule pack can't be read: {problem.Message}", problem);
        }
    }

    /// <summary>The same, with another's sections where it has none of its own.</summary>
    public RulePack FilledFrom(RulePack other) => this with
    {
        Bulletins = Bulletins ?? other.Bulletins,
        Scopes = Scopes ?? other.Scopes,
        Asks = Asks ?? other.Asks,
        Looks = Looks ?? other.Looks,
        Clearing = Clearing ?? other.Clearing,
        Entries = Entries ?? other.Entries,
        Jobs = Jobs ?? other.Jobs,
    };

    /// <summary>Whether it says who signs anything on aircraft of a category.</summary>
    public bool Covers(Category category) => Signing.Any(rule => rule.Categories.Contains(category));

    /// <summary>The kinds of inspection it has rules for, on a category: who signs them and in which words.</summary>
    public IEnumerable<InspectionKind> KindsFor(Category category) => Enum.GetValues<InspectionKind>().Where(kind =>
        kind != InspectionKind.Survey && Signing.Any(rule => rule.Inspections.Contains(kind) && rule.Categories.Contains(category))
        && Statements.Any(rule => rule.Inspections.Contains(kind) && rule.Categories.Contains(category)));

    /// <summary>Whether work without an inspection is entered by it, on a category.</summary>
    public bool DoesJobs(Category category) => Jobs?.Categories.Contains(category) == true;

    /// <summary>Whether it has words to sign a kind of inspection with, on a category.</summary>
    public bool HasStatement(InspectionKind kind, Category category) => kind == InspectionKind.Job ? DoesJobs(category) :
        kind != InspectionKind.Survey &&
        Statements.Any(rule => rule.Inspections.Contains(kind) && rule.Categories.Contains(category));

    /// <summary>
    /// Why an inspection that is in work couldn't be signed on another category, or null where it goes on by that one's rules.
    /// </summary>
    /// <param name="inspection">The inspection.</param>
    /// <param name="to">The category the aircraft would get.</param>
    public Refusal? GoesOn(Inspection inspection, Category to) => !inspection.InWork || inspection.IsSurvey
        || KindsFor(to).Contains(inspection.Kind)
        || (inspection.Kind == InspectionKind.Job && DoesJobs(to)) ? null
        : new("Category",
            $"{inspection.WorkOrder}, {inspection.Kind.InWordsToChoose()}, is in work, and {Title} knows none on {to.InWords()}: "
            + $"nobody could sign it. Sign it first.");

    /// <summary>Whether a person may sign this kind of inspection on this aircraft.</summary>
    /// <param name="person">The person.</param>
    /// <param name="kind">The kind of inspection.</param>
    /// <param name="aircraft">The aircraft.</param>
    /// <param name="on">The day: a certificate that ended before it signs nothing.</param>
    public SigningAnswer MaySign(Person person, InspectionKind kind, Aircraft aircraft, DateOnly on)
    {
        if (kind == InspectionKind.Job)
            return MayClear(person, aircraft, on);
        if (kind == InspectionKind.Survey)
            return new(null, $"{SurveyWords.NoInspection} Nobody signs it.", null);
        var rules = Signing.Where(rule => rule.Inspections.Contains(kind) && rule.Categories.Contains(aircraft.Category)).ToList();
        var what = $"this aircraft's {kind.InWords()}";
        return rules.Count == 0
            ? new(null, $"{Title} has no rule here for who signs {what}.", null)
            : Answer([.. rules.Select(rule => (rule.Certificate, rule.OwnSerialOnly, rule.Source))], person, aircraft, on, $"sign {what}");
    }

    /// <summary>The statement for an inspection.</summary>
    /// <exception cref="InvalidOperationException">The pack has none for this kind and category.</exception>
    public (string Text, RuleSource Source) Statement(Inspection inspection, Category category, bool airworthy, string subject,
        DateOnly date)
    {
        if (inspection.JobOf is not { } job)
            return Statement(inspection.Kind, category, airworthy, subject, date, inspection.Checklist?.InWords);
        var rules = Jobs is { } there && DoesJobs(category) ? there
            : throw new InvalidOperationException($"{Title} has no words for work without an inspection on {category.InWords()}.");
        var (words, source) = !airworthy ? (rules.NotDone, rules.Source)
            : job.IsPreventive ? (rules.Preventive!, rules.PreventiveSource!)
            : (rules.Done, rules.Source);
        return (words.Replace("{subject}", subject).Replace("{date}", date.ToString("yyyy-MM-dd")), source);
    }

    /// <inheritdoc cref="Statement(Inspection, Category, bool, string, DateOnly)"/>
    public (string Text, RuleSource Source) Statement(InspectionKind kind, Category category, bool airworthy, string subject, DateOnly date,
        string? checklist = null)
    {
        var rule = Statements.FirstOrDefault(rule => rule.Inspections.Contains(kind) && rule.Categories.Contains(category))
            ?? throw new InvalidOperationException(
                $"{Title} has no statement for a {kind.InWords()} on an aircraft of category {category.InWords()}.");
        // "an annual", to go before "inspection"; a shop's own words may have put an article of their own before it.
        var article = kind == InspectionKind.Annual ? "an" : "a";
        var words = Article().Replace(airworthy ? rule.Airworthy : rule.Unairworthy, "$1{kind}");
        // An engine isn't found unsafe because a tyre is: its book says that the aircraft was.
        var whole = subject == "aircraft" ? "" : "the aircraft ";
        return (words.Replace("{subject}", subject).Replace("{whole}", whole).Replace("{kind}", kind.InWords())
            .Replace("{type}", $"{article} {kind.InWords()}")
            .Replace("{date}", date.ToString("yyyy-MM-dd"))
            .Replace("{checklist}", checklist ?? "(title and revision are still to be stated)"), rule.Source);
    }

    /// <summary>
    /// Whether a pilot may do a job as preventive maintenance: with a pilot's certificate, on the aircraft that they own or operate, and
    /// only what the list of 43 Appendix A(c) has.
    /// </summary>
    /// <param name="person">The pilot.</param>
    /// <param name="aircraft">The aircraft.</param>
    /// <param name="asked">What the list says of the job.</param>
    /// <param name="on">The day.</param>
    public SigningAnswer MayDoPreventive(Person person, Aircraft aircraft, WhoMayAnswer asked, DateOnly on)
    {
        if (Jobs is not { Preventive: not null, PreventiveSource: { } source } jobs || !jobs.PreventiveOn.Contains(aircraft.Category))
            return new(null, $"{Title} has no preventive maintenance by its pilot on {aircraft.Category.InWords()}.", Jobs?.Source);
        if (IsItsPilot(person, aircraft, on) is not { } pilot)
            return new(null, $"Preventive maintenance takes a pilot’s certificate and an aircraft that one owns or operates: {person.Name} "
                + $"holds {Holds(person, on)}{(person.OwnsOn(aircraft.Id, on)
                    ? "" : $", and {aircraft.Registration} isn’t on file as theirs")}.", source);
        return asked is { Who: MayDo.Owner }
            ? new(pilot, $"{pilot.Kind.InWords()}, {pilot.Number}", source)
            : new(null, asked.Words, source);
    }

    /// <summary>
    /// The pilot's certificate of somebody who owns or operates an aircraft: on file as theirs on the day, or bound to its serial.
    /// Null for anybody else.
    /// </summary>
    public static Certificate? IsItsPilot(Person person, Aircraft aircraft, DateOnly on) => person.Certificates.FirstOrDefault(
        held => held.Kind == CertificateKind.Pilot && held.HoldsOn(on)
            && (held.OnlySerial == aircraft.SerialNumber || (held.OnlySerial is null && person.OwnsOn(aircraft.Id, on))));

    /// <summary>Whether a person may clear an open item of this aircraft by an entry of their own, outside an inspection.</summary>
    /// <param name="person">The person.</param>
    /// <param name="aircraft">The aircraft.</param>
    /// <param name="on">The day.</param>
    public SigningAnswer MayClear(Person person, Aircraft aircraft, DateOnly on)
    {
        var rules = (Clearing ?? []).Where(rule => rule.Categories.Contains(aircraft.Category)).ToList();
        return rules.Count == 0
            ? new(null, $"{Title} has no rule here for who clears an open item.", null)
            : Answer([.. rules.Select(rule => (rule.Certificate, rule.OwnSerialOnly, rule.Source))], person, aircraft, on,
                "clear an open item");
    }

    // By the first certificate that is asked for, held and not ended; else what it takes, and what ended.
    private static SigningAnswer Answer(IReadOnlyList<(CertificateKind Kind, bool OwnSerialOnly, RuleSource Source)> rules, Person person,
        Aircraft aircraft, DateOnly on, string what)
    {
        var held = (from rule in rules
                    from certificate in person.Certificates
                    where certificate.Kind == rule.Kind && (!rule.OwnSerialOnly || certificate.OnlySerial == aircraft.SerialNumber)
                    select (certificate, rule.Source)).ToList();
        if (held.FirstOrDefault(one => one.certificate.HoldsOn(on)) is { certificate: { } by } match)
            return new(by, $"{by.Kind.InWords()}, {by.Number}", match.Source);
        var needed = rules.Select(rule => rule.Kind.InWords() + (rule.OwnSerialOnly ? " for this serial number" : "")).Distinct();
        return new(null,
            $"To {what} takes a certificate as {string.Join(", or ", needed)}. {person.Name} holds {Holds(person, on)}.",
            rules[0].Source);
    }

    [GeneratedRegex(@"\b([Tt]he |[Tt]his |[Aa]n? )\{type\}")]
    private static partial Regex Article();

    private static string Holds(Person person, DateOnly on) => person.Certificates.Count == 0
        ? "none"
        : string.Join(", ",
            person.Certificates.Select(held => held.Kind.InWords() + (held.OnlySerial is { } serial ? $" for serial {serial}" : "")
                + (held.HoldsOn(on) ? "" : $", which ended on {held.Until:yyyy-MM-dd}")));
}
