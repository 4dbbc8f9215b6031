using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Inspections;

// Compressions as they are read, cylinder by cylinder.
public sealed partial class Inspection
{
    /// <summary>Takes down what a cylinder held in the test that is running; sent again under its id, it corrects the first.</summary>
    /// <param name="aircraft">The aircraft with its components.</param>
    /// <param name="engine">One of its engines.</param>
    /// <param name="typed">The reading as it is typed.</param>
    /// <param name="said">Who read it, when, and what they had before them.</param>
    public Refusal? Record(Aircraft aircraft, Component engine, TypedCylinder typed, Saying said)
    {
        var sheet = CompressionSheet.Of(aircraft, engine, this);
        if (sheet.Test is not { } test)
            return new("value", "Read the caution and begin the test first.");
        if (sheet.Cylinder(typed.Number) is not { } cylinder)
            return new("value", $"This engine has no cylinder {typed.Number}.");
        var read = TypedReading.Parse(typed.Value, test.Conditions.Supply);
        if (read.Held is not { } held)
            return new("value", read.Problem!);
        if (cylinder.Before.Concat(cylinder.Tries).FirstOrDefault(reading => reading.Id == typed.ReadingId) is { } earlier)
        {
            Correct(earlier, held.Value, new Leaks(typed.Leaks), $"Cylinder {typed.Number}", said);
            return null;
        }
        // Another cylinder came in its place since it was read: it is the reading of the one that was there.
        var gone = typed.PartId is { } part && part != cylinder.Cylinder.Id && aircraft.WasOn(engine.Id, part, TimeInService);
        ReadingConditions conditions = new(test.Hot, test.SupplyPsi, test.AmbientPsi, test.DayOrificePsi, new Leaks(typed.Leaks),
            !gone && sheet.IsSecondTry(cylinder, typed.ReadingId));
        Record(new(typed.ReadingId, aircraft.Id, gone ? typed.PartId : cylinder.Cylinder.Id, Reading.CompressionKind, $"{typed.Number}",
            held.Value, Unit.Psi, conditions, TimeInService, said.At, said.By) { InspectionId = Id, CompressionTestId = test.Id });
        return null;
    }

    private void Correct(Reading reading, double psi, Leaks leak, string what, Saying said)
    {
        var key = ApartKeys.Compression(reading.Id);
        static string Words(double value, Leaks? at) => $"{value:0.#} psi{(at is { Any: true } heard ? $", {heard.Short}" : "")}";
        if (!said.Missed(reading.Last))
        {
            reading.Correct(psi, leak, said.By, said.At);
            StandsNow(key, Words(psi, leak), reading.Last);
        }
        else if (Words(reading.Value, reading.Conditions.Leak) is var stands && Words(psi, leak) is var other && stands != other)
            KeepApart(key, what, stands, reading.Last, other, said, new(Value: new(reading.Id, psi, reading.UnitSymbol, Leak: leak)));
    }
}
