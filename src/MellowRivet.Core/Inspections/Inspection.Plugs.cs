using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Tools;

namespace MellowRivet.Core.Inspections;

// The plugs, out of the engine and in their tray.
public sealed partial class Inspection
{
    private List<PlugNote> plugNotes = [];

    /// <summary>What was seen and done at the plugs, besides what was measured on them.</summary>
    public IReadOnlyList<PlugNote> PlugNotes => plugNotes;

    /// <summary>
    /// Notes what was seen or done at a plug; what was said of the step before gives way where whoever says so had seen it.
    /// </summary>
    /// <param name="place">The plug's place.</param>
    /// <param name="step">A step that measures nothing.</param>
    /// <param name="what">What is said of it; empty to take that back.</param>
    /// <param name="said">Who, when, and what they had before them.</param>
    public Refusal? NotePlug(TrayPlace place, PlugStep step, string? what, Saying said)
    {
        if (Standing(place) is { } refusal)
            return refusal;
        var known = step switch
        {
            PlugStep.Look => Enum.TryParse<PlugLook>(what, out var look) && Enum.IsDefined(look),
            PlugStep.Clean => what is "done",
            PlugStep.PressureTest => what is "pass" or "fail",
            PlugStep.Gasket => Enum.TryParse<GasketState>(what, out var gasket) && Enum.IsDefined(gasket),
            _ => false,
        };
        if (what is not (null or "") && !known)
            return new("step", "Choose one of what stands there.");
        var (key, before) = (ApartKeys.Plug(place.Plug!.Id, step), place.NoteOf(step));
        if (what is null or "")
        {
            if (NotTakenBack(key, "step", before?.Stamp, said) is { } kept)
                return kept;
            plugNotes = [.. plugNotes.Where(other => (other.PlugId, other.Step) != (place.Plug.Id, step))];
            return null;
        }
        PlugNote note = new(place.Plug.Id, place.CameFrom, step, what, said.By, said.At);
        if (!said.Missed(before?.Stamp))
        {
            Put(note);
            StandsNow(key, note.InWords, note.Stamp);
        }
        else if (note.Said != before!.Said)
            KeepApart(key, place.Title(step), before.InWords, before.Stamp, note.InWords, said, new(Plug: note));
        return null;
    }

    private void Put(PlugNote note) =>
        plugNotes = [.. plugNotes.Where(other => (other.PlugId, other.Step) != (note.PlugId, note.Step)), note];

    /// <summary>Records what was measured on a plug, as it is typed.</summary>
    /// <param name="id">The reading's id, made by the device.</param>
    /// <param name="place">The plug's place.</param>
    /// <param name="step">A step that measures.</param>
    /// <param name="typed">Ω, in or in-lb.</param>
    /// <param name="wrench">For the torque: the wrench; null where none was chosen.</param>
    /// <param name="said">Who, when, and what they had before them.</param>
    /// <param name="today">The day, for the wrench's calibration.</param>
    public Refusal? Measure(Guid id, TrayPlace place, PlugStep step, string? typed, Tool? wrench, Saying said, DateOnly today)
    {
        var read = MeasureText.Read(typed, PlugKinds.UnitOf(step));
        if (read.Problem is { } problem)
            return new("value", problem);
        // What is no torque at all is said to be none before the wrench is asked whether it reaches it.
        if (wrench is null || read.Value is not { } value || Outside(step, value) is not null)
            return Measure(id, place, step, read.Value, (WrenchUsed?)null, said);
        var (used, refusal) = wrench.Pull(value, PlugKinds.UnitOf(step), today);
        return used is null ? refusal : Measure(id, place, step, value, used, said);
    }

    private static Refusal? Outside(PlugStep step, double value) =>
        FieldBound.First(PlugKinds.BoundsOf(step), "value", null, value, PlugKinds.UnitOf(step), PlugKinds.UnitOf(step));

