using MellowRivet.Core;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Parts;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Orders;

/// <summary>From whom, and when, as it is sent: for all that are ticked.</summary>
public sealed class OrderForm
{
    public List<string?> Needed { get; set; } = [];
    public List<Guid> Listed { get; set; } = [];
    public string? Supplier { get; set; }
    public string? Price { get; set; }
    public DateOnly? Expected { get; set; }
    public bool Core { get; set; }

    /// <summary>They are ordered; false where the supplier was only asked.</summary>
    public bool Order { get; set; }
}

/// <summary>A part that no estimate names, as it is sent.</summary>
public sealed record AddForm(string? What, string? Number, string? Quantity, string? Unit, Guid? Aircraft);

/// <summary>The shop's parts, from needed to fitted.</summary>
/// <param name="Needed">What estimates name and nobody was asked for.</param>
/// <param name="Parts">What is on the list.</param>
/// <param name="Registrations">The aircraft, by id.</param>
/// <param name="Orders">Work orders, by inspection.</param>
/// <param name="Sought">What is searched for.</param>
/// <param name="Today">The day.</param>
public sealed record PartsListView(IReadOnlyList<NeededPart> Needed, IReadOnlyList<OrderedPart> Parts,
    IReadOnlyDictionary<Guid, string> Registrations, IReadOnlyDictionary<Guid, string> Orders, string? Sought, DateOnly Today) : PageView
{
    // Older ones are found by searching.
    private const int MostThrough = 30;

    public OrderForm Order => Typed<OrderForm>() ?? new();
    public AddForm Added => Typed<AddForm>() ?? new(null, null, null, null, null);

    /// <summary>What it is for: "N04QF 26-117-04".</summary>
    public string For(Guid? aircraft, Guid? inspection, string key) => string.Join(' ', new[]
    {
        aircraft is { } id ? Registrations.GetValueOrDefault(id, "") : "the shop’s shelf",
        inspection is { } order ? Orders.GetValueOrDefault(order, "") + (key.Length > 0 && char.IsAsciiDigit(key[0]) ? $"-{key}" : "") : "",
    }.Where(word => word.Length > 0));

    /// <summary>The groups of the list, what presses first.</summary>
    public IEnumerable<(string Title, IReadOnlyList<OrderedPart> Parts)> Groups => new (string, IEnumerable<OrderedPart>)[]
    {
        ("Late", Parts.Where(part => part.IsLate(Today)).OrderBy(part => part.ExpectedOn)),
        ("Needed", Of(PartState.Needed)), ("Asked", Of(PartState.Asked)),
        ("Ordered", Of(PartState.Ordered).OrderBy(part => part.ExpectedOn ?? DateOnly.MaxValue)),
        ("Here, to be fitted", Of(PartState.Received)),
        ("Cores owed", Parts.Where(part => part.CoreIsOwed)),
        ("Fitted or sent back", Parts.Where(part => part.IsThrough).OrderByDescending(part => part.Id).Take(MostThrough)),
    }.Select(group => (group.Item1, (IReadOnlyList<OrderedPart>)[.. group.Item2])).Where(group => group.Item2.Count > 0);

    private IEnumerable<OrderedPart> Of(PartState state) =>
        Parts.Where(part => part.State == state && !part.IsLate(Today)).OrderBy(part => part.What, StringComparer.OrdinalIgnoreCase);
}

