using System.Collections.Concurrent;
using System.Collections.Frozen;
using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Hangar;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>One aircraft as it stands: what is due, its bulletins, its line in the hangar; and of which changes that was drawn.</summary>
/// <param name="Changes">The changes of its file.</param>
/// <param name="Due">What is due on it, with its bulletins.</param>
/// <param name="Shown">Its line in the hangar; null before anybody asked for it.</param>
public sealed record AircraftStanding(int Changes, DueLine Due, HangarShown? Shown)
{
    /// <summary>Its line in the hangar.</summary>
    public HangarLine Hangar => Shown!.Line;
}

/// <summary>A line of the hangar, and what it was drawn from.</summary>
/// <param name="From">What was due then.</param>
/// <param name="By">The shop's people then.</param>
/// <param name="WorkId">The inspection it shows; null where there never was one.</param>
/// <param name="WorkChanges">The changes of that.</param>
/// <param name="Line">The line.</param>
public sealed record HangarShown(DueLine From, IReadOnlyDictionary<Guid, Person> By, Guid? WorkId, int WorkChanges, HangarLine Line);

/// <summary>One item that falls due in the shop, on its aircraft's line.</summary>
public sealed record ShopDue(DueLine Line, DueEntry Entry);

/// <summary>The whole shop as it stands, on one day and after so many changes. Published whole, and only read from then on.</summary>
/// <param name="Day">The day.</param>
/// <param name="Counts">What had been changed when it was drawn.</param>
/// <param name="Bulletins">The shop's bulletins and types.</param>
/// <param name="Aircraft">Every aircraft, by registration.</param>
/// <param name="Tally">How each bulletin falls on the shop; those that concern no aircraft are left out.</param>
/// <param name="People">The shop's people.</param>
public sealed record ShopStanding(DateOnly Day, ChangeCounts Counts, BulletinList Bulletins, IReadOnlyList<AircraftStanding> Aircraft,
    IReadOnlyDictionary<Guid, BulletinTally> Tally, IReadOnlyDictionary<Guid, Person> People)
{
    private readonly FrozenDictionary<Guid, AircraftStanding> byId = ById(Aircraft);
    private readonly Lazy<ModelsOnFile> models = ModelsOf(Aircraft);
    private readonly Lazy<IReadOnlyList<ShopDue>> due = DueOf(Aircraft);

    public IReadOnlyList<AircraftStanding> Aircraft
    {
        get;
        init => (field, byId, models, due) = (value, ById(value), ModelsOf(value), DueOf(value));
    } = Aircraft;

    /// <summary>The names of models on its aircraft and their parts.</summary>
    public ModelsOnFile Models => models.Value;

    /// <summary>One aircraft; null where it came in since.</summary>
    public AircraftStanding? this[Guid aircraftId] => byId.GetValueOrDefault(aircraftId);

    /// <summary>What falls due on any of them, most urgent first.</summary>
    public IReadOnlyList<ShopDue> Due => due.Value;

    private static Lazy<IReadOnlyList<ShopDue>> DueOf(IReadOnlyList<AircraftStanding> aircraft) => new(() =>
        [.. aircraft.Where(IsFollowed).SelectMany(one => one.Due.Entries.Select(entry => new ShopDue(one.Due, entry)))
            .OrderBy(due => DueLine.Rank(due.Entry.Status.State)).ThenBy(due => due.Entry.Status.Forecast ?? DateOnly.MaxValue)]);

    private static Lazy<ModelsOnFile> ModelsOf(IReadOnlyList<AircraftStanding> aircraft) =>
        new(() => new(aircraft.Select(one => one.Due.Aircraft)));

    private static FrozenDictionary<Guid, AircraftStanding> ById(IEnumerable<AircraftStanding> aircraft) =>
        aircraft.ToFrozenDictionary(one => one.Due.Aircraft.Id);

    /// <summary>Those that the shop looks after: one that is only surveyed isn't in the hangar.</summary>
    public IEnumerable<AircraftStanding> Followed => Aircraft.Where(IsFollowed);

    private static bool IsFollowed(AircraftStanding one) => !one.Due.Aircraft.OnlySurveyed;

    public IEnumerable<DueLine> Lines => Followed.Select(one => one.Due);

    /// <summary>The due lines that somebody sees.</summary>
    public IEnumerable<DueLine> LinesFor(Sight sight) => Lines.Where(line => sight.Sees(line.Aircraft.Id));

    /// <summary>What falls due, most urgent first, of what somebody sees.</summary>
    public IReadOnlyList<ShopDue> DueFor(Sight sight) =>
        sight.IsWhole ? Due : [.. Due.Where(due => sight.Sees(due.Line.Aircraft.Id))];
}

