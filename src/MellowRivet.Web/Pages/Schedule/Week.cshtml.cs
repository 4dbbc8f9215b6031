using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Schedule;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Schedule;

/// <summary>A week of the plan on one sheet.</summary>
/// <param name="Now">The plan, and how current it is.</param>
/// <param name="Days">The days on which somebody works.</param>
/// <param name="Cells">What a hand does on a day.</param>
public sealed record WeekView(PlanNow Now, IReadOnlyList<DateOnly> Days,
    ILookup<(string Hand, DateOnly Day), (PlacedJob Job, DateTime From, DateTime To)> Cells) : PageView
{
    public HangarPlan? Plan => Now.Kept?.Plan;
}

/// <summary>The week's plan, to print and to pin up.</summary>
[Needs(Right.Look)]
public sealed class WeekModel(PlanDesk plans, TimeProvider clock) : ShopPage<WeekView>
{
    /// <summary>A day of the week; today where none is named.</summary>
    [FromQuery(Name = "from")]
    public DateOnly? FromTyped { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<WeekView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var now = await plans.NowAsync(stop);
        var work = (now.Kept?.Plan.Hands ?? []).SelectMany(hand => now.Kept!.Plan.Pieces(hand.Id)).Select(piece => piece.From).ToList();
        // A week that has nothing left but the weekend is no week to print: the next that has work is shown.
        var from = FromTyped is { Year: > 2000 and < 2199 } typed ? typed : work.Count > 0 ? HangarPlan.DayOf(work.Min()) : clock.Today();
        var monday = from.AddDays(-WorkWeek.FromMonday(from.DayOfWeek));
        var hands = now.Kept?.Plan.Hands ?? [];
        return new(now, [.. Enumerable.Range(0, 7).Select(monday.AddDays).Where(day => hands.Any(hand => hand.Week.WorksOn(day)))],
            hands.SelectMany(hand => now.Kept!.Plan.Pieces(hand.Id).Select(piece => (hand.Id, piece)))
                .ToLookup(one => (one.Id, HangarPlan.DayOf(one.piece.From)), one => one.piece));
    }
}
