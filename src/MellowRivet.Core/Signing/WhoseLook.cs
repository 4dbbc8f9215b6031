using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Signing;

/// <summary>
/// Which looks the person who signs has to take: at every zone, or at airworthiness items and what people without a certificate did.
/// </summary>
public enum LookSchool { EveryZone = 1, WhatCounts }

/// <summary>The school that some kinds of inspection on some categories go by, unless the house has its own.</summary>
public sealed record LookRule(IReadOnlyList<InspectionKind> Inspections, IReadOnlyList<Category> Categories, LookSchool School,
    RuleSource Source);

/// <summary>Somebody who may sign has looked at a zone.</summary>
/// <param name="ZoneKey">The zone.</param>
/// <param name="By">Who.</param>
/// <param name="At">When: what somebody else changes afterwards wants a new look.</param>
/// <param name="Except">Tasks that the look doesn't take in.</param>
public sealed record SignersLook(string ZoneKey, Guid By, DateTimeOffset At, IReadOnlyList<Guid> Except);

/// <summary>Who did a zone, who looked, and what waits for the look that counts.</summary>
/// <param name="ZoneKey">The zone.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Station">The station it stands at.</param>
/// <param name="DoneBy">Who answered its tasks.</param>
/// <param name="Look">The look of somebody who may sign; null where there is none.</param>
/// <param name="Waiting">What waits, in words.</param>
/// <param name="Open">Tasks that nobody has answered.</param>
public sealed record ZoneState(string ZoneKey, string Title, Station Station, IReadOnlyList<Guid> DoneBy, SignersLook? Look,
    IReadOnlyList<string> Waiting, int Open);

/// <summary>
/// Whose look counts (14 CFR 43.3(d), 65.81, 65.95, from memory): what a helper opened and showed is inspected once
/// somebody who may sign has looked.
/// </summary>
public static class WhoseLook
{
    public static LookSchool SchoolOf(Inspection inspection, Aircraft aircraft, ShopRules rules) => inspection.House.SignersLook
        ?? rules.Pack.Looks?.FirstOrDefault(rule => rule.Inspections.Contains(inspection.Kind)
            && rule.Categories.Contains(aircraft.Category))?.School ?? LookSchool.WhatCounts;

    /// <summary>Every zone of the walk, in order.</summary>
    public static IReadOnlyList<ZoneState> Of(Inspection inspection, Aircraft aircraft, ShopRules rules)
    {
        var weigh = new Weigh(inspection, aircraft, rules);
        return [.. inspection.Tasks.Where(task => task.TiedTo is null).OrderBy(task => task.Order).GroupBy(task => task.ZoneKey)
            .Select(zone => weigh.Zone(zone.Key, [.. zone]))];
    }

    /// <summary>Whether what was said of a task is the word of somebody who may sign, or was looked at by them since.</summary>
    public static bool Counts(InspectionTask task, Inspection inspection, Aircraft aircraft, ShopRules rules) =>
        new Weigh(inspection, aircraft, rules).IsSeen(task);

    // Who may sign is asked once for each person.
    private sealed class Weigh(Inspection inspection, Aircraft aircraft, ShopRules rules)
    {
        private readonly Dictionary<(Guid Person, DateOnly On), bool> signs = [];
        private readonly LookSchool school = SchoolOf(inspection, aircraft, rules);

        public ZoneState Zone(string key, IReadOnlyList<InspectionTask> tasks)
        {
            var look = LookAt(key);
            List<string> waiting = [.. tasks.Where(task => task.Verdict != TaskVerdict.NotYet && !IsEnough(task))
                .Select(task => task.Text)];
            waiting.AddRange(inspection.Discrepancies.Where(found => found.ZoneKey == key && found.Correction is not null
                && !IsEnough(found)).OrderBy(found => found.Number)
                .Select(found => $"what was done about {inspection.WorkOrder}-{found.Number:00}, {found.What}"));
            waiting.AddRange(inspection.Discrepancies.Where(found => found
                is { Disposition: Disposition.Withdrawn, Class: DiscrepancyClass.Airworthiness } && found.ZoneKey == key
                    && !IsEnough(found.Steps[^1].By, found.Steps[^1].At, key, true))
                .OrderBy(found => found.Number).Select(found => $"{inspection.WorkOrder}-{found.Number:00}, {found.What}, withdrawn"));
            waiting.AddRange(inspection.Discrepancies.Where(found => found.ZoneKey == key && found.Class != DiscrepancyClass.Airworthiness
                && found.Lowered.LastOrDefault(less => less.From == DiscrepancyClass.Airworthiness) is { } less
                && !IsEnough(less.By, less.At, key, true))
                .OrderBy(found => found.Number).Select(found => $"{inspection.WorkOrder}-{found.Number:00}, {found.What}, set lower"));
            var sheets = Changes(key).Where(change => !IsEnough(change.By, change.At, key, false)).ToList();
            if (sheets.Count > 0)
                waiting.Add($"{sheets.Count} {(sheets.Count == 1 ? "value or look" : "values and looks")} on the engine’s sheets");
            return new(key, tasks[0].ZoneTitle, tasks[0].Station,
                [.. tasks.Where(task => task.By is not null).Select(task => task.By!.Value).Distinct()], look, waiting,
                tasks.Count(task => task.Verdict == TaskVerdict.NotYet));
        }

