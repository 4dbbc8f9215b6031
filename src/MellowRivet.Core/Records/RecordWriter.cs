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
    /// <param name="inspection">The inspection to close.</param>
    /// <param name="aircraft">Its aircraft, with components.</param>
    /// <param name="rules">The rule pack in force.</param>
    /// <param name="signer">Who signs.</param>
    /// <param name="date">The day as the shop has it.</param>
    public static IReadOnlyList<Draft> Draft(Inspection inspection, Aircraft aircraft, RulePack rules, Signer signer, DateOnly date)
    {
        var unairworthy = inspection.OpenAirworthiness.ToList();
        var deferred = inspection.Discrepancies.Where(found => found.IsDeferred).OrderBy(found => found.Number).ToList();
        var scope = Scope.Of(rules, inspection, aircraft).Entered(inspection.Checklist);
        var judged = JudgedLines.Of(inspection, aircraft);

        JsonObject Entry(Book book, string subject, string item, string serial, Hours? time, Guid? part = null)
        {
            var (statement, source) = rules.Statement(inspection.Kind, aircraft.Category, unairworthy.Count == 0, subject, date,
                inspection.Checklist?.InWords);
            IEnumerable<string> Here(Guid? on, string zoneKey, string words) =>
                inspection.EnteredIn(aircraft, on, zoneKey) is var place && place.Book == book && place.Carrier == part
                    ? [place.Said + words]
                    : [];
            var work = inspection.Discrepancies.Where(found => found.Correction is not null).OrderBy(found => found.Number)
                .SelectMany(found => Here(found.ComponentId, found.ZoneKey, $"{found.What}: {found.Correction!.InWords}"))
                .Concat(inspection.Bulletins.Where(done => done.Complied is not null)
                    .SelectMany(done => Here(done.ComponentId, done.ZoneKey,
                        $"{done.Title}: {done.Complied!.Wording}"
                        + $"{(done.Complied.Certificate.Length > 0 ? $" ({done.Complied.Certificate})" : "")}")))
                // What was judged bad and may stand, what was set lower, what was left out: each with its
                // reason, in the book it belongs to.
                .Concat(judged.Where(line => line.AsEntered is not null)
                    .SelectMany(line => Here(line.Judged.ComponentId
                        ?? line.Judged.Where.EngineId, line.Judged.Where.ZoneKey, line.AsEntered!)))
                .Concat(inspection.Discrepancies.Where(found => found is { Origin: not null, Disposition: not Disposition.Withdrawn })
                    .SelectMany(found => found.Lowered.SelectMany(
                        less => Here(found.ComponentId, found.ZoneKey, $"{found.What}: {less.InWords}"))))
                .Concat(inspection.NotPart.Where(left => Records.EnteredIn.Of(aircraft, left.Carrier, Book.Engine, null) is var place
                    && place.Book == book && place.Carrier == part).Select(left => left.AsEntered));
            return new()
            {
                ["title"] = $"{book} entry",
                ["registration"] = aircraft.Registration,
                ["type"] = aircraft.Type,
                ["item"] = item,
                ["serial"] = serial,
                ["date"] = date.ToString("yyyy-MM-dd"),
                ["timeInService"] = time is { } known ? $"{known} h" : "not known",
                ["aircraftTime"] = $"{aircraft.TimeInService} h",
                ["workOrder"] = inspection.WorkOrder,
                ["extent"] = $"{inspection.Kind.InWords()}, {(scope.Length > 0 ? scope + ", " : "")}"
                    + $"{string.Join(", ", inspection.Worksheets.Select(sheet => $"worksheet {sheet.Key} version {sheet.Version}"))}, "
                    + $"{inspection.Tasks.Count} tasks",
                ["work"] = new JsonArray([.. work.Select(words => (JsonNode)words)]),
                ["statement"] = statement,
                ["statementSource"] = source.Text,
                ["airworthy"] = unairworthy.Count == 0,
                ["signedBy"] = signer.Person.Name,
                ["certificate"] = $"{signer.Certificate.Kind.InWords()}, {signer.Certificate.Number}",
                ["rulePack"] = $"{rules.Key} {rules.Effective:yyyy-MM-dd}",
            };
        }

        var total = aircraft.TimeInService;
        List<Draft> drafts = [new(Book.Airframe, Entry(Book.Airframe, "aircraft", "Airframe", aircraft.SerialNumber, total))];
        drafts.AddRange(aircraft.Engines.Select(engine => new Draft(Book.Engine,
            Entry(Book.Engine, "engine", $"Engine {engine.Position}".Trim(), engine.Component.SerialNumber, engine.TimeInService(total),
                engine.ComponentId))));
        drafts.AddRange(aircraft.Propellers.Select(propeller => new Draft(Book.Propeller,
            Entry(Book.Propeller, "propeller", $"Propeller {propeller.Position}".Trim(), propeller.Component.SerialNumber,
                propeller.TimeInService(total), propeller.ComponentId))));
        if (unairworthy.Count + deferred.Count > 0)
            drafts.Add(new(Book.DiscrepancyList, OwnersList(drafts[0].Content, inspection, unairworthy, deferred)));
        return drafts;
    }

    /// <summary>The entry that clears one open item, outside an inspection (14 CFR 43.9(a), from memory).</summary>
    /// <param name="item">The item.</param>
    /// <param name="aircraft">Its aircraft, with components.</param>
    /// <param name="rules">The rule pack in force.</param>
    /// <param name="done">What was done.</param>
    /// <param name="signer">Who signs.</param>
    /// <param name="date">The day as the shop has it.</param>
    /// <param name="left">Airworthiness items that stay open once this one is cleared.</param>
    public static Draft Clearing(OpenItem item, Aircraft aircraft, RulePack rules, Correction done, Signer signer, DateOnly date, int left)
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
        return new(place.Book, new()
        {
            ["title"] = $"{place.Book} entry",
            ["registration"] = aircraft.Registration,
            ["type"] = aircraft.Type,
            ["item"] = on is null ? "Airframe" : $"{place.Book} {on.Position}".Trim(),
            ["serial"] = on?.Component.SerialNumber ?? aircraft.SerialNumber,
            ["date"] = date.ToString("yyyy-MM-dd"),
            ["timeInService"] = (on is null ? aircraft.TimeInService : on.TimeInService(aircraft.TimeInService)) is { } time
                ? $"{time} h"
                : "not known",
            ["aircraftTime"] = $"{aircraft.TimeInService} h",
            ["workOrder"] = item.FirstNumber,
            ["extent"] = $"open item {item.FirstNumber} of {item.Since:yyyy-MM-dd}, {item.Because.InWords()}, cleared",
            ["work"] = new JsonArray($"{place.Said}{item.FirstNumber} {item.ZoneTitle}"
                + $"{(item.Where.Length > 0 ? ", " + item.Where : "")}, {item.What}: {done.InWords}"),
            ["statement"] = $"The work entered above was done, and the aircraft is approved for return to service as "
                + $"far as that work goes.{last}",
            ["statementSource"] = "14 CFR 43.9(a) and 43.11(b), from memory",
            ["signedBy"] = signer.Person.Name,
            ["certificate"] = $"{signer.Certificate.Kind.InWords()}, {signer.Certificate.Number}",
            ["rulePack"] = $"{rules.Key} {rules.Effective:yyyy-MM-dd}",
        });
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
        return new(Book.BulletinStatus, new()
        {
            ["title"] = "Status of directives and bulletins",
            ["registration"] = aircraft.Registration,
            ["type"] = aircraft.Type,
            ["item"] = "Aircraft",
            ["serial"] = aircraft.SerialNumber,
            ["date"] = date.ToString("yyyy-MM-dd"),
            ["timeInService"] = $"{aircraft.TimeInService} h",
            ["aircraftTime"] = $"{aircraft.TimeInService} h",
            ["workOrder"] = inspection.WorkOrder,
            ["extent"] = $"{research.Lines.Count} looked up for the {inspection.Kind.InWords()}, the latest of {latest:yyyy-MM-dd}",
            ["work"] = new JsonArray([.. research.Lines.OrderBy(line => line.Bulletin.Kind)
                .ThenBy(line => line.Bulletin.Number, StringComparer.Ordinal).Select(line => (JsonNode)StatusOf(line))]),
            ["statement"] = "The directives and bulletins named here are those this shop holds. Each was held against the data plates "
                + "and papers of this aircraft and its parts. Others may exist: the issuers’ own lists decide.",
            ["statementSource"] = "14 CFR 91.417(a)(2)(v), from memory",
            ["signedBy"] = signer.Person.Name,
            ["certificate"] = $"{signer.Certificate.Kind.InWords()}, {signer.Certificate.Number}",
            ["rulePack"] = $"{rules.Key} {rules.Effective:yyyy-MM-dd}",
        });
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
        list["work"] = new JsonArray(
            [.. unairworthy.Select(Line).Concat(deferred.Select(found => $"{Line(found)}. Inoperative: {found.Correction!.InWords}"))
                .Select(words => (JsonNode)words)]);
        return list;
    }
}
