using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Library;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Bulletins;

/// <summary>The bulletins looked up for this inspection.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Key">The bulletin that is asked for.</param>
/// <param name="All">Shows every one that needs nobody, too.</param>
/// <param name="Stated">Facts that were read off the aircraft.</param>
/// <param name="SignedStatus">How many status sheets were signed for this inspection.</param>
/// <param name="MayKeep">Whoever looks may decide and note.</param>
public sealed record BulletinsView(WalkShown Walk, string? Key, bool All, IReadOnlyList<StatedFact> Stated, int SignedStatus, bool MayKeep)
    : WalkView(Walk)
{
    public override Station At => Station.Bulletins;

    public BulletinLine? Current => Research.Find(Key);
    public string Here => $"/walk/{Id}/bulletins";

    public BulletinPanel Panel =>
        new(Current!, Job.Aircraft, Stated, Job.Inspection, true, Job.Inspection.InWork && MayKeep, MayRecord, Typed<ComplyForm>(), null,
            null, name => Problem(name), person => person is null ? "the service" : NameOf(person));

    public FactAsked Asked(MissingFact fact) =>
        new(fact.Name, fact.Waiting[0].Key, $"/aircraft/{Job.Aircraft.Id}/bulletins", Id, fact.Waiting.Count, null, null);
}

/// <summary>The station of bulletins: every one looked up for this inspection, taken in as tasks, complied with.</summary>
public sealed class BulletinsModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock) : WalkPage<BulletinsView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    [FromQuery(Name = "b")]
    public string? Key { get; set; }

    [FromQuery(Name = "all")]
    public bool All { get; set; }

    protected override bool WholeResearch => true;

    private string Here => $"/walk/{Id}/bulletins";

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Makes a bulletin's steps tasks of this inspection.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostTakeInAsync(Guid post, string? b, CancellationToken stop)
    {
        if (await LineAsync(b, stop) is not var (_, line))
            return NotFound();
        string? zone = null;
        var written = await Desk.WriteAsync(Id, post, job =>
        {
            if (line is null)
                return new Refusal("bulletin", "That bulletin isn’t on this aircraft’s list any more.");
            var refusal = job.Inspection.TakeInBulletin(line);
            zone = job.Inspection.WorkOf(line)?.ZoneKey;
            return refusal;
        }, stop);
        return await AfterAsync(written, zone is null ? $"{Here}?b={b}" : $"{Here}/{zone}", stop);
    }

    /// <summary>Says how a bulletin was complied with here. It counts once the inspection is signed.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostComplyAsync(ComplyForm form, CancellationToken stop)
    {
        if (await LineAsync(form.B, stop) is not var (walk, line))
            return NotFound();
        var me = walk.Weighed.People[Me];
        return await WriteAsync(form.Post, $"{Here}?b={form.B}", job => line is not null && job.Inspection.WorkOf(line) is { } work
            ? job.Inspection.ComplyWith(line.Bulletin, work.ZoneKey, form.Method, form.Finding, form.Terminating, form.Wording, me,
                walk.Weighed.Today, clock.GetUtcNow())
            : new("bulletin", "It isn’t one of this inspection’s."), stop, typed: form);
    }

    // The walk, and a bulletin as it stands on its aircraft now; null where there is no such walk.
    private async Task<(WalkShown Walk, BulletinLine? Line)?> LineAsync(string? key, CancellationToken stop) =>
        await LoadAsync(stop) is { } walk
            ? (walk, (await Desk.Board.InTurnAsync(walk.Job.Aircraft.Id, stop)).Research.Find(key))
            : null;

    protected override async Task<BulletinsView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        new(walk, Key, All, await Db.StatedOnAsync([walk.Job.Aircraft], stop),
            (await Db.RecordsOfAsync(Id, stop)).Count(record => record.Book == Core.Records.Book.BulletinStatus), User.May(Right.KeepFile));
}
