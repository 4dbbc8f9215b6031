using MellowRivet.Core;
using MellowRivet.Core.Amendments;
using MellowRivet.Core.Due;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Due;

/// <summary>Which items of a due line are shown.</summary>
public enum DueFilter { All = 1, Now, BeforeNext }

/// <summary>The due line of one aircraft.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Line">The line.</param>
/// <param name="ItemId">The item that is asked for.</param>
/// <param name="Only">Which of them are shown.</param>
/// <param name="Adds">A new one is being typed.</param>
/// <param name="Amended">Times it was done that were put right, latest first.</param>
public sealed record DueView(FileShown File, DueLine Line, Guid? ItemId, DueFilter Only, bool Adds, IReadOnlyList<Amendment> Amended)
    : FileView(File)
{
    public override FilePage At => FilePage.Due;

    public DueAxis Axis => new(Line);
    public DueEntry? Current => Line.Entries.FirstOrDefault(entry => entry.Item.Id == ItemId);

    /// <summary>The form of an item: as typed where it was refused, else as kept.</summary>
    public DueForm Form => Typed<DueForm>() ?? (Current is { } entry ? DueForm.Of(entry.Item) : new());

    /// <summary>The form that it was done: as typed where it was refused, else of today.</summary>
    public DoneForm Done => Typed<DoneForm>() ?? (Current is not { Now: var now } ? new() : new()
    {
        On = Today,
        Hours = $"{now.Hours.Total:0.0}",
        Landings = $"{now.Landings.Total:0}",
        Cycles = $"{now.Cycles.Total:0}",
        Reference = InWork?.WorkOrder,
    });

    /// <summary>What was typed to put a time right, where it wasn't taken; null for another.</summary>
    public AmendForm? TypedFor(int index) => Typed<AmendForm>() is { } form && form.Index == index ? form : null;

    /// <summary>The inspection that is open, or would come next.</summary>
    public InspectionKind? OpenKind => InWork?.Kind ?? (Line.NextInspection?.Item.DoneBy is [var first, ..] ? first : null);

    /// <summary>The day of the inspection after that one.</summary>
    public DateOnly? After => OpenKind is { } kind ? Line.InspectionAfter(kind) : null;

    public IReadOnlyList<DueEntry> Entries => Only switch
    {
        DueFilter.Now => [.. Line.Entries.Where(entry => entry.Status.State is not DueState.Ok)],
        DueFilter.BeforeNext when After is { } until => [.. Line.FallsDueBefore(until, OpenKind!.Value)],
        _ => Line.Entries,
    };
}

/// <summary>What falls due on one aircraft, on one axis for hours and calendar.</summary>
public sealed class DueModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage<DueView>(desk, db, clock)
{
    private const int LongestWhy = 200;

    private static readonly Refusal Gone = new("what", "It is not on this aircraft’s due line any more.");

    [FromQuery(Name = "item")]
    public Guid? ItemId { get; set; }

    [FromQuery(Name = "only")]
    public DueFilter Only { get; set; } = DueFilter.All;

    /// <summary>Shows the form of a new item.</summary>
    [FromQuery(Name = "add")]
    public bool Adds { get; set; }

    private string Here => HrefOf(FilePage.Due);

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostDoneAsync(DoneForm form, CancellationToken stop)
    {
        ItemId = form.Item;
        return AfterAsync(Desk.WriteFileAsync(Id, form.Post, async _ => await ItemAsync(form.Item, stop) is { } item
            ? form.Read(out var done) ?? item.SetDone(done, Today)
            : Gone with { Field = "on" }, stop), $"{Here}?item={form.Item}", stop, form);
    }

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostKeepAsync(DueForm form, CancellationToken stop)
    {
        (ItemId, Adds) = (form.Item, form.Item is null);
        return AfterAsync(Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            if (form.Read(out var interval, out var labour) is { } wrong)
                return wrong;
            if (form.On is { } part && aircraft.Fitting(part) is null)
                return new Refusal("part", "That part is not on this aircraft.");
            if ((form.Item is { } known ? await ItemAsync(known, stop) : Db.Put(form.Make(aircraft, interval))) is not { } item)
                return Gone;
            item.Change(form.What!.Trim(), interval, form.ToSource(), labour);
            return null;
        }, stop), $"{Here}?item={form.Item ?? form.Post}", stop, form);
    }

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostRetireAsync(Guid post, Guid item, string? why, CancellationToken stop)
    {
        ItemId = item;
        return AfterAsync(Desk.WriteFileAsync(Id, post, async _ =>
        {
            if (await ItemAsync(item, stop) is not { } found)
                return Gone with { Field = "why" };
            if (string.IsNullOrWhiteSpace(why) || why.Trim().Length > LongestWhy)
                return new("why", $"Say why it isn’t followed any more, in up to {LongestWhy} characters.");
            found.Retire(why.Trim());
            return null;
        }, stop), Here, stop);
    }

    /// <summary>Puts a time that it was done right, or strikes it.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAmendAsync(AmendForm form, CancellationToken stop)
    {
        ItemId = form.Subject;
        if (!form.Strike && form.Check() is { } wrong)
            return await AgainAsync(wrong, stop, form);
        var was = (await ItemAsync(form.Subject, stop))?.Done.ElementAtOrDefault(form.Index);
        return await AfterAsync(Desk.PutDoneRightAsync(Id, form.Subject, form.Index, form.ToDone(was), form.By(User, Clock), stop),
            $"{Here}?item={form.Subject}", stop, form);
    }

    /// <summary>The list as CSV.</summary>
    public async Task<IActionResult> OnGetCsvAsync(CancellationToken stop) => await MakeAsync(stop)
        ? File(DueCsv.Write([View.Line]), "text/csv", $"due-{View.Aircraft.Registration}.csv")
        : NotFound();

    private Task<DueItem?> ItemAsync(Guid id, CancellationToken stop) => Db.DueItemAsync(Id, id, stop);

    protected override async Task<DueView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop) =>
        new(file, await Desk.Board.LineAsync(Id, stop), ItemId, Only, Adds,
            ItemId is { } item ? await Db.AmendmentsOfAsync(Id, stop, [item]) : []);
}
