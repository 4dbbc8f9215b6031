using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Measures;

/// <summary>The torque of a fine-thread steel nut where the manual gives none, in-lb.</summary>
/// <param name="Thread">Size and thread: "1/4-28".</param>
/// <param name="TensionLow">Tension-type nut, least.</param>
/// <param name="TensionHigh">Tension-type nut, most.</param>
/// <param name="ShearLow">Shear-type nut, least.</param>
/// <param name="ShearHigh">Shear-type nut, most.</param>
public sealed record StandardTorque(string Thread, int TensionLow, int TensionHigh, int ShearLow, int ShearHigh)
{
    public static RuleSource Source { get; } = new(Standing.Law, "AC 43.13-1B table 7-1, from memory");

    public static IReadOnlyList<StandardTorque> All { get; } =
    [
        new("10-32", 20, 25, 12, 15), new("1/4-28", 50, 70, 30, 40), new("5/16-24", 100, 140, 60, 85),
        new("3/8-24", 160, 190, 95, 110), new("7/16-20", 450, 500, 270, 300), new("1/2-20", 480, 690, 290, 410),
    ];
}
