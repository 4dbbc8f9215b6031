using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Bulletins;

namespace MellowRivet.Core.Tests.Bulletins;

public class SerialTests
{
    // Issue 7 asks for A-9 before A-10 and for leading zeros; the rest is how makers number (common practice, domain.md section 10).
    [Theory]
    [InlineData("A-9", "A-10", -1)]
    [InlineData("A-009", "A-9", 0)]
    [InlineData("a9", "A-9", 0)]
    [InlineData("A 9", "A-9", 0)]
    [InlineData("A-9", "B-1", -1)]
    [InlineData("9", "A-1", -1)]
    [InlineData("AB-1", "A-1", 1)]
    [InlineData("E-10021", "E-10021A", -1)]
    [InlineData("12-34", "1234", -1)]
    [InlineData("E-99999999999999999999", "E-100000000000000000000", -1)]
    [InlineData("0", "00", 0)]
    public void Figures_compare_by_number_and_letters_by_the_alphabet(string one, string other, int order)
    {
        Math.Sign(SerialNumber.Read(one)!.CompareTo(SerialNumber.Read(other))).ShouldBe(order);
        Math.Sign(SerialNumber.Read(other)!.CompareTo(SerialNumber.Read(one))).ShouldBe(-order);
        (SerialNumber.Read(one) == SerialNumber.Read(other)).ShouldBe(order == 0);
    }

    private static readonly Gen<SerialNumber> Any = from series in Gen.Elements("", "A", "AB", "b", "E-", "12-")
                                                    from figures in Gen.Choose(0, 300)
                                                    from zeros in Gen.Choose(0, 3)
                                                    from tail in Gen.Elements("", "A", "-B", "-7")
                                                    select SerialNumber.Read($"{series}{new string('0', zeros)}{figures}{tail}")!;

    // A total order (mathematics): any two compare, one way and its opposite the other; of three, what is before the before is before.
    [Fact]
    public void Serials_are_in_one_order() => Prop.ForAll(Any.ToArbitrary(), Any.ToArbitrary(), Any.ToArbitrary(), (one, two, three) =>
        Math.Sign(one.CompareTo(two)) == -Math.Sign(two.CompareTo(one))
        && (one.CompareTo(two) > 0 || two.CompareTo(three) > 0 || one.CompareTo(three) <= 0)
        && one.Equals(two) == (one.CompareTo(two) == 0)
        && (!one.Equals(two) || one.GetHashCode() == two.GetHashCode())).QuickCheckThrowOnFailure();

    // The list is domain.md section 10's own example, worked by hand.
    [Theory]
    [InlineData("E-10021", true)]
    [InlineData("E-10020", false)]
    [InlineData("E-10488", true)]
    [InlineData("E-10489", false)]
    [InlineData("E-10502", true)]
    [InlineData("E-010100", true)]
    [InlineData("B-3", true)]
    [InlineData("BB-3", false)]
    [InlineData("F-10100", false)]
    public void The_trades_own_list_is_read(string serial, bool on) =>
        SerialRanges.Read("E-10021 to E-10488, and E-10502; B-series all").Ranges!.Match(SerialNumber.Read(serial)!)
            .ShouldBe(on ? SerialMatch.In : SerialMatch.Out);

    [Theory]
    [InlineData("A-30 and up", "A-30", SerialMatch.In)]
    [InlineData("A-30 and up", "A-29", SerialMatch.Out)]
    [InlineData("A-30 and up", "B-31", SerialMatch.Out)]
    [InlineData("up to A-9", "A-9", SerialMatch.In)]
    [InlineData("up to A-9", "A-10", SerialMatch.Out)]
    [InlineData("A-1 through A-20 except A-5 to A-7, A-9", "A-5", SerialMatch.Out)]
    [InlineData("A-1 through A-20 except A-5 to A-7, A-9", "A-8", SerialMatch.In)]
    [InlineData("A-1 – A-20", "A-20", SerialMatch.In)]
    [InlineData("all", "anything 7", SerialMatch.In)]
    [InlineData("all C-series", "C-1", SerialMatch.In)]
    [InlineData("A-5 and later, B-2 and earlier", "B-1", SerialMatch.In)]
    // A list without the prefix that the plate has, or the other way round, isn't answered with no (domain.md 10: unknown
    // never counts as not applicable).
    [InlineData("100 to 200", "E-150", SerialMatch.Doubtful)]
    [InlineData("E-100 to E-200", "150", SerialMatch.Doubtful)]
    [InlineData("E-100 to E-200", "250", SerialMatch.Out)]
    [InlineData("E-100 to E-200", "F-150", SerialMatch.Out)]
    public void Ends_gaps_and_missing_prefixes(string list, string serial, SerialMatch match) =>
        SerialRanges.Read(list).Ranges!.Match(SerialNumber.Read(serial)!).ShouldBe(match);

    [Theory]
    [InlineData("E-200 to E-100", "runs backwards")]
    [InlineData("E-200 to F-300", "one series into another")]
    [InlineData("A-1, what else?", "can’t be read")]
    [InlineData("A-1 except", "one behind it")]
    [InlineData(" ; ", "names no serial number")]
    [InlineData("", "A list of serial numbers")]
    public void What_is_no_list_is_refused_in_words(string list, string why) => SerialRanges.Read(list).Fault!.ShouldContain(why);

    // Membership by its definition: between the ends, whatever the numbers.
    [Fact]
    public void A_stretch_holds_what_lies_between_its_ends() => Prop.ForAll(Gen.Choose(0, 999).ToArbitrary(), Gen.Choose(0, 999)
        .ToArbitrary(), Gen.Choose(0, 999).ToArbitrary(), (one, other, number) =>
    {
        var (low, high) = (Math.Min(one, other), Math.Max(one, other));
        return SerialRanges.Read($"E-{low} to E-{high}").Ranges!.Match(
            SerialNumber.Read($"E-{number:0000}")!) == SerialMatch.In == (number >= low && number <= high);
    }).QuickCheckThrowOnFailure();

    [Fact]
    public void A_list_written_again_is_the_same_list()
    {
        foreach (var list in new[] { "E-10021 to E-10488, and E-10502; B-series all", "A-30 and up; up to C-9",
            "A-1 to A-20 except A-5 to A-7, A-9; all" })
        {
            var words = SerialRanges.Read(list).Ranges!.InWords;
            SerialRanges.Read(words).Ranges!.InWords.ShouldBe(words);
        }
    }
}
