using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A value in other units.</summary>
/// <param name="In">What was typed.</param>
/// <param name="From">The unit it was typed in.</param>
/// <param name="Values">It in every other unit of its dimension.</param>
public sealed record BenchConvertView(BenchTyped In, Unit From, IReadOnlyList<(Unit Unit, double Value)> Values) : BenchView(In);

/// <summary>A value in every unit of its dimension.</summary>
[Needs(Right.Look)]
public sealed class BenchConvertModel : BenchPage<BenchConvertView>
{
    protected override BenchConvertView? Answer(BenchTyped typed)
    {
        var from = Unit.Find(typed.Text("unit")) ?? Unit.NewtonMetre;
        return new(typed, from,
            typed.Number("value", from) is { } value ? [.. from.Alternatives.Skip(1).Select(unit => (unit, from.To(unit, value)))] : []);
    }
}
