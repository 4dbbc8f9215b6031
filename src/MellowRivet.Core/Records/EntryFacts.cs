using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Records;

/// <summary>Puts together what the entries of an inspection can tell, from what was done, read and found at it.</summary>
public static partial class EntryFacts
{
    /// <summary>Every fact but the extent, each in the book it belongs to.</summary>
    public static IReadOnlyList<EntryFact> Of(Closing closing) =>
    [
        .. closing.Aircraft.Engines.SelectMany(engine => OfEngine(closing, engine)), .. Measured(closing), .. Done(closing),
        .. Parts(closing),
        .. Corrections(closing), .. Bulletins(closing), .. SecondPeople(closing), .. Answered(closing), .. DueDone(closing),
        .. Added(closing), .. DueNext(closing),
    ];

    /// <summary>Kind and extent of the inspection, for one book.</summary>
    public static EntryFact ExtentOf(Closing closing, string subject)
    {
        var inspection = closing.Inspection;
        return new(FactKind.Extent, "extent", new(Book.Airframe, null, ""), EntryFact.Said(
            ("kind", inspection.JobOf is not { } job ? inspection.Kind.InFull()
                : job.IsPreventive ? "preventive maintenance"
                : "maintenance"), ("title", inspection.JobOf is { } of ? Small(of.Title) : ""), ("subject", subject),
                ("workOrder", inspection.WorkOrder),
            ("scope", Scope.Of(closing.Shop.Pack, inspection, closing.Aircraft).Entered(inspection.Checklist)),
            ("worksheets", Listed(inspection.Worksheets.Where(sheet => !sheet.Key.StartsWith("bulletin-", StringComparison.Ordinal))
                .Select(sheet => $"“{sheet.Title}”, version {sheet.Version}")))), new(RestsOnKind.Close, Key: "scope"));
    }

    private static EnteredIn PlaceOf(Closing closing, Guid? part, string zoneKey) =>
        closing.Inspection.EnteredIn(closing.Aircraft, part, zoneKey);

    // Values of the walk's tasks, zone by zone; those that a sheet of the engine tells are told there.
    private static IEnumerable<EntryFact> Measured(Closing closing)
    {
        var (inspection, aircraft) = (closing.Inspection, closing.Aircraft);
        var told = aircraft.Engines.SelectMany(engine => ToldBySheets(closing, engine.Component)).ToHashSet();
        return inspection.Tasks
            .Where(task => task is { Measure: not null, IsCompression: false, TiedTo: null } && task.Verdict != TaskVerdict.NotApplicable)
            .OrderBy(task => task.Order).Select(task => (task, reading: inspection.ReadingAt(task)))
            .Where(read => read.reading is { } reading && !told.Contains(reading.Id))
            .GroupBy(read => (read.task.ZoneKey, read.task.ComponentId))
            .Select(zone => new EntryFact(FactKind.Measured, $"measured/{zone.Key.ZoneKey}/{zone.Key.ComponentId:N}",
                PlaceOf(closing, zone.Key.ComponentId, zone.Key.ZoneKey),
                EntryFact.Said(("zone", zone.First().task.ZoneTitle),
                    ("values", string.Join("; ", zone.Select(read => Value(read.task, read.reading!, aircraft))))),
                new(RestsOnKind.Task, zone.First().task.Id)));
    }

    private static string Value(InspectionTask task, Reading reading, Aircraft aircraft)
    {
        var band = TaskJudge.BandFor(task, aircraft, reading.Conditions.Celsius);
        var limit = band is null or { Low: null, High: null } ? "" : $" ({band.Describe()})";
        var at = reading.Conditions.Celsius is { } celsius ? $" at {celsius:0.#} °C" : "";
        return $"{task.Measure!.Kind.Replace('-', ' ')} {reading.InWords}{at}{limit}"
            + (reading.Conditions.Wrench is { } wrench ? $", {Wrench(wrench)}" : "");
    }

