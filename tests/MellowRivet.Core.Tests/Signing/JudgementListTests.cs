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
public class JudgementListTests : JudgementCase
{
    // Each kind of thing that is judged, with a value or a look that is bad by its published or usual limit (domain.md sections 4 to 8).
    private Dictionary<string, Action> Bad => new()
    {
        ["compression, below 60/80 twice"] = () => Fixture.Compress(inspection, aircraft, 2, 15, again: true),
        ["compression, first low try"] = () => Fixture.Compress(inspection, aircraft, 2, 58),
        ["plug, resistance"] = () => Ohms("1T", 30_000),
        ["plug, look"] = () => inspection.NotePlug(Place("1T"), PlugStep.Look, nameof(PlugLook.Cracked), new(Fixture.Ines, Fixture.Now)),
        ["plug, gap as set"] = () => inspection.Measure(Guid.NewGuid(), Place("1T"), PlugStep.GapSet, 0.030, null,
            new(Fixture.Ines, Fixture.Now)),
        ["plug, fired under pressure"] = () => inspection.NotePlug(Place("1T"), PlugStep.PressureTest, "fail",
            new(Fixture.Ines, Fixture.Now)),
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
            [typeof(Judgement)] = "it is the judgement", [typeof(JudgementTable)] = "what the others judge by",
            [typeof(Judged)] = "it is the list",
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
}
