using MellowRivet.Core.Compression;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Fleet;

/// <summary>When and where a part was fitted, as it is typed.</summary>
/// <param name="On">The day; null where the papers don't say.</param>
/// <param name="At">The aircraft's time in service then, hours.</param>
/// <param name="OwnTime">The part's own hours then; empty where nobody knows.</param>
/// <param name="Position">Its place.</param>
/// <param name="Parent">The part it sits on; null for the airframe.</param>
public sealed record TypedFit(DateOnly? On, string? At, string? OwnTime, string? Position, Guid? Parent)
{
    private const int LongestPosition = 20;

    /// <summary>What is wrong with it as it is typed; null where it can be so.</summary>
    public Refusal? Check(DateOnly today) =>
        TypedNumber.ParseHours(At) is null ? new("at", "The aircraft’s time in service when it was fitted: 4318.6.")
        : TypedNumber.ParseHours(OwnTime) is null && !string.IsNullOrWhiteSpace(OwnTime)
            ? new("ownTime", "The part’s own hours then; leave it empty where nobody knows.")
        : On > today ? new("on", "That day is still to come.")
        : Position?.Trim().Length > LongestPosition ? new("position", $"A place of up to {LongestPosition} characters.")
        : null;

    /// <summary>Fits a part so; what came off with it where it was before goes on with it again.</summary>
    public Refusal? Fit(Aircraft aircraft, Component part, IReadOnlyList<Installation>? cameOff, Guid? by) =>
        aircraft.Fit(part, Position?.Trim() ?? "", On, TypedNumber.ParseHours(At)!.Value, TypedNumber.ParseHours(OwnTime), Parent, cameOff,
            by);
}

/// <summary>A new part, as it is typed.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Name">Its name, where the kind doesn't say it.</param>
/// <param name="Serial">Its serial number.</param>
/// <param name="MadeOn">The day it was made; null where nobody knows.</param>
/// <param name="Layout">An engine's layout.</param>
public sealed record TypedPart(ComponentKind Kind, string? Name, string? Serial, DateOnly? MadeOn, string? Layout)
{
    /// <summary>What is wrong with it as it is typed; null where it can be so.</summary>
    public Refusal? Check(string? partNumber, DateOnly today) =>
        Component.CheckPlate(Kind, partNumber, Serial, Name, MadeOn, today)
        ?? (Kind == ComponentKind.Engine && EngineLayout.All.All(layout => layout.Key != Layout)
            ? new("layout", "An engine needs its layout.")
            : null);

    /// <summary>
    /// The part: an engine with its ignition taken for magnetos, and judged by the usual school until the file says more.
    /// </summary>
    public Component Make(Guid id, string partNumber)
    {
        var isEngine = Kind == ComponentKind.Engine;
        var part = new Component(id, Kind, "", "")
        {
            LayoutKey = isEngine ? Layout : null,
            Ignition = isEngine ? new(IgnitionKind.Magneto, IgnitionKind.Magneto) : null,
        };
        part.Identify(partNumber, Serial?.Trim() ?? "", Name?.Trim() ?? "", MadeOn);
        if (isEngine)
            part.JudgeCompressionBy(new(CompressionSchool.SixtyOfEighty));
        return part;
    }
}

/// <summary>The hours of a stay put right, as they are typed.</summary>
/// <param name="At">The aircraft's time in service when it was fitted.</param>
/// <param name="OwnTime">The part's own hours then; empty where nobody knows.</param>
/// <param name="Off">The aircraft's time in service when it came off; empty while it is on.</param>
public sealed record TypedStay(string? At, string? OwnTime, string? Off)
{
    public (Hours At, Hours? OwnTime, Hours? Off, Refusal? Refusal) Read()
    {
        var (at, own, off) = (TypedNumber.ParseHours(At), TypedNumber.ParseHours(OwnTime), TypedNumber.ParseHours(Off));
        var wrong = at is null ? new Refusal("stayAt", "The aircraft’s time in service when it was fitted: 4318.6.")
            : own is null && !string.IsNullOrWhiteSpace(OwnTime)
                ? new("stayOwn", "The part’s own hours then; leave it empty where nobody knows.")
            : off is null && !string.IsNullOrWhiteSpace(Off)
                ? new("stayOff", "The aircraft’s time in service when it came off: 4318.6.")
            : null;
        return (at ?? default, own, off, wrong);
    }
}
