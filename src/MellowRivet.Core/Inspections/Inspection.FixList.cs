using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Inspections;

/// <summary>What a change in bulk came to.</summary>
/// <param name="Done">How many were changed.</param>
/// <param name="Refused">Those that weren't, with why.</param>
/// <param name="Refusal">Why none was; null where some were.</param>
public sealed record BulkChange(int Done, IReadOnlyList<string> Refused, Refusal? Refusal)
{
    /// <summary>A line for what was changed, and one for each that wasn't.</summary>
    public IReadOnlyList<string> InWords =>
        [$"{Done} changed.", .. Refused.Count == 0 ? [] : Refused.Prepend($"{Refused.Count} not:")];
}

// What was found, and the known marks that earlier inspections left.
public sealed partial class Inspection
{
    /// <summary>
    /// Asks the owner about everything that is open, but for known marks; about other work that has a price, and choices.
    /// </summary>
    public void AskAll(Guid by, DateTimeOffset at)
    {
        foreach (var found in Discrepancies.Where(found => found.Disposition == Disposition.Open
            && found.Class is not DiscrepancyClass.KnownMark))
            found.Move(Disposition.Asked, null, Terms, by, at);
        foreach (var work in pricedWork.Where(work => work is { Disposition: Disposition.Open, Estimate: not null }).ToList())
            Decide(work.Key, Disposition.Asked, by, at);
        foreach (var choice in choices.Where(choice => choice.Disposition == Disposition.Open).ToList())
            AskChoice(choice.Id, by, at);
    }

