using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Tests.Plugs;

public class PlugRotationTests
{
    private static readonly Ignition Mixed = new(IgnitionKind.HighEnergy, IgnitionKind.Magneto);

    public static TheoryData<int[], RotationPattern> Engines => new()
    {
        { [1, 3, 2, 4], RotationPattern.NextInFiringOrder }, { [1, 3, 2, 4], RotationPattern.SwapPairs },
        { [1, 4, 2, 3], RotationPattern.NextInFiringOrder },
        { [1, 4, 2, 3], RotationPattern.SwapPairs }, { [1, 4, 5, 2, 3, 6], RotationPattern.NextInFiringOrder },
        { [1, 2], RotationPattern.NextInFiringOrder },
    };

    // Common practice (domain.md section 5): each plug changes row and polarity, and every hole gets one plug.
    [Theory]
    [MemberData(nameof(Engines))]
    public void Every_plug_changes_row_and_polarity_and_every_hole_gets_one(int[] order, RotationPattern pattern)
    {
        var moves = PlugRotation.Plan(order, pattern).Plan!.Moves;
        moves.Select(move => move.To).ToHashSet().SetEquals(moves.Select(move => move.From)).ShouldBeTrue();
        moves.Select(move => move.From).Distinct().Count().ShouldBe(order.Length * 2);
        moves.ShouldAllBe(move => move.From.Row != move.To.Row);
        moves.ShouldAllBe(move => PlugRotation.PolarityOf(order, move.From.Cylinder) != PlugRotation.PolarityOf(order, move.To.Cylinder));
    }

    // The same for any engine with an even number of cylinders, whatever its firing order.
    [Fact]
    public void Next_in_firing_order_holds_for_any_even_engine() => Prop.ForAll(Gen.Choose(1, 12).ToArbitrary(), Gen.Choose(0, 1_000)
        .ToArbitrary(), (half, seed) =>
    {
        var order = Enumerable.Range(1, 2 * half).OrderBy(number => (number * 7_919 + seed) * 31 % 1_009).ToList();
        var moves = PlugRotation.Plan(order, RotationPattern.NextInFiringOrder).Plan!.Moves;
        return moves.Select(move => move.To).Distinct().Count() == 2 * order.Count
            && moves.All(move => move.From.Row != move.To.Row
                && PlugRotation.PolarityOf(order, move.From.Cylinder) != PlugRotation.PolarityOf(order, move.To.Cylinder));
    }).QuickCheckThrowOnFailure();

    // domain.md section 5 works both: 1T to the bottom of the next to fire; 1T with 4B, 1B with 4T, 2T with 3B, 2B with 3T.
    [Fact]
    public void The_worked_examples()
    {
        string To(RotationPattern pattern, string from) =>
            PlugRotation.Plan([1, 3, 2, 4], pattern).Plan!.Moves.Single(move => move.From.ToString() == from).To.ToString();
        To(RotationPattern.NextInFiringOrder, "1T").ShouldBe("3B");
        To(RotationPattern.NextInFiringOrder, "4B").ShouldBe("1T");
        new[] { "1T", "1B", "2T", "2B" }.Select(from => To(RotationPattern.SwapPairs, from)).ShouldBe(["4B", "4T", "3B", "3T"]);
    }

    [Theory]
    [InlineData(new[] { 1, 4, 5, 2, 3, 6 }, RotationPattern.SwapPairs, "pattern")]
    [InlineData(new[] { 1, 2, 4, 3 }, RotationPattern.SwapPairs, "pattern")]
    [InlineData(new[] { 1, 2, 3 }, RotationPattern.NextInFiringOrder, "cylinders")]
    [InlineData(new[] { 1, 3, 3, 4 }, RotationPattern.NextInFiringOrder, "firingOrder")]
    public void What_an_engine_can_not_take_is_refused(int[] order, RotationPattern pattern, string field)
    {
        var (plan, refusal) = PlugRotation.Plan(order, pattern);
        plan.ShouldBeNull();
        refusal!.Field.ShouldBe(field);
    }

    [Theory]
    [MemberData(nameof(Engines))]
    public void With_a_mixed_ignition_no_plug_changes_row(int[] order, RotationPattern pattern)
    {
        var plan = PlugRotation.Plan(order, pattern, Mixed).Plan!;
        plan.Moves.ShouldAllBe(move => move.From.Row == move.To.Row
            && PlugRotation.PolarityOf(order, move.From.Cylinder) != PlugRotation.PolarityOf(order, move.To.Cylinder));
        plan.Moves.Select(move => move.To).Distinct().Count().ShouldBe(order.Length * 2);
        plan.Warnings.ShouldContain(PlugRotation.Placard);
    }
}
