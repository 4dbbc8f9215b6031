namespace MellowRivet.Core.Schedule;

/// <summary>
/// A plan gone through again with other hours: every hand and every place takes its jobs in the same order, each as soon as it can.
/// </summary>
internal sealed class Replay
{
    private readonly Workshop shop;
    private readonly Timetable plan;
    private readonly int[] order, beforeOnHand, beforeOnUnit;
    private readonly int[] end, held, through;

    public Replay(Workshop shop, Timetable plan)
    {
        (this.shop, this.plan) = (shop, plan);
        var count = shop.Jobs.Count;
        (end, held, through) = (new int[count], new int[count], new int[count]);
        // By start, and what waits for another after it, though that may take no time.
        var depth = new int[count];
        int Depth(int job) => depth[job] > 0 ? depth[job]
            : depth[job] = 1 + (shop.After[job].Length == 0 ? 0 : shop.After[job].Max(Depth));
        order = [.. Enumerable.Range(0, count).OrderBy(job => plan.Start[job]).ThenBy(job => plan.End[job]).ThenBy(Depth)];
        (beforeOnHand, beforeOnUnit) = (new int[count], new int[count]);
        var (onHand, onUnit) = (new Dictionary<int, int>(), new Dictionary<(int, int), int>());
        foreach (var job in order)
        {
            beforeOnHand[job] = plan.Hand[job] >= 0 && onHand.TryGetValue(plan.Hand[job], out var last) ? last : -1;
            beforeOnUnit[job] = plan.Unit[job] >= 0 && onUnit.TryGetValue((shop.Place[job], plan.Unit[job]), out var there) ? there : -1;
            if (plan.Hand[job] >= 0)
                onHand[plan.Hand[job]] = job;
            if (plan.Unit[job] >= 0)
                onUnit[(shop.Place[job], plan.Unit[job])] = job;
        }
    }

    /// <summary>When each aircraft is ready.</summary>
    /// <param name="minutes">Minutes of each job.</param>
    /// <param name="ready">Where it is written.</param>
    /// <param name="later">Jobs whose part comes later than was said; null for none.</param>
    /// <param name="days">By how many days.</param>
    public void Run(int[] minutes, int[] ready, IReadOnlyCollection<int>? later = null, int days = 0)
    {
        Array.Clear(ready);
        foreach (var job in order)
        {
            var from = shop.From[job];
            if (later?.Contains(job) == true)
                from = Math.Max(from, ShiftedParts(job, days));
            foreach (var before in shop.After[job])
                from = Math.Max(from, through[before]);
            if (beforeOnHand[job] is >= 0 and var last)
                from = Math.Max(from, end[last]);
            if (beforeOnUnit[job] is >= 0 and var there)
                from = Math.Max(from, held[there]);
            if (plan.Hand[job] is >= 0 and var hand)
                end[job] = shop.Calendars[hand].Finish(shop.Calendars[hand].Next(from), minutes[job]);
            else
                end[job] = from;
            held[job] = end[job] + shop.Cure[job];
            through[job] = held[job] + shop.Away[job];
            ready[shop.Aircraft[job]] = Math.Max(ready[shop.Aircraft[job]], through[job]);
        }
    }

    private int ShiftedParts(int job, int days) =>
        (shop.Jobs[job].PartsOn(shop.Question.Start)!.Value.DayNumber - shop.Question.Start.DayNumber + days) * HandCalendar.Day;

    /// <summary>Ready minutes of each aircraft in many runs with drawn hours, in order; hours are independent of one another.</summary>
    public int[][] Spread(int runs, int seed, IProgress<double>? progress, CancellationToken stop)
    {
        var (random, minutes) = (new Random(seed), (int[])shop.Minutes.Clone());
        var ranges = shop.Jobs.Select((job, index) => (Index: index, job.Hours)).Where(job => job.Hours.IsRange).ToList();
        var ready = new int[shop.Registrations.Count];
        var all = ready.Select(_ => new int[runs]).ToArray();
        for (var run = 0; run < runs; run++)
        {
            if (run % 64 == 0)
            {
                stop.ThrowIfCancellationRequested();
                progress?.Report((double)run / runs);
            }
            foreach (var (index, hours) in ranges)
                minutes[index] = (int)Math.Round(hours.Quantile(random.NextDouble()) * 60);
            Run(minutes, ready);
            for (var aircraft = 0; aircraft < ready.Length; aircraft++)
                all[aircraft][run] = ready[aircraft];
        }
        foreach (var one in all)
            Array.Sort(one);
        return all;
    }
}
