using System.Text;
using MellowRivet.Core.EngineLogs;

namespace MellowRivet.Core.Tests.EngineLogs;

public class EngineLogTests
{
    private static LogFile File(string text) => LogFile.Read(Encoding.UTF8.GetBytes(text)).File!;

    private static string Rows(int count, Func<int, string> row) => string.Join('\n', Enumerable.Range(0, count).Select(row));

    [Fact]
    public void Columns_are_guessed_from_two_shapes_of_titles()
    {
        var one = File("Time,RPM,EGT1,EGT2,CHT1,CHT2,Oil temp,Oil press,Fuel flow\n"
            + Rows(12, row => $"9:00:{row:00},2300,700,710,150,160,80,60,30")).Guess();
        (one.Time, one.Fahrenheit, one.Bar).ShouldBe((0, false, false));
        one.Columns.Select(column => (column.Channel, column.Cylinder))
            .ShouldBe([(LogChannel.Rpm, null), (LogChannel.Egt, 1), (LogChannel.Egt, 2), (LogChannel.Cht, 1), (LogChannel.Cht, 2),
                (LogChannel.OilTemperature, null), (LogChannel.OilPressure, null), (LogChannel.FuelFlow, null)]);
        var other = File("Monitor;words about it\nElapsed [s];Engine speed [rpm];Exh 1 [°F];Head 1 [°F];Oil temp [°F];Oil press [bar]\n"
            + Rows(12, row => $"{row};2300;1300,5;320;180;4,1")).Guess();
        (other.Time, other.Fahrenheit, other.Bar).ShouldBe((0, true, true));
        other.Columns.Select(column => column.Channel)
            .ShouldBe([LogChannel.Rpm, LogChannel.Egt, LogChannel.Cht, LogChannel.OilTemperature, LogChannel.OilPressure]);
    }

    // By hand: 1300.5 °F are 704.7 °C, 4.1 bar are 59.5 psi (1 bar = 14.5038 psi, NIST SP 811).
    [Fact]
    public void Commas_gaps_and_text_are_read_for_what_they_are()
    {
        var file = File("s;Engine speed;Exh 1 [°F];Oil press [bar]\n"
            + Rows(20, row => row == 5 ? "lights;on;;" : $"{row};{(row == 7 ? "---" : "2300")};1300,5;4,1"));
        var (flights, refusal) = EngineLog.Read(file, file.Guess());
        refusal.ShouldBeNull();
        var flight = flights.Single();
        flight.Rows.ShouldBe(19, "a row without a time is passed over");
        flight.Summary.GreatestEgt!.Value.ShouldBe(704.7, 0.05);
        flight.Summary.OilPressure!.Value.ShouldBe(59.5, 0.05);
    }

    [Fact]
    public void A_pause_or_a_clock_that_begins_anew_is_another_flight()
    {
        var file = File("s,rpm\n" + Rows(20, row => $"{row},2300") + "\n" + Rows(20, row => $"{row + 20 + 400},2300") + "\n"
            + Rows(20, row => $"{row},2300"));
        EngineLog.Read(file, file.Guess()).Flights.Select(flight => flight.Rows).ShouldBe([20, 20, 20]);
    }

    // Min–max decimation: a single row's peak among a hundred thousand stands in the thinned series as it was.
    [Fact]
    public void No_peak_is_lost_when_a_long_log_is_thinned()
    {
        var times = Enumerable.Range(0, 100_000).Select(row => (double)row).ToList();
        var values = times.Select(time => time == 77_777 ? 999 : time == 12_345 ? -5 : 100 + time % 3).ToList();
        var thin = EngineLog.Thin(times, values);
        thin.Count.ShouldBe(EngineLog.Stretches);
        (thin.Max(stretch => stretch.High), thin.Min(stretch => stretch.Low)).ShouldBe((999, -5));
        thin.Single(stretch => stretch.High == 999).T.ShouldBe(77_777, 100_000.0 / EngineLog.Stretches);
    }

    [Fact]
    public void What_a_flight_comes_to()
    {
        var file = File("s,rpm,CHT1,CHT2,EGT1,EGT2,Oil temp\n"
            + Rows(60, row => row is < 6 or >= 54
                ? $"{row},{700 + row % 3 * 10},80,85,500,505,60"
                : $"{row},2400,{150 + row},{140 + row / 2},700,{(row == 30 ? 760 : 710)},{60 + row / 2}"));
        var sum = EngineLog.Read(file, file.Guess()).Flights.Single().Summary;
        (sum.HottestCylinder, sum.GreatestCht, sum.GreatestRpm, sum.EgtSpread).ShouldBe((1, 203, 2400, 60));
        sum.IdleRpm.ShouldBe(710);
        sum.OilTemperature.ShouldBe(60);
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("1,2,3\n4,5,6\n", "titles")]
    [InlineData("a\u0000b", "no text file")]
    public void What_is_no_log_is_refused(string text, string words) =>
        LogFile.Read(Encoding.UTF8.GetBytes(text)).Refusal!.Message.ShouldContain(words);

    [Fact]
    public void Columns_that_can_not_be_are_refused()
    {
        var file = File("s,rpm,EGT1\n" + Rows(20, row => $"{row},2300,700"));
        EngineLog.Read(file, new(0, [], false, false)).Refusal!.Message.ShouldContain("at least one");
        EngineLog.Read(file, new(0, [new(LogChannel.Egt, 1, 1), new(LogChannel.Egt, 1, 2)], false, false)).Refusal!.Message.ShouldContain(
            "both be EGT 1");
        EngineLog.Read(file, new(0, [new(LogChannel.Rpm, null, 9)], false, false)).Refusal!.Message.ShouldContain("no such column");
        EngineLog.Read(file, new(1, [new(LogChannel.Rpm, null, 2)], false, false)).Refusal.ShouldNotBeNull(
            "a time that stands still makes no flight");
    }

    [Theory]
    [InlineData("12.5", 12.5)]
    [InlineData("1:02:03", 3723.0)]
    [InlineData("2000-01-01 00:01:00", 60.0)]
    [InlineData("soon", null)]
    public void Time_comes_as_seconds_a_clock_or_a_day(string cell, double? seconds) => LogFile.Seconds(cell).ShouldBe(seconds);
}
