using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Tools;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Pages.Walk.Engine.Plugs;

/// <summary>The plug tray, one plug of it open.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Engine">The engine.</param>
/// <param name="Tray">The tray.</param>
/// <param name="Place">The place that is open.</param>
/// <param name="Pattern">The school of rotation that is chosen; null for the usual one.</param>
/// <param name="Wrenches">The torque wrenches in use.</param>
/// <param name="Wears">Each plug's wear, by plug.</param>
/// <param name="Holes">What fouled in each hole before.</param>
/// <param name="Plan">Where each plug goes; null where the engine can't be rotated.</param>
public sealed record PlugsView(WalkShown Walk, Component Engine, PlugTray Tray, TrayPlace Place, RotationPattern? Pattern,
    IReadOnlyList<Tool> Wrenches, IReadOnlyDictionary<Guid, PlugWear> Wears, IReadOnlyList<HoleHistory> Holes, RotationPlan? Plan)
    : EngineView(Walk, Engine)
{
    public string Self => $"/walk/{Id}/plugs/{EngineId}";
    public PlugWear? Wear => Place.Plug is { } plug ? Wears[plug.Id] : null;
    public RotationDrawing Drawing => new(Engine.Layout, Plan?.Moves ?? []);
    public NewPlugForm? TypedPlug => Typed<NewPlugForm>();

    /// <summary>What was typed of all of them and refused; null where nothing was.</summary>
    public PlugForm? TypedAlike => Problem("alike") is null ? null : Typed<PlugForm>();

    /// <summary>The wrench that was used last here, so that it is chosen once.</summary>
    public Guid? LastWrench => Typed<PlugForm>()?.Wrench
        ?? Job.Inspection.Readings.Where(reading => reading.Kind == PlugKinds.Torque)
        .MaxBy(reading => reading.At)?.Conditions.Wrench?.ToolId;
}

/// <summary>One step of the plug that is open.</summary>
public sealed record PlugStepView(PlugsView On, PlugStep Step)
{
    public TrayPlace Place => On.Place;

    /// <summary>What stands in its field: as typed where it was refused, else as kept.</summary>
    public string? Value =>
        On.Typed<PlugForm>() is { } typed && typed.Step == Step ? typed.Value : Place.ReadingOf(Step) is { } reading
            ? Step is PlugStep.GapFound or PlugStep.GapSet
                ? reading.Value.ToString("0.0000")
                : MeasureText.Typed(reading.Value, PlugKinds.UnitOf(Step))
            : Place.Said(Step);

    public string Unit => PlugKinds.UnitOf(Step).Symbol;
}
