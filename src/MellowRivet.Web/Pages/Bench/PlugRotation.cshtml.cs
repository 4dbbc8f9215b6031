using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A rotation drawn on the engine.</summary>
[Needs(Right.Look)]
public sealed class BenchRotationModel : BenchPage
{
    public EngineLayout Layout { get; private set; } = EngineLayout.FlatFour;
    public string Order { get; private set; } = "";
    public RotationPattern Pattern { get; private set; }
    public IgnitionKind Top { get; private set; }
    public IgnitionKind Bottom { get; private set; }
    public IReadOnlyList<PlugMove> Moves { get; private set; } = [];
    public IReadOnlyList<string> Warnings { get; private set; } = [];
    public RotationDrawing Drawing => new(Layout, Moves);

    public void OnGet()
    {
        Layout = EngineLayout.All.FirstOrDefault(layout => layout.Key == Typed("layout")) ?? EngineLayout.FlatFour;
        Pattern = Choice<RotationPattern>("pattern") ?? RotationPattern.NextInFiringOrder;
        (Top, Bottom) = (Choice<IgnitionKind>("topIgnition") ?? IgnitionKind.Magneto, Choice<IgnitionKind>("bottomIgnition")
            ?? IgnitionKind.Magneto);
        // Another engine has another order: what was typed for the one before is left behind.
        var typed = Typed("layout") == Typed("orderOf") ? Typed("firingOrder") : null;
        var (own, refusal) = Component.ReadFiringOrder(typed, Layout);
        if (refusal is not null)
            Problems.Add(refusal.Field, refusal.Message);
        var order = own ?? Layout.FiringOrder;
        Order = refusal is null ? string.Join("-", order) : typed!;
        if (refusal is null && EngineCalls.Rotation(new(Layout.Cylinders.Count, order, Pattern, Top, Bottom), Problems) is { } answer)
            (Moves,
                Warnings) =
                    ([.. answer.Moves.Select(move => new PlugMove(PlugHole.Parse(move.From)!.Value, PlugHole.Parse(move.To)!.Value))],
                        answer.Warnings);
    }
}
