using System.Text.Json.Serialization;
using System.Text.Json;
using MellowRivet.Core.Books;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Exchange;

/// <summary>
/// An aircraft's file as JSON, to be kept, read by other programs or taken in by another shop. Its format has a name and a
/// version; docs/formats.md describes it, and the schema ships with the product.
/// </summary>
public sealed record AircraftFile(
    string Format, int Version, Guid Id, string Registration, string Type, string SerialNumber, Category Category,
    Configuration Configuration, MeterKind TimeBasis,
    IReadOnlyList<FileMeter> Meters, IReadOnlyList<FileReading> Readings, IReadOnlyList<FilePart> Parts, IReadOnlyList<ManualLimit> Limits,
    IReadOnlyList<FileDue> Due, IReadOnlyList<FileBook> Books, IReadOnlyList<FileGapNote> ExplainedGaps,
    IReadOnlyList<CableTable>? CableTables = null, IReadOnlyList<FileBulletin>? Bulletins = null, IReadOnlyList<FileFact>? Facts = null,
    IReadOnlyList<MajorWork>? MajorWork = null)
{
    public const string FormatName = "mellow-rivet-aircraft";
    public const int CurrentVersion = 1;

    /// <summary>Largest file taken in, in bytes.</summary>
    public const int MostBytes = 16 * 1024 * 1024;

    private const int MostRows = 100_000;

    private static readonly JsonSerializerOptions Json = FileJson.Options(16, JsonUnmappedMemberHandling.Disallow);

    /// <summary>The JSON Schema of the format, from the types themselves.</summary>
    public static string Schema() => FileJson.SchemaOf(Json, typeof(AircraftFile), $"{FormatName}, version {CurrentVersion}");

    public string ToJson() => JsonSerializer.Serialize(this, Json) + "\n";

    /// <summary>Reads a file and checks it whole, before anything is taken in.</summary>
    /// <param name="json">The file.</param>
    /// <param name="today">No day in it is later, but for dates something falls due.</param>
    public static (AircraftFile? File, Refusal? Refusal) Read(string json, DateOnly today)
    {
        AircraftFile? file;
        try
        {
            file = FileJson.Read<AircraftFile>(json, Json);
        }
        catch (JsonException problem)
        {
            return (null, Wrong($"It can’t be read: {problem.Message.Split(" LineNumber")[0]}"));
        }
        if (file is null || file.Format != FormatName)
            return (null, Wrong($"It is no {FormatName} file."));
        if (file.Version != CurrentVersion)
            return (null, Wrong($"It is of version {file.Version}; this program reads version {CurrentVersion}."));
        return (FileSoundness.FaultOf(file, today) ?? file.Check()) is { } fault ? (null, Wrong(fault)) : (file, null);
    }

    /// <param name="aircraft">The aircraft with its parts and readings.</param>
    /// <param name="due">Its due items and those of its parts.</param>
    /// <param name="books">Its books.</param>
    /// <param name="entries">Their entries; a page that waits for words stays behind with its picture.</param>
    /// <param name="followUps">What was decided and done about bulletins on it and its parts.</param>
    /// <param name="facts">Facts that were read off it and its parts; their pictures stay behind.</param>
    /// <param name="clock">The shop's time: the file carries days.</param>
    public static AircraftFile Of(Aircraft aircraft, IEnumerable<DueItem> due, IEnumerable<LogBook> books, IEnumerable<BookEntry> entries,
        IEnumerable<BulletinFollowUp> followUps, IEnumerable<StatedFact> facts, TimeProvider clock)
    {
        var byBook = entries.Where(entry => !entry.WaitsForWords).ToLookup(entry => entry.BookId);
        return new(FormatName, CurrentVersion, aircraft.Id, aircraft.Registration, aircraft.Type, aircraft.SerialNumber, aircraft.Category,
            aircraft.Configuration, aircraft.TimeBasis,
            [.. aircraft.Meters.Select(meter => new FileMeter(meter.Number, meter.Kind, meter.FittedOn, meter.Offset))],
            [.. aircraft.MeterReadings.OrderBy(reading => reading.On).ThenBy(reading => reading.Id)
                .Select(reading => new FileReading(reading.Meter, reading.On, reading.Shown, reading.Source))],
            [.. aircraft.Installations.GroupBy(stay => stay.ComponentId).Select(stays => FilePart.Of(stays.First().Component, stays))
                .OrderBy(part => part.Id)],
            aircraft.Limits,
            [.. due.OrderBy(item => item.Id).Select(FileDue.Of)],
            [.. books.OrderBy(book => book.Id)
                .Select(book => new FileBook(book.Id, book.Kind, book.Title, book.FirstOn, book.LastOn, book.IsLost,
                [.. byBook[book.Id].OrderBy(entry => entry.On).ThenBy(entry => entry.Id)
                    .Select(entry => new FileEntry(entry.Id, entry.On!.Value, entry.Hours?.Value, entry.Text, entry.Page))]))],
            [.. aircraft.GapNotes.Select(note => new FileGapNote(note.Kind, note.From, note.To, note.Words))],
            aircraft.CableTables,
            [.. followUps.Where(one => one.Policy is not null || one.Done.Count > 0).OrderBy(one => one.Family, StringComparer.Ordinal)
                .ThenBy(one => one.ComponentId).Select(one => FileBulletin.Of(one, clock))],
            [.. facts.OrderBy(fact => clock.DayOf(fact.At)).ThenBy(fact => fact.Key, StringComparer.Ordinal)
                .ThenBy(fact => fact.ComponentId)
                .Select(fact => new FileFact(fact.ComponentId, fact.Key, fact.Value, clock.DayOf(fact.At)))],
            aircraft.MajorWork);
    }

    /// <summary>The aircraft the file describes. Who set its limits at another shop is told by the file, and isn't anybody of this
    /// one.</summary>
    /// <param name="by">Who takes it in: they stand beside entries and explanations from then on.</param>
    /// <param name="clock">The shop's time: the file carries days, and what is kept as an instant becomes noon of one.</param>
    public MadeFile Make(Guid by, TimeProvider clock)
    {
        var aircraft = new Aircraft(Id, Registration, Type, SerialNumber, Category, Configuration) { TimeBasis = TimeBasis };
        aircraft.Restore([.. Meters.Select(meter => new Meter(meter.Number, meter.Kind, meter.FittedOn, meter.Offset))],
            Readings.Select(reading => (reading.Meter, reading.On, reading.Shown, reading.Source)));
        foreach (var limit in Limits)
            aircraft.SetLimit(limit with { Set = null });
        foreach (var table in CableTables ?? [])
            aircraft.SetCableTable(table with { Set = null });
        foreach (var work in MajorWork ?? [])
            aircraft.Keep(work);
        foreach (var note in ExplainedGaps)
            aircraft.Explain(new(note.Kind, note.From, note.To, note.Words, by));
        foreach (var part in Parts)
        {
            var component = part.Make();
            foreach (var stay in part.Stays)
                aircraft.Restore(component, stay);
        }
        return new(aircraft,
            [.. Due.Select(item => item.Make(Id))],
            [.. Books.Select(book => new LogBook(book.Id, Id, book.Kind, book.Title, book.FirstOn, book.LastOn, book.IsLost))],
            [.. Books.SelectMany(book => book.Entries.Select(entry => new BookEntry(entry.Id, Id, book.Id, entry.On,
                entry.Hours is { } hours ? new Hours(hours) : null, entry.Text, entry.Page, null, by, clock.GetUtcNow())))],
            [.. (Bulletins ?? []).Select(one => one.Make(Id, by, clock))],
            [.. (Facts ?? [])
                .Select(fact => new StatedFact(Guid.CreateVersion7(), fact.On is null
                    ? Id
                    : null, fact.On, fact.Key, fact.Value, null, by, clock.At(fact.ReadOn, Noon)))]);
    }

    /// <summary>The time of day that stands for a whole day.</summary>
    internal static readonly TimeOnly Noon = new(12, 0);

    private static Refusal Wrong(string what) => new("file", what + " Nothing was taken in.");

    private string? Check()
    {
        if (Registration.Trim().Length is 0 or > 12 || Type.Trim().Length is 0 or > 60 || SerialNumber.Trim().Length is 0 or > 40)
            return "The data plate needs a registration of up to 12, a type of up to 60 and a serial number of up to 40 characters.";
        if (Configuration.Engines is not (1 or 2) || Configuration.Seats is < 1 or > 20)
            return "The configuration has one or two engines and 1 to 20 seats.";
        if (Readings.Count + Parts.Sum(part => part.Stays.Count) + Due.Count + Books.Sum(book => book.Entries.Count)
            + (Bulletins?.Sum(one => one.Done.Count + 1) ?? 0) + (Facts?.Count ?? 0) > MostRows)
            return $"It holds more than {MostRows} rows.";
        var meters = Meters.ToLookup(meter => meter.Number);
        if (Meters.Any(meter => meters[meter.Number].Count() > 1) || Readings.Any(reading => !meters.Contains(reading.Meter)))
            return "Each meter has its own number, and each reading is of one of them.";
        if (Readings.FirstOrDefault(reading => reading.Shown is < 0 or >= 1_000_000
            || reading.Shown + meters[reading.Meter].First().Offset is < 0 or >= 1_000_000) is { } far)
            return $"The reading of {far.On:yyyy-MM-dd} is out of range.";
        foreach (var kind in Readings.GroupBy(reading => meters[reading.Meter].First().Kind))
        {
            var totals = kind.Select(reading => (reading.On, Total: reading.Shown + meters[reading.Meter].First().Offset))
                .OrderBy(reading => reading.On).ThenBy(reading => reading.Total).ToList();
            if (totals.Zip(totals.Skip(1)).FirstOrDefault(pair => pair.Second.Total < pair.First.Total) is { Second.On: var day }
                && day != default)
                return $"The {kind.Key.InWords()} runs backwards on {day:yyyy-MM-dd}.";
        }
        var ids = Parts.Select(part => part.Id).ToHashSet();
        if (ids.Count != Parts.Count || Parts.Any(part => part.Stays.Count == 0))
            return "Each part has an id of its own and at least one stay on the aircraft.";
        if (Parts.FirstOrDefault(part => part.Check(ids) is not null) is { } bad)
            return $"Part {bad.SerialNumber}: {bad.Check(ids)}";
        if (Due.Any(item => item.On is { } part && !ids.Contains(part)))
            return "A due item hangs on a part that isn’t in the file.";
        if ((Bulletins ?? []).Any(one => one.On is { } part && !ids.Contains(part))
            || (Facts ?? []).Any(fact => fact.On is { } part && !ids.Contains(part)))
            return "A bulletin or a fact hangs on a part that isn’t in the file.";
        if ((Bulletins ?? []).Any(one => one.Issuer.Trim().Length is 0 or > 80 || one.Number.Trim().Length is 0 or > 60
            || one.Done.Any(done => done.Hours is < 0 or >= 1_000_000 || done.Method.Length is 0 or > 300 || done.Revision.Length > 20
                || done.Reference.Length > 80))
            || (Bulletins ?? []).GroupBy(one => (one.On, $"{one.Issuer}\n{one.Number}".ToUpperInvariant())).Any(group => group.Count() > 1))
            return "A bulletin needs its issuer and number, once for each part, and what was done its method and hours within range.";
        if ((Facts ?? []).Any(fact => fact.Key.Length is 0 or > 100 || fact.Value.Length is 0 or > StatedFact.Longest))
            return $"A fact has a name, and a value of up to {StatedFact.Longest} characters.";
        if (Due.SelectMany(item => DueItem.Check(item.What, item.Interval, item.Source.Text)).FirstOrDefault() is { } due)
            return $"A due item: {due.Message}";
        if (Books.Any(book => book.Title.Length is 0 or > 80
            || book.Entries.Any(entry => entry.Text.Length is 0 or > BookEntry.LongestText || entry.Hours is < 0 or >= 1_000_000)))
            return "A book has a title of up to 80 characters, an entry its words, and hours within range.";
        return null;
    }
}

