using System.Text.Json;
using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Bulletins;

namespace MellowRivet.Core.Tests.Bulletins;

public class RuleTests
{
    private static Condition Fixed(RuleAnswer answer, string name = "x") =>
        new Condition($"aircraft.mark.{name}{answer}", new IsOneOf([YesNo.Yes]));

    // Facts that make each fixed condition what its name says.
    private sealed class Named : IFacts
    {
        public Fact Of(string name) =>
            name.EndsWith(nameof(RuleAnswer.Applies), StringComparison.Ordinal)
                ? Fact.Known(YesNo.Yes)
                : name.EndsWith(nameof(RuleAnswer.DoesNotApply), StringComparison.Ordinal) ? Fact.Known(YesNo.No) : Fact.Unknown;
    }

    // Kleene's strong three-valued logic (published in his Introduction to Metamathematics, § 64, from memory): and is the lesser, or
    // the greater, not the opposite.
    [Fact]
    public void And_or_and_not_follow_the_tables_of_three_valued_logic()
    {
        foreach (var one in Enum.GetValues<RuleAnswer>())
        {
            new Not(Fixed(one)).Of(new Named()).Answer.ShouldBe((RuleAnswer)(4 - (int)one));
            foreach (var other in Enum.GetValues<RuleAnswer>())
            {
                new All([Fixed(one), Fixed(other, "y")]).Of(new Named()).Answer.ShouldBe((RuleAnswer)Math.Min((int)one, (int)other),
                    $"{one} and {other}");
                new Any([Fixed(one), Fixed(other, "y")]).Of(new Named()).Answer.ShouldBe((RuleAnswer)Math.Max((int)one, (int)other),
                    $"{one} or {other}");
            }
        }
        new All([]).Of(new Named()).Answer.ShouldBe(RuleAnswer.Applies);
        new Any([]).Of(new Named()).Answer.ShouldBe(RuleAnswer.DoesNotApply);
    }

    private static readonly Gen<Rule> AnyRule = Gen.Sized(size => Sized(Math.Min(size, 12)));

    private static Gen<Rule> Sized(int size)
    {
        var leaf = Gen.OneOf(
            Gen.Elements("engine.serial", "aircraft.serial", "engine.crankshaft.serial")
                .SelectMany(fact => Gen.Elements("E-1 to E-9", "B-series all", "up to C-20 except C-3")
                    .Select(list => (Rule)new Condition(fact, new IsInSerials(SerialRanges.Read(list).Ranges!)))),
            Gen.Elements("aircraft.model", "engine.certified")
                .SelectMany(fact => Gen.Elements<IReadOnlyList<string>>(["yes"], ["Corrin 6", "Corrin 8"])
                    .Select(words => (Rule)new Condition(fact, new IsOneOf(words)))),
            Gen.Choose(0, 5_000)
                .Select(hours => (Rule)new Condition("aircraft.hours", new IsBetween(hours, hours % 2 == 0 ? hours + 10.5m : null))),
            Gen.Choose(0, 9_000)
                .Select(days => (Rule)new Condition("aircraft.made",
                    new IsDated(days % 3 == 0 ? null : new DateOnly(2000, 1, 1).AddDays(days), new DateOnly(2030, 1, 1)))));
        if (size <= 1)
            return leaf;
        var parts = Gen.Choose(2, 3).SelectMany(count => Gen.ListOf(Sized(size / 3), count));
        return Gen.OneOf(leaf, parts.Select(list => (Rule)new All([.. list])), parts.Select(list => (Rule)new Any([.. list])),
            Sized(size / 2).Select(part => (Rule)new Not(part)));
    }

    // A fact that is learnt may settle what was open; it never turns what was settled.
    [Fact]
    public void Learning_a_fact_never_turns_a_settled_answer() => Prop.ForAll(AnyRule.ToArbitrary(), Gen.Choose(0, 1_000_000)
        .ToArbitrary(), (rule, seed) =>
    {
        string[] serials = ["E-5", "B-2", "C-3", "F-1"], words = ["yes", "Corrin 6", "Other"];
        string Value(string name) =>
            name switch { "aircraft.hours" => $"{seed % 5_000}", "aircraft.made" =>
                $"{new DateOnly(2000, 1, 1).AddDays(seed % 9_000):yyyy-MM-dd}", _ when name.EndsWith("serial", StringComparison.Ordinal) =>
                    serials[seed % 4], _ => words[seed % 3] };
        var names = rule.Conditions.Select(condition => condition.Fact).Distinct().ToList();
        Dictionary<string, string?> known = [];
        var before = rule.Of(new GivenFacts(known)).Answer;
        foreach (var name in names)
        {
            known[name] = Value(name);
            var now = rule.Of(new GivenFacts(new Dictionary<string, string?>(known)));
            if (before != RuleAnswer.CannotTell && now.Answer != before)
                return false;
            if (now.Answer == RuleAnswer.CannotTell != (now.Missing.Count > 0) || now.Missing.Any(known.ContainsKey))
                return false;
            before = now.Answer;
        }
        return before != RuleAnswer.CannotTell;
    }).QuickCheckThrowOnFailure();

