using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Records;

/// <summary>Order and wording of an entry as data: what a template may say, and how its places are filled.</summary>
public class EntryTemplateTests
{
    private static EntryTemplate Of(string sentences) => EntryTemplate.Parse($$"""
        { "key": "own", "title": "Own", "note": "", "sentences": [ {{sentences}} ] }
        """);

    private static string Tell(string words, params (string, string?)[] values) => Of($$"""{ "says": "timing", "full": "{{words}}" }""")
        .Tell(new(FactKind.Timing, "t", new(Book.Engine, null, ""), EntryFact.Said(values), new(RestsOnKind.Walk)), EntryLength.Full);

    [Theory]
    [InlineData("{Part}: fires {value}[ ({limit})].", "Magneto: fires 25°.")]
    [InlineData("{part}:[, {limit}][, {value}].", "magneto: 25°.")]
    [InlineData("{limit}, {part}.", "not on file, magneto.")]
    public void Places_are_filled_and_what_has_no_value_falls_away(string words, string says) =>
        Tell(words, ("part", "magneto"), ("value", "25°"), ("limit", null)).ShouldBe(says);

    [Fact]
    public void What_a_person_typed_stays_as_typed_but_for_its_line_ends_and_a_second_full_stop() =>
        Tell("{Part}. {value}.", ("part", "magneto [left] {value}."), ("value", "a\n  b")).ShouldBe("Magneto [left] {value}. a b.");

    [Theory]
    [InlineData("""{ "says": "timing", "full": "{serial}" }""", "no place 'serial'")]
    [InlineData("""{ "says": "timing", "full": "[{part}" }""", "in pairs")]
    [InlineData("""{ "says": "timing", "full": "[{part}[ {value}]]" }""", "in pairs")]
    [InlineData("""{ "says": "timing", "full": "" }""", "can't be left out")]
    [InlineData("""{ "says": "correction", "full": "{what}", "short": "" }""", "14 CFR 43.9(a)")]
    [InlineData("""{ "says": "timing", "full": "{part}" }, { "says": "timing", "full": "{part}" }""", "told twice")]
    [InlineData("""{ "says": "weather", "full": "fine" }""", "can't be read")]
    public void A_template_that_could_leave_a_gap_or_a_fact_out_is_refused(string sentences, string says) =>
        Should.Throw<FormatException>(() => Of(sentences)).Message.ShouldContain(says);

    [Fact]
    public void A_shops_own_template_tells_what_a_later_release_can_tell()
    {
        var own = Of("""{ "says": "dueNext", "full": "Next: {items}." }, { "says": "run", "full": "Ran." }""").FilledFrom(Fixture.Template);
        own.Sentences.Select(rule => rule.Says).Order().ShouldBe(Enum.GetValues<FactKind>());
        own.PlaceOf(FactKind.DueNext).ShouldBeLessThan(own.PlaceOf(FactKind.Run), "its own order stays");
        own.PlaceOf(FactKind.Compressions).ShouldBe(own.PlaceOf(FactKind.Run) + 1);
    }

    [Fact]
    public void The_shipped_template_tells_every_kind_of_fact() =>
        Fixture.Template.Sentences.Select(rule => rule.Says).Order().ShouldBe(Enum.GetValues<FactKind>());
}
