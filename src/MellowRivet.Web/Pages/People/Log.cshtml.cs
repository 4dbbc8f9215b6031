using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Handover;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.People;

/// <summary>The shop's log.</summary>
/// <param name="Lines">One page of it, latest first.</param>
/// <param name="Asked">What is looked for.</param>
/// <param name="People">Whom one may look for.</param>
public sealed record LogView(ListPage<LogLine> Lines, LogAsked Asked, IReadOnlyList<Person> People) : PageView
{
    /// <summary>What is looked for, as it stands in an address.</summary>
    public (string Name, string? Value)[] Query =>
        [("words", Asked.Words), ("deed", Asked.Deed?.ToString()), ("by", Asked.By?.ToString()),
            ("from", Asked.From?.ToString("yyyy-MM-dd")), ("to", Asked.To?.ToString("yyyy-MM-dd"))];
}

/// <summary>The log of who did what, for whoever manages the shop.</summary>
[Needs(Right.ManageShop)]
public sealed class LogModel(RivetDb db, TimeProvider clock) : ShopPage<LogView>
{
    private const int MostLines = 100;

    [FromQuery(Name = "words")]
    public string? Words { get; set; }

    [FromQuery(Name = "deed")]
    public Deed? Deed { get; set; }

    [FromQuery(Name = "by")]
    public Guid? By { get; set; }

    [FromQuery(Name = "from")]
    public DateOnly? From { get; set; }

    [FromQuery(Name = "to")]
    public DateOnly? To { get; set; }

    /// <summary>Which page of it, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    private LogAsked Asked =>
        new(Words?.Length > 100 ? Words[..100] : Words, Deed, By, From, To is { } to && to < DateOnly.MaxValue ? to : null);

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>All that is looked for, as a table.</summary>
    public async Task<IActionResult> OnGetCsvAsync(CancellationToken stop) => File(TableWriter.Write(
        (await db.LogAsync(Asked, clock, stop)).Select(line => new
        {
            number = line.Number,
            at = clock.Here(line.At).ToString("yyyy-MM-dd'T'HH:mm:sszzz"),
            who = line.Name,
            from = line.From,
            did = line.Deed.InWords(),
            about = line.About,
            before = line.Before,
            after = line.After,
        })), "text/csv", "log.csv");

    protected override async Task<LogView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var total = await db.CountLogAsync(Asked, clock, stop);
        var page = ListPage.At(total, PageTyped, MostLines);
        return new(new(await db.LogAsync(Asked, clock, stop, (page.At - 1) * MostLines, MostLines), page.At, page.Pages, total), Asked,
            await db.PeopleAsync(stop));
    }
}