    private static string Wrench(WrenchUsed wrench) => $"{wrench.Title}, calibrated until {wrench.CalibratedUntil:yyyy-MM-dd}";

    // Work that tasks stand for. A service is nothing but its tasks: there the looks are told too.
    private static IEnumerable<EntryFact> Done(Closing closing) => closing.Inspection.Tasks
        .Where(task => task is { Verdict: TaskVerdict.Good, TiedTo: null, Measure: null, IsCompression: false, Asks: null }
            && task.Station != Station.Bulletins && (KindOfWork(task.Kind).Length > 0 || closing.Inspection.Kind.IsService()))
        .OrderBy(task => task.Order).GroupBy(task => (task.ZoneKey, task.ComponentId, Kind: KindOfWork(task.Kind)))
        .Select(group => new EntryFact(FactKind.Done, $"done/{group.Key.ZoneKey}/{group.Key.ComponentId:N}/{group.Key.Kind}",
            PlaceOf(closing, group.Key.ComponentId, group.Key.ZoneKey), EntryFact.Said(("zone", group.First().ZoneTitle),
                ("kind", group.Key.Kind.Length > 0 ? group.Key.Kind : "looked at"),
                ("tasks", string.Join("; ", group.Select(task => Small(task.Text) + (task.With is { } with ? $" ({with})" : "")))),
                ("by", string.Join(", ", group.Select(task => closing.Named(task.By)).Distinct()))),
            new(RestsOnKind.Task, group.First().Id)));

    private static string KindOfWork(TaskKind kind) => kind switch
    {
        TaskKind.Service => "serviced",
        TaskKind.Lubricate => "lubricated",
        TaskKind.Replace => "replaced",
        _ => "",
    };

    // Off and on within this inspection, but for what a corrective action tells, and what came or went with another part.
    private static IEnumerable<EntryFact> Parts(Closing closing)
    {
        var (inspection, aircraft) = (closing.Inspection, closing.Aircraft);
        var told = inspection.Discrepancies.Where(found => found.Correction is not null)
            .SelectMany(found => found.Correction!.Parts ?? []).Select(part => part.ReplacedComponent).OfType<Guid>().ToHashSet();
        var off = aircraft.Installations.Where(stay => !stay.IsOn && aircraft.Fitting(stay.ComponentId) is null
            && IsOf(inspection, stay.RemovedOn, stay.RemovedAt!.Value)).ToList();
        var on = aircraft.Installations.Where(stay => stay.IsOn && IsOf(inspection, stay.InstalledOn, stay.InstalledAt)
            && aircraft.Installations.All(other => other.IsOn || other.ComponentId != stay.ComponentId)).ToList();
        foreach (var gone in off.Where(gone => off.All(other => other.ComponentId != gone.ParentId)))
        {
            var place = aircraft.InPlaceOf(gone.ComponentId);
            var fitted = on.Find(stay => stay.ComponentId == place?.Id);
            on.RemoveAll(stay => stay == fitted);
            if (!told.Contains(gone.ComponentId))
                yield return Part(closing, gone, fitted);
        }
        // What is only put on file, because it sat there all along, was fitted by nobody.
        foreach (var fitted in on.Where(fitted => fitted.FittedBy is not null && on.All(other => other.ComponentId != fitted.ParentId)))
            yield return Part(closing, null, fitted);
    }

    private static bool IsOf(Inspection inspection, DateOnly? day, Hours at) =>
        day >= inspection.OpenedOn && at >= inspection.TimeInService;

