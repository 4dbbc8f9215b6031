using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Inspections;

/// <summary>Who did something, and when.</summary>
public sealed record Stamp(Guid By, DateTimeOffset At);

/// <summary>The looks of a zone, in their order.</summary>
public enum LookStep { First = 1, Cleaned, Second }

/// <summary>A zone's way from dirty to looked at again.</summary>
/// <param name="ZoneKey">The zone.</param>
/// <param name="Title">What it is called.</param>
/// <param name="First">Looked at dirty; null while it wasn't.</param>
/// <param name="FirstMissed">Why there was no first look; null where there was or will be one.</param>
/// <param name="Cleaned">Cleaned.</param>
/// <param name="Second">Looked at clean.</param>
/// <param name="TakenBy">Who takes the zone on; null for whoever comes.</param>
public sealed record ZoneLook(string ZoneKey, string Title, Stamp? First = null, string? FirstMissed = null, Stamp? Cleaned = null,
    Stamp? Second = null, Guid? TakenBy = null)
{
    public Stamp? At(LookStep look) => look switch { LookStep.First => First, LookStep.Cleaned => Cleaned, _ => Second };

    /// <summary>The look that comes next; null when all are done.</summary>
    public LookStep? Next(HouseRules rules) => rules.FirstLook && First is null && FirstMissed is null && Cleaned is null
        ? LookStep.First
        : Cleaned is null ? LookStep.Cleaned : Second is null ? LookStep.Second : null;
}

/// <summary>What left a witness mark.</summary>
public enum WitnessOf { Oil = 1, FuelDye, Exhaust, Coolant, Hydraulic }

/// <summary>How much of it, from nothing to dripping.</summary>
public enum WitnessAmount { None = 1, Weep, Wet, Drip }

/// <summary>A mark beside the one of last time.</summary>
public enum WitnessThen { New = 1, More, Same, Less }

/// <summary>A witness mark seen at the first look, before it was wiped away.</summary>
/// <param name="Id">Its id.</param>
/// <param name="ZoneKey">The zone.</param>
/// <param name="Of">What it is.</param>
/// <param name="Amount">How much.</param>
/// <param name="Where">Where it is, in words.</param>
/// <param name="Then">Against last time.</param>
/// <param name="Photo">A picture of it; null where none was taken.</param>
/// <param name="Seen">Who saw it and when.</param>
public sealed record WitnessMark(Guid Id, string ZoneKey, WitnessOf Of, WitnessAmount Amount, string Where, WitnessThen Then, Photo? Photo,
    Stamp Seen)
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <summary>
    /// What it comes to: one that drips, or that grew since last time, is a leak until somebody has found where it begins.
    /// </summary>
    public Judgement? Judgement => Amount switch
    {
        WitnessAmount.None => null,
        WitnessAmount.Drip => new(Verdict.Reject, $"{Of.InWords()} drips", Practice, null,
            "Find where it begins, and put it on the fix list."),
        _ when Then == WitnessThen.More =>
            new(Verdict.Unknown, "More than last time", Practice, null,
                "A mark that grows is a leak that grows: find where it begins. On the fix list, or set aside with the reason."),
        _ => new(Verdict.Watch, Then == WitnessThen.New ? "Not there last time" : Then.InWords(), Practice, null, "Compare it next time."),
    };

    /// <summary>What the amounts alone say against last time; a person who has both pictures before them may say otherwise.</summary>
    public static WitnessThen Compare(WitnessAmount amount, WitnessMark? last) => last is null
        ? WitnessThen.New
        : amount > last.Amount ? WitnessThen.More : amount < last.Amount ? WitnessThen.Less : WitnessThen.Same;
}

/// <summary>What a tag hangs on.</summary>
public enum TagKind { Panel = 1, Part }

/// <summary>A tag: a panel that was opened or a part that was taken off, with the bag of its hardware.</summary>
/// <param name="Number">Its number in this inspection, from 1; it is on the bag.</param>
/// <param name="ZoneKey">The zone it is in.</param>
/// <param name="Kind">Panel or part.</param>
/// <param name="What">What it is.</param>
/// <param name="Hardware">The screws and other hardware in the bag; may be empty.</param>
/// <param name="Opened">Who opened it or took it off.</param>
/// <param name="Closed">Who closed it or put it back, after a last look inside; null while it is open.</param>
public sealed record Tag(int Number, string ZoneKey, TagKind Kind, string What, string Hardware, Stamp Opened, Stamp? Closed = null);

/// <summary>A tool that was taken to the aircraft.</summary>
/// <param name="ToolId">The tool.</param>
/// <param name="Title">Its name and number then.</param>
/// <param name="Out">Who took it.</param>
/// <param name="In">Who brought it back or accounted for it; null while it is out.</param>
/// <param name="Account">What became of it where it didn't come back whole; null for one that did.</param>
public sealed record ToolOut(Guid ToolId, string Title, Stamp Out, Stamp? In = null, string? Account = null);

/// <summary>Something found in the aircraft that doesn't belong there.</summary>
public sealed record ForeignObject(Guid Id, string ZoneKey, string What, Photo? Photo, Stamp Found);

public static class LookWords
{
    public static string InWords(this LookStep look) =>
        look switch { LookStep.First => "first look", LookStep.Cleaned => "cleaned", _ => "second look" };

    public static string InWords(this WitnessOf of) =>
        of switch { WitnessOf.FuelDye => "fuel dye", WitnessOf.Hydraulic => "hydraulic fluid", _ => of.ToString().ToLowerInvariant() };

    public static string InWords(this WitnessAmount amount) => amount.ToString().ToLowerInvariant();

    public static string InWords(this WitnessThen then) => then switch
    {
        WitnessThen.New => "not there last time",
        WitnessThen.Same => "same as last time",
        _ => $"{then.ToString().ToLowerInvariant()} than last time",
    };
}
