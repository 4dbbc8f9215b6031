using System.Globalization;
using System.IO.Compression;
using System.Security.Claims;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Store.Proof;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using MellowRivet.Web.Hosting;

namespace MellowRivet.Web.Handover;

/// <summary>The fix list as it leaves the shop: PDF, JSON, CSV, and its photos in one archive.</summary>
internal static class FixListFiles
{
    public const string FormatName = "mellow-rivet-fix-list";
    public const int CurrentVersion = 1;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public static void MapFixListFiles(this WebApplication app)
    {
        var list = app.MapGroup("/walk/{id:guid}").Needs(Right.Look).OwnersSee(Through.Walk).ExcludeFromDescription();
        list.MapGet("/fix-list.json", (Guid id, ClaimsPrincipal user, Desk desk, RivetDb db, CancellationToken stop) =>
            WithJobAsync(id, desk, async job =>
            Results.File(JsonSerializer.SerializeToUtf8Bytes(FileOf(job, await NamesAsync(db, stop), user.SeesFleet()), Json),
                "application/json",
                $"{Named(job)}-fix-list.json"), stop));
        list.MapGet("/fix-list.csv", (Guid id, ClaimsPrincipal user, Desk desk, RivetDb db, CancellationToken stop) =>
            WithJobAsync(id, desk, async job =>
            Results.File(Csv(FileOf(job, await NamesAsync(db, stop), user.SeesFleet())), "text/csv", $"{Named(job)}-fix-list.csv"), stop));
        list.MapGet("/fix-list/report.pdf",
            (Guid id, Desk desk, PhotoFiles photos, TimeProvider clock, CancellationToken stop) => WithJobAsync(id, desk, job =>
        {
            using var buffer = new MemoryStream();
            using (var pdf = new FixListPdf(photos, clock))
                pdf.Write(buffer, job);
            return Task.FromResult(Results.File(buffer.ToArray(), "application/pdf", $"{Named(job)}-fix-list.pdf"));
        }, stop));
        list.MapGet("/records.pdf", async (Guid id, string? paper, RivetDb db, RivetSettings settings, CancellationToken stop) =>
        {
            if (Paper.Read(paper ?? "a4") is not { } size)
                return Results.BadRequest("A paper of a4, letter, or a size in mm such as 140x90.");
            var records = (await db.RecordsOfAsync(id, stop))
                .Where(record => !size.IsSticker || record.Book is not (Book.DiscrepancyList or Book.BulletinStatus)).ToList();
            if (records.Count == 0)
                return Results.NotFound();
            using var buffer = new MemoryStream();
            var order = $"{records[0].Text()["workOrder"]}";
            using (var pdf = new RecordsPdf(size, await db.HeadAsync(stop), settings.DayIsSet
                ? "The day was set when this was printed: not the day it says."
                : null))
                pdf.Write(buffer, records, $"{records[0].Text()["registration"]} {order}");
            return Results.File(buffer.ToArray(), "application/pdf", $"{records[0].Text()["registration"]}-{order}-records.pdf");
        });
        list.MapGet("/fix-list/photos.zip",
            (Guid id, Desk desk, PhotoFiles photos, TimeProvider clock, CancellationToken stop) => WithJobAsync(id, desk, async job =>
            Results.Stream(await ZipAsync(job.Inspection, photos, clock, stop), "application/zip", $"{Named(job)}-photos.zip"), stop));
    }

    /// <summary>
    /// A photo's name in the archive: by walking order of the zone, then zone, number and photo, so that names sort by place.
    /// </summary>
    internal static string NameOf(Inspection inspection, Discrepancy found, int index)
    {
        var zones = inspection.Tasks.OrderBy(task => task.Order).Select(task => task.ZoneKey).Distinct().ToList();
        var where = new string([.. found.Where.ToLowerInvariant()
            .Select(letter => char.IsAsciiLetterOrDigit(letter) ? letter : '-')]).Trim('-');
        return $"{zones.IndexOf(found.ZoneKey) + 1:00}-{found.ZoneKey}/{found.Number:000}"
            + $"{(where.Length > 0 ? $"-{(where.Length > 40 ? where[..40] : where)}" : "")}-{index + 1:00}.jpg";
    }

