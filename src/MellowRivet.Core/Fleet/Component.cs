using MellowRivet.Core.Compression;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Fleet;

public enum ComponentKind { Engine, Cylinder, Propeller }

/// <summary>
/// One part with its own serial number, fitted at a position from one time in service to another. Readings hang on
/// the part, so a new cylinder begins a new series.
/// </summary>
public sealed class Component
{
    private Component() { }

    public Component(Guid id, ComponentKind kind, string position, string partNumber, string serialNumber, Hours installedAt, Hours hoursWhenInstalled)
    {
        Id = id;
        Kind = kind;
        Position = position;
        PartNumber = partNumber;
        SerialNumber = serialNumber;
        InstalledAt = installedAt;
        HoursWhenInstalled = hoursWhenInstalled;
    }

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }

    /// <summary>The component this one sits on; null for one that sits on the airframe.</summary>
    public Guid? ParentId { get; init; }
    public ComponentKind Kind { get; private set; }

    /// <summary>Where it sits: a cylinder's number, "left" or "right" for a twin's engines, "" where there is one place.</summary>
    public string Position { get; private set; } = "";
    public string PartNumber { get; private set; } = "";
    public string SerialNumber { get; private set; } = "";

    /// <summary>The aircraft's time in service when it was fitted.</summary>
    public Hours InstalledAt { get; private set; }

    /// <summary>The component's own time when it was fitted.</summary>
    public Hours HoursWhenInstalled { get; private set; }

    /// <summary>The aircraft's time in service when it was taken off; null while it is on.</summary>
    public Hours? RemovedAt { get; private set; }
    public string? RemovedWhy { get; private set; }

    /// <summary>For an engine: the key of its layout.</summary>
    public string? LayoutKey { get; init; }

    /// <summary>For an engine: how its compressions are judged.</summary>
    public CompressionRule? CompressionRule { get; private set; }

    /// <exception cref="InvalidOperationException">It isn't an engine.</exception>
    public EngineLayout Layout => EngineLayout.Of(LayoutKey ?? throw new InvalidOperationException($"A {Kind} has no layout."));

    /// <summary>Own time = hours since fitted + own time when fitted.</summary>
    /// <param name="aircraftTime">The aircraft's time in service now.</param>
    public Hours TimeInService(Hours aircraftTime)
    {
        var until = RemovedAt is { } removed && removed < aircraftTime ? removed : aircraftTime;
        return new(Math.Max(0, until.Value - InstalledAt.Value) + HoursWhenInstalled.Value);
    }

    /// <exception cref="ArgumentException">It can't come off before it went on.</exception>
    public void Remove(Hours at, string why)
    {
        if (at < InstalledAt)
            throw new ArgumentException($"It was fitted at {InstalledAt} h and can't have come off at {at} h.", nameof(at));
        RemovedAt = at;
        RemovedWhy = why;
    }

    public void JudgeCompressionBy(CompressionRule rule) => CompressionRule = rule;
}

/// <summary>How an engine's compressions are judged: a limit set of the shelf, or the engine manual's own floor with its reference.</summary>
/// <param name="School">Which school of limits.</param>
/// <param name="ManualRejectPsi">The manual's own lowest good reading, psi; null where the set's holds.</param>
/// <param name="ManualReference">Where the manual says so; needed with a floor of its own.</param>
public sealed record CompressionRule(CompressionSchool School, double? ManualRejectPsi = null, string? ManualReference = null)
{
    /// <summary>The limits this rule comes to.</summary>
    public CompressionLimits Limits() => ManualRejectPsi is { } floor
        ? CompressionLimits.Of(School).WithManualFloor(new Psi(floor), ManualReference ?? "")
        : CompressionLimits.Of(School);

    /// <summary>What is wrong with a manual floor as typed; empty where it can go on file.</summary>
    public static IEnumerable<Refusal> Check(bool floorTyped, double? floor, string? reference)
    {
        if (floorTyped && floor is not (> 0 and < 150))
            yield return new("floor", "The manual's floor is a pressure above 0 and below 150 psi.");
        if (floorTyped && string.IsNullOrWhiteSpace(reference))
            yield return new("reference", "A limit of the manual needs its reference: chapter, page, revision.");
    }
}
