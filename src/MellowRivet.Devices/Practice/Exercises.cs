using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Devices.Practice;

/// <summary>The exercises, all our own, and free practice on an engine made by chance.</summary>
public static class Exercises
{
    private static readonly Psi Supply = new(80);

    private static readonly PracticeAnswer[] Verdicts =
    [
        new("good", "Good: nothing to do"), new("watch", "Watch: compare with its history, test again at the next service"),
        new("retest", "No verdict yet: run it warm and test again"), new("reject", "Comes off for inspection"),
    ];

    /// <summary>Every exercise, the easiest first.</summary>
    public static IReadOnlyList<Exercise> All { get; } = [BurntValve(), StuckRing(), ColdTrap(), MixedUpNumber(), HeavyFloat(),
        PlugSwap()];

    public static Exercise? Find(string? key) => All.FirstOrDefault(one => one.Key == key);

    /// <summary>An engine by chance, the same for the same seed: to read for as long as one likes.</summary>
    public static PracticeSet Free(int seed)
    {
        var chance = new Random(seed);
        var layout = new[] { EngineLayout.FlatFour, EngineLayout.FlatFourRear, EngineLayout.FlatSix }[chance.Next(3)];
        var paths = new[] { LeakPath.Rings, LeakPath.ExhaustValve, LeakPath.IntakeValve };
        var engine = layout.Cylinders.ToDictionary(place => place.Number,
            _ => new HiddenCylinder(0.3 + Math.Pow(chance.NextDouble(), 3) * 1.4, 0.7 + chance.NextDouble() * 0.9, paths[chance.Next(3)],
                0.75 + chance.NextDouble() * 0.25));
        var plugs = layout.Cylinders.SelectMany(place => new[]
            { new PlugHole(place.Number, PlugRow.Top), new PlugHole(place.Number, PlugRow.Bottom) })
            .ToDictionary(hole => hole,
                _ => new HiddenPlug(chance.Next(20) == 0
                    ? null
                    : 700 + Math.Pow(chance.NextDouble(), 4) * 9_000, 0.0155 + chance.NextDouble() * 0.008));
        var floats = new[] { "1a", "1b", "2a", "2b" }.ToDictionary(name => name, _ => 2.6 + chance.NextDouble() * 1.2);
        return new(layout, new SimulatedCompressionTester(engine, Supply, Psi.StandardAmbient),
            (new SimulatedPlugTester(plugs), [.. plugs.Keys]),
            (new SimulatedFloatScale(floats), [("1a", "1b"), ("2a", "2b")]),
            (new SimulatedTensiometer(new Dictionary<string, double>
                { ["aileron"] = 24 + chance.Next(20), ["elevator"] = 26 + chance.Next(20), ["rudder"] = 22 + chance.Next(20) },
                5 + chance.Next(25)), ["aileron", "elevator", "rudder"]));
    }

    private static (SimulatedCompressionTester Tester, Func<int, bool, bool, Judgement> Judge) Engine(EngineLayout layout,
        Dictionary<int, HiddenCylinder> weak)
    {
        var all = layout.Cylinders.ToDictionary(place => place.Number, place => weak.GetValueOrDefault(place.Number)
            ?? new HiddenCylinder(0.36 + place.Number * 0.02, 0.8, LeakPath.Rings, 0.95));
        var tester = new SimulatedCompressionTester(all, Supply, Psi.StandardAmbient);
        return (tester, (cylinder, hot, rocked) =>
        {
            var setUp = new CylinderSetUp(hot, 0, rocked);
            return CompressionJudge.Judge(CompressionLimits.SixtyOfEighty, new(Supply, Psi.StandardAmbient, hot),
                new(cylinder, new(Math.Round(tester.Needle(cylinder, setUp, 8).Value)), tester.Heard(cylinder, setUp), rocked)).Judgement;
        });
    }

    private static Exercise BurntValve()
    {
        var (tester, judge) = Engine(EngineLayout.FlatFour, new() { [2] = new(1.55, 1.8, LeakPath.ExhaustValve, 0.98) });
        return new("burnt-valve", "The one that whistles",
            "A flat four, run twenty minutes ago, oil at 72 °C. The pilot says that it idles a little rough. Limits: sixty of eighty.",
            "What do you say of the weakest cylinder?", new(EngineLayout.FlatFour, tester), Verdicts, "reject", () => judge(2, true, true),
            "Air at the exhaust pipe is the exhaust valve. Rocking the propeller seats rings, it doesn't mend a burnt valve: the second "
            + "try reads the same, and below 60 the cylinder comes off. A borescope shows the valve's edge before anything is unbolted.",
            [("c-1", "cylinder 1"), ("c-3", "cylinder 3"), ("c-4", "cylinder 4"), ("c-2-hot-0-still", "cylinder 2, hot"),
                ("c-2-hot-0-rocked", "a second try of cylinder 2, rocked")]);
    }

    private static Exercise StuckRing()
    {
        var (tester, judge) = Engine(EngineLayout.FlatFour, new() { [3] = new(1.12, 1.5, LeakPath.Rings, 0.72) });
        return new("stuck-ring", "Below sixty at the first try",
            "The same shop, another flat four, warm. It stood for seven weeks before it was flown today. Limits: sixty of eighty.",
            "What do you say of cylinder 3?", new(EngineLayout.FlatFour, tester), Verdicts, "watch", () => judge(3, true, true),
            "At the oil filler it is the rings. After weeks of standing a ring sits in gum; rocked through top dead centre it seats and "
            + "the second try stands above 60. Below 70 it is watched: fly it ten hours and test again.",
            [("c-3-hot-0-still", "cylinder 3, hot"), ("c-3-hot-0-rocked", "a second try of cylinder 3, rocked")]);
    }

