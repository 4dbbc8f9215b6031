using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Signing;

/// <summary>What holds a signature up, where that is neither a task, a discrepancy nor a squawk.</summary>
public enum HeldUpBy
{
    Look = 1, Tag, Tool, SecondPerson, KnownMark, Bulletin, Judgement, Ask, Scope, ZoneLook, PartGone, NoStatement, Apart,
}

/// <summary>Something that stands between the aircraft and its signature.</summary>
/// <param name="What">In words.</param>
/// <param name="Task">The task it concerns, or null.</param>
/// <param name="Found">The discrepancy it concerns, or null.</param>
/// <param name="Squawk">The owner's complaint that wants an answer, or null.</param>
/// <param name="By">What else it is, or null.</param>
public sealed record Blocker(string What, InspectionTask? Task = null, Discrepancy? Found = null, Squawk? Squawk = null,
    HeldUpBy? By = null);

/// <summary>What stands between an aircraft and its signature.</summary>
/// <param name="Blockers">What has to be done before anything can be signed, in walking order.</param>
/// <param name="Unairworthy">Open airworthiness items: they don't stop a signature, they choose the unairworthy statement.</param>
public sealed record Readiness(IReadOnlyList<Blocker> Blockers, IReadOnlyList<Discrepancy> Unairworthy)
{
    /// <summary>Every judgement that wants an answer or got one, worst and unanswered first.</summary>
    public IReadOnlyList<JudgedLine> Judgements { get; init; } = [];

    /// <summary>What the inspection asks for at the engine station and doesn't have.</summary>
    public IReadOnlyList<Ask> Missing { get; init; } = [];

    /// <summary>What of its scope the worksheets cover.</summary>
    public Scope Scope { get; init; } = new(null, []);

    /// <summary>Zone by zone who did it and who looked.</summary>
    public IReadOnlyList<ZoneState> Zones { get; init; } = [];

    public bool MaySign => Blockers.Count == 0;

    /// <summary>Of an inspection that is signed already: only what it left open.</summary>
    public static Readiness Signed(Inspection inspection) => new([], [.. inspection.OpenAirworthiness]);

    /// <param name="inspection">The inspection.</param>
    /// <param name="aircraft">Its aircraft, with parts.</param>
    /// <param name="rules">The rules and people it is weighed by.</param>
    /// <param name="research">The shop's bulletins as they stand on it; null where there are none.</param>
    public static Readiness Of(Inspection inspection, Aircraft aircraft, ShopRules rules, BulletinResearch? research = null)
    {
        var judgements = JudgedLines.Of(inspection, aircraft);
        var missing = Asks.Of(inspection, aircraft, rules).Where(ask => !ask.IsMet).ToList();
        var scope = Scope.Of(rules.Pack, inspection, aircraft);
        var zones = WhoseLook.Of(inspection, aircraft, rules);
        return new(
            [
                .. judgements.Where(line => line.IsUnanswered)
                    .Select(line => new Blocker($"{line.Judged.InWords}: {line.Judged.Judgement.Verdict.InWords()}. {line.Answer}",
                        By: HeldUpBy.Judgement)),
                .. missing.Select(ask =>
                    new Blocker($"{char.ToUpperInvariant(ask.What[0])}{ask.What[1..]}: {ask.Missing} ({ask.Source.Text})",
                        By: HeldUpBy.Ask)),
                .. inspection.StillApart.Select(two => new Blocker(
                    $"{two.What}: two answers, said apart (“{two.Stands}” and “{two.Other}”). Choose which of them stands",
                    By: HeldUpBy.Apart)),
                .. Statements(inspection, aircraft, rules.Pack), .. JobToDo(inspection), .. PartsGone(inspection, aircraft),
                .. Checklists(inspection, scope), .. Unworded(inspection),
                .. Squawks(inspection), .. CarriedIn(inspection), .. Looks(inspection), .. TasksToLookAt(inspection),
                .. Bulletins(inspection, inspection.JobOf is null ? research ?? BulletinResearch.None : BulletinResearch.None),
                .. KnownMarks(inspection),
                .. Deferrals(inspection, rules.Classes),
                .. zones.Where(zone => zone.Waiting.Count > 0)
                    .Select(zone => new Blocker(
                        $"{zone.Title}: not looked at yet by somebody who may sign ({zone.Waiting.Count} "
                        + $"{(zone.Waiting.Count == 1 ? "item" : "items")})", By: HeldUpBy.ZoneLook)),
                .. SecondPeople(inspection), .. StillOpen(inspection), .. StillOut(inspection),
            ], [.. inspection.OpenAirworthiness]) { Judgements = judgements, Missing = missing, Scope = scope, Zones = zones };
    }

