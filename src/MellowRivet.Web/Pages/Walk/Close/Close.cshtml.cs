using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Close;

/// <summary>A zone with who did it and who looked, and the look itself in one touch.</summary>
/// <param name="On">The page it stands on.</param>
/// <param name="Zone">The zone.</param>
/// <param name="From">Where one comes back to: "zone" or "close".</param>
public sealed record ZoneLookView(WalkPage On, ZoneState Zone, string From);

/// <summary>What stands between the aircraft and its signature, and the signature.</summary>
[EnableRateLimiting("sign-in")]
public sealed class CloseModel(Desk desk, RivetDb db, KeptFrames frames, Shelf shelf, UserManager<MellowRivet.Store.Account> users,
    TimeProvider clock) : SigningPage(desk, db, frames, shelf, users)
{
    public override Station At => Station.Close;
    protected override JobParts Shows => JobParts.Whole;

    /// <summary>What was typed in the form that wasn't taken, by the key of what it is about.</summary>
    public (string? Key, string? Reason, string? Reference) Typed { get; private set; }

    public string Walk => $"/walk/{Id}";

    public Readiness Readiness { get; private set; } = null!;

    /// <summary>Where something judged is read or looked at again.</summary>
    public string HrefOf(Judged judged) => judged.Where switch
    {
        { Sheet: { } sheet } where => $"{Walk}/engine-sheet/{sheet.ToString().ToLowerInvariant()}/{where.Carrier}",
        { Hole: { } hole } where => $"{Walk}/plugs/{where.EngineId}?hole={hole}",
        { Cylinder: { } cylinder } where => $"{Walk}/compressions/{where.EngineId}?cylinder={cylinder}",
        { TaskId: { } task } => Job.Inspection.Tasks.FirstOrDefault(one => one.Id == task) is { } on
            ? $"{Walk}/{Seam.Place(on.Station)}/{on.ZoneKey}?task={task}"
            : Walk,
        _ => $"{Walk}/look",
    };

    /// <summary>Where what is asked for is filled in.</summary>
    public string HrefOf(Ask ask) => ask.Asked switch
    {
        Asked.Compressions => $"{Walk}/compressions/{ask.EngineId}",
        Asked.Plugs => $"{Walk}/plugs/{ask.EngineId}",
        Asked.Filter => $"{Walk}/engine-sheet/oil/{ask.EngineId}",
        Asked.Magnetos => $"{Walk}/engine-sheet/magneto/{ask.Carrier}",
        Asked.Carburettors => $"{Walk}/engine-sheet/carburettor/{ask.Carrier}",
        _ => $"{Walk}/engine-sheet/{ask.Asked.ToString().ToLowerInvariant()}/{ask.EngineId}",
    };

    public ZoneLookView LookOf(ZoneState zone) => new(this, zone, "close");

    public string Statement { get; private set; } = "";
    public string Source { get; private set; } = "";

    public string BooksInWords => string.Join(", ", new[] { "the airframe" }
        .Concat(Job.Aircraft.Engines.Select(engine => $"the {engine.Position} engine".Replace("  ", " ")))
        .Concat(Job.Aircraft.Propellers.Select(propeller => $"the {propeller.Position} propeller".Replace("  ", " "))));

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostAsync(Guid post, string? password, bool? airworthy, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        if (Answer.Allowed && !Readiness.MaySign && Job.Inspection.InWork)
        {
            ModelState.AddModelError("sign", "There are still things to do before this can be signed: they are listed here.");
            return Page();
        }
        if (airworthy is not { } read)
        {
            ModelState.AddModelError("sign", "Say which statement you sign.");
            return Page();
        }
        if (await SignerAsync(password) is not { } signer)
            return Page();
        var written = await Desk.SignAsync(Id, post, Weighed, signer, read, stop);
        if (written.Done)
            return Redirect($"/walk/{Id}/records");
        await ShowAsync(stop);
        Refuse(written.Refusal!);
        return Page();
    }

    /// <summary>Sets a bad judgement aside, with reason and reference.</summary>
    [Needs(Right.Sign)]
    public Task<IActionResult> OnPostAsideAsync(Guid post, string? key, string? seen, string? reason, string? reference,
        CancellationToken stop)
    {
        Typed = (key, reason, reference);
        return AnswerAsync(post, "judged",
            (job, me, signs, at) => job.Inspection.SetJudgementAside(job.Aircraft, key, seen, reason, reference, me, signs, at), stop);
    }

    /// <summary>Takes up again what was set aside.</summary>
    [Needs(Right.Sign)]
    public Task<IActionResult> OnPostUpAsync(Guid post, string? key,
        CancellationToken stop) => AnswerAsync(post, "judged", (job, me, signs, _) =>
    {
        if (signs is null)
            return new("aside", $"{me.Name} may not sign this inspection.");
        job.Inspection.TakeUpAgain(key);
        return null;
    }, stop);

    /// <summary>Says that something asked for isn't part of this inspection, or asks for it again.</summary>
    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostNotPartAsync(Guid post, string? key, string? reason, bool again, CancellationToken stop)
    {
        Typed = (key, reason, null);
        var rules = await RulesAsync(stop);
        return await AnswerAsync(post, "asked", (job, me, signs, at) =>
        {
            if (again && signs is not null)
            {
                job.Inspection.AskAgain(key);
                return null;
            }
            return Asks.Find(job.Inspection, job.Aircraft, rules(job.Aircraft), key) is { } ask
                ? job.Inspection.LeaveOut(ask, reason, me, signs, at)
                : new("not-part", "This inspection doesn’t ask for that.");
        }, stop);
    }

    /// <summary>States the checklist that the signer goes by.</summary>
    [Needs(Right.Sign)]
    public Task<IActionResult> OnPostChecklistAsync(Guid post, string? title, string? revision, CancellationToken stop)
    {
        Typed = ("checklist", title, revision);
        return AnswerAsync(post, "scope", (job, me, signs, at) => job.Inspection.GoBy(title, revision, me, signs, at), stop);
    }

    /// <summary>Whoever may sign has looked at a zone; or takes that back.</summary>
    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostZoneAsync(Guid post, string? zone, List<Guid> except, bool back, string? from,
        CancellationToken stop)
    {
        var answer = await AnswerAsync(post, "zones", (job, me, signs, at) =>
        {
            if (back && signs is not null)
            {
                job.Inspection.LookAtZoneAgain(zone);
                return null;
            }
            return job.Inspection.LookAtZone(zone, except, me, signs, at);
        }, stop);
        return answer is RedirectResult && from == "zone"
            && (await Desk.JobAsync(Id, stop, JobParts.Tasks))?.Inspection.Tasks.FirstOrDefault(task => task.ZoneKey == zone) is { } there
            ? Redirect($"{Walk}/{Seam.Place(there.Station)}/{there.ZoneKey}#zone-look") : answer;
    }

    private async Task<IActionResult> AnswerAsync(Guid post, string anchor,
        Func<Job, Person, Certificate?, DateTimeOffset, Refusal?> answer, CancellationToken stop)
    {
        var rules = await RulesAsync(stop);
        var written = await Desk.WriteAsync(Id, post,
            job => answer(job, rules(job.Aircraft).People[User.PersonId()], rules(job.Aircraft)
                .SignsBy(User.PersonId(), job.Inspection, job.Aircraft), clock.GetUtcNow()), stop);
        if (written.Done)
            return Redirect($"{Walk}/close#{anchor}");
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        Readiness = Job.Inspection.InWork
            ? Readiness.Of(Job.Inspection, Job.Aircraft, Weighed, Research)
            : Readiness.Signed(Job.Inspection);
        if (!Rules.HasStatement(Job.Inspection.Kind, Job.Aircraft.Category))
            return true;
        var (text, source) = Rules.Statement(Job.Inspection.Kind, Job.Aircraft.Category, Readiness.Unairworthy.Count == 0, "aircraft",
            clock.Today(), Job.Inspection.Checklist?.InWords);
        (Statement, Source) = (text, source.Text);
        return true;
    }
}
