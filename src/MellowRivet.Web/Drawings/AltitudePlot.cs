using MellowRivet.Core.EngineRun;

namespace MellowRivet.Web.Drawings;

/// <summary>The gain at one altitude.</summary>
public sealed record AltitudeGain(double Feet, Within Gain);

/// <summary>Oil pressure against altitude before and after a change: points, lines, and the gain.</summary>
public sealed class AltitudePlot
{
    public const int Width = 620, Height = 330, Left = 44, Right = 14, Top = 12, Bottom = 34;

    private readonly double most, least, high;

    public AltitudePlot(IReadOnlyList<AltitudePoint> before, IReadOnlyList<AltitudePoint> after)
    {
        var all = before.Concat(after).ToList();
        most = all.Count == 0 ? 10_000 : Math.Max(1_000, all.Max(point => point.Feet) * 1.05);
        (least, high) = all.Count == 0 ? (0, 100) : (all.Min(point => point.Psi) - 4, all.Max(point => point.Psi) + 4);
        BeforePoints = [.. before.Select(Point)];
        AfterPoints = [.. after.Select(Point)];
        (BeforeFit, AfterFit) = (AltitudeFit.Fit(before), AltitudeFit.Fit(after));
        Comparison = AltitudeComparison.Of(before, after);
        BeforeLine = Line(BeforeFit);
        AfterLine = Line(AfterFit);
        FeetTicks = [.. PlotAxis.Ticks(0, most, 6).Select(feet => new PlotTick(X(feet), $"{feet:0}"))];
        PsiTicks = [.. PlotAxis.Ticks(least, high, 5).Select(psi => new PlotTick(Y(psi), $"{psi:0.#}"))];
        Gains = BeforeFit is { } one && AfterFit is { } other
            ? [.. PlotAxis.Ticks(0, most, 6).Select(feet => new AltitudeGain(feet, AltitudeFit.Gain(one, other, feet)))]
            : [];
    }

    /// <summary>What the change did, from whatever was read.</summary>
    public AltitudeComparison Comparison { get; }
    public AltitudeFit? BeforeFit { get; }
    public AltitudeFit? AfterFit { get; }
    public IReadOnlyList<(double X, double Y)> BeforePoints { get; }
    public IReadOnlyList<(double X, double Y)> AfterPoints { get; }
    public string? BeforeLine { get; }
    public string? AfterLine { get; }
    public IReadOnlyList<PlotTick> FeetTicks { get; }
    public IReadOnlyList<PlotTick> PsiTicks { get; }
    public IReadOnlyList<AltitudeGain> Gains { get; }

    private (double X, double Y) Point(AltitudePoint point) => (X(point.Feet), Y(point.Psi));

    private string? Line(AltitudeFit? fit) =>
        fit is null ? null : FormattableString.Invariant($"M{X(0):0.#} {Y(fit.At(0).Psi):0.#}L{X(most):0.#} {Y(fit.At(most).Psi):0.#}");

    private double X(double feet) => Left + Math.Max(0, feet) / most * (Width - Left - Right);

    private double Y(double psi) => Height - Bottom - Math.Clamp((psi - least) / (high - least), 0, 1) * (Height - Top - Bottom);
}
