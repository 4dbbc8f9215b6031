using System.Diagnostics;

namespace MellowRivet.Core.Schedule;

/// <summary>
/// Looks for a good list: the best of a few rules of priority, then moved about, a job to another place of the list or to another hand.
/// Worse lists are taken as well at first, and less and less (simulated annealing; Kirkpatrick, 1983, from memory). The same question
/// gets the same answer as long as the time limit isn't reached.
/// </summary>
internal sealed class Improver(Workshop shop, int seed, CancellationToken stop)
{
    private readonly ListScheduler scheduler = new(shop);
    private readonly int count = shop.Jobs.Count;

    // A worse list is taken more easily while this is large, in minutes of cost.
    private const double Warm = 240, Cold = 0.05;

    /// <summary>The best timetable that was found.</summary>
    /// <param name="moves">Moves that are tried.</param>
    /// <param name="limit">Time after which no more are.</param>
    /// <param name="progress">Told how much is done, from 0 to 1.</param>
    public Timetable Best(int moves, TimeSpan limit, IProgress<double>? progress)
    {
        var from = Stopwatch.GetTimestamp();
        var (fixedFirst, held) = Pinned();
        var (order, hand) = (Array.Empty<int>(), Enumerable.Repeat(-1, count).ToArray());
        var best = new Timetable(count);
        var trial = new Timetable(count);
        foreach (var rule in Rules())
        {
            var list = InOrder(rule, held);
            scheduler.LayOut(list, hand, trial);
            if (order.Length == 0 || trial.Cost < best.Cost)
                (order, best, trial) = (list, trial, order.Length == 0 ? new(count) : best);
        }
        if (count - fixedFirst < 1)
            return best;
        var random = new Random(seed);
        var current = best.Cost;
        var kept = best;
        var place = new int[count];
        for (var at = 0; at < count; at++)
            place[order[at]] = at;
        var followers = Followers();
        for (var move = 0; move < moves && Stopwatch.GetElapsedTime(from) < limit; move++)
        {
            if (move % 64 == 0)
            {
                stop.ThrowIfCancellationRequested();
                progress?.Report((double)move / moves);
            }
            var job = order[random.Next(fixedFirst, count)];
            var (was, wasHand) = (place[job], hand[job]);
            if (shop.Who[job].Length > 1 && random.Next(3) == 0)
                hand[job] = random.Next(4) == 0 ? -1 : shop.Who[job][random.Next(shop.Who[job].Length)];
            else
            {
                var first = shop.After[job].Length == 0 ? fixedFirst
                    : Math.Max(fixedFirst, shop.After[job].Max(before => place[before]) + 1);
                var last = followers[job].Length == 0 ? count - 1 : followers[job].Min(after => place[after]) - 1;
                if (last <= first)
                    continue;
                Move(order, place, was, random.Next(first, last + 1));
            }
            if (place[job] == was && hand[job] == wasHand)
                continue;
            scheduler.LayOut(order, hand, trial);
            var warmth = Warm * Math.Pow(Cold / Warm, (double)move / moves);
            if (trial.Cost <= current || random.NextDouble() < Math.Exp((current - trial.Cost) / warmth))
            {
                current = trial.Cost;
                if (trial.Cost < kept.Cost)
                    (kept, trial) = (trial, kept);
            }
            else
            {
                hand[job] = wasHand;
                Move(order, place, place[job], was);
            }
        }
        return kept;
    }

    private static void Move(int[] order, int[] place, int from, int to)
    {
        var job = order[from];
        for (; from < to; from++)
            place[order[from] = order[from + 1]] = from;
        for (; from > to; from--)
            place[order[from] = order[from - 1]] = from;
        place[order[to] = job] = to;
    }

    // What is pinned to a day, and what it waits for, is laid out before the rest, which gives way.
    private (int Count, bool[] Held) Pinned()
    {
        var held = new bool[count];
        void Hold(int job)
        {
            if (held[job])
                return;
            held[job] = true;
            foreach (var before in shop.After[job])
                Hold(before);
        }
        for (var job = 0; job < count; job++)
            if (shop.Pinned[job])
                Hold(job);
        return (held.Count(one => one), held);
    }

    private int[][] Followers()
    {
        var after = Enumerable.Range(0, count).Select(_ => new List<int>()).ToArray();
        for (var job = 0; job < count; job++)
            foreach (var before in shop.After[job])
                after[before].Add(job);
        return [.. after.Select(one => one.ToArray())];
    }

    // Priorities, the least first: what was promised, the longest way to the end, what can begin first, the aircraft with least to do.
    private IEnumerable<double[]> Rules()
    {
        var tail = Tails();
        var whole = new double[shop.Registrations.Count];
        for (var job = 0; job < count; job++)
            whole[shop.Aircraft[job]] += shop.Minutes[job] + shop.Cure[job] + shop.Away[job];
        yield return [.. Enumerable.Range(0, count).Select(job => shop.Wanted[shop.Aircraft[job]] + (shop.Jobs[job].Turn * 1e-3))];
        yield return [.. Enumerable.Range(0, count).Select(job => (double)-tail[job])];
        yield return [.. Enumerable.Range(0, count).Select(job => shop.From[job] - (tail[job] * 1e-3))];
        yield return [.. Enumerable.Range(0, count).Select(job => whole[shop.Aircraft[job]] + (shop.Jobs[job].Turn * 1e-3))];
    }

    private int[] Tails()
    {
        var tail = new int[count];
        foreach (var job in InOrder(new double[count], new bool[count]).Reverse())
        {
            tail[job] += shop.Minutes[job] + shop.Cure[job] + shop.Away[job];
            foreach (var before in shop.After[job])
                tail[before] = Math.Max(tail[before], tail[job]);
        }
        return tail;
    }

    // The list that priorities make, none before what it waits for.
    private int[] InOrder(double[] priority, bool[] first)
    {
        var (waits, followers) = (shop.After.Select(after => after.Length).ToArray(), Followers());
        var ready = new PriorityQueue<int, (bool, double, int)>();
        void Offer(int job) => ready.Enqueue(job, (!first[job], priority[job], job));
        for (var job = 0; job < count; job++)
            if (waits[job] == 0)
                Offer(job);
        var order = new int[count];
        for (var at = 0; ready.TryDequeue(out var job, out _); at++)
        {
            order[at] = job;
            foreach (var after in followers[job])
                if (--waits[after] == 0)
                    Offer(after);
        }
        return order;
    }
}
