using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Inspections;

/// <summary>How a reading was taken. What doesn't concern its kind stays null.</summary>
/// <param name="Hot">Engine hot or cold.</param>
/// <param name="SupplyPsi">Regulated supply of a compression test, psi gauge.</param>
/// <param name="AmbientPsi">Air pressure around, psi absolute.</param>
/// <param name="DayOrificePsi">The tester's master orifice that day, psi gauge.</param>
/// <param name="Leak">Where a cylinder leaked; null where nobody noted anything.</param>
/// <param name="SecondTry">A further try after a low hot reading.</param>
/// <param name="Celsius">For a cable: the temperature at it, °C.</param>
/// <param name="Wrench">For a torque: the wrench it was pulled with.</param>
/// <param name="Feet">For an oil pressure in flight: the pressure altitude, ft.</param>
public sealed record ReadingConditions(
    bool? Hot = null, double? SupplyPsi = null, double? AmbientPsi = null, double? DayOrificePsi = null, Leaks? Leak = null,
    bool SecondTry = false,
    double? Celsius = null, WrenchUsed? Wrench = null, double? Feet = null);

/// <summary>The wrench that pulled a torque, as it was then.</summary>
/// <param name="ToolId">The tool.</param>
/// <param name="Title">Its name and number.</param>
/// <param name="CalibratedUntil">The last day its calibration holds.</param>
/// <param name="LengthInches">Handle to square drive; null where no extension made it matter.</param>
/// <param name="ExtensionInches">Extension in line; null without one.</param>
/// <param name="Setting">What it was set to, in the unit of the reading.</param>
public sealed record WrenchUsed(Guid ToolId, string Title, DateOnly CalibratedUntil, double? LengthInches, double? ExtensionInches,
    double Setting);

/// <summary>Anything measured: what, where, on which part, how much, when and by whom.</summary>
public sealed class Reading
{
    /// <summary>The kind of a differential compression, in psi, on a cylinder.</summary>
    public const string CompressionKind = "compression";

    private Reading() { }

    public Reading(Guid id, Guid aircraftId, Guid? componentId, string kind, string position, double value, Unit unit,
        ReadingConditions conditions, Hours timeInService, DateTimeOffset at, Guid personId)
    {
        Id = id;
        AircraftId = aircraftId;
        ComponentId = componentId;
        Kind = kind;
        Position = position;
        Value = value;
        UnitSymbol = unit.Symbol;
        Conditions = conditions;
        TimeInService = timeInService;
        At = at;
        PersonId = personId;
    }

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }

    /// <summary>The part it was taken on; null for the airframe.</summary>
    public Guid? ComponentId { get; private set; }
    public string Kind { get; private set; } = "";
    public string Position { get; private set; } = "";
    public double Value { get; private set; }
    public string UnitSymbol { get; private set; } = "";

    /// <summary>How much, in words: "1800 Ω", "open circuit".</summary>
    public string InWords => MeasureText.InWords(Value, Unit.Find(UnitSymbol)!);
    public ReadingConditions Conditions { get; private set; } = new();

    /// <summary>The aircraft's time in service when it was taken.</summary>
    public Hours TimeInService { get; private set; }

    /// <summary>The part's own hours when it was taken; null for the airframe. They follow from the part's stays.</summary>
    public Hours? OwnTime { get; private set; }

    /// <summary>The hours its series runs on: its part's own, or the aircraft's for the airframe.</summary>
    public Hours SeriesTime => OwnTime ?? TimeInService;
    public DateTimeOffset At { get; private set; }
    public Guid PersonId { get; private set; }

    /// <summary>When another value took the place of the first; null where none did.</summary>
    public DateTimeOffset? ChangedAt { get; private set; }

    /// <summary>When it came to be as it is.</summary>
    public DateTimeOffset LastAt => ChangedAt ?? At;

    /// <summary>Who made it what it is, and when.</summary>
    public Stamp Last => new(PersonId, LastAt);
    public Guid? InspectionId { get; init; }
    public Guid? TaskId { get; init; }

    /// <summary>For a compression: the test it belongs to; null for one taken over from the books.</summary>
    public Guid? CompressionTestId { get; init; }

    /// <summary>A compression's leak area as a multiple of the master orifice, at its own supply and ambient pressure.</summary>
    /// <exception cref="InvalidOperationException">It isn't a compression.</exception>
    public double LeakArea => Kind == CompressionKind
        ? Compression.LeakArea.MultipleOfMaster(new Psi(Value), new Psi(Conditions.SupplyPsi ?? 80),
            new Psi(Conditions.AmbientPsi ?? Psi.StandardAmbient.Value))
        : throw new InvalidOperationException($"A reading of {Kind} has no leak area.");

    /// <summary>Counts it on the own hours of the part it was taken on.</summary>
    public void CountOn(PartHours part) => OwnTime = part.At(AircraftId, TimeInService, At);

    /// <summary>The aircraft's time in service when it was taken was put right.</summary>
    public void ReckonFrom(Hours now) => TimeInService = now;

    /// <summary>Puts a value that was signed wrong right, in its own unit. When and by whom it was taken stays.</summary>
    public void PutRight(double value, DateTimeOffset at) => (Value, ChangedAt) = (value, at);

    /// <summary>
    /// Takes another value in place of the one typed before, while the inspection is in work. When it was first taken stays.
    /// </summary>
    public void Reread(double value, Unit unit, WrenchUsed? wrench, Guid by, DateTimeOffset at)
    {
        (Value, UnitSymbol, PersonId, ChangedAt) = (value, unit.Symbol, by, at);
        Conditions = Conditions with { Wrench = wrench };
    }

    /// <summary>
    /// Puts a mistyped value or leak path right while the inspection is in work. When it was taken stays, and
    /// with it the order of the tries.
    /// </summary>
    public void Correct(double value, Leaks? leak, Guid by, DateTimeOffset at)
    {
        (Value, ChangedAt) = (value, at);
        Conditions = Conditions with { Leak = leak };
        PersonId = by;
    }
}
