using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Inspections;

/// <summary>What a second person has to inspect. Shops differ, and many one-person shops can't.</summary>
public enum SeparateInspector { Never, AirworthinessItems, Always }

/// <summary>How this shop works, where there is more than one school.</summary>
/// <param name="Inspector">When doer and inspector have to be two people.</param>
/// <param name="FirstLook">Each zone is looked at dirty before it is cleaned; false for the school that cleans first.</param>
public sealed record HouseRules(SeparateInspector Inspector = SeparateInspector.Never, bool FirstLook = true);

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
    public static bool Wanted(HouseRules rules, Inspection inspection, InspectionTask task) => task.Verdict != TaskVerdict.NotYet && task.InspectedBy is null && task.TiedTo is null
        && rules.Inspector switch
        {
            SeparateInspector.Always => true,
            SeparateInspector.AirworthinessItems => task.SecondPerson || inspection.TiedWith(task).Any(tied => tied.SecondPerson) || inspection.Discrepancies.Any(found => found.TaskId == task.Id && found.Class == DiscrepancyClass.Airworthiness),
            _ => false,
        };

    /// <summary>Whether a corrected discrepancy waits for a second person.</summary>
    public static bool Wanted(HouseRules rules, Discrepancy found) => !found.IsOpen && found.InspectedBy is null
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
