using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

/// <summary>Judges what is read at a measured task, by the method the task names and by this aircraft's own limits.</summary>
public static class TaskJudge
{
    /// <summary>
    /// The limits of a task: for a cable the aircraft's table at the temperature, else the aircraft's manual where its limit is
    /// on file, else the worksheet's. Null for a task that doesn't measure.
    /// </summary>
    public static ToleranceBand? BandFor(InspectionTask task, Aircraft aircraft, double? celsius = null)
    {
        if (task.Measure is not { } measure)
            return null;
        if (celsius is { } at && TableFor(task, aircraft)?.At(at) is { } byTable)
            return byTable;
        return aircraft.LimitOf(measure.Kind) is { } own
            ? new(Unit.Find(own.UnitSymbol)!, own.Low, own.High, new(Standing.Manual, own.Reference))
            : measure.Band;
    }

    /// <summary>The aircraft's table for a cable; null where there is none on file or the task is about something else.</summary>
    public static CableTable? TableFor(InspectionTask task, Aircraft aircraft) =>
        task.Measure is { Method: MeasureMethod.CableTension } measure
        ? aircraft.CableTables.FirstOrDefault(table => table.Measures.Contains(measure.Kind))
        : null;

    /// <summary>Judges a reading that is kept.</summary>
    public static (Judgement? Judgement, Refusal? Refusal) Judge(InspectionTask task, Aircraft aircraft, Reading reading) =>
        Judge(task, aircraft, reading.Value, Unit.Find(reading.UnitSymbol)!, reading.Conditions);

    /// <summary>Judges a value, or says what is missing before it can be.</summary>
    public static (Judgement? Judgement, Refusal? Refusal) Judge(InspectionTask task, Aircraft aircraft, double value, Unit unit,
        ReadingConditions conditions)
    {
        if (TableOf(task, aircraft) is not var (table, limits))
            return (null, null);
        return limits.Dimension == unit.Dimension
            ? table.Of((JudgementTable.Value, unit.To(limits, value)), (CableTable.Temperature, conditions.Celsius))
            : (null, new("value", $"{unit} doesn't measure this."));
    }

    /// <summary>What a task is judged by, with the unit of its limits; null for a task that doesn't measure.</summary>
    public static (JudgementTable Table, Unit Unit)? TableOf(InspectionTask task, Aircraft aircraft) =>
        TableFor(task, aircraft) is { } cable ? (cable.Table(), Unit.Pound)
        : BandFor(task, aircraft) is { } band ? (band.Table(), band.Unit) : null;
}
