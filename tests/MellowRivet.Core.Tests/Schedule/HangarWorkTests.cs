using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Parts;
using MellowRivet.Core.People;
using MellowRivet.Core.Schedule;

namespace MellowRivet.Core.Tests.Schedule;

/// <summary>What is still to do on an inspection, as jobs of the plan. The day is Monday, 23 November 2026, ten in the morning.</summary>
public class HangarWorkTests
{
    private readonly Inspection inspection = Fixture.Inspection(Fixture.Aircraft());
    private readonly List<OrderedPart> parts = [];
    private readonly Dictionary<string, decimal> booked = [];
    private readonly List<DueWork> due = [];
    private ZoneLeft[] zones = [new("gear", "Gear", 3, 2), new("engine", "Engine", 2, 0)];

    private PlanQuestion Question() => HangarWork.Question([new(inspection, "N0TST", zones, due, parts, booked)],
        ShopHands.Of([Fixture.Inspector]), ShopPlaces.Read("hoist 1").Places, Fixture.Now);

    private Discrepancy Find(Estimate? estimate, DiscrepancyClass of = DiscrepancyClass.Recommended, string what = "a line")
    {
        var found = inspection.Find(Guid.NewGuid(), what, "gear", "", of, false, null, Fixture.Ines, Fixture.Now);
        if (estimate is not null)
            found.Expect(estimate, inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        return found;
    }

    private static Estimate Hours(decimal hours, params PartNeeded[] needed) => new([new(Skill.Mechanic, Spread.Of(hours))], needed);

    private static PartNeeded Part(int? days, bool onShelf = false) => new("hose", "H-1", 1, "", null, days, onShelf);

    private PlanJob Only() => Question().Jobs.ShouldHaveSingleItem();

    // 10 h for five tasks are 2 h each; two are left in the gear, none in the engine; the inspector's hours come after everything.
    [Fact]
    public void An_inspections_hours_go_to_the_zones_that_have_tasks_left_and_its_inspectors_come_last()
    {
        inspection.Expect(Inspection.ItselfKey, _ => (new([new(Skill.Mechanic, new(8, 10, 15)), new(Skill.Inspector, new(1, 2, 3))], []),
            null),
            inspection.Unpriced([]), Fixture.Ines, Fixture.Now);
        Find(Hours(2));
        var jobs = Question().Jobs;
        jobs.Select(job => (job.Id, job.Skill, job.Hours, job.Finds)).ShouldBe(
        [
            ("26-1/zone-gear", "mechanic", new(3.2m, 4, 6), true), ("26-1/01", "mechanic", Spread.Of(2), false),
            ("26-1/close", "inspector", new(1, 2, 3), false),
        ]);
        jobs[^1].After.ShouldBe(["26-1/zone-gear", "26-1/01"]);
        var question = Question();
        (question.Start, question.FromMinute).ShouldBe((Fixture.Today, 600));
        Planner.Plan(question).Jobs[0].Start.ShouldBe(new(2026, 11, 23, 10, 0, 0), "what is gone by of today can't be worked in");
    }

    [Fact]
    public void What_nobody_put_hours_on_is_told_and_not_taken_for_nothing()
    {
        Find(null, DiscrepancyClass.Airworthiness, "tyre");
        Find(null, DiscrepancyClass.Watch);
        due.Add(new(Guid.NewGuid(), "Magneto", null));
        var question = Question();
        question.Jobs.ShouldBeEmpty();
        question.Unsaid.Select(problem => (problem.Words, problem.IsLeftOut)).ShouldBe(
        [
            ("26-1: nobody has said how long the inspection itself takes.", true), ("01 tyre: nobody has said how long it takes.", true),
            ("Magneto: nobody has said how long it takes.", true),
        ]);
    }

    [Fact]
    public void What_has_no_hours_is_waited_for_all_the_same()
    {
        zones = [];
        Find(new([], [Part(30)]));
        Find(new([], [], new("instrument test", null, 6)));
        var question = Question();
        question.Jobs.Select(job => (job.Id, job.LeadDays, job.OutsideDays, job.Hours.Likely)).ShouldBe(
            [("26-1/01", 30, 0, 0), ("26-1/02", null, 6, 0)]);
        var ready = Planner.Plan(question).Aircraft.ShouldHaveSingleItem();
        (ready.Likely, ready.LeftOut).ShouldBe((Fixture.Today.AddDays(30), 2));
    }

    [Theory]
    [InlineData(0, 10)]
    [InlineData(4, 6)]
    [InlineData(9.5, 1)]
    [InlineData(30, 1)]
    public void Hours_that_were_booked_are_taken_off_and_a_tenth_stays_while_it_is_open(double worked, double left)
    {
        zones = [];
        Find(Hours(10));
        booked["01"] = (decimal)worked;
        Only().Hours.Likely.ShouldBe((decimal)left);
    }

    [Fact]
    public void What_is_done_declined_or_fallen_away_is_not_planned()
    {
        zones = [];
        Find(Hours(1)).Correct(new("done"), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        var declined = Find(Hours(1));
        declined.Move(Disposition.Asked, null, inspection.Terms, Fixture.Ines, Fixture.Now);
        declined.Move(Disposition.Declined, null, inspection.Terms, null, Fixture.Now);
        Question().Jobs.ShouldBeEmpty();
    }

    [Fact]
    public void A_part_that_nobody_ordered_counts_from_today_and_one_that_is_ordered_by_its_day()
    {
        zones = [];
        Find(Hours(1, Part(12), new("bolt", "B-2", 2, "", null, 3, false), Part(90, onShelf: true)));
        (Only().LeadDays, Only().Part, Only().IsToOrder).ShouldBe((12, "hose", true));

        OrderedPart Order(string what, string number)
        {
            var part = new OrderedPart(Guid.NewGuid(), what, number, 1, "", new(inspection.AircraftId, inspection.Id, "01"));
            parts.Add(part);
            return part;
        }
        Order("hose", "H-1").From(true, "Corrin Parts", null, Fixture.Today.AddDays(20), false, Fixture.Today).ShouldBeNull();
        (Only().NotBefore, Only().LeadDays, Only().Part).ShouldBe((Fixture.Today.AddDays(20), 3, "bolt"), "the bolt is still to order");
        parts[0].Receive(new(Guid.NewGuid(), 1, PartCondition.New, "CL-1", "", null, Fixture.Ines, Fixture.Now)).ShouldBeNull();
        Only().NotBefore.ShouldBeNull("it is here");
    }

    [Fact]
    public void A_part_that_is_late_or_of_which_nobody_knows_when_it_comes_is_told()
    {
        zones = [];
        Find(Hours(1, Part(null)));
        Question().Unsaid.ShouldHaveSingleItem().Words.ShouldBe(
            "01 a line: nobody has said how many days hose takes; planned as if it were here.");
        var part = new OrderedPart(Guid.NewGuid(), "hose", "H-1", 1, "", new(inspection.AircraftId, inspection.Id, "01"));
        part.From(true, "Corrin Parts", null, Fixture.Today.AddDays(-3), false, Fixture.Today.AddDays(-10)).ShouldBeNull();
        parts.Add(part);
        Question().Unsaid.ShouldHaveSingleItem().Words.ShouldBe(
            "01 a line: hose should have come on 2026-11-20; planned as if it came tomorrow: ask where it is.");
        Only().NotBefore.ShouldBe(Fixture.Today.AddDays(1));
    }

    [Fact]
    public void A_line_that_waits_for_parts_says_so_where_nobody_has_said_until_when_and_work_that_began_has_them()
    {
        zones = [];
        var found = Find(Estimate.Of(2, 40));
        found.Move(Disposition.PartsAwaited, "hose: Corrin Parts", inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Question().Unsaid.ShouldHaveSingleItem().Words.ShouldBe(
            "01 a line: it waits for parts, and nobody has said until when; planned as if they were here.");
        found.Expect(Estimate.Of(2, 40, Fixture.Today.AddDays(-1)), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Question().Unsaid.ShouldHaveSingleItem().Words.ShouldContain("should have come on 2026-11-22");
        found.Move(Disposition.InWork, null, inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Question().Unsaid.ShouldBeEmpty();
        Only().NotBefore.ShouldBeNull();
    }

    [Fact]
    public void Several_hands_a_place_a_cure_an_outside_shop_and_an_order_of_lines_become_jobs_that_wait_for_each_other()
    {
        zones = [];
        Find(new([new(Skill.Mechanic, Spread.Of(4)), new(Skill.Assistant, Spread.Of(3)), new(Skill.Inspector, Spread.Of(1))], [], null, "",
            null,
            14, "Hoist"));
        Find(new([new(Skill.Mechanic, Spread.Of(6))], [], new("welding", null, 10), "", null, null, "", ["01"]));
        var jobs = Question().Jobs;
        jobs.Select(job => (job.Id[5..], job.Hours.Likely, job.Place, job.CureHours, job.OutsideDays)).ShouldBe(
        [
            ("01/mechanic", 4, "hoist", 14, 0), ("01/assistant", 3, null, 0, 0), ("01/inspector", 1, null, 0, 0), ("02", 3, null, 0, 10),
            ("02/back", 3, null, 0, 0),
        ]);
        jobs[2].After.ShouldBe(["26-1/01/mechanic", "26-1/01/assistant"]);
        jobs[3].After.ShouldBe(["26-1/01/mechanic", "26-1/01/assistant", "26-1/01/inspector"]);
        jobs[4].After.ShouldContain("26-1/02");
        // Lines that wait for each other are told, and the rest is planned.
        inspection.Line("01")!.Expect(Hours(1) with { After = ["02"] }, inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Find(Hours(2));
        var plan = Planner.Plan(Question());
        plan.Jobs.ShouldHaveSingleItem().Job.Id.ShouldBe("26-1/03");
        plan.Problems.ShouldContain(problem => problem.Words.Contains("it waits for itself"));
        plan.Aircraft[0].LeftOut.ShouldBe(3);
    }

    [Fact]
    public void Where_the_owner_is_asked_first_a_line_waits_until_tomorrow_and_says_so()
    {
        zones = [];
        inspection.Work(new(AskFirst: true, LabourRate: 100));
        Find(Hours(1));
        (Only().NotBefore, Only().Because, Only().Line!.IsAgreed).ShouldBe((Fixture.Today.AddDays(1), "the owner is to be asked", false));
        inspection.Line("01")!.Move(Disposition.Asked, null, inspection.Terms, Fixture.Ines, Fixture.Now);
        inspection.Work(new(LabourRate: 100));
        (Only().Because, Only().Line!.IsAgreed).ShouldBe(("the owner hasn’t answered", false), "who was asked has to answer");
        inspection.Line("01")!.Move(Disposition.Approved, null, inspection.Terms, null, Fixture.Now);
        (Only().NotBefore, Only().Line!.IsAgreed).ShouldBe((null, true));
    }

    [Fact]
    public void Pins_and_promises_reach_the_question_and_one_that_is_gone_by_is_refused()
    {
        zones = [];
        Find(Hours(1));
        inspection.Pin("01", Fixture.Ines, Fixture.Today.AddDays(-1), Fixture.Ines, Fixture.Now,
            Fixture.Today)!.Message.ShouldContain("gone by");
        inspection.Pin("01", Fixture.Ines, Fixture.Today.AddDays(2), Fixture.Ines, Fixture.Now, Fixture.Today).ShouldBeNull();
        Only().Pin.ShouldBe(new(ShopHands.Id(Fixture.Ines), Fixture.Today.AddDays(2)));
        inspection.Line("01")!.Expect(new([new(Skill.Mechanic, Spread.Of(1)), new(Skill.Assistant, Spread.Of(1))], []), inspection.Terms,
            Fixture.Ines, Fixture.Now).ShouldBeNull();
        Question().Unsaid.ShouldHaveSingleItem().Words.ShouldBe("01 a line: what was pinned of it is other jobs now; pin it again.");
        inspection.Line("01")!.Expect(Hours(1), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.Pin("01", null, null, Fixture.Ines, Fixture.Now, Fixture.Today).ShouldBeNull();
        Only().Pin.ShouldBeNull();
        inspection.Tell(Fixture.Today.AddDays(-1), Fixture.Ines, Fixture.Now, Fixture.Today)!.Message.ShouldContain("gone by");
        inspection.Tell(Fixture.Today.AddDays(9), Fixture.Ines, Fixture.Now, Fixture.Today).ShouldBeNull();
        Question().Wanted["N0TST"].ShouldBe(Fixture.Today.AddDays(9));
        inspection.Tell(null, Fixture.Ines, Fixture.Now, Fixture.Today).ShouldBeNull();
        Question().Wanted.ShouldBeEmpty();
    }

    [Fact]
    public void What_is_left_open_takes_its_hours_along_and_not_the_numbers_of_a_list_that_has_ended()
    {
        var found = Find(Hours(2) with { CureHours = 6, After = ["07"] });
        var left = new MellowRivet.Core.OpenItems.OpenItem(inspection.AircraftId, inspection, found, Fixture.Today).Estimate!;
        (left.CureHours, left.After).ShouldBe((6, null));
        found.Estimate!.After.ShouldBe(["07"]);
    }

    [Fact]
    public void A_cure_that_goes_on_is_waited_for()
    {
        zones = [];
        inspection.LetCure(inspection.Tasks[0].Id, CureOf.Sealant, "20", Fixture.Ines, Fixture.Now).ShouldBeNull();
        (Only().Title, Only().CureHours, Only().Skill).ShouldBe(("sealant cures", 20, null));
        Planner.Plan(Question()).Aircraft[0].Likely.ShouldBe(Fixture.Today.AddDays(1));
    }

    [Fact]
    public void Hands_are_those_who_are_here_and_work_with_theirs()
    {
        Person Of(string name, Role role) => new(Guid.NewGuid(), name, "XX", [role], []);
        var (gone, mine) = (Of("Gone", Role.Mechanic), Of("Wim", Role.Repairman));
        gone.Leave(Fixture.Now, [gone, Of("Boss", Role.ShopAdmin)]);
        mine.Work(WorkWeek.Usual with { HoursPerDay = 17 })!.Field.ShouldBe("hours");
        mine.Work(WorkWeek.Usual with { HoursPerDay = 4 }).ShouldBeNull();
        ShopHands.Of([gone, mine, Of("Boss", Role.ShopAdmin), Of("Owner", Role.Owner), Of("Tam", Role.Assistant), Of("Orla",
            Role.Inspector)])
            .Select(hand => $"{hand.Name}: {string.Join(' ', hand.Skills)}, {hand.Week.HoursPerDay:0}").ShouldBe(
            ["Orla: inspector mechanic assistant, 8", "Tam: assistant, 8", "Wim: mechanic assistant, 4"]);
    }

    [Theory]
    [InlineData("stand 2, hoist", null)]
    [InlineData("", null)]
    [InlineData("stand 0", "how many of it")]
    [InlineData("stand 2, Stand 1", "twice")]
    [InlineData("a place with a name that is longer than any place 2", "up to 30")]
    public void Places_are_typed_with_how_many_there_are(string typed, string? problem)
    {
        var (places, refusal) = ShopPlaces.Read(typed);
        if (problem is null)
            refusal.ShouldBeNull();
        else
            refusal!.Message.ShouldContain(problem);
        if (typed == "stand 2, hoist")
            places.ShouldBe(new Dictionary<string, int> { ["stand"] = 2, ["hoist"] = 1 });
    }
}