    private static IEnumerable<Blocker> Statements(Inspection inspection, Aircraft aircraft, RulePack rules) =>
        rules.HasStatement(inspection.Kind, aircraft.Category) ? []
        : [new(
            $"{rules.Title} has no words to sign {inspection.Kind.InWordsToChoose()} with, on {aircraft.Category.InWords()}: put the "
            + $"category on the data plate right, or the rules on the Shelf", By: HeldUpBy.NoStatement)];

    // A job is signed for what was done: its own line is, or something else was in its place.
    private static IEnumerable<Blocker> JobToDo(Inspection inspection) => inspection.JobLine is not { } line ? []
        : line.IsOpen && !line.WaitsForALook ? [new($"{line.What}: not done yet; say what was done", Found: line)]
        : line.Disposition == Disposition.Withdrawn && inspection.Discrepancies.All(found => found.Correction is null)
        && inspection.OilFills.Count == 0
        ? [new($"{line.What}: withdrawn, and nothing else was done: there is nothing to enter", Found: line)]
        : inspection.Discrepancies.Where(found => found.Correction is { Reference.Length: 0, Kind: not CorrectionKind.Deferred })
            .Select(found => new Blocker($"{found.What}: by which data was it done? The entry names it", Found: found));

    private static IEnumerable<Blocker> Unworded(Inspection inspection) => inspection.Discrepancies
        .Where(found => found.IsUnworded && found.Disposition != Disposition.Withdrawn).OrderBy(found => found.Number)
        .Select(found => new Blocker(
            $"{inspection.WorkOrder}-{found.Number:00}, {inspection.ZoneTitle(found.ZoneKey)}: to be put in words; a picture, a sound or a "
            + "video alone is no entry", Found: found));

    private static IEnumerable<Blocker> PartsGone(Inspection inspection, Aircraft aircraft) => inspection.PartsGone(aircraft)
        .Select(part => aircraft.Installations.Where(stay => stay.ComponentId == part).MaxBy(stay => stay.InstalledAt.Value))
        .OfType<Installation>()
        .Select(stay => new Blocker(
            $"{Part(stay)} came off during this inspection, and nothing is in its place: fit it or another one, "
            + "or say task by task that it is not on this aircraft", By: HeldUpBy.PartGone));

    // "Magneto left s/n 4471".
    private static string Part(Installation stay)
    {
        var (title, position) = (stay.Component.Title, stay.Position.Length > 0 ? $" {stay.Position}" : "");
        return $"{char.ToUpperInvariant(title[0])}{title[1..]}{position} s/n {stay.Component.SerialNumber}";
    }

    private static IEnumerable<Blocker> Checklists(Inspection inspection, Scope scope) =>
        !scope.WantsChecklist || inspection.Checklist is not null ? []
        : [new(scope.Rule!.ByMaker
            ? $"It goes by {scope.Rule.Title}: say which, by title and revision"
            : $"These worksheets leave out {scope.Holes.Count} {(scope.Holes.Count == 1 ? "paragraph" : "paragraphs")} of "
            + $"{scope.Rule.Title}: {string.Join(", ", scope.Holes.Take(3).Select(hole => hole.Title.ToLowerInvariant()))}"
            + $"{(scope.Holes.Count > 3 ? " and more" : "")}. Take in a list that has them, or state the checklist used instead",
            By: HeldUpBy.Scope)];

    private static IEnumerable<Blocker> Squawks(Inspection inspection) => inspection.Squawks
        .Where(squawk => !squawk.IsAnswered)
        .Select(squawk => new Blocker($"The owner said “{squawk.Words}”: not answered yet", Squawk: squawk));

    private static IEnumerable<Blocker> CarriedIn(Inspection inspection) => inspection.Discrepancies
        .Where(found => found.WaitsForALook).OrderBy(found => found.Number)
        .Select(found => new Blocker($"{found.What}: left open as {found.CarriedNumber}, and nobody has looked at it since", Found: found));