/// <summary>A meter of the file.</summary>
public sealed record FileMeter(int Number, MeterKind Kind, DateOnly FittedOn, decimal Offset);

/// <summary>What a meter showed.</summary>
public sealed record FileReading(int Meter, DateOnly On, decimal Shown, string Source);

/// <summary>A part's stay on the aircraft.</summary>
public sealed record FileStay(string Position, Guid? On, DateOnly? InstalledOn, decimal InstalledAt, decimal? OwnTimeThen,
    DateOnly? RemovedOn, decimal? RemovedAt, string? RemovedWhy);

/// <summary>An overhaul of a part.</summary>
public sealed record FileOverhaul(DateOnly On, decimal? OwnTime, string Reference);

/// <summary>A part with its stays.</summary>
public sealed record FilePart(
    Guid Id, ComponentKind Kind, string Name, string PartNumber, string SerialNumber, DateOnly? MadeOn, string? Layout,
    IReadOnlyList<int>? FiringOrder, Ignition? Ignition,
    CompressionSchool? JudgedBy, double? ManualFloorPsi, string? ManualReference, IReadOnlyList<FileOverhaul> Overhauls,
    IReadOnlyList<FileStay> Stays,
    IgnitionKind? Suits = null, WhoSet? JudgedBySet = null)
{
    internal static FilePart Of(Component part, IEnumerable<Installation> stays) => new(
        part.Id, part.Kind, part.Name, part.PartNumber, part.SerialNumber, part.MadeOn, part.LayoutKey, part.OwnFiringOrder, part.Ignition,
        part.CompressionRule?.School, part.CompressionRule?.ManualRejectPsi, part.CompressionRule?.ManualReference,
        [.. part.Overhauls.Select(done => new FileOverhaul(done.On, done.OwnTime?.Value, done.Reference))],
        [.. stays.OrderBy(stay => stay.InstalledAt.Value).ThenBy(stay => stay.RemovedAt is null)
            .Select(stay => new FileStay(stay.Position, stay.ParentId, stay.InstalledOn, stay.InstalledAt.Value, stay.OwnTimeThen?.Value,
                stay.RemovedOn, stay.RemovedAt?.Value, stay.RemovedWhy))],
        part.Suits, part.CompressionRule?.Set);

    internal Component Make()
    {
        var part = new Component(Id, Kind, PartNumber, SerialNumber)
            { LayoutKey = Layout, OwnFiringOrder = FiringOrder, Ignition = Ignition, Suits = Suits };
        part.Identify(PartNumber, SerialNumber, Name, MadeOn);
        if (JudgedBy is { } school)
            part.JudgeCompressionBy(new(school, ManualFloorPsi, ManualReference));
        foreach (var done in Overhauls)
            part.WasOverhauled(new(done.On, done.OwnTime is { } own ? new Hours(own) : null, done.Reference));
        return part;
    }

    internal string? Check(IReadOnlySet<Guid> ids)
    {
        if (Kind == ComponentKind.Engine && EngineLayout.All.All(layout => layout.Key != Layout))
            return "an engine needs a layout that this program draws.";
        if (FiringOrder is { } order
            && (Layout is null || !order.Order().SequenceEqual(EngineLayout.Of(Layout).Cylinders.Select(place => place.Number).Order())))
            return "its firing order fires each cylinder once.";
        if (Stays.Any(stay => stay.On is { } under && !ids.Contains(under)))
            return "it sits on a part that isn’t in the file.";
        static bool Out(decimal? hours) => hours is < 0 or >= 1_000_000;
        if (Stays.Any(stay => Out(stay.InstalledAt) || Out(stay.OwnTimeThen) || Out(stay.RemovedAt) || stay.RemovedAt < stay.InstalledAt)
            || Overhauls.Any(done => Out(done.OwnTime)))
            return "its hours are out of range, or it came off before it went on.";
        return JudgedBy is not null
            && CompressionRule.Check(ManualFloorPsi is not null, ManualFloorPsi, ManualReference).FirstOrDefault() is { } rule
            ? rule.Message
            : null;
    }
}