    // Sized copies leave, never originals: an original may say where it was taken. Made whole in a file that goes when it is
    // sent: an archive writes where a response can't.
    private static async Task<Stream> ZipAsync(Inspection inspection, PhotoFiles photos, TimeProvider clock, CancellationToken stop)
    {
        var whole = new FileStream(Path.Combine(Path.GetTempPath(), $"rivet-{Guid.NewGuid():N}.zip"), FileMode.CreateNew,
            FileAccess.ReadWrite, FileShare.None, 1 << 16, FileOptions.DeleteOnClose | FileOptions.Asynchronous);
        await using var archive = await ZipArchive.CreateAsync(whole, ZipArchiveMode.Create, leaveOpen: true,
            entryNameEncoding: null, stop);
        foreach (var found in inspection.Discrepancies.OrderBy(found => found.Number))
            for (var index = 0; index < found.Photos.Count; index++)
                if (photos.PathOf(found.Photos[index].Sha256, PhotoSize.Large) is { } path)
                {
                    var entry = archive.CreateEntry(NameOf(inspection, found, index), CompressionLevel.NoCompression);
                    // An archive keeps what the clock on the wall showed, without a zone.
                    entry.LastWriteTime = found.Photos[index].TakenAt is { Year: >= 1980 and <= 2107 } taken
                        ? new(DateTime.SpecifyKind(taken, DateTimeKind.Unspecified), TimeSpan.Zero)
                        : clock.Here(found.Photos[index].AddedAt);
                    await using var from = File.OpenRead(path);
                    await using var into = await entry.OpenAsync(stop);
                    await from.CopyToAsync(into, stop);
                }
        await archive.DisposeAsync();
        whole.Position = 0;
        return whole;
    }

    private static FixListFile FileOf(Job job, IReadOnlyDictionary<Guid, string> names, bool whole)
    {
        var inspection = job.Inspection;
        string? Name(Guid? person) => person is { } id ? names.GetValueOrDefault(id) : null;
        return new(FormatName, CurrentVersion, job.Aircraft.Registration, job.Aircraft.SerialNumber, inspection.WorkOrder, inspection.Kind,
            inspection.OpenedOn, inspection.TimeInService.Value, inspection.House.Money,
            [.. inspection.Discrepancies.OrderBy(found => found.Number).Select(found => new FixListLine(
                $"{inspection.WorkOrder}-{found.Number:00}", found.What, found.PlainWords, found.ZoneKey,
                inspection.ZoneTitle(found.ZoneKey), found.Where, found.Pin?.X, found.Pin?.Y, found.Class, found.Grounded,
                found.Disposition, Name(found.FoundBy), found.FoundAt, found.How, found.MeasuredWords, found.Estimate?.Hours?.Likely,
                found.Estimate?.PartsCost?.Likely, found.Price(inspection.House)?.Likely, found.Estimate?.PartsBy,
                found.Correction?.Kind, found.Correction?.Action, found.Correction?.Reference, found.Correction?.Parts
                    ?? [], found.Correction?.Torque?.Value, found.Correction?.Torque?.UnitSymbol, found.Correction?.Torque?.Wrench.Title,
                Name(found.CorrectedBy), found.CorrectedAt, Name(found.InspectedBy), found.InspectedAt, found.Examination,
                [.. found.Photos.Select((photo, index) => new FixListPhoto(NameOf(inspection, found, index), photo.Sha256, photo.Width,
                    photo.Height, photo.TakenAt, photo.Annotations ?? []))],
                [.. found.Steps.Select(step => new FixListStep(step.To, step.By is null
                    ? "the owner"
                    : Name(step.By), step.At, step.Words))],
                [.. found.Notes.Where(whole ? _ => true : OwnerList.IsForTheOwner(found))
                    .Select(note => new FixListNote(note.By is null ? "the owner" : Name(note.By), note.At, note.Words))],
                found.Origin,
                [.. found.Lowered.Select(
                    less => new FixListLowered(less.From, less.To, less.Reason, less.Reference, less.Certificate, Name(less.By), less.At))],
                    found.CarriedNumber))]);
    }

