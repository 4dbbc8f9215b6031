using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Records;
using static MellowRivet.Core.Tests.Bulletins.BulletinFixture;

namespace MellowRivet.Core.Tests.Bulletins;

public class ResearchTests
{
    private readonly Aircraft aircraft = Flown();

    // 14 CFR 39.3, 91.327(b), from memory; domain.md section 10: what binds depends on the aircraft.
    [Theory]
    [InlineData(Category.Standard, BulletinKind.AirworthinessDirective, true)]
    [InlineData(Category.Standard, BulletinKind.MandatoryBulletin, false)]
    [InlineData(Category.Standard, BulletinKind.SafetyDirective, false)]
    [InlineData(Category.SpecialLightSport, BulletinKind.SafetyDirective, true)]
    [InlineData(Category.SpecialLightSport, BulletinKind.AlertBulletin, false)]
    [InlineData(Category.ExperimentalAmateurBuilt, BulletinKind.AirworthinessDirective, false)]
    [InlineData(Category.ExperimentalLightSport, BulletinKind.SafetyDirective, false)]
    public void What_binds_depends_on_the_aircraft(Category category, BulletinKind kind, bool binds)
    {
        var line = Line(Flown(category), Bulletin(kind: kind, compliance: new([new(DeadlineKind.BeforeNextFlight)])));
        (line.Rule.Binds, line.Force).ShouldBe((binds, binds ? "binding" : "advisory"));
        line.State.ShouldBe(binds ? BulletinState.BeforeFlight : BulletinState.Advisory);
        line.Grounds(1100).ShouldBe(binds);
    }

