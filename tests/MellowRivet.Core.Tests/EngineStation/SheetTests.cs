using MellowRivet.Core.Due;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;

namespace MellowRivet.Core.Tests.EngineStation;

public class SheetTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Inspection inspection;
    private readonly Component engine;
    private readonly Component magneto = new(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1");

    public SheetTests()
    {
        inspection = Fixture.Inspection(aircraft);
        engine = aircraft.Engines.First().Component;
        aircraft.Install(magneto, "left", new Hours(0), new Hours(0), engine.Id);
    }

    private Refusal? Measure(EngineSheet sheet, string kind, double? value, Unit? unit = null, string position = "")
    {
        var of = sheet.Values.First(one => one.Kind == kind && one.Position == position);
        return inspection.Measure(Guid.NewGuid(), sheet, of, value, unit ?? of.Band.Unit, new(Fixture.Ines, Fixture.Now));
    }

    private SheetWork Work(EngineSheet sheet) => SheetWork.Of(sheet, aircraft, inspection);

    private void LookAtAll(EngineSheet sheet)
    {
        foreach (var look in sheet.Looks)
            inspection.Look(sheet, look,
                new(sheet.Carrier.Id, sheet.Kind, look.Key, LookState.Good, "", null, null, Fixture.Ines, Fixture.Now)).ShouldBeNull();
    }

    [Fact]
    public void An_engine_has_a_sheet_for_each_magneto_and_carburettor_and_three_of_its_own()
    {
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Carburettor, "", "C-1"), "left", new Hours(0), null, engine.Id);
        EngineSheets.Of(aircraft, engine).Select(sheet => sheet.Kind)
            .ShouldBe([SheetKind.Magneto, SheetKind.Carburettor, SheetKind.Oil, SheetKind.Exhaust, SheetKind.Run]);
    }

    // The due item counts from here only where the whole sheet is done, and good.
    [Fact]
    public void A_bench_inspection_is_done_when_the_whole_sheet_is_done_and_good()
    {
        var sheet = MagnetoSheet.Of(magneto);
        inspection.Bench(Work(sheet), true)!.Message.ShouldContain("17");
        foreach (var (kind, value) in new[]
            { ("magneto-primary", 0.4), ("magneto-secondary", 14_000.0), ("magneto-capacitor", 0.29), ("magneto-e-gap", 10),
                ("magneto-points-gap", 0.018), ("magneto-retard", 30), ("magneto-timing", 25) })
            Measure(sheet, kind, value).ShouldBeNull();
        LookAtAll(sheet);
        inspection.Bench(Work(sheet), true)!.Message.ShouldContain("at least 0.3 µF");
        Measure(sheet, "magneto-capacitor", 0.31).ShouldBeNull();
        inspection.Bench(Work(sheet), true).ShouldBeNull();
        DueItem Item(Guid? on, Interval interval) =>
            new(Guid.NewGuid(), null, on, "Bench inspection", DueKind.Service, interval, new(Standing.Practice, "common practice"));
        inspection.CountsAsBenched(Item(magneto.Id, new(EveryHours: 500))).ShouldBeTrue();
        inspection.CountsAsBenched(Item(engine.Id, new(EveryHours: 500))).ShouldBeFalse();
        inspection.CountsAsBenched(Item(magneto.Id, new(EveryMonths: 24))).ShouldBeFalse();
        inspection.Bench(Work(sheet), false).ShouldBeNull();
        inspection.CountsAsBenched(Item(magneto.Id, new(EveryHours: 500))).ShouldBeFalse();
    }

    [Fact]
    public void The_manuals_limit_stands_before_the_usual_one_and_units_are_converted()
    {
        var run = RunSheet.Of(engine);
        aircraft.SetLimit(new("suction", "inHg", 4.8, 5.2, "manual 37-00"));
        // 1 kPa is 0.2953 inHg (NIST SP 811): 16 kPa are 4.72.
        Measure(run, "suction", 16, Unit.Kilopascal, "after").ShouldBeNull();
        var suction = Work(run).Values.Single(value => value.Of.Kind == "suction" && value.Of.Position == "after");
        (suction.Judgement!.Verdict, suction.Judgement.Source.Standing).ShouldBe((Verdict.Reject, Standing.Manual));
        Measure(run, "suction", 5, Unit.Psi, "before").ShouldBeNull();
        Measure(run, "suction", 5, Unit.Volt, "before")!.Field.ShouldBe("value");
    }

    // What stands on the run sheet answers the task of the walk, and the other way round.
    [Fact]
    public void A_value_of_the_run_is_typed_once()
    {
        var run = RunSheet.Of(engine);
        var task = inspection.Tasks.Single(one => one.Key == "oil");
        Measure(run, "oil-pressure", 40, null, "after").ShouldBeNull();
        inspection.JudgementAt(task, aircraft)!.Verdict.ShouldBe(Verdict.Reject);
        Measure(run, "oil-pressure", 70, null, "after").ShouldBeNull();
        inspection.JudgementAt(task, aircraft)!.Verdict.ShouldBe(Verdict.Good);
        inspection.Readings.Count(reading => reading.Kind == "oil-pressure").ShouldBe(1);
        Measure(run, "oil-pressure", null, null, "after").ShouldBeNull();
        inspection.ReadingAt(task).ShouldBeNull();
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, engine.Id, "oil-pressure", "run", 66, Unit.Psi, new(), aircraft.TimeInService,
            Fixture.Now, Fixture.Ines) { InspectionId = inspection.Id, TaskId = task.Id });
        Work(run).Value("oil-pressure", "after").ShouldBe(66);
        Work(run).Value("oil-pressure", "before").ShouldBeNull();
    }

    [Fact]
    public void What_is_found_is_said_and_keeps_its_picture()
    {
        var sheet = ExhaustSheet.Of(aircraft, engine);
        var can = sheet.Looks.Single(look => look.Key == "can");
        SheetCheck Found(string words, Core.Discrepancies.Photo? photo = null) =>
            new(engine.Id, SheetKind.Exhaust, "can", LookState.Found, words, photo, null, Fixture.Ines, Fixture.Now);
        inspection.Look(sheet, can, Found("")).ShouldNotBeNull().Field.ShouldBe("words");
        inspection.Look(sheet, can, Found("Dull at the rear", new(new string('a', 64), 10, 10, null, Fixture.Now))).ShouldBeNull();
        inspection.Look(sheet, can, Found("Dull at the rear, a hole")).ShouldBeNull();
        Work(sheet).Looks.Single(look => look.Of.Key == "can").Check!.Photo.ShouldNotBeNull();
    }

    // domain.md section 8, common practice: about 2 psi, never above 5; bubbles count, and the same pressure before and after.
    [Theory]
    [InlineData(2, false, null, null, Verdict.Good)]
    [InlineData(2, true, null, null, Verdict.Reject)]
    [InlineData(0.5, true, null, null, Verdict.Reject)]
    [InlineData(1.4, false, null, null, Verdict.Unknown)]
    [InlineData(1.5, false, null, null, Verdict.Good)]
    [InlineData(5, false, null, null, Verdict.Good)]
    [InlineData(2, null, null, null, Verdict.Unknown)]
    [InlineData(2, false, 2.0, true, Verdict.Good)]
    [InlineData(2, true, 2.0, true, Verdict.Reject)]
    [InlineData(2, true, 2.0, false, Verdict.Reject)]
    [InlineData(2, false, 2.25, true, Verdict.Good)]
    [InlineData(2, false, 2.3, true, Verdict.Retest)]
    [InlineData(4, false, 2.0, true, Verdict.Retest)]
    public void An_exhaust_under_pressure_is_judged_by_its_bubbles_at_the_same_pressure(double psi, bool? bubbles, double? before,
        bool? bubbledBefore, Verdict verdict) =>
        ExhaustPressure.Judge(psi, bubbles, before is { } earlier ? (earlier, bubbledBefore) : null).Verdict.ShouldBe(verdict);

    [Fact]
    public void Above_five_psi_an_exhaust_is_not_tested_in_whatever_unit_it_is_typed()
    {
        var sheet = ExhaustSheet.Of(aircraft, engine);
        Measure(sheet, "exhaust-pressure", 5.1, null, "before")!.Message.ShouldContain("Dangerous");
        Measure(sheet, "exhaust-pressure", 0.5, Unit.Bar, "after")!.Message.ShouldContain("Dangerous");
        Measure(sheet, "exhaust-pressure", 5, null, "before").ShouldBeNull();
        Should.Throw<ArgumentOutOfRangeException>(() => ExhaustPressure.Judge(5.01, false, null));
        Should.Throw<ArgumentOutOfRangeException>(() => ExhaustPressure.Judge(double.NaN, false, null));
    }

    [Fact]
    public void Bubbles_are_asked_for_once_a_pressure_was_read_and_answer_for_it()
    {
        var sheet = ExhaustSheet.Of(aircraft, engine);
        SheetTogether Together() => SheetTogether.Of(aircraft, engine, inspection).Single(one => one.Key == "repair");
        void Bubbles(string when, LookState state, string words = "") =>
            inspection.Look(sheet, sheet.Looks.Single(look => look.Key == $"bubbles-{when}"),
                new(engine.Id, SheetKind.Exhaust, $"bubbles-{when}", state, words, null, null, Fixture.Ines, Fixture.Now)).ShouldBeNull();
        Work(sheet).Looks.Where(look => look.Of.Key.StartsWith("bubbles", StringComparison.Ordinal)).ShouldAllBe(look => !look.IsWanted);
        Measure(sheet, "exhaust-pressure", 2, null, "before").ShouldBeNull();
        Work(sheet).Looks.Single(look => look.Of.Key == "bubbles-before").IsWanted.ShouldBeTrue();
        Together().Judgement.Verdict.ShouldBe(Verdict.Unknown);
        Bubbles("before", LookState.Found, "seam of the can");
        Together()
            .ShouldSatisfyAllConditions(one => one.Judgement.Verdict.ShouldBe(Verdict.Reject),
                one => one.Saw.ShouldBe("2 psi as found, bubbles: seam of the can"));
        Measure(sheet, "exhaust-pressure", 2, null, "after").ShouldBeNull();
        Together().Judgement.Verdict.ShouldBe(Verdict.Unknown, "nobody has looked after the repair");
        Bubbles("after", LookState.Good);
        Together().Judgement.ShouldSatisfyAllConditions(one => one.Verdict.ShouldBe(Verdict.Good),
            one => one.Rule.ShouldContain("No bubbles any more"));
    }

    // domain.md section 6: the capacitor's value, and points looked at; a value that is good hangs on a broken lead.
    [Theory]
    [InlineData("magneto-capacitor", 0.34, "capacitor", "lead broken at the terminal")]
    [InlineData("magneto-points-gap", 0.018, "points", "pitted deep")]
    public void What_is_found_at_a_part_rejects_its_good_value(string kind, double value, string look, string words)
    {
        var magneto = aircraft.Fitted(ComponentKind.Magneto).First().Component;
        var sheet = MagnetoSheet.Of(magneto);
        Measure(sheet, kind, value).ShouldBeNull();
        ValueOnSheet Read() => Work(sheet).Values.Single(one => one.Of.Kind == kind);
        Read().Judgement!.Verdict.ShouldBe(Verdict.Good);
        inspection.Look(sheet, sheet.Looks.Single(one => one.Key == look),
            new(magneto.Id, SheetKind.Magneto, look, LookState.Found, words, null, null, Fixture.Ines, Fixture.Now)).ShouldBeNull();
        Read().Judgement.ShouldSatisfyAllConditions(one => one!.Verdict.ShouldBe(Verdict.Reject), one => one!.Rule.ShouldContain(words));
        Work(sheet).Worst!.Verdict.ShouldBe(Verdict.Reject);
        Core.Signing.InspectionJudgements.Of(inspection, aircraft).Count(one => one.Judgement.Verdict == Verdict.Reject)
            .ShouldBe(1, "it is one thing to answer for");
        Measure(sheet, kind, 0.0001).ShouldBeNull();
        Core.Signing.InspectionJudgements.Of(inspection, aircraft).Count(one => one.Judgement.Verdict == Verdict.Reject)
            .ShouldBe(2, "a value that is bad by itself doesn't hide behind the look");
    }

    // By hand: 3.785 l (4 qt) in 40 h are 10.57 h a litre, 10 h a quart; the note before them only begins the count.
    [Fact]
    public void Oil_used_is_the_hours_between_two_notes_over_what_was_added()
    {
        Reading Added(decimal hours, double value, Unit unit) =>
            new(Guid.NewGuid(), aircraft.Id, engine.Id, OilUse.AddedKind, "", value, unit, new(), new Hours(hours), Fixture.Now,
                Fixture.Ines);
        OilUse.Of([Added(100, 2, Unit.Litre)]).HoursPerLitre.ShouldBeNull();
        var use = OilUse.Of([Added(140, 4, Unit.Quart), Added(100, 2, Unit.Litre)]);
        use.HoursPerLitre!.Value.ShouldBe(10.567, 0.001);
        use.HoursPerQuart!.Value.ShouldBe(10, 1e-9);
        OilUse.Of([Added(100, 2, Unit.Litre), Added(140, 0, Unit.Litre)]).HoursPerLitre.ShouldBeNull();
    }

    // By hand: 20 ppm on 25 h is 80 in 100 h; the rates before are 80, 84, 76: median 80, spread 1.4826 × 4 = 5.93, three of them 17.8.
    [Theory]
    [InlineData(24.4, false)]
    [InlineData(24.5, true)]
    public void A_metal_is_unusual_against_this_engines_own_history(double ppm, bool unusual)
    {
        Reading Lab(string kind, decimal hours, double value) =>
            new(Guid.NewGuid(), aircraft.Id, engine.Id, kind, "", value, Unit.PartsPerMillion, new(), new Hours(hours), Fixture.Now,
                Fixture.Ines);
        List<Reading> readings = [.. new[] { 100m, 200, 300, 400 }
            .Select(hours => Lab("oil-hours", hours, 25)), Lab("oil-iron", 100, 20), Lab("oil-iron", 200, 21), Lab("oil-iron", 300, 19),
            Lab("oil-iron", 400, ppm)];
        OilMetal.Of(readings).Single().IsUnusual.ShouldBe(unusual);
        OilMetal.Of(readings[..7]).Single().IsUnusual.ShouldBeNull();
    }

    [Theory]
    [InlineData(FilterMetal.None, FilterAmount.None, Verdict.Good)]
    [InlineData(FilterMetal.Carbon, FilterAmount.ManySpecks, Verdict.Good)]
    [InlineData(FilterMetal.Aluminium, FilterAmount.FewSpecks, Verdict.Good)]
    [InlineData(FilterMetal.Ferrous, FilterAmount.ManySpecks, Verdict.Watch)]
    [InlineData(FilterMetal.Bronze, FilterAmount.Flakes, Verdict.Watch)]
    [InlineData(FilterMetal.Ferrous, FilterAmount.Flakes, Verdict.Reject)]
    [InlineData(FilterMetal.Aluminium, FilterAmount.Chunks, Verdict.Reject)]
    public void Metal_in_the_filter_by_kind_and_amount(FilterMetal metal, FilterAmount amount, Verdict verdict) =>
        Cut(metal, amount).Judge(null).Verdict.ShouldBe(verdict);

    [Fact]
    public void More_than_last_time_is_watched()
    {
        Cut(FilterMetal.Aluminium, FilterAmount.FewSpecks).Judge(Cut(FilterMetal.None, FilterAmount.None)).Verdict.ShouldBe(Verdict.Watch);
        inspection.Cut(Cut(FilterMetal.Ferrous, FilterAmount.None))!.Field.ShouldBe("amount");
        inspection.Cut(Cut(FilterMetal.Ferrous, FilterAmount.Flakes)).ShouldBeNull();
        inspection.Cut(Cut(FilterMetal.Ferrous, FilterAmount.FewSpecks)).ShouldBeNull();
        inspection.FilterCuts.Single().Amount.ShouldBe(FilterAmount.FewSpecks);
    }

    private FilterCut Cut(FilterMetal metal, FilterAmount amount) =>
        new(Guid.NewGuid(), engine.Id, FilterPlace.Filter, metal, amount, "", null, Fixture.Ines, Fixture.Now);

    [Fact]
    public void A_laboratorys_table_is_read_with_commas_for_decimals_and_refused_by_its_line()
    {
        static (IReadOnlyList<OilSample>? Samples, Refusal? Refusal) Read(string text) =>
            OilLabFile.Read(System.Text.Encoding.UTF8.GetBytes(text));
        var samples = Read("Sampled;Hours;Oil hours;Fe (ppm);Copper\n12.03.2026;1204,5;25,5;31,2;\n2026-06-01;1230;;28;4").Refusal?.Message;
        samples.ShouldBeNull();
        var first = Read("Sampled;Hours;Oil hours;Fe (ppm);Copper\n12.03.2026;1204,5;25,5;31,2;").Samples!.Single();
        (first.On, first.TimeInService.Value, first.OilHours).ShouldBe((new DateOnly(2026, 3, 12), 1204.5m, 25.5));
        first.Ppm.ShouldBe(new Dictionary<string, double> { ["oil-iron"] = 31.2 });
        Read("date,hours,iron\n2026-01-01,100,much").Refusal!.Message.ShouldContain("Line 2");
        Read("date,hours,iron\nsoon,100,3").Refusal!.Message.ShouldContain("Line 2");
        Read("date,hours,oil hours,iron\n2026-01-01,100,-5,3").Refusal!.Message.ShouldContain("hours on the oil");
        Read("a,b\n1,2").Refusal!.Message.ShouldContain("Titles wanted");
        Read("").Refusal!.Message.ShouldContain("empty");
    }
}