    private static IEnumerable<Blocker> Looks(Inspection inspection) => inspection.Looks
        .Select(zone => (zone, next: zone.Next(inspection.House))).Where(pair => pair.next is not null)
        .Select(pair => new Blocker(
            $"{pair.zone.Title}: {(pair.next == LookStep.Cleaned ? "not cleaned yet" : $"{pair.next!.Value.InWords()} not done yet")}",
            By: HeldUpBy.Look));

    private static IEnumerable<Blocker> TasksToLookAt(Inspection inspection) => inspection.Tasks
        .Where(task => task.Verdict == TaskVerdict.NotYet && task.TiedTo is null)
        .OrderBy(task => task.Order)
        .Select(task => new Blocker($"{task.Text}: not looked at yet", Task: task));

    // Binding ones, and those the shop adopted: what is due, what is due at this inspection, and what nobody can tell yet. Unknown
    // never counts as not applicable. One that was taken in is held up by its own steps instead.
    private static IEnumerable<Blocker> Bulletins(Inspection inspection, BulletinResearch research) =>
    [
        .. research.Lines.Where(line => line.HoldsUp && inspection.WorkOf(line) is null)
            .Select(line => new Blocker(
                $"{line.Bulletin.Title}, {line.Bulletin.Subject}: {line.State.InWords()}, {line.Force}; "
                + (line.State == BulletinState.CannotTell
                    ? char.ToLowerInvariant(line.Why[0]) + line.Why[1..]
                    : "take it in, or note what was done"), By: HeldUpBy.Bulletin)),
        .. inspection.Bulletins.Where(work => work.Complied is null
            && inspection.Tasks.Where(task => task.ZoneKey == work.ZoneKey) is var steps
            && steps.All(task => task.Verdict != TaskVerdict.NotYet)
                && steps.All(task => task.Verdict != TaskVerdict.NotApplicable)
                && !inspection.Discrepancies.Any(found => found.ZoneKey == work.ZoneKey && found.IsOpen))
            .Select(work => new Blocker($"{work.Title}: its steps are done; say how it was complied with", By: HeldUpBy.Bulletin)),
    ];

    // What was placarded by words that are never deferred is no deferral, whenever it was written.
    private static IEnumerable<Blocker> Deferrals(Inspection inspection, ClassRules classes) => inspection.Discrepancies
        .Where(found => (found.IsOpen && found.Class == DiscrepancyClass.Deferrable && !found.WaitsForALook)
            || (found.IsDeferred && classes.MayDefer(found.What) is not null))
        .OrderBy(found => found.Number)
        .Select(found => new Blocker(classes.MayDefer(found.What) is { } never
            ? $"{found.What}: {char.ToLowerInvariant(never.Message[0])}{never.Message[1..]}"
            : $"{found.What}: deferrable, so walk the deferral test, deactivate and placard it, or fix it", Found: found));

    private static IEnumerable<Blocker> KnownMarks(Inspection inspection) => inspection.KnownMarks
        .Where(mark => !mark.IsAnswered)
        .Select(mark => new Blocker($"Known mark {mark.Number}, {mark.What}: accept it with your initials, or test it again",
            By: HeldUpBy.KnownMark));

    private static IEnumerable<Blocker> SecondPeople(Inspection inspection) =>
    [
        .. inspection.Tasks.Where(task => SecondPerson.Wanted(inspection.House, inspection, task)).OrderBy(task => task.Order)
            .Select(task => new Blocker($"{task.Text}: a second person has to inspect it", By: HeldUpBy.SecondPerson)),
        .. inspection.Discrepancies.Where(found => SecondPerson.Wanted(inspection.House, found)).OrderBy(found => found.Number)
            .Select(found => new Blocker($"{found.What}: a second person has to inspect what was done", By: HeldUpBy.SecondPerson)),
    ];

    private static IEnumerable<Blocker> StillOpen(Inspection inspection) => inspection.Tags.Where(tag => tag.Closed is null)
        .Select(tag => new Blocker($"Tag {tag.Number}, {tag.What}: {(tag.Kind == TagKind.Panel ? "still open" : "still off")}",
            By: HeldUpBy.Tag));

    private static IEnumerable<Blocker> StillOut(Inspection inspection) => inspection.ToolsOut.Where(tool => tool.In is null)
        .Select(tool => new Blocker($"{tool.Title} is still out", By: HeldUpBy.Tool));
}
