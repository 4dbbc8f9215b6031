using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Schedule;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Handover;

/// <summary>The plan of the hangar as it leaves: JSON, CSV, and people's days as calendars.</summary>
internal static class PlanFiles
{
    public const string FormatName = "mellow-rivet-plan";
    public const int CurrentVersion = 1;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public static void MapPlanFiles(this WebApplication app)
    {
        var files = app.MapGroup("").Needs(Right.Look).ExcludeFromDescription();
        files.MapGet("/plan.json", async (PlanDesk plans, TimeProvider clock, CancellationToken stop) =>
            await plans.NowAsync(stop) is { Kept: { } kept } now
                ? Results.File(JsonSerializer.SerializeToUtf8Bytes(File(kept, now.IsStale, clock), Json), "application/json", "plan.json")
                : Results.NotFound());
        files.MapGet("/plan.csv", async (PlanDesk plans, TimeProvider clock, CancellationToken stop) =>
            await plans.NowAsync(stop) is { Kept: { } kept } now
                ? Results.File(TableWriter.Write(File(kept, now.IsStale, clock).Jobs.Select(Row)), "text/csv", "plan.csv")
                : Results.NotFound());
        files.MapGet("/plan.ics", async (Guid? who, PlanDesk plans, TimeProvider clock, CancellationToken stop) =>
            await plans.NowAsync(stop) is { Kept: { } kept }
                ? Results.Text(Days(kept, who, clock), DueCalendar.ContentType) : Results.NotFound());
        // A calendar program can't sign in: the key in the address is its person's, and opens their own days.
        app.MapGet("/calendar/{key}/days.ics", async (string key, RivetDb db, PlanDesk plans, TimeProvider clock, CancellationToken stop) =>
            await db.PersonOfKeyAsync(DueApi.Hash(key), stop) is { } person && Sight.Of(person, clock.Today()).IsWhole
                && await plans.NowAsync(stop) is { Kept: { } kept }
                ? Results.Text(Days(kept, person.Id, clock), DueCalendar.ContentType) : Results.NotFound())
            .RequireRateLimiting("bench").OpenToAll("whoever has the key of a calendar").ExcludeFromDescription();
    }

    private static PlanFile File(KeptPlan kept, bool stale, TimeProvider clock)
    {
        var plan = kept.Plan;
        string? Name(string? hand) => plan.Hands.FirstOrDefault(one => one.Id == hand)?.Name;
        return new(FormatName, CurrentVersion, clock.Here(kept.At), stale, plan.Start, plan.Runs, plan.Seed,
            [.. plan.Jobs.Select(job => new PlanFileJob(job.Job.Id, job.Job.Aircraft, job.Job.Title, job.Job.Skill, Name(job.Hand),
                job.Job.Hours.Low, job.Job.Hours.Likely, job.Job.Hours.High, job.Start, job.End, job.GoesOn, job.By, job.ByJob,
                    job.Job.After,
                job.Job.Part, job.Job.LeadDays, job.Job.NotBefore, job.Job.Place, job.Job.Pin is not null,
                job.Job.Line?.IsAgreed ?? true))],
            [.. plan.Aircraft.Select(ready => new PlanFileAircraft(ready.Aircraft, ready.Likely, ready.NineInTen, ready.By, ready.Deciding,
                ready.Wanted, ready.LateBy, ready.InTime, ready.LeftOut))],
            plan.Orders, [.. plan.Problems.Select(problem => problem.Words)], kept.Moves);
    }

    private static object Row(PlanFileJob job)
    {
        static string At(DateTime when) => when.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture);
        return new PlanRow(job.Aircraft, job.Id, job.Title, job.Skill ?? "", job.Hand ?? "", At(job.Start), At(job.End), At(job.GoesOn),
            job.Low,
            job.Likely, job.High, job.Part, job.LeadDays, job.NotBefore?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "",
            job.Place ?? "", job.IsPinned ? "yes" : "", job.IsAgreed ? "" : "not yet");
    }

    // Each piece of a day is an event: whoever's calendar it is sees when they are where. Times are the shop's clock, without a zone.
    private static string Days(KeptPlan kept, Guid? who, TimeProvider clock)
    {
        var (plan, stamp) = (kept.Plan, new CalDateTime(clock.GetUtcNow().UtcDateTime, "UTC"));
        var calendar = new Ical.Net.Calendar { ProductId = "-//Mellow Rivet//Plan of the hangar//EN" };
        calendar.AddProperty("X-WR-CALNAME", "Plan of the hangar");
        foreach (var hand in plan.Hands.Where(hand => who is null || hand.Id == ShopHands.Id(who.Value)))
            foreach (var (job, from, to) in plan.Pieces(hand.Id))
                calendar.Events.Add(new CalendarEvent
                {
                    Uid = $"{job.Job.Id}/{from:yyyyMMdd}@mellow-rivet",
                    DtStamp = stamp, Start = new CalDateTime(from), End = new CalDateTime(to),
                    Summary = $"{(who is null ? $"{hand.Name}: " : "")}{job.Job.Aircraft} {job.Job.Title}",
                    Description = $"As of {clock.Here(kept.At):yyyy-MM-dd HH:mm}."
                        + (job.Job.Line is { IsAgreed: false } ? " Not agreed yet: ask before you begin." : ""),
                });
        return new CalendarSerializer(calendar).SerializeToString() ?? "";
    }
}

/// <summary>A row of the plan as CSV.</summary>
internal sealed record PlanRow(string Aircraft, string Job, string Title, string Skill, string Hand, string Start, string End,
    string GoesOn,
    decimal Low, decimal Likely, decimal High, string Part, int? LeadDays, string NotBefore, string Place, string Pinned, string Agreed);

/// <summary>The plan as JSON; docs/formats.md describes it. Times are the shop's clock.</summary>
public sealed record PlanFile(string Format, int Version, DateTimeOffset AsOf, bool IsStale, DateOnly Start, int Runs, int Seed,
    IReadOnlyList<PlanFileJob> Jobs, IReadOnlyList<PlanFileAircraft> Aircraft, IReadOnlyList<OrderBy> Orders,
        IReadOnlyList<string> Problems,
    IReadOnlyList<ReadyMove> Moves);

/// <summary>A job of it.</summary>
public sealed record PlanFileJob(string Id, string Aircraft, string Title, string? Skill, string? Hand, decimal Low, decimal Likely,
    decimal High, DateTime Start, DateTime End, DateTime GoesOn, BoundBy By, string? ByJob, IReadOnlyList<string> After, string Part,
    int? LeadDays, DateOnly? NotBefore, string? Place, bool IsPinned, bool IsAgreed);

/// <summary>An aircraft of it.</summary>
public sealed record PlanFileAircraft(string Aircraft, DateOnly ReadyLikely, DateOnly ReadyNineInTen, string DecidedBy,
    IReadOnlyList<string> Deciding, DateOnly? Promised, int? LateBy, double InTime, int LeftOut);
