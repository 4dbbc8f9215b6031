using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Compression;

/// <summary>The schools of judging a compression.</summary>
public enum CompressionSchool { SixtyOfEighty = 1, OrificeOfTheDay, QuarterDrop }

/// <summary>
/// A limit set: for the conditions of a test it gives the floor below which a cylinder is rejected and the level
/// below which it is watched. All three schools are this one shape with their own numbers.
/// </summary>
public sealed record CompressionLimits
{
    private CompressionLimits() { }

    public required CompressionSchool School { get; init; }

    /// <summary>The name the interface shows.</summary>
    public required string Name { get; init; }

    /// <summary>The school in a sentence.</summary>
    public required string InWords { get; init; }

    /// <summary>Where the floor comes from.</summary>
    public required RuleSource RejectSource { get; init; }

    /// <summary>
    /// Where the floor of one test comes from: a published 60/80 carried over to another supply is common practice, no rule.
    /// </summary>
    public RuleSource SourceFor(TestConditions conditions) => IsCarriedOver(conditions)
        ? new(Standing.Practice, $"{RejectSource.Text}, carried over by equal leak area; common practice")
        : RejectSource;

    /// <summary>Where the watch level comes from.</summary>
    public RuleSource WatchSource { get; init; } = Practice;

    /// <summary>True where a first low hot reading asks for a second try before it is a rejection.</summary>
    public bool SecondTryBeforeReject { get; init; }

    /// <summary>
    /// Spread between best and worst cylinder, psi, from which the engine is watched; null where the school doesn't judge it.
    /// </summary>
    public double? SpreadWatch { get; init; }

    /// <summary>Spread, psi, from which the cause is looked for.</summary>
    public double? SpreadInvestigate { get; init; }

    /// <summary>The floor for one test; null where the test lacks what it takes to know.</summary>
    public required Func<TestConditions, Psi?> RejectBelow { get; init; }

    /// <summary>The first reading that is good, or with <see cref="WatchIncludesLevel"/> the last that isn't.</summary>
    public required Func<Psi, TestConditions, Leaks, Psi> WatchLevel { get; init; }

    /// <summary>True where a reading exactly at the watch level is still watched.</summary>
    public bool WatchIncludesLevel { get; init; }

    private static RuleSource Practice { get; } = new(Standing.Practice, "common practice");

    /// <summary>
    /// Below 60/80 hot, after a second try, the cylinder comes off; 60 to 69 is watched. At another supply than
    /// 80 psi the two levels are carried over by equal leak area.
    /// </summary>
    public static CompressionLimits SixtyOfEighty { get; } = new()
    {
        School = CompressionSchool.SixtyOfEighty,
        Name = "Sixty of eighty",
        InWords =
            "Below 60/80 hot after a second try the cylinder comes off for inspection; 60 to 69 is watched; a spread of 10 psi is "
            + "watched, of 15 investigated.",
        RejectSource = new(Standing.Law, "AC 43.13-1B chapter 8, from memory"),
        SecondTryBeforeReject = true,
        SpreadWatch = 10,
        SpreadInvestigate = 15,
        RejectBelow = conditions => CarriedOver(60, conditions),
        WatchLevel = (_, conditions, _) => CarriedOver(70, conditions),
    };

    /// <summary>
    /// The master orifice read with the same tester on the same day is the floor; up to 5 psi above it is watched,
    /// up to 10 where the leak is at a valve, since a valve gets worse faster than rings.
    /// </summary>
    public static CompressionLimits OrificeOfTheDay { get; } = new()
    {
        School = CompressionSchool.OrificeOfTheDay,
        Name = "Orifice of the day",
        InWords = "The tester's master orifice, read today, is the floor; up to 5 psi above it is watched, up to 10 where a valve leaks.",
        RejectSource = Practice,
        RejectBelow = conditions => conditions.DayOrifice,
        WatchLevel = (floor, _, leak) => new Psi(floor.Value + (leak.AtValve ? 10 : 5)),
        WatchIncludesLevel = true,
    };

    /// <summary>A loss above 25 % of the supply is a rejection, above 15 % is watched.</summary>
    public static CompressionLimits QuarterDrop { get; } = new()
    {
        School = CompressionSchool.QuarterDrop,
        Name = "Quarter drop",
        InWords = "A loss above 25 % of the supply is a rejection; above 15 % is watched.",
        RejectSource = Practice,
        RejectBelow = conditions => new Psi(conditions.Supply.Value * 3 / 4),
        WatchLevel = (_, conditions, _) => new Psi(conditions.Supply.Value * 17 / 20),
    };

    /// <summary>Every school, in the order the interface lists them.</summary>
    public static IReadOnlyList<CompressionLimits> All { get; } = [SixtyOfEighty, OrificeOfTheDay, QuarterDrop];

    public static CompressionLimits Of(CompressionSchool school) => All.Single(limits => limits.School == school);

    /// <summary>The same school with the engine manual's own floor.</summary>
    /// <param name="rejectBelow">The manual's lowest good reading, psi gauge, at the supply the manual tests with.</param>
    /// <param name="reference">Where the manual says so.</param>
    public CompressionLimits WithManualFloor(Psi rejectBelow, string reference) => this with
    {
        RejectBelow = _ => rejectBelow,
        RejectSource = new(Standing.Manual, reference),
    };

    /// <summary>The floor is what the tester read today, and no number that stands.</summary>
    internal bool FloorIsRead => School == CompressionSchool.OrificeOfTheDay && RejectSource.Standing != Standing.Manual;

    /// <summary>How the floor of a test reads in a rule: "60/80".</summary>
    public string FloorInWords(Psi floor, TestConditions conditions) =>
        JudgementTable.Filled(FloorByName(conditions), new() { ["floor"] = floor.Value });

    /// <summary>The same with the floor's number by its name in a table.</summary>
    internal string FloorByName(TestConditions conditions) => School switch
    {
        CompressionSchool.OrificeOfTheDay when FloorIsRead => $"the day's orifice, {{floor:0.##}}/{conditions.Supply}",
        CompressionSchool.QuarterDrop when RejectSource.Standing != Standing.Manual =>
            $"a quarter of the supply lost, {{floor:0.##}}/{conditions.Supply}",
        CompressionSchool.SixtyOfEighty when IsCarriedOver(conditions)
            => $"60/80 carried over by leak area, {{floor:0.0}}/{conditions.Supply}",
        _ => $"{{floor:0.##}}/{conditions.Supply}",
    };

    private bool IsCarriedOver(TestConditions conditions) =>
        School == CompressionSchool.SixtyOfEighty && RejectSource.Standing != Standing.Manual && conditions.Supply.Value != 80;

    private static Psi CarriedOver(double atEighty, TestConditions conditions) => conditions.Supply.Value == 80
        ? new Psi(atEighty)
        : LeakArea.ReadingFor(LeakArea.MultipleOfMaster(new Psi(atEighty), new Psi(80), conditions.Ambient), conditions.Supply,
            conditions.Ambient);
}