    /// <summary>Takes several discrepancies a step on, or classes them, at once. Those that can't go stay as they were.</summary>
    /// <param name="numbers">Which.</param>
    /// <param name="to">The step; null to class them.</param>
    /// <param name="class">The class; null to take them a step on.</param>
    /// <param name="words">Words to it, or why they are less.</param>
    /// <param name="signs">By which certificate whoever does it may sign; null for none.</param>
    /// <param name="classes">What classes go by.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    public BulkChange Change(IReadOnlyCollection<int> numbers, Disposition? to, DiscrepancyClass? @class, string? words, Certificate? signs,
        ClassRules classes, Guid by, DateTimeOffset at)
    {
        var ticked = Discrepancies.Where(found => numbers.Contains(found.Number)).OrderBy(found => found.Number).ToList();
        if (ticked.Count == 0)
            return new(0, [], new("bulk", "Tick those that it concerns first."));
        if ((to is null || !Enum.IsDefined(to.Value)) && (@class is null || !Enum.IsDefined(@class.Value)))
            return new(0, [], new("bulk", "Choose what to do with them."));
        Refusal? One(Discrepancy found) => to is { } step
            ? found.Move(step, words, Terms, by, at)
            : found.Classify(new(@class!.Value, found.Grounded, by, at, words, null, signs), classes,
                Tasks.FirstOrDefault(task => task.Id == found.TaskId));
        List<string> refused = [.. ticked.Select(found => (found, Refusal: One(found))).Where(one => one.Refusal is not null)
            .Select(one => $"{one.found.Number:00} {one.found.What}: {one.Refusal!.Message}")];
        var done = ticked.Count - refused.Count;
        return new(done, refused, done == 0 ? new("bulk", $"None was changed. {string.Join(" ", refused)}") : null);
    }

    private List<Discrepancy>? discrepancies;
    private List<KnownMark> knownMarks = [];

    public IReadOnlyList<Discrepancy> Discrepancies => Loaded.List(discrepancies);

    /// <summary>Whether a discrepancy can be at a place; null where it can.</summary>
    public Refusal? CheckPlace(string? zone, Guid? component, Aircraft aircraft) =>
        !HasZone(zone) ? new("zone", "Choose the zone it is in.")
        : component is { } part && aircraft.Fitting(part) is null ? new("component", "That part is not on this aircraft.")
        : null;

    /// <summary>
    /// Marks that earlier inspections found benign, each to be accepted or tested again. A test that was withdrawn is none.
    /// </summary>
    public IReadOnlyList<KnownMark> KnownMarks =>
        [.. knownMarks.Select(mark => Discrepancies.Any(found => found.Id == mark.TestedAs && found.Disposition == Disposition.Withdrawn)
            ? mark with { TestedAs = null }
            : mark)];

    /// <summary>Airworthiness items that are still open: they choose the statement.</summary>
    public IEnumerable<Discrepancy> OpenAirworthiness =>
        Discrepancies.Where(found => found.IsOpenAirworthiness).OrderBy(found => found.Number);

    /// <summary>Puts something on the fix list. The task it was found at becomes a discrepancy.</summary>
    public Discrepancy Find(Guid id, string what, string zoneKey, string where, DiscrepancyClass @class, bool grounded,
        InspectionTask? task, Guid by, DateTimeOffset at, Pin? pin = null, Origin? origin = null)
    {
        var number = Discrepancies.Count == 0 ? 1 : Discrepancies.Max(other => other.Number) + 1;
        var place = new Place(zoneKey, where, task is null
            ? null
            : $"{task.WorksheetKey}/{task.Key}", task?.ComponentId ?? PartOf(zoneKey), pin);
        var found = new Discrepancy(id, number, what, place, @class, grounded, task?.Id, by, at, origin);
        Loaded.List(discrepancies).Add(found);
        if (task is not null)
            Answer(task, TaskVerdict.Discrepancy, null, null, by, at);
        return found;
    }

    /// <summary>
    /// Puts something on the fix list as a person says it, by what its class may be. What is written down for a bad
    /// judgement belongs to that very one.
    /// </summary>
    /// <param name="id">The discrepancy's id, made by the device.</param>
    /// <param name="what">What was found.</param>
    /// <param name="zoneKey">The zone.</param>
    /// <param name="where">Where in it.</param>
    /// <param name="to">The class, and by what right.</param>
    /// <param name="task">The task it was found at; null in passing.</param>
    /// <param name="judged">The judgement it is about; null for none.</param>
    /// <param name="rules">What a class may be set to.</param>
    public (Discrepancy? Found, Refusal? Refusal) PutOnList(Guid id, string what, string zoneKey, string where, Classing to,
        InspectionTask? task, Judged? judged, ClassRules rules)
    {
        var (less, refusal) = rules.Decide(what, task, judged?.Origin, null, to);
        if (refusal is not null)
            return (null, refusal);
        var found = Find(id, what, zoneKey, where, to.Class, to.Grounded, task, to.By, to.At, null, judged?.Origin);
        found.Keep(less);
        return (found, null);
    }

    /// <summary>
    /// Puts the aircraft's open items on the fix list, each once. One in a zone that these worksheets don't walk stands under the
    /// first one: nothing is left behind for that.
    /// </summary>
    public void CarryIn(IEnumerable<OpenItem> items)
    {
        foreach (var item in items.Where(item => item.IsOpen && Discrepancies.All(found => found.CarriedFrom != item.Id))
            .OrderBy(item => item.Because).ThenBy(item => item.FirstNumber, StringComparer.Ordinal))
        {
            var zone = HasZone(item.ZoneKey) ? item.ZoneKey
                : JobOf is not null ? ZoneOf(item)
                : Tasks.OrderBy(task => task.Order).FirstOrDefault()?.ZoneKey ?? item.ZoneKey;
            var where = zone == item.ZoneKey ? item.Where : $"{item.ZoneTitle}{(item.Where.Length > 0 ? ", " + item.Where : "")}";
            var found = Find(Guid.CreateVersion7(), item.What, zone, where.Length > Discrepancy.LongestWhere
                ? where[..Discrepancy.LongestWhere]
                : where, item.Class, item.Grounded, null, item.FoundBy, item.FoundAt, item.Pin, item.Floor);
            found.Carry(item);
        }
    }

    /// <summary>The known marks that belong where a person stands.</summary>
    public IEnumerable<KnownMark> KnownMarksIn(string zoneKey) => KnownMarks.Where(mark => mark.Place.ZoneKey == zoneKey);

    /// <summary>Somebody looked at a known mark and accepts it with their initials, while its test still counts.</summary>
    public Refusal? AcceptKnownMark(Guid discrepancyId, Guid by, DateTimeOffset at, DateOnly today)
    {
        if (KnownMarks.FirstOrDefault(other => other.DiscrepancyId == discrepancyId) is not { } mark)
            return new("mark", "There is no such known mark on this aircraft.");
        if (mark.IsAnswered)
            return new("mark", "It is answered already.");
        if (mark.MayAccept(today) is { } refusal)
            return refusal;
        Change(mark with { Accepted = new(by, at) });
        return null;
    }

    /// <summary>Takes the acceptance of a known mark back.</summary>
    public void UnacceptKnownMark(Guid discrepancyId)
    {
        if (KnownMarks.FirstOrDefault(other => other.DiscrepancyId == discrepancyId) is { } mark)
            Change(mark with { Accepted = null });
    }

    /// <summary>Puts a known mark on this fix list to be tested again: an airworthiness item until the test says otherwise.</summary>
    public (Discrepancy? Found, Refusal? Refusal) TestKnownMarkAgain(Guid id, Guid discrepancyId, Guid by, DateTimeOffset at)
    {
        if (KnownMarks.FirstOrDefault(other => other.DiscrepancyId == discrepancyId) is not { TestedAs: null } mark)
            return (null, new("mark", "It is tested again already."));
        var found = Find(id, mark.What, mark.Place.ZoneKey, mark.Place.Where, DiscrepancyClass.Airworthiness, false, null, by, at,
            mark.Place.Pin);
        found.IsAgain(discrepancyId);
        Change(mark with { Accepted = null, TestedAs = found.Id });
        return (found, null);
    }

    private void Change(KnownMark mark) =>
        knownMarks = [.. knownMarks.Select(other => other.DiscrepancyId == mark.DiscrepancyId ? mark : other)];
}
