using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.FixList;

/// <summary>Discrepancies that belong together, worst first.</summary>
public sealed record FindGroup(string Title, State? Key, string Anchor, IReadOnlyList<Discrepancy> Found);

/// <summary>A change in bulk, as it is sent.</summary>
public sealed record BulkForm(IReadOnlyList<int> Numbers, string? Words);

/// <summary>How the fix list compares with the inspection before.</summary>
/// <param name="Compared">The two lists side by side.</param>
/// <param name="Order">The work order of the inspection before; null where none is on file.</param>
/// <param name="Id">That inspection.</param>
public sealed record LastList(Recurrence Compared, string? Order, Guid? Id)
{
    public static readonly LastList None = new(new(new Dictionary<Guid, Discrepancy>(), []), null, null);
}

/// <summary>What was found: grouped, searched, compared with last time.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="By">What it is grouped by.</param>
/// <param name="Show">Which are shown.</param>
/// <param name="Sought">What is searched for.</param>
/// <param name="Last">The inspection before.</param>
/// <param name="Counts">How many each choice has.</param>
/// <param name="Groups">The groups.</param>
/// <param name="Said">What a change in bulk came to, or why it came to nothing.</param>
public sealed record FixListView(WalkShown Walk, GroupBy By, FixListShow Show, string? Sought, LastList Last,
    IReadOnlyDictionary<FixListShow, int> Counts, IReadOnlyList<FindGroup> Groups, IReadOnlyList<string> Said) : WalkView(Walk)
{
    public override Station At => Station.FixList;

    public Recurrence LastTime => Last.Compared;
    public string? LastOrder => Last.Order;
    public Guid? LastId => Last.Id;

    /// <summary>The numbers that were ticked in a change that didn't wholly go through, so that they stay ticked.</summary>
    public IReadOnlyList<int> Ticked => Typed<BulkForm>()?.Numbers ?? [];
    public string? TypedWords => Typed<BulkForm>()?.Words;

    /// <summary>Where a row's discrepancy, and back from it, is.</summary>
    public static string Query(GroupBy by, FixListShow show, string? sought) => QueryString.Create(new Dictionary<string, string?>
    {
        ["by"] = by == GroupBy.Class ? null : $"{by}",
        ["show"] = show == FixListShow.All ? null : $"{show}",
        ["q"] = string.IsNullOrWhiteSpace(sought) ? null : sought,
    }.Where(pair => pair.Value is not null)).ToString();
}

/// <summary>The station of what was found: grouped, searched, compared with last time, taken on in bulk.</summary>
public sealed class FixListModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock) : WalkPage<FixListView>(desk, db, frames)
{
    private IReadOnlyList<string> said = [];

    [FromQuery]
    public GroupBy By { get; set; } = GroupBy.Class;

    [FromQuery]
    public FixListShow Show { get; set; } = FixListShow.All;

    [FromQuery(Name = "q")]
    public string? Sought { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Takes all that are ticked a step on. Those that can't go are named and stay as they were.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostBulkAsync(Guid post, List<int> numbers, Disposition? to, DiscrepancyClass? @class, string? words,
        CancellationToken stop)
    {
        var (rules, now) = (await RulesAsync(stop), clock.GetUtcNow());
        BulkChange? change = null;
        var written = await Desk.WriteAsync(Id, post, job =>
        {
            var shop = rules(job.Aircraft);
            change = job.Inspection.Change(numbers, to, @class, words, shop.SignsBy(Me, job.Inspection, job.Aircraft), shop.Classes,
                Me, now);
            return change.Refusal;
        }, stop);
        said = written.Refusal is { } nothing ? [nothing.Message] : change?.InWords ?? ["0 changed."];
        var stays = written.Refusal is not null || change is { Refused.Count: > 0 };
        return await ShowAsync(stop, stays ? new(new BulkForm(numbers, words), []) : null);
    }

    protected override async Task<FixListView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var inspection = walk.Job.Inspection;
        var last = LastList.None;
        if (await Db.LastSignedAsync(inspection, stop) is { } signed)
            last = new(Recurrence.Of(inspection.Discrepancies, await Db.FoundAtAsync(signed.Id, stop)), signed.WorkOrder, signed.Id);
        bool Belongs(Discrepancy found, FixListShow show) => FixListRules.Belongs(found, show, Me, last.Compared);
        var shown = FixListRules.WorstFirst(inspection.Discrepancies.Where(found => Belongs(found, Show)
            && FixListRules.Holds(found, $"{inspection.WorkOrder}-{found.Number:00}", inspection.ZoneTitle(found.ZoneKey), Sought)));
        var view = new FixListView(walk, By, Show, Sought, last,
            Enum.GetValues<FixListShow>().ToDictionary(show => show, show => inspection.Discrepancies.Count(found => Belongs(found, show))),
            [], said);
        return view with { Groups = [.. Grouped(view, shown)] };
    }

    private IEnumerable<FindGroup> Grouped(FixListView view, IEnumerable<Discrepancy> shown)
    {
        var inspection = view.Job.Inspection;
        return By switch
        {
            GroupBy.Zone => shown.GroupBy(found => found.ZoneKey)
                .OrderBy(zone => inspection.Tasks.Where(task => task.ZoneKey == zone.Key).Select(task => task.Order)
                    .DefaultIfEmpty(int.MaxValue).Min())
                .Select(zone => new FindGroup(inspection.ZoneTitle(zone.Key), zone.Max(States.Of), $"zone-{zone.Key}", [.. zone])),
            GroupBy.Who => shown.GroupBy(found => view.NameOf(found.FoundBy)).OrderBy(who => who.Key, StringComparer.Ordinal)
                .Select(who => new FindGroup($"found by {who.Key}", null, "", [.. who])),
            GroupBy.State => shown.GroupBy(found => found.Disposition).OrderBy(state => state.Key)
                .Select(state => new FindGroup(state.Key.InWords(), null, "", [.. state])),
            GroupBy.LastTime => shown.GroupBy(view.LastTime.With).OrderBy(then => then.Key)
                .Select(then => new FindGroup(then.Key == Compared.Again ? $"again, as in {view.LastOrder}" : "new", null, "", [.. then])),
            _ => shown.GroupBy(States.Of).OrderByDescending(group => group.Key)
                .Select(group => new FindGroup(group.Key == State.Good ? "settled" : group.Key.Word(), group.Key, "", [.. group])),
        };
    }
}
