using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

/// <summary>How a bulletin was complied with at an inspection.</summary>
/// <param name="Method">Document, paragraph, revision.</param>
/// <param name="Finding">Something was found.</param>
/// <param name="Terminating">It was the action that ends it.</param>
/// <param name="Wording">The entry's wording, as it will be signed.</param>
/// <param name="Certificate">What the person holds that it takes; "" where it doesn't say.</param>
/// <param name="By">Who did it.</param>
/// <param name="At">When.</param>
public sealed record CompliedHere(string Method, bool Finding, bool Terminating, string Wording, string Certificate, Guid By,
    DateTimeOffset At);

/// <summary>A bulletin whose steps are tasks of this inspection.</summary>
/// <param name="BulletinId">The bulletin.</param>
/// <param name="Family">It, whatever its revision.</param>
/// <param name="Revision">The revision worked to.</param>
/// <param name="Title">Number and revision.</param>
/// <param name="ComponentId">The part it is about; null for the aircraft.</param>
/// <param name="ZoneKey">The zone its tasks stand in.</param>
/// <param name="Complied">How it was complied with; null until somebody says.</param>
public sealed record BulletinWork(Guid BulletinId, string Family, string Revision, string Title, Guid? ComponentId, string ZoneKey,
    CompliedHere? Complied);

// Bulletins that are done at this inspection: each one's steps are tasks in a zone of its own.
public sealed partial class Inspection
{
    private List<BulletinWork> bulletins = [];

    /// <summary>Bulletins that are done at this inspection.</summary>
    public IReadOnlyList<BulletinWork> Bulletins => bulletins;

    // The sheet that a bulletin’s steps stand on, by the bulletin’s place among those that were taken in.
    private static string BulletinSheet(int index) => $"bulletin-{index + 1}";

    public BulletinWork? WorkOf(BulletinLine line) =>
        bulletins.FirstOrDefault(work => work.BulletinId == line.Held.Id && work.ComponentId == line.On?.ComponentId);

    public BulletinWork? BulletinIn(string? zoneKey) => bulletins.FirstOrDefault(work => work.ZoneKey == zoneKey);

    /// <summary>Makes a bulletin's steps tasks of this inspection. One that can't be told yet is taken in to be found out.</summary>
    public Refusal? TakeInBulletin(BulletinLine line)
    {
        if (WorkOf(line) is not null)
            return new("bulletin", "Its steps are tasks here already.");
        if (line.State is BulletinState.Superseded or BulletinState.DoesNotApply)
            return new("bulletin", line.State == BulletinState.Superseded
                ? line.Why
                : "It doesn’t apply here. Adopt it as own policy first, with the reason.");
        var bulletin = line.Bulletin;
        var zone = new WorksheetZone($"b-{bulletins.Count + 1}", $"{bulletin.Title}, {line.Subject}", Station.Bulletins, BookOf(line.On),
            [], bulletin.LabourHours, Looks: false);
        IEnumerable<WorksheetTask> steps = bulletin.Steps.Count == 0
            ? [new("step-1", $"Comply with {bulletin.Title}: {bulletin.Subject}", bulletin.Method)]
            : bulletin.Steps.Select(
                (step, index) => new WorksheetTask($"step-{index + 1}", step.Text + (step.Torque is { } torque ? $" ({torque})" : ""),
                    $"{bulletin.Title}, step {index + 1}", Cautions(step), step.Measure,
                Kind: step.Measure is null ? TaskKind.Inspect : TaskKind.Measure, SecondPerson: line.Rule.Binds));
        if (line.Answer.Answer == RuleAnswer.CannotTell)
            steps = steps.Prepend(new("find-out",
                $"Find out whether it applies. Read off: "
                + $"{string.Join("; ", line.Answer.Missing.Select(name => FactName.Read(name)?.InWords ?? name))}", bulletin.Title));
        var sheet = new Worksheet(BulletinSheet(bulletins.Count), $"{bulletin.Issuer}, {bulletin.Title}", 1, "", []);
        worksheets = [.. worksheets, new(sheet.Key, sheet.Title, 1, bulletin.LabourHours ?? 0)];
        var order = Tasks.Select(task => task.Order).Concat(notDue.Select(task => task.Order)).DefaultIfEmpty(-1).Max() + 1;
        foreach (var step in steps)
            Add(new(order++, sheet, zone, step, line.On?.ComponentId, new(true, false, $"{line.Force}, {line.State.InWords()}"),
                null), null);
        bulletins = [.. bulletins,
            new(line.Held.Id, line.Held.Family, line.Held.Revision, bulletin.Title, line.On?.ComponentId, zone.Key, null)];
        return null;
    }

