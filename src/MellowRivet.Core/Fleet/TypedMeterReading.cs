using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Fleet;

/// <summary>How a meter gave way to another, as it is typed.</summary>
/// <param name="Last">What the old one showed when it came off, hours or a count.</param>
/// <param name="First">What the new one showed when it was fitted.</param>
public sealed record TypedReplacement(string? Last, string? First);

/// <summary>What a meter showed, as it is typed.</summary>
/// <param name="Kind">Which meter.</param>
/// <param name="On">The day.</param>
/// <param name="Shown">What it showed, hours or a count.</param>
/// <param name="Replaced">How the one before gave way to it; null where it is the one on file.</param>
public sealed record TypedMeterReading(MeterKind Kind, DateOnly? On, string? Shown, TypedReplacement? Replaced)
{
    /// <summary>Notes it. All readings of the aircraft must be loaded.</summary>
    /// <returns>Why it can't be so, or null.</returns>
    public Refusal? Take(Aircraft aircraft, DateOnly today, string by)
    {
        if (On is not { } on || on > today)
            return new("on", "The day it was read, not one to come.");
        if (TypedNumber.ParseHours(Shown) is not { } shown)
            return new("shown", "What the meter shows, as a figure: 4318.6.");
        if (!Enum.IsDefined(Kind))
            return new("shown", "Choose a meter.");
        if (Replaced is null)
            return aircraft.ReadMeter(Kind, on, shown.Value, by);
        if (TypedNumber.ParseHours(Replaced.Last) is not { } last)
            return new("lastShown", "What the old one showed when it came off.");
        if (TypedNumber.ParseHours(Replaced.First) is not { } first)
            return new("firstShown", "What the new one showed when it was fitted; usually 0.");
        return aircraft.ReadMeter(Kind, on, shown.Value, by, new(last.Value, first.Value));
    }
}
