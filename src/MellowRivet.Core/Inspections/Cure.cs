using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Inspections;

/// <summary>What cures or dries while nobody works.</summary>
public enum CureOf { Sealant = 1, Paint, ThreadLock, Adhesive }

/// <summary>A task that waits until something has cured.</summary>
/// <param name="TaskId">The task.</param>
/// <param name="Of">What cures.</param>
/// <param name="Until">When it may go on.</param>
/// <param name="By">Who said so.</param>
/// <param name="At">When they did.</param>
public sealed record Cure(Guid TaskId, CureOf Of, DateTimeOffset Until, Guid By, DateTimeOffset At)
{
    /// <summary>The longest cure taken, in hours; common practice is far below it.</summary>
    public const double MostHours = 30 * 24;
}

// Tasks that wait for a cure.
public sealed partial class Inspection
{
    private List<Cure> cures = [];

    /// <summary>What cures, task by task.</summary>
    public IReadOnlyList<Cure> Cures => cures;

    /// <summary>What a task waits for; null where it waits for nothing, or has waited long enough.</summary>
    public Cure? CureOf(InspectionTask task, DateTimeOffset now) => cures.Find(cure => cure.TaskId == task.Id && cure.Until > now);

    /// <summary>Lets a task wait until something has cured; what was said before gives way, and no time at all ends the wait.</summary>
    /// <param name="taskId">The task.</param>
    /// <param name="of">What cures.</param>
    /// <param name="typed">For how long from now, in hours as typed.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">Now.</param>
    public Refusal? LetCure(Guid taskId, CureOf of, string? typed, Guid by, DateTimeOffset at)
    {
        if (Tasks.All(task => task.Id != taskId) || !Enum.IsDefined(of))
            return new("cure", "Choose what cures.");
        var read = MeasureText.Read(typed, Unit.Hour);
        if (read.Value is not (>= 0 and <= Cure.MostHours and { } hours))
            return new("cure", read.Problem ?? $"For how many hours, up to {Cure.MostHours:0}: the can or the tube says.");
        cures = [.. cures.Where(cure => cure.TaskId != taskId), .. hours > 0
            ? new[] { new Cure(taskId, of, at.AddHours(hours), by, at) } : []];
        return null;
    }
}

public static class CureWords
{
    public static string InWords(this CureOf of) => of switch
    {
        CureOf.ThreadLock => "thread-lock",
        _ => of.ToString().ToLowerInvariant(),
    };
}
