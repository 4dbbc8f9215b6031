using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Worksheets;

/// <summary>When a task was last done on this aircraft or this part.</summary>
/// <param name="WorksheetKey">The worksheet it stood in.</param>
/// <param name="TaskKey">The task.</param>
/// <param name="ComponentId">The engine or propeller it was done on; null for the airframe.</param>
/// <param name="Hours">The aircraft's time in service then.</param>
/// <param name="On">The day.</param>
public sealed record TaskDone(string WorksheetKey, string TaskKey, Guid? ComponentId, decimal Hours, DateOnly On);

/// <summary>How things stand when a task is picked or not.</summary>
/// <param name="Kind">The inspection.</param>
/// <param name="Today">The day.</param>
/// <param name="Hours">The aircraft's time in service.</param>
/// <param name="OwnTime">Hours since new or overhaul of what the task is about; null where nobody knows.</param>
public sealed record PickNow(InspectionKind Kind, DateOnly Today, decimal Hours, decimal? OwnTime);

/// <summary>Whether a task is due now, and why.</summary>
/// <param name="IsDue">It belongs to this inspection.</param>
/// <param name="BeforeNext">It isn't due yet, and will be before the next inspection of this kind.</param>
/// <param name="Why">In words.</param>
public sealed record TaskPick(bool IsDue, bool BeforeNext, string Why)
{
    /// <summary>
    /// Picks by the columns and by what was done when. A task without columns belongs to every inspection. A column of this
    /// inspection's own kind is due with it. Any other is due when it comes round within a tenth of itself, at most 10 hours or
    /// 30 days; where nobody knows when it was last done it is due, for unknown never counts as done. The tenth is common
    /// practice, the product's own.
    /// </summary>
    /// <param name="columns">The task's intervals; empty for one of every inspection.</param>
    /// <param name="last">When it was last done; null where there is no record.</param>
    /// <param name="now">How things stand.</param>
    public static TaskPick Of(IReadOnlyList<TaskInterval> columns, TaskDone? last, PickNow now)
    {
        if (columns.Count == 0)
            return new(true, false, "at every inspection");
        var picks = columns.Select(column => One(column, last, now)).ToList();
        return picks.FirstOrDefault(pick => pick.IsDue) ?? picks.FirstOrDefault(pick => pick.BeforeNext) ?? picks[0];
    }

    /// <summary>The column that an inspection of this kind stands for.</summary>
    public static TaskInterval ColumnOf(InspectionKind kind) => kind switch
    {
        InspectionKind.Service25 => new(25, null),
        InspectionKind.Service50 => new(50, null),
        InspectionKind.Service100 or InspectionKind.HundredHour => new(100, null),
        _ => new(null, 12),
    };

    private static TaskPick One(TaskInterval column, TaskDone? last, PickNow now)
    {
        if (column == ColumnOf(now.Kind))
            return new(true, false, $"{column}: due with this inspection");
        return column switch
        {
            { Once: true, Hours: { } hours } => Once(column, hours, last, now),
            { Hours: { } hours } => ByHours(column, hours, last, now),
            _ => ByCalendar(column, column.Months!.Value, last, now),
        };
    }

    private static TaskPick Once(TaskInterval column, decimal hours, TaskDone? last, PickNow now)
    {
        if (now.OwnTime is not { } own)
            return last is null ? new(true, false, $"{column}: nobody knows the hours since new, and there is no record of it")
                : Not($"{column}: done at {last.Hours:0.#} h");
        if (last is not null && now.Hours - last.Hours <= own)
            return Not($"{column}: done at {last.Hours:0.#} h");
        return own > 2 * hours
            ? Not($"{column}: {own:0.#} h since new or overhaul, the time for it is past")
            : Comes(column, hours - own, hours, now, $"{own:0.#} h since new or overhaul");
    }

    private static TaskPick ByHours(TaskInterval column, decimal hours, TaskDone? last, PickNow now)
    {
        // What is younger than its interval can't be overdue: the first time counts from new.
        if (last is null)
            return now.OwnTime is { } own && own < hours
                ? Comes(column, hours - own, hours, now, $"{own:0.#} h since new or overhaul")
                : new(true, false, $"{column}: no record of when it was last done");
        return Comes(column, hours - (now.Hours - last.Hours), hours, now, $"{now.Hours - last.Hours:0.#} h since it was last done");
    }

    private static TaskPick ByCalendar(TaskInterval column, int months, TaskDone? last, PickNow now)
    {
        if (last is null)
            return new(true, false, $"{column}: no record of when it was last done");
        var due = last.On.AddMonths(months);
        var days = due.DayNumber - now.Today.DayNumber;
        if (days <= Math.Min(30, months * 3))
            return new(true, false, $"{column}: last done {last.On:yyyy-MM-dd}, {(days < 0 ? "was" : "is")} due {due:yyyy-MM-dd}");
        return new(false, ColumnOf(now.Kind) is { Months: { } round }
            && due < now.Today.AddMonths(round), $"{column}: last done {last.On:yyyy-MM-dd}, due {due:yyyy-MM-dd}");
    }

    private static TaskPick Comes(TaskInterval column, decimal remaining, decimal hours, PickNow now, string since)
    {
        if (remaining <= Math.Min(10, hours / 10))
            return new(true, false, $"{column}: {since}");
        return new(false, ColumnOf(now.Kind) is { Hours: { } round } && remaining < round, $"{column}: {since}, {remaining:0.#} h to go");
    }

    private static TaskPick Not(string why) => new(false, false, why);
}
