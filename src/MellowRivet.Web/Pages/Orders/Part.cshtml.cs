using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Parts;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Orders;

/// <summary>What came, went in or went back, as it is sent.</summary>
public sealed class PartForm
{
    public string? Quantity { get; set; }
    public PartCondition Condition { get; set; } = PartCondition.New;
    public string? Trace { get; set; }
    public string? Batch { get; set; }
    public DateOnly? ShelfLife { get; set; }
    public Guid Receipt { get; set; }
    public string? Serial { get; set; }
    public string? SerialOff { get; set; }
    public Guid? Replaces { get; set; }
    public string? Words { get; set; }
    public DateOnly? On { get; set; }

    /// <summary>How many, as typed; all of what is left where nothing is.</summary>
    public decimal Many(decimal all) => string.IsNullOrWhiteSpace(Quantity) ? all
        : TypedNumber.Parse(Quantity) is { } typed && Math.Abs(typed) <= (double)OrderedPart.MostQuantity ? Math.Round((decimal)typed, 3)
            : -1;

    public Receipt Came(Guid id, OrderedPart part, Guid by, DateTimeOffset at) => new(id, Many(part.Quantity - part.Came), Condition,
        Trace?.Trim() ?? "", Batch?.Trim() ?? "", ShelfLife, by, at);

    public TakenOut Taken(OrderedPart part, Guid by, DateTimeOffset at) => new(Receipt,
        Many(part.Receipts.FirstOrDefault(receipt => receipt.Id == Receipt) is { } one ? part.LeftOf(one) : 0), Serial?.Trim() ?? "",
        SerialOff?.Trim() ?? "", Replaces, Words?.Trim() ?? "", by, at);
}

/// <summary>A part from needed to fitted.</summary>
/// <param name="Part">The part.</param>
/// <param name="Aircraft">The aircraft it is for, with its parts; null for none.</param>
/// <param name="Order">The work order; null for none.</param>
/// <param name="People">People's names.</param>
/// <param name="Today">The day.</param>
public sealed record PartView(OrderedPart Part, Aircraft? Aircraft, string? Order, IReadOnlyDictionary<Guid, string> People, DateOnly Today)
    : PageView
{
    public PartForm Form => Typed<PartForm>() ?? new();
    public string NameOf(Guid person) => People.GetValueOrDefault(person, "");

    /// <summary>What came and lies here still.</summary>
    public IEnumerable<Receipt> Here => Part.Receipts.Where(receipt => Part.LeftOf(receipt) > 0);
}

/// <summary>One part: taken in with condition and trace, fitted into the aircraft's file, or sent back.</summary>
[Needs(Right.Look)]
public sealed class PartModel(Desk desk, RivetDb db, TimeProvider clock) : ShopPage<PartView>
{
    [FromRoute]
    public Guid Id { get; set; }

    private string Here => $"/parts/{Id}";
    private Guid Me => User.PersonId();

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostReceiveAsync(Guid post, PartForm form, CancellationToken stop) =>
        ChangeAsync(post, form, part => part.Receive(form.Came(post, part, Me, clock.GetUtcNow())), stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostBackAsync(Guid post, PartForm form, CancellationToken stop) =>
        ChangeAsync(post, form, part => part.GiveBack(form.Taken(part, Me, clock.GetUtcNow())), stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostCoreAsync(Guid post, PartForm form, CancellationToken stop) =>
        ChangeAsync(post, form, part => part.SendCore(form.On ?? clock.Today(), clock.Today()), stop);

    /// <summary>Says that it needs no trace.</summary>
    [Needs(Right.InspectWork)]
    public Task<IActionResult> OnPostWaiveAsync(Guid post, PartForm form, CancellationToken stop) =>
        ChangeAsync(post, form, part => part.Waive(form.Words, Me, clock.GetUtcNow()), stop);

    /// <summary>Fits some of it; into the aircraft's file where it takes the place of a part there.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostFitAsync(Guid post, PartForm form, CancellationToken stop)
    {
        if (await db.PartAsync(Id, stop) is not { } part)
            return NotFound();
        return await AfterAsync(desk.FitAsync(part, post, now => form.Taken(now, Me, clock.GetUtcNow()), stop), Here, stop, form);
    }

    private Task<IActionResult> ChangeAsync(Guid post, PartForm form, Func<OrderedPart, Refusal?> change, CancellationToken stop) =>
        AfterAsync(db.WritePartAsync(Id, post, clock, part => Task.FromResult(change(part)), stop), Here, stop, form);

    protected override async Task<PartView?> ViewAsync(Refused refused, CancellationToken stop) =>
        await db.PartAsync(Id, stop) is not { } part ? null
            : new(part, part.AircraftId is { } id ? await db.AircraftAsync(id, stop) : null,
                part.InspectionId is { } order ? (await db.OrdersAsync([order], stop)).GetValueOrDefault(order) : null,
                await db.NamesAsync(stop), clock.Today());
}