/// <summary>A due item with every time it was done.</summary>
public sealed record FileDue(
    Guid Id, Guid? On, string What, DueKind Kind, Interval Interval, RuleSourceText Source, IReadOnlyList<InspectionKind> DoneBy,
    decimal? LabourHours, IReadOnlyList<LastDone> Done, string? RetiredWhy)
{
    internal static FileDue Of(DueItem item) => new(
        item.Id, item.ComponentId, item.What, item.Kind, item.Interval, new(item.Source.Standing, item.Source.Text), item.DoneBy,
        item.LabourHours, item.Done, item.RetiredWhy);

    internal DueItem Make(Guid aircraft)
    {
        var source = new RuleSource(Source.Standing, Source.Text);
        var item = new DueItem(Id, On is null ? aircraft : null, On, What, Kind, Interval, source, DoneBy);
        item.Change(What, Interval, source, LabourHours);
        item.Restore(Done, RetiredWhy);
        return item;
    }
}

/// <summary>Where an interval comes from.</summary>
public sealed record RuleSourceText(Standing Standing, string Text);

/// <summary>A book with its entries.</summary>
public sealed record FileBook(Guid Id, BookKind Kind, string Title, DateOnly? FirstOn, DateOnly? LastOn, bool IsLost,
    IReadOnlyList<FileEntry> Entries);

