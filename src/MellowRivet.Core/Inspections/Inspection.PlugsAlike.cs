using MellowRivet.Core.Judgements;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Tools;

namespace MellowRivet.Core.Inspections;

// What is done to the whole tray in one go: blasting, testing, gaskets, torque. What is looked at or measured stays plug by plug.
public sealed partial class Inspection
{
    /// <summary>The steps that are done to all plugs of a tray in one go.</summary>
    public static IReadOnlyList<PlugStep> AlikeSteps { get; } =
        [PlugStep.Clean, PlugStep.PressureTest, PlugStep.Gasket, PlugStep.Torque];

    /// <summary>
    /// The plugs that a step is still to be done to, without those that are rejected: another goes in their place. For the torque those
    /// alone that are ready for it.
    /// </summary>
    public static IReadOnlyList<TrayPlace> LeftFor(PlugTray tray, PlugStep step) => [.. tray.Places.Where(place => place.Plug is not null
        && !place.IsScrap && place.Judgement?.Verdict is not Verdict.Reject
        && (step == PlugStep.Torque ? place.Next == step : !place.IsDone(step)))];

    /// <summary>Says of every plug that a step is left for that it was done, with the same words or the same torque.</summary>
    /// <param name="tray">The tray.</param>
    /// <param name="step">One of <see cref="AlikeSteps"/>.</param>
    /// <param name="said">What is said of each; for the torque, in-lb as typed.</param>
    /// <param name="wrench">For the torque: the wrench; null where none was chosen.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <param name="today">The day, for the wrench's calibration.</param>
    public Refusal? DoAlike(PlugTray tray, PlugStep step, string? said, Tool? wrench, Guid by, DateTimeOffset at, DateOnly today)
    {
        if (!AlikeSteps.Contains(step) || string.IsNullOrWhiteSpace(said))
            return new("alike", "Say what was done to all of them.");
        var left = LeftFor(tray, step);
        if (left.Count == 0)
            return new("alike", step == PlugStep.Torque
                ? "No plug is ready for it: each is looked at, measured and cleaned first."
                : "It is said of every plug already.");
        return left.Select(place => step == PlugStep.Torque
                ? Measure(Guid.CreateVersion7(), place, step, said, wrench, new(by, at), today)
                : NotePlug(place, step, said, new(by, at)))
            .FirstOrDefault(refusal => refusal is not null) is { } wrong ? wrong with { Field = "alike" } : null;
    }
}
