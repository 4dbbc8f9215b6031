using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Hangar;

/// <summary>What holds an aircraft up and what about it calls for a person, drawn from everything the shop knows of it.</summary>
public static class HeldUp
{
    /// <param name="aircraft">The aircraft, with its parts where an inspection is in work.</param>
    /// <param name="due">What is due on it, with its bulletins.</param>
    /// <param name="inspection">The one in work, whole, else the last that was signed, with what it found; null
    /// where there never was one.</param>
    /// <param name="items">Its open items, and those that ended.</param>
    /// <param name="rules">The rules and people it is weighed by.</param>
    public static HangarLine Line(Aircraft aircraft, DueLine due, Inspection? inspection, IReadOnlyList<OpenItem> items, ShopRules rules)
    {
        var research = due.Research;
        var working = inspection is { InWork: true };
        var ready = inspection is null ? null : working
            ? Readiness.Of(inspection, aircraft, rules, research)
            : Readiness.Signed(inspection);
        var grounding = research.Grounding(aircraft.TimeInService.Value).FirstOrDefault();
        var grounded = inspection?.OpenAirworthiness.FirstOrDefault(found => found.Grounded);
        return new(aircraft.Id, aircraft.Registration, aircraft.Type, aircraft.TimeInService,
            inspection is null ? null
                : new(inspection.Id, inspection.Kind, inspection.State, inspection.WorkOrder,
                    [.. ZoneProgress.Of(Station.Engine, inspection), .. ZoneProgress.Of(Station.Airframe, inspection)],
                    grounded is not null),
            // In work the open items stand on its fix list.
            [.. Papers(aircraft, research, working), .. working ? Work(ready!) : LeftOpen(inspection, items)],
            [.. Alerts(aircraft, research, grounding), .. working ? Calls(aircraft, inspection!, ready!) : []],
            NextOf(due), grounded is not null || grounding is not null,
            working && inspection!.Discrepancies.Any(found => found.Disposition == Disposition.PartsAwaited),
            working ? Hands(inspection!) : new HashSet<Guid>());
    }

    private static HashSet<Guid> Hands(Inspection inspection) => [.. inspection.Looks.Select(look => look.TakenBy)
        .Concat(inspection.Tasks.Select(task => task.By)).Concat(inspection.Discrepancies.Select(found => (Guid?)found.FoundBy))
        .OfType<Guid>()];

    // What calls for a hand first; of the rest, what is forecast soonest.
    private static DueEntry? NextOf(DueLine line) =>
        line.Entries.FirstOrDefault(entry => entry.Status.State is not DueState.Unknown)
            ?? (line.Entries is [var first, ..] ? first : null);

    // What stays open on the aircraft; and that an unairworthy list came to its end.
    private static IEnumerable<Hold> LeftOpen(Inspection? last, IReadOnlyList<OpenItem> items)
    {
        var open = items.Where(item => item.IsOpen).ToList();
        var airworthiness = open.Where(item => item.Because == OpenBecause.Airworthiness).ToList();
        if (airworthiness.Count > 0)
            yield return new(airworthiness.Any(item => item.Grounded)
                ? State.Grounded
                : State.Airworthiness, $"{airworthiness.Count} airworthiness open since {airworthiness.Min(item => item.Since):yyyy-MM-dd}",
                GoTo.OpenItems);
        else if (last is { State: InspectionState.SignedUnairworthy }
            && items.Where(item => item is { IsOpen: false, Because: OpenBecause.Airworthiness })
            .MaxBy(item => item.End!.On) is { } cleared)
            yield return new(State.Good, $"unairworthy list of {last.WorkOrder} cleared {cleared.End!.On:yyyy-MM-dd}", GoTo.OpenItems);
        var deferred = open.Count(item => item.Because == OpenBecause.Deferred);
        if (deferred > 0)
            yield return new(State.Deferrable, $"{deferred} placarded", GoTo.OpenItems);
        var rest = open.Count - airworthiness.Count - deferred;
        if (rest > 0)
            yield return new(State.Watch, $"{rest} more open", GoTo.OpenItems);
    }

