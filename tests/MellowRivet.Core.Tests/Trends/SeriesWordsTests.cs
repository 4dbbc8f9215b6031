using MellowRivet.Core.Compression;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Tests.Trends;

public class SeriesWordsTests
{
    private static Series Of(Direction? worse, params double[] values)
    {
        List<TrendPoint> points = [.. values.Index().Select(value => new TrendPoint(100 * (value.Index + 1), value.Item))];
        return new("", null, points, [], null, Trend.Read(points, resolution: 1), 0) { Worse = worse };
    }

    private static SeriesGroup In(string kind, string unit, Series series) => new(kind, kind, unit, series.Worse, [series]);

    // By hand: 40 Ω in 100 h, 0.002 in = 2 thou in 100 h.
    [Theory]
    [InlineData("Ω", 1000, 1040, 1080, 1120, "rises 40 Ω in 100 h")]
    [InlineData("in", 0.016, 0.018, 0.020, 0.022, "rises 2 thou in 100 h")]
    [InlineData("h/l", 12, 11.5, 11, 10.5, "falls 0.5 hours a litre in 100 h")]
    [InlineData("psi", 60, 60, 60, 60, "holds steady")]
    public void A_change_is_told_in_the_unit_it_is_read_in(string unit, double a, double b, double c, double d, string words)
    {
        var series = Of(Direction.Rising, a, b, c, d);
        SeriesWords.Change(In("x", unit, series), series).ShouldBe(words);
    }

    // The leak areas of 78, 77, 76 and 75 psi at 80 psi and sea level: one psi lost every 100 h.
    [Fact]
    public void A_compression_loses_psi_and_its_leak_area_stands_beside()
    {
        var series = Of(Direction.Rising, [.. new[] { 78.0, 77, 76, 75 }.Select(psi => LeakArea.MultipleOfMaster(new Psi(psi), new Psi(80),
            new Psi(14.7)))]);
        SeriesWords.Change(In(Reading.CompressionKind, "× master orifice", series), series)!
            .ShouldMatch(@"^loses (0\.9\d?|1(\.\d)?) psi in 100 h \(leak area \+0\.0\d\)$");
    }

    [Theory]
    [InlineData(Direction.Rising, 3000, Surprise.Worse)]
    [InlineData(Direction.Rising, 200, Surprise.Better)]
    [InlineData(Direction.Falling, 3000, Surprise.Better)]
    [InlineData(Direction.Falling, 200, Surprise.Worse)]
    [InlineData(null, 3000, Surprise.Higher)]
    [InlineData(null, 200, Surprise.Lower)]
    [InlineData(Direction.Rising, 1210, null)]
    public void Unusual_says_in_which_direction_and_better_is_no_warning(Direction? worse, double last, Surprise? surprise)
    {
        var series = Of(worse, 1000, 1050, 1090, 1120, 1180, last);
        series.Surprise.ShouldBe(surprise);
        series.IsUnusual.ShouldBe(surprise is not (null or Surprise.Better));
    }
}
