using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using static MellowRivet.Core.Tests.Bulletins.BulletinFixture;

namespace MellowRivet.Core.Tests.Bulletins;

/// <summary>When a bulletin is due: domain.md section 10, worked by hand.</summary>
public class ComplianceTests
{
    private readonly Aircraft aircraft = Flown();

    private static Deadline Hours(decimal hours, CountedFrom from = CountedFrom.Effective) =>
        new(DeadlineKind.WithinHours, Hours: hours, From: from);

    // Effective 2026-11-01: the last reading before shows 1060.0 h, so 50 h end at 1110.0; 3 months end on 2027-02-01.
    [Fact]
    public void Hours_and_months_count_from_the_effective_date_and_the_first_governs()
    {
        var line = Line(aircraft,
            Bulletin(compliance: new(
                [Hours(50), new(DeadlineKind.WithinMonths, Months: 3), new(DeadlineKind.NotLaterThan, Date: new(2027, 6, 1))])));
        line.Due!.Status.Limb(LimbKind.Hours)!.DueAt.ShouldBe(1110);
        line.Due.Status.Limb(LimbKind.Calendar)!.DueOn.ShouldBe(new(2027, 2, 1), "the earlier of the two dates");
        (line.State, line.Due.Status.Governing!.Kind).ShouldBe((BulletinState.Soon, LimbKind.Hours), "10 h left at 2 h a day");
    }

    [Fact]
    public void Since_new_counts_the_parts_own_hours_and_its_day_of_manufacture()
    {
        var engine = aircraft.Engines.Single();
        var bulletin = Bulletin(
            compliance: new([Hours(1500, CountedFrom.New), new(DeadlineKind.WithinMonths, Months: 120, From: CountedFrom.New)]),
            about: ComponentKind.Engine);
        Line(aircraft, bulletin).Why.ShouldContain("the day of manufacture");
        Line(aircraft, bulletin).State.ShouldBe(BulletinState.CannotTell, "unknown never counts as not due");
        engine.Component.Identify("TF-1", "E-5", "", new(2018, 3, 10));
        var line = Line(aircraft, bulletin);
        // 200 h when fitted at 0.0, and 1100.0 since: 1300.0 of 1500.0.
        line.Due!.Status.Limb(LimbKind.Hours)!.Remaining.ShouldBe(200);
        line.Due.Status.Limb(LimbKind.Calendar)!.DueOn.ShouldBe(new(2028, 3, 10));
    }

    [Fact]
    public void Hours_on_a_day_that_no_reading_tells_are_asked_for()
    {
        var line = Line(aircraft, Bulletin(compliance: new([Hours(50)]), effective: new(2019, 1, 1)));
        (line.State, line.Why).ShouldBe((BulletinState.CannotTell, "Can’t tell yet: the hours on 2019-01-01."));
    }

