using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Schedule;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Schedule;

/// <summary>A job pinned, or let go, as it is sent.</summary>
public sealed record PinJobForm(Guid Inspection, string? Key, Guid? Hand, DateOnly? Day);

/// <summary>A day promised, as it is sent.</summary>
public sealed record PromiseForm(Guid Inspection, DateOnly? On);

/// <summary>How current the plan is that a page shows, and which one that is.</summary>
/// <param name="Now">The plan as it stands.</param>
/// <param name="Seen">When the one that is shown was reckoned, in ticks; 0 for none.</param>
/// <param name="HasForms">Somebody may be typing into the page: it says that there is another plan, and stays as it is.</param>
public sealed record Reckoning(PlanNow Now, long Seen, bool HasForms)
{
    public static Reckoning Of(PlanNow now, bool hasForms = false) => new(now, At(now), hasForms && now.Kept is not null);

    /// <summary>There is another plan than the one that is shown.</summary>
    public bool HasMoved => !Now.IsStale && At(Now) != Seen;

    private static long At(PlanNow now) => now.Kept?.At.UtcTicks ?? 0;
}

/// <summary>One aircraft of the plan, with its jobs.</summary>
/// <param name="Ready">When it is ready.</param>
/// <param name="Jobs">Its jobs, by start.</param>
/// <param name="Moved">How its day moved last; null where it didn't.</param>
/// <param name="IsOpen">Its jobs are shown.</param>
public sealed record PlannedAircraft(AircraftReady Ready, IReadOnlyList<PlacedJob> Jobs, ReadyMove? Moved, bool IsOpen)
{
    public IEnumerable<WorkLine> Inspections => Jobs.Select(job => job.Job.Line).OfType<WorkLine>().DistinctBy(line => line.InspectionId);
}

/// <summary>The plan of the hangar.</summary>
/// <param name="Now">The plan, and how current it is.</param>
/// <param name="From">The first day that is drawn.</param>
/// <param name="Drawn">It, drawn; null before the first plan.</param>
/// <param name="Aircraft">The aircraft in work, soonest ready first.</param>
/// <param name="Pinning">The job that is about to be pinned; null for none.</param>
/// <param name="MayDecide">Whoever looks may pin and promise.</param>
/// <param name="Today">The day.</param>
public sealed record CalendarView(PlanNow Now, DateOnly From, HangarCalendar? Drawn, IReadOnlyList<PlannedAircraft> Aircraft,
    string? Pinning,
    bool MayDecide, DateOnly Today) : PageView
{
    public HangarPlan? Plan => Now.Kept?.Plan;

    public PlacedJob? Job(string id) => Plan?.Jobs.FirstOrDefault(job => job.Job.Id == id);

    /// <summary>The name of a hand; "nobody" for what takes none.</summary>
    public string Name(string? hand) => Plan?.Hands.FirstOrDefault(one => one.Id == hand)?.Name ?? "nobody";

    /// <summary>Where a job is worked on.</summary>
    public static string Href(WorkLine line) => line.Key switch
    {
        _ when char.IsAsciiDigit(line.Key[0]) => $"/walk/{line.InspectionId}/fix-list/{line.Key}",
        "choices" => $"/walk/{line.InspectionId}/fix-list/choices",
        Core.Inspections.Inspection.ItselfKey => $"/walk/{line.InspectionId}/fix-list/prices/{line.Key}",
        _ when line.Key.StartsWith("due-", StringComparison.Ordinal) || line.Key.StartsWith("bulletin-", StringComparison.Ordinal)
            => $"/walk/{line.InspectionId}/fix-list/prices/{line.Key}",
        _ when line.Key.StartsWith("choice-", StringComparison.Ordinal) => $"/walk/{line.InspectionId}/fix-list/choices",
        _ => $"/walk/{line.InspectionId}/plan",
    };

    /// <summary>Where nobody has said enough of a line, it is said here.</summary>
    public static string SayHref(WorkLine line) => line.Key == "choices" ? Href(line)
        : $"/walk/{line.InspectionId}/fix-list/prices/{line.Key}";

    /// <summary>What keeps a job from beginning sooner, in words; empty where nothing does.</summary>
    public string Waits(PlacedJob job) => job.By switch
    {
        BoundBy.Parts => job.Job.IsToOrder ? $"{job.Job.Part}: {job.Job.LeadDays} days from the order" : $"{job.Job.Part} expected",
        BoundBy.Day => job.Job.Because.Length > 0 ? job.Job.Because : "pinned to the day",
        BoundBy.Other => $"after {Job(job.ByJob!)?.Job.Title}",
        BoundBy.Place => $"until the {job.Job.Place} is free",
        BoundBy.Hand => Job(job.ByJob!) is { } other ? $"after {other.Job.Aircraft} {other.Job.Title}" : "",
        _ => "",
    };
}