    private static Exercise ColdTrap()
    {
        var (tester, judge) = Engine(EngineLayout.FlatFour,
            new() { [1] = new(0.52, 1.25, LeakPath.Rings, 0.98), [4] = new(0.5, 1.2, LeakPath.Rings, 0.95) });
        return new("cold-engine", "A winter morning",
            "The aircraft was rolled in at eight and hasn't run since Sunday. The owner wants the numbers before lunch. You may test "
            + "cold; the engine may also be run first. Limits: sixty of eighty.",
            "You tested cold and read 54 at cylinder 1. What do you say of it?", new(EngineLayout.FlatFour, tester), Verdicts, "retest",
            () => judge(1, false, true),
            "Low on a cold engine is no verdict, however often it is tried. Hot, the same cylinder holds well over 70: a good "
            + "cylinder was nearly taken off.",
            [("c-1-cold", "cylinder 1, cold"), ("c-1-hot", "cylinder 1, hot")]);
    }

    private static Exercise MixedUpNumber()
    {
        var layout = EngineLayout.FlatFourRear;
        var (tester, judge) = Engine(layout, new() { [3] = new(1.4, 1.6, LeakPath.IntakeValve, 0.97) });
        return new("wrong-number", "Front right",
            "Yesterday a colleague found the front right cylinder weak and wrote “no. 1” on the door, as on the engine he knows. Look at "
            + "the drawing of this engine: which end is the front, and who is number 1?",
            "Which number goes on the fix list?", new(layout, tester),
            [.. layout.Cylinders.Select(place => new PracticeAnswer($"{place.Number}", $"Cylinder {place.Number}"))], "3",
            () => judge(3, true, true),
            "On this engine number 1 stands rear right. Front right is number 3: test it, and number 1, before a sound cylinder is "
            + "pulled. The numbers of this engine stand on its drawing, and cast into its case.",
            [("c-1-hot", "cylinder 1"), ("c-3-hot", "cylinder 3")]);
    }

    private static Exercise HeavyFloat()
    {
        var floats = new Dictionary<string, double> { ["1a"] = 2.81, ["1b"] = 2.78, ["2a"] = 3.54, ["2b"] = 3.54 };
        var scale = new SimulatedFloatScale(floats);
        return new("heavy-float", "Seven grams, or not",
            "Fuel in the drip tray of a twin-carburettor engine. Two pairs of floats lie wiped dry beside a scale that shows tenths. "
            + "A pair weighs at most 7.0 g.",
            "What do you say of pair 2?", new(Scale: (scale, [("1a", "1b"), ("2a", "2b")])),
            [new("good", "Good: 3.5 and 3.5 is 7.0"), new("retest", "Weigh again: the scale contradicts itself"),
                new("reject", "Replace both")], "reject",
            () => FloatJudge.Judge(new(scale.Grams("2a"), scale.Grams("2b"), scale.Grams("2a", "2b")), FloatJudge.LimitGrams,
                scale.ResolutionGrams),
            "Each float shows 3.5 because the scale rounds 3.54 down. Weighed together they show 7.1: rounding explains a tenth, so it "
            + "is no contradiction, and together is the truer weighing. Above 7.0 g the pair has drunk fuel.",
            [("f-2a", "a float of pair 2"), ("f-2a+2b", "pair 2 together")]);
    }

    private static Exercise PlugSwap()
    {
        PlugHole top = new(2, PlugRow.Top), bottom = new(2, PlugRow.Bottom);
        var plugs = new Dictionary<PlugHole, HiddenPlug>
            { [new(1, PlugRow.Top)] = new(1_180, 0.0350), [new(1, PlugRow.Bottom)] = new(1_420, 0.0170), [top] = new(1_360, 0.0165),
                [bottom] = new(1_090, 0.0355) };
        return new("plug-swap", "They look alike",
            "An amateur-built with electronic ignition above and a magneto below. A helper has cleaned the plugs of cylinders 1 and "
            + "2 and laid them out by hole.",
            "What do you say of the plugs of cylinder 2?", new(Plugs: (new SimulatedPlugTester(plugs), [.. plugs.Keys])),
            [new("good", "Good: both measure well"), new("gap", "Set both gaps to 0.018 in"),
                new("swapped", "They lie in each other's place: each goes back to its own row, type checked")], "swapped",
            () =>
                Judgement.Worst([PlugJudge.Gap(PlugLimits.HighEnergy, plugs[top].GapInches),
                    PlugJudge.Gap(PlugLimits.Magneto, plugs[bottom].GapInches)]),
            $"A gap of 0.0165 in is a magneto's plug in the electronic row, 0.0355 in an electronic plug in the magneto's. Setting "
            + $"gaps would hide it: read the type on the plug. {PlugRotation.Placard}",
            [("p-2T", "the plug of 2T"), ("p-2B", "the plug of 2B"), ("p-1T", "one of cylinder 1 to compare")]);
    }
}
