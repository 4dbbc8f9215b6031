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
    [
        .. CarburettorsOf(aircraft, engine)
            .SelectMany(carburettor => Floats(SheetWork.Of(CarburettorSheet.Of(carburettor), aircraft, inspection))),
        .. new[] { "idle", "high" }.SelectMany(position => Balance(aircraft, engine, inspection, position)),
        .. Repair(SheetWork.Of(ExhaustSheet.Of(aircraft, engine), aircraft, inspection)),
        .. Drops(SheetWork.Of(RunSheet.Of(engine), aircraft, inspection)),
    ];

    /// <summary>Those that are shown on one sheet: a magneto's shows the run-up's drops too.</summary>
    public static IEnumerable<SheetTogether> On(EngineSheet sheet, Aircraft aircraft, Component engine,
        Inspection inspection) => Of(aircraft, engine, inspection).Where(one =>
        (one.Sheet, one.Carrier) == (sheet.Kind, sheet.Carrier.Id) || (one.Sheet == SheetKind.Run && sheet.Kind == SheetKind.Magneto)
            || (one.Key is "idle" or "high" && sheet.Kind == SheetKind.Carburettor));

    private static IEnumerable<Component> CarburettorsOf(Aircraft aircraft, Component engine) =>
        aircraft.SittingOn(engine.Id, ComponentKind.Carburettor).Select(stay => stay.Component);

    private static IEnumerable<SheetTogether> Floats(SheetWork work)
    {
        if (Reading(work, "float", "one") is { } one && Reading(work, "float", "other") is { } other)
        {
            var together = Reading(work, "float", "together");
            var last = Last([one, other, together]);
            yield return new("floats", "The pair of floats",
                $"{one.Value:0.0#} and {other.Value:0.0#} g{(together is null ? "" : $", together {together.Value:0.0#} g")}",
                work.Sheet.Kind, work.Sheet.Carrier.Id,
                FloatJudge.Judge(new(one.Value, other.Value, together?.Value)), last.PersonId, last.LastAt);
        }
    }

    // The carburettors of one engine beside each other, by the manual's limit where it is on file.
    private static IEnumerable<SheetTogether> Balance(Aircraft aircraft, Component engine, Inspection inspection, string position)
    {
        var vacuums = CarburettorsOf(aircraft, engine)
            .Select(carburettor => Reading(SheetWork.Of(CarburettorSheet.Of(carburettor), aircraft, inspection), "carburettor-vacuum",
                position)).OfType<Reading>().ToList();
        if (vacuums.Count < 2)
            yield break;
        var (least, most, last) = (vacuums.Min(reading => reading.Value), vacuums.Max(reading => reading.Value), Last(vacuums));
        yield return new(position, position == "idle"
            ? "Balance at idle"
            : "Balance at the higher rpm", $"{least:0.##} and {most:0.##} inHg", SheetKind.Carburettor, last.ComponentId!.Value,
            CarburettorBalance.Judge(most - least, aircraft), last.PersonId, last.LastAt, Needed: false);
    }

    private static IEnumerable<SheetTogether> Repair(SheetWork work)
    {
        var (found, repaired) = (Reading(work, "exhaust-pressure", "before"), Reading(work, "exhaust-pressure", SheetValue.After));
        if ((repaired ?? found) is not { } tested)
            yield break;
        var (as_, after) = (Bubbles("before"), Bubbles(SheetValue.After));
        var (now, before) = repaired is null
            ? (as_, null)
            : (after, found is null ? ((double, bool?)?)null : (In(Unit.Psi, found), as_.Seen));
        var saw = string.Join(", ",
            new[] { found is null ? null : $"{found.Value:0.##} {found.UnitSymbol} as found{as_.Said}", repaired is null
                ? null
                : $"{repaired.Value:0.##} {repaired.UnitSymbol} after{after.Said}" }.OfType<string>());
        var last = now.Check is { } look && look.At > tested.LastAt ? (look.By, look.At) : (tested.PersonId, tested.LastAt);
        yield return new("repair", "Exhaust under pressure", saw, work.Sheet.Kind, work.Sheet.Carrier.Id,
            ExhaustPressure.Judge(Math.Min(In(Unit.Psi, tested), ExhaustPressure.Most), now.Seen, before), last.Item1, last.Item2);

        (bool? Seen, string Said,
            SheetCheck? Check) Bubbles(string when) => work.Looks.First(look => look.Of.Key == $"bubbles-{when}").Check switch
        {
            { State: LookState.Found } there => (true, $", bubbles: {there.Words}", there),
            { State: LookState.Good } none => (false, ", no bubbles", none),
            var other => (null, "", other),
        };
    }

    // After the work counts, where it was read.
    private static IEnumerable<SheetTogether> Drops(SheetWork work)
    {
        foreach (var when in new[] { SheetValue.After, "before" })
            if (Reading(work, "mag-drop-left", when) is { } left && Reading(work, "mag-drop-right", when) is { } right)
            {
                var last = Last([left, right]);
                yield return new("drops", $"Run-up {when} the work", $"left {left.Value:0}, right {right.Value:0} rpm", work.Sheet.Kind,
                    work.Sheet.Carrier.Id, MagnetoDrop.Between(left.Value, right.Value), last.PersonId, last.LastAt);
                yield break;
            }
    }

    private static Reading? Reading(SheetWork work, string kind, string position) =>
        work.Values.First(value => value.Of.Kind == kind && value.Of.Position == position).Reading;

    private static Reading Last(IEnumerable<Reading?> readings) => readings.OfType<Reading>().MaxBy(reading => reading.LastAt)!;

    private static double In(Unit unit, Reading reading) => Unit.Find(reading.UnitSymbol)!.To(unit, reading.Value);
}
