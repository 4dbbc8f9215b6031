using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Inspections;

/// <summary>Something that stands between the aircraft and its signature.</summary>
/// <param name="What">In words.</param>
/// <param name="Task">The task it concerns, or null.</param>
/// <param name="Found">The discrepancy it concerns, or null.</param>
/// <param name="EngineId">The engine whose compressions it concerns, or null.</param>
/// <param name="Squawk">The owner's complaint that wants an answer, or null.</param>
public sealed record Blocker(string What, InspectionTask? Task = null, Discrepancy? Found = null, Guid? EngineId = null, Squawk? Squawk = null);

/// <summary>What stands between an aircraft and its signature.</summary>
/// <param name="Blockers">What has to be done before anything can be signed, in walking order.</param>
/// <param name="Unairworthy">Open airworthiness items: they don't stop a signature, they choose the unairworthy statement.</param>
public sealed record Readiness(IReadOnlyList<Blocker> Blockers, IReadOnlyList<Discrepancy> Unairworthy)
{
    public bool MaySign => Blockers.Count == 0;

    public static Readiness Of(Inspection inspection, Aircraft aircraft) =>
        new([.. Squawks(inspection), .. TasksToLookAt(inspection), .. Compressions(inspection, aircraft), .. Placards(inspection)], [.. inspection.OpenAirworthiness]);

    private static IEnumerable<Blocker> Squawks(Inspection inspection) => inspection.Squawks
        .Where(squawk => !squawk.IsAnswered)
        .Select(squawk => new Blocker($"The owner said “{squawk.Words}”: not answered yet", Squawk: squawk));

    private static IEnumerable<Blocker> TasksToLookAt(Inspection inspection) => inspection.Tasks
        .Where(task => task.Verdict == TaskVerdict.NotYet)
        .OrderBy(task => task.Order)
        .Select(task => new Blocker($"{task.Text}: not looked at yet", Task: task));

    // A compression task can be answered "not on this one" where no test is called for; else its readings have to be whole,
    // and a rejected cylinder has to stand on the fix list.
    private static IEnumerable<Blocker> Compressions(Inspection inspection, Aircraft aircraft)
    {
        if (inspection.Tasks.FirstOrDefault(task => task.IsCompression) is not { } task || task.Verdict == TaskVerdict.NotApplicable)
            yield break;
        foreach (var sheet in aircraft.Engines.Select(engine => CompressionSheet.Of(aircraft, engine.Component, inspection)))
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

    private static IEnumerable<Blocker> Placards(Inspection inspection) => inspection.Discrepancies
        .Where(found => found.IsOpen && found.Class == DiscrepancyClass.Deferrable)
        .OrderBy(found => found.Number)
        .Select(found => new Blocker($"{found.What}: deferred, so deactivate, placard and say so in its corrective action", Found: found));
}
