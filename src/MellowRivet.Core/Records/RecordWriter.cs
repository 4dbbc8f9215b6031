using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Records;

/// <summary>Who signs, by which certificate.</summary>
public sealed record Signer(Person Person, Certificate Certificate);

/// <summary>One record to be signed: its book and its content.</summary>
public sealed record Draft(Book Book, JsonObject Content);

/// <summary>
/// Writes the records that close an inspection: an entry for each book (14 CFR 43.11(a): type and extent, date, total time in
/// service, signature, certificate number and kind, and the statement; 43.9(a) for the work done) and, with the
/// unairworthy statement, the dated list of 43.11(b). Rules from memory.
/// </summary>
public static class RecordWriter
{
    /// <param name="closing">What was done, and the rules and people it is weighed by.</param>
    /// <param name="signer">Who signs.</param>
    public static IReadOnlyList<Draft> Draft(Closing closing, Signer signer)
    {
        var (inspection, aircraft) = (closing.Inspection, closing.Aircraft);
        var unairworthy = inspection.OpenAirworthiness.ToList();
        var deferred = inspection.Discrepancies.Where(found => found.IsDeferred).OrderBy(found => found.Number).ToList();
        List<Draft> drafts = [.. LogbookEntry.Of(closing).Select(entry =>
        {
            var content = Head(closing.Aircraft, closing.Shop.Pack, signer, closing.On, $"{entry.Book} entry", entry.Item,
                entry.On?.Component.SerialNumber ?? aircraft.SerialNumber, entry.Time, entry.SinceOverhaul);
            content["workOrder"] = inspection.WorkOrder;
            content["extent"] = entry.Extent;
            content["work"] = Lines(entry.Told);
            content["omitted"] = Lines(entry.Sentences.Select(sentence => sentence.Omitted).OfType<OmittedFact>()
                .Select(fact => closing.Decided(fact.AsKept, fact.By, fact.Certificate)));
            content["length"] = $"{inspection.EntryLength}".ToLowerInvariant();
            content["template"] = closing.Shop.Entries.Key;
            content["statement"] = entry.Statement;
            content["statementSource"] = entry.Source.Text;
            content["airworthy"] = unairworthy.Count == 0;
            return new Draft(entry.Book, content);
        })];
        if (unairworthy.Count + deferred.Count > 0)
            drafts.Add(new(Book.DiscrepancyList, OwnersList(drafts[0].Content, inspection, unairworthy, deferred)));
        return drafts;
    }

