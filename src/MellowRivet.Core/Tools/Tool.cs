namespace MellowRivet.Core.Tools;

/// <summary>A tool of the shop, with its own number, so that it can be counted out and in.</summary>
public sealed class Tool
{
    private Tool() { }

    public Tool(Guid id) => Id = id;

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";

    /// <summary>The number engraved on it; may be empty.</summary>
    public string Number { get; private set; } = "";

    /// <summary>A torque wrench: it may pull a final torque while its calibration holds.</summary>
    public bool IsTorqueWrench { get; private set; }

    /// <summary>The last day its calibration holds; null for a tool that has none.</summary>
    public DateOnly? CalibratedUntil { get; private set; }

    /// <summary>For a torque wrench: from the middle of the handle to the square drive, inches; null where nobody has measured it.</summary>
    public double? LengthInches { get; private set; }

    /// <summary>Not used any more. What was done with it stays.</summary>
    public bool IsRetired { get; private set; }

    public string Title => Number.Length > 0 ? $"{Name} {Number}" : Name;

    /// <summary>Puts its plate right, or says what is wrong with it.</summary>
    public Refusal? Describe(string? name, string? number, bool torqueWrench, DateOnly? calibratedUntil, double? lengthInches)
    {
        if (string.IsNullOrWhiteSpace(name) || name.Trim().Length > 60 || number?.Trim().Length > 20)
            return new("name", "A name of up to 60 characters, and a number of up to 20.");
        if (torqueWrench && calibratedUntil is null)
            return new("calibrated", "A torque wrench needs the day its calibration ends.");
        if (lengthInches is { } length && length is <= 0 or > 80)
            return new("length", "The length in inches, from the middle of the handle to the square drive: above 0, up to 80.");
        (Name, Number, IsTorqueWrench, CalibratedUntil, LengthInches) = (name.Trim(), number?.Trim() ?? "", torqueWrench, calibratedUntil, torqueWrench ? lengthInches : null);
        return null;
    }

    public void Retire(bool retired) => IsRetired = retired;

    /// <summary>Why no final torque can be recorded with it on a day; null where one can.</summary>
    public Refusal? MayTorque(DateOnly on)
    {
        if (!IsTorqueWrench)
            return new("wrench", $"{Title} is no torque wrench.");
        if (IsRetired)
            return new("wrench", $"{Title} isn't used any more.");
        return CalibratedUntil is { } until && until >= on
            ? null
            : new("wrench", $"The calibration of {Title} ended {CalibratedUntil:yyyy-MM-dd}: no final torque is recorded with it. Take another, or have it calibrated.");
    }
}
