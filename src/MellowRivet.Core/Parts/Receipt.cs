namespace MellowRivet.Core.Parts;

/// <summary>Where a part stands on its way from needed to fitted.</summary>
public enum PartState { Needed = 1, Asked, Ordered, Received, Fitted, SentBack }

/// <summary>In what condition a part came.</summary>
public enum PartCondition { New = 1, Overhauled, Repaired, Serviceable, AsRemoved }

/// <summary>What came, with where it comes from.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Quantity">How many, or how much.</param>
/// <param name="Condition">In what condition.</param>
/// <param name="Trace">What shows that it is airworthy: the number of its release tag or certificate of conformity; empty for none.</param>
/// <param name="Batch">Its batch, lot or serial number; may be empty.</param>
/// <param name="ShelfLife">The last day it may be fitted; null for one that doesn't age.</param>
/// <param name="By">Who took it in.</param>
/// <param name="At">When.</param>
public sealed record Receipt(Guid Id, decimal Quantity, PartCondition Condition, string Trace, string Batch, DateOnly? ShelfLife, Guid By,
    DateTimeOffset At);

/// <summary>Some of what came went into the aircraft, or back.</summary>
/// <param name="ReceiptId">Of which receipt.</param>
/// <param name="Quantity">How many, or how much.</param>
/// <param name="Serial">The serial number that went on; empty where it bears none.</param>
/// <param name="SerialOff">The serial number of what came off for it; empty for none.</param>
/// <param name="Replaced">The part of the aircraft's file that it took the place of; null for one that the file doesn't follow.</param>
/// <param name="Words">Why it went back; empty for what was fitted.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
public sealed record TakenOut(Guid ReceiptId, decimal Quantity, string Serial, string SerialOff, Guid? Replaced, string Words, Guid By,
    DateTimeOffset At);

/// <summary>A core that the supplier wants back.</summary>
/// <param name="SentOn">The day it went; null while it is owed.</param>
public sealed record CoreOwed(DateOnly? SentOn);

/// <summary>Somebody said that a part needs no trace, with why.</summary>
public sealed record NeedsNoTrace(string Why, Guid By, DateTimeOffset At);

/// <summary>What a part is for.</summary>
/// <param name="AircraftId">The aircraft; null for the shop's own shelf.</param>
/// <param name="InspectionId">The inspection; null for none.</param>
/// <param name="Key">The line of it: a discrepancy's number, or the work's key; empty for none.</param>
public sealed record PartFor(Guid? AircraftId, Guid? InspectionId, string Key)
{
    public static readonly PartFor Shelf = new(null, null, "");
}

public static class PartWords
{
    public static string InWords(this PartCondition condition) => condition switch
    {
        PartCondition.AsRemoved => "as removed",
        _ => condition.ToString().ToLowerInvariant(),
    };
}
