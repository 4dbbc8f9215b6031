using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What a discrepancy means for the aircraft, worst first.</summary>
public enum DiscrepancyClass { Airworthiness, Deferrable, Recommended, Watch, KnownMark }

/// <summary>A picture of a discrepancy. The original is kept by its SHA-256; only sized copies are ever shown.</summary>
/// <param name="Sha256">Lower-case hex of the original file's SHA-256, which is also its name on disk.</param>
/// <param name="Width">Width in pixels, upright.</param>
/// <param name="Height">Height in pixels, upright.</param>
/// <param name="TakenAt">When the camera says it was taken, in the camera's own clock; null where it doesn't say.</param>
/// <param name="AddedAt">When it reached the shop.</param>
public sealed record Photo(string Sha256, int Width, int Height, DateTime? TakenAt, DateTimeOffset AddedAt);

/// <summary>Something found during an inspection.</summary>
public sealed class Discrepancy
{
    private List<Photo> photos = [];

    private Discrepancy() { }

    public Discrepancy(Guid id, int number, string what, string zoneKey, string where, DiscrepancyClass @class, bool grounded, Guid? taskId, Guid foundBy, DateTimeOffset foundAt)
    {
        Id = id;
        Number = number;
        What = what.Trim();
        ZoneKey = zoneKey;
        Where = where.Trim();
        Class = @class;
        Grounded = grounded && @class == DiscrepancyClass.Airworthiness;
        TaskId = taskId;
        FoundBy = foundBy;
        FoundAt = foundAt;
    }

    /// <summary>Longest text taken for what was found or done, in characters.</summary>
    public const int LongestWords = 2_000;

    /// <summary>Longest text taken for where, in characters.</summary>
    public const int LongestWhere = 200;

    public Guid Id { get; private set; }
    public Guid InspectionId { get; private set; }

    /// <summary>Its number on this inspection's fix list, from 1.</summary>
    public int Number { get; private set; }
    public string What { get; private set; } = "";
    public string ZoneKey { get; private set; } = "";

    /// <summary>Where in the zone, in free words; may be empty.</summary>
    public string Where { get; private set; } = "";
    public DiscrepancyClass Class { get; private set; }

    /// <summary>Safety of flight now: the aircraft is grounded and the owner told today. Only on an airworthiness item.</summary>
    public bool Grounded { get; private set; }

    /// <summary>The task it was found at; null where it was found in passing.</summary>
    public Guid? TaskId { get; private set; }
    public Guid FoundBy { get; private set; }
    public DateTimeOffset FoundAt { get; private set; }
    public IReadOnlyList<Photo> Photos => photos;

    /// <summary>What was done about it; null while it is open.</summary>
    public string? CorrectiveAction { get; private set; }
    public Guid? CorrectedBy { get; private set; }
    public DateTimeOffset? CorrectedAt { get; private set; }

    /// <summary>Who inspected the corrective action, as a second person.</summary>
    public Guid? InspectedBy { get; private set; }
    public DateTimeOffset? InspectedAt { get; private set; }

    /// <summary>Counts changes, so that two people's edits can't overwrite each other unseen.</summary>
    public int Version { get; private set; }

    public bool IsOpen => CorrectiveAction is null;

    /// <summary>Stands between the aircraft and the airworthy statement.</summary>
    public bool IsOpenAirworthiness => IsOpen && Class == DiscrepancyClass.Airworthiness;

    /// <summary>What is wrong with words and place as typed; empty where they can be recorded.</summary>
    public static IEnumerable<Refusal> Check(string? what, string? where)
    {
        if (string.IsNullOrWhiteSpace(what))
            yield return new("what", "Say what you found, in a few words.");
        else if (what.Trim().Length > LongestWords)
            yield return new("what", $"{what.Trim().Length} characters; {LongestWords} is the most. Put the rest in a second discrepancy.");
        if (where?.Trim().Length > LongestWhere)
            yield return new("where", $"{where.Trim().Length} characters; {LongestWhere} is the most.");
    }

    /// <summary>Adds a picture; the same picture a second time changes nothing.</summary>
    public void Add(Photo photo)
    {
        if (photos.All(other => other.Sha256 != photo.Sha256))
            photos = [.. photos, photo];
    }

    public void Classify(DiscrepancyClass @class, bool grounded)
    {
        Class = @class;
        Grounded = grounded && @class == DiscrepancyClass.Airworthiness;
        Version++;
    }

    /// <summary>A second person has looked at what was done.</summary>
    public Refusal? Inspect(Person inspector, DateTimeOffset at)
    {
        if (IsOpen)
            return new("inspect", "Nothing was done about it yet.");
        if (SecondPerson.MayInspect(inspector, CorrectedBy) is { } refusal)
            return refusal;
        (InspectedBy, InspectedAt) = (inspector.Id, at);
        Version++;
        return null;
    }

    /// <summary>Records what was done about it.</summary>
    public Refusal? Correct(string? action, Guid by, DateTimeOffset at)
    {
        if (!IsOpen)
            return new("action", "It is already closed: what was done stands beside it.");
        if (string.IsNullOrWhiteSpace(action))
            return new("action", "Say what was done, with the reference it was done by.");
        if (action.Trim().Length > LongestWords)
            return new("action", $"{action.Trim().Length} characters; {LongestWords} is the most.");
        CorrectiveAction = action.Trim();
        CorrectedBy = by;
        CorrectedAt = at;
        Version++;
        return null;
    }
}

public static class DiscrepancyWords
{
    public static string InWords(this DiscrepancyClass @class) => @class switch
    {
        DiscrepancyClass.Airworthiness => "airworthiness",
        DiscrepancyClass.Deferrable => "deferrable",
        DiscrepancyClass.Recommended => "recommended",
        DiscrepancyClass.Watch => "watch",
        _ => "known mark",
    };

    /// <summary>What the class means, for under the choice.</summary>
    public static string Means(this DiscrepancyClass @class) => @class switch
    {
        DiscrepancyClass.Airworthiness => "Must be fixed, or the aircraft is not signed as airworthy.",
        DiscrepancyClass.Deferrable => "Inoperative and not required: removed or deactivated, placarded, recorded (14 CFR 91.213(d), from memory).",
        DiscrepancyClass.Recommended => "Worth doing; the owner decides.",
        DiscrepancyClass.Watch => "Fit to fly; look again at a set time.",
        _ => "Examined and found benign; the next inspector looks again.",
    };
}