        public bool IsSeen(InspectionTask task)
        {
            // A value that somebody else changed afterwards is not the one that was looked at.
            var changed = inspection.Readings.Where(reading => reading.TaskId == task.Id && !Signs(reading.PersonId, reading.LastAt))
                .Select(reading => (DateTimeOffset?)inspection.KnownAt(reading.PersonId, reading.LastAt)).Max();
            bool Stands(DateTimeOffset? at) => at is { } when && (changed is null || changed <= when);
            return (Signs(task.By, task.At) && Stands(task.At)) || (Signs(task.InspectedBy, task.InspectedAt) && Stands(task.InspectedAt))
                || (LookAt(task.ZoneKey) is { } look && task.At is { } answered
                    && inspection.KnownAt(task.By, answered) <= look.At && !look.Except.Contains(task.Id) && Stands(look.At));
        }

        private bool IsEnough(InspectionTask task) => IsSeen(task)
            || (school == LookSchool.WhatCounts && rules.IsCertificated(task.By) && !task.SecondPerson
                && !inspection.TiedWith(task).Any(tied => tied.SecondPerson)
                && !inspection.Discrepancies.Any(found => found.TaskId == task.Id && found.Class == DiscrepancyClass.Airworthiness));

        private bool IsEnough(Discrepancy found) =>
            Signs(found.InspectedBy, found.InspectedAt)
                || IsEnough(found.CorrectedBy, found.CorrectedAt
                    ?? found.FoundAt, found.ZoneKey, found.Class == DiscrepancyClass.Airworthiness);

        private bool IsEnough(Guid? by, DateTimeOffset at, string zone, bool airworthiness) =>
            Signs(by, at) || (LookAt(zone) is { } look && inspection.KnownAt(by, at) <= look.At)
            || (school == LookSchool.WhatCounts && rules.IsCertificated(by) && !airworthiness);

        private SignersLook? LookAt(string zone) =>
            inspection.SignersLooks.FirstOrDefault(look => look.ZoneKey == zone && Signs(look.By, look.At));

        // By a certificate that holds still, or held when they looked.
        private bool Signs(Guid? person, DateTimeOffset? at)
        {
            if (person is not { } id)
                return false;
            return Holds(id, rules.Today) || (at is { } when && Holds(id, rules.Clock.DayOf(when)));
        }

        private bool Holds(Guid person, DateOnly on)
        {
            if (!signs.TryGetValue((person, on), out var may))
                signs[(person, on)] = may = rules.SignsBy(person, inspection, aircraft, on) is not null;
            return may;
        }

        // Everything on an engine's own pages belongs to that engine's zone.
        private IEnumerable<(Guid By, DateTimeOffset At)> Changes(string zone)
        {
            foreach (var engine in aircraft.Engines.Where(engine => inspection.EngineZone(engine) == zone))
            {
                var parts = aircraft.SittingOn(engine.ComponentId).Select(stay => stay.ComponentId).Append(engine.ComponentId).ToHashSet();
                foreach (var reading in inspection.Readings.Where(reading => reading.TaskId is null && reading.ComponentId is { } part
                    && parts.Contains(part)))
                    yield return (reading.PersonId, reading.LastAt);
                foreach (var check in inspection.SheetChecks.Where(check => parts.Contains(check.ComponentId)))
                    yield return (check.By, check.At);
                foreach (var mark in inspection.PlugNotes.Where(mark => parts.Contains(mark.PlugId)))
                    yield return (mark.By, mark.At);
                foreach (var cut in inspection.FilterCuts.Where(cut => cut.EngineId == engine.ComponentId))
                    yield return (cut.By, cut.At);
            }
        }
    }
}