    // Bulletins hold an aircraft up whether it is in the hangar for work or not.
    private static IEnumerable<Hold> Papers(Aircraft aircraft, BulletinResearch research, bool inWork)
    {
        foreach (var line in research.Lines.Where(line => line.State == BulletinState.BeforeFlight && line.Counts).Take(2))
            yield return line.Grounds(aircraft.TimeInService.Value)
                ? new(State.Grounded,
                    $"{line.Bulletin.Title} before next flight"
                    + $"{(line.FollowUp?.Ferry is { } flown
                        ? $": due, not done, ferry {flown.InWords(aircraft.TimeInService.Value)}"
                        : "")}",
                    GoTo.Bulletins, line.Key)
                : new(State.Watch, $"{line.Bulletin.Title}: ferry only, {line.FollowUp!.Ferry!.InWords(aircraft.TimeInService.Value)}",
                    GoTo.Bulletins, line.Key);
        foreach (var line in research.Lines.Where(line => line.IsUndecidedAlert).Take(2))
            yield return new(State.CannotTell, $"{line.Bulletin.Title} before next flight: nobody has decided", GoTo.Bulletins, line.Key);
        // In work the inspection counts them among what holds its signature up.
        if (inWork)
            yield break;
        var overdue = research.Lines.Count(line => line.State == BulletinState.Overdue && line.Counts);
        if (overdue > 0)
            yield return new(State.Airworthiness, $"{overdue} {(overdue == 1 ? "bulletin" : "bulletins")} overdue", GoTo.OverdueBulletins);
        var open = research.Lines.Count(line => line.State == BulletinState.CannotTell && line.Counts);
        if (open > 0)
            yield return new(State.CannotTell, $"{open} binding {(open == 1 ? "bulletin" : "bulletins")} can’t be told", GoTo.Bulletins);
    }

    private static IEnumerable<Hold> Work(Readiness ready)
    {
        if (ready.Unairworthy.Count > 0)
            yield return new(ready.Unairworthy.Any(found => found.Grounded)
                ? State.Grounded
                : State.Airworthiness, $"{ready.Unairworthy.Count} airworthiness open", GoTo.FixList);
        var toLookAt = ready.Blockers.Count(blocker => blocker.Task is not null);
        if (toLookAt > 0)
            yield return new(State.NotYet, $"{toLookAt} to look at", GoTo.Walk);
        var squawks = ready.Blockers.Count(blocker => blocker.Squawk is not null);
        if (squawks > 0)
            yield return new(State.NotYet, $"{squawks} {(squawks == 1 ? "squawk" : "squawks")} to answer", GoTo.Squawks);
        var second = ready.Blockers.Count(blocker => blocker.By == HeldUpBy.SecondPerson);
        if (second > 0)
            yield return new(State.NotYet, $"{second} for a second person", GoTo.Second);
        var apart = ready.Blockers.Count(blocker => blocker.By == HeldUpBy.Apart);
        if (apart > 0)
            yield return new(State.CannotTell, $"{apart} answered twice, to choose", GoTo.Apart);
        var papers = ready.Blockers.Count(blocker => blocker.By == HeldUpBy.Bulletin);
        if (papers > 0)
            yield return new(State.NotYet, $"{papers} {(papers == 1 ? "bulletin" : "bulletins")} to see to", GoTo.BulletinsAtWork);
        var open = ready.Blockers.Count(blocker => blocker.By is HeldUpBy.Tag or HeldUpBy.Tool);
        if (open > 0 && toLookAt == 0)
            yield return new(State.NotYet, $"{open} panels, parts or tools open or out", GoTo.Tags);
        var judged = ready.Judgements.Where(line => line.IsUnanswered).ToList();
        if (judged is [var worst, ..])
            yield return new(States.Of(worst.Judged.Judgement.Verdict),
                $"{judged.Count} {(judged.Count == 1 ? "judgement" : "judgements")} to answer", GoTo.Judgements);
        if (ready.Missing.Count > 0 && toLookAt == 0)
            yield return new(State.NotYet, $"{ready.Missing.Count} still to read or fill in", GoTo.Asked);
        var zones = ready.Blockers.Count(blocker => blocker.By == HeldUpBy.ZoneLook);
        if (zones > 0 && toLookAt == 0)
            yield return new(State.NotYet, $"{zones} {(zones == 1 ? "zone wants" : "zones want")} the look that counts", GoTo.ZoneLooks);
        if (ready.MaySign)
            yield return new(State.Good, "ready to be signed", GoTo.Close);
    }

    private static IEnumerable<Call> Alerts(Aircraft aircraft, BulletinResearch research, BulletinLine? grounding)
    {
        if (grounding is { } bulletin)
            yield return new(State.Grounded, $"{aircraft.Registration} stays on the ground.",
                $"{bulletin.Bulletin.Title}, {bulletin.Bulletin.Subject}: before next flight.", GoTo.Bulletins, bulletin.Key);
        if (research.Lines.FirstOrDefault(line => line.IsUndecidedAlert) is { } alert)
            yield return new(State.CannotTell, $"{aircraft.Registration}: decide before it flies.",
                $"{alert.Bulletin.Title}, {alert.Bulletin.Subject}, {alert.Bulletin.Kind.InWords()}: it applies, and nobody "
                + $"has adopted or declined it.", GoTo.Bulletins, alert.Key);
    }

    private static IEnumerable<Call> Calls(Aircraft aircraft, Inspection inspection, Readiness ready)
    {
        if (inspection.OpenAirworthiness.FirstOrDefault(found => found.Grounded) is { } grounded)
            yield return new(State.Grounded, $"{aircraft.Registration} is grounded.", $"{grounded.What}. Tell the owner today.", GoTo.Found,
                $"{grounded.Number}");
        var weak = aircraft.Engines.Select(engine => CompressionSheet.Of(aircraft, engine.Component, inspection))
            .SelectMany(sheet => sheet.Cylinders).FirstOrDefault(cylinder => cylinder.WantsAnotherTry);
        if (weak is not null)
            yield return new(State.Recommended, $"{aircraft.Registration}, cylinder {weak.Place.Number}",
                $"reads {weak.Tries[^1].Value:0.#}: test it again.", GoTo.Compressions, $"{weak.Place.Number}");
        if (ready.MaySign)
            yield return new(State.Good, $"{aircraft.Registration} is ready.", "Nothing stands between it and its signature.", GoTo.Close);
        else if (inspection.Tasks.All(task => task.Verdict == TaskVerdict.NotYet))
            yield return new(State.NotYet, $"{aircraft.Registration} waits to be begun.",
                $"{inspection.Walk.Count()} tasks, {inspection.Kind.InWords()}.", GoTo.Walk);
    }
}
