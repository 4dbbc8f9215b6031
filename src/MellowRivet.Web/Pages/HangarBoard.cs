using System.Collections.Concurrent;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Look;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Pages;

/// <summary>One aircraft's line: where its inspection stands and what blocks it.</summary>
public sealed record HangarLine(Aircraft Aircraft, Inspection? Inspection, IReadOnlyList<Rivet> Seam, IReadOnlyList<Hold> Blocks, DueEntry? Next, BulletinLine? Grounding, bool MaySign = false)
{
    /// <summary>What about it calls for a person now.</summary>
    public IReadOnlyList<Call> Calls { get; init; } = [];

    /// <summary>An alert before next flight that applies and nobody has decided about; null where there is none.</summary>
    public BulletinLine? Undecided { get; init; }
}

/// <summary>Something that holds an aircraft up, with where to go about it.</summary>
public sealed record Hold(State State, string Text, string Href);

/// <summary>Something that calls for a person now.</summary>
public sealed record Call(State State, string Tone, string Lead, string Text, string Href);

/// <summary>
/// The hangar's lines, kept between requests: an aircraft's is made anew when its due line has been, or the inspection that it shows
/// is another or has another revision. What is handed out is shared and never changed.
/// </summary>
public sealed class HangarBoard(DueBoard due, Shelf shelf)
{
    private readonly ConcurrentDictionary<Guid, (DueLine Due, Guid? Inspection, int Revision, HangarLine Line)> kept = [];

    /// <summary>Every aircraft's line, by registration.</summary>
    public async Task<IReadOnlyList<HangarLine>> LinesAsync(RivetDb db, DateOnly today, CancellationToken stop)
    {
        var lines = await due.LinesAsync(db, today, stop);
        // Of what is signed only the last counts. Revisions are read before what they stand for: what is loaded may be newer, never older.
        var works = (await db.Inspections.AsNoTracking()
            .Where(work => work.State == InspectionState.InWork || work.OpenedOn == db.Inspections.Where(other => other.AircraftId == work.AircraftId && other.State != InspectionState.InWork).Max(other => other.OpenedOn))
            .Select(work => new { work.Id, work.AircraftId, work.State, work.OpenedOn, work.Changes }).ToListAsync(stop))
            .GroupBy(work => work.AircraftId).ToDictionary(all => all.Key, all => all.OrderByDescending(work => work.State == InspectionState.InWork).ThenByDescending(work => work.OpenedOn).First());
        var stale = lines.Where(line => !kept.TryGetValue(line.Aircraft.Id, out var there) || there.Due != line
            || (works.TryGetValue(line.Aircraft.Id, out var work) ? there.Inspection != work.Id || there.Revision != work.Changes : there.Inspection is not null)).ToList();
        if (stale.Count > 0)
        {
            var shown = stale.Where(line => works.ContainsKey(line.Aircraft.Id)).Select(line => works[line.Aircraft.Id]).ToLookup(work => work.State == InspectionState.InWork);
            var (open, signed, working) = (shown[true].Select(work => work.Id).ToList(), shown[false].Select(work => work.Id).ToList(), shown[true].Select(work => work.AircraftId).ToList());
            // Of what is signed only what was left open counts, and parts only where work is under way.
            var inspections = (await db.Inspections.AsNoTracking().Include(work => work.Tasks).Include(work => work.Discrepancies).Include(work => work.Readings).Include(work => work.CompressionTests).Where(work => open.Contains(work.Id)).ToListAsync(stop))
                .Concat(await db.Inspections.AsNoTracking().Include(work => work.Discrepancies).Where(work => signed.Contains(work.Id)).ToListAsync(stop)).ToDictionary(work => work.AircraftId);
            var fleet = (await db.Aircraft.AsNoTracking().WithParts().Where(aircraft => working.Contains(aircraft.Id)).ToListAsync(stop)).ToDictionary(aircraft => aircraft.Id);
            var people = await db.People.AsNoTracking().ToDictionaryAsync(person => person.Id, stop);
            var ids = stale.Select(line => line.Aircraft.Id).ToList();
            var items = (await db.OpenItems.AsNoTracking().Where(item => ids.Contains(item.AircraftId)).ToListAsync(stop)).ToLookup(item => item.AircraftId);
            foreach (var line in stale)
            {
                var work = works.GetValueOrDefault(line.Aircraft.Id);
                kept[line.Aircraft.Id] = (line, work?.Id, work?.Changes ?? 0, LineOf(fleet.GetValueOrDefault(line.Aircraft.Id) ?? line.Aircraft, line, inspections.GetValueOrDefault(line.Aircraft.Id), [.. items[line.Aircraft.Id]], shelf.Weigh(line.Aircraft.Category, people)));
            }
        }
        return [.. lines.Select(line => kept[line.Aircraft.Id].Line)];
    }

