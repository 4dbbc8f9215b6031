using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Tests.Measures;

public class BenchArithmeticTests
{
    private static readonly CableTable Table = new(["aileron-cable-left"], [new(-10, 28), new(15, 38), new(40, 48)], 3, "manual 27-10");

    // AC 43.13-1B figure 7-2 works this example: 135 in-lb, 10 in wrench, 1.5 in adapter gives 117.4 (from memory).
    [Fact]
    public void An_extension_in_line_lowers_the_wrench_setting() => TorqueWrench.Setting(135, 10, 1.5).ShouldBe(117.4, 0.05);

    [Fact]
    public void Without_an_extension_the_setting_is_what_is_wanted() => TorqueWrench.Setting(420, 18, 0).ShouldBe(420);

    [Theory]
    [InlineData(0, 1)]
    [InlineData(-1, 1)]
    [InlineData(10, -0.1)]
    public void A_length_no_wrench_has_is_refused(double length, double extension) =>
        Should.Throw<ArgumentOutOfRangeException>(() => TorqueWrench.Setting(100, length, extension));

    // By hand, linear between the rows: at 5 °C 28 + 10 × 15/25 = 34; at 20 °C 38 + 10 × 5/25 = 40.
    [Theory]
    [InlineData(-10, 28)]
    [InlineData(5, 34)]
    [InlineData(15, 38)]
    [InlineData(20, 40)]
    [InlineData(40, 48)]
    public void A_tension_between_the_rows_is_on_the_line_between_them(double celsius, double pounds) =>
        Table.Target(celsius)!.Value.ShouldBe(pounds, 1e-9);

    [Theory]
    [InlineData(-10.1)]
    [InlineData(40.1)]
    [InlineData(double.NaN)]
    public void Outside_the_table_nothing_is_said(double celsius)
    {
        Table.Target(celsius).ShouldBeNull();
        Table.At(celsius).ShouldBeNull();
    }

    [Theory]
    [InlineData(31, Verdict.Good)]
    [InlineData(30.99, Verdict.Reject)]
    [InlineData(37, Verdict.Good)]
    [InlineData(37.01, Verdict.Reject)]
    public void A_cable_is_judged_at_its_temperature(double pounds, Verdict verdict) =>
        Table.At(5)!.Judge(pounds).Verdict.ShouldBe(verdict);

    [Fact]
    public void A_warmer_cable_is_never_rigged_slacker() => Prop.ForAll(Gen.Choose(-100, 399).ToArbitrary(),
        tenths => Table.Target(tenths / 10.0) <= Table.Target((tenths + 1) / 10.0)).QuickCheckThrowOnFailure();

    [Theory]
    [InlineData("15 38", "at least two rows")]
    [InlineData("15 38\n15 40", "rise in temperature")]
    [InlineData("15 38\n10 40", "rise in temperature")]
    [InlineData("15 38\n20", "“20”")]
    [InlineData("15 38\n20 -4", "“20 -4”")]
    [InlineData("15 38\nwarm 40", "“warm 40”")]
    public void A_table_that_does_not_hold_together_is_refused(string rows, string says) =>
        CableTable.Read(["c"], rows, 3, "m").Refusal!.Message.ShouldContain(says);

    [Fact]
    public void A_table_is_read_as_it_is_typed()
    {
        var (table, refusal) = CableTable.Read(["c"], "-10 °C: 28 lb\n 15\t38,5 \n", 2.5, " 27-10 p. 5 ");
        refusal.ShouldBeNull();
        table!.Rows.ShouldBe([new(-10, 28), new(15, 38.5)]);
        (table.TolerancePounds, table.Reference).ShouldBe((2.5, "27-10 p. 5"));
        CableTable.Read(["c"], "-10 28\n15 38", null, "m").Refusal!.Field.ShouldBe("tolerance");
        CableTable.Read(["c"], "-10 28\n15 38", 3, " ").Refusal!.Field.ShouldBe("reference");
    }

    // By hand: 0.30 at 1000 h, 0.24 at 1300 h: 0.02 in 100 h; from 0.24 to 0.10 it is 0.14 / 0.0002 = 700 h.
    [Fact]
    public void Two_readings_give_a_rate_and_no_range()
    {
        var wear = Wear.Of([new(1000, 0.30), new(1300, 0.24)], 0.10, 0.005);
        wear.PerHundredHours!.Value.ShouldBe(0.02, 1e-9);
        wear.HoursLeft!.Value.ShouldBe(700, 1e-6);
        wear.Earliest.ShouldBeNull();
        wear.Why.ShouldContain("no range");
    }

    [Fact]
    public void New_pads_begin_a_new_series()
    {
        var wear = Wear.Of([new(700, 0.15), new(1300, 0.24), new(1000, 0.30), new(850, 0.12)], 0.10, 0.005);
        wear.N.ShouldBe(2);
        wear.HoursLeft!.Value.ShouldBe(700, 1e-6);
        wear.Why.ShouldContain("renewed before 1000 h");
    }

