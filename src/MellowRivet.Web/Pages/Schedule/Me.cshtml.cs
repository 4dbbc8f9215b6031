using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Schedule;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Schedule;

/// <summary>One person's day.</summary>
/// <param name="Now">The plan, and how current it is.</param>
/// <param name="Who">Whose day; null for somebody who has no hours in the plan.</param>
/// <param name="Day">The day.</param>
/// <param name="Pieces">What of which job, by the hour.</param>
/// <param name="Next">The next day on which they have something; null for none.</param>
public sealed record MyDayView(PlanNow Now, Hand? Who, DateOnly Day, IReadOnlyList<(PlacedJob Job, DateTime From, DateTime To)> Pieces,
    DateOnly? Next) : PageView
{
    public HangarPlan? Plan => Now.Kept?.Plan;
}

/// <summary>What somebody does on a day, standing.</summary>
[Needs(Right.Look)]
public sealed class MeModel(PlanDesk plans, TimeProvider clock) : ShopPage<MyDayView>
{
    /// <summary>Whose day; whoever looks where none is named.</summary>
    [FromQuery(Name = "who")]
    public Guid? WhoTyped { get; set; }

    /// <summary>Which day; today where none is named.</summary>
    [FromQuery(Name = "day")]
    public DateOnly? DayTyped { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<MyDayView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var now = await plans.NowAsync(stop);
        var day = DayTyped is { Year: > 2000 and < 2199 } typed ? typed : clock.Today();
        if (now.Kept?.Plan is not { } plan)
            return new(now, null, day, [], null);
        var id = ShopHands.Id(WhoTyped ?? User.PersonId());
        var pieces = plan.Pieces(id).ToList();
        var after = pieces.Where(piece => HangarPlan.DayOf(piece.From) > day).ToList();
        return new(now, plan.Hands.FirstOrDefault(hand => hand.Id == id), day, [.. pieces.Where(piece =>
            HangarPlan.DayOf(piece.From) == day)],
            after.Count == 0 ? null : HangarPlan.DayOf(after[0].From));
    }
}