/// <summary>Every aircraft in work on one calendar: who does what when, what waits for what, and when each is ready.</summary>
[Needs(Right.Look)]
public sealed class CalendarModel(PlanDesk plans, Desk desk, TimeProvider clock) : ShopPage<CalendarView>
{
    // With more aircraft than that only one shows its jobs at a time.
    private const int MostOpen = 3;

    // Whoever changed something waits so long for the plan that has it; after that it is shown as it was, and says so.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(2);

    /// <summary>The first day that is drawn; none for the plan's own.</summary>
    [FromQuery(Name = "from")]
    public DateOnly? FromTyped { get; set; }

    /// <summary>The aircraft whose jobs are shown.</summary>
    [FromQuery(Name = "open")]
    public string? Opened { get; set; }

    /// <summary>The job that is about to be pinned.</summary>
    [FromQuery(Name = "pin")]
    public string? Pinning { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>How far the next plan is: a page that waits for it asks again and again, and is loaded anew when it is there.</summary>
    /// <param name="seen">Which plan the page shows.</param>
    /// <param name="forms">It has fields to type into.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<IActionResult> OnGetProgressAsync(long seen, bool forms, CancellationToken stop)
    {
        var reckoning = new Reckoning(await plans.NowAsync(stop), seen, forms);
        Response.Headers.CacheControl = "no-store";
        if (reckoning is { HasMoved: true, HasForms: false })
            Response.Headers["HX-Refresh"] = "true";
        return Partial("_Reckoning", reckoning);
    }

    /// <summary>Pins a job to a day, a hand or both, or lets it go.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostPinAsync(Guid post, PinJobForm form, CancellationToken stop)
    {
        var kept = (await plans.NowAsync(stop)).Kept?.Plan;
        if (kept?.Jobs.FirstOrDefault(job => job.Job.Line?.InspectionId == form.Inspection
            && job.Job.Id == $"{job.Job.Line.Order}/{form.Key}") is not { Job: var job })
            return await AgainAsync(new("pin", "It is not in the plan any more."), stop, form);
        Pinning = job.Id;
        Opened = job.Aircraft;
        if (form.Hand is { } hand && kept.Hands.FirstOrDefault(one => one.Id == ShopHands.Id(hand)) is var who && who?.Can(job) != true)
            return await AgainAsync(new("pin", who is null ? "They don’t work here."
                : $"It takes {job.Skill}’s hands: {who.Name} is none."),
                stop, form);
        return await SettledAsync(desk.WriteAsync(form.Inspection, post, here => here.Inspection.Pin(form.Key, form.Hand, form.Day,
            User.PersonId(), clock.GetUtcNow(), clock.Today()), stop, JobParts.Bare), $"/plan?open={job.Aircraft}#jobs", form, stop);
    }

    /// <summary>Says when somebody was told that an aircraft is ready, or takes that back.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostPromiseAsync(Guid post, PromiseForm form, CancellationToken stop) => SettledAsync(
        desk.WriteAsync(form.Inspection, post, here => here.Inspection.Tell(form.On, User.PersonId(), clock.GetUtcNow(), clock.Today()),
            stop,
            JobParts.Bare), "/plan", form, stop);

    private async Task<IActionResult> SettledAsync(Task<Written> writing, string onwards, object form, CancellationToken stop)
    {
        var written = await writing;
        if (written.Done)
            await plans.SettleAsync(Patience, stop);
        return await AfterAsync(written, onwards, stop, form);
    }

    protected override async Task<CalendarView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var now = await plans.NowAsync(stop);
        var (plan, today) = (now.Kept?.Plan, clock.Today());
        var from = FromTyped is { Year: > 2000 and < 2199 } typed ? typed : plan?.Start ?? today;
        var jobs = plan?.Jobs.ToLookup(job => job.Job.Aircraft);
        return new(now, from, plan is null ? null : new(plan, from),
            [.. (plan?.Aircraft ?? []).Select(ready => new PlannedAircraft(ready, [.. jobs![ready.Aircraft]],
                now.Kept!.LastMove(ready.Aircraft), plan!.Aircraft.Count <= MostOpen ? Opened is null || ready.Aircraft == Opened
                    : ready.Aircraft == Opened))],
            Pinning, User.May(Right.CorrectDiscrepancies), today);
    }
}
