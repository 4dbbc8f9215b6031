using System.Text.Json.Serialization;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Fleet;

public enum ComponentKind
{
    Engine = 1, Cylinder, Propeller, Magneto, ElectronicIgnition, Carburettor, Gearbox, Crankshaft, Pump, Hose,
    Battery, LocatorTransmitter, Altimeter, Transponder, Plug, Other,
}

/// <summary>What fires the plugs of one row.</summary>
public enum IgnitionKind { Magneto = 1, HighEnergy }

/// <summary>An engine's ignition, row by row: the two rows of plugs may be fired by different things.</summary>
public sealed record Ignition(IgnitionKind Top, IgnitionKind Bottom)
{
    /// <summary>Plugs of one row don't suit the other.</summary>
    public bool IsMixed => Top != Bottom;

    public bool HasMagneto => Top == IgnitionKind.Magneto || Bottom == IgnitionKind.Magneto;
}

/// <summary>An overhaul of a part.</summary>
/// <param name="On">When it was released.</param>
/// <param name="OwnTime">The part's own time then; null where the papers don't say.</param>
/// <param name="Reference">The release or work order it is papered by.</param>
public sealed record Overhaul(DateOnly On, Hours? OwnTime, string Reference)
{
    /// <summary>The overhaul as it is typed, or what is wrong with it.</summary>
    /// <param name="on">The day it was released.</param>
    /// <param name="ownTime">The part's own hours then; empty where nobody knows.</param>
    /// <param name="reference">What papers it.</param>
    /// <param name="today">The day, which it isn't after.</param>
    /// <param name="ownTimeNow">The part's own hours now, which it has no more than; null where nobody knows.</param>
    public static (Overhaul? Overhaul, Refusal? Refusal) Read(DateOnly? on, string? ownTime, string? reference, DateOnly today,
        Hours? ownTimeNow)
    {
        if (on is not { } day || day > today)
            return (null, new("overhaul", "The day it was released from overhaul, not one to come."));
        var own = TypedNumber.ParseHours(ownTime);
        if ((own is null && !string.IsNullOrWhiteSpace(ownTime)) || own > ownTimeNow)
            return (null, new("overhaul",
                "The part’s own hours at the overhaul, no more than it has now; leave it empty where nobody knows."));
        return string.IsNullOrWhiteSpace(reference) || reference.Trim().Length > 80
            ? (null, new("overhaul", "The release or work order it is papered by, up to 80 characters."))
            : (new(day, own, reference.Trim()), null);
    }
}

/// <summary>
/// One part with its own serial number, wherever it is. What is read on it, its overhauls and what falls due on it stay
/// with it when it moves; where it was, and from when to when, say its <see cref="Installation"/>s.
/// </summary>
public sealed class Component
{
    private List<Overhaul> overhauls = [];

    private Component() { }

    /// <param name="id">Its id.</param>
    /// <param name="kind">What it is.</param>
    /// <param name="partNumber">The maker's part number; may be empty.</param>
    /// <param name="serialNumber">Its serial number; may be empty where the part bears none.</param>
    /// <param name="name">What it is called, where the kind alone doesn't say.</param>
    public Component(Guid id, ComponentKind kind, string partNumber, string serialNumber, string name = "")
    {
        Id = id;
        Kind = kind;
        Identify(partNumber, serialNumber, name, null);
    }

    public Guid Id { get; private set; }
    public ComponentKind Kind { get; private set; }
    public string Name { get; private set; } = "";
    public string PartNumber { get; private set; } = "";
    public string SerialNumber { get; private set; } = "";

    /// <summary>What its plate says, in words.</summary>
    public string Plate => string.Join(", ", new[] { PartNumber, SerialNumber.Length > 0 ? $"s/n {SerialNumber}" : "",
        MadeOn is { } made ? $"made {made:yyyy-MM-dd}" : "" }.Where(words => words.Length > 0).DefaultIfEmpty("nothing"));

    /// <summary>Whether a plate says something else than what somebody had put down; what nobody had said is filled in.</summary>
    public bool SaysOtherwise(string partNumber, string? serial, DateOnly? madeOn) => (PartNumber.Length > 0 && PartNumber != partNumber)
        || (SerialNumber.Length > 0 && SerialNumber != (serial?.Trim() ?? "")) || (MadeOn is not null && MadeOn != madeOn);

    /// <summary>The day it was made, where the part says: hoses and batteries age on the shelf too.</summary>
    public DateOnly? MadeOn { get; private set; }

    /// <summary>For an engine: the key of its layout.</summary>
    public string? LayoutKey { get; init; }

    /// <summary>For an engine that fires otherwise than its layout's usual order; null for the usual.</summary>
    public IReadOnlyList<int>? OwnFiringOrder { get; init; }

    /// <summary>For an engine: what fires each row of plugs; null where nobody has said.</summary>
    public Ignition? Ignition { get; init; }

    /// <summary>For a spark plug: the ignition it is made for; null where nobody has said.</summary>
    public IgnitionKind? Suits { get; init; }

    /// <summary>For an engine: how its compressions are judged.</summary>
    public CompressionRule? CompressionRule { get; private set; }

    public IReadOnlyList<Overhaul> Overhauls => overhauls;

    public Overhaul? LastOverhaul => overhauls.MaxBy(done => done.On);