    [Fact]
    public void A_rule_is_the_same_after_its_text_and_its_json() => Prop.ForAll(AnyRule.ToArbitrary(), rule =>
    {
        var options = new JsonSerializerOptions { Converters = { new RuleJson() } };
        return RuleText.Read(RuleText.Write(rule)) is { Rule: { } text } && text.Equals(rule)
            && JsonSerializer.Deserialize<Rule>(JsonSerializer.Serialize(rule, options), options)!.Equals(rule);
    }).QuickCheckThrowOnFailure();

    [Fact]
    public void Only_the_facts_that_could_still_turn_it_are_missing()
    {
        var rule = RuleText.Read("""
            aircraft.model is Corrin 6
            any of:
              engine.crankshaft.serial in TK-1 to TK-9
              all of:
                engine.serial in E-1 to E-9
                engine.modification.M-1 is no
            """).Rule!;
        var open =
            rule.Of(new GivenFacts(new Dictionary<string, string?> { ["aircraft.model"] = "corrin  6", ["engine.serial"] = "E-20" }));
        (open.Answer, open.Missing.Single()).ShouldBe((RuleAnswer.CannotTell, "engine.crankshaft.serial"));
        rule.Of(new GivenFacts(new Dictionary<string, string?> { ["aircraft.model"] = "Corrin 4" })).Answer.ShouldBe(
            RuleAnswer.DoesNotApply);
        var yes =
            rule.Of(new GivenFacts(new Dictionary<string, string?>
                { ["aircraft.model"] = "Corrin 6", ["engine.crankshaft.serial"] = "TK-4" }));
        yes.Because.ShouldBe(["aircraft.model Corrin 6 is on the list", "engine.crankshaft.serial TK-4 lies in TK-1 to TK-9"]);
    }

    [Theory]
    [InlineData("engine.serial in E-9 to E-1", "Line 1: “E-9 to E-1” runs backwards")]
    [InlineData("any of:", "opens a group with nothing in it")]
    [InlineData("engine.serial is A\n   engine.model is B", "Line 2 is further in")]
    [InlineData("engine.colour is red", "“engine.colour” is no fact")]
    [InlineData("engine.serial", "a fact, then is, in")]
    [InlineData("aircraft.hours at least 500 below 400", "leave nothing")]
    [InlineData("aircraft.made from 2005-01-01 until 2004-01-01", "runs backwards")]
    [InlineData("aircraft.made from yesterday", "no day as")]
    public void A_line_that_cannot_be_read_is_named(string text, string why) => RuleText.Read(text).Fault!.ShouldContain(why);

    [Theory]
    [InlineData("""{ "fact": "engine.serial", "in": "E-1", "is": "E-2" }""", "one test is wanted")]
    [InlineData("""{ "fact": "engine.serial", "like": "E-1" }""", "“like” is not known")]
    // What the rule's own text could not carry would change its meaning when somebody edits it.
    [InlineData("""{ "fact": "aircraft.model", "is": "A; B" }""", "without semicolons")]
    [InlineData("""{ "fact": "aircraft.model", "is": "A\nB" }""", "without semicolons")]
    [InlineData("""{ "fact": "engine.mark.already in hand", "is": true }""", "is no fact")]
    [InlineData("""{ "all": {} }""", "a list is wanted")]
    [InlineData("""{ "all": [], "any": [] }""", "“all” is not known")]
    [InlineData("""{ "fact": "engine.serial", "atLeast": "five" }""", "a number is wanted")]
    [InlineData("[]", "an object is wanted")]
    public void Json_that_is_no_rule_says_where(string json, string why)
    {
        using var parsed = JsonDocument.Parse(json);
        Should.Throw<JsonException>(() => RuleJson.Read(parsed.RootElement)).Message.ShouldContain(why);
    }

    [Fact]
    public void A_rule_may_go_so_deep_and_no_deeper()
    {
        static string Nested(int depth) => string.Concat(Enumerable.Repeat("""{ "not": """, depth)) + """
            { "fact": "engine.serial", "in": "E-1" }
            """ + new string('}', depth);
        using var just = JsonDocument.Parse(Nested(Rule.Deepest - 1));
        RuleJson.Read(just.RootElement)
            .Of(new GivenFacts(new Dictionary<string, string?> { ["engine.serial"] = "E-1" })).Answer.ShouldBe(RuleAnswer.DoesNotApply,
                "an odd number of nots");
        using var over = JsonDocument.Parse(Nested(Rule.Deepest));
        Should.Throw<JsonException>(() => RuleJson.Read(over.RootElement)).Message.ShouldContain("nested deeper");
    }

    [Theory]
    [InlineData("aircraft.hours", 499.9, false)]
    [InlineData("aircraft.hours", 500, true)]
    [InlineData("aircraft.hours", 1999.9, true)]
    [InlineData("aircraft.hours", 2000, false)]
    public void At_least_holds_from_the_number_on_and_below_until_before_it(string fact, double value, bool met) =>
        RuleText.Read($"{fact} at least 500 and below 2000").Rule!.Of(
            new GivenFacts(new Dictionary<string, string?>
                { [fact] = value.ToString(System.Globalization.CultureInfo.InvariantCulture) })).Answer.ShouldBe(met
                    ? RuleAnswer.Applies
                    : RuleAnswer.DoesNotApply);
}
