using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Close;

/// <summary>The signed records of an inspection, to read and to print.</summary>
public sealed class RecordsModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage(desk, db, frames)
{
    [FromQuery(Name = "on")]
    public string? On { get; set; }

    public override Station At => Station.Close;
    protected override JobParts Shows => JobParts.Bare;
    public bool Sticker => On == "sticker";
    public IReadOnlyList<SignedRecord> Records { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        // The owner's list and the status of bulletins are handed over on a sheet; a sticker has no room for them.
        Records = [.. (await Db.RecordsOfAsync(Id, stop))
            .Where(record => !Sticker || record.Book is not (Book.DiscrepancyList or Book.BulletinStatus))];
        return Page();
    }
}
