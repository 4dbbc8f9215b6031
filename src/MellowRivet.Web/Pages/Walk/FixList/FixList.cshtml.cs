using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.FixList;

/// <summary>Discrepancies that belong together, worst first.</summary>
public sealed record FindGroup(string Title, State? Key, string Anchor, IReadOnlyList<Discrepancy> Found);

/// <summary>The station of what was found: grouped, searched, compared with last time, taken on in bulk.</summary>
public sealed class FixListModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage(desk, db, frames)
{
    public override Station At => Station.FixList;

    [FromQuery]
    public GroupBy By { get; set; } = GroupBy.Class;

    [FromQuery]
    public FixListShow Show { get; set; } = FixListShow.All;

    [FromQuery(Name = "q")]
    public string? Sought { get; set; }

    public IReadOnlyList<FindGroup> Groups { get; private set; } = [];
    public Recurrence LastTime { get; private set; } = new(new Dictionary<Guid, Discrepancy>(), []);

    /// <summary>The work order of the inspection before; null where none is on file.</summary>
    public string? LastOrder { get; private set; }
    public Guid? LastId { get; private set; }
    public IReadOnlyDictionary<FixListShow, int> Counts { get; private set; } = new Dictionary<FixListShow, int>();

    /// <summary>What a change in bulk came to, or why it came to nothing.</summary>
    public IReadOnlyList<string> Said { get; private set; } = [];

    /// <summary>The numbers that were ticked in a change that didn't wholly go through, so that they stay ticked.</summary>
    public IReadOnlyList<int> Ticked { get; private set; } = [];
    public string? TypedWords { get; private set; }

    /// <summary>Where a row's discrepancy, and back from it, is.</summary>
    public string Query(GroupBy by, FixListShow show, string? sought) => QueryString.Create(new Dictionary<string, string?>
    {
        ["by"] = by == GroupBy.Class ? null : $"{by}",
        ["show"] = show == FixListShow.All ? null : $"{show}",
        ["q"] = string.IsNullOrWhiteSpace(sought) ? null : sought,
    }.Where(pair => pair.Value is not null)).ToString();

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>Takes all that are ticked a step on. Those that can't go are named and stay as they were.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostBulkAsync(Guid post, List<int> numbers, Disposition? to, DiscrepancyClass? @class, string? words,
        CancellationToken stop)
    {
        List<string> refused = [];
        var done = 0;
        var (rules, now) = (await RulesAsync(stop), clock.GetUtcNow());
        var written = await Desk.WriteAsync(Id, post, job =>
        {
            var ticked = job.Inspection.Discrepancies.Where(found => numbers.Contains(found.Number)).OrderBy(found => found.Number)
                .ToList();
            if (ticked.Count == 0)
                return new("bulk", "Tick those that it concerns first.");
            if ((to is null || !Enum.IsDefined(to.Value)) && (@class is null || !Enum.IsDefined(@class.Value)))
                return new("bulk", "Choose what to do with them.");
            foreach (var found in ticked)
                if ((to is { } way ? found.Move(way, words, job.Inspection.House, User.PersonId(), clock.GetUtcNow())
                    : found.Classify(new(@class!.Value, found.Grounded, User.PersonId(), now, words, null, rules(job.Aircraft)
                        .SignsBy(User.PersonId(), job.Inspection, job.Aircraft)), rules(job.Aircraft).Classes,
                        job.Inspection.Tasks.FirstOrDefault(task => task.Id == found.TaskId))) is { } refusal)
                    refused.Add($"{found.Number:00} {found.What}: {refusal.Message}");
                else
                    done++;
            return done == 0 ? new("bulk", $"None was changed. {string.Join(" ", refused)}") : null;
        }, stop);
        if (!await ShowAsync(stop))
            return NotFound();
        Said = written.Refusal is { } nothing
            ? [nothing.Message]
            : [$"{done} changed.", .. refused.Count == 0 ? [] : refused.Prepend($"{refused.Count} not:")];
        if (written.Refusal is not null || refused.Count > 0)
            (Ticked, TypedWords) = (numbers, words);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        var inspection = Job.Inspection;
        if (await Db.LastSignedAsync(inspection, stop) is { } last)
        {
            (LastOrder, LastId) = (last.WorkOrder, last.Id);
            LastTime = Recurrence.Of(inspection.Discrepancies, await Db.FoundAtAsync(last.Id, stop));
        }
        var me = User.PersonId();
        Counts = Enum.GetValues<FixListShow>()
            .ToDictionary(show => show, show => inspection.Discrepancies.Count(found => FixListRules.Belongs(found, show, me, LastTime)));
        var shown = FixListRules.WorstFirst(inspection.Discrepancies.Where(found => FixListRules.Belongs(found, Show, me, LastTime)
            && FixListRules.Holds(found, $"{inspection.WorkOrder}-{found.Number:00}", inspection.ZoneTitle(found.ZoneKey), Sought)));
        Groups = [.. By switch
        {
            GroupBy.Zone => shown.GroupBy(found => found.ZoneKey)
                .OrderBy(zone => inspection.Tasks.Where(task => task.ZoneKey == zone.Key).Select(task => task.Order)
                    .DefaultIfEmpty(int.MaxValue).Min())
                .Select(zone => new FindGroup(inspection.ZoneTitle(zone.Key), zone.Max(States.Of), $"zone-{zone.Key}", [.. zone])),
            GroupBy.Who => shown.GroupBy(found => NameOf(found.FoundBy)).OrderBy(who => who.Key, StringComparer.Ordinal)
                .Select(who => new FindGroup($"found by {who.Key}", null, "", [.. who])),
            GroupBy.State => shown.GroupBy(found => found.Disposition).OrderBy(state => state.Key)
                .Select(state => new FindGroup(state.Key.InWords(), null, "", [.. state])),
            GroupBy.LastTime => shown.GroupBy(LastTime.With).OrderBy(then => then.Key)
                .Select(then => new FindGroup(then.Key == Compared.Again ? $"again, as in {LastOrder}" : "new", null, "", [.. then])),
            _ => shown.GroupBy(States.Of).OrderByDescending(group => group.Key)
                .Select(group => new FindGroup(group.Key == State.Good ? "settled" : group.Key.Word(), group.Key, "", [.. group])),
        }];
        return true;
    }
}
