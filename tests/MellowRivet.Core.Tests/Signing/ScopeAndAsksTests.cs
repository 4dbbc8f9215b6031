using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Signing;

/// <summary>
/// What an inspection covers and what it asks for: 14 CFR 43 Appendix D and 43.15(c), from memory, as data of
/// the rule pack and the worksheets.
/// </summary>
public class ScopeAndAsksTests
{
    private static Scope Of(InspectionKind kind, Category category, params string[] sheets)
    {
        var aircraft = Fixture.Aircraft(category);
        return Scope.Of(Fixture.Rules, kind, aircraft,
            WalkList.Merge([.. sheets.Select(Fixture.Shipped)], aircraft, kind, [], Fixture.Today)
            .SelectMany(line => line.Task.Covers ?? []));
    }

    // Which list decides, by kind and category; the rest of the kinds are service, and have no scope.
    [Theory]
    [InlineData(InspectionKind.Annual, Category.Standard, "14 CFR 43 Appendix D", false)]
    [InlineData(InspectionKind.HundredHour, Category.Standard, "14 CFR 43 Appendix D", false)]
    [InlineData(InspectionKind.Condition, Category.ExperimentalAmateurBuilt, "14 CFR 43 Appendix D", false)]
    [InlineData(InspectionKind.Condition, Category.ExperimentalLightSport, "14 CFR 43 Appendix D", false)]
    [InlineData(InspectionKind.HundredHour, Category.ExperimentalLightSport, "14 CFR 43 Appendix D", false)]
    [InlineData(InspectionKind.Condition, Category.SpecialLightSport, "the manufacturer's inspection procedures", true)]
    [InlineData(InspectionKind.HundredHour, Category.SpecialLightSport, "the manufacturer's inspection procedures", true)]
    [InlineData(InspectionKind.Service25, Category.Standard, null, false)]
    [InlineData(InspectionKind.Service100, Category.Standard, null, false)]
    [InlineData(InspectionKind.Service100, Category.SpecialLightSport, null, false)]
    public void Each_kind_on_each_category_has_its_scope(InspectionKind kind, Category category, string? title, bool byMaker)
    {
        var scope = Of(kind, category, "app-d");
        (scope.Rule?.Title, scope.Rule?.ByMaker ?? false).ShouldBe((title, byMaker));
        scope.WantsChecklist.ShouldBe(byMaker, "the whole list leaves nothing out");
    }

    [Fact]
    public void Every_kind_that_can_be_signed_as_an_inspection_has_a_scope()
    {
        foreach (var rule in Fixture.Rules.Signing)
            foreach (var (kind, category) in rule.Inspections.Where(kind => kind is InspectionKind.Annual or InspectionKind.HundredHour
                or InspectionKind.Condition or InspectionKind.Permit)
                .SelectMany(kind => rule.Categories.Select(category => (kind, category))))
                Fixture.Rules.Scopes!.ShouldContain(scope => scope.Inspections.Contains(kind)
                    && scope.Categories.Contains(category), $"{kind} on {category}");
    }

    // 43 Appendix D has ten groups, (a) to (j); a list of lubrication alone is none of them.
    [Fact]
    public void The_lubrication_list_alone_leaves_all_of_it_out()
    {
        var whole = Of(InspectionKind.Annual, Category.Standard);
        var holes = Of(InspectionKind.Annual, Category.Standard, "lubrication").Holes;
        holes.Select(hole => hole.Key[..Math.Min(6, hole.Key.Length)]).Distinct().Count().ShouldBe(11, "ten groups, and the run");
        holes.Count.ShouldBe(whole.Holes.Count);
        holes.ShouldNotContain(hole => hole.Title.Contains("Retracting"), "fixed gear has none");
    }

