using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Tests.Inspections;

/// <summary>
/// Issue 27, line 4: answers to the same thing stand side by side until somebody chooses, values are both readings with who and when,
/// a part that was moved meanwhile keeps its own series, and nobody's work is dropped.
/// </summary>
public class SaidApartTests
{
    private static readonly Guid Wim = Guid.NewGuid();
    private static readonly DateTimeOffset Early = Fixture.Now, Late = Fixture.Now.AddMinutes(40);
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Component engine;
    private readonly Inspection inspection;
    private readonly EngineSheet run;
    private readonly SheetValue drop;

    public SaidApartTests()
    {
        engine = aircraft.Engines.Single().Component;
        aircraft.InstallPlugs(engine, "QK", 1, new Hours(0), new Hours(0));
        inspection = Fixture.Inspection(aircraft);
        run = RunSheet.Of(engine);
        drop = run.Values.Single(value => value is { Kind: "mag-drop-left", Position: SheetValue.After });
    }

    private Refusal? Measure(double? rpm, Guid by, DateTimeOffset at, string? seen) =>
        inspection.Measure(Guid.NewGuid(), run, drop, rpm, Unit.Rpm, new(by, at, seen));

    private Reading Standing => inspection.Readings.Single(reading => reading.Kind == drop.Kind);

    private TrayPlace Place(string hole) => PlugTray.Of(aircraft, engine, inspection).At(PlugHole.Parse(hole)!.Value)!;

    private IEnumerable<Blocker> Held => Readiness.Of(inspection, aircraft, Fixture.Bare).Blockers
        .Where(blocker => blocker.By == HeldUpBy.Apart);

    // At the desk 60 min^-1 was typed at 10:40; a phone brings 190 of 10:00, typed on a page where nothing stood.
    private SaidApart TwoDrops()
    {
        Measure(60, Fixture.Ines, Late, "").ShouldBeNull();
        Measure(190, Wim, Early, "").ShouldBeNull();
        return inspection.StillApart.ShouldHaveSingleItem();
    }

    [Fact]
    public void Two_values_stand_side_by_side_with_who_and_when_and_nothing_is_signed_until_somebody_chooses()
    {
        var two = TwoDrops();
        (two.Stands, two.StandsBy).ShouldBe(("60 rpm", new Stamp(Fixture.Ines, Late)));
        (two.Other, two.OtherBy).ShouldBe(("190 rpm", new Stamp(Wim, Early)));
        Standing.Value.ShouldBe(60, "what stood there isn't written over");
        Held.ShouldHaveSingleItem().What.ShouldContain("“60 rpm” and “190 rpm”");

        inspection.Choose(two.Id, OfTwo.Other, aircraft, Fixture.Ines, Late.AddHours(1)).ShouldBeNull();
        (Standing.Value, Standing.Last).ShouldBe((190.0, new Stamp(Wim, Early)));
        Held.ShouldBeEmpty();
        var story = inspection.Apart.ShouldHaveSingleItem();
        (story.Chosen, story.ChosenBy!.By, story.Stands).ShouldBe((OfTwo.Other, Fixture.Ines, "60 rpm"), "the other stays in the story");
        inspection.Choose(two.Id, OfTwo.Stays, aircraft, Wim, Late)!.Message.ShouldContain("chosen already");
    }

    [Fact]
    public void What_stays_stays_and_the_other_is_kept_in_the_story()
    {
        var two = TwoDrops();
        inspection.Choose(two.Id, OfTwo.Stays, aircraft, Wim, Late).ShouldBeNull();
        (Standing.Value, Standing.Last).ShouldBe((60.0, new Stamp(Fixture.Ines, Late)));
        inspection.Apart.Single().Other.ShouldBe("190 rpm");
        inspection.Choose(Guid.NewGuid(), OfTwo.Stays, aircraft, Wim, Late)!.Field.ShouldBe("apart");
        inspection.Choose(two.Id, 0, aircraft, Wim, Late)!.Field.ShouldBe("apart");
    }

