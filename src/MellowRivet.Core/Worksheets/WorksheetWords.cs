namespace MellowRivet.Core.Worksheets;

/// <summary>The words of a worksheet's marks.</summary>
public static class WorksheetWords
{
    public static string InWords(this TaskKind kind) => kind switch
    {
        TaskKind.Functional => "functional check",
        _ => kind.ToString().ToLowerInvariant(),
    };

    public static string InWords(this Need need) => need switch
    {
        Need.PanelsOpen => "panels open",
        Need.PowerOn => "power on",
        _ => "engine hot",
    };

    public static string InWords(this AppliesTo to) => to switch
    {
        AppliesTo.Every => "every aircraft",
        AppliesTo.NoseWheel => "nose wheel",
        AppliesTo.TailWheel => "tail wheel",
        AppliesTo.GearedEngine => "geared engine",
        AppliesTo.Retractable => "retractable gear",
        AppliesTo.FoldingWing => "folding wing",
        AppliesTo.Twin => "two engines",
        AppliesTo.Fabric => "fabric-covered",
        AppliesTo.GearedFour => "geared four",
        AppliesTo.HardSkin => "metal or composite skin",
        AppliesTo.FourStroke => "four-stroke",
        _ => "two-stroke",
    };

    public static string InWords(this Station station) => station switch
    {
        Station.LookAndOpen => "look & open",
        Station.FixList => "fix list",
        Station.Dear => "dear things",
        Station.Quick => "quick look",
        Station.Run => "run & flight",
        _ => station.ToString().ToLowerInvariant(),
    };

    public static string InWords(this PaperTopic topic) => topic switch
    {
        PaperTopic.Totals => "do the totals add up",
        PaperTopic.Holes => "holes in the books",
        PaperTopic.Damage => "damage and repairs in the books",
        PaperTopic.Signers => "who signed the last inspections",
        PaperTopic.Bulletins => "bulletins",
        PaperTopic.LifeLimits => "parts with a life limit",
        _ => "what falls due within a year",
    };

    public static string InWords(this MeasureMethod method) => method switch
    {
        MeasureMethod.CableTension => "cable tension by temperature",
        MeasureMethod.Wear => "wear to a minimum",
        MeasureMethod.Torque => "torque with its wrench",
        _ => "limits",
    };
}
