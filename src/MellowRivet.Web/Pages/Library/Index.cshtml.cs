using System.Text;
using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Library;

/// <summary>One bulletin with how it falls on the shop.</summary>
public sealed record ShopLine(ShopBulletin Held, ShopBulletin? SupersededBy, BulletinTally On, IReadOnlyList<UnsettledName> Unsettled);

/// <summary>Which bulletins of the shop are shown.</summary>
public enum BulletinFilter { All = 1, Open, CannotTell, New, Unsettled, Superseded }

/// <summary>The shop's bulletins: what came, how it falls on the aircraft, the service, files.</summary>
[Needs(Right.Look)]
public sealed class ShopBulletinsModel(RivetDb db, ShopBoard board, BulletinPost post, IBulletinService service, TimeProvider clock)
    : PageModel
{
    private const int MostLines = 40;

    [FromQuery(Name = "only")]
    public BulletinFilter Only { get; set; } = BulletinFilter.All;

    [FromQuery(Name = "q")]
    public string? Words { get; set; }

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    public ListPage<ShopLine> Shown { get; private set; } = new([], 1, 1, 0);
    public IReadOnlyDictionary<BulletinFilter, int> Counts { get; private set; } = new Dictionary<BulletinFilter, int>();
    public FeedState? Feed { get; private set; }
    public string Service => service.Name;
    public int Aircraft { get; private set; }

    /// <summary>What an import or the service brought, in words.</summary>
    [FromQuery(Name = "said")]
    public string? Said { get; set; }

    private DateOnly Today => clock.Today();

    public Task OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Asks the service now.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostAskAsync(CancellationToken stop)
    {
        await post.AskAsync(stop);
        return Redirect("/bulletins?only=New");
    }

    /// <summary>Takes in a file, JSON or CSV, checked whole before any of it is.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostImportAsync(Guid post, IFormFile? file, CancellationToken stop)
    {
        if (file is null || file.Length is 0 or > BulletinFile.MostBytes)
            return await RefusedAsync(new("file", file is null ? "Choose a file." : file.Length == 0
                ? "The file is empty."
                : $"The file is larger than {BulletinFile.MostBytes / 1024 / 1024} MB."), stop);
        using var memory = new MemoryStream();
        await file.CopyToAsync(memory, stop);
        var bytes = memory.ToArray();
        var isJson = bytes.AsSpan().TrimStart("\uFEFF \t\r\n"u8) is [(byte)'{' or (byte)'[', ..];
        var (read, fault) = isJson ? BulletinFile.Read(Encoding.UTF8.GetString(bytes).TrimStart('\uFEFF')) : BulletinCsv.Read(bytes);
        if (fault is not null)
            return await RefusedAsync(new("file", fault), stop);
        TakenIn? taken = null;
        var written = await db.OnceAsync(post, clock, async () =>
        {
            taken = await db.TakeInAsync(read, "a file", User.PersonId(), clock.GetUtcNow(), stop);
            return null;
        }, stop);
        var said = taken is null
            ? "taken in already"
            : $"{taken.OnTheShop((await board.NowAsync(stop)).Lines, await db.TypeListAsync(stop))}"
            + $"{(taken.Known > 0 ? $"; {taken.Known} were here already and stay as they are" : "")}";
        return written.Done ? Redirect($"/bulletins?said={Uri.EscapeDataString(said)}") : await RefusedAsync(written.Refusal!, stop);
    }

    private async Task<IActionResult> RefusedAsync(Refusal refusal, CancellationToken stop)
    {
        ModelState.AddModelError(refusal.Field, refusal.Message);
        await ShowAsync(stop);
        return Page();
    }

    private async Task ShowAsync(CancellationToken stop)
    {
        var now = await board.NowAsync(stop);
        var (list, tally) = (now.Bulletins, now.Tally);
        Aircraft = now.Aircraft.Count;
        Feed = await db.FeedAsync(service.Name, stop);
        // What came last: the day of the latest, and whatever came with it.
        var latest = list.All.Select(held => held.ReceivedAt).DefaultIfEmpty().Max();
        bool IsNew(ShopBulletin held) => held.ReceivedAt >= latest.AddMinutes(-5);
        var all = list.All.Select(
            held => new ShopLine(held, list.SupersededBy(held), tally.GetValueOrDefault(held.Id, BulletinTally.Nowhere),
                list.UnsettledIn(held))).ToList();
        bool Is(ShopLine line, BulletinFilter filter) => filter switch
        {
            BulletinFilter.Open => line.SupersededBy is null && line.On.Due > 0,
            BulletinFilter.CannotTell => line.SupersededBy is null && line.On.CannotTell > 0,
            BulletinFilter.New => IsNew(line.Held),
            BulletinFilter.Unsettled => line.SupersededBy is null && line.Unsettled.Count > 0,
            BulletinFilter.Superseded => line.SupersededBy is not null,
            _ => true,
        };
        Counts = Enum.GetValues<BulletinFilter>().ToDictionary(filter => filter, filter => all.Count(line => Is(line, filter)));
        var words = (Words ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var wanted = all.Where(line => Is(line, Only)
            && Names(line.Held.Bulletin) is var names && words.All(word => names.Contains(word, StringComparison.OrdinalIgnoreCase)))
            .OrderByDescending(line => line.SupersededBy is null).ThenByDescending(line => line.On.Due)
            .ThenByDescending(line => line.On.CannotTell).ThenByDescending(line => line.Held.Bulletin.Effective).ToList();
        Shown = ListPage.Of(wanted, PageTyped, MostLines);
    }
    // What the words that are looked for may stand in.
    private static string Names(Bulletin bulletin) =>
        $"{bulletin.Issuer} {bulletin.Title} {bulletin.Subject} {bulletin.Kind.InWords()}";
}
