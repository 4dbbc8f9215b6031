namespace MellowRivet.Core.Schedule;

/// <summary>How much a plan may take.</summary>
/// <param name="Moves">Moves that are tried; null for what goes well with so many jobs.</param>
/// <param name="Limit">Time after which no more are.</param>
/// <param name="Runs">Runs of the spread.</param>
public sealed record PlanEffort(int? Moves, TimeSpan Limit, int Runs)
{
    public static readonly PlanEffort Usual = new(null, TimeSpan.FromMilliseconds(450), 1_000);

    internal int MovesFor(int jobs) => Moves ?? Math.Clamp(120_000 / Math.Max(1, jobs), 300, 3_000);
}

/// <summary>Makes the plan of a hangar.</summary>
public static class Planner
{
    // A helper is asked for two days: long enough to be worth the telephone call. The issue's own.
    private const int HelperDays = 2;
    private const string HelperId = "helper";

    /// <summary>Plans what can be planned, and says what can't.</summary>
    /// <param name="question">What there is to do, and with what; every job's name is its own.</param>
    /// <param name="seed">Of moves and draws: the same question with the same seed gets the same plan.</param>
    /// <param name="effort">How much it may take.</param>
    /// <param name="progress">Told how much is done, from 0 to 1.</param>
    /// <param name="stop">Stops it.</param>
    public static HangarPlan Plan(PlanQuestion question, int seed = 1, PlanEffort? effort = null, IProgress<double>? progress = null,
        CancellationToken stop = default)
    {
        effort ??= PlanEffort.Usual;
        var calendars = question.Hands.Select(hand => new HandCalendar(hand.Week, question.Start)).ToList();
        var (jobs, problems) = PlanCheck.Of(question, calendars);
        var shop = Workshop.Of(question, jobs, calendars);
        var table = new Improver(shop, seed, stop).Best(effort.MovesFor(jobs.Count), effort.Limit, Part(progress, 0, 0.4));
        // Nothing lies past the horizon but by a queue of more than ten years: what does is told, and left out.
        if (Enumerable.Range(0, jobs.Count).FirstOrDefault(job => table.End[job] >= HandCalendar.Never, -1) is >= 0 and var far)
            return Plan(question with { Jobs = [.. question.Jobs.Where(job => job.Id != jobs[far].Id)] }, seed, effort, progress, stop)
                is var rest ? rest with { Problems = [.. rest.Problems, new(jobs[far].Id, "hours",
                    $"{PlanCheck.Title(jobs[far])}: nobody gets to it within ten years.", true, jobs[far].Aircraft, jobs[far].Line)] }
                        : null!;
        var replay = new Replay(shop, table);
        var spread = jobs.Count == 0 ? [] : replay.Spread(effort.Runs, seed, Part(progress, 0.4, 0.8), stop);
        var told = new Telling(shop, table, replay);
        var plan = new HangarPlan(question.Start, told.Jobs(), told.Ready(spread, problems), told.Orders(), told.Short(), null,
            told.Loads(),
            question.Hands, [.. problems, .. told.Unkept()], effort.Runs, seed);
        progress?.Report(0.8);
        return plan with { Helper = plan.Short is null ? null : BestHelper(question, shop, table, seed, effort, progress, stop) };
    }

    // Somebody of each skill that anything takes is tried on the next two working days; of them that is told who changes most.
    private static Helper? BestHelper(PlanQuestion question, Workshop shop, Timetable without, int seed, PlanEffort effort,
        IProgress<double>? progress, CancellationToken stop)
    {
        var days = Enumerable.Range(0, 14).Select(question.Start.AddDays).Where(WorkWeek.Usual.WorksOn).Take(HelperDays).ToList();
        // By the days on which the shop works, where those are others.
        var week = new WorkWeek(WorkWeek.Usual.Begins, WorkWeek.Usual.HoursPerDay, [.. days.Select(day => day.DayOfWeek).Distinct()],
            [new(days[^1].AddDays(1), null)]);
        var (best, gain) = ((Helper?)null, 0.0);
        var skills = shop.Jobs.Where((_, job) => shop.Who[job].Length > 0).Select(job => job.Skill).OfType<string>().Distinct().ToList();
        foreach (var (skill, index) in skills.Select((skill, index) => (skill, index)))
        {
            progress?.Report(0.8 + (0.2 * index / skills.Count));
            var more = question with { Hands = [.. question.Hands, new(HelperId, "a helper", [skill], week)], Jobs = shop.Jobs };
            var calendars = shop.Calendars.Append(new HandCalendar(week, question.Start)).ToList();
            var with = Workshop.Of(more, shop.Jobs, calendars);
            var table = new Improver(with, seed, stop).Best(effort.MovesFor(shop.Jobs.Count) / 3, effort.Limit / 3, null);
            var (before, after) = (without.ReadyOf(shop), table.ReadyOf(with));
            var sooner = before.Select((minute, aircraft) => (Aircraft: shop.Registrations[aircraft],
                    Days: (minute / HandCalendar.Day) - (after[aircraft] / HandCalendar.Day)))
                .Where(one => one.Days > 0).ToDictionary(one => one.Aircraft, one => one.Days);
            if (sooner.Count == 0 || without.Cost - table.Cost <= gain)
                continue;
            (best, gain) = (new(skill, days, sooner), without.Cost - table.Cost);
        }
        return best;
    }

    private static Progress? Part(IProgress<double>? whole, double from, double to) => whole is null ? null : new(whole, from, to);

    private sealed class Progress(IProgress<double> whole, double from, double to) : IProgress<double>
    {
        public void Report(double value) => whole.Report(from + ((to - from) * value));
    }
}
