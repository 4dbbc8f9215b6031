using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Pages.Library;

/// <summary>A compliance as typed.</summary>
public sealed record ComplyForm
{
    public Guid Post { get; init; } = Guid.CreateVersion7();
    public string? B { get; init; }
    public DateOnly? On { get; init; }
    public string? Hours { get; init; }
    public string? Method { get; init; }
    public string? Reference { get; init; }
    public string? Wording { get; init; }
    public bool Finding { get; init; }
    public bool Terminating { get; init; }

    /// <summary>What was done, by a revision of the bulletin; or what is wrong with it as it is typed.</summary>
    public (Complied? Done, Refusal? Refusal) Read(string revision, Guid by)
    {
        if (On is not { } on)
            return (null, new("on", "The day it was done is wanted."));
        var hours = TypedNumber.ParseHours(Hours);
        return !string.IsNullOrWhiteSpace(Hours) && hours is null
            ? (null, new("hours", "Hours as a number, 1234.5."))
            : (new(on, hours?.Value, revision, Method?.Trim() ?? "", Finding, Terminating, Reference?.Trim() ?? "", by), null);
    }
}

/// <summary>A fact as typed, or read off a plate with its picture.</summary>
public sealed record FactForm
{
    public Guid Post { get; init; } = Guid.CreateVersion7();
    public string? B { get; init; }
    public string? Fact { get; init; }
    public string? Value { get; init; }
    public Guid? Walk { get; init; }
}

/// <summary>One bulletin on one aircraft with what can be done about it, on the aircraft's file or in its inspection.</summary>
/// <param name="Line">The bulletin as it stands.</param>
/// <param name="Aircraft">The aircraft with its parts.</param>
/// <param name="Stated">Facts that were read off it.</param>
/// <param name="Inspection">The inspection in work; null where none is.</param>
/// <param name="InWalk">It is shown in the walk: then forms come back to it.</param>
/// <param name="MayKeep">The person may decide and note.</param>
/// <param name="MayRecord">The person may read facts off and take steps in.</param>
/// <param name="Typed">A compliance that was typed and refused.</param>
/// <param name="TypedFact">A fact that was typed and refused.</param>
/// <param name="Reason">A reason that was typed and refused.</param>
/// <param name="Problem">What is wrong with a field.</param>
/// <param name="NameOf">A person's name.</param>
public sealed record BulletinPanel(
    BulletinLine Line, Aircraft Aircraft, IReadOnlyCollection<StatedFact> Stated, Inspection? Inspection, bool InWalk, bool MayKeep,
    bool MayRecord,
    ComplyForm? Typed, FactForm? TypedFact, string? Reason, Func<string, string?> Problem, Func<Guid?, string> NameOf)
{
    public string File => $"/aircraft/{Aircraft.Id}/bulletins";
    public Guid? Walk => InWalk ? Inspection!.Id : null;
    public string Back => InWalk ? $"/walk/{Inspection!.Id}/bulletins" : File;
    public BulletinWork? Work => Inspection?.WorkOf(Line);

    /// <summary>Its serial lists drawn, with this one's numbers.</summary>
    public IEnumerable<SerialDrawing> Serials =>
        SerialDrawing.Of(Line.Bulletin.AppliesTo, new AircraftFacts(Aircraft, Stated, TypeList.Empty, Line.On));

    /// <summary>Facts read off for it, with their pictures.</summary>
    public IEnumerable<StatedFact> Evidence =>
        Stated.Where(fact => fact.Photo is not null
            && (fact.ComponentId is null || fact.ComponentId == Line.On?.ComponentId
                || Aircraft.Fitting(fact.ComponentId.Value)?.ParentId == Line.On?.ComponentId));

    public decimal? HoursNow => Line.On is { } on ? on.TimeInService(Aircraft.TimeInService)?.Value : Aircraft.TimeInService.Value;
}

/// <summary>A fact that is asked for, with its form.</summary>
/// <param name="Name">The fact's name.</param>
/// <param name="Key">The bulletin that asks for it.</param>
/// <param name="File">Where it is sent.</param>
/// <param name="Walk">The walk it comes back to; null for the file.</param>
/// <param name="Waiting">How many bulletins wait for it.</param>
/// <param name="Typed">What was typed and refused.</param>
/// <param name="Problem">What is wrong with it.</param>
public sealed record FactAsked(string Name, string Key, string File, Guid? Walk, int Waiting, string? Typed, string? Problem)
{
    public FactName? Parsed => FactName.Read(Name);
    public string InWords => Parsed is { } name ? char.ToUpperInvariant(name.InWords[0]) + name.InWords[1..] : Name;

    /// <summary>The part it is about isn't on file: it may not be there at all.</summary>
    public bool MayBeMissing => Parsed is { } name && (name.Part is not null || name.Whose != FactName.Aircraft) && !name.IsYesNo;

    /// <summary>The fact that says there is none.</summary>
    public string FittedName => Name[..Name.LastIndexOf('.')] + ".fitted";
}

/// <summary>The bulletins of an aircraft by where they stand.</summary>
/// <param name="Lines">The bulletins.</param>
/// <param name="Inspection">The inspection they are looked up for; null on the file.</param>
/// <param name="Here">The page's address.</param>
/// <param name="Current">The one that is open.</param>
/// <param name="Hours">The aircraft's hours.</param>
/// <param name="All">With every one that needs nobody; else with the first of them.</param>
public sealed record BulletinGroups(IReadOnlyList<BulletinLine> Lines, Inspection? Inspection, string Here, string? Current, decimal Hours,
    bool All)
{
    /// <summary>So many are shown of those that need nobody.</summary>
    public const int Most = 40;
}
