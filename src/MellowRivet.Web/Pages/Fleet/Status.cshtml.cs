using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>A major repair or alteration as it is sent.</summary>
public sealed class MajorForm
{
    public Guid Post { get; set; }
    public MajorKind Kind { get; set; } = MajorKind.Repair;
    public DateOnly? On { get; set; }
    public string? What { get; set; }
    public string? Papers { get; set; }
}

/// <summary>The status of an aircraft on one page.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Status">The status.</param>
public sealed record StatusView(FileShown File, AircraftStatus Status) : FileView(File)
{
    public override FilePage At => FilePage.Status;

    public MajorForm Form => Typed<MajorForm>() ?? new();
}

/// <summary>The status records of an aircraft (14 CFR 91.417(a)(2), from memory): to read, to print and to hand over with it.</summary>
public sealed class StatusModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage<StatusView>(desk, db, clock)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Puts a major repair or alteration on file.</summary>
    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostMajorAsync(MajorForm form, CancellationToken stop) =>
        AfterAsync(Desk.WriteFileAsync(Id, form.Post, aircraft =>
        {
            var (work, refusal) = MajorWork.Read(form.Post, form.Kind, form.On, form.What, form.Papers, Today);
            if (work is not null)
                aircraft.Keep(work);
            return Task.FromResult(refusal);
        }, stop), HrefOf(FilePage.Status), stop, form);

    /// <summary>Takes one off file that was put there by mistake.</summary>
    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostDropAsync(Guid post, Guid work, CancellationToken stop) =>
        AfterAsync(Desk.WriteFileAsync(Id, post, aircraft =>
        {
            aircraft.Drop(work);
            return Task.FromResult<Core.Refusal?>(null);
        }, stop), HrefOf(FilePage.Status), stop);

    protected override async Task<StatusView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop) =>
        new(file, AircraftStatus.Of(await Desk.Board.LineAsync(Id, stop), await Desk.Board.ResearchAsync(Id, stop),
            await Db.OpenItemsAsync(Id, stop)));
}
