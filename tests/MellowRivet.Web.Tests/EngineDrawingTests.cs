using System.Globalization;
using System.Text.RegularExpressions;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Tests;

/// <summary>Drawings carry the work: what stands on them stands where it has to.</summary>
public partial class EngineDrawingTests
{
    private static ToleranceBand Band(double? low, double? high) => new(Unit.Inch, low, high, new(Standing.Practice, "test"));

    [Theory]
    [InlineData(46.633, "+47")]
    [InlineData(-0.0664, "-0.066")]
    [InlineData(1234, "+1200")]
    [InlineData(9.96, "+10")]
    [InlineData(0, "0")]
    public void A_change_is_told_in_two_figures(double change, string told) => SmallMultiple.TwoFigures(change).ShouldBe(told);

    [Theory]
    [InlineData(0.016, 0.021, 0.016, true)]
    [InlineData(0.016, 0.021, 0.0215, false)]
    [InlineData(0.30, null, 0.31, true)]
    [InlineData(0.30, null, 0.29, false)]
    [InlineData(null, 175.0, 170, true)]
    [InlineData(null, 175.0, 180, false)]
    public void A_value_stands_on_the_good_stretch_exactly_when_it_is_good(double? low, double? high, double value, bool good)
    {
        var line = new BandDrawing(Band(low, high), value);
        (line.At >= line.GoodFrom - 1e-9 && line.At <= line.GoodTo + 1e-9).ShouldBe(good);
        new BandDrawing(Band(low, high), 1e9).At!.Value.ShouldBeLessThanOrEqualTo(BandDrawing.Width);
        new BandDrawing(Band(low, high), null).At.ShouldBeNull();
    }

    public static TheoryData<string> Layouts => [.. EngineLayout.All.Select(layout => layout.Key)];

    [Theory]
    [MemberData(nameof(Layouts))]
    public void Every_hole_is_on_the_drawing_and_every_moving_plug_has_its_arrow(string key)
    {
        var layout = EngineLayout.Of(key);
        var plan = PlugRotation.Plan(layout.FiringOrder, RotationPattern.NextInFiringOrder).Plan!;
        var drawing = new RotationDrawing(layout, plan.Moves);
        drawing.Holes.Count.ShouldBe(layout.Cylinders.Count * 2);
        drawing.Holes.ShouldAllBe(hole => hole.X > RotationDrawing.Left && hole.X < RotationDrawing.Left + RotationDrawing.Width
            && hole.Y > 0 && hole.Y < drawing.Height);
        drawing.Holes.Select(hole => (hole.X, hole.Y)).Distinct().Count().ShouldBe(drawing.Holes.Count);
        drawing.Ways.Count.ShouldBe(layout.Cylinders.Count * 2);
        // The engine is seen from above, propeller up: what sits on the left bank is drawn left of what sits on the right.
        foreach (var place in layout.Cylinders.Where(place => place.Bank != Bank.Middle))
            (drawing.Cylinders.Single(cylinder => cylinder.Number == place.Number).X < 230).ShouldBe(place.Bank == Bank.Left);
    }

    // The hand lies within the window's arc exactly where the value is within the window.
    [Theory]
    [InlineData(5.9, false)]
    [InlineData(6, true)]
    [InlineData(14, true)]
    [InlineData(14.1, false)]
    public void The_dials_hand_and_window_agree_with_the_limits(double degrees, bool good)
    {
        var dial = new PointsDial(degrees, null);
        var ends = Numbers().Matches(dial.MainWindow).Select(match => double.Parse(match.Value, CultureInfo.InvariantCulture)).ToList();
        var hand = Numbers().Matches(dial.MainHand!).Select(match => double.Parse(match.Value, CultureInfo.InvariantCulture)).ToList();
        double Angle(double x, double y) => Math.Atan2(x - PointsDial.Centre, PointsDial.Centre - y);
        var (from, to, at) = (Angle(ends[0], ends[1]), Angle(ends[^2], ends[^1]), Angle(hand[^2], hand[^1]));
        (at >= from - 0.003 && at <= to + 0.003).ShouldBe(good);
        MagnetoSheet.PointsOpen.Band.Judge(degrees).Verdict.ShouldBe(good ? Verdict.Good : Verdict.Reject);
        dial.RetardHand.ShouldBeNull();
    }

    [Fact]
    public void A_single_peak_of_a_long_flight_is_drawn_at_the_top()
    {
        var file = LogFile.Read(
            System.Text.Encoding.UTF8.GetBytes("s,CHT1\n"
                + string.Join('\n', Enumerable.Range(0, 20_000).Select(row => $"{row},{(row == 12_345 ? 251 : 180)}")))).File!;
        var panel = FlightPanel.Of(EngineLog.Read(file, file.Guess()).Flights.Single()).Single();
        var heights = Numbers().Matches(panel.Lines.Single().Path).Select(match => double.Parse(match.Value, CultureInfo.InvariantCulture))
            .Where((_, index) => index % 2 == 1).ToList();
        heights.Min().ShouldBeLessThan(FlightPanel.Top + 10);
        heights.Count(height => height < FlightPanel.Height / 2.0).ShouldBe(1, "one peak, one point up there");
    }

    [GeneratedRegex(@"-?\d+(\.\d+)?")]
    private static partial Regex Numbers();
}
