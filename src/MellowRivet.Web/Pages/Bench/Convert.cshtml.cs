using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A value in every unit of its dimension.</summary>
[Needs(Right.Look)]
public sealed class BenchConvertModel : BenchPage
{
    public Unit From { get; private set; } = Unit.NewtonMetre;
    public IReadOnlyList<(Unit Unit, double Value)> Answer { get; private set; } = [];

    public void OnGet()
    {
        From = Unit.Find(Typed("unit")) ?? Unit.NewtonMetre;
        if (Number("value") is { } value && !Problems.Any)
            Answer = [.. From.Alternatives.Skip(1).Select(unit => (unit, From.To(unit, value)))];
    }
}