    /// <exception cref="InvalidOperationException">It isn't an engine.</exception>
    public EngineLayout Layout => EngineLayout.Of(LayoutKey ?? throw new InvalidOperationException($"A {Kind} has no layout."));

    /// <summary>Cylinder numbers as they fire.</summary>
    public IReadOnlyList<int> FiringOrder => OwnFiringOrder ?? Layout.FiringOrder;

    /// <summary>What it is called: its own name, else its kind.</summary>
    public string Title => Name.Length > 0 ? Name : Kind.InWords();

    /// <summary>Puts its numbers right, as read off its plate.</summary>
    public void Identify(string partNumber, string serialNumber, string name, DateOnly? madeOn) =>
        (PartNumber, SerialNumber, Name, MadeOn) = (partNumber, serialNumber, name, madeOn);

    /// <summary>What is wrong with numbers as typed; null where they can go on file.</summary>
    public static Refusal? CheckPlate(ComponentKind kind, string? partNumber, string? serialNumber, string? name, DateOnly? madeOn,
        DateOnly today)
    {
        if (!Enum.IsDefined(kind) || (kind == ComponentKind.Other && string.IsNullOrWhiteSpace(name)))
            return new("name", "Say what it is.");
        if (new[] { name, partNumber, serialNumber }.Any(words => words?.Trim().Length > 40))
            return new("name", "Names and numbers of up to 40 characters.");
        if (madeOn > today)
            return new("madeOn", "That day is still to come.");
        return kind == ComponentKind.Engine && string.IsNullOrWhiteSpace(serialNumber)
            ? new("name", "An engine needs its serial number, off its data plate.")
            : null;
    }

    public void JudgeCompressionBy(CompressionRule rule) => CompressionRule = rule;

    public void WasOverhauled(Overhaul done) => overhauls = [.. overhauls, done];

    /// <summary>
    /// What is wrong with a firing order typed for a layout: every cylinder fires once. Null where it holds, or where none was typed.
    /// </summary>
    public static (IReadOnlyList<int>? Order, Refusal? Refusal) ReadFiringOrder(string? typed, EngineLayout layout)
    {
        if (string.IsNullOrWhiteSpace(typed))
            return (null, null);
        var numbers = typed.Split([' ', '-', ',', '–'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(part => int.TryParse(part, out var number) ? number : 0).ToList();
        if (!numbers.Order().SequenceEqual(layout.Cylinders.Select(place => place.Number).Order()))
            return (null, new("firingOrder", $"Each cylinder once, as {string.Join("-", layout.FiringOrder)}."));
        return (numbers.SequenceEqual(layout.FiringOrder) ? null : numbers, null);
    }
}

/// <summary>
/// How an engine's compressions are judged: a limit set of the shelf, or the engine manual's own floor with its reference.
/// </summary>
/// <param name="School">Which school of limits.</param>
/// <param name="ManualRejectPsi">The manual's own lowest good reading, psi; null where the set's holds.</param>
/// <param name="ManualReference">What says so: needed with a floor of its own, and from whoever changes what an engine is judged
/// by.</param>
/// <param name="Set">Who put it on file; null for what came with the engine.</param>
public sealed record CompressionRule(CompressionSchool School, double? ManualRejectPsi = null, string? ManualReference = null,
    WhoSet? Set = null)
{
    /// <summary>"60 of 80, floor 65 psi, manual 72-10".</summary>
    [JsonIgnore]
    public string InWords => $"{CompressionLimits.Of(School).Name}{(ManualRejectPsi is { } floor ? $", floor {floor:0.#} psi" : "")}"
        + $"{(ManualReference is { Length: > 0 } says ? $", {says}" : "")}";

    /// <summary>The limits this rule comes to.</summary>
    public CompressionLimits Limits() => ManualRejectPsi is { } floor
        ? CompressionLimits.Of(School).WithManualFloor(new Psi(floor), ManualReference ?? "")
        : CompressionLimits.Of(School);

    /// <summary>
    /// The rule as it is typed, or what is wrong with it: a floor of the manual is a pressure, and what an engine is judged by has a
    /// reference, whichever it is.
    /// </summary>
    public static (CompressionRule? Rule, Refusal? Refusal) Read(CompressionSchool school, string? floor, string? reference)
    {
        if (!Enum.IsDefined(school))
            return (null, new("inspection", "There is no such limit set."));
        var (typed, psi) = (!string.IsNullOrWhiteSpace(floor), MeasureText.Value(floor, Unit.Psi));
        if (Check(typed, psi, reference).FirstOrDefault() is { } wrong)
            return (null, wrong);
        return string.IsNullOrWhiteSpace(reference) || reference.Trim().Length > 80
            ? (null, new("reference", "What says that this engine is judged so: the maker’s document, chapter, revision, up to 80 "
                + "characters."))
            : (new(school, psi, reference.Trim()), null);
    }

    /// <summary>What is wrong with a manual floor; nothing where it can go on file.</summary>
    public static IEnumerable<Refusal> Check(bool floorTyped, double? floor, string? reference)
    {
        if (floorTyped && floor is not (> 0 and < 150))
            yield return new("floor", "The manual's floor is a pressure above 0 and below 150 psi.");
        if (floorTyped && string.IsNullOrWhiteSpace(reference))
            yield return new("reference", "A limit of the manual needs its reference: chapter, page, revision.");
    }
}
