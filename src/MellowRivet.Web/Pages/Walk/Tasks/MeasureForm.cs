using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Web.Pages.Walk.Tasks;

/// <summary>A verdict as it is sent.</summary>
public sealed class VerdictForm
{
    public Guid Post { get; set; }
    public Guid Task { get; set; }
    public int Seen { get; set; }
    public TaskVerdict? Verdict { get; set; }
    public string? Reason { get; set; }
    public string? Value { get; set; }
    public string? Unit { get; set; }

    /// <summary>For a cable: the temperature at it.</summary>
    public string? Temperature { get; set; }
    public string? TemperatureUnit { get; set; }

    /// <summary>For a torque: the wrench, and what lengthens it, in inches.</summary>
    public Guid? Wrench { get; set; }
    public string? Length { get; set; }
    public string? Extension { get; set; }
}

/// <summary>A limit of the aircraft's own manual as it is sent.</summary>
public sealed class LimitForm
{
    public Guid Post { get; set; }
    public Guid Task { get; set; }
    public string? Low { get; set; }
    public string? High { get; set; }
    public string? Reference { get; set; }
}

/// <summary>The manual's table of cable tension by temperature as it is sent.</summary>
public sealed class TableForm
{
    public Guid Post { get; set; }
    public Guid Task { get; set; }
    public List<string> Cables { get; set; } = [];
    public string? Rows { get; set; }
    public string? Tolerance { get; set; }
    public string? Reference { get; set; }
}

/// <summary>What was typed at a measured task, understood.</summary>
/// <param name="Value">The value, in the unit of the limits.</param>
/// <param name="Unit">That unit.</param>
/// <param name="Conditions">How it was taken.</param>
public sealed record MeasureForm(double Value, Unit Unit, ReadingConditions Conditions)
{
    /// <summary>Understands what was typed, or says what is wrong with which field.</summary>
    public static (MeasureForm? Typed, Refusal? Refusal) Read(InspectionTask task, Aircraft aircraft, VerdictForm form, Tool? wrench,
        DateOnly today)
    {
        var unit = TaskJudge.BandFor(task, aircraft)!.Unit;
        if (TypedNumber.Parse(form.Value) is not { } typed || Math.Abs(typed) > 1_000_000)
            return (null, new("value", $"“{form.Value?.Trim()}” is not a reading. Type a number in {unit}."));
        var given = string.IsNullOrEmpty(form.Unit) ? unit : Unit.Find(form.Unit);
        if (given is null || given.Dimension != unit.Dimension)
            return (null, new("value", $"{form.Unit} doesn't measure this. Use one of {string.Join(", ", unit.Alternatives)}."));
        var value = given.To(unit, typed);
        if (value < 0 && unit.Dimension is not (Dimension.Temperature or Dimension.Angle))
            return (null, new("value", "This can't be below zero."));
        var (conditions, refusal) = task.Measure!.Method switch
        {
            MeasureMethod.CableTension => Temperature(form),
            MeasureMethod.Torque => Wrench(form, wrench, value, unit, today),
            _ => (new(), null),
        };
        return conditions is null ? (null, refusal) : (new(value, unit, conditions), null);
    }

    private static (ReadingConditions?, Refusal?) Temperature(VerdictForm form)
    {
        if (string.IsNullOrWhiteSpace(form.Temperature))
            return (new(), null);
        var unit = Unit.Find(form.TemperatureUnit ?? "°C");
        if (TypedNumber.Parse(form.Temperature) is not { } typed || unit is not { Dimension: Dimension.Temperature }
            || unit.To(Unit.Celsius, typed) is var celsius && celsius is < -80 or > 80)
            return (null, new("temperature", $"“{form.Temperature.Trim()}” is no temperature a cable has. Type it in °C or °F."));
        return (new(Celsius: Math.Round(celsius, 1)), null);
    }

    private static (ReadingConditions?, Refusal?) Wrench(VerdictForm form, Tool? wrench, double value, Unit unit, DateOnly today)
    {
        if (wrench is null)
            return (null, new("wrench", "Choose the wrench it was pulled with."));
        if (wrench.MayTorque(today) is { } refusal)
            return (null, refusal);
        if (string.IsNullOrWhiteSpace(form.Extension))
            return wrench.Reaches(value, unit) is { } outside
                ? (null, outside)
                : (new(Wrench: new(wrench.Id, wrench.Title, wrench.CalibratedUntil!.Value, null, null, value)), null);
        var length = string.IsNullOrWhiteSpace(form.Length) ? wrench.LengthInches : TypedNumber.Parse(form.Length);
        var extension = TypedNumber.Parse(form.Extension);
        if (length is not (> 0 and <= 80) || extension is not (>= 0 and <= 40))
            return (null, new("wrench",
                "With an extension in line: the length of the wrench and of the extension in inches, such as 10 and 1.5."));
        var setting = TorqueWrench.Setting(value, length.Value, extension.Value);
        return wrench.Reaches(setting, unit) is { } beyond
            ? (null, beyond)
            : (new(Wrench: new(wrench.Id, wrench.Title, wrench.CalibratedUntil!.Value, length, extension, setting)), null);
    }
}