/// <summary>On how many aircraft a bulletin applies, can't be told, and is due now.</summary>
public sealed record BulletinTally(int Applies, int CannotTell, int Due)
{
    public static readonly BulletinTally Nowhere = new(0, 0, 0);
}

/// <summary>
/// What is kept of the shop between requests: the latest <see cref="ShopStanding"/>. One request draws the next one and
/// everybody else waits for it; at midnight they see yesterday's, which says its day, until today's is there.
/// </summary>
public sealed class KeptStanding : Kept<ShopStanding>
{
    /// <summary>Of so many aircraft every bulletin is kept with why it doesn't apply: those that somebody is at.</summary>
    public const int MostWhole = 8;

    // By the very due line that it goes with: drawn anew, that is another one.
    private readonly ConcurrentDictionary<object, BulletinResearch> whole = new(ReferenceEqualityComparer.Instance);

    /// <summary>Every bulletin on an aircraft, as it went with its due line; null where it isn't kept.</summary>
    internal BulletinResearch? WholeOf(DueLine line) => whole.GetValueOrDefault(line);

    internal void KeepWhole(DueLine line, BulletinResearch research)
    {
        if (whole.Count >= MostWhole)
            whole.Clear();
        whole[line] = research;
    }
}

/// <summary>The shop as it stands, for whoever asks: every due line, bulletin and line of the hangar comes from here.</summary>
public sealed class ShopBoard(RivetDb db, KeptStanding kept, Shelf shelf, TimeProvider clock)
{
    /// <summary>The shop now, with the hangar's lines.</summary>
    public Task<ShopStanding> NowAsync(CancellationToken stop) => GetAsync(hangar: true, stop);

    /// <summary>What is kept of the shop now; of its hangar only what was drawn already.</summary>
    public Task<ShopStanding> StandingAsync(CancellationToken stop) => GetAsync(hangar: false, stop);

    // Whoever works on an inspection asks for what is due, which that work doesn't change: only the hangar follows every verdict.
    private async Task<ShopStanding> GetAsync(bool hangar, CancellationToken stop)
    {
        var today = clock.Today();
        var counts = await ChangeCounts.NowAsync(db, stop);
        bool Covers(ShopStanding there) => there.Counts.CoverFiles(counts) && (!hangar || there.Counts.Cover(counts));
        return await kept.GetAsync(there => there.Day == today
            && Covers(there), there => DrawAsync(there, today, hangar, stop), stop, there => there.Day < today && Covers(there));
    }

    /// <summary>What is due on one aircraft, with its bulletins.</summary>
    /// <exception cref="InvalidOperationException">There is no such aircraft.</exception>
    public async Task<DueLine> LineAsync(Guid aircraftId, CancellationToken stop) =>
        (await GetAsync(hangar: false, stop))[aircraftId]?.Due ?? throw new InvalidOperationException("There is no such aircraft.");

    /// <summary>The shop's people.</summary>
    public async Task<IReadOnlyDictionary<Guid, Person>> PeopleAsync(CancellationToken stop) =>
        (await GetAsync(hangar: false, stop)).People;

    /// <summary>The shop's bulletins and types.</summary>
    public async Task<BulletinList> BulletinsAsync(CancellationToken stop) => (await GetAsync(hangar: false, stop)).Bulletins;

    /// <summary>One aircraft's bulletins with those that don't apply and why.</summary>
    public async Task<BulletinResearch> ResearchAsync(Guid aircraftId, CancellationToken stop)
    {
        var shop = await StandingAsync(stop);
        var line = shop[aircraftId]?.Due ?? throw new InvalidOperationException("There is no such aircraft.");
        if (kept.WholeOf(line) is { } there)
            return there;
        var whole = (await db.DueLinesAsync([aircraftId], shop.Bulletins, shelf.RulesFor, clock.Today(), whole: true, stop))[0].Research;
        kept.KeepWhole(line, whole);
        return whole;
    }

