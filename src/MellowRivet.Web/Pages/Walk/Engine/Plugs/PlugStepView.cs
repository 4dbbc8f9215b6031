using MellowRivet.Core.Plugs;

namespace MellowRivet.Web.Pages.Walk.Engine.Plugs;

/// <summary>One step of the plug that is open.</summary>
public sealed record PlugStepView(PlugsModel On, PlugStep Step)
{
    public TrayPlace Place => On.Place;

    /// <summary>What stands in its field: as typed where it was refused, else as kept.</summary>
    public string? Value =>
        On.Typed is { } typed && typed.Step == Step ? typed.Value : Place.ReadingOf(Step) is { } reading
            ? reading.Value.ToString(Step is PlugStep.GapFound or PlugStep.GapSet ? "0.0000" : "0.#")
            : Place.Said(Step);

    public string Unit => PlugKinds.UnitOf(Step).Symbol;
}