    [Theory]
    [InlineData(true, true, 0)] // Wim had Ines's before him: he puts hers right.
    [InlineData(true, false, 0)] // the same number is no other answer, whoever read it
    [InlineData(false, true, 1)]
    [InlineData(null, true, 0)] // a program that doesn't tell what it saw goes by what stands, as it always did
    public void It_is_said_apart_where_the_one_had_not_seen_the_other(bool? saw, bool other, int apart)
    {
        Measure(60, Fixture.Ines, Early, "").ShouldBeNull();
        Measure(other ? 190 : 60, Wim, Late, saw switch { null => null, true => Saying.InWords(Standing.Last), _ => "" }).ShouldBeNull();
        inspection.StillApart.Count().ShouldBe(apart);
        Standing.Value.ShouldBe(other && apart == 0 ? 190 : 60);
    }

    [Fact]
    public void One_person_puts_their_own_words_right_wherever_they_are_but_not_with_older_ones()
    {
        Measure(60, Wim, Early, "").ShouldBeNull();
        Measure(70, Wim, Late, "").ShouldBeNull();
        Standing.Value.ShouldBe(70, "said later, from another device of theirs");
        Measure(80, Wim, Early.AddMinutes(5), "").ShouldBeNull();
        Standing.Value.ShouldBe(70, "said before, arrived after");
        inspection.StillApart.ShouldHaveSingleItem().Other.ShouldBe("80 rpm");
    }

    [Fact]
    public void What_two_said_is_not_taken_back_by_one_who_has_not_seen_it_nor_while_both_stand()
    {
        Measure(60, Fixture.Ines, Late, "").ShouldBeNull();
        Measure(null, Wim, Early, "")!.Message.ShouldContain("Nothing was taken back");
        Measure(190, Wim, Early, "").ShouldBeNull();
        Measure(null, Wim, Late, Saying.InWords(Standing.Last))!.Message.ShouldContain("choose between them first");
        Measure(65, Wim, Late.AddMinutes(1), Saying.InWords(Standing.Last)).ShouldBeNull();
        inspection.StillApart.ShouldHaveSingleItem().Stands.ShouldBe("65 rpm", "measured anew, it takes the place of what stood");
    }

    [Fact]
    public void A_crack_that_came_from_a_phone_is_not_lost_behind_a_good_of_the_desk()
    {
        var look = run.Looks.First();
        SheetCheck Check(LookState state, string words, Guid by, DateTimeOffset at) =>
            new(engine.Id, run.Kind, look.Key, state, words, null, null, by, at);
        inspection.Look(run, look, Check(LookState.Good, "", Fixture.Ines, Late), "").ShouldBeNull();
        inspection.Look(run, look, Check(LookState.Found, "cracked", Wim, Early), "").ShouldBeNull();
        var two = inspection.StillApart.ShouldHaveSingleItem();
        (two.Stands, two.Other).ShouldBe(("good", "found: cracked"));
        Held.ShouldHaveSingleItem();
        inspection.Choose(two.Id, OfTwo.Other, aircraft, Wim, Late).ShouldBeNull();
        inspection.SheetChecks.ShouldHaveSingleItem().Words.ShouldBe("cracked");
    }

