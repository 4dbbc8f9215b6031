using MellowRivet.Core.Parts;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Orders;

/// <summary>Labels for parts that lie here.</summary>
/// <param name="Parts">The parts.</param>
/// <param name="For">What each is for, by its id.</param>
/// <param name="Host">The address of the shop, for the codes.</param>
public sealed record PartLabelsView(IReadOnlyList<OrderedPart> Parts, IReadOnlyDictionary<Guid, string> For, string Host) : PageView;

/// <summary>Labels for parts, to print: words, batch and tag, and a code that leads to the part.</summary>
[Needs(Right.Look)]
public sealed class PartLabelsModel(RivetDb db, RivetSettings settings) : ShopPage<PartLabelsView>
{
    [FromQuery(Name = "part")]
    public Guid? Part { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<PartLabelsView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var parts = (await db.PartsAsync(stop)).Where(part => Part is null ? part.State == PartState.Received : part.Id == Part)
            .OrderBy(part => part.What, StringComparer.OrdinalIgnoreCase).ToList();
        var orders = await db.OrdersAsync([.. parts.Select(part => part.InspectionId).OfType<Guid>().Distinct()], stop);
        var view = new PartsListView([], parts, await db.RegistrationsAsync(stop), orders, null, default);
        return new(parts, parts.ToDictionary(part => part.Id, part => view.For(part.AircraftId, part.InspectionId, part.Key)),
            settings.Address(Request));
    }
}
