using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Measures;

/// <summary>What a table says where numbers are missing, lie between, or stand on an edge.</summary>
public class JudgementTableTests
{
    private static readonly RuleSource Source = new(Standing.Manual, "page 3, at {a:0.0}");

    private static readonly JudgementTable Table = new(new Dictionary<string, double> { ["limit"] = 10 },
        [
            new("sum", Making.Sum, ["a", "b"]), new("first", Making.Else, ["b", "a"]), new("least", Making.Least, ["a", "b"]),
            new("level", Making.Along, ["a"], Points: [[0, 0], [10, 100]]), new("rounded", Making.Less, ["a", "limit"], 1),
        ],
        [
            new([new("sum", Than.Above, "limit")], Verdict.Reject, "{sum:0.##} above {limit:0}", Source, "rounded", "{b:0.#}, {none:0.#}"),
            new([new("level", Than.AtLeast, "limit")], Verdict.Watch, "level {level:0}", Source, null, "first {first:0}, least {least:0}"),
            new([], Verdict.Good, "good", Source, null, "Good."),
        ])
    { Wants = [new("a", "field", "Type it."), new("level", "field", "Nothing at {a:0.#}.")] };

    [Fact]
    public void A_row_holds_where_every_number_of_it_is_there()
    {
        Table.Of(("a", 4), ("b", 7)).Judgement!.Rule.ShouldBe("11 above 10");
        Table.Of(("a", 4), ("b", null)).Judgement!.Rule.ShouldBe("level 40", "without b there is no sum");
        Table.Of(("a", 0.5)).Judgement!.Verdict.ShouldBe(Verdict.Good);
    }

    [Fact]
    public void Words_take_the_numbers_they_name_and_leave_what_is_not_there()
    {
        var judged = Table.Of(("a", 4.26), ("b", 7)).Judgement!;
        judged.Next.ShouldBe("7, {none:0.#}");
        judged.Source.InWords.ShouldBe("your manual: page 3, at 4.3");
        judged.Margin.ShouldBe(-5.7, "rounded to a tenth");
        Table.Of(("a", 4)).Judgement!.Next.ShouldBe("first 4, least 4");
    }

    [Fact]
    public void What_has_to_be_there_first_is_asked_for_in_order_and_nothing_is_judged()
    {
        Table.Of(("b", 3)).ShouldBe((null, new Refusal("field", "Type it.")));
        Table.Of(("a", 12)).ShouldBe((null, new Refusal("field", "Nothing at 12.")), "beyond the last point a line says nothing");
        Table.Of(("a", 10)).Wanted.ShouldBeNull();
    }

    // A reading in the unit of its limits is that reading: 0.028 in isn't a little less.
    [Fact]
    public void A_value_in_its_own_unit_stays_as_it_is_to_the_last_bit() =>
        Unit.All.ShouldAllBe(unit => new[] { 0.028, 0.1, 3.3, 1e-9, 12_345.678 }.All(value => unit.To(unit, value) == value));
}