    private static EntryFact Part(Closing closing, Installation? off, Installation? on)
    {
        var part = (on ?? off)!;
        // An engine that came off is named by the sentence itself.
        return new(FactKind.Part, $"part/{(off ?? on)!.Id:N}", PlaceOf(closing, part.ComponentId, "") with { Said = "" }, EntryFact.Said(
            ("part", Title(closing.Aircraft, part)), ("off", off is null ? "" : Numbers(off, off.RemovedAt!.Value)),
            ("on", on is null ? "" : Numbers(on, on.InstalledAt)), ("why", off?.RemovedWhy),
            ("by", closing.Named(on?.FittedBy ?? off?.TakenOffBy))), new(RestsOnKind.Parts));
    }

    // "magneto left", "spark plug 1T".
    private static string Title(Aircraft aircraft, Installation stay) =>
        $"{(stay.Component.Kind == ComponentKind.Plug ? "spark plug" : stay.Component.Title)} {aircraft.PlaceOf(stay)}".Trim();

    // "p/n TF4-520 s/n 9941 at 1200.5 h, own time 310.0 h".
    private static string Numbers(Installation stay, Hours at) => string.Join(" ", new[]
    {
        stay.Component.PartNumber.Length > 0 ? $"p/n {stay.Component.PartNumber}" : "",
        stay.Component.SerialNumber.Length > 0 ? $"s/n {stay.Component.SerialNumber}" : "",
        $"at {at} h{(stay.TimeInService(at) is { } own ? $", own time {own} h" : "")}",
    }.Where(words => words.Length > 0));

    private static IEnumerable<EntryFact> Corrections(Closing closing) =>
        closing.Inspection.Discrepancies.Where(found => found.Correction is not null).OrderBy(found => found.Number).Select(found =>
        {
            var (done, deferred) = (found.Correction!, found.IsDeferred);
            return new EntryFact(deferred ? FactKind.Deferred : FactKind.Correction, $"found/{found.Id:N}",
                PlaceOf(closing, found.ComponentId, found.ZoneKey), EntryFact.Said(
                [
                    ("number", $"{closing.Inspection.WorkOrder}-{found.Number:00}"), ("where", found.Where),
                    ("zone", closing.Inspection.ZoneTitle(found.ZoneKey)), ("what", found.What), ("action", done.Action),
                    ("reference", done.Reference), ("by", closing.Named(found.CorrectedBy)), ("on", closing.DayOf(found.CorrectedAt)),
                    ("inspector", closing.Named(found.InspectedBy)),
                    .. deferred ? Array.Empty<(string, string?)>() :
                    [
                        .. PartsAndTorque(closing.Aircraft, done), ("inspectedOn", closing.DayOf(found.InspectedAt)),
                    ],
                ]), new(RestsOnKind.FixList, Key: $"{found.Number}"));
        });

    /// <summary>What cleared an item that was left open.</summary>
    /// <param name="item">The item.</param>
    /// <param name="place">Whose book it is entered in.</param>
    /// <param name="aircraft">Its aircraft.</param>
    /// <param name="done">What was done.</param>
    /// <param name="by">Who did it, by name and certificate.</param>
    /// <param name="on">The day.</param>
    internal static EntryFact Cleared(OpenItem item, EnteredIn place, Aircraft aircraft, Correction done, string by, DateOnly on) => new(
        FactKind.Correction, $"cleared/{item.Id:N}", place, EntryFact.Said(
        [
            ("number", item.FirstNumber), ("where", item.Where), ("zone", item.ZoneTitle), ("what", item.What), ("action", done.Action),
            ("reference", done.Reference), ("by", by), ("on", $"{on:yyyy-MM-dd}"), .. PartsAndTorque(aircraft, done),
        ]), new(RestsOnKind.FixList, Key: item.FirstNumber));

    private static (string Place, string? Value)[] PartsAndTorque(Aircraft aircraft, Correction done) =>
    [
        ("parts", Listed((done.Parts ?? []).Select(part => Used(aircraft, part)))),
        ("torque", done.Torque is { } torque ? $"{torque.Value:0.##} {torque.UnitSymbol}, {Wrench(torque.Wrench)}" : ""),
    ];