/// <summary>One list of parts for the shop: needed, asked, ordered, late, here, fitted, sent back, and cores owed.</summary>
[Needs(Right.Look)]
public sealed class PartsListModel(RivetDb db, TimeProvider clock) : ShopPage<PartsListView>
{
    [FromQuery(Name = "q")]
    public string? Sought { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Asks a supplier for all that are ticked, or orders them.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostOrderAsync(Guid post, OrderForm form, CancellationToken stop)
    {
        var (price, problem) = Estimate.ReadPrice(form.Price, "The price");
        if (problem is not null || price is { IsRange: true })
            return await AgainAsync(new("price", problem ?? "The price that was quoted, as one figure."), stop, form);
        if (form.Needed.Count + form.Listed.Count == 0)
            return await AgainAsync(new("supplier", "Tick those that it is about first."), stop, form);
        if (price is not null && form.Needed.Count + form.Listed.Count > 1)
            return await AgainAsync(new("price", "One price for one part: tick one, or leave it empty."), stop, form);
        var needed = (await NeededAsync(stop)).ToDictionary(one => one.Key);
        if (form.Needed.Find(key => key is null || !needed.ContainsKey(key)) is not null)
            return await AgainAsync(new("supplier", "One of them is on the list already, or isn’t needed any more. Look again."), stop,
                form);
        List<OrderedPart> fresh = [.. form.Needed.Select(key => needed[key!]).Select(one => new OrderedPart(Guid.CreateVersion7(),
            one.Part.What, one.Part.Number, one.Part.Quantity, one.Part.Unit, one.For))];
        return await AfterAsync(db.OrderAsync(fresh, form.Listed, post, part => part.From(form.Order, form.Supplier,
            price?.Likely ?? needed.Values.FirstOrDefault(one => (one.For.InspectionId, one.For.Key, one.Part.What) == (part.InspectionId,
                part.Key, part.What))?.Part.Price?.Likely, form.Expected, form.Core, clock.Today()), User.PersonId(), clock, stop),
                    "/parts",
            stop, form);
    }

    /// <summary>Puts a part on the list that no estimate names.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostAddAsync(Guid post, AddForm form, CancellationToken stop)
    {
        var many = string.IsNullOrWhiteSpace(form.Quantity) ? 1 : TypedNumber.Parse(form.Quantity) ?? -1;
        var quantity = Math.Abs(many) > (double)OrderedPart.MostQuantity ? -1 : (decimal)many;
        if ((OrderedPart.Check(form.What, form.Number, quantity, form.Unit)
            ?? (form.Aircraft is { } id && !(await db.RegistrationsAsync(stop)).ContainsKey(id)
                ? new("aircraft", "There is no such aircraft.") : null)) is { } refusal)
            return await AgainAsync(refusal, stop, form);
        return await AfterAsync(db.OnceAsync(post, clock, () =>
        {
            db.Put(new OrderedPart(Guid.CreateVersion7(), form.What!, form.Number ?? "", quantity, form.Unit ?? "",
                PartFor.Shelf with { AircraftId = form.Aircraft }));
            return Task.FromResult<Refusal?>(null);
        }, stop), "/parts", stop, form);
    }

    private async Task<IReadOnlyList<NeededPart>> NeededAsync(CancellationToken stop) =>
        PartsList.Needed(await db.InWorkWithFoundAsync(stop), await db.PartsAsync(stop));

    protected override async Task<PartsListView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var (parts, working) = (await db.PartsAsync(stop), await db.InWorkWithFoundAsync(stop));
        var needed = PartsList.Needed(working, parts);
        var orders = await db.OrdersAsync([.. parts.Select(part => part.InspectionId).Concat(needed.Select(one => one.For.InspectionId))
            .OfType<Guid>().Distinct()], stop);
        var view = new PartsListView(needed, parts, await db.RegistrationsAsync(stop), orders, Sought, clock.Today());
        if (string.IsNullOrWhiteSpace(Sought))
            return view;
        var words = Sought.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        bool Holds(string text) => words.All(word => text.Contains(word, StringComparison.OrdinalIgnoreCase));
        return view with
        {
            Needed = [.. needed.Where(one =>
                Holds($"{one.Part.InWords} {one.Of} {view.For(one.For.AircraftId, one.For.InspectionId, one.For.Key)}"))],
            Parts = [.. parts.Where(part => Holds(
                $"{part.InWords} {part.Supplier} {string.Join(' ', part.Receipts.Select(one => $"{one.Trace} {one.Batch}"))} "
                + view.For(part.AircraftId, part.InspectionId, part.Key)))],
        };
    }
}
