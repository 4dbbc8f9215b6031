using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Trends;

/// <summary>
/// Whose hours a series runs on. On its part's own it goes along with the part, from aircraft to aircraft; on the aircraft's it
/// is what was read there, whichever part sat there.
/// </summary>
public enum HoursAxis { Part = 1, Aircraft }

public static class HoursAxisWords
{
    public static string InWords(this HoursAxis axis) => axis == HoursAxis.Part ? "the part’s own hours" : "the aircraft’s hours";

    /// <summary>The other one.</summary>
    public static HoursAxis Other(this HoursAxis axis) => axis == HoursAxis.Part ? HoursAxis.Aircraft : HoursAxis.Part;

    /// <summary>
    /// What is added to a part's own hours to get those of the aircraft it is on: as its latest reading there has both, or its stay.
    /// </summary>
    public static double ToAircraft(this Installation stay, IEnumerable<Reading> readings) =>
        readings.Where(reading => reading.AircraftId == stay.AircraftId && reading.ComponentId == stay.ComponentId
            && reading.OwnTime is not null).MaxBy(reading => reading.At) is { } latest
            ? (double)(latest.TimeInService.Value - latest.OwnTime!.Value.Value)
        : stay.OwnTimeThen is { } then ? (double)(stay.InstalledAt.Value - then.Value) : 0;

    /// <summary>Where a reading stands on an axis.</summary>
    public static double On(this Reading reading, HoursAxis axis) =>
        (double)(axis == HoursAxis.Part ? reading.SeriesTime : reading.TimeInService).Value;
}
