namespace MellowRivet.Web.Pages.Bench;

/// <summary>A sheet of the bench and its place in the list.</summary>
public sealed record Calculator(string Href, string Title, string Says)
{
    public static IReadOnlyList<Calculator> All { get; } =
    [
        new("/bench/compression", "Compression", "Differential compression by three schools, with the leak area"),
        new("/bench/plug", "Plug", "Resistance, gap and condition of one plug"),
        new("/bench/plug-rotation", "Plug rotation", "Where each plug goes, so that row and polarity change"),
        new("/bench/magneto", "Magneto", "The six values of the 500-hour sheet"),
        new("/bench/floats", "Floats", "Carburettor floats by pair, with the re-weigh question"),
        new("/bench/torque", "Torque", "Wrench setting with an extension, misprints, standard torques"),
        new("/bench/cable", "Cable tension", "Tension by the manual's table of temperatures"),
        new("/bench/convert", "Conversions", "Between the units of the shop, exactly"),
        new("/bench/practice", "Practice", "Simulated instruments and exercises: take the readings, say the verdict, be told why"),
    ];
}
