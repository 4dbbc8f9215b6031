using System.Reflection;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using static MellowRivet.Core.Tests.Bulletins.BulletinFixture;

namespace MellowRivet.Core.Tests.Signing;

/// <summary>Everything that is judged stands on one list, and each bad judgement wants an answer (domain.md section 14).</summary>
public class JudgementListTests
{
    private readonly Aircraft aircraft = new(Guid.NewGuid(), "N0TST", "Test type", "T-1", Category.Standard,
        new(Wing.Low, Gear.NoseWheel, 1, 2));
    private readonly Inspection inspection;
    private readonly Component engine;

    private static readonly Worksheet Sheet = Worksheet.Parse("""
        { "key": "all", "title": "All", "version": 1, "basis": "test", "zones": [
          { "key": "engine", "title": "Engine", "station": "engine", "book": "engine", "tasks": [ { "key": "comp", "text": "Compressions",
          "reference": "(d)(3)", "compression": true } ] },
          { "key": "gear", "title": "Gear", "station": "airframe", "book": "airframe", "tasks": [
            { "key": "pads", "text": "Pads", "reference": "(e)(9)", "measure": { "kind": "pads", "unit": "in", "low": 0.1, "high": null,
            "standing": "practice", "source": "common practice", "method": "wear" } },
            { "key": "cable", "text": "Cable", "reference": "(f)", "measure": { "kind": "cable", "unit": "lb", "low": 30, "high": 40,
            "standing": "manual", "source": "manual 27", "method": "cableTension" } },
            { "key": "bolt", "text": "Bolt", "reference": "(h)(2)", "measure": { "kind": "bolt", "unit": "in-lb", "low": 280, "high": 320,
            "standing": "reference", "source": "table", "method": "torque" } },
            { "key": "vane", "text": "Vane", "reference": "(f)", "measure": { "kind": "vane", "unit": "°", "low": null, "high": null,
            "standing": "manual", "source": "no limit on file yet" } } ] } ] }
        """);

