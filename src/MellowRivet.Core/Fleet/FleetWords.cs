namespace MellowRivet.Core.Fleet;

/// <summary>Categories, parts and builds as people say them.</summary>
public static class FleetWords
{
    public static string InWords(this Category category) => category switch
    {
        Category.ExperimentalAmateurBuilt => "experimental, amateur-built",
        Category.ExperimentalLightSport => "experimental, light-sport",
        Category.SpecialLightSport => "special light-sport",
        Category.Permit => "permit to fly",
        Category.Other => "another authority",
        _ => "standard",
    };

    public static string InWords(this ComponentKind kind) => kind switch
    {
        ComponentKind.ElectronicIgnition => "electronic ignition",
        ComponentKind.LocatorTransmitter => "locator transmitter",
        ComponentKind.Other => "part",
        _ => kind.ToString().ToLowerInvariant(),
    };

    public static string InWords(this IgnitionKind kind) => kind == IgnitionKind.Magneto ? "magneto" : "high-energy electronic";

    public static string InWords(this Ignition ignition) => ignition.IsMixed
        ? $"{ignition.Top.InWords()} above, {ignition.Bottom.InWords()} below"
        : $"{ignition.Top.InWords()} on both rows";

    /// <summary>"low wing, nose wheel, two engines, retractable gear".</summary>
    public static string InWords(this Configuration build) => string.Join(", ", new[]
    {
        build.Wing == Wing.High ? "high wing" : "low wing",
        (build.Retractable ? "retractable " : "") + (build.Gear == Gear.TailWheel ? "tail wheel" : "nose wheel"),
        build.Engines > 1 ? "two engines" : "one engine",
        build.FoldingWing ? "folding wing" : "",
        build.Fabric ? "fabric-covered" : "",
        build.Seats == 1 ? "one seat" : $"{build.Seats} seats",
    }.Where(words => words.Length > 0));
}
