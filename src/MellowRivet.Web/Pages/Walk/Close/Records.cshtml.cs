using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Close;

/// <summary>The signed records of an inspection.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Sticker">They are laid out for stickers.</param>
/// <param name="Records">The records that are shown.</param>
public sealed record RecordsView(WalkShown Walk, bool Sticker, IReadOnlyList<SignedRecord> Records) : WalkView(Walk)
{
    public override Station At => Station.Close;
}

/// <summary>The signed records of an inspection, to read and to print.</summary>
public sealed class RecordsModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage<RecordsView>(desk, db, frames)
{
    [FromQuery(Name = "on")]
    public string? On { get; set; }

    protected override JobParts Shows => JobParts.Bare;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<RecordsView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var sticker = On == "sticker";
        // The owner's list and the status of bulletins are handed over on a sheet; a sticker has no room for them.
        return new(walk, sticker, [.. (await Db.RecordsOfAsync(Id, stop))
            .Where(record => !sticker || record.Book is not (Book.DiscrepancyList or Book.BulletinStatus))]);
    }
}