    [Fact]
    public void A_filter_an_oil_change_and_a_plug_said_apart_are_kept_both()
    {
        FilterCut Cut(FilterMetal metal, FilterAmount amount, Guid by) =>
            new(Guid.NewGuid(), engine.Id, FilterPlace.Filter, metal, amount, "", null, by, Early);
        inspection.Cut(Cut(FilterMetal.None, FilterAmount.None, Fixture.Ines), "").ShouldBeNull();
        inspection.Cut(Cut(FilterMetal.Ferrous, FilterAmount.Chunks, Wim), "").ShouldBeNull();
        inspection.Fill(new(engine.Id, "SAE 50", 8, "qt", "", Fixture.Ines, Early), "");
        inspection.Fill(new(engine.Id, "SAE 50", 6, "qt", "", Wim, Late), "");
        inspection.NotFilled(engine.Id, new(Wim, Late, ""))!.Field.ShouldBe("oil");
        inspection.NotePlug(Place("1T"), PlugStep.Look, nameof(PlugLook.Normal), new(Fixture.Ines, Early, "")).ShouldBeNull();
        inspection.NotePlug(Place("1T"), PlugStep.Look, nameof(PlugLook.Cracked), new(Wim, Late, "")).ShouldBeNull();
        inspection.NotePlug(Place("1T"), PlugStep.Look, null, new(Wim, Late, ""))!.Field.ShouldBe("step");
        inspection.Measure(Guid.NewGuid(), Place("1T"), PlugStep.Ohms, 1_200, null, new(Fixture.Ines, Early, "")).ShouldBeNull();
        inspection.Measure(Guid.NewGuid(), Place("1T"), PlugStep.Ohms, 9_000, null, new(Wim, Late, "")).ShouldBeNull();
        inspection.StillApart.Select(two => two.Other).ShouldBe(["ferrous, chunks", "6 qt SAE 50", PlugLook.Cracked.InWords(), "9000 Ω"]);

        foreach (var two in inspection.StillApart.ToList())
            inspection.Choose(two.Id, OfTwo.Other, aircraft, Fixture.Ines, Late).ShouldBeNull();
        inspection.FilterCuts.Single().Amount.ShouldBe(FilterAmount.Chunks);
        inspection.OilFills.Single().Value.ShouldBe(6);
        Place("1T").Look.ShouldBe(PlugLook.Cracked);
        Place("1T").ReadingOf(PlugStep.Ohms)!.Value.ShouldBe(9_000);
    }

    [Fact]
    public void A_plug_of_which_two_said_different_things_stands_green_once_one_is_chosen()
    {
        var wrench = new WrenchUsed(Guid.NewGuid(), "Torque wrench T-09", new DateOnly(2027, 1, 1), null, null, 420);
        Saying said = new(Fixture.Ines, Early);
        foreach (var (step, what) in new[]
            { (PlugStep.Look, "Normal"), (PlugStep.Clean, "done"), (PlugStep.PressureTest, "pass"), (PlugStep.Gasket, "New") })
            inspection.NotePlug(Place("1T"), step, what, said).ShouldBeNull();
        foreach (var (step, value) in new[] { (PlugStep.Ohms, 1_200), (PlugStep.GapFound, 0.018), (PlugStep.GapSet, 0.016) })
            inspection.Measure(Guid.NewGuid(), Place("1T"), step, value, null, said).ShouldBeNull();
        inspection.Measure(Guid.NewGuid(), Place("1T"), PlugStep.Torque, 420, wrench, said).ShouldBeNull();
        Place("1T").IsFinished.ShouldBeTrue();
        inspection.NotePlug(Place("1T"), PlugStep.Look, nameof(PlugLook.Cracked), new(Wim, Late, "")).ShouldBeNull();
        Place("1T").IsFinished.ShouldBeFalse();
        inspection.Choose(inspection.StillApart.Single().Id, OfTwo.Stays, aircraft, Fixture.Ines, Late).ShouldBeNull();
        Place("1T").IsFinished.ShouldBeTrue();
    }

