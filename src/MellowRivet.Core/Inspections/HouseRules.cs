using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Inspections;

/// <summary>What a second person has to inspect. Shops differ, and many one-person shops can't.</summary>
public enum SeparateInspector { Never = 1, AirworthinessItems, Always }

/// <summary>How this shop works, where there is more than one school.</summary>
/// <param name="Inspector">When doer and inspector have to be two people.</param>
/// <param name="FirstLook">Each zone is looked at dirty before it is cleaned; false for the school that cleans first.</param>
/// <param name="AskFirst">No work on a discrepancy before the owner was asked; false for the shop that has a free hand.</param>
/// <param name="PreAuthorised">
/// Where the owner is asked first: what the shop may spend unasked at one inspection, in its money; each line that is begun so draws on
/// it.
/// </param>
/// <param name="AirworthinessUnasked">Where the owner is asked first: airworthiness items are put right without asking.</param>
/// <param name="LabourRate">What an hour of a mechanic costs, in its money.</param>
/// <param name="Money">The shop's money, as it stands before a sum.</param>
/// <param name="SignersLook">Which looks the person who signs has to take; null for what the rule pack says of the inspection.</param>
/// <param name="StickerWidth">How wide the shop's logbook stickers are, mm.</param>
/// <param name="StickerHeight">How high, mm.</param>
/// <param name="Name">What the shop is called, and where it is; empty where nobody has said. Up to 80 characters.</param>
/// <param name="InspectorRate">What an hour of an inspector costs; null for what a mechanic's does.</param>
/// <param name="AssistantRate">The same of an assistant.</param>
/// <param name="Tax">The tax on what the shop asks for, in per cent; 0 where it takes none.</param>
/// <param name="Places">Places of which there are only so many, as typed: "stand 2, hoist 1".</param>
/// <param name="LockMinutes">After how long without a touch a phone locks what it has aboard, minutes, 1 to 240.</param>
public sealed record HouseRules(
    SeparateInspector Inspector = SeparateInspector.Never, bool FirstLook = true,
    bool AskFirst = false, decimal PreAuthorised = 0, bool AirworthinessUnasked = false, decimal LabourRate = 0, string Money = "$",
    LookSchool? SignersLook = null, double StickerWidth = 140, double StickerHeight = 90, string Name = "",
    decimal? InspectorRate = null, decimal? AssistantRate = null, decimal Tax = 0,
    string Places = "", int LockMinutes = 15)
{
    /// <summary>The longest name of a shop, in characters.</summary>
    public const int LongestName = 80;

    /// <summary>What an hour costs, by skill.</summary>
    public Rates HourlyRates() => new(LabourRate, InspectorRate ?? LabourRate, AssistantRate ?? LabourRate);

    /// <summary>A sum with the shop's tax on it.</summary>
    public decimal Taxed(decimal sum) => Math.Round(sum * (1 + (Tax / 100)), 2);

    /// <summary>A sum in the shop's money.</summary>
    public string Sum(decimal sum) =>
        $"{Money}{(Money.Length > 1 ? " " : "")}"
        + $"{sum.ToString(sum == decimal.Truncate(sum) ? "#,0" : "#,0.00", System.Globalization.CultureInfo.InvariantCulture)}";

    /// <summary>What is wrong with them as typed; null where they can hold.</summary>
    public Refusal? Check() => Name.Length > LongestName
        ? new("name", $"A name of up to {LongestName} characters.")
        : !Enum.IsDefined(Inspector)
        ? new("inspector", "Choose when a second person inspects.")
        : SignersLook is { } look && !Enum.IsDefined(look)
        ? new("signersLook", "Choose which looks the person who signs takes.")
        : StickerWidth is not (>= 60 and <= 210) || StickerHeight is not (>= 40 and <= 297)
        ? new("sticker", "A sticker of 60 to 210 mm by 40 to 297 mm.")
        : LockMinutes is < 1 or > 240
        ? new("lockMinutes", "A phone locks after 1 to 240 minutes.")
        : PreAuthorised is < 0 or > 1_000_000 || LabourRate is < 0 or > 10_000 || InspectorRate is < 0 or > 10_000
            || AssistantRate is < 0 or > 10_000 || Tax is < 0 or > 50 || Money.Trim().Length is 0 or > 4
            ? new("money", "Sums from 0 up, an hour of up to 10,000, a tax of 0 to 50 %, and money of one to four letters: $, EUR.")
            : Schedule.ShopPlaces.Read(Places).Refusal;
}

/// <summary>The shop's own settings: one row.</summary>
public sealed class Shop
{
    public int Id { get; private set; } = 1;
    public HouseRules Rules { get; private set; } = new();

    public void Work(HouseRules rules) => Rules = rules;
}

/// <summary>The rule of two people: who does the work, and who inspects it.</summary>
public static class SecondPerson
{
    /// <summary>Whether an answered task waits for a second person.</summary>
    public static bool Wanted(HouseRules rules, Inspection inspection, InspectionTask task) =>
        task.Verdict != TaskVerdict.NotYet && task.InspectedBy is null && task.TiedTo is null && !inspection.IsSurvey
        && rules.Inspector switch
        {
            SeparateInspector.Always => true,
            SeparateInspector.AirworthinessItems => task.SecondPerson || inspection.TiedWith(task).Any(tied => tied.SecondPerson)
                || inspection.Discrepancies.Any(found => found.TaskId == task.Id && found.Class == DiscrepancyClass.Airworthiness),
            _ => false,
        };

    /// <summary>Whether a corrected discrepancy waits for a second person.</summary>
    public static bool Wanted(HouseRules rules, Discrepancy found) => found.Disposition == Disposition.Done
        && rules.Inspector switch
        {
            SeparateInspector.Always => true,
            SeparateInspector.AirworthinessItems => found.Class == DiscrepancyClass.Airworthiness,
            _ => false,
        };

    /// <summary>Why a person can't inspect what somebody did; null where they may.</summary>
    /// <param name="inspector">Who would inspect.</param>
    /// <param name="doneBy">Who did it.</param>
    public static Refusal? MayInspect(Person inspector, Guid? doneBy)
    {
        if (!inspector.May(Right.InspectWork))
            return new("inspect", $"{inspector.Name} may not inspect another's work: that takes an inspector, a mechanic or a repairman.");
        return inspector.Id == doneBy ? new("inspect", $"{inspector.Name} did it: somebody else has to inspect it.") : null;
    }

    public static string InWords(this SeparateInspector rule) => rule switch
    {
        SeparateInspector.Always => "always",
        SeparateInspector.AirworthinessItems => "for airworthiness items",
        _ => "never",
    };
}