    [Fact]
    public void Without_a_group_it_is_not_that_inspection_unless_the_signer_states_the_checklist()
    {
        var aircraft = Fixture.Aircraft();
        var whole = Fixture.AppendixD;
        var part = whole with { Zones = [.. whole.Zones.Where(zone => zone.Key != "gear")] };
        var inspection = Fixture.Inspect(aircraft, [part]);
        var scope = Scope.Of(Fixture.Rules, inspection, aircraft);
        scope.Holes.ShouldAllBe(hole => hole.Key.StartsWith("43D(e)"));
        string[] Said() =>
            [.. Readiness.Of(inspection, aircraft, Fixture.Shop).Blockers.Where(blocker => blocker.By == HeldUpBy.Scope)
                .Select(blocker => blocker.What)];
        Said().ShouldHaveSingleItem().ShouldContain("landing gear");
        inspection.GoBy("Maker's list", "rev. 4", Fixture.Inspector, null,
            Fixture.Now)!.Message.ShouldContain("Only somebody who may sign");
        inspection.GoBy("Maker's list", " ", Fixture.Inspector, Fixture.Inspector.Certificates[0],
            Fixture.Now)!.Field.ShouldBe("checklist");
        inspection.GoBy("Maker's list", "rev. 4", Fixture.Inspector, Fixture.Inspector.Certificates[0], Fixture.Now).ShouldBeNull();
        Said().ShouldBeEmpty();
        var entry = RecordWriter.Draft(Fixture.Close(inspection, aircraft),
            new(Fixture.Inspector, Fixture.Inspector.Certificates[0]))[0].Content;
        entry["extent"]!.ToString().ShouldContain("scope of 14 CFR 43 Appendix D, by checklist Maker's list, rev. 4");
    }

    [Fact]
    public void A_light_sport_condition_inspection_says_that_it_goes_by_its_makers_procedures()
    {
        var (text, _) = Fixture.Rules.Statement(InspectionKind.Condition, Category.SpecialLightSport, true, "aircraft", Fixture.Today,
            "Mote checklist, rev. 6");
        text.ShouldContain("in accordance with the manufacturer's inspection procedures, Mote checklist, rev. 6, and was found");
        text.ShouldNotContain("appendix D");
    }

    [Fact]
    public void What_is_mixed_up_is_told_apart_where_one_chooses()
    {
        InspectionKind.HundredHour.InWordsToChoose().ShouldBe("100-hour inspection");
        InspectionKind.Service100.InWordsToChoose().ShouldBe("100-hour service (no inspection)");
        Enum.GetValues<InspectionKind>().Select(kind => kind.InWordsToChoose()).Distinct().Count()
            .ShouldBe(Enum.GetValues<InspectionKind>().Length);
    }

    // 43.15(c)(2) names power (static and idle), magnetos, fuel and oil pressure, cylinder and oil temperature.
    [Theory]
    [InlineData(InspectionKind.Annual, Category.Standard, 8)]
    [InlineData(InspectionKind.HundredHour, Category.Standard, 8)]
    [InlineData(InspectionKind.Condition, Category.ExperimentalAmateurBuilt, 8)]
    [InlineData(InspectionKind.Condition, Category.SpecialLightSport, 8)]
    [InlineData(InspectionKind.Service100, Category.Standard, 0)]
    public void The_run_the_compressions_and_the_filter_are_asked_for(InspectionKind kind, Category category, int run)
    {
        var aircraft = Fixture.Aircraft(category);
        var inspection = new Inspection(Guid.NewGuid(), aircraft, kind, "26-1", [Fixture.Shipped("lubrication")], Fixture.Today);
        var asks = Asks.Of(inspection, aircraft, Fixture.Shop);
        asks.Count(ask => ask.Asked == Asked.Run).ShouldBe(run);
        asks.Count(ask => ask.Asked is Asked.Compressions or Asked.Filter).ShouldBe(run > 0 ? 2 : 0);
        asks.ShouldAllBe(ask => !ask.IsMet && ask.Source.Text.Length > 0);
        asks.ShouldNotContain(ask => ask.Asked == Asked.Plugs, "no worksheet asks for them");
    }

    [Fact]
    public void A_worksheets_task_asks_for_its_sheet()
    {
        var aircraft = Fixture.Aircraft();
        var asks = Asks.Of(Fixture.Inspect(aircraft, [Fixture.AppendixD]), aircraft, Fixture.Shop);
        asks.Single(ask => ask.Asked == Asked.Plugs).Missing.ShouldBe("0 of 8 done, next 1T");
        asks.Single(ask => ask.Asked == Asked.Exhaust).Missing.ShouldStartWith("0 of ");
        asks.Single(ask => ask.Asked == Asked.Compressions).Missing.ShouldBe("no reading of cylinder 1, 2, 3, 4");
    }

