using MellowRivet.Core.Measures;

namespace MellowRivet.Web.Drawings;

/// <summary>A measured value on the line of its limits: the good stretch drawn thick, the value as a mark on it.</summary>
public sealed record BandDrawing(ToleranceBand Band, double? Value)
{
    public const int Width = 240, Height = 34, Edge = 14;

    // The good stretch takes the middle half; what lies beyond is drawn at most a quarter out on either side.
    private const double From = Width * 0.25, To = Width * 0.75;

    public double GoodFrom => Band.Low is null ? Edge : From;
    public double GoodTo => Band.High is null ? Width - Edge : To;

    /// <summary>Where the value stands; null without one.</summary>
    public double? At => Value is { } value ? Math.Clamp(X(value), Edge, Width - Edge) : null;

    public double X(double value) => (Band.Low, Band.High) switch
    {
        ({ } low, { } high) when high > low => From + (value - low) / (high - low) * (To - From),
        ({ } low, null) when low != 0 => From + (value - low) / Math.Abs(low) * (To - From),
        (null, { } high) when high != 0 => To - (high - value) / Math.Abs(high) * (To - From),
        _ => Width / 2.0,
    };
}