    // What calls for a hand first; of the rest, what is forecast soonest.
    private static DueEntry? NextOf(DueLine line) => line.Entries.FirstOrDefault(entry => entry.Status.State is not DueState.Unknown) ?? (line.Entries is [var first, ..] ? first : null);

    private static HangarLine LineOf(Aircraft aircraft, DueLine due, Inspection? inspection, IReadOnlyList<OpenItem> items, ShopRules rules)
    {
        var (next, research) = (NextOf(due), due.Research);
        var undecided = research.Lines.FirstOrDefault(line => line.IsUndecidedAlert);
        var grounding = research.Grounding(aircraft.TimeInService.Value).FirstOrDefault();
        List<Hold> holds = [.. HoldsOf(aircraft, research, inspection is { InWork: true })];
        // In work they stand on its fix list.
        if (inspection is not { InWork: true })
            holds.AddRange(OpenOn(aircraft, inspection, items));
        if (inspection is null)
            return WithCalls(new(aircraft, null, [], holds, next, grounding) { Undecided = undecided });
        var ready = inspection.InWork ? Readiness.Of(inspection, aircraft, rules, research) : Readiness.Signed(inspection);
        IReadOnlyList<Rivet> seam = [.. Seam.Of(Station.Engine, inspection, ready.MaySign), .. Seam.Of(Station.Airframe, inspection, ready.MaySign)];
        return WithCalls(new(aircraft, inspection, seam, [.. holds, .. inspection.InWork ? Holds(inspection, ready) : []], next, grounding, inspection.InWork && ready.MaySign) { Undecided = undecided });
    }

    // What stays open on the aircraft; and that an unairworthy list came to its end.
    private static IEnumerable<Hold> OpenOn(Aircraft aircraft, Inspection? last, IReadOnlyList<OpenItem> items)
    {
        var href = $"/aircraft/{aircraft.Id}/open-items";
        var open = items.Where(item => item.IsOpen).ToList();
        var airworthiness = open.Where(item => item.Because == OpenBecause.Airworthiness).ToList();
        if (airworthiness.Count > 0)
            yield return new(airworthiness.Any(item => item.Grounded) ? State.Grounded : State.Airworthiness, $"{airworthiness.Count} airworthiness open since {airworthiness.Min(item => item.Since):yyyy-MM-dd}", href);
        else if (last is { State: InspectionState.SignedUnairworthy } && items.Where(item => item is { IsOpen: false, Because: OpenBecause.Airworthiness }).MaxBy(item => item.End!.On) is { } cleared)
            yield return new(State.Good, $"unairworthy list of {last.WorkOrder} cleared {cleared.End!.On:yyyy-MM-dd}", href);
        var deferred = open.Count(item => item.Because == OpenBecause.Deferred);
        if (deferred > 0)
            yield return new(State.Deferrable, $"{deferred} placarded", href);
        var rest = open.Count - airworthiness.Count - deferred;
        if (rest > 0)
            yield return new(State.Watch, $"{rest} more open", href);
    }

    private static HangarLine WithCalls(HangarLine line) => line with { Calls = [.. CallsOf(line)] };

    // Bulletins hold an aircraft up whether it is in the hangar for work or not.
    private static IEnumerable<Hold> HoldsOf(Aircraft aircraft, BulletinResearch research, bool inWork)
    {
        var href = $"/aircraft/{aircraft.Id}/bulletins";
        foreach (var line in research.Lines.Where(line => line.State == BulletinState.BeforeFlight && line.Counts).Take(2))
            yield return line.Grounds(aircraft.TimeInService.Value)
                ? new(State.Grounded, $"{line.Bulletin.Title} before next flight{(line.Case?.Ferry is { } flown ? $": due, not done, ferry {flown.InWords(aircraft.TimeInService.Value)}" : "")}", $"{href}?b={line.Key}")
                : new(State.Watch, $"{line.Bulletin.Title}: ferry only, {line.Case!.Ferry!.InWords(aircraft.TimeInService.Value)}", $"{href}?b={line.Key}");
        foreach (var line in research.Lines.Where(line => line.IsUndecidedAlert).Take(2))
            yield return new(State.CannotTell, $"{line.Bulletin.Title} before next flight: nobody has decided", $"{href}?b={line.Key}");
        // In work the inspection counts them among what holds its signature up.
        if (inWork)
            yield break;
        var overdue = research.Lines.Count(line => line.State == BulletinState.Overdue && line.Counts);
        if (overdue > 0)
            yield return new(State.Airworthiness, $"{overdue} {(overdue == 1 ? "bulletin" : "bulletins")} overdue", $"{href}#Overdue");
        var open = research.Lines.Count(line => line.State == BulletinState.CannotTell && line.Counts);
        if (open > 0)
            yield return new(State.CannotTell, $"{open} binding {(open == 1 ? "bulletin" : "bulletins")} can’t be told", href);
    }

