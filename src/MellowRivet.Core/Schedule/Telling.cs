namespace MellowRivet.Core.Schedule;

/// <summary>What a timetable comes to in days and words: what keeps each job, what decides each aircraft, what to order.</summary>
internal sealed class Telling
{
    private readonly Workshop shop;
    private readonly Timetable table;
    private readonly Replay replay;
    private readonly int[] handBefore, unitBefore;

    public Telling(Workshop shop, Timetable table, Replay replay)
    {
        (this.shop, this.table, this.replay) = (shop, table, replay);
        (handBefore, unitBefore) = (Before(job => table.Hand[job], job => table.End[job]),
            Before(job => table.Unit[job] < 0 ? -1 : (shop.Place[job] * 10_000) + table.Unit[job], job => table.End[job] + shop.Cure[job]));
    }

    // The last job on the same hand or place that is through before one begins; −1 for none.
    private int[] Before(Func<int, int> on, Func<int, int> until)
    {
        var last = new int[shop.Jobs.Count];
        Array.Fill(last, -1);
        foreach (var same in Enumerable.Range(0, last.Length).Where(job => on(job) >= 0).GroupBy(on))
        {
            var inTurn = same.OrderBy(job => table.Start[job]).ThenBy(until).ToList();
            for (var at = 1; at < inTurn.Count; at++)
                last[inTurn[at]] = inTurn[at - 1];
        }
        return last;
    }

    private DateTime At(int minute) => shop.Question.Start.ToDateTime(TimeOnly.MinValue).AddMinutes(minute);

    private DateOnly DayAt(int minute) => shop.Question.Start.AddDays(minute / HandCalendar.Day);

    private (BoundBy By, int Job) Binding(int job)
    {
        var (by, at, which) = (BoundBy.Nothing, shop.Question.FromMinute, -1);
        var question = shop.Question;
        void Try(BoundBy reason, int minute, int other = -1)
        {
            if (minute > at)
                (by, at, which) = (reason, minute, other);
        }
        int Of(DateOnly? day) => day is { } when ? (when.DayNumber - question.Start.DayNumber) * HandCalendar.Day : -1;
        Try(BoundBy.Parts, Of(shop.Jobs[job].PartsOn(question.Start)));
        Try(shop.Jobs[job].Part.Length > 0 ? BoundBy.Parts : BoundBy.Day, Of(shop.Jobs[job].NotBefore));
        Try(BoundBy.Day, Of(shop.Jobs[job].Pin?.Day));
        foreach (var other in shop.After[job])
            Try(BoundBy.Other, table.Through[other], other);
        if (unitBefore[job] is >= 0 and var there)
            Try(BoundBy.Place, table.End[there] + shop.Cure[there], there);
        if (handBefore[job] is >= 0 and var last)
            Try(BoundBy.Hand, table.End[last], last);
        return (by, which);
    }

    public IReadOnlyList<PlacedJob> Jobs() =>
    [
        .. Enumerable.Range(0, shop.Jobs.Count).OrderBy(job => table.Start[job]).ThenBy(job => table.End[job]).Select(job =>
        {
            var (by, other) = Binding(job);
            return new PlacedJob(shop.Jobs[job], table.Hand[job] is >= 0 and var hand ? shop.Question.Hands[hand].Id : null,
                At(table.Start[job]), At(table.End[job]), At(table.Through[job]), by, other >= 0 ? shop.Jobs[other].Id : null);
        }),
    ];

    public IReadOnlyList<AircraftReady> Ready(int[][] spread, IReadOnlyList<PlanProblem> problems)
    {
        return
        [
            .. shop.Registrations.Select((aircraft, index) =>
            {
                var (chain, by) = Deciding(index);
                var wanted = shop.Question.Wanted.TryGetValue(aircraft, out var day) ? day : (DateOnly?)null;
                var inTime = spread[index].Count(minute => wanted is null || DayAt(minute) <= wanted) / (double)spread[index].Length;
                return new AircraftReady(aircraft, DayAt(HangarPlan.At(spread[index], 0.5)), DayAt(HangarPlan.At(spread[index], 0.9)),
                    [.. chain.Select(job => shop.Jobs[job].Id)], by, wanted, inTime,
                    problems.Count(problem => problem.IsLeftOut && problem.Aircraft == aircraft));
            }).OrderBy(ready => ready.Likely).ThenBy(ready => ready.Aircraft, StringComparer.Ordinal),
        ];
    }