    // A part that the file follows is told with its times.
    private static string Used(Aircraft aircraft, PartUsed part)
    {
        if (part.ReplacedComponent is { } old && aircraft.LastStay(old) is { IsOn: false } gone)
            return $"{Title(aircraft, gone)} off {Numbers(gone, gone.RemovedAt!.Value)}, on p/n {part.Number}"
                + (part.SerialIn.Length > 0 ? $" s/n {part.SerialIn}" : "");
        return $"p/n {part.Number}{(part.SerialOut.Length > 0 ? $", off s/n {part.SerialOut}" : "")}"
            + (part.SerialIn.Length > 0 ? $", on s/n {part.SerialIn}" : "");
    }

    private static IEnumerable<EntryFact> Bulletins(Closing closing) =>
        closing.Inspection.Bulletins.Where(work => work.Complied is not null).Select(work =>
        {
            var done = work.Complied!;
            var line = closing.Due.Research.Lines.FirstOrDefault(line => line.Held.Id == work.BulletinId
                && line.On?.ComponentId == work.ComponentId);
            var on = work.ComponentId is { } part ? closing.Aircraft.LastStay(part) : null;
            var hours = on is null ? closing.Aircraft.TimeInService : on.TimeInService(closing.Aircraft.TimeInService);
            return new EntryFact(FactKind.Bulletin, $"bulletin/{work.ZoneKey}", PlaceOf(closing, work.ComponentId, work.ZoneKey),
                EntryFact.Said(
                    ("title", done.Wording.Contains(work.Title, StringComparison.OrdinalIgnoreCase) ? "" : work.Title),
                    ("part", on is null ? "" : Title(closing.Aircraft, on)), ("words", done.Wording),
                    ("method", done.Wording.Contains(done.Method, StringComparison.OrdinalIgnoreCase) ? "" : done.Method),
                    ("on", closing.DayOf(done.At)), ("hours", hours is { } known ? $"{known} h" : ""),
                    ("terminating", done.Terminating ? "terminating action" : ""), ("finding", done.Finding ? "with a finding" : ""),
                    ("next", line is null || done.Terminating ? "" : Next(line.Bulletin.Compliance, done.Finding, hours, closing)),
                    ("by", closing.Named(done.By))), new(RestsOnKind.Bulletins, Key: work.ZoneKey));
        });

    // Recurring: when it is due again, counted from here.
    private static string Next(Compliance compliance, bool finding, Hours? hours, Closing closing) =>
        (finding && compliance.AfterFinding is { } sooner ? sooner : compliance.Repeat) is not { } every ? ""
        : Listed(new[]
        {
            every.Hours is { } more && hours is { } now ? $"at {now.Value + more:0.0} h" : "",
            every.Months is { } months ? $"by {Interval.DueDate(closing.On, months, CalendarRule.SameDay):yyyy-MM-dd}" : "",
        }.Where(words => words.Length > 0), " or ");

    private static IEnumerable<EntryFact> SecondPeople(Closing closing) =>
        closing.Inspection.Tasks.Where(task => task is { InspectedBy: not null, TiedTo: null }).OrderBy(task => task.Order)
            .GroupBy(task => (Place: PlaceOf(closing, task.ComponentId, task.ZoneKey), task.InspectedBy))
            .Select(group => new EntryFact(FactKind.SecondPerson, $"second/{group.Key.Place.Carrier:N}/{group.Key.InspectedBy:N}",
                group.Key.Place, EntryFact.Said(("by", closing.Named(group.Key.InspectedBy)),
                    ("tasks", string.Join("; ", group.Select(task => $"{task.ZoneTitle}, {Small(task.Text)}")))),
                new(RestsOnKind.Task, group.First().Id)));