    private static IEnumerable<Hold> Holds(Inspection inspection, Readiness ready)
    {
        var walk = $"/walk/{inspection.Id}";
        if (ready.Unairworthy.Count > 0)
            yield return new(ready.Unairworthy.Any(found => found.Grounded) ? State.Grounded : State.Airworthiness, $"{ready.Unairworthy.Count} airworthiness open", $"{walk}/fix-list");
        var toLookAt = ready.Blockers.Count(blocker => blocker.Task is not null);
        if (toLookAt > 0)
            yield return new(State.NotYet, $"{toLookAt} to look at", walk);
        var squawks = ready.Blockers.Count(blocker => blocker.Squawk is not null);
        if (squawks > 0)
            yield return new(State.NotYet, $"{squawks} {(squawks == 1 ? "squawk" : "squawks")} to answer", $"{walk}/arrive");
        var second = ready.Blockers.Count(blocker => blocker.By == HeldUpBy.SecondPerson);
        if (second > 0)
            yield return new(State.NotYet, $"{second} for a second person", $"{walk}/inspect");
        var papers = ready.Blockers.Count(blocker => blocker.By == HeldUpBy.Bulletin);
        if (papers > 0)
            yield return new(State.NotYet, $"{papers} {(papers == 1 ? "bulletin" : "bulletins")} to see to", $"{walk}/bulletins");
        var open = ready.Blockers.Count(blocker => blocker.By is HeldUpBy.Tag or HeldUpBy.Tool);
        if (open > 0 && toLookAt == 0)
            yield return new(State.NotYet, $"{open} panels, parts or tools open or out", $"{walk}/tags");
        var judged = ready.Judgements.Where(line => line.IsUnanswered).ToList();
        if (judged is [var worst, ..])
            yield return new(States.Of(worst.Judged.Judgement.Verdict), $"{judged.Count} {(judged.Count == 1 ? "judgement" : "judgements")} to answer", $"{walk}/close#judged");
        if (ready.Missing.Count > 0 && toLookAt == 0)
            yield return new(State.NotYet, $"{ready.Missing.Count} still to read or fill in", $"{walk}/close#asked");
        var zones = ready.Blockers.Count(blocker => blocker.By == HeldUpBy.ZoneLook);
        if (zones > 0 && toLookAt == 0)
            yield return new(State.NotYet, $"{zones} {(zones == 1 ? "zone wants" : "zones want")} the look that counts", $"{walk}/close#zones");
        if (ready.MaySign)
            yield return new(State.Good, "ready to be signed", $"{walk}/close");
    }

    private static IEnumerable<Call> CallsOf(HangarLine line)
    {
        if (line.Grounding is { } bulletin)
            yield return new(State.Grounded, "bad", $"{line.Aircraft.Registration} stays on the ground.", $"{bulletin.Bulletin.Title}, {bulletin.Bulletin.Subject}: before next flight.", $"/aircraft/{line.Aircraft.Id}/bulletins?b={bulletin.Key}");
        if (line.Undecided is { } alert)
            yield return new(State.CannotTell, "warn", $"{line.Aircraft.Registration}: decide before it flies.", $"{alert.Bulletin.Title}, {alert.Bulletin.Subject}, {alert.Bulletin.Kind.InWords()}: it applies, and nobody has adopted or declined it.", $"/aircraft/{line.Aircraft.Id}/bulletins?b={alert.Key}");
        if (line.Inspection is not { InWork: true } inspection)
            yield break;
        var walk = $"/walk/{inspection.Id}";
        if (inspection.OpenAirworthiness.FirstOrDefault(found => found.Grounded) is { } grounded)
            yield return new(State.Grounded, "bad", $"{line.Aircraft.Registration} is grounded.", $"{grounded.What}. Tell the owner today.", $"{walk}/fix-list/{grounded.Number}");
        var weak = line.Aircraft.Engines.Select(engine => CompressionSheet.Of(line.Aircraft, engine.Component, inspection))
            .SelectMany(sheet => sheet.Cylinders).FirstOrDefault(cylinder => cylinder.WantsAnotherTry);
        if (weak is not null)
            yield return new(State.Recommended, "warn", $"{line.Aircraft.Registration}, cylinder {weak.Place.Number}", $"reads {weak.Tries[^1].Value:0.#}: test it again.", $"{walk}/compressions?cylinder={weak.Place.Number}");
        if (line.MaySign)
            yield return new(State.Good, "good", $"{line.Aircraft.Registration} is ready.", "Nothing stands between it and its signature.", $"{walk}/close");
        else if (inspection.Tasks.All(task => task.Verdict == TaskVerdict.NotYet))
            yield return new(State.NotYet, "plain", $"{line.Aircraft.Registration} waits to be begun.", $"{inspection.Walk.Count()} tasks, {inspection.Kind.InWords()}.", walk);
    }
}
