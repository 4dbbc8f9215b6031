using MathNet.Numerics.Statistics;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Plugs;

/// <summary>How a plug's gap opens: wear belongs to the plug, wherever it sits.</summary>
/// <param name="Intervals">How many stretches between a setting and the next finding count.</param>
/// <param name="PerHundredHours">Growth of the gap in 100 h, in; null where it can't be told.</param>
/// <param name="HoursLeft">Hours from the last setting until the gap is out of limits; null where it can't be told.</param>
/// <param name="Why">What it rests on, or why it can't be told.</param>
public sealed record PlugWear(int Intervals, double? PerHundredHours, double? HoursLeft, string Why)
{
    /// <summary>
    /// Reads the wear off what was set and what was found: each stretch from a setting to the next finding gives a rate, and
    /// their median is the plug's.
    /// </summary>
    /// <param name="readings">Readings of one plug, of any kind and in any order.</param>
    /// <param name="greatestGap">The greatest good gap, in.</param>
    public static PlugWear Of(IEnumerable<Reading> readings, double greatestGap)
    {
        var gaps = readings.Where(reading => reading.Kind is PlugKinds.GapSet or PlugKinds.GapFound)
            .OrderBy(reading => reading.SeriesTime.Value).ThenBy(reading => reading.Kind == PlugKinds.GapSet).ToList();
        var rates = new List<double>();
        Reading? set = null;
        foreach (var gap in gaps)
        {
            if (gap.Kind == PlugKinds.GapFound && set is not null && gap.SeriesTime > set.SeriesTime)
                rates.Add((gap.Value - set.Value) / (double)(gap.SeriesTime.Value - set.SeriesTime.Value));
            if (gap.Kind == PlugKinds.GapSet)
                set = gap;
        }
        if (set is null)
            return new(0, null, null, "Its gap was never set on file.");
        if (rates.Count == 0)
            return new(0, null, null, "Found once since it was set: no rate yet.");
        var perHour = rates.Median();
        var from = $"from {(rates.Count == 1 ? "one stretch" : $"{rates.Count} stretches")} between setting and finding";
        return perHour <= 0
            ? new(rates.Count, null, null, $"No wear to be seen, {from}.")
            : new(rates.Count, perHour * 100, Math.Max(0, (greatestGap - set.Value) / perHour), $"Median, {from}.");
    }
}

/// <summary>How often a hole fouled its plug: fouling belongs to the hole, whichever plug sits in it.</summary>
/// <param name="Hole">The hole.</param>
/// <param name="Looks">What its plug looked like each time, latest first.</param>
public sealed record HoleHistory(PlugHole Hole, IReadOnlyList<(DateTimeOffset At, PlugLook Look)> Looks)
{
    public int Fouled => Looks.Count(look => look.Look.IsFouled());

    /// <param name="notes">Notes of this engine's plugs, of any inspection.</param>
    /// <param name="hole">The hole.</param>
    public static HoleHistory Of(IEnumerable<PlugNote> notes, PlugHole hole) => new(hole,
        [.. notes.Where(note => note.Hole == hole && note.Step == PlugStep.Look).OrderByDescending(note => note.At)
            .Select(note => (note.At, EnumNames.Read<PlugLook>(note.Said)))]);
}
