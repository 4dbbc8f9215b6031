using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Fleet;

public sealed partial class Aircraft
{
    /// <summary>
    /// Puts plugs into other holes of an engine, all at once: where a plug goes, another comes from. Wear goes with the
    /// plug, fouling stays with the hole.
    /// </summary>
    /// <param name="engine">The engine.</param>
    /// <param name="moves">Each plug's way; every hole that is taken is left by its plug.</param>
    /// <param name="on">The day.</param>
    /// <returns>Why they can't go there, or null.</returns>
    public Refusal? MovePlugs(Component engine, IReadOnlyList<PlugMove> moves, DateOnly on)
    {
        var stays = SittingOn(engine.Id, ComponentKind.Plug).ToDictionary(stay => stay.Position);
        var holes = PlugTray.Holes(engine);
        if (moves.Any(move => !holes.Contains(move.From) || !holes.Contains(move.To)))
            return new("to", "This engine has no such hole.");
        if (!moves.Select(move => move.From).ToHashSet().SetEquals(moves.Select(move => move.To)))
            return new("to", "Where a plug goes, the one that sits there has to go somewhere too.");
        foreach (var move in moves)
        {
            if (engine.Ignition is { IsMixed: true } && move.From.Row != move.To.Row)
                return new("to", PlugRotation.Placard);
            var fires = move.To.Row == PlugRow.Top ? engine.Ignition?.Top : engine.Ignition?.Bottom;
            if (stays.GetValueOrDefault(move.From.ToString())?.Component is { Suits: { } made } plug && fires is { } kind && made != kind)
                return new("to", $"{plug.SerialNumber} is a {made.InWords()} plug; {move.To} is fired by a {kind.InWords()} system.");
        }
        foreach (var move in moves.Where(move => move.From != move.To))
        {
            if (!stays.TryGetValue(move.From.ToString(), out var stay))
                continue;
            if (stay.InstalledAt == TimeInService)
                stay.StandAt(move.To.ToString());
            else
            {
                var own = stay.TimeInService(TimeInService);
                stay.End(on, TimeInService, $"moved to {move.To}", null);
                Install(stay.Component, move.To.ToString(), TimeInService, own, engine.Id, on);
            }
        }
        return null;
    }

    /// <summary>Puts a set of plugs on file, as it is typed: one in every hole that has none.</summary>
    /// <param name="engine">The engine.</param>
    /// <param name="type">The plugs' type, as printed on them.</param>
    /// <param name="first">The number of the first; the others count on from it.</param>
    /// <param name="on">The day.</param>
    public Refusal? FitPlugs(Component engine, string? type, string? first, DateOnly on)
    {
        if (!int.TryParse(first, out var number) || number is < 1 or > 9_999_000)
            return new("first", "The number of the first plug; the others count on from it.");
        if (type?.Trim().Length > 40)
            return new("first", "A type of up to 40 characters.");
        InstallPlugs(engine, type?.Trim() ?? "", number, TimeInService, null, on: on);
        return null;
    }

    /// <summary>Puts a new plug into a hole; the one that sits there comes off for good.</summary>
    /// <param name="engine">The engine.</param>
    /// <param name="hole">The hole.</param>
    /// <param name="type">The plug's type, as printed on it.</param>
    /// <param name="number">Its own number.</param>
    /// <param name="suits">The ignition it is made for; null where nobody has said.</param>
    /// <param name="on">The day.</param>
    /// <param name="why">Why the one before comes off.</param>
    /// <param name="by">Who puts it in.</param>
    public Refusal? FitPlug(Component engine, PlugHole hole, string? type, string? number, IgnitionKind? suits, DateOnly on, string why,
        Guid? by = null)
    {
        if (!PlugTray.Holes(engine).Contains(hole))
            return new("hole", "This engine has no such hole.");
        if (string.IsNullOrWhiteSpace(number) || number.Trim().Length > 40 || type?.Trim().Length > 40)
            return new("number", "A plug needs a number of its own, up to 40 characters: engrave it or tag it.");
        if (Fitted(ComponentKind.Plug).FirstOrDefault(stay => stay.Component.SerialNumber == number.Trim()) is { } there)
            return new("number", $"{number.Trim()} sits in {there.Position} already.");
        var fires = hole.Row == PlugRow.Top ? engine.Ignition?.Top : engine.Ignition?.Bottom;
        if (suits is { } made && fires is { } kind && made != kind)
            return new("suits",
                $"{hole} is fired by a {kind.InWords()} system: this plug isn't made for it."
                + (engine.Ignition is { IsMixed: true } ? $" {PlugRotation.Placard}" : ""));
        Component plug = new(Guid.CreateVersion7(), ComponentKind.Plug, type?.Trim() ?? "", number.Trim()) { Suits = suits ?? fires };
        if (IsTypedAnew(plug, $"{hole}", engine.Id))
            return new("number",
                $"{plug.SerialNumber} is the one that came out of {hole}. Put it back in the aircraft’s file, under Parts, or give the "
                + $"new one a number of its own.");
        if (SittingOn(engine.Id, ComponentKind.Plug).FirstOrDefault(stay => stay.Position == hole.ToString()) is { } old
            && TakeOff(old.ComponentId, on, TimeInService, why, by) is { } refusal)
            return refusal;
        Install(plug, hole.ToString(), TimeInService, default(Measures.Hours), engine.Id, on, by);
        return null;
    }
}
