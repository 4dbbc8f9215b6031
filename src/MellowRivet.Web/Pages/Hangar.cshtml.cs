using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Look;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Pages;

/// <summary>One aircraft's line: where its inspection stands and what blocks it.</summary>
public sealed record HangarLine(Aircraft Aircraft, Inspection? Inspection, IReadOnlyList<Rivet> Seam, IReadOnlyList<Hold> Blocks, DueEntry? Next, BulletinLine? Grounding, bool MaySign = false);

/// <summary>Something that holds an aircraft up, with where to go about it.</summary>
public sealed record Hold(State State, string Text, string Href);

/// <summary>Something that calls for a person now.</summary>
public sealed record Call(State State, string Tone, string Lead, string Text, string Href);

/// <summary>The hangar: answers "what do I do now?"</summary>
public sealed class HangarModel(RivetDb db, DueBoard board, TimeProvider clock) : PageModel
{
    private const int MostCalls = 3;

    public IReadOnlyList<HangarLine> Lines { get; private set; } = [];
    public IReadOnlyList<Call> WhatNow { get; private set; } = [];

    public string InWords => $"{Lines.Count} aircraft · {Lines.Count(line => line.Inspection is { InWork: true })} in work · "
        + $"{Lines.Count(line => line.Inspection?.OpenAirworthiness.Any(found => found.Grounded) == true || line.Grounding is not null)} grounded";

    public async Task OnGetAsync(CancellationToken stop)
    {
        var inWork = await db.Inspections.AsNoTracking()
            .Include(work => work.Tasks).Include(work => work.Discrepancies).Include(work => work.Readings).Include(work => work.CompressionTests)
            .Where(work => work.State == InspectionState.InWork).ToListAsync(stop);
        // Of what is signed only the last counts, and of that only what was left open.
        var signed = await db.Inspections.AsNoTracking().Include(work => work.Discrepancies)
            .Where(work => work.State != InspectionState.InWork && work.OpenedOn == db.Inspections.Where(other => other.AircraftId == work.AircraftId && other.State != InspectionState.InWork).Max(other => other.OpenedOn))
            .ToListAsync(stop);
        var works = inWork.Concat(signed).ToLookup(work => work.AircraftId);
        // Parts are needed where compressions are under way; the rest of the fleet comes without.
        var working = inWork.Select(work => work.AircraftId).ToList();
        var fleet = (await db.Aircraft.AsNoTracking().WithParts().Where(aircraft => working.Contains(aircraft.Id)).ToListAsync(stop))
            .Concat(await db.Aircraft.AsNoTracking().Where(aircraft => !working.Contains(aircraft.Id)).ToListAsync(stop))
            .OrderBy(aircraft => aircraft.Registration, StringComparer.Ordinal);
        var due = (await board.LinesAsync(db, DateOnly.FromDateTime(clock.GetLocalNow().DateTime), stop)).ToDictionary(line => line.Aircraft.Id);
        Lines = [.. fleet.Select(aircraft => LineOf(aircraft, due.GetValueOrDefault(aircraft.Id), works[aircraft.Id]
            .OrderByDescending(work => work.InWork).ThenByDescending(work => work.OpenedOn).FirstOrDefault()))];
        WhatNow = [.. Lines.SelectMany(CallsOf).OrderByDescending(call => call.State).Take(MostCalls)];
    }

    public static string Doing(Inspection inspection)
    {
        var kind = inspection.Kind.InWords();
        var said = char.ToUpperInvariant(kind[0]) + kind[1..];
        return inspection.State switch
        {
            InspectionState.SignedAirworthy => $"{said}, signed",
            InspectionState.SignedUnairworthy => $"{said} completed, not airworthy",
            _ => said,
        };
    }

    // What calls for a hand first; of the rest, what is forecast soonest.
    private static DueEntry? NextOf(DueLine line) => line.Entries.FirstOrDefault(entry => entry.Status.State is not DueState.Unknown) ?? (line.Entries is [var first, ..] ? first : null);

    private static HangarLine LineOf(Aircraft aircraft, DueLine? due, Inspection? inspection)
    {
        var (next, research) = (due is null ? null : NextOf(due), due?.Research ?? BulletinResearch.None);
        var grounding = research.Grounding(aircraft.TimeInService.Value).FirstOrDefault();
        List<Hold> bulletins = [.. HoldsOf(aircraft, research, inspection is { InWork: true })];
        if (inspection is null)
            return new(aircraft, null, [], bulletins, next, grounding);
        var ready = inspection.InWork ? Readiness.Of(inspection, aircraft, research) : new([], [.. inspection.OpenAirworthiness]);
        IReadOnlyList<Rivet> seam = [.. Seam.Of(Station.Engine, inspection, ready.MaySign), .. Seam.Of(Station.Airframe, inspection, ready.MaySign)];
        return new(aircraft, inspection, seam, [.. bulletins, .. Holds(inspection, ready)], next, grounding, inspection.InWork && ready.MaySign);
    }

    // Bulletins hold an aircraft up whether it is in the hangar for work or not.
    private static IEnumerable<Hold> HoldsOf(Aircraft aircraft, BulletinResearch research, bool inWork)
    {
        var href = $"/aircraft/{aircraft.Id}/bulletins";
        foreach (var line in research.Lines.Where(line => line.State == BulletinState.BeforeFlight && line.Counts).Take(2))
            yield return line.Grounds(aircraft.TimeInService.Value)
                ? new(State.Grounded, $"{line.Bulletin.Title} before next flight", $"{href}?b={line.Key}")
                : new(State.Watch, $"{line.Bulletin.Title}: ferry only, {line.FerryLeft(aircraft.TimeInService.Value):0.0} h left", $"{href}?b={line.Key}");
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
        if (!inspection.InWork)
            yield break;
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
        var compressions = ready.Blockers.Count(blocker => blocker.EngineId is not null);
        if (compressions > 0)
            yield return new(State.NotYet, $"{compressions} {(compressions == 1 ? "cylinder" : "cylinders")} to read or decide", $"{walk}/compressions");
        if (ready.MaySign)
            yield return new(State.Good, "ready to be signed", $"{walk}/close");
    }

    private static IEnumerable<Call> CallsOf(HangarLine line)
    {
        if (line.Grounding is { } bulletin)
            yield return new(State.Grounded, "bad", $"{line.Aircraft.Registration} stays on the ground.", $"{bulletin.Bulletin.Title}, {bulletin.Bulletin.Subject}: before next flight.", $"/aircraft/{line.Aircraft.Id}/bulletins?b={bulletin.Key}");
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