    public JudgementListTests()
    {
        engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "", "E-1")
            { LayoutKey = EngineLayout.FlatFour.Key, Ignition = new(IgnitionKind.Magneto, IgnitionKind.Magneto) };
        engine.JudgeCompressionBy(new(CompressionSchool.SixtyOfEighty));
        aircraft.InstallEngine(engine, "", default, new Hours(120));
        aircraft.ReadTime(new DateOnly(2026, 11, 20), new Hours(1000.5m));
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1"), "left", default, null, engine.Id);
        foreach (var side in new[] { "left", "right" })
            aircraft.Install(new(Guid.NewGuid(), ComponentKind.Carburettor, "", $"C-{side}"), side, default, null, engine.Id);
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Hose, "", "H-1"), "", default, null, engine.Id);
        aircraft.InstallPlugs(engine, "P", 1, default, null);
        inspection = Fixture.Inspect(aircraft, [Sheet], new(FirstLook: false));
    }

    private IReadOnlyList<Judged> All => InspectionJudgements.Of(inspection, aircraft);
    private IReadOnlyList<JudgedLine> Lines => JudgedLines.Of(inspection, aircraft);
    private JudgedLine Only => Lines.ShouldHaveSingleItem();
    private Component Part(ComponentKind kind, string position = "") =>
        aircraft.SittingOn(engine.Id)
            .First(stay => stay.Component.Kind == kind && (position.Length == 0 || stay.Position == position)).Component;
    private TrayPlace Place(string hole) => PlugTray.Of(aircraft, engine, inspection).At(PlugHole.Parse(hole)!.Value)!;

    private IReadOnlyList<string> Entered(Book book) =>
        [.. RecordWriter.Draft(inspection, aircraft, Fixture.Rules, new(Fixture.Inspector, Fixture.Inspector.Certificates[0]),
            Fixture.Today)
        .Single(draft => draft.Book == book).Content["work"]!.AsArray().Select(line => $"{line}")];

    private void Value(EngineSheet sheet, string kind, string position, double value, int minute = 0) =>
        inspection.Measure(Guid.NewGuid(), sheet, sheet.Values.Single(one => one.Kind == kind && one.Position == position), value,
            sheet.Values.First(one => one.Kind == kind).Band.Unit, Fixture.Ines, Fixture.Now.AddMinutes(minute)).ShouldBeNull();

    private void Found(EngineSheet sheet, string key, int minute = 0, LookState state = LookState.Found) =>
        inspection.Look(sheet, sheet.Looks.Single(look => look.Key == key),
            new(sheet.Carrier.Id, sheet.Kind, key, state, "cracked", null, null, Fixture.Ines, Fixture.Now.AddMinutes(minute)))
                .ShouldBeNull();

    private void Task(string key, double value, ReadingConditions? conditions = null)
    {
        var task = inspection.Tasks.Single(one => one.Key == key);
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, task.ComponentId, task.Measure!.Kind, task.ZoneKey, value,
            Unit.Find(task.Measure.Unit)!, conditions
                ?? new(), aircraft.TimeInService, Fixture.Now, Fixture.Ines) { InspectionId = inspection.Id, TaskId = task.Id });
    }

    private void Ohms(string hole, double ohms) =>
        inspection.Measure(Guid.NewGuid(), Place(hole), PlugStep.Ohms, ohms, null, Fixture.Ines, Fixture.Now).ShouldBeNull();

    // Each kind of thing that is judged, with a value or a look that is bad by its published or usual limit (domain.md sections 4 to 8).
    private Dictionary<string, Action> Bad => new()
    {
        ["compression, below 60/80 twice"] = () => Fixture.Compress(inspection, aircraft, 2, 15, again: true),
        ["compression, first low try"] = () => Fixture.Compress(inspection, aircraft, 2, 58),
        ["plug, resistance"] = () => Ohms("1T", 30_000),
        ["plug, look"] = () => inspection.Mark(Place("1T"), PlugStep.Look, nameof(PlugLook.Cracked), Fixture.Ines, Fixture.Now),
        ["plug, gap as set"] = () => inspection.Measure(Guid.NewGuid(), Place("1T"), PlugStep.GapSet, 0.030, null, Fixture.Ines,
            Fixture.Now),
        ["plug, fired under pressure"] = () => inspection.Mark(Place("1T"), PlugStep.PressureTest, "fail", Fixture.Ines, Fixture.Now),
        ["plug, torque"] = () => inspection.Record(new(Guid.NewGuid(), aircraft.Id, Place("1T").Plug!.Id, PlugKinds.Torque, "1T", 500,
            Unit.InchPound, new(), aircraft.TimeInService, Fixture.Now, Fixture.Ines) { InspectionId = inspection.Id }),
        ["plug, dropped"] = () => inspection.Dropped(Place("1T"), Fixture.Ines, Fixture.Now),
        ["plug, for the other ignition"] = () =>
        {
            aircraft.TakeOff(Place("1T").Plug!.Id, Fixture.Today, aircraft.TimeInService, "worn").ShouldBeNull();
            aircraft.Install(new(Guid.NewGuid(), ComponentKind.Plug, "P", "99") { Suits = IgnitionKind.HighEnergy }, "1T",
                aircraft.TimeInService, default, engine.Id);
        },
        ["magneto, retard angle"] = () => Value(MagnetoSheet.Of(Part(ComponentKind.Magneto)), "magneto-retard", "", 40),
        ["magneto, look"] = () => Found(MagnetoSheet.Of(Part(ComponentKind.Magneto)), "block"),
        ["floats"] = () =>
        {
            var sheet = CarburettorSheet.Of(Part(ComponentKind.Carburettor));
            Value(sheet, "float", "one", 4.2);
            Value(sheet, "float", "other", 4.1);
        },
        ["floats weighed twice"] = () =>
        {
            var sheet = CarburettorSheet.Of(Part(ComponentKind.Carburettor));
            Value(sheet, "float", "one", 3.2);
            Value(sheet, "float", "other", 3.1);
            Value(sheet, "float", "together", 6.9);
        },
        ["bowl"] = () => Found(CarburettorSheet.Of(Part(ComponentKind.Carburettor)), "needle"),
        ["oil, look"] = () => Found(OilSheet.Of(engine), "magnetic-plug"),
        ["filter"] = () => inspection.Cut(new(Guid.NewGuid(), engine.Id, FilterPlace.Filter, FilterMetal.Ferrous, FilterAmount.Chunks, "",
            null, Fixture.Ines, Fixture.Now)),
        ["exhaust, look"] = () => Found(ExhaustSheet.Of(aircraft, engine), "exchanger"),
        ["exhaust, pressure"] = () =>
        {
            var sheet = ExhaustSheet.Of(aircraft, engine);
            Value(sheet, "exhaust-pressure", "before", 4);
            Value(sheet, "exhaust-pressure", "after", 3, 5);
        },
        ["hose"] = () => Found(ExhaustSheet.Of(aircraft, engine), $"hose-{Part(ComponentKind.Hose).Id:N}"),
        ["run, magneto drop"] = () => Value(RunSheet.Of(engine), "mag-drop-left", "after", 260),
        ["run, no drop at all"] = () => Value(RunSheet.Of(engine), "mag-drop-left", "before", 0),
        ["run, drops apart"] = () =>
        {
            Value(RunSheet.Of(engine), "mag-drop-left", "after", 150);
            Value(RunSheet.Of(engine), "mag-drop-right", "after", 60);
        },
        ["run, no limit on file"] = () => Value(RunSheet.Of(engine), "oil-pressure", "before", 70),
        ["run, look"] = () => Found(RunSheet.Of(engine), "leak-check"),
        ["borescope"] = () => Found(BorescopeSheet.Of(aircraft.Cylinder(engine, 2)!), "exhaust-valve"),
        ["wear"] = () => Task("pads", 0.08),
        ["cable"] = () => Task("cable", 20, new(Celsius: 15)),
        ["torque"] = () => Task("bolt", 400),
        ["measured, no limit on file"] = () => Task("vane", 12),
        ["witness mark that drips"] = () => inspection.See(Guid.NewGuid(), "engine", WitnessOf.FuelDye, WitnessAmount.Drip, "", null, null,
            null, Fixture.Ines, Fixture.Now),
        ["witness mark that grew"] = () => inspection.See(Guid.NewGuid(), "engine", WitnessOf.Oil, WitnessAmount.Wet, "", null,
            new(Guid.NewGuid(), "engine", WitnessOf.Oil, WitnessAmount.Weep, "", WitnessThen.New, null, new(Fixture.Ines, Fixture.Now)),
            null, Fixture.Ines, Fixture.Now),
        ["bulletin step"] = () =>
        {
            var directive = Bulletin("AD-1", compliance: new([new(DeadlineKind.BeforeNextFlight)], new Repeat(100)),
                about: ComponentKind.Engine) with
                    { Steps = [new("Measure the play", Measure: new("play", "mm", null, 0.5, Standing.Manual, "the bulletin"))] };
            inspection.TakeInBulletin(Research(aircraft, [Held(directive)]).Lines[0]).ShouldBeNull();
            var task = inspection.Tasks.Single(one => one.Measure?.Kind == "play");
            inspection.Record(new(Guid.NewGuid(), aircraft.Id, task.ComponentId, "play", task.ZoneKey, 1.4, Unit.Find("mm")!, new(),
                aircraft.TimeInService, Fixture.Now, Fixture.Ines) { InspectionId = inspection.Id, TaskId = task.Id });
        },
    };

    public static TheoryData<string> Kinds => [.. new JudgementListTests().Bad.Keys];

    [Theory]
    [MemberData(nameof(Kinds))]
    public void Whatever_is_judged_bad_stands_on_the_list_and_before_the_signature(string kind)
    {
        Lines.ShouldBeEmpty("nothing was judged yet");
        Bad[kind]();
        var line = Lines.Where(one => one.IsUnanswered).ToList() is { Count: > 0 } bad
            ? bad[0]
            : throw new InvalidOperationException($"{kind} is on no list");
        Readiness.Of(inspection, aircraft, Fixture.Bare).Blockers.ShouldContain(blocker => blocker.By == HeldUpBy.Judgement
            && blocker.What.StartsWith(line.Judged.What, StringComparison.Ordinal));
        (line.Judged.By, line.Judged.At == default, line.Judged.Judgement.Source.Text.Length > 0,
            line.Judged.Judgement.Next.Length > 0).ShouldBe(
            kind == "plug, for the other ignition" ? (Guid.Empty, true, true, true) : (Fixture.Ines, false, true, true));

        // On the fix list for this very judgement: it is answered, and an airworthiness item whatever the words.
        foreach (var one in Lines.Where(one => one.IsUnanswered).ToList())
            inspection.PutOnList(Guid.NewGuid(), "oil leak at the filler, paint chipped", one.Judged.Where.ZoneKey, "",
                new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), null, one.Judged,
                Fixture.Classes).Refusal.ShouldBeNull();
        Lines.ShouldAllBe(one => one.By == AnsweredBy.FixList);
        inspection.OpenAirworthiness.ShouldNotBeEmpty("it chooses the statement");
    }

    // A new type of Core that judges something at an inspection has to be on the list, or be named here with the reason why not.
    [Fact]
    public void No_type_of_Core_that_judges_is_left_out()
    {
        var onList = InspectionJudgements.Places.SelectMany(place => place.From).ToHashSet();
        Dictionary<Type, string> elsewhere = new()
        {
            [typeof(Judgement)] = "it is the judgement", [typeof(Judged)] = "it is the list",
            [typeof(CompressionAssessment)] = "the worst of its cylinders, and a spread that is only watched",
            [typeof(CompressionJudge)] = "it judges for the sheet", [typeof(JudgedPlug)] = "the bench's plug, without an aircraft",
            [typeof(TorquePair)] = "a misprint in a bulletin is watched, its step is judged",
        };
        var judging = typeof(Judgement).Assembly.GetTypes()
            .Where(type => type.IsPublic
                && type.GetMembers(BindingFlags.Public | BindingFlags.Instance | BindingFlags.Static | BindingFlags.DeclaredOnly)
                .Any(member => member switch
            {
                PropertyInfo property => Speaks(property.PropertyType),
                MethodInfo { IsSpecialName: false } method when !method.Name.StartsWith('<')
                    && method.Name is not "Deconstruct" => Speaks(method.ReturnType),
                _ => false,
            })).ToList();
        judging.Where(type => !onList.Contains(type) && !elsewhere.ContainsKey(type)).Select(type => type.Name).ShouldBeEmpty();
        judging.Count.ShouldBeGreaterThan(12, "the search finds what it looks for");
        onList.Where(type => !judging.Contains(type)).Select(type => type.Name).ShouldBeEmpty("what is named judges");

        static bool Speaks(Type type) => type == typeof(Judgement) || (type.IsGenericType && type.GetGenericArguments().Any(Speaks));
    }

    [Fact]
    public void Read_again_and_good_it_is_answered_and_remembered()
    {
        Task("pads", 0.08);
        inspection.Remember(aircraft);
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, null, "pads", "gear", 0.2, Unit.Inch, new(), aircraft.TimeInService,
            Fixture.Now.AddMinutes(5),
            Fixture.Ines) { InspectionId = inspection.Id, TaskId = inspection.Tasks.Single(task => task.Key == "pads").Id });
        inspection.Remember(aircraft);
        (Only.By, Only.Answer).ShouldBe((AnsweredBy.ReadAgain, "Read again: 0.2 in, at least 0.1 in."));
        All.ShouldHaveSingleItem().Judgement.Verdict.ShouldBe(Verdict.Good);
    }

    [Fact]
    public void A_bad_value_that_is_taken_back_is_not_answered()
    {
        var sheet = RunSheet.Of(engine);
        Value(sheet, "mag-drop-left", "after", 260);
        inspection.Remember(aircraft);
        inspection.Measure(Guid.NewGuid(), sheet, sheet.Values.Single(one => one.Kind == "mag-drop-left" && one.Position == "after"), null,
            Unit.Rpm, Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.Remember(aircraft);
        All.ShouldBeEmpty();
        (Only.IsUnanswered, Only.Answer).ShouldBe((true, "It was taken back and not read again: read it again."));
        Value(sheet, "mag-drop-left", "after", 120, 9);
        inspection.Remember(aircraft);
        Only.By.ShouldBe(AnsweredBy.ReadAgain);
    }

    [Fact]
    public void An_older_good_reading_that_comes_to_light_again_is_no_answer()
    {
        var task = inspection.Tasks.Single(one => one.Key == "pads");
        void Read(Guid id, double value, int minute) =>
            inspection.Record(new(id, aircraft.Id, null, "pads", "gear", value, Unit.Inch, new(), aircraft.TimeInService,
                Fixture.Now.AddMinutes(minute), Fixture.Ines) { InspectionId = inspection.Id, TaskId = task.Id });
        Read(Guid.NewGuid(), 0.2, 0);
        var bad = Guid.NewGuid();
        Read(bad, 0.08, 5);
        inspection.Remember(aircraft);
        inspection.Withdraw(task, bad, Fixture.Ines).ShouldNotBeNull();
        inspection.Remember(aircraft);
        (Only.IsUnanswered, Only.Answer).ShouldBe((true, "It was taken back and not read again: read it again."));
    }

    [Fact]
    public void A_reading_that_another_limit_makes_good_is_said_to_be_that()
    {
        Task("pads", 0.08);
        inspection.Remember(aircraft);
        aircraft.SetLimit(new("pads", "in", 0.07, null, "manual 32-40, p. 3"));
        (Only.By, Only.Answer).ShouldBe(
            (AnsweredBy.OtherLimit, "The same reading, judged by another limit: at least 0.07 in (your manual: manual 32-40, p. 3)."),
            "before anybody has written on the inspection since");
        Entered(Book.Airframe).ShouldHaveSingleItem()
            .ShouldBe(
                "Pads: 0.08 in. At least 0.1 in. The same reading, judged by another limit: at least 0.07 in (your "
                + "manual: manual 32-40, p. 3).");
        inspection.Remember(aircraft);
        Only.By.ShouldBe(AnsweredBy.OtherLimit);
    }

    [Fact]
    public void A_new_part_begins_a_new_series_and_an_empty_place_does_not()
    {
        Fixture.Compress(inspection, aircraft, 2, 15, again: true);
        inspection.Remember(aircraft);
        var old = aircraft.Cylinder(engine, 2)!;
        aircraft.TakeOff(old.Id, Fixture.Today, aircraft.TimeInService, "rings").ShouldBeNull();
        inspection.Remember(aircraft);
        Only.IsUnanswered.ShouldBeTrue("nothing sits in its place");
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Cylinder, "", "new"), "2", aircraft.TimeInService, default, engine.Id,
            Fixture.Today);
        inspection.Remember(aircraft);
        Only.By.ShouldBe(AnsweredBy.PartReplaced);
        CompressionSheet.Of(aircraft, engine, inspection).Missing.ShouldContain(2, "it has no reading of its own yet");
    }

    [Fact]
    public void A_number_put_right_is_read_again_and_a_look_is_answered_by_what_was_done()
    {
        Fixture.Compress(inspection, aircraft, 2, 15, again: true);
        Found(ExhaustSheet.Of(aircraft, engine), "slip-joint");
        foreach (var line in Lines)
            inspection.PutOnList(Guid.NewGuid(), line.Judged.What, line.Judged.Where.ZoneKey, "",
                new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), null, line.Judged, Fixture.Classes).Found!
                .Correct(new("put right", CorrectionKind.Repaired, "manual"), inspection.House, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Lines.Single(line => !line.Judged.IsMeasured).By.ShouldBe(AnsweredBy.FixList);
        var number = Lines.Single(line => line.Judged.IsMeasured);
        (number.IsUnanswered, number.Answer).ShouldBe((true, "26-1-01 is put right: read it again."));
        Fixture.Compress(inspection, aircraft, 2, 76, minute: 90);
        Lines.ShouldNotContain(line => line.IsUnanswered);
    }

    [Fact]
    public void What_is_seen_bad_again_after_it_was_put_right_is_not_answered_by_that()
    {
        var sheet = ExhaustSheet.Of(aircraft, engine);
        Found(sheet, "slip-joint");
        var (found, _) = inspection.PutOnList(Guid.NewGuid(), "slip joint", "engine", "",
            new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), null, Only.Judged, Fixture.Classes);
        Found(sheet, "slip-joint", minute: 10);
        Only.By.ShouldBe(AnsweredBy.FixList, "the line is open still");
        found!.Correct(new("welded", CorrectionKind.Repaired, "manual"), inspection.House, Fixture.Ines, Fixture.Now.AddMinutes(20))
            .ShouldBeNull();
        Only.By.ShouldBe(AnsweredBy.FixList);
        Found(sheet, "slip-joint", minute: 30);
        (Only.IsUnanswered, Only.Answer).ShouldBe((true, "It was seen after 26-1-01 was put right: open that again, or look again."));
        Found(sheet, "slip-joint", minute: 40, LookState.Good);
        Lines.ShouldNotContain(line => line.IsUnanswered);
    }

    [Fact]
    public void A_line_that_was_set_lower_answers_for_the_reading_it_was_set_lower_for_alone()
    {
        Ohms("1T", 6_000);
        var (found, _) = inspection.PutOnList(Guid.NewGuid(), "plug 1T", "engine", "",
            new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), null, Only.Judged, Fixture.Classes);
        Ohms("1T", 6_100);
        Only.By.ShouldBe(AnsweredBy.FixList, "an open airworthiness item answers for the plug, whatever it reads");
        Ohms("1T", 6_000);
        found!.Classify(new(DiscrepancyClass.Watch, false, Fixture.Ines, Fixture.Now, "fires well under pressure", "plug sheet 3",
            Fixture.Inspector.Certificates[0]), Fixture.Classes, null).ShouldBeNull();
        Only.By.ShouldBe(AnsweredBy.FixList);
        Ohms("1T", 30_000);
        (Only.IsUnanswered, Only.Answer).ShouldBe((true, "26-1-01 was set lower for what was there before: judge this one for itself."));
        inspection.SetJudgementAside(aircraft, Only.Judged.Key, Only.Judged.Seen, "a reason", "a reference", Fixture.Inspector,
            Fixture.Inspector.Certificates[0], Fixture.Now).ShouldBeNull();
    }

    [Fact]
    public void A_line_for_the_same_task_or_a_withdrawn_one_is_no_answer()
    {
        Fixture.Compress(inspection, aircraft, 2, 15, again: true);
        var task = inspection.Tasks.Single(one => one.IsCompression);
        inspection.Find(Guid.NewGuid(), "Cylinder 2 reads 15/80", "engine", "", DiscrepancyClass.Airworthiness, false, task, Fixture.Ines,
            Fixture.Now);
        Only.IsUnanswered.ShouldBeTrue();
        var (found, _) = inspection.PutOnList(Guid.NewGuid(), "cylinder 2", "engine", "",
            new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), task, Only.Judged, Fixture.Classes);
        Only.By.ShouldBe(AnsweredBy.FixList);
        found!.Move(Disposition.Withdrawn, "no matter", inspection.House, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Only.IsUnanswered.ShouldBeTrue();
    }

    [Fact]
    public void Setting_aside_takes_the_right_to_sign_a_reason_a_reference_and_the_very_reading()
    {
        Ohms("1T", 30_000);
        var (key, seen, signs) = (Only.Judged.Key, Only.Judged.Seen, Fixture.Inspector.Certificates[0]);
        Refusal? Aside(string? what, string? reason, string? reference, Certificate? by) =>
            inspection.SetJudgementAside(aircraft, key, what, reason, reference, Fixture.Inspector, by, Fixture.Now);
        Aside(seen, "spare", "sheet 3", null)!.Message.ShouldContain("Only somebody who may sign");
        Aside(seen, " ", "sheet 3", signs)!.Message.ShouldContain("Say why");
        Aside(seen, "spare", "", signs)!.Message.ShouldContain("By which data");
        Aside("another", "spare", "sheet 3", signs)!.Message.ShouldContain("read again meanwhile");
        Aside(seen, "spare", "sheet 3", signs).ShouldBeNull();
        (Only.By, Only.Aside!.AsEntered).ShouldBe(
            (AnsweredBy.SetAside,
                "Plug 1T, resistance: 30000 Ω. Above 5000 Ω. Set aside: spare Ref. sheet 3 (mechanic with inspection authorization, 77)"));
        Entered(Book.Engine).ShouldHaveSingleItem().ShouldContain("Set aside: spare");
        // Read again it is another judgement, and wants its own answer.
        Ohms("1T", 31_000);
        Only.IsUnanswered.ShouldBeTrue();
        Entered(Book.Engine).ShouldBeEmpty("what was said of the other reading is no longer so");
        Ohms("1T", 30_000);
        inspection.TakeUpAgain(key);
        Only.IsUnanswered.ShouldBeTrue();
    }
}
