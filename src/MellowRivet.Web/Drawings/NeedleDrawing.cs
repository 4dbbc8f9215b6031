using System.Globalization;
using MellowRivet.Core.Compression;
using MellowRivet.Devices;
using MellowRivet.Devices.Practice;

namespace MellowRivet.Web.Drawings;

/// <summary>The tester's two gauges, and the second one's needle while it settled.</summary>
/// <param name="Supply">The regulated supply, psi.</param>
/// <param name="Held">What the second gauge came to, psi.</param>
/// <param name="Heard">Where air was heard.</param>
/// <param name="Trace">The needle's way in the first five seconds, as a line.</param>
public sealed record NeedleDrawing(double Supply, double Held, string Heard, string Trace)
{
    public const int TraceWidth = 240, TraceHeight = 90;

    private const double FullScale = 100;

    /// <summary>Draws a compression that was taken; null where the token is none.</summary>
    public static NeedleDrawing? Of(ICompressionTester tester, string token)
    {
        if (token.Split('-') is not ["c", var number, var warmth, var degrees, var rocked]
            || !int.TryParse(number, CultureInfo.InvariantCulture, out var cylinder))
            return null;
        var setUp = new CylinderSetUp(warmth == "hot", double.Parse(degrees, CultureInfo.InvariantCulture), rocked == "rocked");
        var way = PracticeReader.Settling(tester, cylinder, setUp);
        var trace = "M" + string.Join("L",
            way.Select((psi, tenth) =>
                FormattableString.Invariant(
                    $"{tenth * TraceWidth / 50.0:0.#} {TraceHeight - 6 - psi / FullScale * (TraceHeight - 12):0.#}")));
        return new(tester.Supply.Value, Math.Round(tester.Needle(cylinder, setUp, 8).Value), tester.Heard(cylinder, setUp).Heard(), trace);
    }

    /// <summary>A gauge's needle from its middle (70, 70), 54 long: 0 psi at seven o'clock, full scale at five.</summary>
    public static string Hand(double psi)
    {
        var (x, y) = Place(psi, 54);
        return FormattableString.Invariant($"M70 70L{x:0.#} {y:0.#}");
    }

    public static IEnumerable<(double X, double Y, string Text)> Figures =>
        Enumerable.Range(0, 6).Select(step => Place(step * 20, 44) is var (x, y) ? (x, y + 4, $"{step * 20}") : default);

    public static IEnumerable<string> Ticks =>
        Enumerable.Range(0, 21).Select(step => (Place(step * 5, 62), Place(step * 5, step % 4 == 0 ? 54 : 58)) is var ((x, y), (a, b))
            ? FormattableString.Invariant($"M{x:0.#} {y:0.#}L{a:0.#} {b:0.#}")
            : "");

    private static (double X, double Y) Place(double psi, double radius)
    {
        var angle = (Math.Clamp(psi, 0, FullScale) / FullScale * 300 - 150) * Math.PI / 180;
        return (70 + radius * Math.Sin(angle), 70 - radius * Math.Cos(angle));
    }
}
