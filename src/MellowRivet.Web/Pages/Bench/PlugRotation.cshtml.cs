using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A rotation of plugs.</summary>
/// <param name="In">What was typed.</param>
/// <param name="Layout">The engine.</param>
/// <param name="Order">Its firing order.</param>
/// <param name="Pattern">By which school.</param>
/// <param name="Top">What fires the top row.</param>
/// <param name="Bottom">What fires the bottom row.</param>
/// <param name="Moves">Where each plug goes.</param>
/// <param name="Warnings">What it can't do.</param>
public sealed record BenchRotationView(BenchTyped In, EngineLayout Layout, string Order, RotationPattern Pattern, IgnitionKind Top,
    IgnitionKind Bottom, IReadOnlyList<PlugMove> Moves, IReadOnlyList<string> Warnings) : BenchView(In)
{
    public RotationDrawing Drawing => new(Layout, Moves);
}

/// <summary>A rotation drawn on the engine.</summary>
[Needs(Right.Look)]
public sealed class BenchRotationModel : BenchPage<BenchRotationView>
{
    protected override BenchRotationView? Answer(BenchTyped typed)
    {
        var layout = EngineLayout.All.FirstOrDefault(layout => layout.Key == typed.Text("layout")) ?? EngineLayout.FlatFour;
        var pattern = typed.Choice<RotationPattern>("pattern") ?? RotationPattern.NextInFiringOrder;
        var top = typed.Choice<IgnitionKind>("topIgnition") ?? IgnitionKind.Magneto;
        var bottom = typed.Choice<IgnitionKind>("bottomIgnition") ?? IgnitionKind.Magneto;
        // Another engine has another order: what was typed for the one before is left behind.
        var words = typed.Text("layout") == typed.Text("orderOf") ? typed.Text("firingOrder") : null;
        var (own, refusal) = Component.ReadFiringOrder(words, layout);
        if (refusal is not null)
        {
            typed.Problems.Add(refusal.Field, refusal.Message);
            return new(typed, layout, words!, pattern, top, bottom, [], []);
        }
        var order = own ?? layout.FiringOrder;
        var answer = EngineCalls.Rotation(new(layout.Cylinders.Count, order, pattern, top, bottom), typed.Problems);
        return new(typed, layout, string.Join("-", order), pattern, top, bottom,
            [.. (answer?.Moves ?? []).Select(move => new PlugMove(PlugHole.Parse(move.From)!.Value, PlugHole.Parse(move.To)!.Value))],
            answer?.Warnings ?? []);
    }
}
