using System.Text.Json;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Compression;

// domain.md section 4: a try belongs to one test; all paths that are heard are recorded, with each try; cold and good is noted as cold.
public class TriesTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Inspection inspection;
    private int minute;

    public TriesTests() => inspection = Fixture.Inspection(aircraft);

    private Component Engine => aircraft.Engines.First().Component;

    private CompressionTest Begin(bool hot = true)
    {
        CompressionTest test = new(Guid.NewGuid(), Engine.Id, 80, 14.7, hot, null, Fixture.Ines, Fixture.Now.AddMinutes(minute++));
        inspection.Begin(test);
        return test;
    }

    private void Read(CompressionTest test, double psi, Leaks leaks = default, int number = 2) =>
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, aircraft.Cylinder(Engine, number)!.Id, Reading.CompressionKind, $"{number}", psi,
            Unit.Psi,
        new(test.Hot, 80, 14.7, null, leaks), aircraft.TimeInService, Fixture.Now.AddMinutes(minute++),
        Fixture.Ines) { InspectionId = inspection.Id, CompressionTestId = test.Id });

    private CylinderOnTest Cylinder(int number = 2) =>
        CompressionSheet.Of(aircraft, Engine, inspection).Cylinders.Single(one => one.Place.Number == number);

    [Fact]
    public void Good_tries_of_earlier_tests_are_no_first_try_of_this_one()
    {
        Read(Begin(), 76);
        Read(Begin(), 77);
        var now = Begin();
        Read(now, 15);
        Cylinder().ShouldSatisfyAllConditions(
            one => one.Latest!.Judgement.Verdict.ShouldBe(Verdict.Retest),
            one => one.Latest!.Judgement.Rule.ShouldContain("at the first try"), one => one.Tries.Count.ShouldBe(1),
            one => one.Before.Count.ShouldBe(2));
        Read(now, 16);
        Cylinder().Latest!.Judgement.ShouldSatisfyAllConditions(one => one.Verdict.ShouldBe(Verdict.Reject),
            one => one.Rule.ShouldContain("after a second hot try"));
    }

    [Fact]
    public void A_good_try_of_the_same_test_is_no_low_one_either()
    {
        var test = Begin();
        Read(test, 76);
        Read(test, 15);
        Cylinder().Latest!.Judgement.Verdict.ShouldBe(Verdict.Retest);
    }

    [Fact]
    public void A_low_try_of_an_earlier_test_is_no_first_try_of_this_one()
    {
        Read(Begin(), 40);
        Read(Begin(), 41);
        Cylinder().Latest!.Judgement.Verdict.ShouldBe(Verdict.Retest);
    }

    [Fact]
    public void A_low_cold_try_counts_for_no_hot_one()
    {
        Read(Begin(hot: false), 40);
        Cylinder().Latest!.Judgement.Rule.ShouldContain("cold");
        Read(Begin(), 41);
        Cylinder().Latest!.Judgement.Verdict.ShouldBe(Verdict.Retest);
    }

    [Fact]
    public void Cold_and_good_is_good_and_noted_as_cold()
    {
        Read(Begin(hot: false), 77);
        Cylinder().Latest!.Judgement.ShouldSatisfyAllConditions(one => one.Verdict.ShouldBe(Verdict.Good),
            one => one.Rule.ShouldEndWith(", cold"), one => one.Next.ShouldContain("may want it hot"));
    }

    [Fact]
    public void A_new_test_that_has_not_come_to_a_cylinder_leaves_its_reading_standing()
    {
        Read(Begin(), 15);
        Read(Begin(), 76, number: 1);
        Cylinder().Latest!.Judgement.Verdict.ShouldBe(Verdict.Retest, "nobody makes a low one go away by beginning anew");
    }

    [Fact]
    public void Three_paths_at_once_are_kept_told_and_judged()
    {
        Leaks all = new([LeakPath.Rings, LeakPath.ExhaustValve, LeakPath.IntakeValve]);
        var test = Begin();
        Read(test, 15, all);
        Cylinder().Latest!.ShouldSatisfyAllConditions(one => one.Reading.Leak.ShouldBe(all),
            one => one.Judgement.Next.ShouldContain(
                "exhaust pipe: exhaust valve; air filter: intake valve; oil filler or breather: rings"));
        all.Short.ShouldBe("exhaust valve, intake valve, rings");
        CompressionJudge.Judge(CompressionLimits.SixtyOfEighty, TestConditions.Usual,
            new(1, new(78), new Leaks([LeakPath.Rings, LeakPath.Crack]))).Judgement.Verdict.ShouldBe(Verdict.Reject,
                "a crack among others is a crack");
    }

    [Theory]
    [InlineData("\"none\"", "no leak heard")]
    [InlineData("\"ExhaustValve\"", "exhaust valve")]
    [InlineData("[\"rings\",\"exhaustValve\"]", "exhaust valve, rings")]
    [InlineData("[]", "no leak heard")]
    public void One_path_or_a_list_is_read_and_written_back(string json, string words)
    {
        var leaks = JsonSerializer.Deserialize<Leaks>(json);
        leaks.Short.ShouldBe(words);
        JsonSerializer.Deserialize<Leaks>(JsonSerializer.Serialize(leaks)).ShouldBe(leaks);
    }

    [Theory]
    [InlineData("\"sideways\"")]
    [InlineData("\"2\"")]
    [InlineData("3")]
    [InlineData("[\"none\",\"rings\"]")]
    [InlineData("[2]")]
    public void What_is_no_path_is_refused(string json) => Should.Throw<JsonException>(() => JsonSerializer.Deserialize<Leaks>(json));
}
