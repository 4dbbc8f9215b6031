using System.Text.Json.Nodes;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;

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
    /// <param name="now">When, in the shop's own time: the entry carries the day as the shop has it.</param>
    public static IReadOnlyList<Draft> Draft(Inspection inspection, Aircraft aircraft, RulePack rules, Signer signer, DateTimeOffset now)
    {
        var date = DateOnly.FromDateTime(now.DateTime);
        var unairworthy = inspection.OpenAirworthiness.ToList();

        JsonObject Entry(Book book, string subject, string item, string serial, Hours? time)
        {
            var (statement, source) = rules.Statement(inspection.Kind, aircraft.Category, unairworthy.Count == 0, subject, date);
            var work = inspection.Discrepancies.Where(found => !found.IsOpen && inspection.BookOf(found.ZoneKey) == book).OrderBy(found => found.Number);
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
                ["extent"] = $"{inspection.Kind.InWords()}, {string.Join(", ", inspection.Sheets.Select(sheet => $"worksheet {sheet.Key} version {sheet.Version}"))}, {inspection.Tasks.Count} tasks",
                ["work"] = new JsonArray([.. work.Select(found => (JsonNode)$"{found.What}: {found.CorrectiveAction}")]),
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
            Entry(Book.Engine, "engine", $"Engine {engine.Position}".Trim(), engine.Component.SerialNumber, engine.TimeInService(total)))));
        drafts.AddRange(aircraft.Propellers.Select(propeller => new Draft(Book.Propeller,
            Entry(Book.Propeller, "propeller", $"Propeller {propeller.Position}".Trim(), propeller.Component.SerialNumber, propeller.TimeInService(total)))));
        if (unairworthy.Count > 0)
            drafts.Add(new(Book.DiscrepancyList, OwnersList(drafts[0].Content, inspection, unairworthy)));
        return drafts;
    }

    private static JsonObject OwnersList(JsonObject airframe, Inspection inspection, IEnumerable<Discrepancy> unairworthy)
    {
        var list = (JsonObject)airframe.DeepClone();
        list["title"] = "Discrepancies and unairworthy items";
        list["statement"] = "Found during the inspection named above. Until each is put right and entered by a person entitled to, the aircraft is not airworthy.";
        list["statementSource"] = "14 CFR 43.11(b), from memory";
        list["work"] = new JsonArray([.. unairworthy.Select(found => (JsonNode)
            $"{inspection.WorkOrder}-{found.Number:00} {inspection.ZoneTitle(found.ZoneKey)}{(found.Where.Length > 0 ? ", " + found.Where : "")}: {found.What}")]);
        return list;
    }
}