    // Own hours of a part that came later and came new begin at zero when it came; of one that came used nobody here can tell.
    [Theory]
    [InlineData(0, 25.0)]
    [InlineData(300, null)]
    public void A_part_that_came_after_the_effective_date(int ownThen, double? due)
    {
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Pump, "", "P-1"), "", new(1080), new(ownThen), null, new(2026, 11, 10));
        var line = Line(aircraft, Bulletin(compliance: new([Hours(25)]), about: ComponentKind.Pump));
        line.Due!.Status.Limb(LimbKind.Hours)?.DueAt.ShouldBe((decimal?)due);
        line.State.ShouldBe(due is null ? BulletinState.CannotTell : BulletinState.Soon);
    }

    [Fact]
    public void The_next_inspection_is_the_one_the_due_line_says()
    {
        var bulletin = Bulletin(compliance: new([new(DeadlineKind.NextInspection)]));
        Line(aircraft, bulletin).State.ShouldBe(BulletinState.CannotTell, "no inspection is followed");
        var line = Line(aircraft, bulletin, due: [Annual(aircraft, new(2026, 2, 3))]);
        line.Due!.Status.Limb(LimbKind.Calendar)!.DueOn.ShouldBe(new(2027, 2, 28));
        line.HoldsUp.ShouldBeTrue("whatever inspection is in work is the next one");
    }

    [Fact]
    public void Before_next_flight_grounds_from_the_effective_date_on()
    {
        var bulletin = Bulletin(compliance: new([new(DeadlineKind.BeforeNextFlight)]));
        var line = Line(aircraft, bulletin);
        (line.State, line.Grounds(1100)).ShouldBe((BulletinState.BeforeFlight, true));
        var ahead = Line(aircraft, bulletin with { Effective = Today.AddDays(5) });
        (ahead.State, ahead.Grounds(1100)).ShouldBe((BulletinState.Soon, false));
    }

    [Fact]
    public void A_finding_shortens_the_interval_and_the_terminating_action_ends_it()
    {
        var bulletin = Bulletin(compliance: new([Hours(10)], new Repeat(100, 12), new Repeat(25), Terminating: "the steel part"));
        var one = FollowUp(bulletin, aircraft);
        one.Comply(bulletin, Done(new(2026, 11, 5), 1070), Today).ShouldBeNull();
        var clean = Line(aircraft, bulletin, [one]).Due!.Status;
        (clean.Limb(LimbKind.Hours)!.DueAt, clean.Limb(LimbKind.Calendar)!.DueOn).ShouldBe((1170, new DateOnly(2027, 11, 5)));
        one.Comply(bulletin, Done(new(2026, 11, 10), 1080, finding: true), Today).ShouldBeNull();
        var found = Line(aircraft, bulletin, [one]).Due!.Status;
        (found.Limb(LimbKind.Hours)!.DueAt, found.Limb(LimbKind.Calendar)).ShouldBe((1105, null));
        one.Comply(bulletin, Done(new(2026, 11, 20), 1100, terminating: true), Today).ShouldBeNull();
        var ended = Line(aircraft, bulletin, [one]);
        (ended.State, ended.Due).ShouldBe((BulletinState.Done, null));
    }

    [Fact]
    public void Compliance_goes_with_the_part_to_another_aircraft()
    {
        var bulletin = Bulletin(about: ComponentKind.Engine, compliance: new([Hours(10)]));
        var engine = aircraft.Engines.Single();
        var one = FollowUp(bulletin, aircraft, engine.ComponentId);
        one.Comply(bulletin, Done(new(2026, 11, 5), 1270), Today).ShouldBeNull();
        Line(aircraft, bulletin, [one]).State.ShouldBe(BulletinState.Done);
        var other = Flown();
        Line(other, bulletin, [one]).State.ShouldBe(BulletinState.Overdue, "its own engine has done nothing: 10 h from 1060.0 are flown");
        other.TakeOff(other.Engines.Single().ComponentId, Today, other.TimeInService, "sold");
        other.InstallEngine(engine.Component, "", other.TimeInService, new(1300), Today);
        Line(other, bulletin, [one]).State.ShouldBe(BulletinState.Done);
    }

    // 4 h allowed after its conditions; given at 1100.0, at 1103.2 0.8 h are left, at 1104.0 none.
    [Theory]
    [InlineData(1100, 4.0, false)]
    [InlineData(1103.2, 0.8, false)]
    [InlineData(1104, 0.0, true)]
    [InlineData(1110, 0.0, true)]
    public void A_ferry_is_bounded_by_its_hours(double at, double left, bool grounds)
    {
        var bulletin = Bulletin(compliance: new([new(DeadlineKind.BeforeNextFlight)], Ferry: new(4, ["plug clean"])));
        var one = FollowUp(bulletin, aircraft);
        one.AllowFerry(bulletin, ["plug clean"], 1100, Fixture.Person(), Today).ShouldBeNull();
        var line = Line(aircraft, bulletin, [one]);
        (line.FerryLeft((decimal)at), line.Grounds((decimal)at)).ShouldBe(((decimal)left, grounds));
    }

    [Theory]
    [InlineData(1103.2, "0.8 h left")]
    [InlineData(1104, "its 4 h are used up")]
    [InlineData(1106.5, "overrun by 2.5 h, of 4 h allowed")]
    public void What_was_flown_beyond_a_ferry_is_said_in_hours(double at, string said) =>
        new FerryPermit(Today, 1100, 4, [], Fixture.Ines).InWords((decimal)at).ShouldBe(said);

    [Fact]
    public void An_alert_before_next_flight_that_nobody_has_decided_about_is_told_from_one_that_waits()
    {
        var alert = Bulletin(kind: BulletinKind.AlertBulletin, compliance: new([new(DeadlineKind.BeforeNextFlight)]));
        Line(aircraft, alert)
            .ShouldSatisfyAllConditions(line => line.IsUndecidedAlert.ShouldBeTrue(),
                line => line.Counts.ShouldBeFalse("it binds nobody here"));
        Line(aircraft, Bulletin(kind: BulletinKind.AlertBulletin,
            compliance: new([new(DeadlineKind.WithinHours, Hours: 50)]))).IsUndecidedAlert.ShouldBeFalse();
        var one = FollowUp(alert, aircraft);
        one.Decide(Line(aircraft, alert), PolicyKind.Declined, "not flown so", Fixture.Ines, Fixture.Now).ShouldBeNull();
        Line(aircraft, alert, [one]).IsUndecidedAlert.ShouldBeFalse();
        Line(aircraft, Bulletin(compliance: new([new(DeadlineKind.BeforeNextFlight)])))
            .ShouldSatisfyAllConditions(line => line.IsUndecidedAlert.ShouldBeFalse("it binds"), line => line.Grounds(1100).ShouldBeTrue());
    }

    [Fact]
    public void A_ferry_takes_every_condition_the_right_person_and_is_given_once()
    {
        var bulletin = Bulletin(compliance: new([new(DeadlineKind.BeforeNextFlight)], Ferry: new(4, ["plug clean", "day"]))) with
            { By = [CertificateKind.Mechanic] };
        var one = FollowUp(bulletin, aircraft);
        one.AllowFerry(bulletin, ["plug clean"], 1100, Fixture.Person(new Certificate(CertificateKind.Mechanic, "1")),
            Today)!.Message.ShouldContain("Not ticked: day");
        one.AllowFerry(bulletin, ["plug clean", "day"], 1100, Fixture.Person(), Today)!.Message.ShouldContain("holds none");
        one.AllowFerry(bulletin, ["plug clean", "day"], 1100, Fixture.Person(new Certificate(CertificateKind.Mechanic, "1")), Today)
            .ShouldBeNull();
        one.AllowFerry(bulletin, ["plug clean", "day"], 1104, Fixture.Person(new Certificate(CertificateKind.Mechanic, "1")),
            Today)!.Message.ShouldContain("allowed once");
    }

    [Fact]
    public void What_was_done_is_checked_before_it_is_noted()
    {
        var bulletin = Bulletin(compliance: new([Hours(10)], new Repeat(100)));
        var one = FollowUp(bulletin, aircraft);
        one.Comply(bulletin, Done(Today.AddDays(1), 1100), Today)!.Field.ShouldBe("on");
        one.Comply(bulletin, Done(Today, null), Today)!.Field.ShouldBe("hours");
        one.Comply(bulletin, Done(Today, 1100, terminating: true), Today)!.Field.ShouldBe("terminating");
        one.Comply(bulletin, Done(Today, 1100) with { Reference = "" }, Today)!.Field.ShouldBe("reference");
        one.Comply(bulletin, Done(Today, 1100), Today).ShouldBeNull();
        one.Comply(bulletin, Done(Today.AddDays(-9), 1100), Today)!.Field.ShouldBe("on");
        one.Comply(bulletin, Done(Today, 1090), Today)!.Field.ShouldBe("hours");
        one.TakeBack(["26-31"]).ShouldBeNull();
        one.Done.ShouldBeEmpty();
        one.Comply(bulletin, Done(Today, 1100) with { Reference = BulletinFollowUp.SignedReference("26-31") }, Today).ShouldBeNull();
        one.TakeBack(["26-30", "26-31"])!.Message.ShouldContain("It was signed with work order 26-31");
        one.Done.ShouldHaveSingleItem("its record says so");
    }

    [Fact]
    public void What_falls_due_by_a_bulletin_stands_on_the_due_line()
    {
        var line = DueLine.Of(aircraft, [Annual(aircraft, new(2026, 2, 3))], aircraft.MeterReadings, Today);
        var bulletin = Bulletin(compliance: new([Hours(10)]));
        var whole = line.With(Research(aircraft, [Held(bulletin)]));
        whole.Entries.Select(entry => entry.Title).ShouldBe(["SB-1: Subject", "Annual"], "overdue first");
        whole.Entries[0].Bulletin!.Bulletin.ShouldBe(bulletin);
    }
}
