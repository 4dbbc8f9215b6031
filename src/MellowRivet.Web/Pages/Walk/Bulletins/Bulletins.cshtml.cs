using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Library;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Bulletins;

/// <summary>The station of bulletins: every one looked up for this inspection, taken in as tasks, complied with.</summary>
public sealed class BulletinsModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage(desk, db, frames)
{
    private ComplyForm? typed;

    public override Station At => Station.Bulletins;
    protected override JobParts Shows => JobParts.Tasks | JobParts.Discrepancies | JobParts.Components;
    protected override bool WholeResearch => true;

    [FromQuery(Name = "b")]
    public string? Key { get; set; }

    /// <summary>Shows every one that needs nobody, too.</summary>
    [FromQuery(Name = "all")]
    public bool All { get; set; }

    public BulletinLine? Current { get; private set; }
    public IReadOnlyList<StatedFact> Stated { get; private set; } = [];
    public string Here => $"/walk/{Id}/bulletins";

    public BulletinPanel Panel =>
        new(Current!, Job.Aircraft, Stated, Job.Inspection, true, Job.Inspection.InWork
            && User.May(Right.KeepFile), MayRecord, typed, null, null, Problem, person => person is null ? "the service" : NameOf(person));

    public FactAsked Asked(MissingFact fact) =>
        new(fact.Name, fact.Waiting[0].Key, $"/aircraft/{Job.Aircraft.Id}/bulletins", Id, fact.Waiting.Count, null, null);

    /// <summary>The status sheets that were signed for this inspection.</summary>
    public int SignedStatus { get; private set; }

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>Makes a bulletin's steps tasks of this inspection.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostTakeInAsync(Guid post, string? b, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        string? zone = null;
        var line = await LineAsync(b, stop);
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
        if (!await ShowAsync(stop))
            return NotFound();
        var (line, me) = (await LineAsync(form.B, stop), Person(User.PersonId())!);
        var written = await Desk.WriteAsync(Id, form.Post, job => line is not null && job.Inspection.WorkOf(line) is { } work
            ? job.Inspection.ComplyWith(line.Bulletin, work.ZoneKey, form.Method, form.Finding, form.Terminating, form.Wording, me,
                clock.GetUtcNow())
            : new("bulletin", "It isn’t one of this inspection’s."), stop);
        typed = form;
        return await AfterAsync(written, $"{Here}?b={form.B}", stop);
    }

    private async Task<BulletinLine?> LineAsync(string? key, CancellationToken stop) =>
        (await Desk.Board.InTurnAsync(Job.Aircraft.Id, stop)).Research.Find(key);

    private async Task<IActionResult> AfterAsync(Written written, string onwards, CancellationToken stop)
    {
        if (written.Done)
            return Redirect(onwards);
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        Current = Research.Find(Key);
        Stated = await Db.StatedOnAsync([Job.Aircraft], stop);
        SignedStatus = (await Db.RecordsOfAsync(Id, stop)).Count(record => record.Book == Core.Records.Book.BulletinStatus);
        return true;
    }
}
