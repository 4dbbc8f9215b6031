namespace MellowRivet.Core.Fleet;

/// <summary>What an aircraft has two of: named by its side, limited by one figure of the manual.</summary>
public static class Sides
{
    private static readonly string[] Endings = ["-left", "-right", "-nose"];

    /// <summary>What a measurement is called without its side: "brake-pad" of "brake-pad-left"; itself where it has none.</summary>
    public static string BothOf(string measure) =>
        Endings.FirstOrDefault(ending => measure.EndsWith(ending, StringComparison.Ordinal)) is { } ending
            ? measure[..^ending.Length]
            : measure;
}
