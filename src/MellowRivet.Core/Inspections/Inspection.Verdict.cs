using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Tools;

namespace MellowRivet.Core.Inspections;

/// <summary>A verdict as it is sent.</summary>
/// <param name="Id">The post's id, and the reading's that comes with it.</param>
/// <param name="Verdict">What was pressed.</param>
/// <param name="Reason">Why it is not on this one.</param>
/// <param name="Seen">How many changes the task had when it was pressed.</param>
/// <param name="Typed">The value that comes with it.</param>
/// <param name="ForFixList">Only the value is kept: words and verdict follow on the fix list.</param>
/// <param name="IsLate">It comes from a device that was away when it was pressed: nobody stands there to press again.</param>
public sealed record SentVerdict(Guid Id, TaskVerdict? Verdict, string? Reason, int Seen, TypedMeasure Typed, bool ForFixList = false,
    bool IsLate = false);

/// <summary>What a verdict came to.</summary>
/// <param name="Refusal">Why it wasn't taken; null where it was.</param>
/// <param name="Mine">Somebody else answered meanwhile: what was pressed here and isn't kept, in words; null otherwise.</param>
/// <param name="IsApart">It is kept beside what stands there, until somebody chooses.</param>
public sealed record VerdictTaken(Refusal? Refusal, string? Mine = null, bool IsApart = false);

// Verdicts as they are pressed.
public sealed partial class Inspection
{
    /// <summary>
    /// Takes a verdict with the value that comes with it, unless somebody else answered the task since it was looked at: what they
    /// said stands then, and what comes late is kept beside it until somebody chooses.
    /// </summary>
    /// <param name="task">The task.</param>
    /// <param name="sent">What was pressed.</param>
    /// <param name="aircraft">The aircraft, for its own limits.</param>
    /// <param name="wrench">The wrench a torque was pulled with; null where none was chosen.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <param name="today">The day.</param>
    public VerdictTaken Take(InspectionTask task, SentVerdict sent, Aircraft aircraft, Tool? wrench, Guid by, DateTimeOffset at,
        DateOnly today)
    {
        if (sent.Verdict is not { } verdict || !Enum.IsDefined(verdict))
            return new(new("verdict", "Choose what you found."));
        // What its sheet answers is said there; looks that are all it still wants are done in one touch from here.
        if (verdict is TaskVerdict.Good or TaskVerdict.Discrepancy && SheetsFor(task, aircraft).Count > 0)
            return new(verdict == TaskVerdict.Good
                ? LookAtRestOf(task, aircraft, by, at)
                : new("verdict", "Write down what you found: its sheet answers the task."));
        MeasuredValue? read = null;
        if (sent.Typed.Is && task.Measure is not null && verdict != TaskVerdict.NotYet)
        {
            (read, var problem) = sent.Typed.Read(task, aircraft, wrench, today);
            if (problem is not null)
                return new(problem);
        }
        if (task.Changes != sent.Seen && (task.Verdict != verdict || (read is not null && ReadingAt(task)?.Value != read.Value)))
        {
            var mine = $"{verdict.InWords()}{(read is null ? "" : $" · {MeasureText.InWords(read.Value, read.Unit)}")}";
            if (!sent.IsLate)
                return new(new("verdict", "Somebody else answered this while you had it open. Theirs is kept, yours is still here."), mine);
            // What was pressed and thought better of at the same device is no other answer, and a task that is open again has none.
            if (task.By is { } other && (other != by || task.At > at) && task.Verdict != TaskVerdict.NotYet)
            {
                KeepApart(ApartKeys.Task(task.Id), task.Text, SaidOf(task), new(other, task.At!.Value), mine, new(by, at),
                    new(Task: new(task.Id, verdict, sent.Reason, sent.Id,
                        read?.Value, read?.Unit.Symbol, read?.Conditions)));
                return new(null, IsApart: true);
            }
        }
        if (read is not null && Record(task, sent.Id, read, aircraft, by, at) is { } missing)
            return new(missing);
        if (sent.ForFixList)
            return new(null);
        var refusal = Answer(task, verdict, sent.Reason, JudgementAt(task, aircraft), by, at);
        StandsNow(ApartKeys.Task(task.Id), SaidOf(task), new(by, at));
        return new(refusal);
    }

    private Refusal? Record(InspectionTask task, Guid id, MeasuredValue read, Aircraft aircraft, Guid by, DateTimeOffset at)
    {
        if (TaskJudge.Judge(task, aircraft, read.Value, read.Unit, read.Conditions).Refusal is { } missing)
            return missing;
        Record(new(id, aircraft.Id, task.ComponentId, task.Measure!.Kind, task.ZoneKey, read.Value, read.Unit, read.Conditions,
            TimeInService, at, by) { InspectionId = Id, TaskId = task.Id });
        return null;
    }

    private Refusal? Put(AnsweredToo answer, Stamp said, Aircraft aircraft)
    {
        if (Tasks.FirstOrDefault(task => task.Id == answer.TaskId) is not { } task)
            return new("verdict", "The task isn’t in the walk any more.");
        if (answer is { Value: { } value, Conditions: { } conditions } && Unit.Find(answer.UnitSymbol) is { } unit
            && task.Measure is not null)
        {
            // The value that stood is in the story; what is chosen is the task's.
            Loaded.List(readings).RemoveAll(reading => reading.TaskId == task.Id && reading.At >= said.At);
            if (Record(task, answer.PostId, new(value, unit, conditions), aircraft, said.By, said.At) is { } missing)
                return missing;
        }
        return Answer(task, answer.Verdict, answer.Reason, JudgementAt(task, aircraft), said.By, said.At);
    }

    /// <summary>Takes back a verdict that was just given, with the reading that came with it.</summary>
    /// <param name="taskId">The task.</param>
    /// <param name="seen">How many changes it had after the verdict.</param>
    /// <param name="before">What it was before.</param>
    /// <param name="reason">Why it was not on this one, before.</param>
    /// <param name="reading">The reading that came with the verdict; null for none.</param>
    /// <param name="aircraft">The aircraft, for its own limits.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    public Refusal? TakeBack(Guid taskId, int seen, TaskVerdict before, string? reason, Guid? reading, Aircraft aircraft, Guid by,
        DateTimeOffset at)
    {
        if (Tasks.FirstOrDefault(task => task.Id == taskId) is not { } there || !Enum.IsDefined(before))
            return new("verdict", "There is no such task.");
        if (there.Changes != seen)
            return new("verdict", $"It was answered again since: {SaidOf(there)}. Nothing was taken back.");
        if (reading is { } given)
            Withdraw(there, given, by);
        return Answer(there, before, reason, JudgementAt(there, aircraft), by, at);
    }

    /// <summary>What a task was answered with, for somebody who wasn't there.</summary>
    public string SaidOf(InspectionTask task) =>
        task.Verdict.InWords()
        + (ReadingAt(task) is { } reading ? $" · {reading.InWords}" : "")
        + (task.Reason is { } reason ? $" · {reason}" : "");
}

public static class VerdictWords
{
    public static string InWords(this TaskVerdict verdict) => verdict switch
    {
        TaskVerdict.Good => "good",
        TaskVerdict.NotApplicable => "not on this one",
        TaskVerdict.Discrepancy => "discrepancy",
        _ => "not yet",
    };
}
