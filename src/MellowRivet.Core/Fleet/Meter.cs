namespace MellowRivet.Core.Fleet;

/// <summary>What counts on an aircraft.</summary>
public enum MeterKind { Tach = 1, HourMeter, Landings, Cycles }

/// <summary>
/// One meter while it was fitted. What it shows plus its offset is the aircraft's total, so a new meter that begins at
/// zero keeps the total right.
/// </summary>
/// <param name="Number">Counts the meters of the aircraft from 1.</param>
/// <param name="Kind">What it counts.</param>
/// <param name="FittedOn">The day it was fitted, or of its first reading on file.</param>
/// <param name="Offset">The aircraft's total less what the meter shows, in hours or counts.</param>
public sealed record Meter(int Number, MeterKind Kind, DateOnly FittedOn, decimal Offset);

/// <summary>How a meter gave way to the next.</summary>
/// <param name="LastShown">What the old one showed when it came off.</param>
/// <param name="FirstShown">What the new one showed when it went on; usually zero.</param>
public sealed record MeterReplacement(decimal LastShown, decimal FirstShown);

/// <summary>What a meter showed on a day, and what the aircraft's total was by it.</summary>
public sealed class MeterReading
{
    private MeterReading() { }

    internal MeterReading(Guid aircraftId, Meter meter, DateOnly on, decimal shown, string source)
    {
        Id = Guid.CreateVersion7();
        AircraftId = aircraftId;
        Meter = meter.Number;
        Kind = meter.Kind;
        On = on;
        Shown = shown;
        Total = shown + meter.Offset;
        Source = source;
    }

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }

    /// <summary>Which of the aircraft's meters.</summary>
    public int Meter { get; private set; }
    public MeterKind Kind { get; private set; }
    public DateOnly On { get; private set; }
    public decimal Shown { get; private set; }
    public decimal Total { get; private set; }

    /// <summary>Who read it, or the file it came from.</summary>
    public string Source { get; private set; } = "";
}

public static class MeterWords
{
    public static string InWords(this MeterKind kind) => kind switch
    {
        MeterKind.Tach => "recording tach",
        MeterKind.HourMeter => "hour meter",
        MeterKind.Landings => "landings",
        _ => "engine cycles",
    };

    /// <summary>Whether it counts hours; the others count events, in whole numbers.</summary>
    public static bool CountsHours(this MeterKind kind) => kind is MeterKind.Tach or MeterKind.HourMeter;

    /// <summary>"4318.6 h" or "7211".</summary>
    public static string Say(this MeterKind kind, decimal value) => kind.CountsHours() ? $"{value:0.0} h" : $"{value:0}";
}
