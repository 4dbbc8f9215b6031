using System.Diagnostics;
using MellowRivet.Core.Schedule;

namespace MellowRivet.Web.Hosting.Benchmarking;

/// <summary>Measures the plan of a full hangar: forty aircraft in work, four hundred jobs, eight people.</summary>
internal static class PlanBench
{
    private const int Aircraft = 40, JobsEach = 10, Rounds = 7;

    public static void Run()
    {
        var question = Full();
        var (planned, spread, told) = (new List<double>(), new List<double>(), new List<double>());
        for (var round = 0; round < Rounds; round++)
        {
            var clock = new Laps();
            Planner.Plan(question, round + 1, null, clock);
            var (from, to, end) = (clock.At(0.4), clock.At(0.8), clock.Now);
            planned.Add(from);
            spread.Add(to - from);
            told.Add(end - to);
        }
        static double Middle(List<double> times) => times.Order().ElementAt(Rounds / 2);
        Console.WriteLine($"{Aircraft} aircraft, {question.Jobs.Count} jobs, {question.Hands.Count} people, {Rounds} times, median: "
            + $"planned in {Middle(planned):0} ms, {PlanEffort.Usual.Runs:#,0} runs of the spread in {Middle(spread):0} ms more, what a "
            + $"helper changes in {Middle(told):0} ms more.");
    }

    private sealed class Laps : IProgress<double>
    {
        private readonly long from = Stopwatch.GetTimestamp();
        private readonly List<(double Share, double At)> seen = [];

        public double Now => Stopwatch.GetElapsedTime(from).TotalMilliseconds;
        public void Report(double value) => seen.Add((value, Now));
        public double At(double share) => seen.First(one => one.Share >= share - 1e-9).At;
    }

    private static PlanQuestion Full()
    {
        var (random, monday) = (new Random(40), new DateOnly(2027, 3, 1));
        string[][] skills = [["inspector", "mechanic", "assistant"], ["inspector", "mechanic"], .. Enumerable.Repeat<string[]>(
            ["mechanic", "assistant"], 4), ["assistant"], ["assistant"]];
        return new(monday, [.. skills.Select((one, index) => new Hand($"h{index}", $"h{index}", one, WorkWeek.Usual))],
            [.. Enumerable.Range(0, Aircraft).SelectMany(aircraft => Enumerable.Range(0, JobsEach).Select(job =>
                new PlanJob($"{aircraft}/{job}", $"N0{aircraft:00}")
                {
                    Skill = job == JobsEach - 1 ? "inspector" : job % 4 == 3 ? "assistant" : "mechanic", Turn = job, Finds = job < 3,
                    Hours = new(random.Next(1, 4), random.Next(4, 7), random.Next(7, 14)), CureHours = random.Next(8) == 0 ? 14 : 0,
                    LeadDays = random.Next(6) == 0 ? random.Next(3, 60) : null, Place = random.Next(10) == 0 ? "stand" : null,
                    After = job == JobsEach - 1 ? [.. Enumerable.Range(0, job).Select(before => $"{aircraft}/{before}")]
                        : job > 2 && random.Next(3) == 0 ? [$"{aircraft}/{job - 1}"] : [],
                }))], new Dictionary<string, int> { ["stand"] = 3 },
            Enumerable.Range(0, 10).ToDictionary(aircraft => $"N0{aircraft:00}", aircraft => monday.AddDays(10 + (3 * aircraft))));
    }
}