    [Fact]
    public void A_compression_put_right_by_two_is_said_apart_with_where_it_leaks()
    {
        inspection.Begin(new(Guid.NewGuid(), engine.Id, 80, 14.7, true, null, Fixture.Ines, Early));
        var id = Guid.NewGuid();
        Refusal? Record(string psi, Guid by, string seen, params LeakPath[] leaks) =>
            inspection.Record(aircraft, engine, new(id, 1, psi, leaks), new(by, Late, seen));
        Record("74", Fixture.Ines, "").ShouldBeNull();
        Record("58", Wim, "1", LeakPath.ExhaustValve).ShouldBeNull();
        var two = inspection.StillApart.ShouldHaveSingleItem();
        (two.Stands, two.Other).ShouldBe(("74 psi", "58 psi, exhaust valve"));
        inspection.Choose(two.Id, OfTwo.Other, aircraft, Wim, Late).ShouldBeNull();
        var reading = inspection.Readings.Single();
        (reading.Value, reading.Conditions.Leak).ShouldBe((58.0, LeakPath.ExhaustValve));
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void A_task_answered_at_the_desk_keeps_the_verdict_that_comes_late_beside_it(bool isLate)
    {
        var oil = inspection.Tasks.Single(task => task.Key == "oil");
        VerdictTaken Take(TaskVerdict verdict, string psi, Guid by, DateTimeOffset at, int seen, bool late) => inspection.Take(oil,
            new(Guid.NewGuid(), verdict, null, seen, new(psi, "psi"), IsLate: late), aircraft, null, by, at, Fixture.Today);
        Take(TaskVerdict.Good, "70", Fixture.Ines, Late, oil.Changes, false).Refusal.ShouldBeNull();
        var taken = Take(TaskVerdict.Discrepancy, "40", Wim, Early, oil.Changes - 1, isLate);
        oil.Verdict.ShouldBe(TaskVerdict.Good);
        if (!isLate)
        {
            // Whoever stands there presses again.
            taken.Refusal!.Field.ShouldBe("verdict");
            inspection.Apart.ShouldBeEmpty();
            return;
        }
        taken.IsApart.ShouldBeTrue();
        var two = inspection.StillApart.ShouldHaveSingleItem();
        (two.Stands, two.Other).ShouldBe(("good · 70 psi", "discrepancy · 40 psi"));
        inspection.Choose(two.Id, OfTwo.Other, aircraft, Fixture.Ines, Late).ShouldBeNull();
        (oil.Verdict, inspection.ReadingAt(oil)!.Value).ShouldBe((TaskVerdict.Discrepancy, 40.0));
        oil.By.ShouldBe(Wim);
    }

    [Fact]
    public void What_was_measured_on_a_part_that_was_moved_meanwhile_goes_to_its_own_series()
    {
        var plug = Place("1T").Plug!.Id;
        inspection.MovePlugs(aircraft, engine, [new(PlugHole.Parse("1T")!.Value, PlugHole.Parse("2B")!.Value),
            new(PlugHole.Parse("2B")!.Value, PlugHole.Parse("1T")!.Value)], Fixture.Ines, Late, Fixture.Today).ShouldBeNull();
        PlugTray.Of(aircraft, engine, inspection).Of(plug)!.Hole.ToString().ShouldBe("2B");

        aircraft.FitPlug(engine, PlugHole.Parse("2B")!.Value, "QK", "new one", IgnitionKind.Magneto, Fixture.Today, "cracked", Fixture.Ines)
            .ShouldBeNull();
        var gone = PlugTray.Of(aircraft, engine, inspection).Of(plug).ShouldNotBeNull("it came off, and was measured before");
        inspection.Measure(Guid.NewGuid(), gone, PlugStep.Ohms, 4_000, null, new(Wim, Early, "")).ShouldBeNull();
        inspection.Readings.Single().ComponentId.ShouldBe(plug);
        Place("2B").ReadingOf(PlugStep.Ohms).ShouldBeNull("nothing was measured on the one that sits there now");
        PlugTray.Of(aircraft, engine, inspection).Of(Guid.NewGuid()).ShouldBeNull();
    }

    [Fact]
    public void What_was_read_on_a_part_that_came_off_meanwhile_is_still_its_own()
    {
        Component magneto = new(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1");
        aircraft.Install(magneto, "left", new Hours(0), new Hours(0), engine.Id);
        EngineSheets.FindGone(aircraft, SheetKind.Magneto, magneto.Id, inspection.TimeInService).ShouldBeNull("it is on");
        aircraft.TakeOff(magneto.Id, Fixture.Today, aircraft.TimeInService, "to the bench").ShouldBeNull();
        var sheet = EngineSheets.FindGone(aircraft, SheetKind.Magneto, magneto.Id, inspection.TimeInService).ShouldNotBeNull();
        var value = sheet.Values.First();
        inspection.Measure(Guid.NewGuid(), sheet, value, 5, value.Band.Unit, new(Wim, Early, "")).ShouldBeNull();
        inspection.Readings.ShouldHaveSingleItem().ComponentId.ShouldBe(magneto.Id);
        EngineSheets.FindGone(aircraft, SheetKind.Oil, magneto.Id, inspection.TimeInService).ShouldBeNull();
        EngineSheets.FindGone(aircraft, SheetKind.Magneto, magneto.Id, new Hours(2_000)).ShouldBeNull("gone before this inspection");
    }

    // 14 CFR 43.3(d) as WhoseLook has it: what a helper did counts once somebody who may sign has looked, and they saw nothing of what
    // was still on a phone, or beside what stood.
    [Theory]
    [InlineData(30, false, true)]
    [InlineData(90, false, false)]
    [InlineData(30, true, true)]
    [InlineData(90, true, false)]
    public void A_look_that_was_taken_before_something_arrived_or_was_chosen_has_not_seen_it(int lookedAfter, bool chosen, bool waits)
    {
        var engine = inspection.EngineZone(aircraft.Engines.Single());
        var task = inspection.Tasks.First(one => one.ZoneKey == engine && one.Measure is not null);
        var read = new TypedMeasure("70", "psi");
        if (chosen)
        {
            TwoDrops();
            inspection.Choose(inspection.StillApart.Single().Id, OfTwo.Other, aircraft, Fixture.Ines, Early.AddHours(1)).ShouldBeNull();
        }
        else
        {
            inspection.Take(task, new(Guid.NewGuid(), TaskVerdict.Good, null, task.Changes, read, IsLate: true), aircraft, null, Wim, Early,
                Fixture.Today).Refusal.ShouldBeNull();
            inspection.Came(new(Wim, Early), Early.AddHours(1));
        }
        var open = inspection.Tasks.Where(one => one.ZoneKey == engine && one.Verdict == TaskVerdict.NotYet).Select(one => one.Id).ToList();
        inspection.LookAtZone(engine, open, Fixture.Inspector, Fixture.Shop.SignsBy(Fixture.Ines, inspection, aircraft),
            Early.AddMinutes(lookedAfter)).ShouldBeNull();
        var zone = WhoseLook.Of(inspection, aircraft, Fixture.Shop).Single(one => one.ZoneKey == engine);
        zone.Waiting.Count.ShouldBe(waits ? 1 : 0, string.Join("; ", zone.Waiting));
    }

    // What arrives within half an hour of one person is one return.
    [Fact]
    public void When_it_was_said_and_when_it_arrived_stand_beside_each_other()
    {
        inspection.Came(new(Wim, Early.AddMinutes(5)), Late);
        inspection.Came(new(Wim, Early), Late.AddMinutes(1));
        inspection.Came(new(Fixture.Ines, Early), Late.AddMinutes(1));
        inspection.Came(new(Wim, Late), Late.AddHours(3));
        inspection.CameLate.ShouldBe([
            new(Wim, 2, Early, Early.AddMinutes(5), Late, Late.AddMinutes(1)),
            new(Fixture.Ines, 1, Early, Early, Late.AddMinutes(1), Late.AddMinutes(1)),
            new(Wim, 1, Late, Late, Late.AddHours(3), Late.AddHours(3))], ignoreOrder: true);
    }
}
