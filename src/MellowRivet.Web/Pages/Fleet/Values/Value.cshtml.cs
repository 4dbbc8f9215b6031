using MellowRivet.Core.Amendments;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Trends;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Values;

/// <summary>One measured value, with what was put right about it.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Reading">The value.</param>
/// <param name="WorkOrder">The inspection it was taken at; null for one from the books.</param>
/// <param name="IsInWork">That inspection is in work.</param>
/// <param name="Amended">What was put right, latest first.</param>
/// <param name="Open">What is open on the aircraft because it is bad since it was put right.</param>
public sealed record ValueView(FileShown File, Reading Reading, string? WorkOrder, bool IsInWork,
    IReadOnlyList<Amendment> Amended, IReadOnlyList<OpenItem> Open) : FileView(File)
{
    public override FilePage At => FilePage.Trends;

    public AmendForm Form => Typed<AmendForm>() ?? new();

    /// <summary>What was measured, in words.</summary>
    public string What => Reading.Kind == Reading.CompressionKind
        ? $"Compression, cylinder {Reading.Position}"
        : $"{AircraftSeries.TitleOf(Reading.Kind)} {Reading.Position}".Trim();
}

/// <summary>One measured value: struck and replaced in the open where it was typed wrong.</summary>
public sealed class ValueModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage<ValueView>(desk, db, clock)
{
    [FromRoute(Name = "reading")]
    public Guid ReadingId { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostAsync(AmendForm form, CancellationToken stop) =>
        AfterAsync(Desk.PutReadingRightAsync(Id, ReadingId, form.Value, form.By(User, Clock), stop), $"/aircraft/{Id}/value/{ReadingId}",
            stop, form);

    protected override async Task<ValueView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop) =>
        await Db.ReadingAsync(Id, ReadingId, stop) is var (reading, order, inWork)
            ? new(file, reading, order, inWork, await Db.AmendmentsOfAsync(Id, stop, [ReadingId]),
                [.. (await Db.OpenItemsAsync(Id, stop)).Where(item => item.DiscrepancyId == ReadingId)])
            : null;
}