    /// <summary>
    /// What makes drafts the very ones that somebody read: SHA-256 over their books and texts, in lower-case hex. The signature that
    /// is meant for these is put under no others.
    /// </summary>
    public static string ReadAs(IReadOnlyList<Draft> drafts) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(
        string.Join('\n', drafts.Select(draft => $"{draft.Book} {CanonicalJson.Of(draft.Content)}")))));

    /// <summary>
    /// The entry that corrects a signed one: it names it, quotes what is wrong and says how that should read (14 CFR 43.12 forbids
    /// altering an entry, from memory).
    /// </summary>
    /// <param name="record">The record that is wrong.</param>
    /// <param name="correction">What is wrong with it.</param>
    /// <param name="aircraft">Its aircraft, with components.</param>
    /// <param name="rules">The rule pack in force.</param>
    /// <param name="signer">Who signs.</param>
    /// <param name="date">The day as the shop has it.</param>
    public static Draft Correcting(SignedRecord record, RecordCorrection correction, Aircraft aircraft, RulePack rules, Signer signer,
        DateOnly date)
    {
        var was = record.Text();
        var (item, serial, title) = ($"{was["item"]}", $"{was["serial"]}", $"{was["title"]}");
        var on = aircraft.Installations.FirstOrDefault(stay => stay.IsOn && stay.Component.SerialNumber == serial
            && (stay.Component.Kind, record.Book) is (ComponentKind.Engine, Book.Engine) or (ComponentKind.Propeller, Book.Propeller));
        var content = Head(aircraft, rules, signer, date,
            title.StartsWith("Correction", StringComparison.Ordinal) ? title : $"Correction, {char.ToLowerInvariant(title[0])}{title[1..]}",
            item, serial, record.Book is Book.Engine or Book.Propeller
                ? on?.TimeInService(aircraft.TimeInService)
                : aircraft.TimeInService);
        content["workOrder"] = $"{was["workOrder"]}";
        content["corrects"] = $"{record.Number}";
        content["extent"] = $"Correction of record {record.Number}, “{title}” of {was["date"]}, signed by {was["signedBy"]}.";
        content["work"] = Lines([$"It says: “{correction.Says}”", $"It should read: “{correction.Reads}”", $"Why: {correction.Why}"]);
        content["statement"] = $"This entry corrects record {record.Number}, which stays as it was signed. What else stands there holds.";
        content["statementSource"] = "14 CFR 43.9 and 43.12, from memory";
        return new(record.Book, content);
    }

    // What stands at the head and the foot of every record (14 CFR 43.9(a) and 43.11(a), from memory).
    private static JsonObject Head(Aircraft aircraft, RulePack rules, Signer signer, DateOnly date, string title, string item,
        string serial, Hours? time, Hours? sinceOverhaul = null)
    {
        JsonObject content = new()
        {
            ["title"] = title,
            ["registration"] = aircraft.Registration,
            ["type"] = aircraft.Type,
            ["item"] = item,
            ["serial"] = serial,
            ["date"] = date.ToString("yyyy-MM-dd"),
            ["timeInService"] = time is { } known ? $"{known} h" : "not known",
            ["aircraftTime"] = $"{aircraft.TimeInService} h",
            ["signedBy"] = signer.Person.Name,
            ["certificate"] = $"{signer.Certificate.Kind.InWords()}, {signer.Certificate.Number}",
            ["rulePack"] = $"{rules.Key} {rules.Effective:yyyy-MM-dd}",
        };
        if (sinceOverhaul is { } since)
            content["sinceOverhaul"] = $"{since} h";
        return content;
    }

    private static JsonArray Lines(IEnumerable<string> lines) => new([.. lines.Select(line => (JsonNode)line)]);

    /// <summary>The entry that clears one open item, outside an inspection (14 CFR 43.9(a), from memory).</summary>
    /// <param name="item">The item.</param>
    /// <param name="aircraft">Its aircraft, with components.</param>
    /// <param name="shop">The rules in force, and how entries are worded.</param>
    /// <param name="done">What was done.</param>
    /// <param name="signer">Who did it and signs.</param>
    /// <param name="date">The day as the shop has it.</param>
    /// <param name="left">Airworthiness items that stay open once this one is cleared.</param>
    public static Draft Clearing(OpenItem item, Aircraft aircraft, ShopRules shop, Correction done, Signer signer, DateOnly date, int left)
    {
        // One that was left open before parts were known by themselves says by its zone which engine it is.
        var ofZone = aircraft.Engines.Concat(aircraft.Propellers)
            .FirstOrDefault(stay => (stay.Component.Kind == ComponentKind.Propeller) == (item.Book == Book.Propeller)
                && stay.Position.Length > 0 && item.ZoneKey.EndsWith($"-{stay.Position}", StringComparison.Ordinal));
        var place = EnteredIn.Of(aircraft, item.ComponentId, item.Book, ofZone?.ComponentId);
        var on = place.Carrier is { } carrier ? aircraft.Fitting(carrier) : null;
        var last = item.Because == OpenBecause.Airworthiness
            ? left == 0 ? " With this the last airworthiness item that was left open on this aircraft is cleared."
            : $" {left} airworthiness {(left == 1 ? "item stays" : "items stay")} open: the aircraft is not airworthy before "
            + $"{(left == 1 ? "it is" : "they are")} cleared."
            : "";
        var content = Head(aircraft, shop.Pack, signer, date, $"{place.Book} entry",
            on is null ? "Airframe" : $"{place.Book} {on.Position}".Trim(), on?.Component.SerialNumber ?? aircraft.SerialNumber,
            on is null ? aircraft.TimeInService : on.TimeInService(aircraft.TimeInService));
        content["workOrder"] = item.FirstNumber;
        content["extent"] = $"open item {item.FirstNumber} of {item.Since:yyyy-MM-dd}, {item.Because.InWords()}, cleared";
        content["work"] = Lines([place.Said + shop.Entries.Tell(
            EntryFacts.Cleared(item, place, aircraft, done, shop.Deciding(signer.Person.Id, $"{content["certificate"]}"), date),
            EntryLength.Full)]);
        content["statement"] = $"The work entered above was done, and the aircraft is approved for return to service as "
            + $"far as that work goes.{last}";
        content["statementSource"] = "14 CFR 43.9(a) and 43.11(b), from memory";
        return new(place.Book, content);
    }

    /// <summary>
    /// The status of every bulletin that was looked up for an inspection: method, revision, date, time and what is due next
    /// (14 CFR 91.417(a)(2)(v), from memory).
    /// </summary>
    /// <param name="inspection">The inspection.</param>
    /// <param name="aircraft">Its aircraft.</param>
    /// <param name="rules">The rule pack in force.</param>
    /// <param name="research">The bulletins as they stand on it.</param>
    /// <param name="signer">Who signs.</param>
    /// <param name="date">The day as the shop has it.</param>
    public static Draft BulletinStatus(Inspection inspection, Aircraft aircraft, RulePack rules, BulletinResearch research, Signer signer,
        DateOnly date)
    {
        var latest = research.Lines.Select(line => line.Bulletin.Published).DefaultIfEmpty(date).Max();
        var content = Head(aircraft, rules, signer, date, "Status of directives and bulletins", "Aircraft", aircraft.SerialNumber,
            aircraft.TimeInService);
        content["workOrder"] = inspection.WorkOrder;
        content["extent"] = $"{research.Lines.Count} looked up for the {inspection.Kind.InFull()}, the latest of {latest:yyyy-MM-dd}";
        content["work"] = Lines(research.Lines.OrderBy(line => line.Bulletin.Kind)
            .ThenBy(line => line.Bulletin.Number, StringComparer.Ordinal).Select(StatusOf));
        content["statement"] = "The directives and bulletins named here are those this shop holds. Each was held against the data plates "
            + "and papers of this aircraft and its parts. Others may exist: the issuers’ own lists decide.";
        content["statementSource"] = "14 CFR 91.417(a)(2)(v), from memory";
        return new(Book.BulletinStatus, content);
    }

    /// <summary>One bulletin's status in a line.</summary>
    public static string StatusOf(BulletinLine line)
    {
        var done = line.Last is { } last
            ? $"; {last.Method}, revision {(last.Revision.Length == 0 ? "original issue" : last.Revision)}, {last.On:yyyy-MM-dd}, "
            + $"{(last.Hours is { } hours ? $"{hours:0.0} h" : "hours not known")}, {last.Reference}"
            : "";
        var next = line.Due is { } due && line.Counts
            ? $"; next due "
            + $"{string.Join(" or ",
                due.Status.Limbs.Select(limb => limb.DueOn is { } day ? $"{day:yyyy-MM-dd}" : limb.DueAt is { } at
                    ? $"{at:0.0} h"
                    : "not known").DefaultIfEmpty("not known"))}"
            : "";
        return $"{line.Bulletin.Title} ({line.Bulletin.Issuer}, {line.Bulletin.Kind.InWords()}), {line.Bulletin.Subject}, on "
            + $"{line.Subject}: {line.State.InWords()}, {line.Force}{done}{next}"
            + (line.State is BulletinState.DoesNotApply or BulletinState.Superseded or BulletinState.Declined or BulletinState.CannotTell
                ? $"; {line.Why}"
                : "");
    }

    private static JsonObject OwnersList(JsonObject airframe, Inspection inspection, List<Discrepancy> unairworthy,
        List<Discrepancy> deferred)
    {
        string Line(Discrepancy found) =>
            $"{inspection.WorkOrder}-{found.Number:00} {inspection.ZoneTitle(found.ZoneKey)}"
            + $"{(found.Where.Length > 0 ? ", " + found.Where : "")}: {found.What}";
        var list = (JsonObject)airframe.DeepClone();
        list["title"] = unairworthy.Count > 0 ? "Discrepancies and unairworthy items" : "Inoperative items, placarded and deferred";
        list["statement"] = string.Join(" ", new[]
        {
            unairworthy.Count > 0
                ? "Found during the inspection named above. Until each is put right and entered by a person entitled to, "
                + "the aircraft is not airworthy."
                : "",
            deferred.Count > 0
                ? "What is marked inoperative is deactivated and placarded; it is looked at again at the next required inspection."
                : "",
        }.Where(words => words.Length > 0));
        list["statementSource"] = deferred.Count > 0
            ? "14 CFR 43.11(b), 91.213(d) and 91.405(c), from memory"
            : "14 CFR 43.11(b), from memory";
        list["work"] = Lines(unairworthy.Select(Line)
            .Concat(deferred.Select(found => $"{Line(found)}. Inoperative: {found.Correction!.InWords}")));
        list.Remove("omitted");
        return list;
    }
}
