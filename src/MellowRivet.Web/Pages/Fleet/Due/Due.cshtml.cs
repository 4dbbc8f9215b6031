using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Due;

/// <summary>Which items of a due line are shown.</summary>
public enum DueFilter { All = 1, Now, BeforeNext }

/// <summary>What falls due on an aircraft, when and by which limb.</summary>
public sealed class DueModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage(desk, db, clock)
{
    public override FileSheet At => FileSheet.Due;

    [FromQuery(Name = "item")]
    public Guid? ItemId { get; set; }

    [FromQuery(Name = "only")]
    public DueFilter Only { get; set; } = DueFilter.All;

    /// <summary>Shows the form of a new item.</summary>
    [FromQuery(Name = "add")]
    public bool Adds { get; set; }

    public DueLine Line { get; private set; } = null!;
    public DueAxis Axis => new(Line);
    public DueEntry? Current { get; private set; }

    /// <summary>What was typed and refused, so that it stays in its field.</summary>
    public DueForm Typed { get; private set; } = new();
    public DoneForm TypedDone { get; private set; } = new();

    /// <summary>The inspection that is open, or would come next.</summary>
    public InspectionKind? OpenKind => InWork?.Kind ?? (Line.NextInspection?.Item.DoneBy is [var first, ..] ? first : null);

    /// <summary>The day of the inspection after that one.</summary>
    public DateOnly? After => OpenKind is { } kind ? Line.InspectionAfter(kind) : null;

    public IReadOnlyList<DueEntry> Shown => Only switch
    {
        DueFilter.Now => [.. Line.Entries.Where(entry => entry.Status.State is not DueState.Ok)],
        DueFilter.BeforeNext when After is { } until => [.. Line.FallsDueBefore(until, OpenKind!.Value)],
        _ => Line.Entries,
    };

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        if (Current is { } entry)
        {
            Typed = DueForm.Of(entry.Item);
            TypedDone = new() { On = Today, Hours = $"{entry.Now.Hours.Total:0.0}", Landings = $"{entry.Now.Landings.Total:0}",
                Cycles = $"{entry.Now.Cycles.Total:0}", Reference = InWork?.WorkOrder };
        }
        return Page();
    }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostDoneAsync(DoneForm form, CancellationToken stop)
    {
        ItemId = form.Item;
        var written = await Desk.WriteFileAsync(Id, form.Post, async _ => await ItemAsync(form.Item, stop) is { } item
            ? form.Read(out var done) ?? item.MarkDone(done, Today)
            : new Refusal("on", "It is not on this aircraft’s due line any more."), stop);
        return await AfterAsync(written, $"{HrefOf(At)}?item={form.Item}", async () =>
        {
            var shown = await ShowAsync(stop);
            (Typed, TypedDone) = (Current is { } entry ? DueForm.Of(entry.Item) : new(), form);
            return shown;
        });
    }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostKeepAsync(DueForm form, CancellationToken stop)
    {
        (ItemId, Adds) = (form.Item, form.Item is null);
        var id = form.Item ?? form.Post;
        var written = await Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            if (form.Read(out var interval, out var labour) is { } wrong)
                return wrong;
            if (form.On is { } part && aircraft.Fitting(part) is null)
                return new Refusal("part", "That part is not on this aircraft.");
            var item = form.Item is { } known ? await ItemAsync(known, stop) : Db.Put(
                new DueItem(id, form.On is null ? aircraft.Id : null, form.On, form.What!.Trim(), form.Kind, interval, form.ToSource()));
            if (item is null)
                return new("what", "It is not on this aircraft’s due line any more.");
            item.Change(form.What!.Trim(), interval, form.ToSource(), labour);
            return null;
        }, stop);
        return await AfterAsync(written, $"{HrefOf(At)}?item={id}", async () =>
        {
            Typed = form;
            return await ShowAsync(stop);
        });
    }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostRetireAsync(Guid post, Guid item, string? why, CancellationToken stop)
    {
        ItemId = item;
        var written = await Desk.WriteFileAsync(Id, post, async _ =>
        {
            if (await ItemAsync(item, stop) is not { } found)
                return new Refusal("why", "It is not on this aircraft’s due line any more.");
            if (string.IsNullOrWhiteSpace(why) || why.Trim().Length > 200)
                return new("why", "Say why it isn’t followed any more, in up to 200 characters.");
            found.Retire(why.Trim());
            return null;
        }, stop);
        return await AfterAsync(written, HrefOf(At), () => ShowAsync(stop));
    }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostTakeBackAsync(Guid post, Guid item, CancellationToken stop)
    {
        var written = await Desk.WriteFileAsync(Id, post, async _ =>
        {
            (await ItemAsync(item, stop))?.TakeBack();
            return null;
        }, stop);
        return await AfterAsync(written, $"{HrefOf(At)}?item={item}", () => ShowAsync(stop));
    }

    /// <summary>The list as CSV.</summary>
    public async Task<IActionResult> OnGetCsvAsync(CancellationToken stop) => await ShowAsync(stop)
        ? File(DueCsv.Write([Line]), "text/csv", $"due-{Aircraft.Registration}.csv")
        : NotFound();

    private Task<DueItem?> ItemAsync(Guid id, CancellationToken stop) => Db.DueItemAsync(Id, id, stop);

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        Line = await Desk.Board.LineAsync(Id, stop);
        Current = Line.Entries.FirstOrDefault(entry => entry.Item.Id == ItemId);
        return true;
    }
}