    /// <summary>
    /// Says how a bulletin was complied with, once all its steps are answered. Who says so has to hold what the bulletin asks for.
    /// </summary>
    public Refusal? ComplyWith(Bulletin bulletin, string zoneKey, string? method, bool finding, bool terminating, string? wording,
        Person person, DateOnly on, DateTimeOffset at)
    {
        if (BulletinIn(zoneKey) is not { } work)
            return new("bulletin", "It isn’t one of this inspection’s.");
        if (Tasks.FirstOrDefault(task => task.ZoneKey == zoneKey && task.Verdict == TaskVerdict.NotYet) is { } open)
            return new("bulletin", $"Not done yet: {open.Text}.");
        if (Discrepancies.FirstOrDefault(found => found.ZoneKey == zoneKey && found.IsOpen && found.TaskId is not null && !finding)
            is { } left)
            return new("finding", $"{left.What} is open on the fix list: then there was a finding.");
        if (Qualification.Check(bulletin, person, on) is { } refusal)
            return refusal;
        if (string.IsNullOrWhiteSpace(method) || method.Trim().Length > 300)
            return new("method", "Say how it was complied with: document, paragraph, revision, up to 300 characters.");
        if (terminating && bulletin.Compliance.Terminating is null)
            return new("terminating", "It names no action that ends it.");
        if (string.IsNullOrWhiteSpace(wording) || wording.Trim().Length > 1_000)
            return new("wording", "The entry needs its words, up to 1000 characters.");
        var holding = person.Certificates.Where(certificate => certificate.HoldsOn(on)).ToList();
        var held = holding.Find(certificate => bulletin.By?.Contains(certificate.Kind) ?? false) ?? holding.FirstOrDefault();
        bulletins = [.. bulletins.Select(other => other == work
            ? work with
            { Complied = new(method.Trim(), finding, terminating, wording.Trim(), held is null
                ? ""
                : $"{held.Kind.InWords()}, {held.Number}", person.Id, at) }
            : other)];
        return null;
    }

    /// <summary>A step that came from a bulletin was answered otherwise: how it was complied with has to be said again.</summary>
    internal void Reconsider(string zoneKey)
    {
        if (BulletinIn(zoneKey) is { Complied: not null } work
            && Tasks.Any(task => task.ZoneKey == zoneKey && task.Verdict == TaskVerdict.NotYet))
            bulletins = [.. bulletins.Select(other => other == work ? work with { Complied = null } : other)];
    }

    private static string? Cautions(BulletinStep step) => string.Join(" ", new[]
    {
        step.Caution, TorquePair.Judge(step.Torque) is { Verdict: not Verdict.Good } pair ? $"{pair.Rule}. {pair.Next}" : null,
    }.OfType<string>()) is { Length: > 0 } words ? words : null;

    private static Book BookOf(Installation? on) => on?.Component.Kind switch
    {
        ComponentKind.Propeller => Book.Propeller,
        ComponentKind.Engine or ComponentKind.Cylinder or ComponentKind.Magneto or ComponentKind.ElectronicIgnition
            or ComponentKind.Carburettor or ComponentKind.Gearbox or ComponentKind.Crankshaft or ComponentKind.Plug => Book.Engine,
        _ => Book.Airframe,
    };
}
