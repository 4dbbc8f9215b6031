using MellowRivet.Core.Amendments;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Store.Proof;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Close;

/// <summary>A correction of a record as it is sent.</summary>
public sealed class CorrectForm
{
    public Guid Post { get; set; }
    public long Record { get; set; }
    public int? Line { get; set; }
    public string? Reads { get; set; }
    public string? Why { get; set; }
    public string? Password { get; set; }
}

/// <summary>The signed records of an inspection.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Answer">By which certificate whoever looks may correct one, or why they may not.</param>
/// <param name="Stickers">The size of the shop's stickers: "140x90".</param>
/// <param name="Records">The records that are shown.</param>
/// <param name="Amended">What was put right in the aircraft's file since, latest first.</param>
/// <param name="Head">How far the shop's chain is.</param>
public sealed record RecordsView(WalkShown Walk, SigningAnswer Answer, string Stickers, IReadOnlyList<SignedRecord> Records,
    IReadOnlyList<Amendment> Amended, ChainHead Head)
    : SigningView(Walk, Answer)
{
    public override Station At => Station.Close;

    /// <summary>What a record rests on and was put right since it was signed.</summary>
    public IReadOnlyList<Amendment> AmendedSince(SignedRecord record) =>
        [.. Amended.Where(amendment => amendment.At >= record.SignedAt && amendment.Records.Contains((int)(amendment.At < record.TakenInAt
            ? record.Number : record.Id)))];

    /// <summary>The records that correct one.</summary>
    public IEnumerable<SignedRecord> CorrectionsOf(SignedRecord record) => Records.Where(other =>
        other.Corrects == record.Number && other.ChainThere == record.ChainThere);

    /// <summary>What was typed to correct a record, where it wasn't taken; null for another record.</summary>
    public CorrectForm? TypedFor(SignedRecord record) => Typed<CorrectForm>() is { } form && form.Record == record.Number ? form : null;
}

/// <summary>The signed records of an inspection, to read, to print and to correct by new ones.</summary>
[EnableRateLimiting("signing")]
public sealed class RecordsModel(Desk desk, RivetDb db, KeptFrames frames, Shelf shelf, PasswordAgain again)
    : SigningPage<RecordsView>(desk, db, frames, shelf, again)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Corrects a record by a new one that names it.</summary>
    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostCorrectAsync(CorrectForm form, CancellationToken stop)
    {
        if (await LoadAsync(stop) is not { } walk)
            return NotFound();
        var (signer, refusal) = await SignerAsync(walk, form.Password, stop);
        return signer is null
            ? await AgainAsync(refusal!, stop, form)
            : await AfterAsync(Desk.CorrectAsync(form.Record, Id, form.Post, RulesOf(walk),
                record => RecordCorrection.Read(record, form.Line, form.Reads, form.Why), signer, stop), $"/walk/{Id}/records", stop, form);
    }

    protected override async Task<RecordsView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var house = await Db.HouseRulesAsync(stop);
        return new(walk, AnswerOf(walk), $"{house.StickerWidth:0.#}x{house.StickerHeight:0.#}", await Db.RecordsOfAsync(Id, stop),
            await Db.AmendmentsOfAsync(walk.Job.Aircraft.Id, stop), await Db.HeadAsync(stop));
    }
}
