using MellowRivet.Core.Estimates;
using MellowRivet.Core.Schedule;

namespace MellowRivet.Core.Tests.Schedule;

public class ReadyMoveTests
{
    private static readonly DateOnly Monday = RandomShop.Monday;
    private static readonly DateTimeOffset At = new(2027, 3, 1, 9, 0, 0, TimeSpan.Zero);
    private static readonly Hand Ines = new("i", "Ines", ["mechanic"], WorkWeek.Usual);

    private static PlanJob Job(string id, decimal hours, string aircraft = "N0A") =>
        new(id, aircraft) { Title = id, Skill = "mechanic", Hours = Spread.Of(hours) };

    private static HangarPlan Plan(IReadOnlyList<PlanJob> jobs, Hand? hand = null, DateOnly? start = null) => Planner.Plan(
        new(start ?? Monday, [hand ?? Ines], jobs, new Dictionary<string, int>(), new Dictionary<string, DateOnly>()), 1,
        new(50, TimeSpan.FromMinutes(1), 50));

    private static ReadyMove? Move(HangarPlan before, HangarPlan now, string aircraft = "N0A") =>
        ReadyMove.Between(before, now, At).FirstOrDefault(move => move.Aircraft == aircraft);

    [Fact]
    public void A_new_finding_moves_the_day_and_is_named_with_what_it_waits_for()
    {
        var before = Plan([Job("tyre", 6)]);
        var move = Move(before, Plan([Job("tyre", 6), Job("hose", 1) with { LeadDays = 11, Part = "hose H-1" }]))!;
        (move.Days, move.InWords).ShouldBe((11, "11 days later"));
        move.Because.ShouldBe("new: hose, 1 h, hose H-1 11 days away");
        ReadyMove.Between(before, before, At).ShouldBeEmpty();
    }

    [Fact]
    public void What_changed_is_told_first_of_the_aircraft_itself_then_of_hands_then_of_others()
    {
        var before = Plan([Job("tyre", 6), Job("mend", 6, "N0B")]);
        Move(before, Plan([Job("tyre", 30), Job("mend", 6, "N0B")]))!.Because.ShouldBe("tyre: 30 h instead of 6");
        Move(before, Plan([Job("tyre", 6) with { NotBefore = Monday.AddDays(8), Part = "tyre 6.00" }, Job("mend", 6, "N0B")]))!.Because
            .ShouldBe("tyre: tyre 6.00 expected 2027-03-09");
        Move(before, Plan([Job("tyre", 6), Job("mend", 6, "N0B")], Ines with { Week = WorkWeek.Usual with { Off = [new(Monday,
            Monday.AddDays(3))] } }))!.Because.ShouldBe("Ines has other days off");
        var others = Plan([Job("tyre", 6), Job("mend", 6, "N0B"), Job("more", 4, "N0B") with { Pin = new(null, Monday) }]);
        Move(before, others)!.Because.ShouldBe("new: more, 4 h");
        Move(Plan([Job("tyre", 6)]), Plan([Job("tyre", 6)], null,
            Monday.AddDays(1)))!.Because.ShouldBe("days went by and the work did not");
        Move(Plan([Job("tyre", 6), Job("rib", 20)]), Plan([Job("tyre", 6)]))!.InWords.ShouldBe("3 days sooner");
    }

    // Found before: 21 and 9 days on this type in the gear, 40 at this kind of inspection on another type; tanks and brakes by practice.
    [Fact]
    public void Zones_that_led_to_long_waits_come_first_and_say_why()
    {
        SlowFind[] before =
        [
            new(true, "gear", "26-1-04", "brake disc worn", "brake disc", 21), new(true, "gear", "25-9-02", "hose", "hose", 9),
            new(false, "gear", "25-7-01", "leg", "leg seal", 60), new(false, "tail", "25-3-09", "hinge", "hinge", 40),
            new(true, "cabin", "25-2-01", "lamp", "lamp", 3),
        ];
        var waits = LongWaits.Of([("cabin", "Lamps"), ("wing", "Fuel tanks and vents"), ("gear", "Brake disc, left"), ("tail", "Hinges"),
            ("run", "Full throttle, brakes held"), ("nose", "Hoses: clearance from the exhaust")], before);
        waits.Select(wait => (wait.ZoneKey, wait.Days)).ShouldBe([("gear", 21), ("tail", 40), ("wing", null)]);
        waits[1].Why.ShouldBe("once on this kind of inspection; longest hinge, 40 days (25-3-09, hinge)");
        waits[0].Why.ShouldBe("2 times on this type; longest brake disc, 21 days (26-1-04, brake disc worn)");
        waits[2].Why.ShouldBe("tanks: common practice, their parts are slow");
    }
}
