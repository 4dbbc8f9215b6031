using System.Globalization;
using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Measures;

public class MeasureTextTests
{
    public static TheoryData<string, string, string> Typed()
    {
        var rows = new TheoryData<string, string, string>();
        foreach (var row in File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Data", "typed-measures.tsv"))
            .Where(line => !line.StartsWith('#')).Select(line => line.Split('\t')))
            rows.Add(row[0], row[1], row[2]);
        return rows;
    }

    [Theory]
    [MemberData(nameof(Typed))]
    public void A_measure_is_read_as_hands_type_it(string text, string unit, string expected)
    {
        var read = MeasureText.Read(text, Unit.Find(unit)!);
        if (expected == "?")
        {
            read.Value.ShouldBeNull();
            read.Problem.ShouldNotBeNullOrEmpty();
        }
        else
        {
            read.Problem.ShouldBeNull();
            var value = double.Parse(expected, CultureInfo.InvariantCulture);
            read.Value.ShouldNotBeNull().ShouldBe(value, Math.Max(1e-9, Math.Abs(value) * 5e-6));
        }
    }

    [Theory]
    [InlineData("4.7k", "Ω", "4700 Ω")]
    [InlineData("open", "Ω", "open circuit")]
    [InlineData("0,018", "in", "0.018 in")]
    [InlineData("35 ft-lb", "in-lb", "420 in-lb")]
    [InlineData("1 1/2", "h", "1.5 h")]
    public void What_was_understood_is_said(string text, string unit, string understood) =>
        MeasureText.Read(text, Unit.Find(unit)!).Understood.ShouldBe(understood);

    [Theory]
    [InlineData("1500")]
    [InlineData("0.018")]
    [InlineData("-5")]
    public void A_plain_number_needs_no_words(string text) => MeasureText.Read(text, Unit.Celsius).ShouldBe(
        new(double.Parse(text, CultureInfo.InvariantCulture)));

    [Theory]
    [InlineData("14,500", "Ω", "14500 or 14.5?")]
    [InlineData("1m", "Ω", "1M or 1 mΩ")]
    [InlineData("24 Nm", "Ω", "is a torque: here a resistance is wanted, in Ω")]
    [InlineData("76/80", "psi", "one pressure is wanted")]
    public void What_could_mean_two_things_is_asked_about(string text, string unit, string asked) =>
        MeasureText.Read(text, Unit.Find(unit)!).Problem.ShouldNotBeNull().ShouldContain(asked);

    [Fact]
    public void Nothing_typed_is_nothing_and_no_problem() => MeasureText.Read(" ", Unit.Psi).ShouldBe(new(null));

    [Fact]
    public void What_a_field_shows_is_read_again_as_the_same() => Prop.ForAll(
        Gen.Elements(Unit.All.ToArray()).ToArbitrary(), Gen.Choose(0, 100_000_000).ToArbitrary(), (unit, tenthousandths) =>
        {
            var value = tenthousandths / 10_000.0;
            return Math.Abs(MeasureText.Value(MeasureText.Typed(value, unit), unit)!.Value - value) < 1e-9;
        }).QuickCheckThrowOnFailure();

    [Fact]
    public void A_value_with_its_unit_reads_in_every_other_unit_as_the_conversion_says() => Prop.ForAll(
        Gen.Elements(Unit.All.SelectMany(one => one.Alternatives, (one, other) => (one, other)).ToArray()).ToArbitrary(),
        Gen.Choose(1, 10_000).ToArbitrary(), (pair, number) =>
            Math.Abs(MeasureText.Value($"{number} {pair.one}", pair.other)!.Value - pair.one.To(pair.other, number))
            < 1e-6 * Math.Max(1, Math.Abs(pair.one.To(pair.other, number)))).QuickCheckThrowOnFailure();

    [Theory]
    [InlineData("4318.6 h", 4318.6)]
    [InlineData("0:45", 0.75)]
    [InlineData("4,318", null)]
    [InlineData("-1", null)]
    public void Hours_are_read_as_hands_type_them(string text, double? hours) =>
        TypedNumber.ParseHours(text)?.Value.ShouldBe((decimal?)hours ?? -1);
}
