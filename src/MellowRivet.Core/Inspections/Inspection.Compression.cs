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
    /// <param name="by">Who read it.</param>
    /// <param name="at">When.</param>
    public Refusal? Record(Aircraft aircraft, Component engine, TypedCylinder typed, Guid by, DateTimeOffset at)
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
            earlier.Correct(held.Value, new Leaks(typed.Leaks), by, at);
            return null;
        }
        ReadingConditions conditions = new(test.Hot, test.SupplyPsi, test.AmbientPsi, test.DayOrificePsi, new Leaks(typed.Leaks),
            sheet.IsSecondTry(cylinder, typed.ReadingId));
        Record(new(typed.ReadingId, aircraft.Id, cylinder.Cylinder.Id, Reading.CompressionKind, $"{typed.Number}", held.Value, Unit.Psi,
            conditions, TimeInService, at, by) { InspectionId = Id, CompressionTestId = test.Id });
        return null;
    }
}
