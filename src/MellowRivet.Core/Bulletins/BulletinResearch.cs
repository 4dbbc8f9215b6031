using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Bulletins;

/// <summary>A fact that bulletins wait for, with how many.</summary>
/// <param name="Name">The fact's name.</param>
/// <param name="On">The part it is read off, or sits on; null for the aircraft.</param>
/// <param name="Subject">What it is read off, in words.</param>
/// <param name="Waiting">The bulletins that wait for it.</param>
public sealed record MissingFact(string Name, Installation? On, string Subject, IReadOnlyList<BulletinLine> Waiting);

/// <summary>Every bulletin of the shop as it stands on one aircraft.</summary>
/// <param name="Lines">What calls for a hand first.</param>
public sealed record BulletinResearch(IReadOnlyList<BulletinLine> Lines)
{
    public static readonly BulletinResearch None = new([]);


    /// <summary>What has to be read off the aircraft: each fact once, with all that waits for it.</summary>
    public IEnumerable<MissingFact> Missing =>
        Lines.Where(line => line.State == BulletinState.CannotTell && line.Answer.Answer == RuleAnswer.CannotTell)
        .SelectMany(line => line.Answer.Missing.Select(name => (name, line)))
        .GroupBy(pair => (pair.name, pair.line.On?.ComponentId))
        .Select(group => new MissingFact(group.Key.name, group.First().line.On, group.First().line.Subject,
            [.. group.Select(pair => pair.line)]))
        .OrderByDescending(fact => fact.Waiting.Count(line => line.Rule.Binds)).ThenByDescending(fact => fact.Waiting.Count);

    /// <summary>What keeps the aircraft on the ground.</summary>
    public IEnumerable<BulletinLine> Grounding(decimal aircraftHours) => Lines.Where(line => line.Grounds(aircraftHours));

    public BulletinLine? Find(string? key) => Lines.FirstOrDefault(line => line.Key == key);

    /// <summary>Looks every bulletin up for one aircraft.</summary>
    /// <param name="list">The shop's bulletins.</param>
    /// <param name="followUps">What was decided and done on this aircraft and its parts.</param>
    /// <param name="stated">Facts that were read off it and off its parts.</param>
    /// <param name="rules">The rule pack's rules of what binds; null where it has none.</param>
    /// <param name="line">Its due line without bulletins.</param>
    /// <param name="readings">Its meter readings.</param>
    /// <param name="whole">With those that don't apply, and why; else only with those that concern it.</param>
    public static BulletinResearch Of(BulletinList list, IReadOnlyCollection<BulletinFollowUp> followUps,
        IReadOnlyCollection<StatedFact> stated,
        IReadOnlyList<BindingRule>? rules, DueLine line, IReadOnlyCollection<MeterReading> readings, bool whole = true)
    {
        if (list.All.Count == 0)
            return None;
        var aircraft = line.Aircraft;
        var hours = readings.Where(reading => reading.Kind == aircraft.TimeBasis).OrderBy(reading => reading.On)
            .ThenBy(reading => reading.Total).ToList();
        ClockBasis basis = new(line, day => hours.LastOrDefault(reading => reading.On <= day)?.Total, Made(aircraft, stated));
        var byKind = aircraft.Installations.Where(stay => stay.IsOn).ToLookup(stay => stay.Component.Kind);
        var facts = new Dictionary<Guid, AircraftFacts>();
        var byTarget = followUps.ToLookup(one => (one.Family, Target: one.ComponentId ?? Guid.Empty));
        List<BulletinLine> lines = [];
        foreach (var held in list.All)
            foreach (var on in held.Bulletin.About is { } kind && byKind[kind].Any() ? byKind[kind].Cast<Installation?>() : [null])
            {
                var seen = facts.TryGetValue(on?.ComponentId ?? Guid.Empty, out var there)
                    ? there
                    : facts[on?.ComponentId ?? Guid.Empty] = new AircraftFacts(aircraft, stated, list.Types, on);
                var answer = seen.Put(held.Bulletin.AppliesTo);
                // Most of a shop's bulletins are about other aircraft: they are left at the first fact that says so.
                if (whole || answer.Answer != RuleAnswer.DoesNotApply || byTarget.Contains((held.Family, on?.ComponentId ?? Guid.Empty)))
                    lines.Add(Line(list, held, on, seen, answer, byTarget, rules, basis));
            }
        if (!whole)
            lines.RemoveAll(one => one.State == BulletinState.DoesNotApply);
        return new([.. lines.OrderByDescending(one => one.State).ThenBy(one => one.Due?.Status.Forecast ?? DateOnly.MaxValue)
            .ThenByDescending(one => one.Bulletin.Effective).ThenBy(one => one.Bulletin.Number, StringComparer.Ordinal)]);
    }

