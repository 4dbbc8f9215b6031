
namespace MellowRivet.Core.Discrepancies;

/// <summary>The words of discrepancies.</summary>
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
        DiscrepancyClass.Deferrable =>
            "Inoperative and not required: removed or deactivated, placarded, recorded (14 CFR 91.213(d), from memory).",
        DiscrepancyClass.Recommended => "Worth doing; the owner decides.",
        DiscrepancyClass.Watch => "Fit to fly; look again at a set time.",
        _ => "Examined and found benign; the next inspector looks again.",
    };

    /// <summary>What it means to an owner who isn't there. What was judged bad and set lower is never called harmless.</summary>
    public static string MeansToTheOwner(this Discrepancy found) => found is { Origin: not null, Class: not DiscrepancyClass.Airworthiness }
        ? $"Judged outside a usual limit. The person who answers for the inspection set it lower, for this reason: "
        + $"{(found.Lowered.Count > 0 ? found.Lowered[^1].Reason : "see the shop")}. Speak with the shop before you decide."
        : found.Class.MeansToTheOwner();

    private static string MeansToTheOwner(this DiscrepancyClass @class) => @class switch
    {
        DiscrepancyClass.Airworthiness =>
            "It must be put right before the aircraft can be signed as airworthy. You can decline it; then you get the aircraft back "
            + "with a list of unairworthy items, and it may not fly until it is done.",
        DiscrepancyClass.Deferrable =>
            "It doesn't work and isn't required for flying. It can be switched off, labelled “inoperative” and done later.",
        DiscrepancyClass.Recommended => "Worth doing; the aircraft may fly without it. You decide.",
        DiscrepancyClass.Watch => "Fit to fly. We look again at a set time.",
        _ => "Examined and found harmless.",
    };

    public static string InWords(this FoundHow how) => how switch
    {
        FoundHow.Visual => "by eye",
        FoundHow.Mirror => "with a mirror",
        FoundHow.Borescope => "with a borescope",
        FoundHow.DyePenetrant => "dye penetrant",
        FoundHow.EddyCurrent => "eddy current",
        FoundHow.MagneticParticle => "magnetic particles",
        FoundHow.Measurement => "measured",
        FoundHow.Sound => "heard",
        FoundHow.PressureTest => "pressure test",
        _ => "engine run",
    };
}
