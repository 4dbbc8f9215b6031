using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Store.Passports;
using MellowRivet.Store.Proof;
using MellowRivet.Web.Access;
using MellowRivet.Web.Handover;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Passports;

/// <summary>An aircraft's passport: what goes along, what came along, and how it proves itself.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Goes">What goes along.</param>
/// <param name="Came">Passports it came with, each with its manifest, latest first.</param>
/// <param name="Head">How far the shop's chain is.</param>
/// <param name="Key">The shop's key; null where its file is gone.</param>
/// <param name="Errand">The one that is being made or was; null for none.</param>
/// <param name="Names">Who took which in.</param>
public sealed record PassportView(FileShown File, PassportContents Goes, IReadOnlyList<PassportCame> Came,
    ChainHead Head, string? Key, PassportErrand? Errand, IReadOnlyDictionary<Guid, string> Names) : FileView(File)
{
    public override FilePage At => FilePage.Passport;
}

/// <summary>Shows what goes along with an aircraft, makes its passport, and says what it came with.</summary>
public sealed class PassportModel(Desk desk, RivetDb db, TimeProvider clock, PassportErrands errands, Acting acting)
    : FleetPage<PassportView>(desk, db, clock)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Has it made beside the requests.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        if (await LoadAsync(stop) is not { } file)
            return NotFound();
        if (file.Aircraft.OnlySurveyed)
            return await AgainAsync(new("passport", "It was only surveyed here and has no file: there is nothing to go along."), stop);
        errands.Make(Id, acting.Now!.Value.Who);
        return Redirect(HrefOf(FilePage.Passport));
    }

    /// <summary>The passport itself, once it is made.</summary>
    [Needs(Right.KeepFile)]
    public IActionResult OnGetFile() =>
        errands.Of(Id) is { State: ErrandState.Done, Manifest: { } manifest } errand && System.IO.File.Exists(errand.File)
            ? new PhysicalFileResult(errand.File, "application/zip")
                { FileDownloadName = PassportFiles.NameOf(manifest, Clock), EnableRangeProcessing = true }
            : NotFound();

    protected override async Task<PassportView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop)
    {
        using var key = await Db.KeyAsync(Clock.GetUtcNow(), stop);
        return new(file, await Db.ContentsAsync(Id, stop), await Db.CameWithAsync(Id, stop), await Db.HeadAsync(stop), key?.Fingerprint,
            file.MayKeep ? errands.Of(Id) : null, await Db.NamesAsync(stop));
    }
}