    private static byte[] Csv(FixListFile file) => TableWriter.Write(file.Lines.Select(line => new
            {
                number = line.Number,
                what = line.What,
                zone = line.Zone,
                where = line.Where,
                @class = line.Class.InWords(),
                grounded = line.Grounded ? "yes" : "",
                state = line.State.InWords(),
                foundBy = line.FoundBy,
                foundAt = line.FoundAt.ToString("yyyy-MM-dd'T'HH:mm:sszzz", CultureInfo.InvariantCulture),
                how = line.How.InWords(),
                measured = line.Measured,
                labourHours = line.LabourHours,
                parts = line.Parts,
                total = line.Total,
                correction = line.Correction?.InWords(),
                action = line.Action,
                reference = line.Reference,
                partsUsed = string.Join("; ", line.PartsUsed.Select(part => $"{part.Number} off {part.SerialOut} on {part.SerialIn}")),
                torque = line.Torque is { } torque
                    ? $"{torque.ToString(CultureInfo.InvariantCulture)} {line.TorqueUnit}, {line.Wrench}"
                    : "",
                doneBy = line.DoneBy,
                inspectedBy = line.InspectedBy,
                judgement = line.Judgement?.InWords,
                lowered = string.Join("; ",
                    line.Lowered.Select(less => $"from {less.From.InWords()}: {less.Reason} {less.Reference}".Trim())),
                leftOpenAs = line.LeftOpenAs,
                photos = line.Photos.Count,
            }));

    private static async Task<IResult> WithJobAsync(Guid id, Desk desk, Func<Job, Task<IResult>> make, CancellationToken stop) =>
        await desk.JobAsync(id, stop, JobParts.Tasks | JobParts.Discrepancies) is { } job ? await make(job) : Results.NotFound();

    private static Task<Dictionary<Guid, string>> NamesAsync(RivetDb db, CancellationToken stop) => db.NamesAsync(stop);

    // A work order is free text: only what suits a file's name goes into one.
    private static string Named(Job job) =>
        new([.. $"{job.Aircraft.Registration}-{job.Inspection.WorkOrder}".Where(letter => char.IsAsciiLetterOrDigit(letter)
            || letter == '-')]);
}

/// <summary>The fix list of an inspection as JSON; docs/formats.md describes it.</summary>
public sealed record FixListFile(
    string Format, int Version, string Registration, string SerialNumber, string WorkOrder, InspectionKind Inspection, DateOnly OpenedOn,
    decimal TimeInServiceHours, string Money, IReadOnlyList<FixListLine> Lines);

/// <summary>One discrepancy of it. What nobody said is null.</summary>
public sealed record FixListLine(
    string Number, string What, string? PlainWords, string ZoneKey, string Zone, string Where, double? PinX, double? PinY,
    DiscrepancyClass Class, bool Grounded,
    Disposition State, string? FoundBy, DateTimeOffset FoundAt, FoundHow How, string? Measured, decimal? LabourHours, decimal? Parts,
    decimal? Total, DateOnly? PartsBy,
    CorrectionKind? Correction, string? Action, string? Reference, IReadOnlyList<PartUsed> PartsUsed, double? Torque, string? TorqueUnit,
    string? Wrench,
    string? DoneBy, DateTimeOffset? DoneAt, string? InspectedBy, DateTimeOffset? InspectedAt, Examination? Examination,
    IReadOnlyList<FixListPhoto> Photos, IReadOnlyList<FixListStep> Steps, IReadOnlyList<FixListNote> Notes,
    Origin? Judgement, IReadOnlyList<FixListLowered> Lowered, string? LeftOpenAs);

/// <summary>A class that somebody set lower, with who and why.</summary>
public sealed record FixListLowered(DiscrepancyClass From, DiscrepancyClass To, string Reason, string Reference, string Certificate,
    string? By, DateTimeOffset At);

/// <summary>A photo of it: its name in the archive, and what is drawn over it.</summary>
public sealed record FixListPhoto(string Name, string Sha256, int Width, int Height, DateTime? TakenAt,
    [property: JsonPropertyName("marks")] IReadOnlyList<Annotation> Annotations);

/// <summary>A step of it.</summary>
public sealed record FixListStep(Disposition To, string? By, DateTimeOffset At, string? Words);

/// <summary>A note of it.</summary>
public sealed record FixListNote(string? By, DateTimeOffset At, string Words);
