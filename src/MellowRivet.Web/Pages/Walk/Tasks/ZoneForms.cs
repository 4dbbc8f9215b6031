using MellowRivet.Core.Inspections;

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

    public TypedMeasure Typed => new(Value, Unit, Temperature, TemperatureUnit, Length, Extension);

    public SentVerdict ToVerdict(bool forFixList, bool isLate) => new(Post, Verdict, Reason, Seen, Typed, forFixList, isLate);
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
