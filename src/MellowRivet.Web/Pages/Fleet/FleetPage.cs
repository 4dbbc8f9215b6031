using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>The sheets of an aircraft's file, in the order of their tabs.</summary>
public enum FileSheet { Due = 1, OpenItems, Bulletins, Parts, Times, Trends, Books, Plate }

/// <summary>A page of an aircraft's file: what its frame shows is loaded here.</summary>
[Needs(Right.Look)]
public abstract class FleetPage(Desk desk, RivetDb db, TimeProvider clock) : PageModel
{
    [FromRoute]
    public Guid Id { get; set; }

    public Aircraft Aircraft { get; private set; } = null!;

    /// <summary>Its inspection in work; null where none is.</summary>
    public Inspection? InWork { get; private set; }

    public abstract FileSheet At { get; }

    /// <summary>The page shows tasks of the inspection in work.</summary>
    protected virtual bool ShowsTasks => false;

    public bool MayKeep => User.May(Right.KeepFile);

    public DateOnly Today => clock.Today();

    protected Desk Desk => desk;
    protected RivetDb Db => db;
    protected TimeProvider Clock => clock;

    protected async Task<bool> LoadAsync(CancellationToken stop)
    {
        if (await db.AircraftAsync(Id, stop) is not { } aircraft)
            return false;
        Aircraft = aircraft;
        InWork = await db.InWorkAsync(Id, stop, ShowsTasks);
        return true;
    }

    /// <summary>Goes where the work goes on, or shows the page again with what is wrong beside its field.</summary>
    protected async Task<IActionResult> AfterAsync(Written written, string onwards, Func<Task<bool>> show)
    {
        if (written.Done)
            return Redirect(onwards);
        if (!await show())
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    protected void Refuse(Refusal refusal) => ModelState.AddModelError(refusal.Field, refusal.Message);

    public string? Problem(params string[] fields) =>
        fields.Select(field => ModelState[field]?.Errors.FirstOrDefault()?.ErrorMessage).FirstOrDefault(message => message is not null);

    public static string NameOf(FileSheet sheet) => sheet switch
    {
        FileSheet.Due => "Due line",
        FileSheet.Plate => "Data plate",
        FileSheet.OpenItems => "Open items",
        _ => sheet.ToString(),
    };

    public string HrefOf(FileSheet sheet) =>
        $"/aircraft/{Id}" + (sheet == FileSheet.Due ? "" : sheet == FileSheet.Plate ? "/data-plate" : sheet == FileSheet.OpenItems
            ? "/open-items"
            : $"/{sheet.ToString().ToLowerInvariant()}");
}