    /// <summary>
    /// One aircraft's due line with all its bulletins as they are within a write: what came in until its turn counts. The bulletins
    /// are those that are kept, where none was changed since.
    /// </summary>
    public async Task<DueLine> InTurnAsync(Guid aircraftId, CancellationToken stop)
    {
        var (today, counts) = (clock.Today(), await ChangeCounts.NowAsync(db, stop));
        var list = kept.Latest is { } there && there.Day == today && there.Counts.Bulletins == counts.Bulletins
            && there.Counts.Types == counts.Types
            ? there.Bulletins : new(await db.Bulletins.AsNoTracking().ToListAsync(stop), await db.TypeListAsync(stop), today);
        return (await db.DueLinesAsync([aircraftId], list, shelf.RulesFor, today, whole: true, stop))[0];
    }

    // Only what changed is drawn anew: an aircraft by the changes of its file, its line in the hangar by those of
    // the inspection it shows as well.
    private async Task<ShopStanding> DrawAsync(ShopStanding? before, DateOnly today, bool hangar, CancellationToken stop)
    {
        // Read before what they stand for: what is drawn may be newer than its counts, never older.
        var counts = await ChangeCounts.NowAsync(db, stop);
        var sameList = before is not null && before.Day == today && before.Counts.Bulletins == counts.Bulletins
            && before.Counts.Types == counts.Types;
        var list = sameList ? before!.Bulletins
            : new BulletinList(await db.Bulletins.AsNoTracking().ToListAsync(stop), await db.TypeListAsync(stop), today);
        var files = await FilesAsync(sameList ? before : null, counts, list, today, stop);
        // A line of the hangar that was drawn from what was due before is no line of now.
        var same = before is not null && files == before.Aircraft ? before : null;
        var people = before is not null && before.Counts.People == counts.People
            ? before.People
            : await db.People.AsNoTracking().ToDictionaryAsync(person => person.Id, stop);
        var now = new ShopStanding(today, counts with { Work = same is not null && same.People == people ? same.Counts.Work : -1 }, list,
            files, same?.Tally ?? TallyOf(files), people);
        return hangar ? await ShowAsync(now, counts, stop) : now;
    }

    private async Task<IReadOnlyList<AircraftStanding>> FilesAsync(ShopStanding? before, ChangeCounts counts, BulletinList list,
        DateOnly today,
        CancellationToken stop)
    {
        if (before is not null && before.Counts.Fleet == counts.Fleet)
            return before.Aircraft;
        var fleet = await db.Aircraft.AsNoTracking().OrderBy(aircraft => aircraft.Registration)
            .Select(aircraft => new { aircraft.Id, aircraft.Changes }).ToListAsync(stop);
        var stale = fleet.Where(row => before?[row.Id]?.Changes != row.Changes).Select(row => row.Id).ToList();
        var due = stale.Count == 0
            ? []
            : (await db.DueLinesAsync(stale, list, shelf.RulesFor, today, whole: false, stop)).ToDictionary(line => line.Aircraft.Id);
        return [.. fleet.Where(row => due.ContainsKey(row.Id) || before?[row.Id] is not null)
            .Select(row => due.TryGetValue(row.Id, out var line)
                ? new AircraftStanding(row.Changes, line, before?[row.Id]?.Shown)
                : before![row.Id]!)];
    }

    private async Task<ShopStanding> ShowAsync(ShopStanding now, ChangeCounts counts, CancellationToken stop)
    {
        var works = await WorksAsync(stop);
        var stale = now.Aircraft.Where(one => one.Shown is not { } shown || shown.From != one.Due || shown.By != now.People
            || works.GetValueOrDefault(one.Due.Aircraft.Id) is var work
            && (shown.WorkId != work?.Id || shown.WorkChanges != (work?.Changes ?? 0))).Select(one => one.Due).ToList();
        var lines = stale.Count == 0 ? [] : await HangarAsync(stale, works, now.People, stop);
        return now with
        {
            Counts = counts,
            Aircraft = [.. now.Aircraft.Select(one => lines.TryGetValue(one.Due.Aircraft.Id, out var line)
                ? one with
                { Shown = new(one.Due, now.People, works.GetValueOrDefault(one.Due.Aircraft.Id)?.Id,
                    works.GetValueOrDefault(one.Due.Aircraft.Id)?.Changes ?? 0, line) }
                : one)],
        };
    }

