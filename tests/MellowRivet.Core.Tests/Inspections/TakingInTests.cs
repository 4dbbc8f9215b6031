using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Tests.Inspections;

/// <summary>An aircraft at the door: what is asked for, and what the inspection begins with.</summary>
public sealed class TakingInTests
{
    private static readonly BeginsWith Nothing = new([], new HouseRules(), [], []);

    private readonly Aircraft aircraft = Fixture.Aircraft();

    private static TakingIn Typed(string hours = "1000", string order = "26-101", string squawks = "",
        InspectionKind kind = InspectionKind.Annual) => new(kind, hours, order, [Fixture.Small], squawks);

    private (Inspection? Inspection, Refusal? Refusal) Begin(TakingIn taking) =>
        taking.Begin(Guid.NewGuid(), aircraft, Nothing, Fixture.Ines, "IT", Fixture.Today, Fixture.Now);

    [Fact]
    public void All_that_is_wrong_is_said_at_once_each_beside_its_field() =>
        (Typed("soon", " ") with { Worksheets = [] }).Check(null, []).Select(wrong => wrong.Field)
            .ShouldBe(["Aircraft", "Hours", "WorkOrder", "Worksheets"]);

    [Fact]
    public void A_kind_that_nobody_can_sign_on_it_is_refused_with_those_that_somebody_can() =>
        Typed(kind: InspectionKind.Annual).Check(aircraft, [InspectionKind.Condition]).ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(wrong => wrong.Field.ShouldBe("Kind"),
                wrong => wrong.Message.ShouldContain(InspectionKind.Condition.InWords()));

    [Fact]
    public void It_begins_with_the_meter_read_and_every_complaint_heard()
    {
        var at = aircraft.TimeInService.Value + 10;
        var (inspection, refusal) = Begin(Typed($"{at}", squawks: "Pulls to the left\n\n  Radio crackles "));
        refusal.ShouldBeNull();
        inspection!.Squawks.Select(squawk => squawk.Words).ShouldBe(["Pulls to the left", "Radio crackles"]);
        aircraft.TimeInService.Value.ShouldBe(at);
    }

    [Fact]
    public void A_meter_that_runs_backwards_begins_nothing() =>
        Begin(Typed("1")).ShouldSatisfyAllConditions(begun => begun.Inspection.ShouldBeNull(),
            begun => begun.Refusal!.Field.ShouldBe("Hours"));

    // It flies 3 h a month and was read three days ago: 40 h more is asked about, and taken once somebody says that it is right.
    [Theory]
    [InlineData(9, false, false)]
    [InlineData(40, false, true)]
    [InlineData(40, true, false)]
    public void Ten_times_the_usual_is_asked_about_before_anything_rests_on_it(int more, bool sure, bool asked)
    {
        var (inspection, refusal) = (Typed($"{aircraft.TimeInService.Value + more}") with { Sure = sure }).Begin(Guid.NewGuid(), aircraft,
            Nothing with { Use = new(0.1, null, null, 12) }, Fixture.Ines, "IT", Fixture.Today, Fixture.Now);
        (inspection is null).ShouldBe(asked);
        refusal?.Field.ShouldBe(TakingIn.AsksSure);
    }

    [Theory]
    [InlineData("26-101")]
    [InlineData("26-118", "26-104", "26-117", "26-B")]
    public void The_next_work_order_is_one_above_the_highest_of_the_year(string next, params string[] taken) =>
        TakingIn.NextOrder(Fixture.Today, taken).ShouldBe(next);
}
