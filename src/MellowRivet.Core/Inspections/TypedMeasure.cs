using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

/// <summary>What is typed at a measured task, field by field.</summary>
/// <param name="Value">The value.</param>
/// <param name="Unit">Its unit; empty for the unit of the limits.</param>
/// <param name="Temperature">For a cable: the temperature at it.</param>
/// <param name="TemperatureUnit">That temperature's unit.</param>
/// <param name="Length">For a torque: the wrench's length, inches; empty for what is on file.</param>
/// <param name="Extension">What lengthens it, inches; empty without an extension.</param>
public sealed record TypedMeasure(string? Value, string? Unit, string? Temperature = null, string? TemperatureUnit = null,
    string? Length = null, string? Extension = null)
{
    /// <summary>Something was typed.</summary>
    public bool Is => !string.IsNullOrWhiteSpace(Value);

    /// <summary>Understands what was typed, or says what is wrong with which field.</summary>
    /// <param name="task">The measured task.</param>
    /// <param name="aircraft">The aircraft, for its own limits.</param>
    /// <param name="wrench">The wrench a torque was pulled with; null where none was chosen.</param>
    /// <param name="today">The day.</param>
    public (MeasuredValue? Read, Refusal? Refusal) Read(InspectionTask task, Aircraft aircraft, Tool? wrench, DateOnly today)
    {
        var unit = TaskJudge.BandFor(task, aircraft)!.Unit;
        var given = string.IsNullOrEmpty(Unit) ? unit : Measures.Unit.Find(Unit);
        if (given is null || given.Dimension != unit.Dimension)
            return (null, new("value", $"{Unit} doesn't measure this. Use one of {string.Join(", ", unit.Alternatives)}."));
        var typed = MeasureText.Read(Value, given);
        if (typed.Value is not { } number)
            return (null, new("value", typed.Problem ?? MeasureGrammar.Say(NoReading, ("typed", Value?.Trim()), ("unit", unit))));
        if (FieldBound.First(Bounds(unit), "value", Value, number, given, unit) is { } outside)
            return (null, outside);
        var value = given.To(unit, number);
        var (conditions, refusal) = task.Measure!.Method switch
        {
            MeasureMethod.CableTension => AtTemperature(),
            MeasureMethod.Torque => ByWrench(wrench, value, unit, today),
            _ => (new(), null),
        };
        return conditions is null ? (null, refusal) : (new(value, unit, conditions), null);
    }

    /// <summary>What is said of a torque without one.</summary>
    public const string NoWrench = "Choose the wrench it was pulled with.";

    private const string NoReading = "“{typed}” is not a reading. Type a number in {unit}.";

    /// <summary>What the field of a measured task doesn't take.</summary>
    /// <param name="unit">The unit of its limits.</param>
    public static IReadOnlyList<FieldBound> Bounds(Unit unit) =>
    [
        .. unit.Dimension == Dimension.Resistance
            ? Array.Empty<FieldBound>()
            : [new(Than.Above, 1_000_000, NoReading), new(Than.Below, -1_000_000, NoReading)],
        .. unit.GoesBelowZero ? Array.Empty<FieldBound>() : [new(Than.Below, 0, "This can't be below zero.", unit)],
    ];

    private (ReadingConditions?, Refusal?) AtTemperature()
    {
        if (string.IsNullOrWhiteSpace(Temperature))
            return (new(), null);
        var unit = Measures.Unit.Find(TemperatureUnit ?? "°C");
        if (unit is not { Dimension: Dimension.Temperature } || MeasureText.Value(Temperature, unit) is not { } typed
            || unit.To(Measures.Unit.Celsius, typed) is var celsius && celsius is < -CableTable.Hottest or > CableTable.Hottest)
            return (null, new("temperature", MeasureGrammar.Say(CableTable.NoTemperature, ("typed", Temperature.Trim()))));
        // Nobody reads minus nought off a thermometer.
        return (new(Celsius: Math.Round(celsius, 1) + 0.0), null);
    }

    private (ReadingConditions?, Refusal?) ByWrench(Tool? wrench, double value, Unit unit, DateOnly today)
    {
        if (wrench is null)
            return (null, new("wrench", NoWrench));
        var extension = MeasureText.Value(Extension, Measures.Unit.Inch);
        var length = MeasureText.Value(Length, Measures.Unit.Inch);
        // A length or an extension that is no number is none that a wrench has.
        var (used, refusal) = wrench.Pull(value, unit, today, TypedNumber.IsNone(Length, length) ? -1 : length,
            TypedNumber.IsNone(Extension, extension) ? -1 : extension);
        return used is null ? (null, refusal) : (new(Wrench: used), null);
    }
}

/// <summary>What was typed at a measured task, understood.</summary>
/// <param name="Value">The value, in the unit of the limits.</param>
/// <param name="Unit">That unit.</param>
/// <param name="Conditions">How it was taken.</param>
public sealed record MeasuredValue(double Value, Unit Unit, ReadingConditions Conditions);