    [Fact]
    public void Four_readings_give_a_range_that_holds_the_forecast()
    {
        var wear = Wear.Of([new(1000, 0.300), new(1100, 0.281), new(1200, 0.259), new(1300, 0.241)], 0.10, 0.001);
        wear.HoursLeft!.Value.ShouldBe(705, 25);
        wear.Earliest!.Value.ShouldBeLessThan(wear.HoursLeft.Value);
    }

    [Theory]
    [InlineData(0, "No reading")]
    [InlineData(1, "no rate yet")]
    public void Too_few_readings_give_no_forecast(int count, string says)
    {
        var wear = Wear.Of(Enumerable.Range(0, count).Select(index => new TrendPoint(1000 + index, 0.3)), 0.1, 0.005);
        (wear.HoursLeft, wear.PerHundredHours).ShouldBe((null, null));
        wear.Why.ShouldContain(says);
    }

    [Fact]
    public void What_does_not_wear_has_no_end_and_what_is_worn_has_none_left()
    {
        Wear.Of([new(1000, 0.30), new(1300, 0.30)], 0.10, 0.005).HoursLeft.ShouldBeNull();
        Wear.Of([new(1000, 0.30), new(1300, 0.10)], 0.10, 0.005).HoursLeft.ShouldBe(0);
    }

    // NIST SP 811, from memory: an inch is 25.4 mm, so a thousandth is 0.0254; a turn is 2π.
    [Fact]
    public void Thousandths_and_degrees_are_exact()
    {
        Unit.Thou.To(Unit.Millimetre, 1).ShouldBe(0.0254, 1e-15);
        Unit.Inch.To(Unit.Thou, 0.018).ShouldBe(18, 1e-9);
        (Unit.Degree.Factor * 360).ShouldBe(2 * Math.PI, 1e-12);
    }

    [Fact]
    public void A_wrench_out_of_calibration_pulls_no_final_torque()
    {
        var wrench = new Tool(Guid.NewGuid());
        wrench.Describe("Torque wrench", "T-1", true, null, 10, null)!.Field.ShouldBe("calibrated");
        wrench.Describe("Torque wrench", "T-1", true, new(2026, 11, 23), 10, null)!.Field.ShouldBe("range");
        wrench.Describe("Torque wrench", "T-1", true, new(2026, 11, 23), 10, new(750, 150, Unit.InchPound))!.Field.ShouldBe("range");
        wrench.Describe("Torque wrench", "T-1", true, new(2026, 11, 23), 10, new(150, 750, Unit.InchPound)).ShouldBeNull();
        wrench.MayTorque(new(2026, 11, 23)).ShouldBeNull("the last day still holds");
        wrench.MayTorque(new(2026, 11, 24))!.Message.ShouldContain("ended 2026-11-23");
        wrench.Retire(true);
        wrench.MayTorque(new(2026, 11, 23))!.Message.ShouldContain("isn't used any more");
        var mirror = new Tool(Guid.NewGuid());
        mirror.Describe("Mirror", "", false, null, null, null).ShouldBeNull();
        mirror.MayTorque(new(2026, 1, 1))!.Message.ShouldContain("no torque wrench");
    }

    [Theory]
    [InlineData("Torque wrench 150–750 in-lb", 150.0, 750.0, "in-lb")]
    [InlineData("Wrench 20-100 ft-lb, long", 20.0, 100.0, "ft-lb")]
    [InlineData("5 to 25 N·m", 5.0, 25.0, "N·m")]
    [InlineData("Torque wrench 1/2", null, null, null)]
    [InlineData("Torque wrench 750–150 in-lb", null, null, null)]
    public void A_wrench_from_before_tells_its_range_by_its_name(string name, double? least, double? most, string? unit) =>
        (TorqueRange.In(name)?.Least, TorqueRange.In(name)?.Most, TorqueRange.In(name)?.Unit.Symbol).ShouldBe((least, most, unit));

    // 14 CFR 43.13(a) asks for the tools that the work takes, from memory: what isn't on the scale can't have been pulled.
    [Theory]
    [InlineData(100, "in-lb", false)]
    [InlineData(149, "in-lb", false)]
    [InlineData(150, "in-lb", true)]
    [InlineData(420, "in-lb", true)]
    [InlineData(35, "ft-lb", true)]
    [InlineData(750, "in-lb", true)]
    [InlineData(760, "in-lb", false)]
    [InlineData(70, "ft-lb", false)]
    [InlineData(17, "N·m", true)]
    public void A_wrench_pulls_what_its_scale_has(double setting, string unit, bool reaches)
    {
        var wrench = new Tool(Guid.NewGuid());
        wrench.Describe("Torque wrench", "T-9", true, new(2026, 11, 23), null, new(150, 750, Unit.InchPound)).ShouldBeNull();
        (wrench.Reaches(setting, Unit.Find(unit)!) is null).ShouldBe(reaches);
        new Tool(Guid.NewGuid()).Reaches(setting, Unit.Find(unit)!)
            .ShouldBeNull("one whose range nobody has put on file can't be held against it");
    }
}