    [Fact]
    public void Every_kind_on_every_category_has_its_rule_in_the_shipped_packs()
    {
        var permit = RulePack.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "rule-packs", "permit-scheme.json")));
        foreach (var category in Enum.GetValues<Category>())
            foreach (var kind in Enum.GetValues<BulletinKind>())
                (Fixture.Rules.Covers(category)
                    ? Fixture.Rules
                    : permit).Bulletins!.Count(rule => rule.Kinds.Contains(kind) && rule.Categories.Contains(category))
                    .ShouldBe(1, $"{kind} on {category}");
        BindingRule.For(BulletinKind.Advisory, Category.Standard, null).Binds.ShouldBeTrue("a pack that says nothing is taken to bind");
    }

    [Fact]
    public void An_advisory_one_is_adopted_or_declined_and_a_binding_one_is_not()
    {
        var advice = Bulletin(kind: BulletinKind.MandatoryBulletin, compliance: new([new(DeadlineKind.BeforeNextFlight)]));
        var one = FollowUp(advice, aircraft);
        one.Decide(Line(aircraft, advice), PolicyKind.Declined, "", Fixture.Ines, Fixture.Now)!.Field.ShouldBe("reason");
        one.Decide(Line(aircraft, advice), PolicyKind.Declined, "looked at yearly", Fixture.Ines, Fixture.Now).ShouldBeNull();
        (Line(aircraft, advice, [one]).State, Line(aircraft, advice, [one]).Why).ShouldBe((BulletinState.Declined, "looked at yearly"));
        one.Decide(Line(aircraft, advice), PolicyKind.Adopted, "sisters cracked", Fixture.Ines, Fixture.Now).ShouldBeNull();
        var adopted = Line(aircraft, advice, [one]);
        (adopted.Force, adopted.State, adopted.Grounds(1100)).ShouldBe(("by own policy", BulletinState.BeforeFlight, true));

        var directive = Bulletin();
        FollowUp(directive, aircraft)
            .Decide(Line(aircraft, directive, due: [Annual(aircraft, new(2026, 2, 3))]), PolicyKind.Declined, "no", Fixture.Ines,
                Fixture.Now)!.Message.ShouldContain("can’t be declined");
    }

    [Fact]
    public void One_that_lists_only_sisters_is_adopted_all_the_same()
    {
        var sisters = Bulletin(kind: BulletinKind.AlertBulletin, rule: Rule("aircraft.model is Corrin 4"),
            compliance: new([new(DeadlineKind.NotLaterThan, Date: Today.AddDays(90))]));
        Line(aircraft, sisters).State.ShouldBe(BulletinState.DoesNotApply);
        var one = FollowUp(sisters, aircraft);
        one.Decide(Line(aircraft, sisters), PolicyKind.Adopted, "same spar", Fixture.Ines, Fixture.Now).ShouldBeNull();
        (Line(aircraft, sisters, [one]).State, Line(aircraft, sisters, [one]).Force).ShouldBe((BulletinState.Ahead, "by own policy"));
    }

    [Fact]
    public void A_later_revision_takes_the_place_of_the_earlier_and_says_whether_that_counts()
    {
        var first = Bulletin(effective: new(2025, 1, 1), compliance: new([new(DeadlineKind.NotLaterThan, Date: new(2027, 6, 1))]));
        var second = first with { Revision = "A", Effective = new(2026, 5, 1) };
        var one = FollowUp(first, aircraft);
        one.Comply(first, Done(new(2025, 6, 1), null), Today).ShouldBeNull();
        var lines = Research(aircraft, [Held(first), Held(second)], [one]).Lines;
        lines.Select(line => (line.Held.Revision, line.State)).ShouldBe([("A", BulletinState.Ahead), ("", BulletinState.Superseded)]);
        Research(aircraft, [Held(first), Held(second with { Compliance = second.Compliance with { EarlierCounts = true } })],
            [one]).Lines.Single(line => line.Held.Revision == "A").State.ShouldBe(BulletinState.Done);
        Research(aircraft, [Held(first), Held(second with { Effective = Today.AddDays(9) })],
            [one]).Lines.Single(line => line.Held.Revision == "").State.ShouldBe(BulletinState.Done,
                "the first stands until the second holds");
    }

    [Fact]
    public void Two_that_name_each_other_leave_the_later_one_standing()
    {
        var one = Bulletin("SB-1", effective: new(2025, 1, 1)) with { Supersedes = [new("SB-2")] };
        var two = Bulletin("SB-2", effective: new(2026, 1, 1)) with { Supersedes = [new("SB-1")] };
        var held = new[] { Held(one), Held(two) };
        var list = new BulletinList(held, Types, Today);
        (list.SupersededBy(held[0]), list.SupersededBy(held[1])).ShouldBe((held[1], null));
    }

    [Fact]
    public void The_engines_own_certification_chooses_and_not_the_aircrafts_name()
    {
        var certified = Bulletin("SB-C", Rule("engine.certified is yes"), about: ComponentKind.Engine);
        var other = Bulletin("SB-X", Rule("engine.certified is no"), about: ComponentKind.Engine);
        Research(aircraft, [Held(certified), Held(other)]).Lines.ShouldAllBe(line => line.State == BulletinState.CannotTell);
        var said = StatedFact.Take(aircraft, aircraft.Engines.Single(), "engine.certified", "no", Guid.NewGuid(), null, Fixture.Ines,
            Fixture.Now, Fixture.Today).Fact!;
        said.ComponentId.ShouldBe(aircraft.Engines.Single().ComponentId, "it goes where the engine goes");
        Research(aircraft, [Held(certified), Held(other)], stated: [said],
            due: [Annual(aircraft, new(2026, 2, 3))]).Lines.Single(
                line => line.Answer.Answer == RuleAnswer.Applies).Bulletin.Number.ShouldBe("SB-X");
    }

    [Fact]
    public void A_fact_read_off_resolves_all_that_waited_and_puts_the_part_into_the_tree()
    {
        var engine = aircraft.Engines.Single();
        var two = new[] { Held(Bulletin("SB-1", Rule("engine.crankshaft.serial in TK-1 to TK-9"), about: ComponentKind.Engine)),
            Held(Bulletin("SB-2", Rule("engine.crankshaft.serial in TK-5 and up"), about: ComponentKind.Engine)) };
        var missing = Research(aircraft, two).Missing.ShouldHaveSingleItem();
        (missing.Name, missing.Waiting.Count).ShouldBe(("engine.crankshaft.serial", 2));
        var (fact, refusal) = StatedFact.Take(aircraft, engine, missing.Name, " TK-4 ", Guid.NewGuid(), null, Fixture.Ines, Fixture.Now,
            Fixture.Today);
        refusal.ShouldBeNull();
        var shaft = aircraft.SittingOn(engine.ComponentId).Single(stay => stay.Component.Kind == ComponentKind.Crankshaft);
        (shaft.Component.SerialNumber, fact!.ComponentId).ShouldBe(("TK-4", shaft.ComponentId));
        Research(aircraft, two, stated: [fact]).Lines.Select(line => (line.Bulletin.Number, line.Answer.Answer))
            .ShouldBe([("SB-1", RuleAnswer.Applies), ("SB-2", RuleAnswer.DoesNotApply)], ignoreOrder: true);
    }

    [Fact]
    public void None_fitted_is_an_answer_and_nothing_on_file_is_none()
    {
        var turbo = Bulletin(rule: Rule("engine.turbocharger.serial in T-1 and up"), about: ComponentKind.Engine);
        Line(aircraft, turbo).State.ShouldBe(BulletinState.CannotTell);
        var none = StatedFact.Take(aircraft, aircraft.Engines.Single(), "engine.turbocharger.fitted", "no", Guid.NewGuid(), null,
            Fixture.Ines, Fixture.Now, Fixture.Today).Fact!;
        Line(aircraft, turbo, stated: [none]).State.ShouldBe(BulletinState.DoesNotApply);
        var pump = Bulletin(about: ComponentKind.Pump);
        var open = Line(aircraft, pump);
        (open.State, open.Answer.Missing.Single()).ShouldBe((BulletinState.CannotTell, "pump.serial"));
        StatedFact.Take(aircraft, null, "pump.serial", "P-9", Guid.NewGuid(), null, Fixture.Ines, Fixture.Now,
            Fixture.Today).Refusal.ShouldBeNull();
        Line(aircraft, pump, due: [Annual(aircraft, new(2026, 2, 3))]).On!.Component.SerialNumber.ShouldBe("P-9");
    }

    [Theory]
    [InlineData("engine.crankshaft.serial", "")]
    [InlineData("engine.crankshaft.serial", "??")]
    [InlineData("engine.certified", "perhaps")]
    [InlineData("engine.made", "2026-13-01")]
    [InlineData("engine.made", "2030-01-01")]
    [InlineData("engine.hours", "12")]
    [InlineData("aircraft.serial", "C-78")]
    [InlineData("nothing", "1")]
    public void What_cannot_be_a_fact_is_refused(string name, string value) =>
        StatedFact.Take(aircraft, aircraft.Engines.Single(), name, value, Guid.NewGuid(), null, Fixture.Ines, Fixture.Now,
            Fixture.Today).Refusal.ShouldNotBeNull();

    [Fact]
    public void Each_engine_of_a_twin_is_looked_up_by_itself()
    {
        var second = new Component(Guid.NewGuid(), ComponentKind.Engine, "TF-1", "E-20") { LayoutKey = EngineLayout.FlatFour.Key };
        aircraft.InstallEngine(second, "right", new(0), new(0));
        Research(aircraft, [Held(Bulletin(rule: Rule("engine.serial in E-1 to E-9"), about: ComponentKind.Engine))]).Lines.Select(
            line => (line.On!.Component.SerialNumber, line.Answer.Answer))
            .ShouldBe([("E-5", RuleAnswer.Applies), ("E-20", RuleAnswer.DoesNotApply)], ignoreOrder: true);
        // About the aircraft, any engine of it will do.
        Line(aircraft, Bulletin(rule: Rule("engine.serial in E-20"))).Answer.Answer.ShouldBe(RuleAnswer.Applies);
    }

    [Fact]
    public void A_part_that_is_called_by_name_is_found_under_it()
    {
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Other, "TC-9", "T-5", "Turbo charger"), "top row", new(0), null,
            aircraft.Engines.Single().ComponentId);
        Line(aircraft, Bulletin(rule: Rule("engine.turbocharger.toprow.serial in T-1 to T-9"),
            about: ComponentKind.Engine)).Answer.Answer.ShouldBe(RuleAnswer.Applies);
        Line(aircraft, Bulletin(rule: Rule("engine.turbocharger.bottomrow.serial in T-1 to T-9"),
            about: ComponentKind.Engine)).Answer.Answer.ShouldBe(RuleAnswer.CannotTell);
    }

    [Fact]
    public void An_engine_that_fires_without_magnetos_has_none()
    {
        var electronic = new Aircraft(Guid.NewGuid(), "N0TSU", "T", "1", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
        electronic.InstallEngine(new(Guid.NewGuid(), ComponentKind.Engine, "", "E-1")
            { LayoutKey = EngineLayout.FlatFour.Key, Ignition = new(IgnitionKind.HighEnergy, IgnitionKind.HighEnergy) }, "", default, null);
        Line(electronic, Bulletin(rule: Rule("magneto.serial in M-1 and up"), about: ComponentKind.Magneto)).State.ShouldBe(
            BulletinState.DoesNotApply);
    }

    [Fact]
    public void A_day_that_is_still_to_come_in_the_shop_was_never_read_off()
    {
        var aircraft = Fixture.Aircraft();
        StatedFact.Take(aircraft, null, "aircraft.made", "2026-11-23", Guid.NewGuid(), null, Fixture.Ines, Fixture.Now,
            Fixture.Today).Refusal.ShouldBeNull();
        StatedFact.Take(aircraft, null, "aircraft.made", "2026-11-24", Guid.NewGuid(), null, Fixture.Ines, Fixture.Now,
            Fixture.Today).Refusal!.Message.ShouldContain("still to come");
    }
}
