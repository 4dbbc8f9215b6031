using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Tests.Inspections;

/// <summary>Work without an inspection around it (14 CFR 43.9, from memory): taken, done, entered.</summary>
public class JobTests
{
    private static readonly WhoMay List = WhoMay.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "who-may", "us.json")));
    private readonly Aircraft aircraft = Fixture.Aircraft();

    private Inspection Take(TypedJob typed, bool preventive = false)
    {
        var (job, refusal) = typed.Begin(Guid.NewGuid(), aircraft, "26-8", new(FirstLook: false), preventive, Fixture.Ines, Fixture.Today,
            Fixture.Now);
        refusal.ShouldBeNull();
        return job!;
    }

    private static Inspection Done(Inspection job, string reference = "manual 32-40")
    {
        job.JobLine!.Correct(new("Tyre and tube changed", CorrectionKind.Replaced, reference, [new("TY-6", "1", "2")]), job.Terms,
            Fixture.Ines, Fixture.Now).ShouldBeNull();
        return job;
    }

    private IReadOnlyList<string> Blockers(Inspection job) =>
        [.. Readiness.Of(job, aircraft, Fixture.Shop).Blockers.Select(one => one.What)];

    [Fact]
    public void It_is_entered_in_its_own_book_alone_with_what_was_done_by_whom_and_by_which_data()
    {
        var entry = LogbookEntry.Of(Fixture.Close(Done(Take(new("Main tyre", "airframe", null, null))), aircraft)).ShouldHaveSingleItem();
        (entry.Item, entry.Extent).ShouldBe(("Airframe", "Maintenance of this aircraft: main tyre."));
        entry.Told.ShouldBe(["26-8-01 Airframe: Main tyre. Tyre and tube changed. Ref. manual 32-40. Parts: p/n TY-6, off s/n 1, on s/n 2. "
            + "Done 2026-11-23 by Ines Test (mechanic with inspection authorization, 77)."]);
        entry.Statement.ShouldBe("The work entered above was done, and the aircraft is approved for return to service as far "
            + "as that work goes.");
        LogbookEntry.Of(Fixture.Close(Done(Take(new("Oil change", "engine", null, null))), aircraft)).ShouldHaveSingleItem().Item
            .ShouldBe("Engine");
    }

    [Fact]
    public void Nothing_is_signed_before_it_is_done_by_named_data_and_nothing_of_an_inspection_is_asked_for()
    {
        var job = Take(new("Main tyre", "airframe", null, null));
        Blockers(job).ShouldHaveSingleItem().ShouldContain("not done yet");
        Blockers(Done(job, "")).ShouldHaveSingleItem().ShouldContain("by which data");
        Blockers(Done(Take(new("Main tyre", "airframe", null, null)))).ShouldBeEmpty("no scope, no run, no zones");
        var withdrawn = Take(new("Main tyre", "airframe", null, null));
        withdrawn.JobLine!.Move(Disposition.Withdrawn, "not ours", withdrawn.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Blockers(withdrawn).ShouldHaveSingleItem().ShouldContain("nothing to enter");
    }

    [Fact]
    public void A_bad_judgement_and_an_open_airworthiness_item_reach_its_signature_too()
    {
        var job = Done(Take(new("Spark plugs", "engine", null, null)));
        Fixture.Compress(job, aircraft, 2, 15);
        Blockers(job).ShouldHaveSingleItem().ShouldContain("15/80");
        job.Find(Guid.NewGuid(), "Fuel line chafed", "engine", "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines, Fixture.Now);
        LogbookEntry.Of(Fixture.Close(job, aircraft))[0].Statement.ShouldContain("The aircraft is not approved for return to service");
        RecordWriter.Draft(Fixture.Close(job, aircraft), new(Fixture.Inspector, Fixture.Inspector.Certificates[0]))
            .ShouldContain(draft => draft.Book == Book.DiscrepancyList);
    }

    [Fact]
    public void A_due_item_counts_from_its_signature_and_no_other_does()
    {
        DueItem Item(string what, Guid? part) => new(Guid.NewGuid(), part is null ? aircraft.Id : null, part, what, DueKind.Service,
            new(50), new(Standing.Practice, "test"), [InspectionKind.Annual]);
        var (oil, other) = (Item("Oil change", aircraft.Engines.First().ComponentId), Item("Grease", null));
        var line = DueLine.Of(aircraft, [oil, other], [], Fixture.Today);
        var job = Done(Take(new(null, null, line.Entries.Single(entry => entry.Item == oil), null)));
        var next = Fixture.Close(job, aircraft, due: line).Next.Done.ShouldHaveSingleItem();
        (next.Entry.Item.What, next.Done.Hours, next.Status.WhenDue).ShouldBe(("Oil change", 1120.5m, "at 1170.5 h"));
        var entry = LogbookEntry.Of(Fixture.Close(job, aircraft, due: line)).ShouldHaveSingleItem();
        (entry.Item, entry.Told.Last()).ShouldBe(("Engine", "Next due: oil change, engine at 1170.5 h."));
    }

    // A magneto that nobody knows the hours of: its 500 h count from the bench on, by the aircraft's, and not at all on another aircraft.
    [Fact]
    public void A_part_whose_own_hours_nobody_knows_counts_by_the_aircrafts_from_when_it_was_done()
    {
        var engine = aircraft.Engines.First().Component;
        Component magneto = new(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1");
        aircraft.Install(magneto, "left", default, null, engine.Id);
        DueItem bench = new(Guid.NewGuid(), null, magneto.Id, "Bench inspection", DueKind.Service, new(500),
            new(Standing.Practice, "test"));
        DueEntry Entry(Aircraft on) => DueLine.Of(on, [bench], [], Fixture.Today).Entries.Single();
        Entry(aircraft).Status.State.ShouldBe(DueState.Unknown);
        var line = DueLine.Of(aircraft, [bench], [], Fixture.Today);
        var job = Done(Take(new(null, null, line.Entries.Single(), null)));
        var done = Fixture.Close(job, aircraft, due: line).Next.Done.ShouldHaveSingleItem();
        (done.Done.Hours, done.Done.CountedOn, done.Status.WhenDue).ShouldBe((1000.5m, aircraft.Id, "at 1500.5 h"));
        bench.SetDone(done.Done, Fixture.Today).ShouldBeNull();
        (Entry(aircraft).Status.State, Entry(aircraft).Status.Limbs[0].Remaining).ShouldBe((DueState.Ok, 500m));
        LogbookEntry.Of(Fixture.Close(job, aircraft, due: line))[0].Told.Last()
            .ShouldBe("Next due: bench inspection, magneto left at 1500.5 h of the aircraft.");
        var other = Fixture.Aircraft();
        aircraft.MoveTo(magneto.Id, other, "left", Fixture.Today, "lent").ShouldBeNull();
        Entry(other).Status.State.ShouldBe(DueState.Unknown, "the other aircraft's hours say nothing of it");
        // Once its own hours are noted, they are what counts, whatever the aircraft's were.
        bench.SetDone(new(Fixture.Today, 20), Fixture.Today).ShouldBeNull();
        bench.Last!.CountedOn.ShouldBeNull();
    }

    [Fact]
    public void An_open_item_is_put_right_by_it_and_only_that_one_is_carried_in()
    {
        var inspection = Fixture.Inspection(aircraft);
        Fixture.Finish(inspection, aircraft);
        foreach (var what in new[] { "Cord showing", "Bladder seeps" })
            inspection.Find(Guid.NewGuid(), what, "gear", "left", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines, Fixture.Now);
        var items = OpenItemsAfter.Signing(inspection, [], Fixture.Ines, Fixture.Today);
        var job = Take(new(null, null, null, items[0]));
        (job.JobOf!.Title, job.Discrepancies.Count, job.JobLine!.CarriedNumber).ShouldBe(("Cord showing", 1, "26-1-01"));
        Blockers(job).ShouldHaveSingleItem();
        Done(job);
        OpenItemsAfter.Signing(job, items, Fixture.Ines, Fixture.Today).ShouldBeEmpty();
        items.Select(item => item.IsOpen).ShouldBe([false, true]);
    }

    [Fact]
    public void One_that_was_taken_by_mistake_is_given_up_until_something_is_recorded()
    {
        Take(new("Main tyre", "airframe", null, null)).CheckGiveUp().ShouldBeNull();
        Done(Take(new("Main tyre", "airframe", null, null))).CheckGiveUp()!.Message.ShouldContain("Something was recorded");
        Fixture.Inspection(aircraft).CheckGiveUp()!.Message.ShouldContain("not given up");
    }

    // An inspection signed as a job would reset what is due with no scope behind it, by a certificate that doesn't reach.
    [Theory]
    [InlineData(DueKind.Inspection, "That is an inspection")]
    [InlineData(DueKind.Instrument, "rated for it")]
    public void An_inspection_or_an_instruments_test_is_no_job(DueKind kind, string says)
    {
        DueItem item = new(Guid.NewGuid(), aircraft.Id, null, "Test", kind, new(EveryMonths: 12), new(Standing.Law, "test"));
        new TypedJob(null, null, DueLine.Of(aircraft, [item], [], Fixture.Today).Entries.Single(), null)
            .Begin(Guid.NewGuid(), aircraft, "26-8", new(), false, Fixture.Ines, Fixture.Today,
                Fixture.Now).Refusal!.Message.ShouldContain(says);
    }

    [Theory]
    [InlineData("", "airframe", "title")]
    [InlineData("Annual inspection", "airframe", "title")]
    [InlineData("The 100-hour", "engine", "title")]
    [InlineData("Tyre", "wing", "zone")]
    public void Without_words_and_a_place_there_is_no_job(string title, string zone, string field) =>
        new TypedJob(title, zone, null, null).Begin(Guid.NewGuid(), aircraft, "26-8", new(), false, Fixture.Ines, Fixture.Today,
            Fixture.Now)
            .Refusal!.Field.ShouldBe(field);

    // 14 CFR 43.3(b) and (g), 43.7, from memory: a mechanic any, a pilot what the list has and on their own aircraft alone.
    [Theory]
    [InlineData(CertificateKind.Mechanic, null, "Exhaust valve ground", true, false)]
    [InlineData(CertificateKind.Pilot, "T-1", "Landing light bulb replaced", false, true)]
    [InlineData(CertificateKind.Pilot, "T-1", "Exhaust valve ground", false, false)]
    [InlineData(CertificateKind.Pilot, "T-2", "Landing light bulb replaced", false, false)]
    [InlineData(CertificateKind.RepairmanLightSportMaintenance, null, "Landing light bulb replaced", false, false)]
    public void Who_enters_what(CertificateKind held, string? serial, string job, bool any, bool preventive)
    {
        var person = Fixture.Person(new Certificate(held, "1", serial));
        Fixture.Rules.MaySign(person, InspectionKind.Job, aircraft, Fixture.Today).Allowed.ShouldBe(any);
        var answer = Fixture.Rules.MayDoPreventive(person, aircraft, List.Ask(job, aircraft.Category), Fixture.Today);
        answer.Allowed.ShouldBe(preventive);
        answer.Reason.ShouldNotBeEmpty();
        Fixture.Among(person).IsCertificated(person.Id).ShouldBe(held != CertificateKind.Pilot, "a pilot is no mechanic");
    }

    // 14 CFR 43.3(g), from memory: a pilot on an aircraft that they own or operate.
    [Fact]
    public void A_pilot_enters_it_on_what_is_theirs_on_the_day()
    {
        var pilot = Fixture.Person(new Certificate(CertificateKind.Pilot, "1"));
        bool May(DateOnly on) => Fixture.Rules.MayDoPreventive(pilot, aircraft,
            List.Ask("Landing light bulb replaced", aircraft.Category), on)
            .Allowed;
        May(Fixture.Today).ShouldBeFalse("nothing says that it is theirs");
        pilot.Own(new(aircraft.Id, Fixture.Today.AddDays(-10), Fixture.Today)).ShouldBeNull();
        May(Fixture.Today.AddDays(-11)).ShouldBeFalse();
        May(Fixture.Today.AddDays(-10)).ShouldBeTrue();
        May(Fixture.Today).ShouldBeTrue();
        May(Fixture.Today.AddDays(1)).ShouldBeFalse();
    }

    [Fact]
    public void What_a_pilot_did_is_entered_as_preventive_maintenance()
    {
        var entry = LogbookEntry.Of(Fixture.Close(Done(Take(new("Main tyre", "airframe", null, null), preventive: true)), aircraft))[0];
        entry.Extent.ShouldBe("Preventive maintenance of this aircraft: main tyre.");
        entry.Statement.ShouldStartWith(
            "The preventive maintenance entered above was done by the pilot who owns or operates");
        entry.Source.Text.ShouldContain("43.7(f)");
    }

    [Fact]
    public void A_certificate_that_is_bound_to_another_aircraft_is_not_named()
    {
        Person person = new(Guid.NewGuid(), "Per Lorn", "PL", [Role.Owner], [new(CertificateKind.RepairmanExperimentalBuilder, "1", "X-9"),
            new(CertificateKind.Pilot, "2", "T-1")]);
        var shop = Fixture.Among(person);
        shop.Named(person.Id, "T-1").ShouldBe("Per Lorn (pilot, owner or operator, 2)");
        shop.Named(person.Id, "T-3").ShouldBe("Per Lorn (no certificate)");
    }
}
