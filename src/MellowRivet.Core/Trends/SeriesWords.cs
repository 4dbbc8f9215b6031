using System.Globalization;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Trends;

/// <summary>How a last reading differs from what those before it led to expect.</summary>
public enum Surprise { Worse = 1, Better, Higher, Lower }

/// <summary>Trends in the words and units that people at an aircraft use.</summary>
public static class SeriesWords
{
    private const double ThouPerInch = 1_000;

    /// <summary>How fast a series changes: "loses 1.2 psi in 100 h (leak area +0.05)", "opens 0.6 thou in 100 h".</summary>
    /// <returns>The words; null where there is no line.</returns>
    public static string? Change(SeriesGroup group, Series series)
    {
        if (series.Trend.Line is not { } line)
            return null;
        var per = line.Slope * 100;
        if (group.Kind == Reading.CompressionKind)
            return Psi(line.At(series.Points[^1].Hours), per) is var psi && Math.Abs(psi) < 0.05
                ? "holds steady"
                : $"{(psi < 0 ? "loses" : "gains")} {Figure(Math.Abs(psi))} psi in 100 h (leak area {per.ToString("+0.00;-0.00;0.00",
                    CultureInfo.InvariantCulture)})";
        var (size, unit) = group.Unit switch
        {
            "in" => (per * ThouPerInch, "thou"),
            "h/l" => (per, "hours a litre"),
            var other => (per, other),
        };
        return Figure(Math.Abs(size)) is "0" ? "holds steady"
            : $"{(size < 0 ? "falls" : "rises")} {Figure(Math.Abs(size))} {unit} in 100 h";
    }

    /// <summary>How the last reading differs from what was expected of it; null where it doesn't.</summary>
    public static string? InWords(this Surprise? surprise, Direction? worse) => surprise switch
    {
        Surprise.Worse => worse == Direction.Falling ? "lower than its readings led to expect" : "higher than its readings led to expect",
        Surprise.Better => worse == Direction.Falling ? "higher than expected, which is better" : "lower than expected, which is better",
        Surprise.Higher => "higher than its readings led to expect",
        Surprise.Lower => "lower than its readings led to expect",
        _ => null,
    };

    /// <summary>What a change of the leak area comes to on the gauge, psi, at the usual supply and at sea level.</summary>
    /// <param name="area">The leak area now, × master orifice.</param>
    /// <param name="change">Its change.</param>
    public static double Psi(double area, double change)
    {
        double Held(double at) => LeakArea.ReadingFor(Math.Max(0.001, at), TestConditions.Usual.Supply, TestConditions.Usual.Ambient).Value;
        return Held(area + change) - Held(area);
    }

    // Two figures say all that a line through a few readings knows.
    private static string Figure(double value)
    {
        if (value == 0)
            return "0";
        var digits = Math.Clamp(1 - (int)Math.Floor(Math.Log10(value)), 0, 4);
        return Math.Round(value, digits).ToString("0.####", CultureInfo.InvariantCulture);
    }
}
