using MellowRivet.Core.Estimates;
using MellowRivet.Core.Schedule;

namespace MellowRivet.Core.Tests.Schedule;

/// <summary>Small shops at random: up to twelve jobs on up to three aircraft, three hands, skills, order, parts, cures, a place.</summary>
internal static class RandomShop
{
    public static readonly DateOnly Monday = new(2027, 3, 1);

    private static readonly string[] Skills = ["inspector", "mechanic", "assistant"];

    public static PlanQuestion Of(int seed)
    {
        var random = new Random(seed);
        var hands = Enumerable.Range(0, random.Next(1, 4)).Select(index => new Hand($"h{index}", $"Hand {index}",
            [.. index == 0 ? Skills : Skills.Where(_ => random.Next(2) == 0).DefaultIfEmpty("mechanic")],
            WorkWeek.Usual with
            {
                HoursPerDay = random.Next(6, 9),
                Off = random.Next(3) == 0 ? [new(Monday.AddDays(random.Next(5)), Monday.AddDays(random.Next(5, 7)))] : [],
            })).ToList();
        var jobs = Enumerable.Range(0, Math.Min(random.Next(4, 13), random.Next(4, 13))).Select(index => new PlanJob($"j{index}",
            $"N0{"ABC"[random.Next(3)]}")
        {
            Skill = random.Next(5) == 0 ? null : Skills[random.Next(3)], Hours = Spread.Of(random.Next(1, 8)),
            After = [.. Enumerable.Range(0, index).Where(_ => random.Next(7) == 0).Select(other => $"j{other}")],
            LeadDays = random.Next(5) == 0 ? random.Next(1, 6) : null, CureHours = random.Next(6) == 0 ? random.Next(1, 30) : 0,
            OutsideDays = random.Next(10) == 0 ? random.Next(1, 4) : 0, Place = random.Next(5) == 0 ? "stand" : null,
        }).ToList();
        return new(Monday, hands, jobs, new Dictionary<string, int> { ["stand"] = random.Next(1, 3) },
            random.Next(2) == 0 ? new Dictionary<string, DateOnly> { ["N0A"] = Monday.AddDays(random.Next(1, 8)) } : []);
    }

    /// <summary>
    /// What a plan costs, as the planner weighs it, from its jobs alone: minutes until each aircraft is ready, late ones tenfold.
    /// </summary>
    public static double Cost(PlanQuestion question, HangarPlan plan) => plan.Jobs.GroupBy(job => job.Job.Aircraft).Sum(aircraft =>
    {
        var ready = aircraft.Max(job => (job.GoesOn - question.Start.ToDateTime(TimeOnly.MinValue)).TotalMinutes);
        var wanted = question.Wanted.TryGetValue(aircraft.Key, out var day)
            ? (day.AddDays(1).DayNumber - question.Start.DayNumber) * 1440.0 : double.MaxValue;
        return ready + (10 * Math.Max(0, ready - wanted));
    });
}