    [Fact]
    public void An_engine_that_burns_its_oil_has_neither_oil_to_read_nor_a_filter()
    {
        var aircraft = new Aircraft(Guid.NewGuid(), "N0TST", "Glider", "T-1", Category.ExperimentalAmateurBuilt,
            new(Wing.Low, Gear.TailWheel, 1, 1));
        aircraft.InstallEngine(new(Guid.NewGuid(), ComponentKind.Engine, "", "E") { LayoutKey = EngineLayout.InlineTwoStroke.Key }, "",
            default, null);
        var inspection = new Inspection(Guid.NewGuid(), aircraft, InspectionKind.Condition, "26-1", [Fixture.Shipped("two-stroke")],
            Fixture.Today);
        var asks = Asks.Of(inspection, aircraft, Fixture.Shop);
        asks.ShouldNotContain(ask => ask.What.Contains("oil"));
        asks.Count(ask => ask.Asked == Asked.Run).ShouldBe(6);
    }

    [Fact]
    public void What_is_not_part_of_it_takes_a_reason_and_the_right_to_sign_and_the_entry_says_so()
    {
        var aircraft = Fixture.Aircraft();
        var inspection = Fixture.Inspection(aircraft);
        var ask = Asks.Of(inspection, aircraft, Fixture.Shop).Single(one => one.Key.EndsWith("/fuel-pressure"));
        var signs = Fixture.Inspector.Certificates[0];
        inspection.LeaveOut(ask, "gravity feed", Fixture.Inspector, null, Fixture.Now)!.Message.ShouldContain("Only somebody who may sign");
        inspection.LeaveOut(ask, " ", Fixture.Inspector, signs, Fixture.Now)!.Message.ShouldContain("Say why");
        inspection.LeaveOut(ask, "Gravity feed, no gauge.", Fixture.Inspector, signs, Fixture.Now).ShouldBeNull();
        Asks.Of(inspection, aircraft, Fixture.Shop).ShouldNotContain(one => one.Key == ask.Key);
        RecordWriter.Draft(Fixture.Close(inspection, aircraft), new(Fixture.Inspector, signs))
            .Single(draft => draft.Book == Book.Engine).Content["work"]!.ToJsonString()
            .ShouldContain(
                "Not part of this inspection: engine run, fuel pressure. Gravity feed, no gauge. "
                + $"By {Fixture.Inspector.Name} (mechanic with inspection authorization, 77).");
        inspection.AskAgain(ask.Key);
        Asks.Of(inspection, aircraft, Fixture.Shop).ShouldContain(one => one.Key == ask.Key);
    }

    [Fact]
    public void A_task_that_a_helper_called_not_here_excuses_nothing_before_a_signer_has_looked()
    {
        var (aircraft, helper) = (Fixture.Aircraft(), new Person(Guid.NewGuid(), "Helper", "HH", [Role.Assistant], []));
        var shop = Fixture.Among(Fixture.Inspector, helper);
        var inspection = Fixture.Inspection(aircraft);
        var comp = inspection.Tasks.Single(task => task.Key == "comp");
        bool Asked() => Asks.Of(inspection, aircraft, shop).Any(ask => ask.Asked == Core.Signing.Asked.Compressions);
        inspection.Answer(comp, TaskVerdict.NotApplicable, "no tester", null, helper.Id, Fixture.Now).ShouldBeNull();
        Asked().ShouldBeTrue();
        inspection.Answer(comp, TaskVerdict.NotApplicable, "borescope instead, SB 12", null, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Asked().ShouldBeFalse("the signer's own word is enough: nobody says it twice");
    }

    [Fact]
    public void A_value_read_at_a_task_or_on_the_sheet_is_the_same_to_the_run()
    {
        var aircraft = Fixture.Aircraft();
        var engine = aircraft.Engines.Single().Component;
        var inspection = Fixture.Inspection(aircraft);
        Asks.Of(inspection, aircraft, Fixture.Shop).Single(ask => ask.Key.EndsWith("/static-rpm")).IsMet.ShouldBeFalse();
        var sheet = RunSheet.Of(engine);
        inspection.Measure(Guid.NewGuid(), sheet, sheet.Values.Single(value => value.Kind == "static-rpm" && value.Position == "before"),
            2350, Unit.Rpm, new(Fixture.Ines, Fixture.Now)).ShouldBeNull();
        Asks.Of(inspection, aircraft, Fixture.Shop).Single(ask => ask.Key.EndsWith("/static-rpm")).IsMet.ShouldBeTrue();
        foreach (var number in new[] { 1, 2, 3, 4 })
            Fixture.Compress(inspection, aircraft, number, 77);
        Asks.Of(inspection, aircraft, Fixture.Shop).Single(ask => ask.Asked == Asked.Compressions).IsMet.ShouldBeTrue();
    }
}