    // Back from the job that is through last, by what keeps each one.
    private (List<int> Chain, string By) Deciding(int aircraft)
    {
        var job = Enumerable.Range(0, shop.Jobs.Count).Where(job => shop.Aircraft[job] == aircraft).MaxBy(job => table.Through[job]);
        List<(int Job, BoundBy By)> chain = [];
        while (true)
        {
            var (by, other) = Binding(job);
            chain.Insert(0, (job, by));
            if (other < 0)
                break;
            job = other;
        }
        return ([.. chain.Select(one => one.Job)], InWords(chain, aircraft));
    }

    private string InWords(List<(int Job, BoundBy By)> chain, int aircraft)
    {
        var (first, by) = chain[0];
        if (by == BoundBy.Parts)
        {
            var job = shop.Jobs[first];
            var day = new[] { job.PartsOn(shop.Question.Start), job.NotBefore }.Max();
            return $"{(job.Part.Length > 0 ? job.Part : $"a part for {PlanCheck.Title(job)}")}: here {day:yyyy-MM-dd}"
                + (job.IsToOrder ? $", if it is ordered {OrderedBy(first)}" : "");
        }
        if (by == BoundBy.Day)
            return $"{PlanCheck.Title(shop.Jobs[first])}: not before {DayAt(shop.From[first]):yyyy-MM-dd}"
                + (shop.Jobs[first].Because.Length > 0 ? $", {shop.Jobs[first].Because}" : "");
        // What is waited for longest on the way: work of a hand, a cure, an outside shop.
        var hands = chain.Where(one => table.Hand[one.Job] >= 0).GroupBy(one => table.Hand[one.Job])
            .Select(group => (Hand: group.Key, Minutes: group.Sum(one => shop.Minutes[one.Job]),
                Others: group.Count(one => shop.Aircraft[one.Job] != aircraft))).OrderByDescending(one => one.Minutes).ToList();
        var away = chain.OrderByDescending(one => shop.Away[one.Job] + shop.Cure[one.Job]).First().Job;
        var waited = shop.Away[away] + shop.Cure[away];
        // A hand's day is a third of a day of waiting.
        if (waited > 0 && (hands.Count == 0 || waited > 3 * hands[0].Minutes))
            return shop.Away[away] > 0
                ? $"{PlanCheck.Title(shop.Jobs[away])}: {shop.Jobs[away].OutsideDays} days outside"
                : $"{PlanCheck.Title(shop.Jobs[away])}: {shop.Jobs[away].CureHours:0.#} h to cure";
        if (hands.Count == 0)
            return "nothing takes a hand";
        var (hand, minutes, others) = hands[0];
        return $"{shop.Question.Hands[hand].Name}: {minutes / 60.0:0.#} h one after the other"
            + (others > 0 ? $", {others} {(others == 1 ? "job" : "jobs")} of that on other aircraft" : "");
    }

    private string OrderedBy(int job) => OrderBefore(job) is var day && day > shop.Question.Start ? $"by {day:yyyy-MM-dd}" : "today";

    private DateOnly OrderBefore(int job) => Orders().First(order => order.Job == shop.Jobs[job].Id || SameLine(order.Job, job)).By;

    private bool SameLine(string id, int job) =>
        shop.Jobs[job].Line is { } line && shop.Jobs.First(other => other.Id == id).Line is { } of && (of.Order, of.Key) == (line.Order,
            line.Key);

    private IReadOnlyList<OrderBy>? orders;

    /// <summary>Parts to order, and the last day on which each does.</summary>
    public IReadOnlyList<OrderBy> Orders() => orders ??= Reckoned();

