using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Oil;

public enum FilterPlace { Filter = 1, Screen, MagneticPlug }

public enum FilterMetal { None = 1, Ferrous, Aluminium, Bronze, Carbon }

/// <summary>How much, by our own drawn scale.</summary>
public enum FilterAmount { None = 1, FewSpecks, ManySpecks, Flakes, Chunks }

/// <summary>What was found in the filter, the screen or on the magnetic plug.</summary>
/// <param name="Id">Its id, made by the device.</param>
/// <param name="EngineId">The engine.</param>
/// <param name="Place">Where.</param>
/// <param name="Metal">What kind; a magnet tells ferrous.</param>
/// <param name="Amount">How much, by the drawn scale.</param>
/// <param name="Words">Anything more.</param>
/// <param name="Photo">A picture; null without one.</param>
/// <param name="By">Who looked.</param>
/// <param name="At">When.</param>
public sealed record FilterCut(Guid Id, Guid EngineId, FilterPlace Place, FilterMetal Metal, FilterAmount Amount, string Words,
    Photo? Photo, Guid By, DateTimeOffset At)
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <summary>Who looked, and when.</summary>
    public Stamp Said => new(By, At);

    /// <summary>What was found, in words.</summary>
    public string InWords => $"{Metal.InWords()}{(Amount == FilterAmount.None ? "" : $", {Amount.InWords()}")}"
        + (Words.Length > 0 ? $": {Words}" : "");

    /// <summary>Judges it, beside what was found there last time.</summary>
    /// <param name="before">The same place last time; null where nobody looked.</param>
    public Judgement Judge(FilterCut? before)
    {
        var more = before is null ? "Nobody looked before: compare the next one with this." : Amount > before.Amount
            ? "More than last time."
            : Amount < before.Amount ? "Less than last time." : "As last time.";
        if (Metal == FilterMetal.None || Amount == FilterAmount.None)
            return new(Verdict.Good, "No metal", Practice, null, more);
        if (Metal == FilterMetal.Carbon)
            return new(Amount >= FilterAmount.Flakes
                ? Verdict.Watch
                : Verdict.Good, "Carbon, no metal", Practice, null, $"{more} It crushes between the fingers and no magnet lifts it.");
        if (Amount == FilterAmount.Chunks || (Amount == FilterAmount.Flakes && Metal == FilterMetal.Ferrous))
            return new(Verdict.Reject, $"{Metal.InWords()} {(Amount == FilterAmount.Chunks ? "chunks" : "flakes")}", Practice, null,
                $"{more} Don't fly it: find what it comes from. {Metal.From()}");
        if (Amount >= FilterAmount.ManySpecks || (before is not null && Amount > before.Amount))
            return new(Verdict.Watch, $"{Metal.InWords()}, {Amount.InWords()}", Practice, null,
                $"{more} Change the oil and filter again after 10 h, and cut that one. {Metal.From()}");
        return new(Verdict.Good, $"{Metal.InWords()}, {Amount.InWords()}", Practice, null, more);
    }
}

/// <summary>The words of the filter's scale.</summary>
public static class FilterWords
{
    public static string InWords(this FilterPlace place) =>
        place switch { FilterPlace.Filter => "filter", FilterPlace.Screen => "screen", _ => "magnetic plug" };

    public static string InWords(this FilterMetal metal) =>
        metal switch { FilterMetal.None => "no metal", FilterMetal.Ferrous => "ferrous", FilterMetal.Aluminium => "aluminium",
        FilterMetal.Bronze => "bronze or copper", _ => "carbon" };

    public static string InWords(this FilterAmount amount) =>
        amount switch { FilterAmount.None => "none", FilterAmount.FewSpecks => "a few specks", FilterAmount.ManySpecks => "many specks",
        FilterAmount.Flakes => "flakes", _ => "chunks" };

    /// <summary>Where such metal mostly comes from. Common practice.</summary>
    public static string From(this FilterMetal metal) => metal switch
    {
        FilterMetal.Ferrous => "Ferrous: cylinder walls, rings, tappets, gears.",
        FilterMetal.Aluminium => "Aluminium: pistons, pin plugs, the case.",
        FilterMetal.Bronze => "Bronze or copper: bearings, bushes, guides.",
        _ => "",
    };
}
