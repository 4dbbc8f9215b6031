using MellowRivet.Core.Carburettors;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.EngineStation;

/// <summary>What values of a sheet come to together, beside each one's own judgement.</summary>
/// <param name="Key">Its name on the sheet.</param>
/// <param name="Name">What it is, in words.</param>
/// <param name="Saw">The values.</param>
/// <param name="Sheet">The sheet it stands on.</param>
/// <param name="Carrier">The part the sheet is about.</param>
/// <param name="Judgement">What they come to.</param>
/// <param name="By">Who read the last of them.</param>
/// <param name="At">When.</param>
/// <param name="Needed">Whether not being able to tell wants an answer: there is no usual limit for a balance, so
/// that is for the manual.</param>
public sealed record SheetTogether(string Key, string Name, string Saw, SheetKind Sheet, Guid Carrier, Judgement Judgement, Guid By,
    DateTimeOffset At, bool Needed = true)
{
    /// <summary>All of them for one engine.</summary>
    public static IEnumerable<SheetTogether> Of(Aircraft aircraft, Component engine, Inspection inspection) =>
        All(aircraft, engine, inspection).Where(one => one.Judgement is not null).DistinctBy(one => (one.Carrier, one.Key)).Select(Read);

    /// <summary>Those that are shown on one sheet: a magneto's shows the run-up's drops too.</summary>
    public static IEnumerable<SheetTogether> On(EngineSheet sheet, Aircraft aircraft, Component engine,
        Inspection inspection) => Of(aircraft, engine, inspection).Where(one =>
        (one.Sheet, one.Carrier) == (sheet.Kind, sheet.Carrier.Id) || (one.Sheet == SheetKind.Run && sheet.Kind == SheetKind.Magneto)
            || (one.Key is "idle" or "high" && sheet.Kind == SheetKind.Carburettor));

    /// <summary>All that values of an engine's sheets can come to together, whether they were read yet or not.</summary>
    public static IEnumerable<Together> All(Aircraft aircraft, Component engine, Inspection inspection)
    {
        var carburettors = aircraft.SittingOn(engine.Id, ComponentKind.Carburettor)
            .Select(stay => SheetWork.Of(CarburettorSheet.Of(stay.Component), aircraft, inspection)).ToList();
        var exhaust = SheetWork.Of(ExhaustSheet.Of(aircraft, engine), aircraft, inspection);
        var run = SheetWork.Of(RunSheet.Of(engine), aircraft, inspection);
        return
        [
            .. carburettors.Select(Floats),
            .. carburettors.Count < 2 ? [] : new[] { "idle", "high" }.Select(position => Balance(aircraft, carburettors, position)),
            Repaired(exhaust, wasTested: true), Repaired(exhaust, wasTested: false), AsFound(exhaust),
            .. new[] { SheetValue.After, "before" }.Select(when => Drops(run, when)),
        ];
    }

    private static Together Floats(SheetWork work) => new("floats", "The pair of floats", SheetKind.Carburettor, work.Sheet.Carrier.Id,
        [
            Part("first", work, "float", "one", Unit.Gram), Part("second", work, "float", "other", Unit.Gram),
            Part("together", work, "float", "together", Unit.Gram) with { IsNeeded = false },
        ],
        [new("", FloatJudge.Table())]);

    // The carburettors of one engine beside each other, by the manual's limit where it is on file.
    private static Together Balance(Aircraft aircraft, List<SheetWork> carburettors, string position)
    {
        List<string> names = [.. carburettors.Select((_, at) => $"{at}")];
        var (table, unit) = CarburettorBalance.Together(aircraft, names);
        return new(position, position == "idle" ? "Balance at idle" : "Balance at the higher rpm", SheetKind.Carburettor,
            carburettors[0].Sheet.Carrier.Id,
            [.. carburettors.Zip(names, (work, name) => Part(name, work, "carburettor-vacuum", position, unit) with { IsNeeded = false })],
            [new("", table)])
        { AtLeast = 2 };
    }

    private static Together Repaired(SheetWork work, bool wasTested)
    {
        var after = Part(JudgementTable.Value, work, "exhaust-pressure", SheetValue.After, Unit.Psi);
        var before = Part("before", work, "exhaust-pressure", "before", Unit.Psi);
        return wasTested
            ? new("repair", Pressure, SheetKind.Exhaust, work.Sheet.Carrier.Id, [after, before],
                [.. from now in Seen from then in Seen select new TableWhen($"{now.Word} {then.Word}",
                    ExhaustPressure.Table(now.Bubbles, then.Bubbles, isAfter: true))])
            { Looks = [Bubbles(work, SheetValue.After), Bubbles(work, "before")] }
            : Tested(work, after, SheetValue.After);
    }

    private static Together AsFound(SheetWork work) =>
        Tested(work, Part(JudgementTable.Value, work, "exhaust-pressure", "before", Unit.Psi), "before");

    private static Together Tested(SheetWork work, TogetherPart part, string when) => new("repair", Pressure, SheetKind.Exhaust,
        work.Sheet.Carrier.Id, [part], [.. Seen.Select(now => new TableWhen(now.Word, ExhaustPressure.Table(now.Bubbles, null, false)))])
    { Looks = [Bubbles(work, when)] };

    private const string Pressure = "Exhaust under pressure";

    private static readonly (string Word, bool? Bubbles)[] Seen =
        [(TogetherLook.Word(LookState.Good), false), (TogetherLook.Word(LookState.Found), true), (TogetherLook.Word(null), null)];

    private static TogetherLook Bubbles(SheetWork work, string when) => new(TogetherLook.Of(work.Sheet, $"bubbles-{when}"),
        work.Looks.First(look => look.Of.Key == $"bubbles-{when}").Check);

    // After the work counts, where it was read.
    private static Together Drops(SheetWork work, string when) => new("drops", $"Run-up {when} the work", SheetKind.Run,
        work.Sheet.Carrier.Id,
        [Part("left", work, "mag-drop-left", when, Unit.Rpm), Part("right", work, "mag-drop-right", when, Unit.Rpm)],
        [new("", MagnetoDrop.BetweenTable)]);

    private static TogetherPart Part(string number, SheetWork work, string kind, string position, Unit unit)
    {
        var value = work.Values.First(value => value.Of.Kind == kind && value.Of.Position == position);
        return new(number, JudgedField.Of(work.Sheet, value.Of), unit, value.Reading);
    }

    private static SheetTogether Read(Together one)
    {
        var last = one.Last;
        var look = one.Looks is [{ Check: { } seen }, ..] && seen.At > last.LastAt ? seen : null;
        return new(one.Key, one.Name, InWords(one), one.Sheet!.Value, one.Key is "idle" or "high" ? last.ComponentId!.Value : one.Carrier,
            one.Judgement!, look?.By ?? last.PersonId, look?.At ?? last.LastAt, Needed: one.Key is not ("idle" or "high"));
    }

    private static string InWords(Together one)
    {
        double In(string number, Unit unit) => Unit.Find(one[number]!.UnitSymbol)!.To(unit, one[number]!.Value);
        switch (one.Key)
        {
            case "floats":
                return $"{In("first", Unit.Gram):0.0#} and {In("second", Unit.Gram):0.0#} g"
                    + (one["together"] is null ? "" : $", together {In("together", Unit.Gram):0.0#} g");
            case "drops":
                return $"left {In("left", Unit.Rpm):0}, right {In("right", Unit.Rpm):0} rpm";
            case "repair":
                var tests = one.Parts.Zip(one.Looks, (part, look) => $"{part.Reading!.Value:0.##} {part.Reading.UnitSymbol} "
                    + (look.Key.EndsWith(SheetValue.After, StringComparison.Ordinal) ? "after" : "as found") + Said(look.Check)).Reverse();
                return string.Join(", ", tests);
            default:
                var read = one.Parts.Where(part => part.Reading is not null).Select(part => In(part.Number, Unit.InchOfMercury)).ToList();
                return $"{read.Min():0.##} and {read.Max():0.##} inHg";
        }
    }

    private static string Said(SheetCheck? bubbles) => bubbles switch
    {
        { State: LookState.Found } => $", bubbles: {bubbles.Words}",
        { State: LookState.Good } => ", no bubbles",
        _ => "",
    };
}
