using MellowRivet.Core;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Tools;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Shelves;

/// <summary>A tool as it is sent.</summary>
public sealed class ToolForm
{
    public Guid? Id { get; set; }
    public string? Name { get; set; }
    public string? Number { get; set; }
    public bool TorqueWrench { get; set; }
    public string? Calibrated { get; set; }
    public string? Length { get; set; }
    public string? Least { get; set; }
    public string? Most { get; set; }
    public string? Unit { get; set; }
    public bool Retired { get; set; }
}

/// <summary>The shop's tools.</summary>
[Needs(Right.Look)]
public sealed class ToolsModel(RivetDb db, TimeProvider clock) : PageModel
{
    [FromQuery(Name = "tool")]
    public Guid? ToolId { get; set; }

    public IReadOnlyList<Tool> Tools { get; private set; } = [];
    public ToolForm Form { get; private set; } = new();
    public DateOnly Today => clock.Today();

    public string? Problem(string field) => ModelState[field]?.Errors.FirstOrDefault()?.ErrorMessage;

    public async Task OnGetAsync(CancellationToken stop)
    {
        await LoadAsync(stop);
        if (Tools.FirstOrDefault(tool => tool.Id == ToolId) is { } tool)
            Form = new() { Id = tool.Id, Name = tool.Name, Number = tool.Number, TorqueWrench = tool.IsTorqueWrench,
                Calibrated = tool.CalibratedUntil?.ToString("yyyy-MM-dd"), Length = tool.LengthInches?.ToString("0.##"),
                Least = tool.LeastTorque?.ToString("0.##"), Most = tool.MostTorque?.ToString("0.##"), Unit = tool.TorqueUnit,
                Retired = tool.IsRetired };
    }

    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostAsync(Guid post, ToolForm form, CancellationToken stop)
    {
        var written = await db.OnceAsync(post, clock, async () =>
        {
            DateOnly? until = DateOnly.TryParseExact(form.Calibrated, "yyyy-MM-dd", out var day) ? day : null;
            if (until is null && !string.IsNullOrWhiteSpace(form.Calibrated))
                return new("calibrated", "A day as 2027-03-31.");
            if (TypedNumber.Parse(form.Length) is var length && length is null && !string.IsNullOrWhiteSpace(form.Length))
                return new("length", "The length is a number of inches.");
            var tool = (form.Id is { } id ? await db.ToolToChangeAsync(id, stop) : null) ?? db.Put(new Tool(Guid.CreateVersion7()));
            tool.Retire(form.Retired);
            var range = TypedNumber.Parse(form.Least) is { } least && TypedNumber.Parse(form.Most) is { } most
                && Core.Measures.Unit.Find(form.Unit) is { } unit ? new TorqueRange(least, most, unit) : null;
            return tool.Describe(form.Name, form.Number, form.TorqueWrench, until, length, range);
        }, stop);
        if (written.Done)
            return Redirect("/shelf/tools");
        db.Forget();
        await LoadAsync(stop);
        Form = form;
        ModelState.AddModelError(written.Refusal!.Field, written.Refusal.Message);
        return Page();
    }

    private async Task LoadAsync(CancellationToken stop) =>
        Tools = await db.ToolsAsync(stop);
}
