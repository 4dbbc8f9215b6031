using MellowRivet.Core;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Tools;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

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

    public static ToolForm Of(Tool tool) => new()
    {
        Id = tool.Id,
        Name = tool.Name,
        Number = tool.Number,
        TorqueWrench = tool.IsTorqueWrench,
        Calibrated = tool.CalibratedUntil?.ToString("yyyy-MM-dd"),
        Length = tool.LengthInches?.ToString("0.##"),
        Least = tool.LeastTorque?.ToString("0.##"),
        Most = tool.MostTorque?.ToString("0.##"),
        Unit = tool.TorqueUnit,
        Retired = tool.IsRetired,
    };

    /// <summary>Describes a tool so; or says what can't be read.</summary>
    public Refusal? Describe(Tool tool)
    {
        DateOnly? until = DateOnly.TryParseExact(Calibrated, "yyyy-MM-dd", out var day) ? day : null;
        if (until is null && !string.IsNullOrWhiteSpace(Calibrated))
            return new("calibrated", "A day as 2027-03-31.");
        if (MeasureText.Value(Length, Core.Measures.Unit.Inch) is var length && length is null && !string.IsNullOrWhiteSpace(Length))
            return new("length", "The length is a number of inches.");
        tool.Retire(Retired);
        var range = Core.Measures.Unit.Find(Unit) is { Dimension: Dimension.Torque } unit && MeasureText.Value(Least, unit) is { } least
            && MeasureText.Value(Most, unit) is { } most ? new TorqueRange(least, most, unit) : null;
        return tool.Describe(Name, Number, TorqueWrench, until, length, range);
    }
}

/// <summary>The shop's tools.</summary>
/// <param name="Tools">The tools.</param>
/// <param name="ToolId">The one that is being changed; null for a new one.</param>
/// <param name="Today">The day.</param>
public sealed record ShelfToolsView(IReadOnlyList<Tool> Tools, Guid? ToolId, DateOnly Today) : PageView
{
    /// <summary>The form: as typed where it was refused, else as kept.</summary>
    public ToolForm Form => Typed<ToolForm>()
        ?? (Tools.FirstOrDefault(tool => tool.Id == ToolId) is { } tool ? ToolForm.Of(tool) : new());
}

/// <summary>The shop's tools.</summary>
[Needs(Right.Look)]
public sealed class ToolsModel(RivetDb db, TimeProvider clock) : ShopPage<ShelfToolsView>
{
    [FromQuery(Name = "tool")]
    public Guid? ToolId { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostAsync(Guid post, ToolForm form, CancellationToken stop) =>
        AfterAsync(db.OnceAsync(post, clock, async () =>
            form.Describe((form.Id is { } id ? await db.ToolToChangeAsync(id, stop) : null)
                ?? db.Put(new Tool(Guid.CreateVersion7()))), stop), "/shelf/tools", stop, form);

    protected override async Task<ShelfToolsView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        db.Forget();
        return new(await db.ToolsAsync(stop), ToolId, clock.Today());
    }
}