    private static BulletinLine Line(BulletinList list, ShopBulletin held, Installation? on, AircraftFacts facts, Applicability answer,
        ILookup<(string, Guid), BulletinFollowUp> followUps, IReadOnlyList<BindingRule>? rules, ClockBasis basis)
    {
        var bulletin = held.Bulletin;
        var place = on is null ? "" : basis.Line.Aircraft.PlaceOf(on);
        // About a part that isn't on file: even where the rest of the rule holds, nobody knows whether one is fitted.
        if (answer.Answer == RuleAnswer.Applies && on is null && bulletin.About is { } about
            && facts.Of($"{Slug(about)}.fitted") is var fitted && !fitted.Values.Contains(YesNo.Yes))
            answer = fitted.Values.Contains(YesNo.No)
                ? new(RuleAnswer.DoesNotApply, [], [Reason.Said($"no {about.InWords()} is fitted")])
                : new(RuleAnswer.CannotTell, [$"{Slug(about)}.serial"],
                    [.. answer.Reasons, Reason.Said($"no {about.InWords()} is on file")]);
        var rule = BindingRule.For(bulletin.Kind, basis.Line.Aircraft.Category, rules);
        var target = on?.ComponentId ?? Guid.Empty;
        var own = followUps[(held.Family, target)].FirstOrDefault();
        var superseded = list.SupersededBy(held);
        BulletinLine Said(BulletinState state, string why, Complied? last = null, DueEntry? due = null) =>
            new(held, on, place, answer, rule, own, last, due, state, why, superseded);

        var replaced = superseded is null
            ? ""
            : $"{superseded.Bulletin.Title} took its place on {superseded.Bulletin.Effective:yyyy-MM-dd}.";
        if (superseded is not null && answer.Answer != RuleAnswer.DoesNotApply)
            return Said(BulletinState.Superseded, replaced);
        var adopted = own?.Policy is { Kind: PolicyKind.Adopted };
        if (!adopted && answer.Answer == RuleAnswer.CannotTell)
            return Said(BulletinState.CannotTell,
                string.Join(". ", answer.Because.Prepend($"Read off: {string.Join("; ", answer.Missing.Select(Spoken))}")));
        if ((!adopted || superseded is not null) && answer.Answer == RuleAnswer.DoesNotApply)
            return Said(BulletinState.DoesNotApply, string.Join("; ", answer.Because) + (replaced.Length > 0 ? $". {replaced}" : ""));
        var binds = rule.Binds && answer.Answer == RuleAnswer.Applies;
        if (!binds && own?.Policy is { Kind: PolicyKind.Declined } declined)
            return Said(BulletinState.Declined, declined.Reason);

        var last = BulletinList.Lineage(held).SelectMany(family => followUps[(family, target)])
            .SelectMany(one => one.Done.Where(done => one.Family != held.Family || bulletin.Compliance.EarlierCounts
                || string.Equals(done.Revision, held.Revision, StringComparison.OrdinalIgnoreCase)))
            .MaxBy(done => done.On);
        if (!binds && !adopted && last is null)
            return Said(BulletinState.Advisory, "Adopt it as own policy, or decline it with a reason.");
        var (due, flight) = ComplianceClock.Of(held, on, place, last, binds, basis);
        if (due is null)
            return Said(BulletinState.Done, last!.Terminating
                ? $"Ended by {bulletin.Compliance.Terminating} on {last.On:yyyy-MM-dd}."
                : $"Done {last.On:yyyy-MM-dd}, {last.Method}.", last);
        var state = flight ? BulletinState.BeforeFlight : due.Status.State switch
        {
            DueState.Overdue => BulletinState.Overdue,
            DueState.Unknown => BulletinState.CannotTell,
            DueState.Soon or DueState.Grace => BulletinState.Soon,
            _ => BulletinState.Ahead,
        };
        var why = due.Status.Why.Length > 0 ? due.Status.Why : last is null
            ? $"{bulletin.Compliance.InWords}."
            : $"Done {last.On:yyyy-MM-dd}{(last.Finding ? " with a finding" : "")}, again "
            + $"{(last.Finding && bulletin.Compliance.AfterFinding is { } sooner ? sooner : bulletin.Compliance.Repeat!).InWords}.";
        var said = Said(state, char.ToUpperInvariant(why[0]) + why[1..], last, due);
        return said with { Due = due with { Bulletin = said } };
    }

    private static DateOnly? Made(Aircraft aircraft, IReadOnlyCollection<StatedFact> stated) =>
        new AircraftFacts(aircraft, stated, TypeList.Empty, null).Of("aircraft.made").Values is [var day]
            && DateOnly.TryParse(day, System.Globalization.CultureInfo.InvariantCulture, out var made) ? made : null;

    private static string Slug(ComponentKind kind) => char.ToLowerInvariant(kind.ToString()[0]) + kind.ToString()[1..];

    private static string Spoken(string name) => FactName.Read(name)?.InWords ?? name;
}
