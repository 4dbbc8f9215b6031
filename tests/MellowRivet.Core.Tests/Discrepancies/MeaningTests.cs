using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Tests.Discrepancies;

/// <summary>Guesses by meaning: what part, what fault, how much.</summary>
public class MeaningTests
{
    private static IReadOnlyList<(DiscrepancyClass Class, string Words)> Cases(string file) =>
        [.. File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "Data", file)).Where(line => line.Length > 0 && line[0] != '#')
            .Select(line => line.Split('\t')).Select(cells => (Enum.Parse<DiscrepancyClass>(cells[0], ignoreCase: true), cells[1]))];

    // The shared cases (../shared/data/findings.tsv) and our own hundred and more; classes by common practice. A guess too low is unsafe;
    // of the rest at most a third may be guessed higher.
    [Theory]
    [InlineData("findings-shared.tsv", 60)]
    [InlineData("findings-own.tsv", 100)]
    public void Nothing_of_airworthiness_is_guessed_lower_and_not_everything_is_airworthiness(string file, int atLeast)
    {
        var guesses = Cases(file).Select(one => (one.Class, one.Words, Guess: Fixture.Classes.Guess(one.Words, null))).ToList();
        guesses.Count(one => one.Class == DiscrepancyClass.Airworthiness).ShouldBeGreaterThanOrEqualTo(atLeast);
        guesses.Where(one => one.Class == DiscrepancyClass.Airworthiness && one.Guess.Class != one.Class)
            .Select(one => $"{one.Words}: {one.Guess.Class}, {one.Guess.Why}").ShouldBeEmpty();
        var others = guesses.Where(one => one.Class != DiscrepancyClass.Airworthiness).ToList();
        others.Count(one => one.Guess.Class < one.Class)
            .ShouldBeLessThanOrEqualTo(others.Count / 3,
                string.Join(" | ", others.Where(one => one.Guess.Class < one.Class).Select(one => one.Words)));
    }

    private static readonly string[] Parts =
    [
        "aileron hinge", "elevator cable", "rudder pedal", "trim tab rod", "flap track", "aileron pushrod", "bellcrank", "control column",
        "wing spar", "spar cap", "wing rib", "longeron", "engine mount", "attach fitting", "fuselage skin", "tail post", "leading edge",
        "propeller blade", "prop hub", "propeller edge", "governor", "cylinder 3", "crankcase", "exhaust valve", "left magneto",
        "carburettor flange", "oil filter", "piston", "camshaft",
        "fuel line", "tank vent", "gascolator", "fuel selector", "brake pad", "caliper seal", "brake disc", "master cylinder",
        "shoulder harness", "seat belt", "belt buckle", "seat rail", "seat pin",
    ];

    private static readonly string[] Faults =
        ["nick", "crack", "cracked", "missing", "loose", "worn", "chafed", "leaks", "weeps", "corroded", "surface rust", "bent", "torn",
            "seized", "hardened", "blocked", "scratched", "faded", "chipped", "yellowed", "stained", "damp with oil", "does not work",
            "dead", "dented", "full of mud", "crazed"];

    private static readonly string[] Decoys = ["", "paint", "carpet", "label", "by the fairing", "lens", "map light", "oil film",
        "cosmetic", "near the drain hole", "a mouse nest", "no crack elsewhere", "tyre even", "wipes off", "day VFR only"];

    // Line 2 of the issue: a part of controls, structure, propeller, engine inside, fuel, brakes or restraint named with a fault is never
    // guessed lower, unless the words say small and within limits.
    [Fact]
    public void A_part_that_matters_named_with_a_fault_is_never_guessed_below_airworthiness() => Prop.ForAll(
        Arb.From(from part in Gen.Elements(Parts)
                 from fault in Gen.Elements(Faults)
                 from decoy in Gen.Elements(Decoys)
                 from amount in Gen.Elements("", "small ", "slight ", "light ", "minor ")
                 from shape in Gen.Choose(0, 4)
                 from within in Gen.Elements("", ", within limits", ", not within limits")
                 select (Words: shape switch
                 {
                     0 => $"{part} {fault} {decoy}",
                     1 => $"{amount}{fault} in the {part}, {decoy}",
                     2 => $"{decoy} {part} {amount}{fault}",
                     3 => $"{amount}{fault} at the left {part.ToUpperInvariant()} {decoy}",
                     _ => $"{decoy} and {part}: {fault}",
                 } + within, Small: amount.Length > 0 && shape is 1 or 2 or 3 && within == ", within limits")),
        given => given.Small || Fixture.Classes.Guess(given.Words, null).Class == DiscrepancyClass.Airworthiness)
        .Check(Config.QuickThrowOnFailure.WithMaxTest(1_000));

    [Theory]
    [InlineData("slight play in the elevator hinge, inside limits", DiscrepancyClass.Watch)]
    [InlineData("small nick in the blade, dressed, within the manual's limits", DiscrepancyClass.Watch)]
    [InlineData("slight play in the elevator hinge", DiscrepancyClass.Airworthiness)]
    [InlineData("play in the elevator hinge, inside limits", DiscrepancyClass.Airworthiness)]
    [InlineData("slight play in the elevator hinge, not within limits", DiscrepancyClass.Airworthiness)]
    [InlineData("slight play in the elevator hinge, barely within limits", DiscrepancyClass.Airworthiness)]
    [InlineData("small crack in the rib, within limits", DiscrepancyClass.Airworthiness)]
    public void Small_and_within_limits_says_less_and_neither_alone_does(string words, DiscrepancyClass expected) =>
        Fixture.Classes.Guess(words, null).Class.ShouldBe(expected);

    [Theory]
    [InlineData("Scratch on the case, dye penetrant shows no crack", DiscrepancyClass.KnownMark)]
    [InlineData("Crack in the rib grew past last year's mark, dye penetrant, no indication beyond", DiscrepancyClass.Airworthiness)]
    [InlineData("Mark at the lug, eddy current tested benign, bolt loose", DiscrepancyClass.Airworthiness)]
    public void Tested_and_benign_is_a_known_mark_only_where_nothing_is_cracked_or_broken(string words, DiscrepancyClass expected) =>
        Fixture.Classes.Guess(words, null).Class.ShouldBe(expected);

    [Fact]
    public void The_zone_says_what_part_where_the_words_name_none()
    {
        Fixture.Classes.Guess("worn, play felt", null, "Flight controls: aileron").Speaks.ShouldBe("A fault of the flight controls");
        Fixture.Classes.Guess("carpet torn", null, "Cabin, brakes and fuel selector").Class.ShouldBe(DiscrepancyClass.Recommended,
            "the words say what it is");
    }

    [Fact]
    public void What_is_never_deferred_is_not_guessed_deferrable_and_setting_a_part_that_matters_lower_takes_a_reason()
    {
        Fixture.Classes.Guess("second radio leaks and does not work", null).Class.ShouldBe(DiscrepancyClass.Airworthiness);
        Fixture.Classes.Decide("elevator pushrod scuffed and worn", null, null, null,
            new(DiscrepancyClass.Watch, false, Fixture.Ines, Fixture.Now)).Refusal!.Message.ShouldContain("A fault of the flight controls");
    }

    [Theory]
    [InlineData(Verdict.Reject, DiscrepancyClass.Airworthiness)]
    [InlineData(Verdict.Retest, DiscrepancyClass.Airworthiness)]
    [InlineData(Verdict.Unknown, DiscrepancyClass.Airworthiness)]
    [InlineData(Verdict.Watch, DiscrepancyClass.Watch)]
    [InlineData(Verdict.Good, DiscrepancyClass.KnownMark)]
    public void What_was_measured_is_classed_by_its_judgement_and_not_by_words(Verdict verdict, DiscrepancyClass expected) =>
        Fixture.Classes.Guess("carpet torn", null)
            .Measured(new(verdict, "the rule", new(Standing.Manual, "p. 1"), null, "next")).Class.ShouldBe(expected);

    [Theory]
    [InlineData("""
        {"groups":[{"key":"a","title":"A","ground":false,"words":[],"means":"m","next":[],"source":{"standing":"practice","text":"t"}}],
        "aside":[],"faults":[],"small":[],"within":[],"grave":[]}
        """)]
    [InlineData("""{"groups":[]}""")]
    [InlineData("nonsense")]
    public void A_list_of_parts_that_does_not_hold_together_is_refused(string json) =>
        Should.Throw<FormatException>(() => Meaning.Parse(json));
}
