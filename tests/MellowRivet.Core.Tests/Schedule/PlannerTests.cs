using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Schedule;

namespace MellowRivet.Core.Tests.Schedule;

public sealed class PlannerTests
{
    private static readonly DateOnly Monday = RandomShop.Monday;
    private static readonly PlanEffort Quick = new(200, TimeSpan.FromMinutes(1), 200);

    private static Hand Hand(string id, params string[] skills) => new(id, id, skills, WorkWeek.Usual);

    private static PlanJob Job(string id, decimal hours, string aircraft = "N0A") => new(id, aircraft)
        { Title = id, Skill = "mechanic", Hours = Spread.Of(hours) };

    private static HangarPlan Plan(IReadOnlyList<Hand> hands, IReadOnlyList<PlanJob> jobs, Dictionary<string, DateOnly>? wanted = null,
        Dictionary<string, int>? places = null) => Planner.Plan(new(Monday, hands, jobs, places ?? [], wanted ?? []), 1, Quick);

    private static PlacedJob Of(HangarPlan plan, string id) => plan.Jobs.Single(job => job.Job.Id == id);

    // A law of every plan: nobody in two places, nobody without the skill or on a day off, no place over-full, nothing before what it
    // waits for, and of each job exactly its hours.
    [Fact]
    public void Every_plan_can_be_worked() => Prop.ForAll(ArbMap.Default.ArbFor<PositiveInt>(), seed =>
    {
        var question = RandomShop.Of(seed.Get);
        var plan = Planner.Plan(question, seed.Get, new(60, TimeSpan.FromMinutes(1), 2));
        var jobs = plan.Jobs.ToDictionary(job => job.Job.Id);
        jobs.Count.ShouldBe(question.Jobs.Count);
        foreach (var job in plan.Jobs)
        {
            var hand = question.Hands.Single(one => one.Id == job.Hand);
            (job.Job.Skill is null || hand.Skills.Contains(job.Job.Skill)).ShouldBeTrue();
            Worked(hand.Week, job.Start, job.End).ShouldBe((double)job.Job.Hours.Likely, 0.001);
            foreach (var before in job.Job.After)
                job.Start.ShouldBeGreaterThanOrEqualTo(jobs[before].GoesOn);
            if (job.Job.LeadDays is { } days)
                DateOnly.FromDateTime(job.Start).ShouldBeGreaterThanOrEqualTo(question.Start.AddDays(days));
            job.GoesOn.ShouldBe(job.End.AddHours((double)job.Job.CureHours).AddDays(job.Job.OutsideDays));
        }
        foreach (var mine in plan.Jobs.GroupBy(job => job.Hand))
            foreach (var (one, next) in mine.OrderBy(job => job.Start).Zip(mine.OrderBy(job => job.Start).Skip(1)))
                next.Start.ShouldBeGreaterThanOrEqualTo(one.End);
        var there = plan.Jobs.Where(job => job.Job.Place is not null).ToList();
        foreach (var job in there)
            there.Count(other => other.Start <= job.Start && job.Start < other.End.AddHours((double)other.Job.CureHours))
                .ShouldBeLessThanOrEqualTo(question.Places["stand"]);
        foreach (var ready in plan.Aircraft)
            ready.NineInTen.ShouldBeGreaterThanOrEqualTo(ready.Likely);
    }).QuickCheckThrowOnFailure();

    // By the hour, and not by the planner's own calendar.
    private static double Worked(WorkWeek week, DateTime from, DateTime to)
    {
        var hours = 0.0;
        for (var day = DateOnly.FromDateTime(from); day <= DateOnly.FromDateTime(to); day = day.AddDays(1))
            if (week.WorksOn(day))
            {
                var (opens, closes) = (day.ToDateTime(week.Begins), day.ToDateTime(week.Begins).AddHours((double)week.HoursPerDay));
                var (begin, end) = (from > opens ? from : opens, to < closes ? to : closes);
                hours += Math.Max(0, (end - begin).TotalHours);
            }
        return hours;
    }

    // domain.md section 17: a 12-week part found on day 1 and one found on day 8 differ by a week at the end.
    [Fact]
    public void A_part_found_a_week_later_makes_the_aircraft_a_week_later()
    {
        HangarPlan Found(DateOnly on) => Plan([Hand("Ines", "mechanic")],
            [Job("fit", 4) with { LeadDays = 84, OrderedOn = on }]);
        Found(Monday).Aircraft[0].Likely.ShouldBe(new(2027, 5, 24));
        Found(Monday.AddDays(7)).Aircraft[0].Likely.ShouldBe(new(2027, 5, 31));
    }

