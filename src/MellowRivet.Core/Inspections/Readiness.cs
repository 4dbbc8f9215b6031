using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Inspections;

/// <summary>What of looking and opening holds a signature up.</summary>
public enum HeldUpBy { Look, Tag, Tool, SecondPerson, KnownMark, Bulletin }

/// <summary>Something that stands between the aircraft and its signature.</summary>
/// <param name="What">In words.</param>
/// <param name="Task">The task it concerns, or null.</param>
/// <param name="Found">The discrepancy it concerns, or null.</param>
/// <param name="EngineId">The engine whose compressions it concerns, or null.</param>
/// <param name="Squawk">The owner's complaint that wants an answer, or null.</param>
/// <param name="By">What of looking and opening it is, or null.</param>
public sealed record Blocker(string What, InspectionTask? Task = null, Discrepancy? Found = null, Guid? EngineId = null, Squawk? Squawk = null, HeldUpBy? By = null);

/// <summary>What stands between an aircraft and its signature.</summary>
/// <param name="Blockers">What has to be done before anything can be signed, in walking order.</param>
/// <param name="Unairworthy">Open airworthiness items: they don't stop a signature, they choose the unairworthy statement.</param>
public sealed record Readiness(IReadOnlyList<Blocker> Blockers, IReadOnlyList<Discrepancy> Unairworthy)
{
    public bool MaySign => Blockers.Count == 0;

    /// <param name="inspection">The inspection.</param>
    /// <param name="aircraft">Its aircraft, with parts.</param>
    /// <param name="research">The shop's bulletins as they stand on it; null where there are none.</param>
    public static Readiness Of(Inspection inspection, Aircraft aircraft, BulletinResearch? research = null) => new(
        [
            .. Squawks(inspection), .. Looks(inspection), .. TasksToLookAt(inspection), .. Compressions(inspection, aircraft), .. Bulletins(inspection, research ?? BulletinResearch.None), .. KnownMarks(inspection), .. Placards(inspection),
            .. SecondPeople(inspection), .. StillOpen(inspection), .. StillOut(inspection),
        ], [.. inspection.OpenAirworthiness]);

    private static IEnumerable<Blocker> Squawks(Inspection inspection) => inspection.Squawks
        .Where(squawk => !squawk.IsAnswered)
        .Select(squawk => new Blocker($"The owner said “{squawk.Words}”: not answered yet", Squawk: squawk));

    private static IEnumerable<Blocker> Looks(Inspection inspection) => inspection.Looks
        .Select(zone => (zone, next: zone.Next(inspection.House))).Where(pair => pair.next is not null)
        .Select(pair => new Blocker($"{pair.zone.Title}: {(pair.next == LookStep.Cleaned ? "not cleaned yet" : $"{pair.next!.Value.InWords()} not done yet")}", By: HeldUpBy.Look));

    private static IEnumerable<Blocker> TasksToLookAt(Inspection inspection) => inspection.Tasks
        .Where(task => task.Verdict == TaskVerdict.NotYet && task.TiedTo is null)
        .OrderBy(task => task.Order)
        .Select(task => new Blocker($"{task.Text}: not looked at yet", Task: task));

    // A compression task can be answered "not on this one" where no test is called for; else its readings have to be whole,
    // and a rejected cylinder has to stand on the fix list.
    private static IEnumerable<Blocker> Compressions(Inspection inspection, Aircraft aircraft)
    {
        foreach (var task in inspection.Tasks.Where(task => task.IsCompression && task.TiedTo is null && task.Verdict != TaskVerdict.NotApplicable))
            foreach (var sheet in inspection.CompressionSheetsOf(task, aircraft))
            {
                foreach (var cylinder in sheet.Cylinders.Where(cylinder => cylinder.Latest is null))
                    yield return new($"Cylinder {cylinder.Place.Number}: no compression reading", EngineId: sheet.Engine.Id);
                foreach (var cylinder in sheet.Cylinders.Where(cylinder => cylinder.WantsAnotherTry))
                    yield return new($"Cylinder {cylinder.Place.Number}: {cylinder.Latest!.Judgement.Rule.ToLowerInvariant()}; test again", EngineId: sheet.Engine.Id);
                if (sheet.Cylinders.FirstOrDefault(cylinder => cylinder.Latest is { Judgement.Verdict: Verdict.Reject }) is { } rejected
                    && inspection.Discrepancies.All(found => found.TaskId != task.Id))
                    yield return new($"Cylinder {rejected.Place.Number} is rejected and not on the fix list", EngineId: sheet.Engine.Id);
            }
    }

    // Binding ones, and those the shop adopted: what is due, what is due at this inspection, and what nobody can tell yet. Unknown
    // never counts as not applicable. One that was taken in is held up by its own steps instead.
    private static IEnumerable<Blocker> Bulletins(Inspection inspection, BulletinResearch research) =>
    [
        .. research.Lines.Where(line => line.HoldsUp && inspection.WorkOf(line) is null)
            .Select(line => new Blocker($"{line.Bulletin.Title}, {line.Bulletin.Subject}: {line.State.InWords()}, {line.Force}; take it in, or note what was done", By: HeldUpBy.Bulletin)),
        .. inspection.Bulletins.Where(work => work.Complied is null && inspection.Tasks.Where(task => task.ZoneKey == work.ZoneKey) is var steps && steps.All(task => task.Verdict != TaskVerdict.NotYet)
                && steps.All(task => task.Verdict != TaskVerdict.NotApplicable) && !inspection.Discrepancies.Any(found => found.ZoneKey == work.ZoneKey && found.IsOpen))
            .Select(work => new Blocker($"{work.Title}: its steps are done; say how it was complied with", By: HeldUpBy.Bulletin)),
    ];

    private static IEnumerable<Blocker> Placards(Inspection inspection) => inspection.Discrepancies
        .Where(found => found.IsOpen && found.Class == DiscrepancyClass.Deferrable)
        .OrderBy(found => found.Number)
        .Select(found => new Blocker($"{found.What}: deferrable, so walk the deferral test, deactivate and placard it, or fix it", Found: found));

    private static IEnumerable<Blocker> KnownMarks(Inspection inspection) => inspection.CarriedMarks
        .Where(mark => !mark.IsAnswered)
        .Select(mark => new Blocker($"Known mark {mark.Number}, {mark.What}: accept it with your initials, or test it again", By: HeldUpBy.KnownMark));

    private static IEnumerable<Blocker> SecondPeople(Inspection inspection) =>
    [
        .. inspection.Tasks.Where(task => SecondPerson.Wanted(inspection.House, inspection, task)).OrderBy(task => task.Order)
            .Select(task => new Blocker($"{task.Text}: a second person has to inspect it", By: HeldUpBy.SecondPerson)),
        .. inspection.Discrepancies.Where(found => SecondPerson.Wanted(inspection.House, found)).OrderBy(found => found.Number)
            .Select(found => new Blocker($"{found.What}: a second person has to inspect what was done", By: HeldUpBy.SecondPerson)),
    ];

    private static IEnumerable<Blocker> StillOpen(Inspection inspection) => inspection.Tags.Where(tag => tag.Closed is null)
        .Select(tag => new Blocker($"Tag {tag.Number}, {tag.What}: {(tag.Kind == TagKind.Panel ? "still open" : "still off")}", By: HeldUpBy.Tag));

    private static IEnumerable<Blocker> StillOut(Inspection inspection) => inspection.ToolsOut.Where(tool => tool.In is null)
        .Select(tool => new Blocker($"{tool.Title} is still out", By: HeldUpBy.Tool));
}