    private sealed record WorkRow(Guid Id, Guid AircraftId, bool InWork, DateOnly OpenedOn, int Changes);

    // The one in work, else the last inspection that was signed: a job or a survey doesn't take its place.
    private async Task<Dictionary<Guid, WorkRow>> WorksAsync(CancellationToken stop) =>
        (await db.Inspections.AsNoTracking().Where(work => work.State == InspectionState.InWork && work.Kind != InspectionKind.Survey)
            .Select(work => new WorkRow(work.Id, work.AircraftId, true, work.OpenedOn, work.Changes)).ToListAsync(stop))
        .Concat(await db.Inspections.AsNoTracking()
            .Where(work => work.State != InspectionState.InWork && work.Kind != InspectionKind.Job && work.Kind != InspectionKind.Survey)
            .GroupBy(work => work.AircraftId)
            .Select(all => new { AircraftId = all.Key, Last = all.Max(work => work.OpenedOn) })
            .Join(db.Inspections.Where(work => work.State != InspectionState.InWork && work.Kind != InspectionKind.Job
                    && work.Kind != InspectionKind.Survey),
                last => new { last.AircraftId, OpenedOn = last.Last },
                work => new { work.AircraftId, work.OpenedOn },
                (_, work) => new WorkRow(work.Id, work.AircraftId, false, work.OpenedOn, work.Changes)).ToListAsync(stop))
        .GroupBy(work => work.AircraftId)
        .ToDictionary(all => all.Key, all => all.OrderByDescending(work => work.InWork).ThenByDescending(work => work.OpenedOn)
            .ThenBy(work => work.Id).First());

    private async Task<Dictionary<Guid, HangarLine>> HangarAsync(IReadOnlyList<DueLine> lines, Dictionary<Guid, WorkRow> works,
        IReadOnlyDictionary<Guid, Person> people, CancellationToken stop)
    {
        var shown = lines.Where(line => works.ContainsKey(line.Aircraft.Id)).Select(line => works[line.Aircraft.Id])
            .ToLookup(work => work.InWork);
        var (open, signed) = (shown[true].Select(work => work.Id).ToList(), shown[false].Select(work => work.Id).ToList());
        // Of what is signed only what was left open counts.
        var inspections = (await db.Inspections.AsNoTracking().Include(work => work.Tasks).Include(work => work.Discrepancies)
            .Include(work => work.Readings).Include(work => work.CompressionTests).Where(work => open.Contains(work.Id)).ToListAsync(stop))
            .Concat(await db.Inspections.AsNoTracking().Include(work => work.Tasks).Include(work => work.Discrepancies)
                .Where(work => signed.Contains(work.Id)).ToListAsync(stop)).ToDictionary(work => work.AircraftId);
        var ids = lines.Select(line => line.Aircraft.Id).ToList();
        var items = (await db.OpenItems.AsNoTracking().Where(item => ids.Contains(item.AircraftId)).ToListAsync(stop))
            .ToLookup(item => item.AircraftId);
        return lines.ToDictionary(line => line.Aircraft.Id,
            line => HeldUp.Line(line.Aircraft, line, inspections.GetValueOrDefault(line.Aircraft.Id), [.. items[line.Aircraft.Id]],
                shelf.Weigh(line.Aircraft.Category, people, clock)));
    }

    private static FrozenDictionary<Guid, BulletinTally> TallyOf(IEnumerable<AircraftStanding> standing)
    {
        return standing.Where(one => !one.Due.Aircraft.OnlySurveyed)
            .SelectMany(one => one.Due.Research.Lines.Select(line => (one.Due.Aircraft.Id, line)))
            .GroupBy(pair => pair.line.Held.Id).ToFrozenDictionary(group => group.Key, group => new BulletinTally(
            Aircraft(group, line => line.Answer.Answer == RuleAnswer.Applies),
            Aircraft(group, line => line.Answer.Answer == RuleAnswer.CannotTell),
            Aircraft(group, line => line.Counts
                && line.State is BulletinState.Overdue or BulletinState.BeforeFlight or BulletinState.Soon)));

        static int Aircraft(IEnumerable<(Guid Id, BulletinLine Line)> lines, Func<BulletinLine, bool> which) =>
            lines.Where(pair => which(pair.Line)).Select(pair => pair.Id).Distinct().Count();
    }
}
