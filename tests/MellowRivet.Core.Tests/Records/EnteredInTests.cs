using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Tests.Records;

/// <summary>
/// On a twin the work on one engine stands in that one's book and in no other (14 CFR 43.9(a), from memory: the
/// record of the product worked on).
/// </summary>
public class EnteredInTests
{
    private readonly Aircraft twin = new(Guid.NewGuid(), "N0TWN", "Twin", "T-2", Category.Standard, new(Wing.Low, Gear.NoseWheel, 2, 4));
    private readonly Inspection inspection;

    public EnteredInTests()
    {
        foreach (var side in new[] { "left", "right" })
        {
            var engine = twin.InstallEngine(Engine($"E-{side}"), side, default, new Hours(0));
            twin.Install(new(Guid.NewGuid(), ComponentKind.Propeller, "", $"P-{side}"), side, default, new Hours(0));
            twin.Install(new(Guid.NewGuid(), ComponentKind.Magneto, "", $"M-{side}"), "1", default, new Hours(0), engine.ComponentId);
        }
        twin.ReadTime(Fixture.Today, new Hours(500));
        inspection = Fixture.Inspection(twin);
    }

    private static Component Engine(string serial)
    {
        var engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "", serial) { LayoutKey = EngineLayout.FlatFour.Key };
        engine.JudgeCompressionBy(new(CompressionSchool.SixtyOfEighty));
        return engine;
    }

    private Installation On(string side) => twin.Engines.Single(engine => engine.Position == side);

    private Discrepancy Done(string what, string zone, InspectionTask? task = null)
    {
        var found = inspection.Find(Guid.NewGuid(), what, zone, "", DiscrepancyClass.Airworthiness, false, task, Fixture.Ines, Fixture.Now);
        found.Correct(new("put right"), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        return found;
    }

    private Dictionary<string, string[]> Entries() =>
        RecordWriter.Draft(Fixture.Close(inspection, twin), new(Fixture.Inspector, Fixture.Inspector.Certificates[0]))
        .Where(draft => draft.Book != Book.DiscrepancyList)
        .ToDictionary(draft => $"{draft.Content["item"]}", draft => draft.Content["work"]!.AsArray().Select(work => work!.ToString())
            .ToArray());

    [Fact]
    public void What_is_found_in_an_engines_zone_in_passing_knows_its_engine()
    {
        Done("hose chafed", "engine-right").ComponentId.ShouldBe(On("right").ComponentId);
        Done("pump weeps", "engine-left", inspection.Tasks.First(task => task.ZoneKey == "engine-left"));
        var entries = Entries();
        entries["Engine right"].ShouldHaveSingleItem().ShouldContain("hose chafed. Put right.");
        entries["Engine left"].ShouldHaveSingleItem().ShouldContain("pump weeps. Put right.");
        entries["Airframe"].ShouldBeEmpty();
    }

    [Fact]
    public void A_part_that_sits_on_an_engine_is_entered_with_it_wherever_it_was_found()
    {
        var found = inspection.Find(Guid.NewGuid(), "magneto worn", "gear", "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines,
            Fixture.Now);
        var magneto = twin.SittingOn(On("right").ComponentId).Single(stay => stay.Component.Kind == ComponentKind.Magneto).ComponentId;
        found.Describe(found.What, null, found.Place with { ComponentId = magneto }, FoundHow.Visual, null, Fixture.Ines, Fixture.Now)
            .ShouldBeNull();
        found.Correct(new("overhauled"), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        twin.Replace(magneto, "", "M-new", Fixture.Today, "worn").ShouldBeNull();
        var entry = Entries()["Engine right"];
        entry.Length.ShouldBe(2, "it came off since, and sat there");
        entry[0].ShouldBe("Magneto 1, right engine: off s/n M-right at 500.0 h, own time 500.0 h; on s/n M-new at 500.0 h; worn.");
        entry[1].ShouldContain("magneto worn. Overhauled.");
    }

    [Fact]
    public void A_judgement_that_was_set_aside_and_a_sheet_left_out_stand_with_their_own_engine()
    {
        inspection.Cut(new(Guid.NewGuid(), On("right").ComponentId, FilterPlace.Filter, FilterMetal.Ferrous, FilterAmount.Flakes, "", null,
            Fixture.Ines, Fixture.Now)).ShouldBeNull();
        var bad = JudgedLines.Of(inspection, twin).Single().Judged;
        inspection.SetJudgementAside(twin, bad.Key, bad.Seen, "run in", "manual 72", Fixture.Inspector, Fixture.Inspector.Certificates[0],
            Fixture.Now).ShouldBeNull();
        var left = Asks.Of(inspection, twin, Fixture.Shop)
            .First(ask => ask.Asked == Asked.Compressions && ask.EngineId == On("left").ComponentId);
        inspection.LeaveOut(left, "done last week", Fixture.Inspector, Fixture.Inspector.Certificates[0], Fixture.Now).ShouldBeNull();
        var entries = Entries();
        entries["Engine right"][^1].ShouldContain("Set aside: run in");
        entries["Engine left"].Single().ShouldContain("Not part of this inspection: compressions");
    }

    [Fact]
    public void An_engine_that_came_off_has_its_work_in_the_airframes_entry_by_its_serial_number()
    {
        Done("case cracked", "engine-left");
        twin.TakeOff(On("left").ComponentId, Fixture.Today, new Hours(500), "cracked").ShouldBeNull();
        twin.Fit(Engine("E-new"), "left", Fixture.Today, new Hours(500), new Hours(0), null).ShouldBeNull();
        var entries = Entries();
        entries["Airframe"].ShouldHaveSingleItem().ShouldStartWith(
            "Engine s/n E-left, taken off at 500.0 h: 26-1-01 Engine, left: case cracked. Put right.");
        entries["Engine left"].ShouldBe(
            ["Engine left: off s/n E-left at 500.0 h, own time 500.0 h; on s/n E-new at 500.0 h, own time 0.0 h; cracked."]);
    }

    // What stood open from before parts were known by themselves: the zone's name says which engine; one that doesn't is nobody's.
    [Theory]
    [InlineData("engine-right", "Engine right", "E-right")]
    [InlineData("engine", "Airframe", "T-2")]
    public void An_open_item_is_cleared_in_its_own_engines_book_or_in_none(string zone, string item, string serial)
    {
        var found = inspection.Find(Guid.NewGuid(), "seal weeps", "engine-right", "", DiscrepancyClass.Airworthiness, false, null,
            Fixture.Ines, Fixture.Now);
        found.Describe(found.What, null, found.Place with { ComponentId = null }, FoundHow.Visual, null, Fixture.Ines, Fixture.Now)
            .ShouldBeNull();
        var open = new OpenItem(twin.Id, inspection, found, Fixture.Today);
        typeof(OpenItem).GetProperty(nameof(OpenItem.ZoneKey))!.SetValue(open, zone);
        var draft = RecordWriter.Clearing(open, twin, Fixture.Shop, new("seal changed"),
            new(Fixture.Inspector, Fixture.Inspector.Certificates[0]), Fixture.Today, 0);
        (draft.Content["item"]!.ToString(), draft.Content["serial"]!.ToString()).ShouldBe((item, serial));
        draft.Content["work"]![0]!.ToString().Contains("isn’t said which").ShouldBe(item == "Airframe");
    }

    [Fact]
    public void A_new_engine_is_looked_at_from_the_beginning_and_a_missing_one_holds_the_signature_up()
    {
        var old = On("left");
        foreach (var task in inspection.Tasks)
            task.Set(TaskVerdict.NotApplicable, "not on this one", null, Fixture.Ines, Fixture.Now).ShouldBeNull();
        var of = inspection.Tasks.Where(task => task.ComponentId == old.ComponentId).ToList();
        of[0].Set(TaskVerdict.Discrepancy, null, null, Fixture.Ines, Fixture.Now).ShouldBeNull();
        twin.TakeOff(old.ComponentId, Fixture.Today, new Hours(500), "sold").ShouldBeNull();
        inspection.Follow(twin);
        of.ShouldAllBe(task => task.ComponentId == old.ComponentId && task.Verdict != TaskVerdict.NotYet, "nothing came in its place yet");
        Held().ShouldHaveSingleItem().ShouldContain("Engine left s/n E-left came off");

        var fresh = Engine("E-new");
        twin.Fit(fresh, "left", Fixture.Today, new Hours(500), new Hours(0), null).ShouldBeNull();
        inspection.Follow(twin);
        of.ShouldAllBe(task => task.ComponentId == fresh.Id && task.Verdict == TaskVerdict.NotYet && task.Why.Contains("E-new"));
        inspection.Tasks.Except(of).ShouldAllBe(task => task.Verdict == TaskVerdict.NotApplicable);
        Held().ShouldBeEmpty();

        string[] Held() =>
            [.. Readiness.Of(inspection, twin, Fixture.Bare).Blockers.Where(blocker => blocker.By == HeldUpBy.PartGone)
                .Select(blocker => blocker.What)];
    }

    // Every kind of inspection on every category: it goes on where the shipped rules can sign it there, and is
    // refused in words where they can't.
    [Fact]
    public void A_category_changes_under_an_inspection_only_where_somebody_can_sign_it_then()
    {
        var refused = 0;
        foreach (var kind in Enum.GetValues<InspectionKind>().Where(kind =>
            kind is not (InspectionKind.Job or InspectionKind.Survey)))
            foreach (var to in Enum.GetValues<Category>())
            {
                var aircraft = Fixture.Aircraft(to);
                var work = Fixture.Inspection(aircraft, kind);
                if (Fixture.Rules.GoesOn(work, to) is { } refusal)
                {
                    refused++;
                    refusal.Message.ShouldContain($"{Fixture.Rules.Title} knows none");
                }
                else
                    Should.NotThrow(() => RecordWriter.Draft(Fixture.Close(work, aircraft),
                        new(Fixture.Inspector, Fixture.Inspector.Certificates[0])));
                Readiness.Of(work, aircraft, Fixture.Bare).Blockers.Any(blocker => blocker.By == HeldUpBy.NoStatement)
                    .ShouldBe(!Fixture.Rules.HasStatement(kind, to));
                work.Sign();
                Fixture.Rules.GoesOn(work, to).ShouldBeNull("what is signed stays signed");
            }
        refused.ShouldBeGreaterThan(7);
    }
}
