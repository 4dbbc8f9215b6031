using System.Text;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Fleet;

public class MeterTests
{
    private static readonly DateOnly Today = new(2026, 11, 23);
    private readonly Aircraft aircraft = new(Guid.NewGuid(), "N0TST", "Test", "T", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));

    private Refusal? Read(string on, decimal shown, MeterReplacement? replaced = null, MeterKind kind = MeterKind.Tach) =>
        aircraft.ReadMeter(kind, DateOnly.Parse(on), shown, "IC", replaced);

    [Fact]
    public void A_new_meter_keeps_the_total_right()
    {
        Read("2026-01-10", 4310.2m).ShouldBeNull();
        Read("2026-03-10", 12.4m)!.Field.ShouldBe(MeterFault.Backwards, "it is asked whether the meter was replaced");
        // Came off at 4318.6, began at zero: 12.4 shown is 4331.0 in all.
        Read("2026-03-10", 12.4m, new(4318.6m, 0)).ShouldBeNull();
        aircraft.TimeInService.ShouldBe(new Hours(4331.0m));
        Read("2026-04-10", 30m).ShouldBeNull();
        aircraft.TimeInService.ShouldBe(new Hours(4348.6m));
        // A reading from before the change is still of the old meter.
        Read("2026-02-10", 4315.0m).ShouldBeNull();
        aircraft.MeterReadings.Single(reading => reading.On == new DateOnly(2026, 2, 10)).Total.ShouldBe(4315.0m);
        aircraft.TimeInService.ShouldBe(new Hours(4348.6m));
    }

    [Fact]
    public void A_replacement_has_to_fit_what_is_on_file()
    {
        Read("2026-01-10", 4310.2m);
        Read("2026-03-10", 12.4m, new(4300m, 0))!.Field.ShouldBe("lastShown");
        Read("2026-03-10", 12.4m, new(4318.6m, 13m))!.Field.ShouldBe("firstShown");
        aircraft.Meters.Count.ShouldBe(1, "what was refused leaves nothing behind");
    }

    [Fact]
    public void The_first_reading_may_differ_from_the_total()
    {
        aircraft.ReadMeter(MeterKind.Tach, Today, 120m, "IC", total: 3_120m).ShouldBeNull();
        aircraft.TimeInService.ShouldBe(new Hours(3120));
    }

    [Fact]
    public void The_same_reading_twice_is_one()
    {
        Read("2026-01-10", 4310.2m).ShouldBeNull();
        Read("2026-01-10", 4310.2m).ShouldBeNull();
        aircraft.MeterReadings.Count.ShouldBe(1);
    }

    [Fact]
    public void More_hours_than_the_days_hold_are_refused()
    {
        Read("2026-01-10", 100m);
        Read("2026-01-11", 149m)!.Message.ShouldContain("more than those days hold");
        Read("2026-01-11", 148m).ShouldBeNull();
    }

    [Fact]
    public void Landings_are_counted_beside_the_hours_and_in_whole_numbers()
    {
        Read("2026-01-10", 4310.2m);
        Read("2026-01-10", 12_960m, null, MeterKind.Landings).ShouldBeNull();
        Read("2026-01-11", 12_960.5m, null, MeterKind.Landings)!.Message.ShouldContain("whole numbers");
        aircraft.TimeInService.ShouldBe(new Hours(4310.2m));
        aircraft.MeterReadings.Where(reading => reading.Kind == MeterKind.Landings).Max(reading => reading.Total).ShouldBe(12_960);
    }

    private static TimesFile File(string text) => TimesFile.Read(Encoding.UTF8.GetBytes(text)).File!;

    private TimesCheck Check(TimesFile file, params int[] replacedAt) => TimesImport.Check(file, file.Guess(), aircraft, replacedAt, Today);

    [Theory]
    [InlineData("date,tach,landings\n2026-01-10,4310.2,100\n2026-02-10,4315.0,104\n")]
    [InlineData("Datum;Tach;Landings\r\n10.01.2026;4310,2;100\r\n10.02.2026;4315,0;104\r\n")]
    [InlineData("\uFEFFday\ttach time\tldg\n2026/01/10\t4310.2\t100\n2026/02/10\t4315\t104")]
    [InlineData("date,\"tach, hours\",landings\n\"2026-01-10\",\" 4310.2 \",100\n\n2026-02-10,4315.0,104\n")]
    public void A_file_is_read_as_shops_write_them(string text)
    {
        var check = Check(File(text));
        check.Problems.ShouldBeEmpty();
        check.Planned.Count.ShouldBe(4);
        TimesImport.Take(aircraft, check, "log.csv");
        aircraft.TimeInService.ShouldBe(new Hours(4315.0m));
        aircraft.MeterReadings.Where(reading => reading.Kind == MeterKind.Landings).Max(reading => reading.Total).ShouldBe(104);
        Check(File(text)).ShouldSatisfyAllConditions(again => again.Duplicates.ShouldBe(4), again => again.Planned.ShouldBeEmpty());
    }

    [Fact]
    public void Other_encodings_are_read_too()
    {
        TimesFile.Read([.. Encoding.Unicode.GetPreamble(),
            .. Encoding.Unicode.GetBytes("date,tach\n2026-01-10,1\n")]).File!.Headers.ShouldBe(["date", "tach"]);
        TimesFile.Read(Encoding.Latin1.GetBytes("Tag;Zähler\n10.01.2026;1\n")).File!.Headers[1].ShouldBe("Zähler");
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("just one line", "at least one reading")]
    [InlineData("PK\u0003\u0004\0\0\0\0,x\n\0,\0", "no text file")]
    public void What_is_no_table_is_refused(string text, string says) =>
        TimesFile.Read(Encoding.UTF8.GetBytes(text)).Refusal!.Message.ShouldContain(says);

    [Fact]
    public void Two_hundred_thousand_lines_are_refused_before_they_are_read() =>
        TimesFile.Read(Encoding.UTF8.GetBytes("d,t\n" + string.Concat(Enumerable.Repeat("a,1\n", 200_000)))).Refusal!.Message.ShouldContain(
            "20000 is the most");

    [Theory]
    [InlineData("2026-01-10,=SUM(A1:A9)", "is a formula")]
    [InlineData("2026-01-10,@cmd", "is a formula")]
    [InlineData("2026-01-10,-5", "below zero")]
    [InlineData("2026-01-10,43l0.2", "no figure")]
    [InlineData("2026-13-40,5", "no day")]
    [InlineData("2027-01-01,5", "still to come")]
    public void A_line_that_can_not_be_taken_is_named_and_nothing_is_taken(string line, string says)
    {
        var file = File($"date,tach\n2026-01-09,4\n{line}\n");
        var check = TimesImport.Check(file, new(0, "yyyy-MM-dd", new Dictionary<MeterKind, int> { [MeterKind.Tach] = 1 }), aircraft, [],
            Today);
        check.Problems.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(problem => problem.ShouldContain(says), problem => problem.ShouldStartWith("Line 3"));
        check.MayTake.ShouldBeFalse();
        TimesImport.Take(aircraft, check, "x")!.Field.ShouldBe("file");
        aircraft.MeterReadings.ShouldBeEmpty();
    }

    [Fact]
    public void A_reading_that_runs_backwards_is_asked_about_once()
    {
        var file = File("date,tach\n2026-01-10,4310.2\n2026-03-10,12.4\n2026-04-10,30.0\n");
        var asked = Check(file);
        asked.Drops.ShouldHaveSingleItem().Line.ShouldBe(3);
        asked.MayTake.ShouldBeFalse();
        TimesImport.Take(aircraft, Check(file, 3), "log.csv");
        aircraft.TimeInService.ShouldBe(new Hours(4340.2m));
        aircraft.Meters.Count.ShouldBe(2);
    }

    [Fact]
    public void A_file_has_to_fit_between_the_readings_on_file()
    {
        Read("2026-01-10", 100m);
        Read("2026-06-10", 150m);
        Check(File("date,tach\n2026-03-10,120\n")).MayTake.ShouldBeTrue();
        Check(File("date,tach\n2026-03-10,151\n")).Problems.ShouldHaveSingleItem().ShouldContain("on file for 2026-06-10");
        Check(File("date,tach\n2026-03-10,99\n")).Drops.ShouldHaveSingleItem();
    }

    [Fact]
    public void Days_and_months_that_can_not_be_told_apart_are_said_so()
    {
        File("date,tach\n03/04/2026,1\n").IsAmbiguous(0).ShouldBeTrue();
        File("date,tach\n23/04/2026,1\n").IsAmbiguous(0).ShouldBeFalse();
    }
}
