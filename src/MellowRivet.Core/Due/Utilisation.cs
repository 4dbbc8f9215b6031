using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Due;

/// <summary>A total on a day: hours, landings or cycles.</summary>
public readonly record struct Count(DateOnly On, decimal Total);

/// <summary>
/// How much an aircraft is used, from its own readings: the usual rate by Theil–Sen (the median of all pairwise slopes), and
/// the slow and busy rates that one stretch of a month or more in ten falls below and one in ten above.
/// </summary>
/// <param name="PerDay">The usual rate, per day.</param>
/// <param name="SlowPerDay">The slow rate; null under four readings.</param>
/// <param name="BusyPerDay">The busy rate; null under four readings.</param>
/// <param name="Readings">How many readings it rests on.</param>
public sealed record Utilisation(double PerDay, double? SlowPerDay, double? BusyPerDay, int Readings)
{
    /// <summary>Readings older than this before the latest don't say how the aircraft is used now.</summary>
    public const int MonthsLookedAt = 24;

    private const int MostReadings = 36;
    private const int ShortestStretchDays = 28;

    /// <summary>The use, or null with fewer than two readings on different days: then there is no forecast.</summary>
    public static Utilisation? Of(IEnumerable<Count> readings)
    {
        var byDay = readings.OrderBy(reading => reading.On).ThenBy(reading => reading.Total).ToList();
        if (byDay.Count < 2 || byDay[0].On == byDay[^1].On)
            return null;
        var recent = byDay.Where(reading => reading.On >= byDay[^1].On.AddMonths(-MonthsLookedAt)).ToList();
        var used = Thinned(recent.Count >= 2 && recent[0].On < recent[^1].On ? recent : byDay[^2..]);
        if (used.Count < 2 || used[0].On == used[^1].On)
            used = [byDay[0], byDay[^1]];

        var rates = new List<double>();
        var stretches = new List<double>();
        for (var i = 0; i < used.Count; i++)
            for (var j = i + 1; j < used.Count; j++)
            {
                var days = used[j].On.DayNumber - used[i].On.DayNumber;
                if (days == 0)
                    continue;
                var rate = (double)(used[j].Total - used[i].Total) / days;
                rates.Add(rate);
                if (days >= ShortestStretchDays)
                    stretches.Add(rate);
            }
        stretches.Sort();
        var hasRange = used.Count >= Trend.FewestPoints && stretches.Count >= Trend.FewestPoints;
        return new(Math.Max(0, Median(rates)),
            hasRange ? Math.Max(0, stretches[stretches.Count / 10]) : null,
            hasRange ? stretches[stretches.Count - 1 - stretches.Count / 10] : null, used.Count);
    }

    // The last reading of each month says as much as every day's, in a hundredth of the time.
    private static List<Count> Thinned(List<Count> readings) => readings.Count <= MostReadings
        ? readings
        : [.. readings.GroupBy(reading => (reading.On.Year, reading.On.Month)).Select(month => month.Last())];

    private static double Median(List<double> values)
    {
        values.Sort();
        var middle = values.Count / 2;
        return values.Count % 2 == 1 ? values[middle] : (values[middle - 1] + values[middle]) / 2;
    }

    /// <summary>Days until so much more has been counted, at the usual, busy and slow rate; null where it is never at that rate.</summary>
    public (int? Usual, int? Soonest, int? Latest) DaysFor(decimal remaining) =>
        (Days(PerDay, remaining), Days(BusyPerDay, remaining), Days(SlowPerDay, remaining));

    private static int? Days(double? perDay, decimal remaining)
    {
        if (perDay is not > 0)
            return null;
        var days = Math.Floor((double)Math.Max(0, remaining) / perDay.Value + 1e-9);
        return days < 100_000 ? (int)days : null;
    }
}