    private IReadOnlyList<OrderBy> Reckoned()
    {
        var (ready, moved) = (new int[shop.Registrations.Count], new int[shop.Registrations.Count]);
        replay.Run(shop.Minutes, ready);
        bool Moves(int[] jobs, int days)
        {
            replay.Run(shop.Minutes, moved, jobs, days);
            return moved.Where((minute, aircraft) => minute / HandCalendar.Day > ready[aircraft] / HandCalendar.Day).Any();
        }
        int Last(int[] jobs)
        {
            var (low, high) = (0, 1);
            // In a replay what comes later makes nothing earlier, so halving finds the day.
            while (high < 512 && !Moves(jobs, high))
                (low, high) = (high, high * 2);
            while (high - low > 1)
                (low, high) = Moves(jobs, (low + high) / 2) ? (low, (low + high) / 2) : ((low + high) / 2, high);
            return low;
        }
        return
        [
            // Two hands' work of one line waits for the same part.
            .. Enumerable.Range(0, shop.Jobs.Count).Where(job => shop.Jobs[job].IsToOrder)
                .GroupBy(job => shop.Jobs[job].Line is { } line ? $"{line.Order}/{line.Key}" : shop.Jobs[job].Id)
                .Select(part => new OrderBy(shop.Jobs[part.First()].Id, shop.Question.Start.AddDays(Last([.. part]))))
                .OrderBy(order => order.By).ThenBy(order => order.Job, StringComparer.Ordinal),
        ];
    }

    /// <summary>The skill that what could go on waits for longest.</summary>
    public ShortHand? Short()
    {
        var waits = new List<(string Skill, int Minutes)>();
        for (var job = 0; job < shop.Jobs.Count; job++)
        {
            if (table.Hand[job] < 0 || shop.Jobs[job].Skill is not { } skill)
                continue;
            var could = shop.From[job];
            foreach (var other in shop.After[job])
                could = Math.Max(could, table.Through[other]);
            var free = shop.Who[job].Min(hand => shop.Calendars[hand].Next(could));
            var calendar = shop.Calendars[table.Hand[job]];
            if (calendar.Before(table.Start[job]) - calendar.Before(Math.Min(free, table.Start[job])) is > 0 and var minutes)
                waits.Add((skill, minutes));
        }
        return waits.GroupBy(wait => wait.Skill)
            .Select(skill => new ShortHand(skill.Key, Math.Round(skill.Sum(wait => wait.Minutes) / 60m, 1), skill.Count()))
            .MaxBy(skill => skill.Hours);
    }

    public IReadOnlyList<HandLoad> Loads()
    {
        var last = table.End.DefaultIfEmpty(0).Max();
        return
        [
            .. shop.Question.Hands.Select((hand, index) =>
            {
                var busy = Enumerable.Range(0, shop.Jobs.Count).Where(job => table.Hand[job] == index).Sum(job => shop.Minutes[job]);
                var there = shop.Calendars[index].Before(last) - shop.Calendars[index].Before(shop.Question.FromMinute);
                return new HandLoad(hand.Id, Math.Round(busy / 60m, 2), Math.Round(Math.Max(0, there - busy) / 60m, 2));
            }),
        ];
    }

    /// <summary>Jobs that begin later than the day they are pinned to.</summary>
    public IEnumerable<PlanProblem> Unkept() => Enumerable.Range(0, shop.Jobs.Count)
        .Where(job => shop.Jobs[job].Pin is { Day: { } day } && day >= shop.Question.Start && DayAt(table.Start[job]) > day)
        .Select(job =>
        {
            var (by, other) = Binding(job);
            var why = by switch
            {
                BoundBy.Parts => "its parts aren’t here before",
                BoundBy.Other => $"it waits for {PlanCheck.Title(shop.Jobs[other])}",
                BoundBy.Place => "its place isn’t free before",
                BoundBy.Hand => "no hand is free before",
                _ => "nobody who can do it works on that day",
            };
            return new PlanProblem(shop.Jobs[job].Id, "pin",
                $"{PlanCheck.Title(shop.Jobs[job])}: pinned to {shop.Jobs[job].Pin!.Day:yyyy-MM-dd}, planned "
                + $"{DayAt(table.Start[job]):yyyy-MM-dd}: {why}.", false, shop.Jobs[job].Aircraft, shop.Jobs[job].Line);
        });
}
