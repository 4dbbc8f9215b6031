using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Inspections;

// Tasks that a sheet of the engine station answers: what is done there is typed once.
public sealed partial class Inspection
{
    /// <summary>What a task asks for at the engine station, or a task that is tied to it; null for one that is answered by hand.</summary>
    public Asked? AskedBy(InspectionTask task) =>
        !task.IsOfEngine ? null
        : task.Asks ?? TiedWith(task).Select(tied => tied.Asks).FirstOrDefault(asks => asks is not null);

    /// <summary>
    /// The sheets that answer a task, as far as they are filled in; none for a task that is answered by hand, and none where somebody
    /// who may sign has left the sheet out with a reason.
    /// </summary>
    /// <param name="task">The task.</param>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="live">Everything that was judged, where it is known already; null to reckon it.</param>
    public IReadOnlyList<SheetPart> SheetsFor(InspectionTask task, Aircraft aircraft, IReadOnlyList<Judged>? live = null)
    {
        if (AskedBy(task) is not { } asked)
            return [];
        live ??= InspectionJudgements.Of(this, aircraft);
        return [.. aircraft.Engines.Where(engine => task.ComponentId is null || task.ComponentId == engine.ComponentId)
            .SelectMany(engine => SheetPart.Of(asked, this, aircraft, engine.Component, live))
            .Where(part => notPart.All(left => left.Key != Signing.Asks.KeyOf(part.Asked, part.Carrier)))];
    }

    /// <summary>
    /// Lets the sheets answer their tasks: good once all of one is done and nothing bad there is unanswered, a discrepancy where the
    /// fix list has what was found there, else not yet. What isn't on this one stays so.
    /// </summary>
    public void AnswerFromSheets(Aircraft aircraft)
    {
        var asking = Tasks.Where(task => task.TiedTo is null && task.IsOfEngine
            && task.Verdict != TaskVerdict.NotApplicable && (AskedBy(task) is not null || IsOfRun(task))).ToList();
        if (asking.Count == 0)
            return;
        var live = InspectionJudgements.Of(this, aircraft);
        foreach (var task in asking)
            AnswerFromSheet(task, aircraft, live);
    }

    /// <summary>Notes every open look of the sheets that answer a task as good: one touch for what was looked at in one go.</summary>
    /// <returns>Why not; null where they are all done now.</returns>
    public Refusal? LookAtRestOf(InspectionTask task, Aircraft aircraft, Guid by, DateTimeOffset at)
    {
        foreach (var part in SheetsFor(task, aircraft))
        {
            if (part is { IsComplete: false, OpenGroups: null })
                return new("verdict", $"Its sheet answers it: {part.Says}.");
            var engine = aircraft.Engines.First(fitted => fitted.ComponentId == part.EngineId).Component;
            if (part.Sheet is { } kind && EngineSheets.Find(aircraft, engine, kind, part.Carrier) is { } sheet)
                foreach (var title in part.OpenGroups ?? [])
                    if (LookAtRest(sheet, title, by, at) is { } refusal)
                        return refusal;
        }
        AnswerFromSheet(task, aircraft, InspectionJudgements.Of(this, aircraft));
        return task.Verdict == TaskVerdict.NotYet
            ? new("verdict", "Something on its sheet was judged bad and isn’t answered: put it on the fix list, or read it again.")
            : null;
    }

    /// <summary>A value of an engine's run, which the run's sheet takes, too.</summary>
    public static bool IsOfRun(InspectionTask task, Guid engineId) =>
        IsOfRun(task) && task.IsOfEngine && (task.ComponentId is null || task.ComponentId == engineId);

    private static bool IsOfRun(InspectionTask task) =>
        task.Measure is { } measure && RunValues.All.Any(value => value.Kind == measure.Kind);

    private void AnswerFromSheet(InspectionTask task, Aircraft aircraft, IReadOnlyList<Judged> live)
    {
        // A value of the run is the task's own reading, wherever it was typed: a person who pressed something said so already.
        if (AskedBy(task) is null)
        {
            if (task.Verdict == TaskVerdict.NotYet && ReadingAt(task) is { } read && JudgementAt(task, aircraft) is { } judged)
                Say(task, judged.Verdict is Judgements.Verdict.Good or Judgements.Verdict.Watch ? TaskVerdict.Good : TaskVerdict.NotYet,
                    new(read.PersonId, read.LastAt));
            else if (task.Verdict == TaskVerdict.Good && ReadingAt(task) is null)
                Say(task, TaskVerdict.NotYet, null);
            return;
        }
        if (SheetsFor(task, aircraft, live) is not { Count: > 0 } parts)
            return;
        var verdict = parts.Any(part => !part.IsComplete) ? TaskVerdict.NotYet
            : Discrepancies.Any(found => found.Disposition != Disposition.Withdrawn && (found.TaskId == task.Id
                || parts.Any(part => part.Judged.Any(judged => judged.Key == found.Origin?.Key)))) ? TaskVerdict.Discrepancy
            : parts.Any(part => part.Judged.Any(IsUnanswered)) ? TaskVerdict.NotYet
            : TaskVerdict.Good;
        Say(task, verdict, parts.Select(part => part.Last).OfType<LastFilled>().MaxBy(last => last.At));
    }

    private bool IsUnanswered(Judged judged) =>
        judged.WantsAnswer && setAside.All(aside => (aside.Key, aside.Seen) != (judged.Key, judged.Seen));

    private void Say(InspectionTask task, TaskVerdict verdict, LastFilled? last)
    {
        if (task.Verdict == verdict)
            return;
        task.IsSaid(verdict, last);
        foreach (var tied in TiedWith(task))
            tied.Follow(task);
        Reconsider(task.ZoneKey);
    }
}
