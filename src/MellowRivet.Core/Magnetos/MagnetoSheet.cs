using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Magnetos;

/// <summary>
/// The measured values of a 500-hour magneto inspection. Ends are included. From the manual of a usual type, common practice:
/// the manual of the magneto on the bench decides.
/// </summary>
public static class MagnetoSheet
{
    private static readonly RuleSource Source = new(Standing.Practice, "common practice, as of a usual type");

    public static SheetValue Primary { get; } = new("magneto-primary", "", "Primary coil", new(Unit.Ohm, 0.2, 0.6, Source));
    public static SheetValue Secondary { get; } = new("magneto-secondary", "", "Secondary coil", new(Unit.Ohm, 12_000, 16_000, Source));
    public static SheetValue Capacitor { get; } = new("magneto-capacitor", "", "Capacitor", new(Unit.Microfarad, 0.30, null, Source),
        SpoiltBy: "capacitor");

    /// <summary>The E-gap: how far after neutral the main points open. 10° ± 4°.</summary>
    public static SheetValue PointsOpen { get; } = new("magneto-e-gap", "", "Main points open after neutral (E-gap)",
        new(Unit.Degree, 6, 14, Source));

    /// <summary>0.018 ± 0.006 in.</summary>
    public static SheetValue PointsGap { get; } = new("magneto-points-gap", "", "Main points gap, full open",
        new(Unit.Inch, 0.012, 0.024, Source), SpoiltBy: "points");

    /// <summary>30° ± 2° after the main points.</summary>
    public static SheetValue Retard { get; } = new("magneto-retard", "", "Retard points after the main points",
        new(Unit.Degree, 28, 32, Source));

    public static IReadOnlyList<SheetValue> Values { get; } = [Primary, Secondary, Capacitor, PointsOpen, PointsGap, Retard];

    /// <summary>The sheet of one magneto: its values and looks on the bench, and what is looked at in place.</summary>
    public static EngineSheet Of(Component magneto) => new(SheetKind.Magneto, magneto,
    [
        new("On the bench", [.. Values],
        [
            new("rotor", "Rotor: shaft, bearing faces, magnet loose on its shaft"),
            new("block", "Distributor block: cracks, carbon tracks, electrodes burnt"),
            new("gear", "Distributor gear: teeth cracked, chipped, worn; electrode finger tight"),
            new("brush", "Carbon brush: length, chips, free in its hole"),
            new("bearing", "Bearings: rough, dry, loose"), new("springs", "Springs of points and brush: tension, corrosion"),
            new("capacitor", "Capacitor: lead broken or chafed, terminal, case bulged"),
            new("points", "Points, main and retard: pitted, blue, burnt; follower worn, felt dry"),
            new("marks", "Timing: chamfered tooth against its mark, red line in the window"),
        ]),
        new("In place", [new("magneto-timing", "", "Fires before top dead centre", SheetValue.NoLimit(Unit.Degree))],
            [new("lead", "P-lead, filter, harness: secure, not chafed, grounds when switched off")],
            "Take every magneto for live. Switch off, P-lead grounded, one plug out of every cylinder, nobody in the "
            + "propeller's arc while it is turned."),
    ]);
}

/// <summary>Judges the drop of each magneto at run-up. Common practice; the manual decides.</summary>
public static class MagnetoDrop
{
    /// <summary>The greatest good drop where no manual says another, rpm.</summary>
    public const double Most = 175;

    /// <summary>The most by which the two may differ, rpm.</summary>
    public const double MostBetween = 50;

    private static readonly RuleSource Source = new(Standing.Practice, "common practice");

    /// <summary>The limits of one drop.</summary>
    public static ToleranceBand Band { get; } = new(Unit.Rpm, 1, Most, Source);

    /// <summary>Judges how far the two drops are apart.</summary>
    /// <param name="left">Drop on the left magneto alone, rpm.</param>
    /// <param name="right">Drop on the right magneto alone, rpm.</param>
    public static Judgement Between(double left, double right) =>
        BetweenTable.Of(("left", left), ("right", right)).Judgement!;

    /// <summary>What the drops "left" and "right" are judged by together, rpm.</summary>
    public static JudgementTable BetweenTable { get; } = new(new Dictionary<string, double> { ["most"] = MostBetween },
        [new("apart", Making.Apart, ["left", "right"]), new("margin", Making.Less, ["most", "apart"])],
        [
            new([new("apart", Than.AtMost, "most")], Verdict.Good, $"The two within {MostBetween:0} rpm of each other", Source, "margin",
                "Even."),
            Uneven("left") with { When = [new("left", Than.Above, "right")] }, Uneven("right"),
        ]);

    private static JudgementRow Uneven(string more) => new([], Verdict.Reject, $"The two more than {MostBetween:0} rpm apart", Source,
        "margin", $"Look at the {more} magneto's timing, points and plugs: it drops more.");
}