/// <summary>An entry of a book.</summary>
public sealed record FileEntry(Guid Id, DateOnly On, decimal? Hours, string Text, string Page);

/// <summary>A hole in the books that was explained.</summary>
public sealed record FileGapNote(BookKind Kind, DateOnly From, DateOnly To, string Words);

/// <summary>What a file becomes.</summary>
public sealed record MadeFile(Aircraft Aircraft, IReadOnlyList<DueItem> Due, IReadOnlyList<LogBook> Books, IReadOnlyList<BookEntry> Entries,
    IReadOnlyList<BulletinFollowUp> FollowUps, IReadOnlyList<StatedFact> Facts);

/// <summary>What was decided and done about a bulletin, on the aircraft or on a part.</summary>
public sealed record FileBulletin(string Issuer, string Number, Guid? On, PolicyKind? Policy, string? Reason, DateOnly? DecidedOn,
    IReadOnlyList<FileComplied> Done)
{
    internal static FileBulletin Of(BulletinFollowUp one, TimeProvider clock) => new(
        one.Family.Split('\n')[0], one.Family.Split('\n')[1], one.ComponentId, one.Policy?.Kind, one.Policy?.Reason,
        one.Policy is { } policy ? clock.DayOf(policy.At) : null,
        [.. one.Done.Select(done =>
            new FileComplied(done.On, done.Hours, done.Revision, done.Method, done.Finding, done.Terminating, done.Reference))]);

    internal BulletinFollowUp Make(Guid aircraft, Guid by, TimeProvider clock)
    {
        var one = new BulletinFollowUp(Guid.CreateVersion7(), $"{Issuer}\n{Number}".ToUpperInvariant(), On is null ? aircraft : null, On);
        one.Restore(Policy is { } kind ? new(kind, Reason ?? "", by, clock.At(DecidedOn ?? clock.Today(), AircraftFile.Noon)) : null,
            Done.Select(done => new Complied(done.On, done.Hours, done.Revision, done.Method, done.Finding, done.Terminating,
                done.Reference, by)));
        return one;
    }
}

/// <summary>One time that a bulletin was complied with.</summary>
public sealed record FileComplied(DateOnly On, decimal? Hours, string Revision, string Method, bool Finding, bool Terminating,
    string Reference);

/// <summary>A fact that was read off the aircraft or a part.</summary>
public sealed record FileFact(Guid? On, string Key, string Value, DateOnly ReadOn);
