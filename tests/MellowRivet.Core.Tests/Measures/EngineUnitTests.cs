using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Measures;

public class EngineUnitTests
{
    // NIST SP 811, from memory: 1 inHg (0 °C) is 3.386389 kPa; a US liquid quart is 0.946352946 l.
    [Theory]
    [InlineData("inHg", "kPa", 29.92, 101.3208)]
    [InlineData("inHg", "psi", 2, 0.98231)]
    [InlineData("qt", "l", 1, 0.946352946)]
    public void Units_of_the_engine_station_convert(string from, string to, double value, double expected) =>
        Unit.Find(from)!.To(Unit.Find(to)!, value).ShouldBe(expected, expected * 1e-5);

    [Fact]
    public void Micro_is_typed_with_a_u() => Unit.Find("uF").ShouldBe(Unit.Microfarad);

    // AC 43.13-1B table 7-1, from memory: tension and shear nuts, in-lb.
    [Theory]
    [InlineData("10-32", 20, 25, 12, 15)]
    [InlineData("1/4-28", 50, 70, 30, 40)]
    [InlineData("5/16-24", 100, 140, 60, 85)]
    [InlineData("3/8-24", 160, 190, 95, 110)]
    [InlineData("7/16-20", 450, 500, 270, 300)]
    [InlineData("1/2-20", 480, 690, 290, 410)]
    public void Standard_torques_are_those_of_the_table(string thread, int tensionLow, int tensionHigh, int shearLow, int shearHigh) =>
        StandardTorque.All.Single(row => row.Thread == thread).ShouldBe(new(thread, tensionLow, tensionHigh, shearLow, shearHigh));
}
