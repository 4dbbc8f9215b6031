using System.Globalization;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Tools;

namespace MellowRivet.Web.Tests.Judging;

// A plug's steps, in the order they are done in.
public partial class ParityTests
{
    private IEnumerable<Case> Plugs(Aircraft aircraft, Inspection inspection)
    {
        foreach (var engine in aircraft.Engines.Select(stay => stay.Component))
            foreach (var hole in PlugTray.Holes(engine))
            {
                // Where all else is done to a plug, its torque is taken; at every third it isn't.
                if (PlugTray.Of(aircraft, engine, inspection).At(hole) is { Plug: not null, IsScrap: false } whole && random.Next(3) > 0)
                    foreach (var (step, done) in new[] { (PlugStep.Clean, "done"), (PlugStep.Gasket, "New") })
                        inspection.NotePlug(whole, step, done, new(Guid.Empty, DemoServer.Now)).ShouldBeNull();
                foreach (var step in Enum.GetValues<PlugStep>().Where(step => step is not (PlugStep.Clean or PlugStep.Gasket)))
                    for (var times = 0; times < (PlugKinds.Of(step) is null ? 8 : 45); times++)
                    {
                        if (step == PlugStep.Torque && times == 20)
                            MakeGood(aircraft, engine, inspection, hole);
                        var place = PlugTray.Of(aircraft, engine, inspection).At(hole)!;
                        if (place.Plug is not { } plug || place.IsScrap || (step == PlugStep.Torque && place.TorqueBand is null))
                            continue;
                        var text = TrayPlace.Choices(step) is { Count: > 0 } choices
                            ? choices[random.Next(choices.Count)].Said
                            : TextOf(place.TableOf(step)!.Value.Table);
                        var wrench = step == PlugStep.Torque ? AnyWrench() : null;
                        yield return new(JudgedField.Of(plug, step), new(text, PlugKinds.Of(step) is null ? null
                            : PlugKinds.UnitOf(step).Symbol, IsKept: true, Wrench: wrench?.Id, Today: Day,
                            Others: step == PlugStep.Torque ? Others(place) : null), Shops(place, text));

                        // As PlugsModel.OnPostStepAsync; a torque is judged as the tray judges one that is there.
                        Shop Shops(TrayPlace on, string said)
                        {
                            if (PlugKinds.Of(step) is null)
                                inspection.NotePlug(on, step, said, new(Guid.Empty, DemoServer.Now)).ShouldBeNull();
                            else if (inspection.Measure(Guid.NewGuid(), on, step, said, wrench, new(Guid.Empty, DemoServer.Now),
                                DemoServer.Today) is { } wrong)
                                return Shop.Of(null, wrong.Message);
                            // The gap that was set before would hide the one that was found.
                            var after = PlugTray.Of(aircraft, engine, inspection).At(hole)!;
                            return Shop.Of(step == PlugStep.GapFound
                                ? PlugJudge.Gap(after.Limits, after.ReadingOf(step)!.Value)
                                : after.JudgementOf(step), null);
                        }
                    }
            }
    }

    private static void MakeGood(Aircraft aircraft, Component engine, Inspection inspection, PlugHole hole)
    {
        Saying said = new(Guid.Empty, DemoServer.Now);
        if (PlugTray.Of(aircraft, engine, inspection).At(hole) is not { Plug: not null, IsScrap: false } place)
            return;
        inspection.NotePlug(place, PlugStep.Look, $"{PlugLook.Normal}", said).ShouldBeNull();
        inspection.NotePlug(place, PlugStep.PressureTest, "pass", said).ShouldBeNull();
        inspection.Measure(Guid.NewGuid(), place, PlugStep.Ohms, "1500", (Tool?)null, said, DemoServer.Today).ShouldBeNull();
        inspection.Measure(Guid.NewGuid(), place, PlugStep.GapSet, "0.017", (Tool?)null, said, DemoServer.Today).ShouldBeNull();
    }

    private static readonly string Day = DemoServer.Today.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    // What stands at a plug's other steps.
    private static Dictionary<string, Said> Others(TrayPlace place) => Enum.GetValues<PlugStep>().Where(step => step != PlugStep.Torque)
        .ToDictionary(step => JudgedField.Of(place.Plug!, step), step => place.ReadingOf(step) is { } reading
            ? new Said(reading.Value.ToString("R", CultureInfo.InvariantCulture), reading.UnitSymbol)
            : new Said(place.Said(step) ?? ""));
}
