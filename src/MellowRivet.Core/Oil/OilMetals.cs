namespace MellowRivet.Core.Oil;

/// <summary>Metals that a laboratory reads in used oil, and where each mostly comes from. Common practice.</summary>
public static class OilMetals
{
    public sealed record Metal(string Kind, string Name, string From);

    public static IReadOnlyList<Metal> All { get; } =
    [
        new("oil-iron", "Iron", "cylinders, rings, gears, shafts"), new("oil-copper", "Copper", "bearings, bushes"),
        new("oil-aluminium", "Aluminium", "pistons, case"),
        new("oil-chromium", "Chromium", "plated rings, cylinders"), new("oil-nickel", "Nickel", "plated cylinders, valves"),
        new("oil-silicon", "Silicon", "dust past the air filter, sealant"),
        new("oil-lead", "Lead", "fuel; with unleaded fuel, bearings"), new("oil-tin", "Tin", "bearings"),
    ];
}
