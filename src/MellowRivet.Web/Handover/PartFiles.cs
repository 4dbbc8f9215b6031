using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core;
using MellowRivet.Core.Parts;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Handover;

/// <summary>The shop's parts list as it leaves: what to order, and what has come with its trace.</summary>
internal static class PartFiles
{
    public const string FormatName = "mellow-rivet-parts";
    public const int CurrentVersion = 1;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public static void MapPartFiles(this WebApplication app)
    {
        var files = app.MapGroup("").Needs(Right.Look).ExcludeFromDescription();
        files.MapGet("/parts.json", async (RivetDb db, TimeProvider clock, CancellationToken stop) => Results.File(
            JsonSerializer.SerializeToUtf8Bytes(new PartsFile(FormatName, CurrentVersion, clock.Today(), await LinesAsync(db, clock, stop)),
                Json), "application/json", "parts.json"));
        files.MapGet("/parts.csv", async (RivetDb db, TimeProvider clock, CancellationToken stop) => Results.File(
            TableWriter.Write((await LinesAsync(db, clock, stop)).Select(line => new
            {
                state = line.IsLate ? "late" : line.State.ToString().ToLowerInvariant(),
                what = line.What,
                number = line.Number,
                quantity = line.Quantity,
                unit = line.Unit,
                aircraft = line.Registration,
                workOrder = line.WorkOrder,
                line = line.Line,
                supplier = line.Supplier,
                priceEach = line.Price,
                leadDays = line.LeadDays,
                orderedOn = line.OrderedOn?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture),
                expectedOn = line.ExpectedOn?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture),
                came = line.Came,
                fitted = line.Fitted,
                trace = string.Join("; ", line.Receipts.Select(receipt => $"{receipt.Trace} {receipt.Batch}".Trim())),
                coreOwed = line.CoreOwed ? "yes" : "",
            })), "text/csv", "parts.csv"));
    }

    private static async Task<IReadOnlyList<PartsFileLine>> LinesAsync(RivetDb db, TimeProvider clock, CancellationToken stop)
    {
        var (parts, registrations, today) = (await db.PartsAsync(stop), await db.RegistrationsAsync(stop), clock.Today());
        var needed = PartsList.Needed(await db.InWorkWithFoundAsync(stop), parts);
        var orders = await db.OrdersAsync([.. parts.Select(part => part.InspectionId).Concat(needed.Select(one => one.For.InspectionId))
            .OfType<Guid>().Distinct()], stop);
        string? Of(IReadOnlyDictionary<Guid, string> names, Guid? id) => id is { } known ? names.GetValueOrDefault(known) : null;
        return
        [
            .. needed.Select(one => new PartsFileLine(PartState.Needed, false, one.Part.What, one.Part.Number, one.Part.Quantity,
                one.Part.Unit,
                Of(registrations, one.For.AircraftId), Of(orders, one.For.InspectionId), one.For.Key, null, one.Part.Price?.Likely,
                one.Part.OnShelf ? 0 : one.Part.LeadDays, null, null, 0, 0, [], false)),
            .. parts.OrderBy(part => part.State).Select(part => new PartsFileLine(part.State, part.IsLate(today), part.What, part.Number,
                part.Quantity, part.Unit, Of(registrations, part.AircraftId), Of(orders, part.InspectionId), part.Key, part.Supplier,
                part.Price, null, part.OrderedOn, part.ExpectedOn, part.Came, part.Fitted.Sum(taken => taken.Quantity), part.Receipts,
                part.CoreIsOwed)),
        ];
    }
}

/// <summary>The parts list as JSON; docs/formats.md describes it.</summary>
public sealed record PartsFile(string Format, int Version, DateOnly On, IReadOnlyList<PartsFileLine> Parts);

/// <summary>A part of it. What nobody said is null.</summary>
public sealed record PartsFileLine(PartState State, bool IsLate, string What, string Number, decimal Quantity, string Unit,
    string? Registration, string? WorkOrder, string Line, string? Supplier, decimal? Price, int? LeadDays, DateOnly? OrderedOn,
    DateOnly? ExpectedOn, decimal Came, decimal Fitted, IReadOnlyList<Receipt> Receipts, bool CoreOwed);
