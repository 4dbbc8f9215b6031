using System.Security.Claims;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Handover;

/// <summary>
/// The estimate of an inspection as it leaves the shop, with the hours booked and the parts used, for whoever writes the invoice.
/// </summary>
internal static class EstimateFiles
{
    public const string FormatName = "mellow-rivet-estimate";
    public const int CurrentVersion = 1;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public static void MapEstimateFiles(this WebApplication app)
    {
        var files = app.MapGroup("/walk/{id:guid}/fix-list").Needs(Right.Look).OwnersSee(Through.Walk).ExcludeFromDescription();
        files.MapGet("/estimate.json", async (Guid id, ClaimsPrincipal user, Desk desk, RivetDb db, TimeProvider clock,
            CancellationToken stop) =>
            await FileAsync(id, user.SeesFleet(), desk, db, clock, stop) is { } file
                ? Results.File(JsonSerializer.SerializeToUtf8Bytes(file, Json), "application/json", Named(file, "json"))
                    : Results.NotFound());
        files.MapGet("/estimate.csv", async (Guid id, ClaimsPrincipal user, Desk desk, RivetDb db, TimeProvider clock,
            CancellationToken stop) =>
            await FileAsync(id, user.SeesFleet(), desk, db, clock, stop) is { } file
                ? Results.File(Csv(file), "text/csv", Named(file, "csv")) : Results.NotFound());
    }

    // What the shop hasn't put to the owner yet is the shop's, and in no sum that an owner reads.
    private static async Task<EstimateFile?> FileAsync(Guid id, bool whole, Desk desk, RivetDb db, TimeProvider clock,
        CancellationToken stop)
    {
        if (await desk.JobAsync(id, stop, JobParts.Tasks | JobParts.Discrepancies) is not { Inspection: var inspection,
            Aircraft: var aircraft })
            return null;
        var booked = (await db.BookedAtAsync(id, stop)).ToLookup(row => row.Key);
        var (house, names) = (inspection.House, await db.NamesAsync(stop));
        var estimate = JobEstimate.Of(inspection);
        if (!whole)
            estimate = estimate with { Lines = [.. estimate.Lines.Where(line => line.Priced.Decided() != Decision.Open)] };
        return new(FormatName, CurrentVersion, aircraft.Registration, aircraft.SerialNumber, inspection.WorkOrder, clock.Today(),
            house.Money,
            [.. estimate.Lines.Where(line => line.Priced.Decided() != Decision.Open || line.Priced.Estimate is not null
                || booked[line.Key].Any()).Select(line =>
                {
                    var agreed = line.Priced.IsAgreed() ? line.Priced.Agreed : null;
                    var expected = agreed is null ? line.Priced.Estimate : agreed.Estimate;
                    return new EstimateFileLine(line.Kind == WorkKind.Found ? $"{inspection.WorkOrder}-{line.Key}" : line.Key, line.Title,
                        line.Kind, line.Class, line.Priced.Decided(), agreed?.At, line.FallsAwayWith,
                        [.. (expected?.Labour ?? []).Select(labour => new EstimateFileHours(labour.Skill, labour.Hours,
                            (agreed?.Rates ?? house.HourlyRates()).Of(labour.Skill)))],
                        expected?.Parts ?? [], expected?.Outside, expected?.WaitsFor ?? "", expected?.PartsBy, line.Priced.Price(house),
                        line.Priced.Tax(house),
                        [.. booked[line.Key].Where(row => !row.IsRunning).Select(row => new EstimateFileBooked(row.Skill,
                            names.GetValueOrDefault(row.By), clock.DayOf(row.From), row.Hours!.Value))],
                        (line.Priced as Discrepancy)?.Correction?.Parts ?? []);
                })],
            new(estimate.Total), [.. estimate.ByClass.Select(one => new EstimateFileGroup(one.Class, new(one.Sum)))],
            [.. estimate.ByDecision.Select(one => new EstimateFileGroup(one.Decision.InWords(), new(one.Sum)))]);
    }

    private static byte[] Csv(EstimateFile file) => TableWriter.Write(file.Lines.Select(line => new
    {
        number = line.Number,
        what = line.What,
        @class = line.Class?.InWords() ?? line.Kind.InWords(),
        decision = line.Decision.InWords(),
        agreedOn = line.AgreedAt?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture),
        hours = string.Join("; ", line.Hours.Select(hours => $"{hours.Skill.InWords()} {hours.Hours.AsTyped}")),
        parts = string.Join("; ", line.Parts.Select(part => part.InWords)),
        outside = line.Outside?.Price?.AsTyped,
        low = line.Price?.Low,
        likely = line.Price?.Likely,
        high = line.Price?.High,
        taxPercent = line.TaxPercent,
        hoursBooked = line.Booked.Sum(booked => booked.Hours),
        partsUsed = string.Join("; ", line.PartsUsed.Select(part => $"{part.Number} {part.SerialIn}".Trim())),
        fallsAwayWith = line.FallsAwayWith,
    }));

    private static string Named(EstimateFile file, string extension) =>
        new string([.. $"{file.Registration}-{file.WorkOrder}".Where(letter => char.IsAsciiLetterOrDigit(letter) || letter == '-')])
        + $"-estimate.{extension}";
}

/// <summary>The estimate of an inspection as JSON; docs/formats.md describes it.</summary>
public sealed record EstimateFile(string Format, int Version, string Registration, string SerialNumber, string WorkOrder, DateOnly On,
    string Money, IReadOnlyList<EstimateFileLine> Lines, EstimateFileSum Total, IReadOnlyList<EstimateFileGroup> ByClass,
    IReadOnlyList<EstimateFileGroup> ByDecision);

/// <summary>A line of it.</summary>
public sealed record EstimateFileLine(string Number, string What, WorkKind Kind, DiscrepancyClass? Class, Decision Decision,
    DateTimeOffset? AgreedAt, string? FallsAwayWith, IReadOnlyList<EstimateFileHours> Hours, IReadOnlyList<PartNeeded> Parts,
    OutsideWork? Outside, string WaitsFor, DateOnly? PartsBy, Spread? Price, decimal TaxPercent, IReadOnlyList<EstimateFileBooked> Booked,
    IReadOnlyList<PartUsed> PartsUsed);

/// <summary>Hours of a skill, at its rate.</summary>
public sealed record EstimateFileHours(Skill Skill, Spread Hours, decimal Rate);

/// <summary>Hours that were booked.</summary>
public sealed record EstimateFileBooked(Skill Skill, string? By, DateOnly On, decimal Hours);

/// <summary>A sum with its spread, without tax, and the tax that is likely.</summary>
public sealed record EstimateFileSum(decimal Low, decimal Likely, decimal High, double Mean, double P10, double P90, decimal Tax)
{
    public EstimateFileSum(PriceSum sum) : this(sum.Net.Sum.Low, sum.Net.Sum.Likely, sum.Net.Sum.High, sum.Net.Mean, sum.Net.P10,
        sum.Net.P90, sum.Tax) { }
}

/// <summary>The sum of lines that belong together.</summary>
public sealed record EstimateFileGroup(string Of, EstimateFileSum Sum);
