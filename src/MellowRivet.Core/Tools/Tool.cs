using System.Globalization;
using System.Text.RegularExpressions;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;

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

    /// <summary>
    /// For a torque wrench: from the middle of the handle to the square drive, inches; null where nobody has measured it.
    /// </summary>
    public double? LengthInches { get; private set; }

    /// <summary>
    /// For a torque wrench: the least and the most its scale has; null for one that is on file from before that was asked.
    /// </summary>
    public double? LeastTorque { get; private set; }
    public double? MostTorque { get; private set; }

    /// <summary>The unit of its scale.</summary>
    public string TorqueUnit { get; private set; } = "";

    /// <summary>Not used any more. What was done with it stays.</summary>
    public bool IsRetired { get; private set; }

    public string Title => Number.Length > 0 ? $"{Name} {Number}" : Name;

    /// <summary>Puts its plate right, or says what is wrong with it.</summary>
    public Refusal? Describe(string? name, string? number, bool torqueWrench, DateOnly? calibratedUntil, double? lengthInches,
        TorqueRange? range)
    {
        if (string.IsNullOrWhiteSpace(name) || name.Trim().Length > 60 || number?.Trim().Length > 20)
            return new("name", "A name of up to 60 characters, and a number of up to 20.");
        if (torqueWrench && calibratedUntil is null)
            return new("calibrated", "A torque wrench needs the day its calibration ends.");
        if (lengthInches is { } length && length is <= 0 or > 80)
            return new("length", "The length in inches, from the middle of the handle to the square drive: above 0, up to 80.");
        if (torqueWrench && (range is null || !(range.Least >= 0 && range.Most > range.Least && range.Most < 100_000)
            || range.Unit.Dimension != Dimension.Torque))
            return new("range", "A torque wrench has a range, as on its scale: the least and the most, such as 150 and 750 in-lb.");
        (LeastTorque, MostTorque, TorqueUnit) = torqueWrench
            ? (range!.Least, range.Most, range.Unit.Symbol)
            : ((double?)null, (double?)null, "");
        (Name, Number, IsTorqueWrench, CalibratedUntil, LengthInches) = (name.Trim(), number?.Trim()
            ?? "", torqueWrench, calibratedUntil, torqueWrench ? lengthInches : null);
        return null;
    }

    /// <summary>Why it can't be set to a torque; null where it can, or where its range isn't on file.</summary>
    /// <param name="setting">What it is set to, extension counted in.</param>
    /// <param name="unit">Its unit.</param>
    public Refusal? Reaches(double setting, Unit unit)
    {
        if (LeastTorque is not { } least || MostTorque is not { } most || Unit.Find(TorqueUnit) is not { } scale
            || unit.Dimension != Dimension.Torque)
            return null;
        // As far as the scale can be read: a setting of 17 N·m is 150.5 in-lb.
        var set = unit.To(scale, setting);
        return set >= least * (1 - Readable) && set <= most * (1 + Readable) ? null
            : new("wrench", MeasureGrammar.Say(Beyond, ("value", set.ToString("0.#", CultureInfo.InvariantCulture))));
    }

    /// <summary>How near to its ends a scale can be read, as a part of what stands there.</summary>
    public const double Readable = 0.005;

    /// <summary>What is said of a setting that its scale doesn't have: {value} is the setting, in the unit of the scale.</summary>
    public string Beyond => $"{Title} goes from {LeastTorque:0.##} to {MostTorque:0.##} {TorqueUnit}: {{value}} {TorqueUnit} can’t be "
        + "pulled with it. Read the value again, or take another wrench.";

    /// <summary>Takes over the range that the name of a wrench from before tells, where none is on file.</summary>
    public void TakeRangeFromName()
    {
        if (IsTorqueWrench && LeastTorque is null && TorqueRange.In(Name) is { } range)
            (LeastTorque, MostTorque, TorqueUnit) = (range.Least, range.Most, range.Unit.Symbol);
    }

    public void Retire(bool retired) => IsRetired = retired;

    /// <summary>Longer than this is no torque wrench, and no extension, in.</summary>
    public const double LongestWrench = 80, LongestExtension = 40;

    /// <summary>What is said of an extension without lengths that can be.</summary>
    public const string WantsLengths =
        "With an extension in line: the length of the wrench and of the extension in inches, such as 10 and 1.5.";

    /// <summary>A torque pulled with it, or why it can't have been: its calibration, its range, what lengthens it.</summary>
    /// <param name="torque">What the bolt has, in the unit.</param>
    /// <param name="unit">The torque's unit.</param>
    /// <param name="on">The day it was pulled.</param>
    /// <param name="lengthInches">Handle to square drive; null for what is on file.</param>
    /// <param name="extensionInches">Extension in line, in inches; null without one.</param>
    public (WrenchUsed? Used, Refusal? Refusal) Pull(double torque, Unit unit, DateOnly on, double? lengthInches = null,
        double? extensionInches = null)
    {
        if (MayTorque(on) is { } refusal)
            return (null, refusal);
        var length = extensionInches is null ? null : lengthInches ?? LengthInches;
        if (extensionInches is not null && !(length > 0 && length <= LongestWrench && extensionInches >= 0
            && extensionInches <= LongestExtension))
            return (null, new("wrench", WantsLengths));
        var setting = extensionInches is { } extension ? TorqueWrench.Setting(torque, length!.Value, extension) : torque;
        return Reaches(setting, unit) is { } outside
            ? (null, outside)
            : (new(Id, Title, CalibratedUntil!.Value, length, extensionInches, setting), null);
    }

    /// <summary>Why no final torque can be recorded with it on a day; null where one can.</summary>
    public Refusal? MayTorque(DateOnly on)
    {
        if (!IsTorqueWrench)
            return new("wrench", $"{Title} is no torque wrench.");
        if (IsRetired)
            return new("wrench", $"{Title} isn't used any more.");
        return CalibratedUntil is { } until && until >= on ? null : new("wrench", CalibrationEnded);
    }

    /// <summary>What is said of it after its calibration.</summary>
    public string CalibrationEnded => $"The calibration of {Title} ended {CalibratedUntil:yyyy-MM-dd}: no final torque is recorded "
        + "with it. Take another, or have it calibrated.";
}

/// <summary>What a torque wrench's scale goes from and to.</summary>
public sealed partial record TorqueRange(double Least, double Most, Unit Unit)
{
    /// <summary>The range that a wrench's name tells: "Torque wrench 150–750 in-lb". Null where it tells none.</summary>
    public static TorqueRange? In(string name) =>
        Told().Match(name) is { Success: true } told && Unit.Find(told.Groups[3].Value) is { Dimension: Dimension.Torque } unit
        && TypedNumber.Parse(told.Groups[1].Value) is { } least && TypedNumber.Parse(told.Groups[2].Value) is { } most && most > least
        ? new(least, most, unit)
        : null;

    [GeneratedRegex(@"(\d+(?:[.,]\d+)?)\s*(?:–|-|to|…)\s*(\d+(?:[.,]\d+)?)\s*(in-lb|ft-lb|N·m)", RegexOptions.IgnoreCase)]
    private static partial Regex Told();
}
