using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.People;
using MellowRivet.Core.Surveys;
using MellowRivet.Store;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Handover;

/// <summary>A survey as it leaves the shop, for the buyer's side: it has the buyer's limit in it.</summary>
internal static class SurveyFiles
{
    public const string FormatName = "mellow-rivet-survey";
    public const int CurrentVersion = 1;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public static void MapSurveyFiles(this WebApplication app)
    {
        var files = app.MapGroup("/walk/{id:guid}").Needs(Right.RecordWork).ExcludeFromDescription();
        files.MapGet("/survey.json", async (Guid id, Desk desk, CancellationToken stop) =>
            await desk.SurveyStandAsync(id, stop) is not var (job, stand) ? Results.NotFound()
                : Results.File(JsonSerializer.SerializeToUtf8Bytes(Of(job, stand), Json), "application/json", Named(job, "json")));
        files.MapGet("/survey.csv", async (Guid id, Desk desk, CancellationToken stop) =>
            await desk.SurveyStandAsync(id, stop) is not var (job, stand) ? Results.NotFound()
                : Results.File(TableWriter.Write(Of(job, stand).Findings.Select(found => new
                {
                    found.Number, found.What, found.Where, found.Class, found.Cost?.Low, found.Cost?.Likely, found.Cost?.High,
                    found.SellerPays, found.Hidden, found.EndsTheDeal,
                })), "text/csv", Named(job, "csv")));
    }

    private static string Named(Job job, string kind) => $"{job.Aircraft.Registration}-{job.Inspection.WorkOrder}-survey.{kind}";

    private static SurveyFile Of(Job job, SurveyStand stand)
    {
        var (inspection, money, terms) = (job.Inspection, stand.Money, stand.Survey.Terms);
        return new(FormatName, CurrentVersion, SurveyWords.NoInspection, job.Aircraft.Registration, job.Aircraft.Type,
            job.Aircraft.SerialNumber, inspection.WorkOrder, inspection.OpenedOn, stand.Survey.End?.At, stand.Survey.End?.Early == true
            ? stand.Survey.End.Why : null, inspection.House.Money, terms.Buyer, terms.Wants, terms.Asking, terms.InOrder?.Price,
            terms.InOrder?.Source, terms.Limit, Of(money.Fair), money.Verdict, money.By, money.UsedUp, stand.Reasons.Because,
            [.. stand.Findings.Select(found => new SurveyFileFinding($"{inspection.WorkOrder}-{found.Found.Number:00}", found.Found.What,
                inspection.ZoneTitle(found.Found.ZoneKey), found.Found.Class, Of(found.Cost), found.Mark.SellerPays, found.Mark.Hidden,
                found.Mark.Stops, [.. found.Found.Photos.Select(photo => photo.Sha256)]))],
            [.. stand.Due.Select(one => new SurveyFileDue(one.Entry.Title, one.Entry.Status.Forecast, Of(one.Cost), one.WithPower))],
            [.. stand.Power.Select(one => new SurveyFilePower(one.Title, one.Hours, one.Interval, one.Use?.UsedUp,
                one.Use?.ComesOff.Likely))],
            [.. stand.NotLookedAt.Select(look => new SurveyFileReserve(look.Task.Text, look.Reserve)),
                .. stand.OwnReserves.Select(own => new SurveyFileReserve(own.What, own.Sum))]);
    }

    private static SurveyFileSpread? Of(Spread? spread) => spread is { } sum ? new(sum.Low, sum.Likely, sum.High) : null;
}

internal sealed record SurveyFileSpread(decimal Low, decimal Likely, decimal High);

internal sealed record SurveyFileFinding(string Number, string What, string Where, Core.Discrepancies.DiscrepancyClass Class,
    SurveyFileSpread? Cost, bool SellerPays, bool Hidden, bool EndsTheDeal, IReadOnlyList<string> Photos);

internal sealed record SurveyFileDue(string What, DateOnly? Forecast, SurveyFileSpread? Cost, bool CountedWithHours);

internal sealed record SurveyFilePower(string What, decimal? HoursSinceOverhaul, decimal? Interval, decimal? UsedUp, decimal? ComesOff);

internal sealed record SurveyFileReserve(string What, decimal Sum);

internal sealed record SurveyFile(string Format, int Version, string Note, string Registration, string Type, string SerialNumber,
    string WorkOrder, DateOnly BegunOn, DateTimeOffset? EndedAt, string? EndedEarlyBecause, string Money, string Buyer, string Wants,
    decimal Asking, decimal? InOrder, string? InOrderSource, decimal? Limit, SurveyFileSpread? Fair, SurveyVerdict? Verdict, decimal? By,
    decimal? UsedUp, IReadOnlyList<string> Because, IReadOnlyList<SurveyFileFinding> Findings, IReadOnlyList<SurveyFileDue> DueWithinYear,
    IReadOnlyList<SurveyFilePower> Power, IReadOnlyList<SurveyFileReserve> NotLookedAt);