    // domain.md section 17: two people don't halve a job that only an inspector may do.
    [Fact]
    public void A_second_mechanic_does_nothing_for_an_inspectors_hours()
    {
        PlanJob[] jobs = [.. new[] { "one", "two" }.Select(id => Job(id, 16) with { Skill = "inspector" })];
        var alone = Plan([Hand("Orla", "inspector", "mechanic")], jobs);
        var two = Plan([Hand("Orla", "inspector", "mechanic"), Hand("Ines", "mechanic")], jobs);
        alone.Aircraft[0].Likely.ShouldBe(new(2027, 3, 4));
        two.Aircraft[0].Likely.ShouldBe(alone.Aircraft[0].Likely);
        Plan([Hand("Orla", "inspector"), Hand("Una", "inspector")], jobs).Aircraft[0].Likely.ShouldBe(new(2027, 3, 2));
        two.Short!.Skill.ShouldBe("inspector");
        two.Helper!.Skill.ShouldBe("inspector");
        two.Helper.Sooner["N0A"].ShouldBe(2);
    }

    [Fact]
    public void Work_goes_on_over_nights_weekends_and_days_off()
    {
        var week = WorkWeek.Usual with { Off = [new(Monday.AddDays(1), Monday.AddDays(1))] };
        var plan = Plan([new("Ines", "Ines", ["mechanic"], week)], [Job("long", 34)]);
        // Monday, Wednesday, Thursday and Friday make 32 h; the last two are on the next Monday from eight.
        (Of(plan, "long").Start, Of(plan, "long").End).ShouldBe((new(2027, 3, 1, 8, 0, 0), new(2027, 3, 8, 10, 0, 0)));
    }

    [Fact]
    public void While_it_cures_the_place_is_taken_and_while_it_is_away_it_is_not()
    {
        var plan = Plan([Hand("Ines", "mechanic"), Hand("Wim", "mechanic")],
        [
            Job("glue", 2) with { CureHours = 30, Place = "stand", Turn = 0 }, Job("next", 2, "N0B") with { Place = "stand", Turn = 1 },
            Job("paint", 1) with { After = ["glue"] }, Job("send", 1, "N0C") with { OutsideDays = 10, Place = "hoist" },
            Job("hoist", 1, "N0C") with { Place = "hoist" }, Job("fit", 1, "N0C") with { After = ["send"] },
        ], places: new() { ["stand"] = 1 });
        var (first, second) = Of(plan, "glue").Start < Of(plan, "next").Start ? ("glue", "next") : ("next", "glue");
        Of(plan, second).Start.ShouldBeGreaterThanOrEqualTo(first == "glue" ? Of(plan, "glue").End.AddHours(30) : Of(plan, "next").End);
        Of(plan, "paint").Start.ShouldBeGreaterThanOrEqualTo(Of(plan, "glue").GoesOn);
        Of(plan, "hoist").Start.Date.ShouldBe(Monday.ToDateTime(TimeOnly.MinValue));
        Of(plan, "fit").Start.ShouldBeGreaterThanOrEqualTo(Of(plan, "send").End.AddDays(10));
    }

    [Fact]
    public void What_is_pinned_stands_and_the_rest_gives_way()
    {
        PlanJob[] jobs = [.. Enumerable.Range(0, 5).Select(index => Job($"j{index}", 8))];
        jobs[4] = jobs[4] with { Pin = new("Ines", Monday.AddDays(1)) };
        var plan = Plan([Hand("Ines", "mechanic")], jobs);
        Of(plan, "j4").Start.ShouldBe(new(2027, 3, 2, 8, 0, 0));
        plan.Jobs.Select(job => job.Start.Day).ShouldBe([1, 2, 3, 4, 5]);
        plan.Problems.ShouldBeEmpty();

        var gone = Plan([Hand("Ines", "mechanic"), Hand("Tam", "assistant")], [jobs[0] with { Pin = new("Tam", null) },
            jobs[1] with { Pin = new("Wim", null) }]);
        gone.Jobs.Select(job => job.Hand).ShouldBe(["Ines", "Ines"], "it is still to do");
        gone.Problems.Select(problem => problem.Words).ShouldBe(
        [
            "j0: pinned to Tam, who is no mechanic. It is planned for whoever can.",
            "j1: pinned to somebody who isn’t here any more. It is planned for whoever can.",
        ]);

        jobs[4] = jobs[4] with { LeadDays = 3 };
        var late = Plan([Hand("Ines", "mechanic")], jobs);
        Of(late, "j4").Start.Day.ShouldBe(4);
        late.Problems.ShouldHaveSingleItem().Words.ShouldBe(
            "j4: pinned to 2027-03-02, planned 2027-03-04: its parts aren’t here before.");
    }

