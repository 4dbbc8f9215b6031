using Google.OrTools.Sat;
using MellowRivet.Core.Schedule;

namespace MellowRivet.Core.Tests.Schedule;

// Checked against the exact solver of Google OR-Tools (CP-SAT, 9.15), which plans the same cases by another way: in steps of an
// hour, each hand on the axis of its own working hours.
public sealed class AgainstTheOptimumTests
{
    private const int Cases = 300, Step = 60, Day = 1440 / Step;

    [Fact]
    public void Three_hundred_small_shops_are_never_better_than_the_optimum_and_hardly_worse()
    {
        var gaps = new List<double>();
        var proved = 0;
        foreach (var seed in Enumerable.Range(1, Cases))
        {
            var question = RandomShop.Of(seed);
            var plan = Planner.Plan(question, 1, new(null, TimeSpan.FromMinutes(1), 1));
            plan.Problems.ShouldBeEmpty($"case {seed}");
            var ours = RandomShop.Cost(question, plan);
            // Our plan is told to it as one that there is: had it been none, there would be no answer.
            var (status, best, bound) = Solve(question, plan, (long)Math.Round(ours / Step));
            status.ShouldBeOneOf([CpSolverStatus.Optimal, CpSolverStatus.Feasible], $"case {seed}");
            ours.ShouldBeGreaterThanOrEqualTo((bound * Step) - 0.5, $"case {seed}");
            gaps.Add((ours / (best * Step)) - 1);
            proved += status == CpSolverStatus.Optimal ? 1 : 0;
        }
        proved.ShouldBeGreaterThan(Cases * 9 / 10);
        gaps.Average().ShouldBeLessThanOrEqualTo(0.05);
        TestContext.Current.SendDiagnosticMessage(
            $"{proved} of {Cases} proved; {gaps.Average():P2} over on average, {gaps.Max():P1} at most");
    }

    private static (CpSolverStatus Status, double Best, double Bound) Solve(PlanQuestion question, HangarPlan plan, long ours)
    {
        var model = new CpModel();
        // A day longer than our plan takes.
        var steps = Day * (2 + (plan.Jobs.Max(job => job.GoesOn) - question.Start.ToDateTime(TimeOnly.MinValue)).Days);
        var (through, onHand, atPlace) = (new Dictionary<string, LinearExpr>(), new List<IntervalVar>[question.Hands.Count],
            new List<IntervalVar>());
        for (var hand = 0; hand < onHand.Length; hand++)
            onHand[hand] = [];
        foreach (var job in question.Jobs)
        {
            var (start, end) = (model.NewIntVar(0, steps, $"{job.Id} start"), model.NewIntVar(0, steps, $"{job.Id} end"));
            var planned = plan.Jobs.Single(one => one.Job.Id == job.Id);
            model.AddHint(start, Of(question, planned.Start));
            model.AddHint(end, Of(question, planned.End));
            var chosen = new List<ILiteral>();
            for (var hand = 0; hand < question.Hands.Count; hand++)
            {
                if (job.Skill is not null && !question.Hands[hand].Skills.Contains(job.Skill))
                    continue;
                // On the axis of the hand's own working steps a job is as long as its work; what begins goes on over nights and days off.
                var (takes, working) = ((int)(job.Hours.Likely * 60 / Step), Working(question, question.Hands[hand].Week, steps));
                if (working.Count < takes)
                    continue;
                var here = model.NewBoolVar($"{job.Id} by {hand}");
                chosen.Add(here);
                var at = model.NewIntVar(0, working.Count - takes, "");
                var (from, to) = (model.NewIntVar(0, steps, ""), model.NewIntVar(0, steps, ""));
                model.AddElement(at, working, from);
                model.AddElement(at, working.Skip(takes - 1).Select(step => step + 1), to);
                model.Add(start == from).OnlyEnforceIf(here);
                model.Add(end == to).OnlyEnforceIf(here);
                var isOurs = planned.Hand == question.Hands[hand].Id;
                model.AddHint(here, isOurs);
                if (isOurs)
                    model.AddHint(at, working.IndexOf(Of(question, planned.Start)));
                onHand[hand].Add(model.NewOptionalFixedSizeIntervalVar(at, takes, here, ""));
            }
            model.AddExactlyOne(chosen);
            if (job.PartsOn(question.Start) is { } parts)
                model.Add(start >= (parts.DayNumber - question.Start.DayNumber) * Day);
            var cure = (int)(job.CureHours * 60 / Step);
            if (job.Place is not null)
            {
                var size = model.NewIntVar(1, steps, "");
                atPlace.Add(model.NewIntervalVar(start, size, end + cure, ""));
            }
            through[job.Id] = end + cure + (job.OutsideDays * Day);
            foreach (var before in job.After)
                model.Add(start >= through[before]);
        }
        foreach (var hand in onHand)
            model.AddNoOverlap(hand);
        var places = model.AddCumulative(question.Places["stand"]);
        places.AddDemands(atPlace, [.. atPlace.Select(_ => 1)]);
        var cost = LinearExpr.Constant(0);
        foreach (var aircraft in question.Jobs.GroupBy(job => job.Aircraft))
        {
            var ready = model.NewIntVar(0, steps * 2, aircraft.Key);
            foreach (var job in aircraft)
                model.Add(ready >= through[job.Id]);
            cost += ready;
            if (!question.Wanted.TryGetValue(aircraft.Key, out var day))
                continue;
            var late = model.NewIntVar(0, steps * 2, $"{aircraft.Key} late");
            model.Add(late >= ready - ((day.AddDays(1).DayNumber - question.Start.DayNumber) * Day));
            cost += late * 10;
        }
        model.Add(cost <= ours);
        model.Minimize(cost);
        // By work and not by time: a busy machine gets the same answers.
        var solver = new CpSolver
            { StringParameters = "num_workers:1, max_deterministic_time:0.3, cp_model_probing_level:0, symmetry_level:0" };
        var status = solver.Solve(model);
        return (status, solver.ObjectiveValue, solver.BestObjectiveBound);
    }

    private static long Of(PlanQuestion question, DateTime at) =>
        (long)(at - question.Start.ToDateTime(TimeOnly.MinValue)).TotalHours;

    private static List<long> Working(PlanQuestion question, WorkWeek week, int steps) => [.. Enumerable.Range(0, steps).Where(step =>
        week.WorksOn(question.Start.AddDays(step / Day)) && step % Day * Step is var minute
        && minute >= week.Begins.ToTimeSpan().TotalMinutes
        && minute < week.Begins.ToTimeSpan().TotalMinutes + ((double)week.HoursPerDay * 60)).Select(step => (long)step)];
}