    // What was judged bad and may stand, what was set lower, what isn't part of it: each with its reason.
    private static IEnumerable<EntryFact> Answered(Closing closing)
    {
        var (inspection, aircraft) = (closing.Inspection, closing.Aircraft);
        foreach (var line in JudgedLines.Of(inspection, aircraft))
            if (line.AsEntered is { } words)
                yield return new(FactKind.SetAside, $"judged/{line.Judged.Key}",
                    PlaceOf(closing, line.Judged.ComponentId ?? line.Judged.Where.EngineId, line.Judged.Where.ZoneKey),
                    EntryFact.Said(("words", line.Aside is { } aside ? closing.Decided(words, aside.By, aside.Certificate) : words)),
                    new(RestsOnKind.Close, Key: "judged"));
        foreach (var found in inspection.Discrepancies.Where(found => found
            is { Origin: not null, Disposition: not Disposition.Withdrawn }))
            foreach (var (index, less) in found.Lowered.Index())
                yield return new(FactKind.Lowered, $"lowered/{found.Id:N}/{index}", PlaceOf(closing, found.ComponentId, found.ZoneKey),
                    EntryFact.Said(("words", closing.Decided($"{found.What}: {less.AsEntered}", less.By, less.Certificate))),
                    new(RestsOnKind.FixList, Key: $"{found.Number}"));
        foreach (var left in inspection.NotPart)
            yield return new(FactKind.NotPart, $"not-part/{left.Key}", EnteredIn.Of(aircraft, left.Carrier, Book.Engine, null),
                EntryFact.Said(("words", closing.Decided(left.AsEntered, left.By, left.Certificate))),
                new(RestsOnKind.Close, Key: "asked"));
    }

    // Noted as done by a person since the aircraft came in; what the signature itself counts as done stands under what comes next.
    private static IEnumerable<EntryFact> DueDone(Closing closing) => closing.Due.Entries
        .Where(entry => entry.Bulletin is null && entry.Item.Last is { On: { } day } && day >= closing.Inspection.OpenedOn)
        .GroupBy(entry => EnteredIn.Of(closing.Aircraft, entry.Item.ComponentId, Book.Airframe, null))
        .Select(group => new EntryFact(FactKind.DueDone, $"due-done/{group.Key.Carrier:N}", group.Key, EntryFact.Said(
            ("items", string.Join("; ", group.Select(entry => $"{Small(entry.Title)}, {entry.Item.Last!.On:yyyy-MM-dd}"
                + (entry.Item.Last.Reference.Length > 0 ? $" ({entry.Item.Last.Reference})" : ""))))), new(RestsOnKind.Due)));

    private static IEnumerable<EntryFact> DueNext(Closing closing) => closing.Next.Done
        .Where(done => done.Status.Limbs.Any(limb => limb.DueOn is not null || limb.DueAt is not null))
        .GroupBy(done => EnteredIn.Of(closing.Aircraft, done.Entry.Item.ComponentId, Book.Airframe, null))
        .Select(group => new EntryFact(FactKind.DueNext, $"due-next/{group.Key.Carrier:N}", group.Key, EntryFact.Said(
            ("items", string.Join("; ", group.Select(done => $"{Small(done.Entry.Title)} {done.Status.WhenDue}"
                + (done.Done.CountedOn is null ? "" : " of the aircraft"))))),
            new(RestsOnKind.Due)));

    private static IEnumerable<EntryFact> Added(Closing closing) => closing.Inspection.AddedLines.Select(line => new EntryFact(
        FactKind.Added, $"added/{line.Id:N}", EnteredIn.Of(closing.Aircraft, line.Carrier, Book.Airframe, null),
        EntryFact.Said(("words", line.Words)), new(RestsOnKind.Close, Key: "entries")));

    private static string Small(string words) =>
        words.Length > 1 && char.IsUpper(words[0]) && char.IsLower(words[1]) ? char.ToLowerInvariant(words[0]) + words[1..] : words;

    private static string Listed(IEnumerable<string> words, string between = "; ") => string.Join(between, words);
}