    [Fact]
    public void What_was_promised_goes_before_what_was_not()
    {
        PlanJob[] jobs = [.. new[] { "N0A", "N0B", "N0C" }.SelectMany(aircraft => new[] { Job($"{aircraft}1", 8, aircraft),
            Job($"{aircraft}2",
            8, aircraft) })];
        var plan = Plan([Hand("Ines", "mechanic")], jobs, new() { ["N0C"] = Monday.AddDays(1), ["N0B"] = Monday.AddDays(2) });
        plan.Of("N0C")!.Likely.ShouldBe(Monday.AddDays(1));
        plan.Of("N0C")!.LateBy.ShouldBeNull();
        plan.Of("N0C")!.InTime.ShouldBe(1);
        plan.Of("N0B")!.LateBy.ShouldBe(1);
        plan.Of("N0B")!.InTime.ShouldBe(0);
    }

    [Fact]
    public void What_to_order_is_told_with_the_last_day_that_does()
    {
        // Ines has five days' work: a part that takes two days and is fitted on the last can be ordered two days later, one of 21 can't.
        PlanJob[] work = [Job("work", 32) with { Turn = 0 }, Job("fit", 8) with { LeadDays = 2, Part = "hose", After = ["work"] }];
        var plan = Plan([Hand("Ines", "mechanic")], work);
        plan.Orders.ShouldBe([new("fit", Monday.AddDays(2))]);
        plan.OrderToday.ShouldBeEmpty();
        var slow = Plan([Hand("Ines", "mechanic")], [work[0], work[1] with { LeadDays = 21 }]);
        slow.OrderToday.ShouldBe(["fit"]);
        slow.Of("N0A")!.By.ShouldBe("hose: here 2027-03-22, if it is ordered today");
        slow.Of("N0A")!.Deciding.ShouldBe(["fit"]);
        plan.Of("N0A")!.Deciding.ShouldBe(["work", "fit"]);
        plan.Of("N0A")!.By.ShouldBe("Ines: 40 h one after the other");
    }

    [Fact]
    public void A_look_that_finds_work_comes_before_what_was_found()
    {
        var plan = Plan([Hand("Ines", "mechanic")],
            [Job("mend", 6), Job("look", 6) with { Finds = true }, Job("mend too", 2), Job("look again", 8) with { Finds = true }]);
        plan.Jobs.Select(job => job.Job.Finds).ShouldBe([true, true, false, false]);
    }

    [Fact]
    public void What_cannot_be_is_told_at_its_line_and_the_rest_is_planned()
    {
        var hands = new[] { Hand("Ines", "mechanic"),
            new Hand("Wim", "Wim", ["rigger"], WorkWeek.Usual with { Off = [new(Monday.AddDays(-9), null)] }) };
        var plan = Plan(hands,
        [
            Job("good", 2), Job("negative", 1) with { Hours = new(-1, 1, 2) }, Job("a", 1) with { After = ["b"] },
            Job("b", 1) with { After = ["c"] }, Job("c", 1) with { After = ["a"] }, Job("after a", 1) with { After = ["a"] },
            Job("paint", 1) with { Skill = "painter" }, Job("rig", 1) with { Skill = "rigger" },
            Job("late", 1) with { LeadDays = 3, OrderedOn = Monday.AddDays(-5) }, Job("lost", 1) with { After = ["nowhere"] },
        ]);
        plan.Jobs.Select(job => job.Job.Id).Order().ShouldBe(["good", "late"]);
        plan.Aircraft.ShouldHaveSingleItem().LeftOut.ShouldBe(8);
        plan.Problems.Select(problem => problem.Words).ShouldBe(
        [
            "Wim never works: no days, or off for good. The plan does without them.",
            "a: it waits for itself: a → b → c → a.", "b: it waits for itself: a → b → c → a.", "c: it waits for itself: a → b → c → a.",
            "negative: hours from 0 to 1,000, low first, and not -1..1..2.", "paint: it takes a painter, and nobody here is one.",
            "rig: it takes a rigger, and none of them works.", "after a: it waits for a, which isn’t in the plan.",
            "lost: it waits for “nowhere”, which isn’t there.",
            "late: its parts should have come on 2027-02-27. It is planned as if they were here: ask where they are.",
        ]);
    }

    [Fact]
    public void A_shop_without_work_or_hands_has_a_plan()
    {
        Plan([], []).Aircraft.ShouldBeEmpty();
        Plan([], [Job("one", 1), Job("wait",
            0) with { OutsideDays = 2 }]).Aircraft.ShouldHaveSingleItem().Likely.ShouldBe(Monday.AddDays(2));
    }

    [Fact]
    public void The_same_question_gets_the_same_plan()
    {
        var question = RandomShop.Of(77);
        string Told(int seed) => string.Join('|', Planner.Plan(question, seed, Quick).Jobs.Select(job =>
            $"{job.Job.Id} {job.Hand} {job.Start}"));
        Told(5).ShouldBe(Told(5));
    }
}
