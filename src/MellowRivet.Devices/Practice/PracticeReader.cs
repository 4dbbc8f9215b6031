using System.Globalization;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Devices.Practice;

/// <summary>
/// Takes readings off practice instruments by the tokens an address carries, so that nothing has to be kept: "c-3-hot-0-rocked" is a
/// compression, "p-2T" a plug, "f-1a+1b" a weighing, "t-elevator" a cable.
/// </summary>
public static class PracticeReader
{
    /// <summary>Most readings taken in one go.</summary>
    public const int Most = 60;

    /// <summary>The crank's places to choose from, ° past top dead centre.</summary>
    public static IReadOnlyList<int> CrankPlaces { get; } = [0, 8, 25];

    /// <summary>Reads one token; null where the set has no such thing.</summary>
    public static TakenReading? Take(PracticeSet set, string token)
    {
        var parts = token.Split('-', 2);
        return parts is not [var kind, { Length: > 0 } what] ? null : kind switch
        {
            "c" => Compression(set, token, what.Split('-')),
            "p" => Plug(set, token, what),
            "f" => Floats(set, token, what),
            "t" when set.Tensiometer is var (meter, cables)
                && cables.Contains(what) => new(token, $"{what}: {meter.Pounds(what):0} lb at {meter.Celsius:0} °C", meter.Pounds(what)),
            _ => null,
        };
    }

    private static TakenReading? Compression(PracticeSet set, string token, string[] parts)
    {
        if (set is not { Tester: { } tester, Layout: { } layout } || parts is not [var number, var warmth, var degrees, var rocked]
            || !int.TryParse(number, CultureInfo.InvariantCulture, out var cylinder)
            || layout.Cylinders.All(place => place.Number != cylinder)
            || !int.TryParse(degrees, CultureInfo.InvariantCulture, out var crank) || !CrankPlaces.Contains(crank)
            || warmth is not ("hot" or "cold") || rocked is not ("rocked" or "still"))
            return null;
        var setUp = new CylinderSetUp(warmth == "hot", crank, rocked == "rocked");
        var held = Math.Round(tester.Needle(cylinder, setUp, 8).Value);
        var words =
            $"cylinder {cylinder}, {warmth}{(crank == 0 ? "" : $", {crank}° past top dead centre")}{(setUp.Rocked ? ", rocked" : "")}: "
            + $"{held:0}/{tester.Supply}, {tester.Heard(cylinder, setUp).Heard()}";
        return new(token, words, held, tester.Swings(setUp)
            ? "Off top dead centre the air turns the propeller: it swung. Nobody in its arc, a firm hand on the blade, "
            + "and find top dead centre first."
            : null);
    }

    private static TakenReading? Plug(PracticeSet set, string token, string what) =>
        set.Plugs is var (tester, holes) && PlugHole.Parse(what) is { } hole && holes.Contains(hole)
            ? new(token,
                $"plug of {hole}: {(tester.Ohms(hole) is { } ohms ? $"{ohms:0} Ω" : "open circuit")}, gap "
                + $"{tester.GapInches(hole):0.0000} in")
            : null;

    private static TakenReading? Floats(PracticeSet set, string token, string what)
    {
        var names = what.Split('+', ' ');
        if (set.Scale is not var (scale, pairs) || names.Length > 2 || names.Distinct().Count() != names.Length
            || names.Any(name => pairs.All(pair => pair.One != name && pair.Other != name)))
            return null;
        var grams = scale.Grams(names);
        return new(token, $"{string.Join(" and ", names)}: {grams:0.0} g", grams);
    }

    /// <summary>The needle's way in the first seconds, psi at each tenth: what a settling gauge shows.</summary>
    public static IReadOnlyList<double> Settling(ICompressionTester tester, int cylinder, CylinderSetUp setUp) =>
        [.. Enumerable.Range(0, 51).Select(tenth => tester.Needle(cylinder, setUp, tenth / 10.0).Value)];
}