    /// <summary>
    /// Records what was measured on a plug; measured again, it takes the place of the first. Measured by somebody who hadn't seen the
    /// first, it is kept beside it until somebody chooses.
    /// </summary>
    /// <param name="id">The reading's id, made by the device.</param>
    /// <param name="place">The plug's place.</param>
    /// <param name="step">A step that measures.</param>
    /// <param name="value">Ω, in or in-lb.</param>
    /// <param name="wrench">For the torque: the wrench, whose calibration holds.</param>
    /// <param name="said">Who, when, and what they had before them.</param>
    public Refusal? Measure(Guid id, TrayPlace place, PlugStep step, double? value, WrenchUsed? wrench, Saying said)
    {
        if (Standing(place) is { } refusal)
            return refusal;
        if (value is not { } read)
            return new("value", PlugKinds.Wanted(step));
        if (Outside(step, read) is { } outside)
            return outside;
        if (step == PlugStep.Torque)
        {
            if (wrench is null)
                return new("wrench", PlugKinds.NoWrench);
            if (place.IsMisplaced)
                return new("value", PlugRotation.Placard);
            if (Enum.GetValues<PlugStep>().Where(other => other != PlugStep.Torque && !place.IsDone(other))
                .ToList() is { Count: > 0 } missing)
                return new("value",
                    MeasureGrammar.Say(PlugKinds.Missing, ("steps", string.Join(", ", missing.Select(other => other.InWords())))));
            if (place.Judgements.Where(one => one.Of != PlugStep.Torque).Select(one => one.Judgement)
                .FirstOrDefault(one => one.Verdict == Verdict.Reject) is { } bad)
                return new("value", $"{bad.Rule}. {bad.Next}");
        }
        var (key, earlier, unit) = (ApartKeys.Plug(place.Plug!.Id, step), place.ReadingOf(step), PlugKinds.UnitOf(step));
        if (said.Missed(earlier?.Last))
            KeepApart(key, place.Title(step), earlier!, read, unit, wrench, said);
        else if (earlier is not null)
        {
            earlier.Reread(read, unit, wrench, said.By, said.At);
            StandsNow(key, earlier.InWords, earlier.Last);
        }
        else
            Record(new(id, AircraftId, place.Plug.Id, PlugKinds.Of(step)!, place.Hole.ToString(), read, unit, new(Wrench: wrench),
                TimeInService, said.At, said.By) { InspectionId = Id });
        return null;
    }

    /// <summary>Puts plugs into other holes: what was torqued is to be torqued again.</summary>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="engine">The engine.</param>
    /// <param name="moves">Each plug's way.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <param name="on">The day.</param>
    public Refusal? MovePlugs(Aircraft aircraft, Component engine, IReadOnlyList<PlugMove> moves, Guid by, DateTimeOffset at, DateOnly on)
    {
        var left = moves.Where(move => move.From != move.To).Select(move => move.From).ToHashSet();
        var places = PlugTray.Of(aircraft, engine, this).Places.Where(place => left.Contains(place.Hole)).ToList();
        if (aircraft.MovePlugs(engine, moves, on) is { } refusal)
            return refusal;
        PlugsMoved(places, by, at);
        return null;
    }

    /// <summary>Plugs went to other holes: what was torqued is to be torqued again, on another gasket: one seals once.</summary>
    /// <param name="places">Where they sat before.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    public void PlugsMoved(IEnumerable<TrayPlace> places, Guid by, DateTimeOffset at) =>
        plugNotes = [.. plugNotes, .. places.Where(place => place.Plug is not null && place.IsDone(PlugStep.Torque))
            .Select(place => new PlugNote(place.Plug!.Id, place.CameFrom, null, PlugNote.Moved, by, at))];

    /// <summary>A plug fell: it is scrap, with no way back.</summary>
    public Refusal? Dropped(TrayPlace place, Guid by, DateTimeOffset at)
    {
        if (Standing(place) is { } refusal)
            return refusal;
        plugNotes = [.. plugNotes, new(place.Plug!.Id, place.CameFrom, null, PlugNote.Dropped, by, at)];
        return null;
    }

    private static Refusal? Standing(TrayPlace place) => place.Plug is null ? new("step", $"No plug is on file at {place.Hole}.")
        : place.IsScrap
        ? new("step", $"{place.Plug.SerialNumber} was dropped: it is scrap, even if it looks perfect. Put another plug in its place.")
        : null;
}
